"""ASC FDL 2.0 out and in: a recording format is a canvas, a delivery a framing intent with its decisions.

The standard speaks of pixels, photosites, millimetres and framing. What it has no words for (rates,
codec, timing) stands in keys that begin with ``_hextan_``, which other programs pass over; what is left
out is said. See [fdl] in docs/bibliography.md.
"""

from __future__ import annotations

import json
import re
import uuid
from dataclasses import dataclass
from fractions import Fraction
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from hextan.core.base import Fault, InvalidInputError, faults_of
from hextan.core.documents import BodyDocument, MenuWords, body_of, parse_body
from hextan.core.equipment import FormatInPackage, Package
from hextan.core.evaluation import columns_of
from hextan.core.optics import extract_picture
from hextan.formats.text import decode_json

CREATOR = "Hextan"
#: Photosites of one axis may differ by this much from what the other canvases of a body say.
PITCH_TOLERANCE = 0.01
FdlId = Annotated[str, Field(pattern=r"^[A-Za-z0-9_]{1,32}$")]


class _Part(BaseModel):
    """Keys that the standard does not know must begin with an underscore."""

    model_config = ConfigDict(extra="allow", allow_inf_nan=False)

    def model_post_init(self, context: Any) -> None:
        """Refuse other keys."""
        unknown = [key for key in self.model_extra or {} if not key.startswith("_")]
        if unknown:
            raise ValueError(f"{unknown[0]} is not a key of ASC FDL (own keys begin with _)")


class IntSize(_Part):
    """Whole pixels or photosites."""

    width: Annotated[int, Field(gt=0, le=1_000_000)]
    height: Annotated[int, Field(gt=0, le=1_000_000)]


class Size(_Part):
    """Pixels with fractions, or millimetres."""

    width: Annotated[float, Field(gt=0)]
    height: Annotated[float, Field(gt=0)]


class Point(_Part):
    """A corner, from the canvas's top left."""

    x: Annotated[float, Field(ge=0)]
    y: Annotated[float, Field(ge=0)]


class FramingIntent(_Part):
    """A delivery."""

    label: str | None = None
    id: FdlId
    aspect_ratio: IntSize
    protection: Annotated[float, Field(ge=0, lt=1)] = 0.0


class FramingDecision(_Part):
    """A delivery in a canvas."""

    label: str | None = None
    id: Annotated[str, Field(pattern=r"^[A-Za-z0-9_]{1,32}-[A-Za-z0-9_]{1,32}$")]
    framing_intent_id: FdlId
    dimensions: Size
    anchor_point: Point
    protection_dimensions: Size | None = None
    protection_anchor_point: Point | None = None


class Canvas(_Part):
    """A recording format."""

    label: str | None = None
    id: FdlId
    source_canvas_id: FdlId
    dimensions: IntSize
    effective_dimensions: IntSize | None = None
    effective_anchor_point: Point | None = None
    photosite_dimensions: IntSize | None = None
    physical_dimensions: Size | None = None
    anamorphic_squeeze: Annotated[float, Field(gt=0)] = 1.0
    framing_decisions: list[FramingDecision] = []


class Context(_Part):
    """A body."""

    label: str | None = None
    context_creator: str | None = None
    clip_id: Any = None
    canvases: list[Canvas] = []


class Version(_Part):
    """2.0."""

    major: Literal[2]
    minor: Literal[0]


class Document(_Part):
    """The whole list."""

    uuid: uuid.UUID
    version: Version
    fdl_creator: str | None = None
    default_framing_intent: FdlId | None = None
    framing_intents: list[FramingIntent] = []
    contexts: list[Context] = []
    canvas_templates: Any = None


@dataclass(frozen=True)
class Delivery:
    """A delivered picture: aspect on the screen as a ratio of whole numbers, and the share protected."""

    label: str
    aspect: tuple[int, int]
    protect: float = 0.0
    #: What is delivered, in pixels, where it is known.
    pixels: tuple[int, int] | None = None


