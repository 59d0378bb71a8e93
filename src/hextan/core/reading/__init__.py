"""What do people's words mean: which of them were understood, as what, and which have to be asked about?"""

from hextan.core.reading.glass import LensLineRead, LensSaid, read_lens_words
from hextan.core.reading.lexicon import CLASS_WORDS, NAME_OF_RASTER, class_of
from hextan.core.reading.page import (
    BodyFacts,
    PageLine,
    Rate,
    Stated,
    name_of,
    read_page_line,
    scan_page,
    understand,
)
from hextan.core.reading.question import scan_question
from hextan.core.reading.scan import (
    FILLER,
    NUMBER,
    SIGN,
    SPACE,
    UNKNOWN,
    Option,
    Word,
    number,
)
from hextan.core.reading.spans import SpanRead, spans_of

__all__ = [
    "CLASS_WORDS",
    "FILLER",
    "NAME_OF_RASTER",
    "NUMBER",
    "SIGN",
    "SPACE",
    "UNKNOWN",
    "BodyFacts",
    "LensLineRead",
    "LensSaid",
    "Option",
    "PageLine",
    "Rate",
    "SpanRead",
    "Stated",
    "Word",
    "class_of",
    "name_of",
    "number",
    "read_lens_words",
    "read_page_line",
    "scan_page",
    "scan_question",
    "spans_of",
    "understand",
]
