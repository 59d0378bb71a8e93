"""The sheets of a production, as one document."""

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0014'
down_revision = '0013'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table('sheets',
    sa.Column('production_id', sa.BigInteger(), nullable=False),
    sa.Column('document', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_sheets_production_id_production'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_sheets')),
    sa.UniqueConstraint('production_id', name=op.f('uq_sheets_production_id'))
    )
    op.create_index(op.f('ix_sheets_production_id'), 'sheets', ['production_id'], unique=False)
    for event in ('insert', 'update'):
        op.execute(f"""
            create trigger touch_on_{event} after {event} on sheets referencing new table as changed
            for each statement execute function touch_production()
        """)


def downgrade() -> None:
    op.drop_table('sheets')
