"""What does each shot need, which lens on which format does it, and what would do more?"""

from hextan.core.shots.answers import CellFault, ShotAnswer, ShotChoice, ShotsView, ShotVerdict
from hextan.core.shots.benches import bench_of_shot, pictures_of_shots, shot_of_bench
from hextan.core.shots.by_plan import fingerprint
from hextan.core.shots.catalogue import package_with
from hextan.core.shots.checks import head_of
from hextan.core.shots.document import SHOTS_SCHEMA, Shot, ShotList, parse_shots
from hextan.core.shots.judge import Judged, judge
from hextan.core.shots.listed import shots_listed
from hextan.core.shots.needs import Needs, check_usual, needs_of
from hextan.core.shots.pins import pin_of, pinned_cell
from hextan.core.shots.rented import rented_for
from hextan.core.shots.rows import ON_PAGE, ROWS
from hextan.core.shots.table import ANSWERS, CellChanged, ColumnTaken, shots_of_table, table_of_shots
from hextan.core.shots.told import binds_of, choice_of, with_what
from hextan.core.shots.units import with_units
from hextan.core.shots.view import answer_of_shot, answer_with_changes, day_order, shots_view

__all__ = [
    "ANSWERS",
    "ON_PAGE",
    "ROWS",
    "SHOTS_SCHEMA",
    "CellChanged",
    "CellFault",
    "ColumnTaken",
    "Judged",
    "Needs",
    "Shot",
    "ShotAnswer",
    "ShotChoice",
    "ShotList",
    "ShotVerdict",
    "ShotsView",
    "answer_of_shot",
    "answer_with_changes",
    "bench_of_shot",
    "binds_of",
    "check_usual",
    "choice_of",
    "day_order",
    "fingerprint",
    "head_of",
    "judge",
    "needs_of",
    "package_with",
    "parse_shots",
    "pictures_of_shots",
    "pin_of",
    "pinned_cell",
    "rented_for",
    "shot_of_bench",
    "shots_listed",
    "shots_of_table",
    "shots_view",
    "table_of_shots",
    "with_units",
    "with_what",
]
