"""The words of the trade, one list for all that is read: classes, rasters, codecs, needs, units, fillers.

Bodies, lenses, shots and questions are read with these; a word that people use for a thing is added here.
"""

from __future__ import annotations

import math
import re
from typing import Any

from hextan.core.optics import FormatClass
from hextan.core.reading.scan import TIMES, TO, N, NotOneError, Phrase, number, numbers

#: How people write the classes of formats.
CLASS_WORDS: dict[FormatClass, str] = {
    "Super 35": r"super[\s-]*(?:35|thirty[\s-]*five)(?:\s*mm)?|s[\s-]?35(?:\s*mm)?|3[\s-]*perf(?:oration)?s?|4[\s-]*perf(?:oration)?s?",
    "Super 16": r"super[\s-]*(?:16|sixteen)(?:\s*mm)?|s[\s-]?16(?:\s*mm)?",
    "full frame": r"full[\s-]*frame|full[\s-]*format|vollformat|ff|fullframe|135(?=\s*format)",
    "8-perforation 35": r"(?:vista\s*format\s*)?8[\s-]*perf(?:oration)?s?(?:\s*35)?|vista\s*format(?:\s*8[\s-]*perf(?:oration)?s?)?",
    "large format": r"large[\s-]*format|lf",
    "65 mm": r"65\s*mm(?:\s*film)?|65\s*/\s*5",
    "APS-C": r"aps[\s-]*c",
    "four thirds": r"(?:micro\s*)?four[\s-]*thirds|mft|m43|m4/3|micro\s*4/3",
    "1 inch": r"1[\s-]*inch|1\s*(?:\"|″|”|'')|one[\s-]*inch",
    "2/3 inch": r"2/3(?:[\s-]*inch|\s*(?:\"|″|”|''))?|b4",
}
#: Rasters that have a name (UHD: ITU-R BT.2020, HD: ITU-R BT.709, 4096, 2048 and 8192 wide: DCI and twice it; from memory).
RASTERS: dict[str, tuple[tuple[int, int], str]] = {
    "8K UHD": ((7680, 4320), r"8k\s*uhd|uhd[\s-]*2|uhd\s*8k"),
    "8K DCI": ((8192, 4320), r"8k\s*dci|dci\s*8k"),
    "UHD": ((3840, 2160), r"4k\s*uhd|uhd\s*4k|uhd(?:[\s-]*1)?|qfhd"),
    "4K DCI": ((4096, 2160), r"4k\s*dci|dci\s*4k|c4k|dci"),
    "2K DCI": ((2048, 1080), r"2k\s*dci|dci\s*2k|c2k"),
    "HD": ((1920, 1080), r"full[\s-]*hd(?:\s*1080)?|fhd|hd(?:\s*1080(?!\s*[pi/]))?"),
    "720p": ((1280, 720), r"hd\s*720|720\s*lines"),
}
#: Rasters by their lines, as in 1080p25 and 2160/50p.
BY_LINES = {"4320": (7680, 4320), "2160": (3840, 2160), "1080": (1920, 1080), "720": (1280, 720)}
NAME_OF_RASTER = {size: name for name, (size, _) in RASTERS.items()}
#: How a recording is coded, in plain kinds.
CODECS: dict[str, str] = {
    "intra": r"all[\s-]*intra|all[\s-]?i|intra[\s-]*frame|intra",
    "long GOP": r"long[\s-]*gop|inter[\s-]*frame|ipb",
}
#: How people write the sizes of shots, in English, German and French: those of a person by the names of the framings, and
#: those that no figure belongs to. Where two trades use one word for two sizes, Settings say which is meant.
SIZE_WORDS: dict[str, str] = {
    "eyes": r"eyes?|ecu|xcu|bcu|(?:extreme|big)\s+close[\s-]*ups?|detail|ital(?:ian|ienne)",
    "chest": r"chest|mcu|medium\s+close(?:[\s-]*ups?)?|bust|head\s+and\s+shoulders|nah(?:aufnahme)?|plan\s+poitrine",
    "face": r"face|head|cu|close[\s-]*ups?|close|gro(?:ß|ss)(?:aufnahme)?|gros\s+plan|gp",
    "knees": r"knees?|mls|mws|medium\s+(?:long|wide)(?:\s+shot)?|american|cowboy|amerikanisch|plan\s+am[ée]ricain|pa",
    "waist": r"waist|ms|mid(?:[\s-]*shot)?|medium(?:\s+shot)?|halbnah(?:e)?|plan\s+taille",
    "full figure": r"full\s+figure|fs|full\s+shot|full(?=\s*$)|ls|long\s+shot|halbtotale|plan\s+(?:moyen|pied)|pm",
}
#: Sizes of which no figure follows: a field has to be said.
SIZES_WITHOUT_FIGURE: dict[str, str] = {
    "wide": r"wide(?:\s+shot)?|ws|vws|ews|els|establishing(?:\s+shot)?|master|totale|weite|t|plan\s+(?:large|g[ée]n[ée]ral|d['’]ensemble)|pg|pe",
    "insert": r"inserts?|hands?|prop|close\s+on\s+\w+",
    "over the shoulder": r"ots|o/s|over(?:\s+the)?\s+shoulder|[üu]ber\s+schulter|amorce",
    "two-shot": r"(?:2|two)[\s-]*shots?|2s|zweier|three[\s-]*shot|3s",
    "point of view": r"pov|point\s+of\s+view|subjektiv(?:e)?",
    "aerial": r"aerial|drone|luftaufnahme",
}
#: Sizes by letters alone, in the cell that is for them (Detail, Groß, Nah, Halbnah, Halbtotale, Totale).
SIZE_LETTERS: dict[str, str] = {
    "eyes": r"d",
    "face": r"g",
    "chest": r"n",
    "waist": r"hn",
    "knees": r"am",
    "full figure": r"ht",
}
#: What carries the camera, by the kinds that a shot knows.
SUPPORT_WORDS: dict[str, str] = {
    "tripod": r"tripod|sticks|legs|hi-?hat|stativ|pied|trépied",
    "hand": r"hand(?:[\s-]*held)?|shoulder(?:\s*rig)?|h/h|hh|schulter|à\s+la\s+main|épaule",
    "dolly": r"dolly|track(?:s|ing)?|slider|rails?|schienen|travelling",
    "gimbal": r"gimbal|stabili[sz]ed\s+head|body\s+stabili[sz]er|schwebestativ",
    "crane": r"crane|jib|kran|grue",
    "car": r"car(?:\s*mount)?|low\s*loader|auto",
}
#: Times of day, and places, as lists write them.
TIME_WORDS: dict[str, str] = {
    "night": r"night|n|nacht|nuit|dusk|evening",
    "day": r"day|d|tag|t|jour|j|dawn|morning",
}
PLACE_WORDS: dict[str, str] = {
    "inside": r"int(?:erior)?\.?|inside|innen|i|intérieur",
    "outside": r"ext(?:erior)?\.?|outside|au(?:ß|ss)en|a|extérieur",
}
#: Words that say that the camera or the subject moves.
MOVES = r"dolly|track(?:s|ing)?|push(?:\s*in)?|pull(?:\s*(?:out|back))?|walks?|moves?|runs?|slider?|creep|zoom|slow|fast|in|out|from|to\s+camera"
#: What a format does not record without.
NEEDS: dict[str, str] = {
    "recorder": r"(?:(?:with|needs?|requires?|to|on|via|through)\s+)?(?:(?:an?|the)\s+)?(?:external\s+)?recorder(?:\s+only)?"
                r"|(?:over|via|through)\s+(?:hdmi|sdi)|external(?:ly)?",
    "licence": r"(?:(?:with|needs?|requires?)\s+)?(?:(?:an?|the)\s+)?(?:paid\s+)?licen[cs]e",
    "fast card": r"(?:(?:only|with|needs?|requires?|on)\s+)*fast\s+(?:cards?|media)(?:\s+only)?",
}  # fmt: skip
#: Units of data rates, in megabits a second.
_MEGABITS = {"k": 1e-3, "m": 1.0, "g": 1e3}
#: What a page speaks of besides: a line that begins with one of these, or a part of it that has one, says nothing that is used.
OFF_TOPIC = (r"time-?code|audio|microphones?|photos?|stills?|prox(?:y|ies)|power|voltage|batter(?:y|ies)|dimensions|temperature|humidity|monitors?|"
             r"screens?|displays?|viewfinders?|evf|lcd|oled|wi-?fi|bluetooth|auto-?focus|af|interval|time-?lapse|card\s+slots?|connectors?|usb|"
             r"ethernet|genlock|speakers?|headphones?|tripod|price|warranty|consumption|khz|stream(?:ing)?|hdmi|sdi|min(?:utes)?")  # fmt: skip