@dataclass(frozen=True)
class Framed:
    """A body in a list: which of its formats by key and squeeze (None: all), and behind which squeezes."""

    document: BodyDocument
    formats: frozenset[tuple[str, float]] | None
    squeezes: tuple[float, ...]


@dataclass(frozen=True)
class FdlRead:
    """What came of a file: bodies, deliveries, and what could not be taken over, in words."""

    bodies: list[BodyDocument]
    deliveries: list[Delivery]
    notes: list[str]


NOT_CARRIED = (
    "An FDL has no words for rates, codecs and timing: they stand in keys beginning with _hextan_, which other "
    "programs pass over. In-camera crops, claims and the origins of figures are not in the file."
)


def write_fdl(
    document: BodyDocument, deliveries: list[Delivery], squeeze: float = 1.0
) -> tuple[bytes, list[str]]:
    """Write a body as an FDL.

    Parameters
    ----------
    deliveries : each becomes a framing intent and, in every canvas, a framing decision
    squeeze : of the lens

    Returns
    -------
    (the file, what it does not carry)
    """
    data = write_list([Framed(document, None, (squeeze,))], deliveries, json.dumps([document.key]))
    return data, [NOT_CARRIED]


def write_list(framed: list[Framed], deliveries: list[Delivery], identity: str) -> bytes:
    """Write several bodies as one FDL: a context each, a canvas for each of their formats behind each squeeze.

    Parameters
    ----------
    deliveries : each becomes a framing intent, in every canvas a framing decision, and with pixels of its own a template
    identity : what the list's uuid is made from, besides the labels of its canvases
    """
    intents = [(f"I{i}", d) for i, d in enumerate(deliveries, 1)]
    contexts, first = [], 1
    for each in framed:
        canvases = _canvases(each, intents, first)
        first += len(canvases)
        contexts.append({"label": f"{each.document.maker} {each.document.name}", "context_creator": CREATOR, "canvases": canvases,
                         **_own_body_keys(each.document)})  # fmt: skip
    labels = [c["label"] for context in contexts for c in context["canvases"]]
    plain: dict[str, Any] = {
        "uuid": str(uuid.uuid5(uuid.NAMESPACE_OID, json.dumps([*json.loads(identity), *labels]))),
        "version": {"major": 2, "minor": 0},
        "fdl_creator": CREATOR,
        "framing_intents": [
            {"label": d.label, "id": key, "aspect_ratio": {"width": d.aspect[0], "height": d.aspect[1]}, "protection": d.protect}
            for key, d in intents
        ],
        "contexts": contexts,
    }  # fmt: skip
    templates = [_template(f"T{i}", d) for i, (_, d) in enumerate(intents, 1) if d.pixels is not None]
    if templates:
        plain["canvas_templates"] = templates
    if intents:
        plain["default_framing_intent"] = intents[0][0]
    return (json.dumps(plain, indent=1, ensure_ascii=False) + "\n").encode()


def _canvases(framed: Framed, intents: list[tuple[str, Delivery]], first: int) -> list[dict[str, Any]]:
    document = framed.document
    body = body_of(document)
    places = list(Package(bodies=(body,)).formats.values())
    documents = [(mode, f) for mode in document.modes for f in mode.formats]
    canvases: list[dict[str, Any]] = []
    for squeeze in framed.squeezes:
        columns = columns_of([here.as_request() for here in places], squeeze) if places else None
        for i, (here, (mode, f)) in enumerate(zip(places, documents, strict=True)):
            if framed.formats is not None and (f.key, squeeze) not in framed.formats:
                continue
            assert columns is not None
            size_mm = float(columns.recorded_w[i]), float(columns.recorded_h[i])
            sites = [round(n * 1000 / body.pitch_um) for n in size_mm]
            w, h = here.recording.raster
            key = f"C{first + len(canvases)}"
            behind = f", {squeeze:g}x" if len(framed.squeezes) > 1 and squeeze != 1 else ""
            canvases.append(
                {
                    "label": f"{mode.name}, {f.name}{behind}",
                    "id": key,
                    "source_canvas_id": key,
                    "dimensions": {"width": w, "height": h},
                    "photosite_dimensions": {"width": sites[0], "height": sites[1]},
                    "physical_dimensions": {"width": size_mm[0], "height": size_mm[1]},
                    "anamorphic_squeeze": squeeze,
                    "framing_decisions": [_decision(key, intent, d, w, h, squeeze) for intent, d in intents],
                    **_own_canvas_keys(mode.model_dump(mode="json"), f.model_dump(mode="json"), here),
                }
            )
    return canvases


