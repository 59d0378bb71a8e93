"""Claims of version 1 tried in-camera crops as well; those that do not say so yet say it now."""

from alembic import op

revision = '0008'
down_revision = '0007'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("""
        update body set claims = jsonb_set(claims, '{crops}', (
            select coalesce(jsonb_agg('{"basis": null, "by": null, "switches": true}'::jsonb || claim), '[]'::jsonb)
            from jsonb_array_elements(claims -> 'crops') as claim))
        where jsonb_typeof(claims -> 'crops') = 'array'
    """)


def downgrade() -> None:
    """What the claims say is said the same before: nothing has to be taken back."""
