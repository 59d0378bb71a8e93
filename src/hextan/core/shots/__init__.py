"""What does each shot need, which lens on which format does it, and what would do more?"""

from hextan.core.shots.answers import ShotsView
from hextan.core.shots.benches import bench_of_shot, pictures_of_shots, shot_of_bench
from hextan.core.shots.document import SHOTS_SCHEMA, Shot, ShotList, parse_shots
from hextan.core.shots.rented import rented_for
from hextan.core.shots.table import ANSWERS, shots_of_table, table_of_shots
from hextan.core.shots.view import shots_view

__all__ = [
    "ANSWERS",
    "SHOTS_SCHEMA",
    "Shot",
    "ShotList",
    "ShotsView",
    "bench_of_shot",
    "parse_shots",
    "pictures_of_shots",
    "rented_for",
    "shot_of_bench",
    "shots_of_table",
    "shots_view",
    "table_of_shots",
]
