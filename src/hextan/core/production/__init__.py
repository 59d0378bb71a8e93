"""What is a whole production: on one page at a glance, and as one file that is exact?"""

from hextan.core.production.document import (
    BodyItem,
    LensSetItem,
    ProductionDocument,
    ProductionFacts,
    parse_production,
)
from hextan.core.production.glance import ProductionGlance, glance
from hextan.core.production.numbers import (
    Numbers,
    counted,
    renumbered_bench,
    renumbered_comparison,
    renumbered_sheets,
)
from hextan.core.production.plan import Plan, material_of, plan, plan_kit, plan_packages
from hextan.core.production.the_plan import PlanState, plan_view

__all__ = [
    "BodyItem",
    "LensSetItem",
    "Numbers",
    "Plan",
    "PlanState",
    "ProductionDocument",
    "ProductionFacts",
    "ProductionGlance",
    "counted",
    "glance",
    "material_of",
    "parse_production",
    "plan",
    "plan_kit",
    "plan_packages",
    "plan_view",
    "renumbered_bench",
    "renumbered_comparison",
    "renumbered_sheets",
]
