"""What words of a page mean is said by their neighbours: pairs of counts, bare figures, what is denied, what speaks of other things.

Each step takes all words of a line and gives them back, settled a little further.
"""

from __future__ import annotations

from hextan.core.reading.lexicon import NAME_OF_RASTER
from hextan.core.reading.scan import FILLER, NUMBER, SIGN, SPACE, UNKNOWN, Option, Word

#: Rates that every menu offers.
USUAL_RATES = {
    "24",
    "25",
    "30",
    "48",
    "50",
    "60",
    "72",
    "75",
    "90",
    "96",
    "100",
    "120",
    "150",
    "180",
    "200",
    "240",
}
#: Rasters of so many lines are sensors as well.
_LARGE = 4320
DENIES = "denies what follows: say what there is instead"
#: Rates of no camera.
_MOST_FPS = 1000
#: Kinds beside which a pair of counts is a recorded raster.
_SAYS_RECORDED = {"raw", "bits", "samples", "codec", "megabits", "rate", "rates", "cap", "records"}
#: Words of no list that make a name, at most.
_MOST_OF_A_NAME = 4
#: A label is among the first words of its line.
_LABEL = 2
#: Kinds that say nothing of a body.
SAYS_NOTHING = {SPACE, SIGN, FILLER, UNKNOWN, "nothing"}
#: Signs that part the line for good, and those that part what may belong together.
HARD, SOFT = ";\n", ",/()|+"


def matters(word: Word) -> bool:
    """Whether a word says anything of a body."""
    return word.kind not in (SPACE, SIGN, FILLER, UNKNOWN, "nothing", "no")


def settled(words: list[Word]) -> list[Word]:
    """Words whose neighbours say what they are: pairs of figures, bare numbers, what is denied, one class or another."""
    for settle in (_off_topic, _vague, _by_neighbours, _denied, _pairs, _apart, _bare, _one_class_or_another):
        words = settle(words)
    return words


def _off_topic(words: list[Word]) -> list[Word]:
    """What a page says of other things: a line that begins with their word, and parts of lines that have one."""
    told = [word for word in words if word.kind not in (SPACE, FILLER, SIGN)]
    whole = bool(told) and "off_topic" in {word.kind for word in told[:_LABEL]}
    found: list[Word] = []
    for part in _with_signs(words):
        off = whole or any(word.kind == "off_topic" for word in part)
        found += [
            word._replace(kind="nothing", value=None) if off and word.kind not in (SPACE, SIGN) else word
            for word in part
        ]
    return found


def _with_signs(words: list[Word]) -> list[list[Word]]:
    """The parts of a line, each with the sign behind it."""
    parts: list[list[Word]] = [[]]
    for word in words:
        parts[-1].append(word)
        if word.kind == SIGN and word.text in HARD + SOFT:
            parts.append([])
    return parts


#: Bits that there are.
_BITS = (8, 10, 12, 14, 16)
_REFUSED = {
    "lowest": "says where rates begin: say up to which they go, like 1-60",
    "against": "is a crop against another window: write the size that it leaves, like 22.5 x 15 mm",
}


def _by_neighbours(words: list[Word]) -> list[Word]:
    """Words that only those before them explain: 4:2:2 10, 8/10 bit, up to UHD 60p, up to 60p/50p."""
    found: list[Word] = []
    last: Word | None = None
    before: Word | None = None
    capped = False
    for word in words:
        stroke = last is not None and last.kind == SIGN and last.text == "/" and before is not None
        if word.kind in _REFUSED:
            found.append(word._replace(kind=UNKNOWN, asked=_REFUSED[word.kind]))
        elif (
            word.kind == NUMBER
            and word.value in _BITS
            and last is not None
            and (last.kind == "samples" or (stroke and before is not None and before.kind == "bits"))
        ):
            found.append(word._replace(kind="bits", value=int(word.value)))
        elif word.kind == "rate" and (capped or (stroke and before is not None and before.kind == "cap")):
            found.append(word._replace(kind="cap"))
        else:
            found.append(word)
        capped = capped or word.kind == "cap_word"
        if word.kind not in (SPACE, FILLER):
            before, last = last, found[-1]
    return [w._replace(kind=FILLER) if w.kind == "cap_word" else w for w in found]


def _vague(words: list[Word]) -> list[Word]:
    """A crop without its factor says only that there is one; beside a class or a factor it says no more than they do."""
    rule = "by how much? Write its factor, like crop 1.5x"
    kinds = {word.kind for word in words}
    told = kinds & {"class", "factor", "in_camera"}
    steady = "stabiliser" in kinds
    found: list[Word] = []
    steadied = False
    for word in words:
        steadied = steadied or word.kind == "in_camera"
        after = steadied and "crop" not in word.text.lower()
        if word.kind == "vague":
            found.append(word._replace(kind=FILLER) if told else word._replace(kind=UNKNOWN, asked=rule))
        elif word.kind == "factor" and (steady or after) and word.value[0]:
            found.append(word._replace(kind="in_camera", value=[word.value[1]]))
        elif word.kind in ("stabiliser", "fraction"):
            found.append(
                word._replace(kind=FILLER if word.kind == "stabiliser" and steady and told else UNKNOWN)
            )
        else:
            found.append(word)
    return found