#: No camera is asked for more frames a second where nobody says that they are frames.
HIGHEST_RATE = 2000
_RATE_UNIT = r"(fps|psf|p|i)"
_FACTOR = r"\d(?:[.,]\d+)?"


def either(patterns: dict[str, str] | dict[FormatClass, str]) -> str:
    """One pattern that fits any of these."""
    return "|".join(f"(?:{pattern})" for pattern in patterns.values())


def _named(patterns: dict[Any, str], kind: str) -> tuple[Phrase, ...]:
    def row(name: str, pattern: str) -> Phrase:
        return Phrase(kind, f"(?:{pattern})", lambda found: name)

    return tuple(row(name, pattern) for name, pattern in patterns.items())


CLASSES = _named(CLASS_WORDS, "class")


def called(text: str, words: dict[str, str]) -> str | None:
    """What a text is called in a table of the lexicon; None where it is none of its rows.

    >>> called("MCU", SIZE_WORDS), called("sticks", SUPPORT_WORDS), called("banana", SIZE_WORDS)
    ('chest', 'tripod', None)
    """
    told = re.sub(r"\s+", " ", text.strip())
    return next((name for name, row in words.items() if re.fullmatch(row, told, re.IGNORECASE)), None)


def class_of(text: str) -> FormatClass | None:
    """The class that a text says and nothing else; None where it is none.

    >>> class_of("FF"), class_of("micro four thirds"), class_of("16:9")
    ('full frame', 'four thirds', None)
    """
    return next(
        (name for name, row in CLASS_WORDS.items() if re.fullmatch(row, text.strip(), re.IGNORECASE)), None
    )


