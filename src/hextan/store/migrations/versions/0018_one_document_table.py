"""Everything that people write is a row of one table, `document`; what it was before is one of `revision`.

Going up keeps every row, its number and its version, and the history of the log. Going down keeps them as well; revisions of anything
but the log, and rules of crops in scan modes that were taken out, have no place in the older tables.
"""

from pathlib import Path
from runpy import run_path

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0018'
down_revision = '0017'
branch_labels = None
depends_on = None

#: Columns of the older tables that say where a row stands, not what it says.
PLACE = ('id', 'version', 'production_id', 'key', 'position', 'removed')

#: Kind, its older table, the column that leads to the row above, and what the document says otherwise than the columns do.
KINDS = [
    ('body', 'body', None,
     ('photosites_w', 'photosites_h', 'total_photosites_w', 'total_photosites_h', 'catalogue_body_id', 'taken'),
     "jsonb_build_object('schema', 'hextan.body', 'schema_version', 2, 'photosites', jsonb_build_array(t.photosites_w, t.photosites_h), "
     "'total_photosites', case when t.total_photosites_w is null or t.total_photosites_h is null then null "
     "else jsonb_build_array(t.total_photosites_w, t.total_photosites_h) end)"),
    ('body.modes', 'scan_mode', 'body_id',
     ('body_id', 'window_w', 'window_h', 'window_w_mm', 'window_h_mm', 'offset_x', 'offset_y', 'sampling_h', 'sampling_v',
      'method_h', 'method_v'),
     "jsonb_build_object('window', case when t.window_w_mm is null or t.window_h_mm is null then jsonb_build_array(t.window_w, t.window_h) end, "
     "'window_mm', case when t.window_w_mm is null or t.window_h_mm is null then null else jsonb_build_array(t.window_w_mm, t.window_h_mm) end, "
     "'offset', jsonb_build_array(t.offset_x, t.offset_y), 'sampling', jsonb_build_array(t.sampling_h, t.sampling_v), "
     "'methods', jsonb_build_array(t.method_h, t.method_v))"),
    ('body.modes.formats', 'recording_format', 'scan_mode_id', ('scan_mode_id', 'raster_w', 'raster_h', 'mapping'),
     "jsonb_build_object('raster', jsonb_build_array(t.raster_w, t.raster_h), 'map', t.mapping)"),
    ('body.crops', 'in_camera_crop', 'body_id', ('body_id',),
     "jsonb_build_object('rules', coalesce((select jsonb_agg(jsonb_build_object('mode', m.key, 'factor', r.factor, 'aspect', "
     "case when r.aspect_w is null then null else jsonb_build_array(r.aspect_w, r.aspect_h) end) order by r.position) "
     "from crop_rule r join scan_mode m on m.id = r.scan_mode_id where r.crop_id = t.id and not m.removed), '[]'))"),
    ('lens_set', 'lens_set', None, ('catalogue_lens_set_id', 'taken'),
     "jsonb_build_object('schema', 'hextan.lens_set', 'schema_version', 1)"),
    ('lens_set.lenses', 'lens', 'lens_set_id', ('lens_set_id',), "'{}'"),
    ('rig.mounts', 'mount', 'rig_id', ('rig_id',), "'{}'"),
    ('rig.adapters', 'adapter', 'rig_id', ('rig_id',), "'{}'"),
    ('rig.filters', 'nd_filter', 'rig_id', ('rig_id',), "'{}'"),
    ('rig.pairs', 'pair_note', 'rig_id', ('rig_id',), "'{}'"),
]
#: Documents of which a production has one, and what is a row of its own in them.
SINGLE = [('shots', 'shots', 'shots'), ('packing', 'packing', 'kits'), ('sheets', 'sheets', 'bundles'), ('set', 'set_settings', None)]
COLUMNS = 'number, production_id, kind, key, position, version, removed_at, body, parent_id, root_id'