def named(words: list[Word]) -> list[Word]:
    """Words of no list that a line begins with are the name of what it speaks of: Ocean Gate 24 25."""
    first = next((i for i, word in enumerate(words) if word.kind not in SAYS_NOTHING), len(words))
    begun = [i for i, word in enumerate(words[:first]) if word.kind == UNKNOWN and not word.asked]
    if not begun or len(begun) > _MOST_OF_A_NAME or first == len(words):
        return words
    return [
        word._replace(kind="name", value=word.text) if i in begun else word for i, word in enumerate(words)
    ]


def _denied(words: list[Word]) -> list[Word]:
    """After `no` nothing holds until the next comma; the word is marked."""
    found, off = [], False
    for word in words:
        if word.kind == "no":
            off = True
            found.append(word._replace(kind=UNKNOWN, asked=DENIES))
            continue
        off = off and not (word.kind == SIGN and word.text in HARD + SOFT)
        found.append(
            word._replace(kind="nothing", value=None) if off and word.kind not in (SPACE, FILLER) else word
        )
    return found


def _pairs(words: list[Word]) -> list[Word]:
    """A pair of counts is read of the sensor or recorded: its neighbours tell, or it is asked."""
    kinds = {word.kind for word in words}
    called = {word.value for word in words if word.kind == "raster"}
    recorded = bool(kinds & _SAYS_RECORDED)
    read = bool(kinds & {"megapixels", "open_gate", "records"}) or any(
        word.kind == FILLER and word.text.lower() in ("photosites", "sensor", "pixels") for word in words
    )

    def one(word: Word) -> Word:
        if word.kind == "reads":
            return word._replace(kind="photosites")
        if word.kind == "records":
            return word._replace(kind="raster")
        if word.kind != "pair":
            return word
        size, known = word.value, word.value in NAME_OF_RASTER
        if known and not read and not (called and size not in called):
            if size[1] < _LARGE and (size in called or recorded or "thousands" in kinds):
                return word._replace(kind="raster")
            if size[1] < _LARGE or recorded:
                return _either_read_or_recorded(word)
        return word._replace(kind="photosites")

    return [one(word) for word in words]


def _either_read_or_recorded(word: Word) -> Word:
    w, h = word.value
    return word._replace(kind="open").ask(
        f"{w} x {h}: is this what is recorded, or what is read of the sensor?",
        Option("recorded", f"records {w} x {h}"),
        Option("read of the sensor", f"reads {w} x {h}"),
    )


def _apart(words: list[Word]) -> list[Word]:
    """A bare figure with a comma whose halves are both usual rates is two figures: 25,50."""
    found = []
    for word in words:
        low, comma, high = word.text.partition(",")
        if word.kind == NUMBER and comma and {low, high} <= USUAL_RATES:
            middle = word.start + len(low)
            found += [
                Word(NUMBER, word.start, middle, low, float(low)),
                Word(SIGN, middle, middle + 1, ","),
                Word(NUMBER, middle + 1, word.end, high, float(high)),
            ]
        else:
            found.append(word)
    return found


def _one_class_or_another(words: list[Word]) -> list[Word]:
    """Two classes with nothing but a stroke or an "or" between them are one word that has to be asked about."""
    found: list[Word] = []
    for word in words:
        before = [w for w in found[-4:] if w.kind != SPACE]
        if (
            word.kind == "class"
            and len(before) >= 2
            and before[-2].kind == "class"
            and before[-2].value != word.value
            and before[-1].text.lower() in ("/", "or")
        ):
            first = before[-2]
            cut = found.index(first)
            text = "".join(w.text for w in found[cut:]) + word.text
            one = Word("open", first.start, word.end, text)
            found[cut:] = [
                one.ask(
                    f"{text}: which of them is the window's size?",
                    Option(str(first.value), first.text),
                    Option(str(word.value), word.text),
                )
            ]
        else:
            found.append(word)
    return found


def _bare(words: list[Word]) -> list[Word]:
    """Bare numbers are rates where rates are listed or a format stands before them; one alone is asked about."""
    told = [i for i, word in enumerate(words) if word.kind not in (SPACE,)]
    bare = [i for i in told if words[i].kind == NUMBER]
    if not bare:
        return words
    others = [i for i in told if matters(words[i]) and words[i].kind != NUMBER]
    found = list(words)
    place = {i: n for n, i in enumerate(told)}
    for i in bare:
        n = place[i]
        after = words[told[n + 1]] if n + 1 < len(told) else None
        before = next(
            (words[j] for j in reversed(told[max(0, n - 4) : n]) if words[j].kind not in (FILLER, SIGN)), None
        )
        word = words[i]
        # What a word of no list follows is a figure of something else: 3.2 inches, 10 marks.
        if (
            any(near is not None and near.kind == UNKNOWN and not near.asked for near in (after, before))
            and others
        ):
            found[i] = word._replace(kind=UNKNOWN)
        elif len(bare) == 1 and not others:
            found[i] = word._replace(kind="open").ask(
                f"{word.text}: a rate, or something else?",
                Option(f"{word.text} frames a second", f"{word.text} fps"),
                Option(f"up to {word.text} frames a second", f"up to {word.text} fps"),
            )
        elif word.value > _MOST_FPS or (
            after is not None and after.kind == SIGN and after.text in "\"'″′”’°%"
        ):
            found[i] = word._replace(kind=UNKNOWN)
        else:
            found[i] = word._replace(kind="rate", value=(word.text.replace(",", "."), ""))
    return found
