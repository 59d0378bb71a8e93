"""Bits and samples of a recording format may be unknown."""

from alembic import op
import sqlalchemy as sa

revision = '0010'
down_revision = '0009'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.alter_column('recording_format', 'bits', existing_type=sa.BigInteger(), nullable=True)
    op.alter_column('recording_format', 'samples', existing_type=sa.Text(), nullable=True)


def downgrade() -> None:
    # What was assumed before.
    op.execute("update recording_format set bits = 10 where bits is null")
    op.execute("update recording_format set samples = case when raw then 'raw' else '4:2:2' end where samples is null")
    op.alter_column('recording_format', 'bits', existing_type=sa.BigInteger(), nullable=False)
    op.alter_column('recording_format', 'samples', existing_type=sa.Text(), nullable=False)
