"""A stamp that is new after every change of equipment, so that a loaded package can be kept."""

from alembic import op
import sqlalchemy as sa

revision = '0002'
down_revision = '0001'
branch_labels = None
depends_on = None

EQUIPMENT = ('body', 'scan_mode', 'recording_format', 'in_camera_crop', 'crop_in_mode', 'lens_set', 'lens', 'adapter')


def upgrade() -> None:
    op.create_table('equipment_stamp',
    sa.Column('id', sa.BigInteger(), autoincrement=False, nullable=False),
    sa.Column('stamp', sa.Uuid(), nullable=False),
    sa.CheckConstraint('id = 1', name=op.f('ck_equipment_stamp_one_row')),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_equipment_stamp'))
    )
    op.execute('insert into equipment_stamp values (1, gen_random_uuid())')
    op.execute("""
        create function stamp_equipment() returns trigger language plpgsql as $$
        begin update equipment_stamp set stamp = gen_random_uuid(); return null; end $$
    """)
    for table in EQUIPMENT:
        op.execute(f"""
            create trigger stamp_equipment after insert or update or delete or truncate on {table}
            for each statement execute function stamp_equipment()
        """)


def downgrade() -> None:
    for table in EQUIPMENT:
        op.execute(f'drop trigger stamp_equipment on {table}')
    op.execute('drop function stamp_equipment()')
    op.drop_table('equipment_stamp')
