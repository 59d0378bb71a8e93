"""The list of shots of a production, as one document."""

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0012'
down_revision = '0011'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table('shots',
    sa.Column('production_id', sa.BigInteger(), nullable=False),
    sa.Column('document', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_shots_production_id_production'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_shots')),
    sa.UniqueConstraint('production_id', name=op.f('uq_shots_production_id'))
    )
    op.create_index(op.f('ix_shots_production_id'), 'shots', ['production_id'], unique=False)
    for event in ('insert', 'update'):
        op.execute(f"""
            create trigger touch_on_{event} after {event} on shots referencing new table as changed
            for each statement execute function touch_production()
        """)


def downgrade() -> None:
    op.drop_table('shots')
