"""What is said of packing, and the kits of a production, as one document."""

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0013'
down_revision = '0012'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table('packing',
    sa.Column('production_id', sa.BigInteger(), nullable=False),
    sa.Column('document', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_packing_production_id_production'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_packing')),
    sa.UniqueConstraint('production_id', name=op.f('uq_packing_production_id'))
    )
    op.create_index(op.f('ix_packing_production_id'), 'packing', ['production_id'], unique=False)
    for event in ('insert', 'update'):
        op.execute(f"""
            create trigger touch_on_{event} after {event} on packing referencing new table as changed
            for each statement execute function touch_production()
        """)


def downgrade() -> None:
    op.drop_table('packing')