def _template(key: str, delivery: Delivery) -> dict[str, Any]:
    """What a delivery is made of a canvas: its picture, de-squeezed, filled into its pixels about the middle."""
    assert delivery.pixels is not None
    return {
        "label": delivery.label,
        "id": key,
        "target_dimensions": {"width": delivery.pixels[0], "height": delivery.pixels[1]},
        "target_anamorphic_squeeze": 1.0,
        "fit_source": "framing_decision.dimensions",
        "fit_method": "fit_all",
        "alignment_method_horizontal": "center",
        "alignment_method_vertical": "center",
        "round": {"even": "even", "mode": "round"},
    }


def _decision(canvas: str, intent: str, delivery: Delivery, w: int, h: int, squeeze: float) -> dict[str, Any]:
    """Fit the intent's aspect into the canvas (protection), then shrink it by the share protected."""
    outer_w, outer_h = (
        float(x) for x in extract_picture(w, h, squeeze, delivery.aspect[0] / delivery.aspect[1])
    )
    keep = 1 - delivery.protect

    def anchor(width: float, height: float) -> dict[str, float]:
        return {"x": (w - width) / 2, "y": (h - height) / 2}

    return {
        "label": delivery.label,
        "id": f"{canvas}-{intent}",
        "framing_intent_id": intent,
        "dimensions": {"width": outer_w * keep, "height": outer_h * keep},
        "anchor_point": anchor(outer_w * keep, outer_h * keep),
        "protection_dimensions": {"width": outer_w, "height": outer_h},
        "protection_anchor_point": anchor(outer_w, outer_h),
    }


EMPTY_MENU = MenuWords().model_dump()
_MODE_KEYS = ("name", "row_time_us", "overhead_us", "max_fps", "menu")
_FORMAT_KEYS = ("name", "map", "codec", "bits", "samples", "compression", "megabits", "megabits_at_fps", "raw",
                "interlaced", "highest_fps", "needs", "from_firmware")  # fmt: skip
_PAIR_KEYS = ("offset", "sampling", "methods")
_BODY_KEYS = ("name", "maker", "mount", "firmware", "pitch_um", "free_windows", "write_mb_s", "buffer_gb",
              "eis", "base_eis", "highest_ei", "nd_stops", "zero_db_ei", "slots", "slot_use", "weight_kg", "size_mm")  # fmt: skip


def _own_canvas_keys(mode: dict[str, Any], f: dict[str, Any], here: FormatInPackage) -> dict[str, Any]:
    own = {f"_hextan_mode_{key}": mode[key] for key in _MODE_KEYS if mode[key] != EMPTY_MENU}
    own |= {f"_hextan_mode_window_{axis}": n for axis, n in zip("wh", here.mode.window, strict=True)}
    own |= {f"_hextan_mode_{key}_{axis}": mode[key][i] for key in _PAIR_KEYS for i, axis in enumerate("hv")}
    own |= {f"_hextan_format_{key}": f[key] for key in _FORMAT_KEYS if f[key] != []}
    own["_hextan_format_rates"] = " ".join(f["rates"])
    return {key: value for key, value in own.items() if value is not None}


def _own_body_keys(document: BodyDocument) -> dict[str, Any]:
    own = {f"_hextan_body_{key}": getattr(document, key) for key in _BODY_KEYS}
    own |= {f"_hextan_body_photosites_{a}": n for a, n in zip("wh", document.photosites, strict=True)}
    return {key: value for key, value in own.items() if value is not None}


