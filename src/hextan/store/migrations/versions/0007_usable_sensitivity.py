"""The highest sensitivity at which a body is said to be usable."""

from alembic import op
import sqlalchemy as sa

revision = '0007'
down_revision = '0006'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('body', sa.Column('highest_ei', sa.BigInteger(), nullable=True))
    op.create_check_constraint(op.f('ck_body_highest_ei_positive'), 'body', 'highest_ei > 0')


def downgrade() -> None:
    op.drop_constraint(op.f('ck_body_highest_ei_positive'), 'body')
    op.drop_column('body', 'highest_ei')
