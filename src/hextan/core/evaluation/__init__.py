"""What may be asked of the public format, how is it computed, written out and derived?"""

from hextan.core.evaluation.answer import answer_of, plain_rows
from hextan.core.evaluation.answers import (
    BackgroundAnswer,
    CoverageAnswer,
    DepthAnswer,
    EvaluationAnswer,
    FieldM,
    FormatAnswer,
    LensAnswer,
    Note,
    ReferenceAnswer,
    Step,
)
from hextan.core.evaluation.columns import FormatColumns, columns_of
from hextan.core.evaluation.computation import Evaluation, HouseTerms, compute
from hextan.core.evaluation.contract import (
    Coc,
    CocByDiagonal,
    Delivery,
    EvaluationRequest,
    Format,
    parse_request,
)
from hextan.core.evaluation.derivation import derivation_of
from hextan.core.evaluation.reference_and_delivery import (
    READY_REFERENCES,
    BenchDelivery,
    BenchReference,
    OwnWindow,
)
from hextan.core.evaluation.requests import evaluate
from hextan.core.evaluation.sharp import SHARP_RULES, assumption, circle_of_confusion_mm, rule_label

__all__ = [
    "READY_REFERENCES",
    "SHARP_RULES",
    "BackgroundAnswer",
    "BenchDelivery",
    "BenchReference",
    "Coc",
    "CocByDiagonal",
    "CoverageAnswer",
    "Delivery",
    "DepthAnswer",
    "Evaluation",
    "EvaluationAnswer",
    "EvaluationRequest",
    "FieldM",
    "Format",
    "FormatAnswer",
    "FormatColumns",
    "HouseTerms",
    "LensAnswer",
    "Note",
    "OwnWindow",
    "ReferenceAnswer",
    "Step",
    "answer_of",
    "assumption",
    "circle_of_confusion_mm",
    "columns_of",
    "compute",
    "derivation_of",
    "evaluate",
    "parse_request",
    "plain_rows",
    "rule_label",
]