def read_fdl(data: bytes) -> FdlRead:
    """Read an FDL: each context becomes a body, each original canvas a recording format.

    Raises
    ------
    InvalidInputError
        Text that is no FDL 2.0; a file without any canvas that says photosites and millimetres.
    """
    try:
        document = Document.model_validate(decode_json(data))
    except ValidationError as error:
        raise InvalidInputError.of(*faults_of(error)) from None
    _check_references(document)
    notes: list[str] = []
    bodies = [
        body for i, c in enumerate(document.contexts, 1) if (body := _read_context(c, i, notes)) is not None
    ]
    if not bodies:
        rule = f"has no canvas that can become a recording format. {' '.join(notes)}".strip()
        raise InvalidInputError.of(Fault("contexts", len(document.contexts), rule))
    if document.canvas_templates:
        notes.append("Canvas templates say how pictures are scaled later on: they are left out.")
    deliveries = [
        Delivery(i.label or i.id, (i.aspect_ratio.width, i.aspect_ratio.height), i.protection)
        for i in document.framing_intents
    ]
    return FdlRead(bodies, deliveries, notes)


def _check_references(document: Document) -> None:
    """Ids are unique, and what refers to an intent or a canvas finds it."""
    faults = []
    intents = {intent.id for intent in document.framing_intents}
    if document.default_framing_intent not in (None, *intents):
        faults.append(
            Fault("default_framing_intent", document.default_framing_intent, "is not the id of an intent")
        )
    seen: set[str] = set()
    for i, context in enumerate(document.contexts):
        for j, canvas in enumerate(context.canvases):
            path = f"contexts[{i}].canvases[{j}]"
            if canvas.id in seen:
                faults.append(Fault(f"{path}.id", canvas.id, "is there twice"))
            seen.add(canvas.id)
            faults += [
                Fault(
                    f"{path}.framing_decisions[{k}].framing_intent_id",
                    d.framing_intent_id,
                    "is not the id of an intent",
                )
                for k, d in enumerate(canvas.framing_decisions)
                if d.framing_intent_id not in intents
            ]
    if faults:
        raise InvalidInputError.of(*faults)


