"""What formats need, what menus say, slots, weights, gain, correction of distortion, and notes on pairs."""

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0011'
down_revision = '0010'
branch_labels = None
depends_on = None

OWNER = 'select r.production_id from changed c join rig r on r.id = c.rig_id'
CROPS = ('any', 'spherical', 'short_circle')


def _crops(*kinds: str) -> None:
    op.drop_constraint(op.f('ck_in_camera_crop_lens_known'), 'in_camera_crop')
    told = ', '.join(f"'{kind}'" for kind in kinds)
    op.create_check_constraint(op.f('ck_in_camera_crop_lens_known'), 'in_camera_crop', f'lens in ({told})')


def upgrade() -> None:
    op.add_column('body', sa.Column('zero_db_ei', sa.BigInteger(), nullable=True))
    op.add_column('body', sa.Column('slots', sa.BigInteger(), server_default='1', nullable=False))
    op.add_column('body', sa.Column('slot_use', sa.Text(), server_default='after', nullable=False))
    op.add_column('body', sa.Column('weight_kg', sa.Float(), nullable=True))
    op.add_column('body', sa.Column('size_mm', postgresql.ARRAY(sa.Double()), nullable=True))
    for column in ('zero_db_ei', 'slots', 'weight_kg'):
        op.create_check_constraint(op.f(f'ck_body_{column}_positive'), 'body', f'{column} > 0')
    op.create_check_constraint(op.f('ck_body_slot_use_known'), 'body', "slot_use in ('after', 'both', 'proxy')")
    for table in ('scan_mode', 'in_camera_crop'):
        op.add_column(table, sa.Column('menu', postgresql.JSONB(), server_default='{}', nullable=False))
    op.add_column('recording_format', sa.Column('needs', postgresql.ARRAY(sa.Text()), server_default='{}', nullable=False))
    op.add_column('recording_format', sa.Column('from_firmware', sa.Text(), nullable=True))
    for column in ('correction', 'correction_long'):
        op.add_column('lens', sa.Column(column, sa.Float(), nullable=True))
        op.create_check_constraint(op.f(f'ck_lens_{column}_crops'), 'lens', f'{column} >= 1')
    _crops(*CROPS, 'corrected')
    op.create_table('pair_note',
    sa.Column('rig_id', sa.BigInteger(), nullable=False),
    sa.Column('body', sa.Text(), nullable=False),
    sa.Column('note', sa.Text(), nullable=False),
    sa.Column('key', sa.Text(), nullable=False),
    sa.Column('origins', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('removed', sa.Boolean(), server_default=sa.text('false'), nullable=False),
    sa.Column('position', sa.BigInteger(), nullable=False),
    sa.Column('name', sa.Text(), nullable=False),
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.CheckConstraint("note <> ''", name=op.f('ck_pair_note_note_given')),
    sa.ForeignKeyConstraint(['rig_id'], ['rig.id'], name=op.f('fk_pair_note_rig_id_rig'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_pair_note')),
    sa.UniqueConstraint('rig_id', 'key', name=op.f('uq_pair_note_rig_id_key'))
    )
    op.create_index(op.f('ix_pair_note_rig_id'), 'pair_note', ['rig_id'], unique=False)
    for event, side in {'insert': 'new', 'update': 'new', 'delete': 'old'}.items():
        op.execute(f"""
            create trigger stamp_on_{event} after {event} on pair_note
            referencing {side} table as changed
            for each statement execute function stamp_equipment('{OWNER}')
        """)


def downgrade() -> None:
    op.drop_table('pair_note')
    op.execute("delete from in_camera_crop where lens = 'corrected'")
    _crops(*CROPS)
    for column in ('correction_long', 'correction'):
        op.drop_column('lens', column)
    for column in ('from_firmware', 'needs'):
        op.drop_column('recording_format', column)
    for table in ('in_camera_crop', 'scan_mode'):
        op.drop_column(table, 'menu')
    for column in ('size_mm', 'weight_kg', 'slot_use', 'slots', 'zero_db_ei'):
        op.drop_column('body', column)
