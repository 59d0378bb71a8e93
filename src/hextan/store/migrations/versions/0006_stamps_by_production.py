"""A stamp of equipment for each production: a write to one leaves the others' loaded packages and writers alone."""

from alembic import op
import sqlalchemy as sa

revision = '0006'
down_revision = '0005'
branch_labels = None
depends_on = None

#: By table: whose equipment the changed rows are. A statement's rows are `changed`.
OWNERS = {
    'production': 'select c.id as production_id from changed c',
    'body': 'select c.production_id from changed c',
    'scan_mode': 'select b.production_id from changed c join body b on b.id = c.body_id',
    'recording_format': 'select b.production_id from changed c join scan_mode m on m.id = c.scan_mode_id '
                        'join body b on b.id = m.body_id',
    'in_camera_crop': 'select b.production_id from changed c join body b on b.id = c.body_id',
    'crop_rule': 'select b.production_id from changed c join in_camera_crop k on k.id = c.crop_id '
                 'join body b on b.id = k.body_id',
    'lens_set': 'select c.production_id from changed c',
    'lens': 'select s.production_id from changed c join lens_set s on s.id = c.lens_set_id',
    'rig': 'select c.production_id from changed c',
    'mount': 'select r.production_id from changed c join rig r on r.id = c.rig_id',
    'adapter': 'select r.production_id from changed c join rig r on r.id = c.rig_id',
    'nd_filter': 'select r.production_id from changed c join rig r on r.id = c.rig_id',
}
#: Which of a statement's tables holds its rows.
EVENTS = {'insert': 'new', 'update': 'new', 'delete': 'old'}


def upgrade() -> None:
    op.execute('drop function stamp_equipment() cascade')
    op.drop_table('equipment_stamp')
    op.create_table('equipment_stamp',
    sa.Column('production_id', sa.BigInteger(), autoincrement=False, nullable=False),
    sa.Column('stamp', sa.Uuid(), nullable=False),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'],
                            name=op.f('fk_equipment_stamp_production_id_production'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('production_id', name=op.f('pk_equipment_stamp'))
    )
    op.execute('insert into equipment_stamp select id, gen_random_uuid() from production')
    op.execute("""
        create function stamp_equipment() returns trigger language plpgsql as $$
        begin
            execute 'insert into equipment_stamp select p.id, gen_random_uuid() from production p where p.id in ('
                || tg_argv[0] || ') order by p.id on conflict (production_id) do update set stamp = excluded.stamp';
            return null;
        end $$
    """)
    for table, owner in OWNERS.items():
        for event, side in EVENTS.items():
            op.execute(f"""
                create trigger stamp_on_{event} after {event} on {table}
                referencing {side} table as changed
                for each statement execute function stamp_equipment('{owner}')
            """)


def downgrade() -> None:
    op.execute('drop function stamp_equipment() cascade')
    op.drop_table('equipment_stamp')
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
    for table in OWNERS:
        if table in ('rig', 'mount'):
            continue
        op.execute(f"""
            create trigger stamp_equipment after insert or update or delete or truncate on {table}
            for each statement execute function stamp_equipment()
        """)