def _read_context(context: Context, number: int, notes: list[str]) -> BodyDocument | None:
    name = context.label or f"Context {number}"
    own = _own(context, "_hextan_body_", f"contexts[{number - 1}]")
    usable = [canvas for canvas in context.canvases if _usable(canvas, name, notes)]
    pitches = [c.physical_dimensions.width * 1000 / c.photosite_dimensions.width
               for c in usable if c.physical_dimensions and c.photosite_dimensions]  # fmt: skip
    if not usable:
        return None
    pitch = own.get("pitch_um") or sorted(pitches)[len(pitches) // 2]
    kept = []
    for canvas, own_pitch in zip(usable, pitches, strict=True):
        if abs(own_pitch / pitch - 1) > PITCH_TOLERANCE:
            notes.append(
                f"{name}: {_label(canvas)} has photosites of {own_pitch:.3f} µm where the others have {pitch:.3f}: left out."
            )
        else:
            kept.append(canvas)
    modes = _modes(kept, name, notes)
    sensor = [own.get("photosites_w"), own.get("photosites_h")]
    if None in sensor:
        sensor = [max(mode["window"][axis] for mode in modes) for axis in (0, 1)]
        notes.append(
            f"{name}: an FDL does not say how large the sensor is; its largest canvas was taken, {sensor[0]} × {sensor[1]}."
        )
    plain = {
        "name": _line(name),
        "maker": _line(context.context_creator or "unknown"),
        "mount": "unknown",
        "pitch_um": pitch,
    }
    plain |= {key: own[key] for key in _BODY_KEYS if key in own}
    return parse_body(plain | {"photosites": sensor, "modes": modes}, f"contexts[{number - 1}]")


def _usable(canvas: Canvas, body: str, notes: list[str]) -> bool:
    if canvas.source_canvas_id != canvas.id:
        notes.append(
            f"{body}: {_label(canvas)} is made from another canvas, so it is no recording: left out."
        )
        return False
    if canvas.photosite_dimensions is None or canvas.physical_dimensions is None:
        notes.append(
            f"{body}: {_label(canvas)} does not say its photosites and millimetres, so nothing can be computed: left out."
        )
        return False
    return True


def _label(canvas: Canvas) -> str:
    return canvas.label or canvas.id


def _line(text: str) -> str:
    return re.sub(r"\s+", " ", "".join(c if c.isprintable() else " " for c in text)).strip()[:80] or "unnamed"


#: Of our own keys those that are read before the document is checked, with the type that each must have.
_TYPED: dict[str, tuple[type[Any] | tuple[type[Any], ...], str]] = {
    "name": (str, "must be text"),
    "rates": (str, "must be text"),
    "pitch_um": ((int, float), "must be a number above 0 and at most 1000"),
    "photosites_w": (int, "must be a whole number"),
    "photosites_h": (int, "must be a whole number"),
    "window_w": (int, "must be a whole number"),
    "window_h": (int, "must be a whole number"),
}


def _own(part: _Part, prefix: str, path: str) -> dict[str, Any]:
    """Our own keys of a part, without their prefix.

    Raises
    ------
    InvalidInputError
        A value of another type than that of its key, or half of a pair.
    """
    own = {
        key.removeprefix(prefix): value
        for key, value in (part.model_extra or {}).items()
        if key.startswith(prefix) and value is not None
    }
    faults = [
        Fault(f"{path}.{prefix}{key}", own[key], rule)
        for key, (kind, rule) in _TYPED.items()
        if key in own
        and (
            not isinstance(own[key], kind)
            or isinstance(own[key], bool)
            or (key == "pitch_um" and not 0 < own[key] <= 1000)
        )
    ]
    faults += [
        Fault(f"{path}.{prefix}{key}_{axis}", None, f"belongs to {prefix}{key}_{other}: give both")
        for key in _PAIR_KEYS
        for axis, other in ("hv", "vh")
        if f"{key}_{other}" in own and f"{key}_{axis}" not in own
    ]
    if faults:
        raise InvalidInputError.of(*faults)
    return own


def _modes(canvases: list[Canvas], body: str, notes: list[str]) -> list[dict[str, Any]]:
    """Canvases of one window are formats of one scan mode."""
    modes: dict[str, dict[str, Any]] = {}
    rateless = False
    for canvas in canvases:
        assert canvas.photosite_dimensions is not None
        path = f"canvas {canvas.id}"
        own, f = _own(canvas, "_hextan_mode_", path), _own(canvas, "_hextan_format_", path)
        window = [
            own.get("window_w", canvas.photosite_dimensions.width),
            own.get("window_h", canvas.photosite_dimensions.height),
        ]
        name = own.get("name") or f"{window[0]} × {window[1]}"
        mode = modes.setdefault(name, {"name": name, "window": window, "formats": []}
                                | {key: own[key] for key in _MODE_KEYS if key in own}
                                | {key: [own[f"{key}_h"], own[f"{key}_v"]] for key in _PAIR_KEYS if f"{key}_h" in own})  # fmt: skip
        rates = f.pop("rates", None)
        rateless = rateless or rates is None
        taken = {row["name"] for row in mode["formats"]}
        label = _line(_label(canvas))
        label = label if label not in taken else f"{label[:45]} {canvas.id}"
        mode["formats"].append(
            {"name": label, "raster": [canvas.dimensions.width, canvas.dimensions.height],
             "rates": rates.split() if rates else ["24"]} | {key: f[key] for key in _FORMAT_KEYS if key in f}
        )  # fmt: skip
    if rateless:
        notes.append(
            f"{body}: an FDL does not say frame rates; 24 was entered wherever it is silent. Enter the true ones."
        )
    return list(modes.values())


def aspect_ratio(aspect: float) -> tuple[int, int]:
    """Write an aspect as whole numbers, as a framing intent wants it.

    >>> aspect_ratio(16 / 9), aspect_ratio(2.39)
    ((16, 9), (239, 100))
    """
    ratio = Fraction(aspect).limit_denominator(1000)
    return ratio.numerator, ratio.denominator
