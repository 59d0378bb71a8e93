"""Two to four set-ups: what differs, why, and what matches one camera to another?"""

from hextan.core.compare.camera_match import match_camera
from hextan.core.compare.comparison import COMPARISON_SCHEMA, Column, Comparison, parse_comparison
from hextan.core.compare.stop_match import match_stop
from hextan.core.compare.view import compare_view

__all__ = [
    "COMPARISON_SCHEMA",
    "Column",
    "Comparison",
    "compare_view",
    "match_camera",
    "match_stop",
    "parse_comparison",
]
