"""Lens sets as documents like bodies; mounts; adapters with glass, classes and what they pass on."""

from typing import Any

from alembic import op
import sqlalchemy as sa
from sqlalchemy.dialects import postgresql

revision = '0004'
down_revision = '0003'
branch_labels = None
depends_on = None

NEW_KEY = "replace(gen_random_uuid()::text, '-', '')"


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


def _text(name: str, nullable: bool = False) -> 'sa.Column[Any]':
    return sa.Column(name, sa.Text(), nullable=nullable)


def _double(name: str, nullable: bool = True) -> 'sa.Column[Any]':
    return sa.Column(name, sa.Double(), nullable=nullable)


def _keyed(table: str) -> None:
    _filled(table, _text('key'), NEW_KEY)
    _filled(table, _json('origins'), "'{}'")
    _filled(table, sa.Column('removed', sa.Boolean(), nullable=False), 'false')


def upgrade() -> None:
    _lens_sets()
    _lenses()
    _rigs()


def _lens_sets() -> None:
    _keyed('lens_set')
    _filled('lens_set', _text('note'), "''")
    _filled('lens_set', _json('origin'), "'{}'")
    op.add_column('lens_set', sa.Column('catalogue_lens_set_id', sa.BigInteger(), nullable=True))
    op.add_column('lens_set', _json('taken', nullable=True))
    op.create_foreign_key(op.f('fk_lens_set_catalogue_lens_set_id_lens_set'), 'lens_set', 'lens_set',
                          ['catalogue_lens_set_id'], ['id'], ondelete='SET NULL')
    op.create_index(op.f('ix_lens_set_catalogue_lens_set_id'), 'lens_set', ['catalogue_lens_set_id'], unique=False)


def _lenses() -> None:
    _keyed('lens')
    op.create_unique_constraint(op.f('uq_lens_lens_set_id_key'), 'lens', ['lens_set_id', 'key'])
    op.drop_constraint('ck_lens_focal_range_ordered', 'lens')
    op.drop_constraint('ck_lens_focal_min_mm_positive', 'lens')
    op.alter_column('lens', 'focal_min_mm', new_column_name='focal_mm')
    op.alter_column('lens', 'focal_max_mm', new_column_name='focal_long_mm', nullable=True)
    op.execute('update lens set focal_long_mm = null, f_number_long = null, t_stop_long = null '
               'where focal_long_mm = focal_mm')
    op.add_column('lens', _text('circle_by', nullable=True))
    _filled('lens', _json('circles'), "'[]'")
    op.add_column('lens', _text('designed_for', nullable=True))
    for name in ('breathing_percent', 'front_mm', 'length_mm', 'weight_kg'):
        op.add_column('lens', _double(name))
    _filled('lens', _text('iris'), "'ring'")
    _filled('lens', _text('data_link'), "''")
    _positive('lens', 'focal_mm', 'front_mm', 'length_mm', 'weight_kg')
    _check('lens', 'focal_range_ordered', 'focal_long_mm > focal_mm')
    _check('lens', 'circle_by_known', "circle_by in ('focal', 'stop', 'focus')")
    _check('lens', 'iris_known', "iris in ('ring', 'body', 'either')")


def _rigs() -> None:
    op.create_table('rig',
        sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column('production_id', sa.BigInteger(), nullable=False),
        sa.Column('edits', sa.BigInteger(), nullable=False),
        sa.Column('version', sa.BigInteger(), nullable=False),
        sa.ForeignKeyConstraint(['production_id'], ['production.id'], name=op.f('fk_rig_production_id_production'),
                                ondelete='CASCADE'),
        sa.PrimaryKeyConstraint('id', name=op.f('pk_rig')),
    )
    op.create_index(op.f('ix_rig_production_id'), 'rig', ['production_id'], unique=True)
    op.create_table('mount',
        sa.Column('id', sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column('rig_id', sa.BigInteger(), nullable=False),
        sa.Column('version', sa.BigInteger(), nullable=False),
        sa.Column('position', sa.BigInteger(), nullable=False),
        _text('name'), _text('key'), _json('origins'),
        sa.Column('removed', sa.Boolean(), server_default=sa.text('false'), nullable=False),
        _double('flange_mm'), _double('throat_mm'), _text('note'),
        sa.ForeignKeyConstraint(['rig_id'], ['rig.id'], name=op.f('fk_mount_rig_id_rig'), ondelete='CASCADE'),
        sa.PrimaryKeyConstraint('id', name=op.f('pk_mount')),
        sa.UniqueConstraint('rig_id', 'key', name=op.f('uq_mount_rig_id_key')),
    )
    op.create_index(op.f('ix_mount_rig_id'), 'mount', ['rig_id'], unique=False)
    _positive('mount', 'flange_mm', 'throat_mm')
    op.execute('insert into rig (production_id, edits, version) select distinct production_id, 0, 1 from adapter')
    _keyed('adapter')
    op.add_column('adapter', sa.Column('rig_id', sa.BigInteger(), nullable=True))
    op.execute('update adapter set rig_id = rig.id from rig where rig.production_id = adapter.production_id')
    op.alter_column('adapter', 'rig_id', nullable=False)
    op.create_foreign_key(op.f('fk_adapter_rig_id_rig'), 'adapter', 'rig', ['rig_id'], ['id'], ondelete='CASCADE')
    op.create_index(op.f('ix_adapter_rig_id'), 'adapter', ['rig_id'], unique=False)
    op.create_unique_constraint(op.f('uq_adapter_rig_id_key'), 'adapter', ['rig_id', 'key'])
    op.drop_column('adapter', 'production_id')
    _filled('adapter', _double('transmission', nullable=False), '1')
    _filled('adapter', sa.Column('glass', sa.Boolean(), nullable=False), 'false')
    op.execute('update adapter set glass = true where magnification <> 1')
    _filled('adapter', sa.Column('classes', postgresql.ARRAY(sa.Text()), nullable=False), "'{}'")
    for name in ('passes_iris', 'passes_data'):
        _filled('adapter', sa.Column(name, sa.Boolean(), nullable=False), 'true')
    _positive('adapter', 'transmission')
    _check('adapter', 'transmission_loses', 'transmission <= 1')
    for table in ('rig', 'mount'):
        op.execute(f'create trigger stamp_equipment after insert or update or delete or truncate on {table} '
                   'for each statement execute function stamp_equipment()')


def downgrade() -> None:
    raise NotImplementedError('Going back would lose mounts and tables of circles: restore a backup instead.')
