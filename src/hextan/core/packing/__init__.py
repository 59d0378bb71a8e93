"""Which is the smallest kit that does every shot, with the fewest changes: what to carry, rent, buy, leave at home?"""

from hextan.core.packing.answers import KitAnswer, SideBySide
from hextan.core.packing.document import PACKING_SCHEMA, KitPlan, Packing, parse_packing
from hextan.core.packing.plan import PlanSeen, plan_of, plan_seen
from hextan.core.packing.program import Watch
from hextan.core.packing.side_by_side import side_by_side
from hextan.core.packing.stock import packing_view, serials_of
from hextan.core.packing.things import Thing, Things, buying_pays_after, things_of
from hextan.core.packing.told import money, plural
from hextan.core.packing.view import packed

__all__ = [
    "PACKING_SCHEMA",
    "KitAnswer",
    "KitPlan",
    "Packing",
    "PlanSeen",
    "SideBySide",
    "Thing",
    "Things",
    "Watch",
    "buying_pays_after",
    "money",
    "packed",
    "packing_view",
    "parse_packing",
    "plan_of",
    "plan_seen",
    "plural",
    "serials_of",
    "side_by_side",
    "things_of",
]