def _pair(found: re.Match[str]) -> tuple[int, int]:
    return int(found[1]), int(found[2])


def _pair_mm(found: re.Match[str]) -> tuple[float, float]:
    return number(found[1]), number(found[2])


def _aspect(found: re.Match[str]) -> tuple[str, float]:
    if not 0.2 <= number(found[1]) / number(found[2]) <= 5:
        raise NotOneError("is no shape of a picture: write it like 16:9 or 2.39:1")
    return f"{found[1]}:{found[2]}".replace(",", "."), number(found[1]) / number(found[2])


def _bare_aspect(found: re.Match[str]) -> tuple[str, float]:
    return found[1].replace(",", "."), number(found[1])


def _rate(found: re.Match[str]) -> tuple[str, str]:
    return found[1].replace(",", "."), (found[2] or "").lower()


def _range(found: re.Match[str]) -> tuple[str, str, str]:
    low, high, suffix = found[1].replace(",", "."), found[3].replace(",", "."), found[4] or found[2] or ""
    if float(low) > float(high):
        raise NotOneError("goes from the lower rate to the higher one")
    if float(high) > HIGHEST_RATE and not suffix:
        raise NotOneError("are no rates of a camera: say what they are, like EI 100-25600")
    return low, high, suffix.lower()


def _megabits(found: re.Match[str]) -> float:
    per = 8.0 if found[3] == "B" and "it" not in found[0] else 1.0
    return number(found[1]) * _MEGABITS[found[2].lower()] * per


def _densities(found: re.Match[str]) -> list[float]:
    """Densities of built-in ND: stops, fractions of light and densities as they are written; clear is none."""
    if found[2] is None:
        return []
    told = found[2].lower()
    stops = bool(re.search(r"stops?\s*$", found[0], re.IGNORECASE))
    found_here: list[float] = []
    for part in re.findall(rf"clear|1/\d+|{N}", told):
        if part == "clear":
            found_here.append(0.0)
        elif "/" in part:
            found_here.append(round(math.log10(int(part[2:])), 1))
        else:
            found_here.append(round(number(part) * (0.3 if stops else 1.0), 2))
    if not stops and any(n > 4 or (n >= 1 and n == int(n)) for n in found_here):
        raise NotOneError(
            "may be stops, densities or factors: write it like 2, 4, 6 stops, or 0.6, 1.2, or 1/4, 1/16"
        )
    return found_here


