"""A production is made once, however often the same request is sent."""

from alembic import op
import sqlalchemy as sa

revision = '0017'
down_revision = '0016'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('production', sa.Column('asked_key', sa.Text(), nullable=True))
    op.create_unique_constraint(op.f('uq_production_asked_key'), 'production', ['asked_key'])


def downgrade() -> None:
    op.drop_constraint(op.f('uq_production_asked_key'), 'production')
    op.drop_column('production', 'asked_key')
