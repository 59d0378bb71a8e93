"""Sensitivities and built-in ND of bodies, ND filters, comparisons; a change of settings renews the stamp."""

from typing import Any

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0005'
down_revision = '0004'
branch_labels = None
depends_on = None

LISTS: dict[str, Any] = {'eis': sa.BigInteger(), 'base_eis': sa.BigInteger(), 'nd_stops': sa.Double()}
STAMPING = ('nd_filter', 'production')


def upgrade() -> None:
    for name, kind in LISTS.items():
        op.add_column('body', sa.Column(name, postgresql.ARRAY(kind), nullable=False, server_default='{}'))
        op.alter_column('body', name, server_default=None)
    op.create_table('nd_filter',
    sa.Column('rig_id', sa.BigInteger(), nullable=False),
    sa.Column('stops', sa.Float(), nullable=False),
    sa.Column('count', sa.BigInteger(), nullable=False),
    sa.Column('key', sa.Text(), nullable=False),
    sa.Column('origins', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('removed', sa.Boolean(), server_default=sa.text('false'), nullable=False),
    sa.Column('position', sa.BigInteger(), nullable=False),
    sa.Column('name', sa.Text(), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.CheckConstraint('count > 0', name=op.f('ck_nd_filter_count_positive')),
    sa.CheckConstraint('stops > 0', name=op.f('ck_nd_filter_stops_positive')),
    sa.ForeignKeyConstraint(['rig_id'], ['rig.id'], name=op.f('fk_nd_filter_rig_id_rig'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_nd_filter')),
    sa.UniqueConstraint('rig_id', 'key', name=op.f('uq_nd_filter_rig_id_key'))
    )
    op.create_index(op.f('ix_nd_filter_rig_id'), 'nd_filter', ['rig_id'], unique=False)
    op.create_table('comparison',
    sa.Column('production_id', sa.BigInteger(), nullable=False),
    sa.Column('position', sa.BigInteger(), nullable=False),
    sa.Column('removed', sa.Boolean(), server_default=sa.text('false'), nullable=False),
    sa.Column('document', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_comparison_production_id_production'),
                            ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_comparison'))
    )
    op.create_index(op.f('ix_comparison_production_id'), 'comparison', ['production_id'], unique=False)
    for table in STAMPING:
        op.execute(f"""
            create trigger stamp_equipment after insert or update or delete or truncate on {table}
            for each statement execute function stamp_equipment()
        """)


def downgrade() -> None:
    op.execute('drop trigger stamp_equipment on production')
    op.drop_table('comparison')
    op.drop_table('nd_filter')
    for name in LISTS:
        op.drop_column('body', name)