def _stops_of_nd(found: re.Match[str]) -> list[float]:
    return [round(n * 0.3, 2) for n in numbers(found[2])]


def _ms(found: re.Match[str]) -> float:
    figure = found[found.re.groups]
    return 1000 / number(figure.split("/")[1]) if "/" in figure else number(figure)


def _factors(found: re.Match[str]) -> list[float]:
    return numbers(found[found.re.groups])


_LIST = rf"{N}(?:\s*[/,]\s*{N}|\s+and\s+{N}|\s+{N}(?=\s|$|[,;])){{0,24}}"
_CAP = r"up\s*to|max(?:imum|\.)?(?:\s*(?:frame\s*)?rate)?\s*:?|not\s+above|no\s+more\s+than|at\s+most|≤|<=|to"
_NO_PAIR = rf"(?!\s*[:]\s*\d|{TIMES}\d)"
_IN_CAMERA = (r"(?:(?:electronic|digital|active|lens|breathing|distortion)\s+)*"
              r"(?:stabili[sz](?:er|ation|ing)?|is|ibis|steady(?:\s+mode)?|correction|compensation)")  # fmt: skip
_ALSO_CROP = r"(?:\s*[:,]?\s*(?:(?:additional|slight|further)\s+)?crops?(?:\s+(?:of|by))?)?"

