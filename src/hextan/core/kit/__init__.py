"""What does every lens do in every format: matrix, ladder, match, framing, high speed, coverage?"""

from hextan.core.kit.answers import KitMatrix, MatrixColumn, MatrixFigures, MatrixRow
from hextan.core.kit.arrays import VERDICTS, Kit, kit_of, window_of_reference
from hextan.core.kit.ask import (
    CoverageAsk,
    FieldAsk,
    FramingWish,
    KitAsk,
    LadderAsk,
    MatchAsk,
    MatrixAsk,
    SlowAsk,
)
from hextan.core.kit.coverage import coverage_view
from hextan.core.kit.framing import FRAMINGS, field_of_person_m, find_field
from hextan.core.kit.high_speed import slow_motion
from hextan.core.kit.ladder import kit_ladder
from hextan.core.kit.match import kit_match
from hextan.core.kit.matrix import kit_matrix

__all__ = [
    "FRAMINGS",
    "VERDICTS",
    "CoverageAsk",
    "FieldAsk",
    "FramingWish",
    "Kit",
    "KitAsk",
    "KitMatrix",
    "LadderAsk",
    "MatchAsk",
    "MatrixAsk",
    "MatrixColumn",
    "MatrixFigures",
    "MatrixRow",
    "SlowAsk",
    "coverage_view",
    "field_of_person_m",
    "find_field",
    "kit_ladder",
    "kit_match",
    "kit_matrix",
    "kit_of",
    "slow_motion",
    "window_of_reference",
]
