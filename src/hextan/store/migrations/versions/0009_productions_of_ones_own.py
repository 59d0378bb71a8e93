"""Productions have days, can be archived, and know when they were last changed; the demo has a shelf of its own."""

from alembic import op
import sqlalchemy as sa

revision = '0009'
down_revision = '0008'
branch_labels = None
depends_on = None

#: What changes a production without changing its equipment.
BESIDES = ('bench', 'comparison')
STAMP = """
    create or replace function stamp_equipment() returns trigger language plpgsql as $$
    begin
        execute 'insert into equipment_stamp select p.id, gen_random_uuid() from production p where p.id in ('
            || tg_argv[0] || ') order by p.id on conflict (production_id) do update set stamp = excluded.stamp{more}';
        return null;
    end $$
"""


def upgrade() -> None:
    for day in ('starts_on', 'ends_on'):
        op.add_column('production', sa.Column(day, sa.Text(), server_default='', nullable=False))
    op.add_column('production', sa.Column('archived', sa.Boolean(), server_default=sa.false(), nullable=False))
    op.add_column('equipment_stamp', sa.Column('changed_at', sa.DateTime(timezone=True), server_default=sa.func.now(),
                                               nullable=False))
    op.execute(STAMP.format(more=', changed_at = clock_timestamp()'))
    op.execute("""
        create function touch_production() returns trigger language plpgsql as $$
        begin
            update equipment_stamp set changed_at = clock_timestamp() where production_id in (select production_id from changed);
            return null;
        end $$
    """)
    for table in BESIDES:
        for event in ('insert', 'update'):
            op.execute(f"""
                create trigger touch_on_{event} after {event} on {table} referencing new table as changed
                for each statement execute function touch_production()
            """)
    # The shelf of an installation that has the demo is the demo's; its own begins empty.
    op.execute("""
        update production set demo_key = 'low-water-catalogue' where demo_key = 'catalogue'
        and exists (select from production where demo_key = 'low-water')
    """)


def downgrade() -> None:
    op.execute("delete from production where demo_key = 'catalogue' "
               "and exists (select from production where demo_key = 'low-water-catalogue')")
    op.execute("update production set demo_key = 'catalogue' where demo_key = 'low-water-catalogue'")
    op.execute('drop function touch_production() cascade')
    op.execute(STAMP.format(more=''))
    op.drop_column('equipment_stamp', 'changed_at')
    for column in ('archived', 'ends_on', 'starts_on'):
        op.drop_column('production', column)
