"""What do people's words mean: which of them were understood, as what, and which have to be asked about?"""

from hextan.core.reading.glass import LensLineRead, LensSaid, read_lens_words
from hextan.core.reading.lexicon import (
    MOVES,
    NAME_OF_RASTER,
    PLACE_WORDS,
    SIZE_LETTERS,
    SIZE_WORDS,
    SIZES_WITHOUT_FIGURE,
    SUPPORT_WORDS,
    TIME_WORDS,
    called,
    class_of,
)
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
    "FILLER",
    "MOVES",
    "NAME_OF_RASTER",
    "NUMBER",
    "PLACE_WORDS",
    "SIGN",
    "SIZES_WITHOUT_FIGURE",
    "SIZE_LETTERS",
    "SIZE_WORDS",
    "SPACE",
    "SUPPORT_WORDS",
    "TIME_WORDS",
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
    "called",
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
