"""The log of the days, entry by entry, and the cameras that are listened to."""

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0015'
down_revision = '0014'
branch_labels = None
depends_on = None

TABLES = ('log_entry', 'set_settings')


def upgrade() -> None:
    op.create_table('log_entry',
    sa.Column('production_id', sa.BigInteger(), nullable=False),
    sa.Column('key', sa.Text(), nullable=False),
    sa.Column('entry', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('before', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_log_entry_production_id_production'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_log_entry')),
    sa.UniqueConstraint('production_id', 'key', name=op.f('uq_log_entry_production_id_key'))
    )
    op.create_index(op.f('ix_log_entry_production_id'), 'log_entry', ['production_id'], unique=False)
    op.create_table('set_settings',
    sa.Column('production_id', sa.BigInteger(), nullable=False),
    sa.Column('document', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_set_settings_production_id_production'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_set_settings')),
    sa.UniqueConstraint('production_id', name=op.f('uq_set_settings_production_id'))
    )
    op.create_index(op.f('ix_set_settings_production_id'), 'set_settings', ['production_id'], unique=False)
    for table in TABLES:
        for event in ('insert', 'update'):
            op.execute(f"""
                create trigger touch_on_{event} after {event} on {table} referencing new table as changed
                for each statement execute function touch_production()
            """)


def downgrade() -> None:
    for table in TABLES:
        op.drop_table(table)