def upgrade() -> None:
    _make_tables()
    _move_equipment()
    _move_documents()
    _move_log()
    for table in ('crop_rule', 'recording_format', 'scan_mode', 'in_camera_crop', 'body', 'lens', 'lens_set', 'mount', 'adapter',
                  'nd_filter', 'pair_note', 'rig', 'comparison', 'bench', 'shots', 'packing', 'sheets', 'set_settings', 'log_entry'):
        op.drop_table(table)
    op.drop_column('production', 'settings')
    for day in ('starts_on', 'ends_on'):
        op.execute(f"alter table production alter {day} drop default, alter {day} drop not null, "
                   f"alter {day} type date using nullif({day}, '')::date")
    op.execute("update document set changed_at = s.changed_at from equipment_stamp s where s.production_id = document.production_id")
    op.execute("select setval('document_id_seq', greatest((select max(greatest(id, number)) from document), 1))")
    _make_triggers()


def _make_tables() -> None:
    op.create_table('document',
    sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
    sa.Column('number', sa.BigInteger(), nullable=False),
    sa.Column('production_id', sa.BigInteger(), nullable=False),
    sa.Column('kind', sa.Text(), nullable=False),
    sa.Column('key', sa.Text(), nullable=False),
    sa.Column('position', sa.BigInteger(), nullable=False),
    sa.Column('version', sa.BigInteger(), nullable=False),
    sa.Column('removed_at', sa.DateTime(timezone=True), nullable=True),
    sa.Column('changed_at', sa.DateTime(timezone=True), server_default=sa.text('now()'), nullable=False),
    sa.Column('body', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('parent_id', sa.BigInteger(), nullable=True),
    sa.Column('root_id', sa.BigInteger(), nullable=True),
    sa.Column('source_id', sa.BigInteger(), nullable=True),
    sa.Column('taken', postgresql.JSONB(astext_type=sa.Text()), nullable=True),
    sa.CheckConstraint("jsonb_typeof(body) = 'object'", name=op.f('ck_document_body_is_an_object')),
    sa.CheckConstraint("(parent_id is null) = (root_id is null)", name=op.f('ck_document_below_a_root')),
    sa.CheckConstraint("version > 0", name=op.f('ck_document_version_positive')),
    sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_document_production_id_production'), ondelete='CASCADE'),
    sa.ForeignKeyConstraint(['parent_id'], ['document.id'], name=op.f('fk_document_parent_id_document'), ondelete='CASCADE'),
    sa.ForeignKeyConstraint(['root_id'], ['document.id'], name=op.f('fk_document_root_id_document'), ondelete='CASCADE'),
    sa.ForeignKeyConstraint(['source_id'], ['document.id'], name=op.f('fk_document_source_id_document'), ondelete='SET NULL'),
    sa.PrimaryKeyConstraint('id', name=op.f('pk_document')),
    sa.UniqueConstraint('kind', 'number', name=op.f('uq_document_kind_number'))
    )
    op.create_index('ix_document_production_id_kind', 'document', ['production_id', 'kind'])
    op.create_index('ix_document_parent_id', 'document', ['parent_id'])
    op.create_index('ix_document_root_id', 'document', ['root_id'])
    op.create_index('ix_document_source_id', 'document', ['source_id'])
    op.create_index('uq_document_one_of_a_kind', 'document', ['production_id', 'kind'], unique=True,
                    postgresql_where=sa.text("key = ''"))
    op.create_index('uq_document_entry_key', 'document', ['production_id', 'key'], unique=True,
                    postgresql_where=sa.text("kind = 'log_entry'"))
    op.create_index('uq_document_key_below_root', 'document', ['root_id', 'kind', 'key'], unique=True,
                    postgresql_where=sa.text("removed_at is null and root_id is not null"))
    op.create_table('revision',
    sa.Column('document_id', sa.BigInteger(), autoincrement=False, nullable=False),
    sa.Column('version', sa.BigInteger(), autoincrement=False, nullable=False),
    sa.Column('parent_id', sa.BigInteger(), nullable=True),
    sa.Column('position', sa.BigInteger(), nullable=False),
    sa.Column('removed_at', sa.DateTime(timezone=True), nullable=True),
    sa.Column('changed_at', sa.DateTime(timezone=True), nullable=False),
    sa.Column('body', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.ForeignKeyConstraint(['document_id'], ['document.id'], name=op.f('fk_revision_document_id_document'), ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('document_id', 'version', name=op.f('pk_revision'))
    )


def _move_equipment() -> None:
    op.execute(f"insert into document ({COLUMNS}) select r.id, r.production_id, 'rig', '', 0, r.version, null, "
               "jsonb_build_object('schema', 'hextan.rig', 'schema_version', 1), null, null from rig r")
    for kind, table, above, besides, otherwise in KINDS:
        left = ', '.join(f"'{name}'" for name in (*PLACE, *besides))
        parent = f"join document p on p.kind = '{kind.rpartition('.')[0]}' and p.number = t.{above}" if above else ''
        of, parent_id, root_id = ('p.production_id', 'p.id', 'coalesce(p.root_id, p.id)') if above else ('t.production_id', 'null', 'null')
        op.execute(f"insert into document ({COLUMNS}) select t.id, {of}, '{kind}', t.key, t.position, t.version, "
                   f"case when t.removed then now() end, (to_jsonb(t) - array[{left}]) || {otherwise}, {parent_id}, {root_id} "
                   f"from {table} t {parent} order by t.id")
    for kind in ('body', 'lens_set'):
        op.execute(f"update document d set source_id = s.id, taken = t.taken from {kind} t left join document s "
                   f"on s.kind = '{kind}' and s.number = t.catalogue_{kind}_id where d.kind = '{kind}' and d.number = t.id")


def _move_documents() -> None:
    op.execute(f"insert into document ({COLUMNS}) select id, id, 'settings', '', 0, version, null, settings, null, null "
               "from production where settings <> '{}' order by id")
    op.execute(f"insert into document ({COLUMNS}) select id, production_id, 'bench', '', 0, version, null, jsonb_build_object("
               "'schema', schema_name, 'schema_version', schema_version, 'state', state), null, null from bench order by id")
    op.execute(f"insert into document ({COLUMNS}) select id, production_id, 'comparison', replace(gen_random_uuid()::text, '-', ''), "
               "position, version, case when removed then now() end, document, null, null from comparison order by id")
    for kind, table, rows in SINGLE:
        less = f" - '{rows}'" if rows else ''
        op.execute(f"insert into document ({COLUMNS}) select id, production_id, '{kind}', '', 0, version, null, document{less}, null, null "
                   f"from {table} order by id")
        if rows:
            op.execute(_below(f'{kind}.{rows}', f"document d join {table} t on d.kind = '{kind}' and d.number = t.id",
                              f"t.document->'{rows}'", " - 'sheets'" if kind == 'sheets' else ''))
    op.execute(_below('sheets.bundles.sheets', "document d join sheets t on t.production_id = d.production_id and d.kind = 'sheets.bundles'",
                      "(select b->'sheets' from jsonb_array_elements(t.document->'bundles') b where b->>'key' = d.key)", ''))


def _below(kind: str, above: str, rows: str, less: str) -> str:
    """Rows of a list inside a document; their numbers are their own."""
    return (f"insert into document ({COLUMNS}) select -row_number() over (), d.production_id, '{kind}', e.item->>'key', e.n - 1, 1, null, "
            f"e.item - 'key'{less}, d.id, coalesce(d.root_id, d.id) from {above}, "
            f"lateral jsonb_array_elements({rows}) with ordinality e(item, n) order by d.id, e.n")


def _move_log() -> None:
    op.execute(f"insert into document ({COLUMNS}) select id, production_id, 'log_entry', key, 0, jsonb_array_length(before) + 1, null, "
               "entry - 'key', null, null from log_entry order by id")
    op.execute("insert into revision (document_id, version, position, changed_at, body) select d.id, e.n, 0, now(), e.item - 'key' "
               "from document d join log_entry t on d.kind = 'log_entry' and d.number = t.id, "
               "lateral jsonb_array_elements(t.before) with ordinality e(item, n)")
    # What has no number of older tables has that of its row.
    op.execute("update document set number = id where number < 0")


STAMP = """
    create or replace function stamp_equipment() returns trigger language plpgsql as $$
    begin
        execute 'insert into equipment_stamp select p.id, gen_random_uuid() from production p where p.id in ('
            || tg_argv[0] || ') order by p.id on conflict (production_id) do update set stamp = excluded.stamp, changed_at = clock_timestamp()';
        return null;
    end $$
"""


def _make_triggers() -> None:
    op.execute("""
        create or replace function touch_production() returns trigger language plpgsql as $$
        begin
            update equipment_stamp set changed_at = clock_timestamp() where production_id in (select production_id from changed);
            return null;
        end $$
    """)
    equipment = ("select c.production_id from changed c where split_part(c.kind, ''.'', 1) in "
                 "(''body'', ''lens_set'', ''rig'', ''settings'')")
    for event, side in (('insert', 'new'), ('update', 'new'), ('delete', 'old')):
        op.execute(f"create trigger stamp_on_{event} after {event} on document referencing {side} table as changed "
                   f"for each statement execute function stamp_equipment('{equipment}')")
        op.execute(f"create trigger touch_on_{event} after {event} on document referencing {side} table as changed "
                   "for each statement execute function touch_production()")
    # Two hundred of each row, as the log always kept.
    op.execute("""
        create function keep_revisions() returns trigger language plpgsql as $$
        begin
            insert into revision (document_id, version, parent_id, position, removed_at, changed_at, body)
            select b.id, b.version, b.parent_id, b.position, b.removed_at, b.changed_at, b.body
            from before b join after a on a.id = b.id where a.version > b.version on conflict do nothing;
            delete from revision r using after a where r.document_id = a.id and r.version < a.version - 200;
            return null;
        end $$
    """)
    op.execute("create trigger revise_on_update after update on document referencing old table as before new table as after "
               "for each statement execute function keep_revisions()")


def downgrade() -> None:
    op.execute("create temporary table was_document on commit drop as select * from document")
    op.execute("create temporary table was_revision on commit drop as select * from revision")
    op.execute("create temporary table was_production on commit drop as select * from production")
    op.execute("create temporary table was_stamp on commit drop as select * from equipment_stamp")
    for function in ('stamp_equipment', 'touch_production', 'keep_revisions'):
        op.execute(f'drop function {function}() cascade')
    for table in ('revision', 'document', 'equipment_stamp', 'production'):
        op.drop_table(table)
    # The tables as all steps before this one make them.
    for step in sorted(Path(__file__).parent.glob('00*.py')):
        if step.name < '0018':
            run_path(str(step))['upgrade']()
    _fill_older_tables()


def _fill_older_tables() -> None:
    op.execute("insert into production select r.* from was_production p left join was_document d on d.production_id = p.id and d.kind = 'settings', "
               "jsonb_populate_record(null::production, to_jsonb(p) || jsonb_build_object('settings', coalesce(d.body, '{}'), "
               "'starts_on', coalesce(p.starts_on::text, ''), 'ends_on', coalesce(p.ends_on::text, ''))) r order by p.id")
    op.execute("insert into rig (id, production_id, edits, version) select number, production_id, version, version from was_document "
               "where kind = 'rig' order by number")
    for kind, table, above, _, _ in KINDS:
        op.execute(f"insert into {table} select r.* from was_document d left join was_document p on p.id = d.parent_id, "
                   f"jsonb_populate_record(null::{table}, d.body || {_place(above)} || {AS_COLUMNS.get(kind, EMPTY)}) r "
                   f"where d.kind = '{kind}' order by d.number")
    for kind in ('body', 'lens_set'):
        op.execute(f"update {kind} t set taken = d.taken, catalogue_{kind}_id = s.number from was_document d "
                   f"left join was_document s on s.id = d.source_id where d.kind = '{kind}' and d.number = t.id")
    op.execute("insert into crop_rule (crop_id, scan_mode_id, position, aspect_w, aspect_h, factor) select c.number, m.number, e.n - 1, "
               "(e.rule->'aspect'->>0)::bigint, (e.rule->'aspect'->>1)::bigint, (e.rule->>'factor')::double precision from was_document c, "
               "lateral jsonb_array_elements(c.body->'rules') with ordinality e(rule, n) join was_document m on m.kind = 'body.modes' "
               "and m.key = e.rule->>'mode' and m.removed_at is null where c.kind = 'body.crops' and m.root_id = c.root_id order by c.number, e.n")
    op.execute("insert into bench (id, production_id, version, schema_name, schema_version, state) select number, production_id, version, "
               "body->>'schema', (body->>'schema_version')::bigint, body->'state' from was_document where kind = 'bench'")
    op.execute("insert into comparison (id, production_id, version, position, removed, document) select number, production_id, version, "
               "position, removed_at is not null, body from was_document where kind = 'comparison'")
    for kind, table, rows in SINGLE:
        inside = f" || jsonb_build_object('{rows}', {_inside(f'{kind}.{rows}')})" if rows else ''
        op.execute(f"insert into {table} (id, production_id, version, document) select d.number, d.production_id, d.version, d.body{inside} "
                   f"from was_document d where d.kind = '{kind}'")
    op.execute("insert into log_entry (id, production_id, key, version, entry, before) select d.number, d.production_id, d.key, d.version, "
               "d.body || jsonb_build_object('key', d.key), coalesce((select jsonb_agg(r.body || jsonb_build_object('key', d.key) order by "
               "r.version) from was_revision r where r.document_id = d.id), '[]') from was_document d where d.kind = 'log_entry'")
    for table in (*(row[1] for row in KINDS), 'rig', 'bench', 'comparison', 'production', 'log_entry', *(row[1] for row in SINGLE)):
        op.execute(f"select setval(pg_get_serial_sequence('{table}', 'id'), greatest((select max(number) from was_document), "
                   f"(select max(id) from {table}), 1))")
    op.execute("update equipment_stamp s set changed_at = w.changed_at from was_stamp w where w.production_id = s.production_id")


EMPTY = "'{}'::jsonb"
#: What the columns say otherwise than the document does.
AS_COLUMNS = {
    'body': "jsonb_build_object('photosites_w', d.body->'photosites'->0, 'photosites_h', d.body->'photosites'->1, "
            "'total_photosites_w', d.body->'total_photosites'->0, 'total_photosites_h', d.body->'total_photosites'->1)",
    'body.modes': "jsonb_build_object('window_w_mm', d.body->'window_mm'->0, 'window_h_mm', d.body->'window_mm'->1, "
                  "'window_w', coalesce(nullif(d.body->'window', 'null')->0, to_jsonb(round((d.body->'window_mm'->>0)::numeric * 1000 / (p.body->>'pitch_um')::numeric))), "
                  "'window_h', coalesce(nullif(d.body->'window', 'null')->1, to_jsonb(round((d.body->'window_mm'->>1)::numeric * 1000 / (p.body->>'pitch_um')::numeric))), "
                  "'offset_x', d.body->'offset'->0, 'offset_y', d.body->'offset'->1, 'sampling_h', d.body->'sampling'->0, "
                  "'sampling_v', d.body->'sampling'->1, 'method_h', d.body->'methods'->0, 'method_v', d.body->'methods'->1)",
    'body.modes.formats': "jsonb_build_object('raster_w', d.body->'raster'->0, 'raster_h', d.body->'raster'->1, 'mapping', d.body->'map')",
}


def _place(above: str | None) -> str:
    to_the_row_above = f", '{above}', p.number" if above else ''
    return ("jsonb_build_object('id', d.number, 'version', d.version, 'production_id', d.production_id, 'key', d.key, 'position', d.position, "
            f"'removed', d.removed_at is not null{to_the_row_above})")


def _inside(kind: str) -> str:
    """The list of a kind, as it stood inside its document."""
    below = f" || jsonb_build_object('sheets', {_inside_of('b', 'sheets.bundles.sheets', 's')})" if kind == 'sheets.bundles' else ''
    return _inside_of('d', kind, 'b', below)


def _inside_of(above: str, kind: str, name: str, below: str = '') -> str:
    return (f"coalesce((select jsonb_agg({name}.body || jsonb_build_object('key', {name}.key){below} order by {name}.position) "
            f"from was_document {name} where {name}.parent_id = {above}.id and {name}.kind = '{kind}' and {name}.removed_at is null), '[]')")
