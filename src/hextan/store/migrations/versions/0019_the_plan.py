"""A production has one plan; it is loaded with the equipment, and renews its stamp."""

from alembic import op

revision = '0019'
down_revision = '0018'
branch_labels = None
depends_on = None


def _stamp_on(kinds: str) -> None:
    """Let changes of documents of some kinds renew the stamp of their production."""
    equipment = f"select c.production_id from changed c where split_part(c.kind, ''.'', 1) in ({kinds})"
    for event, side in (('insert', 'new'), ('update', 'new'), ('delete', 'old')):
        op.execute(f'drop trigger stamp_on_{event} on document')
        op.execute(f"create trigger stamp_on_{event} after {event} on document referencing {side} table as changed "
                   f"for each statement execute function stamp_equipment('{equipment}')")


def upgrade() -> None:
    _stamp_on("''body'', ''lens_set'', ''rig'', ''settings'', ''plan''")


def downgrade() -> None:
    op.execute("delete from document where kind = 'plan'")
    _stamp_on("''body'', ''lens_set'', ''rig'', ''settings''")
