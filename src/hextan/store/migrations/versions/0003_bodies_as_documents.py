"""Bodies as documents: keys, origins, claims, the catalogue, crop rules by aspect, and data rates."""

from typing import Any

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0003'
down_revision = '0002'
branch_labels = None
depends_on = None

KEYED = ('body', 'scan_mode', 'recording_format', 'in_camera_crop')
METHODS = "('full', 'binned', 'skipped')"


def _json(name: str, nullable: bool = False) -> 'sa.Column[Any]':
    return sa.Column(name, postgresql.JSONB(astext_type=sa.Text()), nullable=nullable)


def _filled(table: str, column: 'sa.Column[Any]', value: str) -> None:
    """Add a column that may not be null, with a value for the rows that are there."""
    column.server_default = sa.DefaultClause(sa.text(value))
    op.add_column(table, column)
    if column.name != 'removed':
        op.alter_column(table, column.name, server_default=None)


def _check(table: str, name: str, rule: str) -> None:
    op.create_check_constraint(op.f(f'ck_{table}_{name}'), table, rule)


def _positive(table: str, *columns: str) -> None:
    for column in columns:
        _check(table, f'{column}_positive', f'{column} > 0')


def upgrade() -> None:
    _filled('production', sa.Column('kind', sa.Text(), nullable=False), "'production'")
    _filled('production', _json('settings'), "'{}'")
    _check('production', 'kind_known', "kind in ('production', 'catalogue')")
    for table in KEYED:
        _filled(table, sa.Column('key', sa.Text(), nullable=False), "replace(gen_random_uuid()::text, '-', '')")
        _filled(table, _json('origins'), "'{}'")
        _filled(table, sa.Column('removed', sa.Boolean(), nullable=False), 'false')
    _filled('body', sa.Column('firmware', sa.Text(), nullable=False), "''")
    for name in ('total_photosites_w', 'total_photosites_h'):
        op.add_column('body', sa.Column(name, sa.BigInteger(), nullable=True))
    _filled('body', sa.Column('free_windows', sa.Boolean(), nullable=False), 'false')
    for name in ('write_mb_s', 'buffer_gb'):
        op.add_column('body', sa.Column(name, sa.Double(), nullable=True))
    _filled('body', _json('origin'), "'{}'")
    _filled('body', _json('claims'), "'{}'")
    op.add_column('body', sa.Column('catalogue_body_id', sa.BigInteger(), nullable=True))
    op.add_column('body', _json('taken', nullable=True))
    op.create_foreign_key(op.f('fk_body_catalogue_body_id_body'), 'body', 'body', ['catalogue_body_id'], ['id'],
                          ondelete='SET NULL')
    op.create_index(op.f('ix_body_catalogue_body_id'), 'body', ['catalogue_body_id'], unique=False)
    _positive('body', 'total_photosites_w', 'total_photosites_h', 'write_mb_s', 'buffer_gb')
    _scan_modes()
    _recording_formats()
    _crop_rules()


def _scan_modes() -> None:
    for name in ('window_w_mm', 'window_h_mm'):
        op.add_column('scan_mode', sa.Column(name, sa.Double(), nullable=True))
    _positive('scan_mode', 'window_w_mm', 'window_h_mm')
    for axis in ('h', 'v'):
        _filled('scan_mode', sa.Column(f'method_{axis}', sa.Text(), nullable=False), "'full'")
        op.execute(f"update scan_mode set method_{axis} = method where sampling_{axis} > 1")
        _check('scan_mode', f'method_{axis}_known', f'method_{axis} in {METHODS}')
    _check('scan_mode', 'full_reads_all_across', "method_h <> 'full' or sampling_h = 1")
    _check('scan_mode', 'full_reads_all_down', "method_v <> 'full' or sampling_v = 1")
    op.drop_constraint('ck_scan_mode_method_known', 'scan_mode')
    op.drop_constraint('ck_scan_mode_full_reads_all', 'scan_mode')
    op.drop_column('scan_mode', 'method')
    op.create_unique_constraint(op.f('uq_scan_mode_body_id_key'), 'scan_mode', ['body_id', 'key'])


def _recording_formats() -> None:
    _filled('recording_format', sa.Column('samples', sa.Text(), nullable=False), "'4:2:2'")
    op.execute("update recording_format set samples = 'raw' where raw")
    op.execute("update recording_format set samples = substring(codec from '4:[24]:[024]') "
               "where not raw and substring(codec from '4:[24]:[024]') in ('4:2:0', '4:2:2', '4:4:4')")
    _check('recording_format', 'samples_known', "samples in ('raw', '4:2:0', '4:2:2', '4:4:4')")
    for name in ('compression', 'megabits', 'megabits_at_fps'):
        op.add_column('recording_format', sa.Column(name, sa.Double(), nullable=True))
    _positive('recording_format', 'compression', 'megabits', 'megabits_at_fps')
    op.create_unique_constraint(op.f('uq_recording_format_scan_mode_id_key'), 'recording_format',
                                ['scan_mode_id', 'key'])


def _crop_rules() -> None:
    _filled('in_camera_crop', sa.Column('lens', sa.Text(), nullable=False), "'any'")
    _check('in_camera_crop', 'lens_known', "lens in ('any', 'spherical', 'short_circle')")
    op.create_unique_constraint(op.f('uq_in_camera_crop_body_id_key'), 'in_camera_crop', ['body_id', 'key'])
    op.create_table('crop_rule',
        sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column('crop_id', sa.BigInteger(), nullable=False),
        sa.Column('scan_mode_id', sa.BigInteger(), nullable=False),
        sa.Column('position', sa.BigInteger(), nullable=False),
        sa.Column('aspect_w', sa.BigInteger(), nullable=True),
        sa.Column('aspect_h', sa.BigInteger(), nullable=True),
        sa.Column('factor', sa.Double(), nullable=False),
        sa.ForeignKeyConstraint(['crop_id'], ['in_camera_crop.id'], name=op.f('fk_crop_rule_crop_id_in_camera_crop'),
                                ondelete='CASCADE'),
        sa.ForeignKeyConstraint(['scan_mode_id'], ['scan_mode.id'], name=op.f('fk_crop_rule_scan_mode_id_scan_mode'),
                                ondelete='CASCADE'),
        sa.PrimaryKeyConstraint('id', name=op.f('pk_crop_rule')),
    )
    for name in ('crop_id', 'scan_mode_id'):
        op.create_index(op.f(f'ix_crop_rule_{name}'), 'crop_rule', [name], unique=False)
    _positive('crop_rule', 'aspect_w', 'aspect_h')
    _check('crop_rule', 'factor_crops', 'factor >= 1')
    _check('crop_rule', 'aspect_whole', '(aspect_w is null) = (aspect_h is null)')
    op.execute("insert into crop_rule (crop_id, scan_mode_id, position, factor) "
               "select crop_id, scan_mode_id, row_number() over (partition by crop_id order by scan_mode_id) - 1, factor "
               "from crop_in_mode")
    op.drop_table('crop_in_mode')
    op.execute("create trigger stamp_equipment after insert or update or delete or truncate on crop_rule "
               "for each statement execute function stamp_equipment()")


def downgrade() -> None:
    raise NotImplementedError('Going back would lose claims and origins: restore a backup instead.')