#: The words of a spec page, in the order in which they are tried.
PAGE: tuple[Phrase, ...] = (
    Phrase("nothing", r"(?:\d+\s*[x×]\s*)?\d+\s*(?:tb|gb)(?:\s+(?:cards?|drives?|media))?"),
    # Sizes. Three of them are those of a body.
    Phrase("nothing", rf"{N}(?:\s*mm)?{TIMES}{N}(?:\s*mm)?{TIMES}{N}(?:\s*mm)?|total\s+(?:pixels|photosites)\s*:?\s*{N}\s*(?:mp|megapixels?)"),
    Phrase("reads", rf"(?:reads?|uses?|(?:over)?sampled\s+from|from|effective\s+(?:pixels|photosites)|active\s+(?:sensor\s+)?(?:area|pixels|photosites))\s*:?\s*(\d{{3,5}}){TIMES}(\d{{3,5}})(?:\s*(?:px|pixels|photosites))?", _pair),
    Phrase("factor", r"(?:(?:reads?|uses?)\s+)?(\d{3,5})\s+(?:of|out\s+of)\s+(?:the\s+)?(\d{3,5})(?:\s*(?:px|pixels|photosites))?(?:\s*(?:across|wide))?", lambda m: ("", int(m[2]) / int(m[1]))),
    Phrase("records", rf"(?:records?|recorded|oversampled\s+to|downsampled\s+to|scaled\s+to|output)\s*:?\s*(\d{{3,5}}){TIMES}(\d{{3,5}})(?:\s*(?:px|pixels))?", _pair),
    Phrase("photosites", rf"(\d{{3,5}}){TIMES}(\d{{3,5}})\s*photosites", _pair),
    Phrase("pair", rf"(\d{{3,5}})\s*(?:\(?[hw]\)?)?{TIMES}(\d{{3,5}})(?:\s*(?:px|pixels)|\s*\([vh]\))?", _pair),
    Phrase("grid", rf"[2-9]{TIMES}[2-9](?!\s*mm)"),
    Phrase("size_mm", rf"({N})(?:\s*mm)?{TIMES}({N})(?:\s*mm)?", _pair_mm),
    # Shapes and samples.
    Phrase("samples", r"4\s*:\s*([0-4])\s*:\s*([0-4])", lambda m: f"4:{m[1]}:{m[2]}"),
    Phrase("samples", r"4(22|20|44)(?=\s|,|;|$|\))", lambda m: f"4:{m[1][0]}:{m[1][1]}"),
    Phrase("method", r"(?:1\s*:\s*1|pixel[\s-]*(?:to|for|by)[\s-]*pixel)(?:\s*(?:pixel|photosite))?(?:\s*(?:read-?out|read|mode|crop))?", lambda m: ("full", None)),
    Phrase("compression", rf"(?:[3-9]|\d\d)\s*:\s*1(?:(?:{TO}|\s*[,/]\s*)\d+\s*:\s*1){{0,24}}", lambda m: numbers(m[0])[0]),
    Phrase("aspect", r"(\d{1,2}(?:[.,]\d+)?)\s*:\s*(\d{1,2}(?:[.,]\d+)?)" rf"(?:\s*(?:window|mode))?(?:\s*(?:within|out\s+of|of)\s+{N}\s*:\s*{N})?", _aspect),
    Phrase("aspect", r"(1[.,](?:33|37|66|77|78|85|90?)|2[.,](?:00|20?|35|39|40?)|2[.,]76)(?!\d|\s*k|\s*[x×])", _bare_aspect),
    # Names of rasters.
    *_named(dict(RASTERS.values()), "raster"),
    *(row._replace(pattern=f"{row.pattern}(?=[pi]?\\d)", open=True) for row in _named(dict(RASTERS.values()), "raster")),
    Phrase("raster", r"(4320|2160|1080|720)(?=\s*[pi/])", lambda m: BY_LINES[m[1]], True),
    Phrase("thousands", rf"(?:(?:from|called)\s+)?({N})\s*k(?:\s*oversampl\w+)?(?=[pi]?\d|\W|$)", lambda m: number(m[1]), True),
    # Classes.
    *CLASSES,
    Phrase("whole", r"(?:full|whole|entire)[\s-]*(?:width|sensor|window|area)(?:\s*read-?out)?|no\s+crop|uncropped"),
    Phrase("open_gate", r"open[\s-]*gate"),
    Phrase("filler", r"(?:full|whole)\s+height"),
    Phrase("whole", r"full|whole"),
    # Crops.
    Phrase("against", rf"({_FACTOR})\s*[x×]?\s*(?:crop\s*)?(?:against|vs\.?|compared\s+(?:to|with))\s+(?:full[\s-]*frame|ff|super\s*35|s35)"),
    Phrase("in_camera", rf"({_FACTOR})\s*[x×](?:\s*crop)?\s+(?:with|by|for)\s+(?:the\s+)?{_IN_CAMERA}", _factors),
    Phrase("in_camera", rf"{_IN_CAMERA}{_ALSO_CROP}\s*:?\s*({_FACTOR}\s*[x×]?(?:(?:\s*[/,]\s*|{TO}|\s+and\s+){_FACTOR}\s*[x×]?){{0,24}})", _factors),
    Phrase("squeeze", rf"(?:de-?squeeze|squeeze|anamorphic)\s*:?\s*({_FACTOR}(?!\s*:)\s*[x×]?(?:(?:\s*[/,]\s*|\s+and\s+){_FACTOR}\s*[x×]?){{0,24}})", _factors),
    Phrase("squeeze", rf"({_FACTOR})\s*[x×]\s*(?:de-?squeeze|squeeze|anamorphic)", lambda m: [number(m[1])]),
    Phrase("factor", rf"(?:cropped|crop)(?:\s*(?:factor|of|by))*\s*:?\s*[x×]?\s*({_FACTOR})(?!\d|\s*:)\s*[x×]?", lambda m: (m[1], number(m[1]))),
    Phrase("stabiliser", _IN_CAMERA),
    Phrase("vague", r"cropp?ed|crop|slight(?:ly)?"),
    Phrase("factor", rf"window\s+({_FACTOR})\s*[x×]", lambda m: (m[1], number(m[1]))),
    Phrase("factor", rf"({_FACTOR})(?:\s*[x×]\s*crop|[x×])(?:\s+of\s+the\s+full\s+width)?", lambda m: (m[1], number(m[1]))),
    # How the window is read.
    Phrase("method", r"(?:skips|reads|drops)\s+every\s+(?:second|other)\s+(?:line|row)", lambda m: ("skipped", 2)),
    Phrase("method", r"(?:no|without)\s+(?:pixel\s+)?(?:binning|line[\s-]*skipping|skipping)|every\s+photosite|full\s+read-?out", lambda m: ("full", None)),
    Phrase("method", r"(?:pixel[\s-]*)?bin(?:ned|ning)(?:\s*[x×]?\s*([2-9])(?!\d)\s*(?:[x×]\s*[2-9]?)?)?", lambda m: ("binned", int(m[1]) if m[1] else None)),
    Phrase("method", r"(?:line[\s-]*)?skip(?:ped|ping)(?:\s*[x×]?\s*([2-9])(?!\d)\s*[x×]?)?", lambda m: ("skipped", int(m[1]) if m[1] else None)),
    # Light and times.
    Phrase("base_eis", rf"(?:(?:dual|two)\s+)?(?:base|native)\s*(?:ei|iso|asa)?\s*:?\s*({N}(?:(?:\s*[/,&]\s*|\s+and\s+){N}){{0,24}})", lambda m: [int(n) for n in numbers(m[1])]),
    Phrase("base_eis", r"(?:ei|iso|asa)\s*:?\s*(\d+)\s*\(?\s*(?:base|native)\)?", lambda m: [int(m[1])]),
    Phrase("eis", rf"(?:ei|iso|asa)(?:\s*range)?\s*:?\s*(?:from\s+)?(\d+)(?:\s*\([^()]*\))?{TO}(\d+)(?:\s*\([^()]*\))?", lambda m: (int(m[1]), int(m[2]))),
    Phrase("eis", rf"(?:ei|iso|asa)\s*:?\s*({_LIST})", lambda m: [int(n) for n in numbers(m[1])]),
    Phrase("nd", r"(?:no|without)\s+(?:internal|built[\s-]*in)?\s*nd()(?=(zzz)?)", lambda m: []),
    Phrase("nd_range", rf"(?:(?:internal|built[\s-]*in|variable|electronic)\s*)*nd\s*(?:filters?)?\s*:?\s*((?:1/)?{N}){TO}((?:1/)?{N})(?:\s*(?:stops?|electronic))?", lambda m: tuple(_density(end) for end in m.groups())),
    Phrase("nd", rf"((?:internal|built[\s-]*in|electronic)\s*)?nd(?:\s*filters?)?(?:\s*wheel)?\s*:?\s*((?:clear|1/\d+|{N})(?:(?:\s*[,/]\s*|\s+and\s+)(?:clear|1/\d+|{N})|\s+{N}(?!\s*\w)){{0,24}})(?:\s*stops?)?", _densities),
    Phrase("nd", rf"()({N}(?:(?:\s*[,/]\s*|\s+and\s+){N}){{0,24}})[\s-]*stops?\s*(?:of\s+)?(?:(?:internal|built[\s-]*in|electronic)\s*)*nd(?:\s*filters?)?(?:\s*stops)?", _stops_of_nd),
    Phrase("row_us", rf"row\s*time\s*[:~=<]*\s*({N})\s*(?:µs|μs|us|microseconds?)", lambda m: number(m[1])),
    Phrase("readout_ms", rf"(?:rolling\s*shutter|(?:sensor\s*)?(?:read-?out|scan)(?:\s*(?:speed|time))?)\s*[:~=<]*\s*(?:approx\.?|ca\.?|about)?\s*(1/{N}(?=\s*s)|{N}(?=\s*ms))\s*m?s", _ms),
    Phrase("readout_ms", rf"({N})\s*ms", lambda m: number(m[1])),
    Phrase("buffer_s", rf"(?:buffer|burst|for)\s*(?:of\s*)?({N})\s*(?:s|sec|seconds?)", lambda m: number(m[1])),
    Phrase("nothing", rf"pre-?record\s*{N}\s*(?:s|sec|seconds?)"),
    Phrase("firmware", r"(?:from\s+|since\s+)?(?:firmware|fw)\s*(?:v(?:ersion)?\.?\s*)?(\d+(?:\.\d+)*)(?:\s*(?:or\s+later|and\s+later|\+))?", lambda m: m[1]),
    Phrase("megapixels", rf"({N})\s*(?:mp|mpx|megapixels?)", lambda m: number(m[1])),
    Phrase("bits", r"bit[\s-]*depth\s*:?\s*(\d+)(?:\s*bits?)?", lambda m: int(m[1])),
    Phrase("bits", rf"({N})[\s-]*bits?", lambda m: int(number(m[1]))),
    # Codecs and needs.
    Phrase("not_raw", r"(?:not|no|except)\s+(?:in\s+|for\s+)?raw(?=\s*(?:$|[,;.)]))"),
    Phrase("raw", r"(?:(?:linear|log|compressed|lossless|uncompressed)\s+)?raw(?:\s+(?:output|recording|format))?(?:\s+log)?"),
    *_named(CODECS, "codec"),
    *_named(NEEDS, "need"),
    # Rates.
    Phrase("megabits", rf"(?:max\.?\s*|up\s*to\s*)?(?-i:({N})\s*([kKMmGg])(b|B)(?:ps|it/s|it\s*/\s*s|/s|its/s|its?\s+per\s+second))(?:\s*vbr|\s*cbr)?", _megabits),
    Phrase("lowest", rf"from\s+({N})\s*(?:fps|p)(?!\s*(?:to|-|–|up))"),
    Phrase("cap_word", r"up\s*to(?=\s+(?:\d+(?:[.,]\d+)?k|uhd|hd|full|dci|4k|2k|8k)\b)"),
    Phrase("cap", rf"(?:{_CAP})\s*({N})\s*{_RATE_UNIT}?{_NO_PAIR}(?!\s*(?:mm|k\b|°|[x×]|[kmg]b|[kmg]bit|mp|bits?|ms|s\b))", _rate),
    Phrase("rates", rf"@?\s*({N})\s*{_RATE_UNIT}?{TO}({N})\s*{_RATE_UNIT}?{_NO_PAIR}(?!\s*(?:mm|k\b|x\b))", _range),
    Phrase("cap", rf"({N})\s*{_RATE_UNIT}\s+max(?:imum|\.)?", _rate),
    Phrase("rate", rf"(?:@|at\b)\s*({N})\s*{_RATE_UNIT}?(?!\s*:)", lambda m: (m[1].replace(",", "."), (m[2] or "").lower().replace("fps", "")) ),
    Phrase("rate", rf"({N})\s*{_RATE_UNIT}(?!{TIMES}\d)", _rate),
    Phrase("fraction", r"1/\d+"),
    Phrase("rate", rf"([pi])({N})(?=\W|$)", lambda m: (m[2].replace(",", "."), m[1].lower())),
    Phrase("scan_letter", r"[pi](?=\W|$)", lambda m: m[0].lower()),
    # What a body is besides.
    Phrase("mount", r"(?:lens\s+)?mount\s*:?\s*([\w-]{1,12})", lambda m: m[1]),
    Phrase("weight_kg", rf"weight\s*:?\s*({N})\s*(kg|g|lbs?)", lambda m: round(number(m[1]) * {"kg": 1.0, "g": 1e-3}.get(m[2].lower(), 0.45359237), 3)),
    Phrase("interlaced", r"interlaced"),
    Phrase("no", r"(?:no|not|without|except|never)"),
    Phrase("system", r"ntsc|pal", lambda m: m[0].lower()),
    Phrase("internal", r"internal(?:ly)?|in\s+camera|onboard"),
    Phrase("nothing", r"n/a|tbc|tba|tbd|see\s+(?:the\s+)?manual"),
    Phrase("off_topic", f"(?:{OFF_TOPIC})"),
    Phrase("filler", r"approx\.?|ca\.?|about|circa|only|effective"),
    Phrase("filler", r"(?:slow\s*(?:&|and)\s*fast|s\s*&\s*q|hfr|vfr|high\s+(?:speed|frame\s+rate)|(?:frame\s*)?rates?|fps|sensor|recording|"
                     r"window|mode|modes|format|formats|read-?out|resolution|video|movie|in|at|on|of|the|a|an|and|or|with|from|within|for|"
                     r"both|records?|reads?|oversampl(?:ed|ing)|downsampl(?:ed|ing)|photosites?|pixels?|across|total|anamorphic|output)"),
)  # fmt: skip


def _density(text: str) -> float:
    return round(math.log10(number(text[2:])), 1) if text.startswith("1/") else number(text)
