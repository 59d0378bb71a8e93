"""Set-ups as USD text: a camera each, with people, lamps and posts as simple prims at their places; and cameras read back.

One unit is a centimetre, so that apertures and focal lengths, which USD counts in tenths of a unit, are millimetres. Y is up;
the sensor plane stands at the origin and the camera looks along -Z. The camera stands in the entrance pupil. Its focal length and
f-stop are the lens's; its apertures are smaller than the picture by as much as the lens is extended for its focus, so that both the field and
the discs of what is out of focus are those of the finder (see [usd] in docs/bibliography.md).
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from hextan.core.base import Fault, InvalidInputError
from hextan.core.handover import CameraFacts, SeenCamera, ThingFacts
from hextan.formats.text import decode

_CM = 100.0
#: Nothing nearer than this is drawn by the finder, centimetres from the entrance pupil.
_NEAREST_CM = 5.0
MOST_CAMERAS = 500
MOST_TOKENS = 2_000_000
_MOST_DEPTH = 200


def write(setups: list[CameraFacts], title: str) -> bytes:
    """Write set-ups as a USD layer; the first is visible, all stand at the same place."""
    rates = {each["fps"] for each in setups}
    rate = (
        f"    framesPerSecond = {_n(next(iter(rates)))}\n    timeCodesPerSecond = {_n(next(iter(rates)))}\n"
        if len(rates) == 1
        else ""
    )
    names = _names([each["name"] for each in setups])
    body = "\n".join(
        _setup(each, name, shown=i == 0) for i, (each, name) in enumerate(zip(setups, names, strict=True))
    )
    return (
        f'#usda 1.0\n(\n    customLayerData = {{\n        string hextan = {_s(title)}\n    }}\n    defaultPrim = "Setups"\n'
        f'{rate}    metersPerUnit = 0.01\n    upAxis = "Y"\n)\n\ndef Xform "Setups"\n{{\n{body}}}\n'
    ).encode()


def _n(value: float) -> str:
    return f"{value:.10g}"


def _s(text: str) -> str:
    escaped = text.replace("\\", "\\\\").replace('"', '\\"').replace("\n", "\\n").replace("\r", "\\r")
    return f'"{escaped}"'


def _names(names: list[str]) -> list[str]:
    """Identifiers, each once."""
    used: dict[str, int] = {}
    found = []
    for name in names:
        plain = re.sub(r"\W", "_", name, flags=re.ASCII) or "Setup"
        plain = f"_{plain}" if plain[0].isdigit() else plain
        used[plain] = used.get(plain, 0) + 1
        found.append(plain if used[plain] == 1 else f"{plain}__{used[plain]}")
    return found


def _setup(each: CameraFacts, name: str, shown: bool) -> str:
    scale = each["focal_mm"] / each["image_mm"]
    middle_x, middle_y = each["middle_mm"]
    far_cm = max(thing["distance_m"] for thing in each["things"]) * _CM * 2
    pupil = f"({_n(0)}, {_n(each['camera_height_m'] * _CM)}, {_n(-each['pupil_m'] * _CM)})"
    custom = {
        "body": each["body"], "mode": each["mode"], "format": each["format"], "lens": each["lens"],
        "adapters": "; ".join(each["adapters"]),
    }  # fmt: skip
    if each["assumed"]:
        custom["assumed"] = "; ".join(each["assumed"])
    own = [f"            custom string hextan:{key} = {_s(value)}" for key, value in custom.items()]
    figures = {"setMm": each["set_mm"], "subjectM": each["subject_m"], "focusM": each["focus_m"], "wideMm": each["wide_mm"],
               "stop": each["stop"], "fps": each["fps"], "shutterDeg": each["shutter_deg"], "squeeze": each["squeeze"],
               "heightM": each["camera_height_m"]}  # fmt: skip
    own += [
        f"            custom double hextan:{key} = {_n(value)}"
        for key, value in figures.items()
        if value is not None
    ]
    if each["ei"] is not None:
        own.append(f"            custom int hextan:ei = {each['ei']}")
    stop = f"            float fStop = {_n(each['f_number'])}\n" if each["f_number"] is not None else ""
    lines = "\n".join(own)
    things = "\n".join(
        _thing(thing, named)
        for thing, named in zip(each["things"], _names([t["name"] for t in each["things"]]), strict=True)
    )
    return f'''    def Xform "{name}" (
        displayName = {_s(each["name"])}
    )
    {{
        token visibility = "{"inherited" if shown else "invisible"}"

        def Camera "Camera"
        {{
            float2 clippingRange = ({_n(_NEAREST_CM)}, {_n(far_cm)})
            float focalLength = {_n(each["focal_mm"])}
            float focusDistance = {_n(each["focus_from_pupil_m"] * _CM)}
{stop}            float horizontalAperture = {_n(each["wide_mm"] * scale)}
            float horizontalApertureOffset = {_n(middle_x * scale)}
            token projection = "perspective"
            double shutter:close = {_n(each["shutter_deg"] / 360)}
            double shutter:open = 0
            float verticalAperture = {_n(each["high_mm"] * scale)}
            float verticalApertureOffset = {_n(-middle_y * scale)}
            double3 xformOp:translate = {pupil}
            uniform token[] xformOpOrder = ["xformOp:translate"]
{lines}
        }}

{things}    }}
'''


def _thing(thing: ThingFacts, name: str) -> str:
    """A person as a capsule, a lamp as a sphere, a post as a cylinder, a shore as a low wall: at its place, as high as it is."""
    high, ground = thing["height_m"] * _CM, thing["ground_m"] * _CM
    x, z = thing["aside_m"] * _CM, -thing["distance_m"] * _CM
    kind = thing["kind"]
    size = (thing["size_m"] or {"lamp": 0.16, "post": 0.22}.get(kind, 0.0)) * _CM
    if kind == "lamp":
        shape, attributes, y = "Sphere", [f"double radius = {_n(size / 2)}"], ground + high
    elif kind == "post":
        shape, y = "Cylinder", ground + high / 2
        attributes = [
            'uniform token axis = "Y"',
            f"double height = {_n(high)}",
            f"double radius = {_n(size / 2)}",
        ]
    elif kind == "shore":
        shape, y = "Cube", ground + high / 2
        attributes = [
            "double size = 1",
            f"float3 xformOp:scale = ({_n(16 * thing['distance_m'] * _CM)}, {_n(high)}, 1)",
        ]
    else:
        # As broad as a person of its height; seated, as high as one sits (common practice, no source).
        tall = high * (0.77 if kind == "seated" else 1.0)
        radius = high * 0.13
        shape, y = "Capsule", ground + tall / 2
        attributes = [
            'uniform token axis = "Y"',
            f"double height = {_n(max(tall - 2 * radius, 0.1))}",
            f"double radius = {_n(radius)}",
        ]
    order = '["xformOp:translate", "xformOp:scale"]' if kind == "shore" else '["xformOp:translate"]'
    lines = "\n".join(f"            {each}" for each in attributes)
    return f'''        def {shape} "{name}" (
            displayName = {_s(thing["name"])}
        )
        {{
{lines}
            double3 xformOp:translate = ({_n(x)}, {_n(y)}, {_n(z)})
            uniform token[] xformOpOrder = {order}
        }}

'''


_TOKEN = re.compile(
    r"""\s+|\#[^\n]*|(?P<string>\"\"\".*?\"\"\"|'''.*?'''|"(?:\\.|[^"\\\n])*"|'(?:\\.|[^'\\\n])*')|(?P<asset>@[^@\n]*@)"""
    r"""|(?P<word>[^\s(){}\[\]=,;"'@#]+)|(?P<mark>[(){}\[\]=,;])""",
    re.DOTALL,
)


def read(data: bytes) -> list[SeenCamera]:
    """Read the cameras of a USD text layer, each with the names of our own where it has them.

    Nothing but this text is looked at: what it refers to is not followed. Of values that change over time the first counts.

    Raises
    ------
    InvalidInputError
        Another file (a binary layer, a package), or one that refers to others for its cameras.
    """
    if data[:8] == b"PXR-USDC" or data[:2] == b"PK":
        raise InvalidInputError.of(
            Fault("file", "(USD)", "is a binary layer: write it as text (.usda) and send that")
        )
    text = decode(data)
    if not text.lstrip().startswith("#usda"):
        raise InvalidInputError.of(
            Fault("file", "(USD)", "does not begin with #usda: it is no USD text layer")
        )
    found = list(_Reader(text).cameras())
    if not found:
        raise InvalidInputError.of(
            Fault("file", "(USD)", "has no camera in it (what it refers to is not followed)")
        )
    return found


class _Reader:
    """Goes through the tokens of a layer once; prims are told apart by their braces."""

    def __init__(self, text: str) -> None:
        self.tokens: list[str] = []
        for found in _TOKEN.finditer(text):
            token = found[0]
            if found.lastgroup is None:
                continue
            self.tokens.append(token)
            if len(self.tokens) > MOST_TOKENS:
                raise InvalidInputError.of(Fault("file", "(USD)", "is too large to be read"))
        self.at = 0
        self.metres = 0.01

    def cameras(self) -> Iterator[SeenCamera]:
        """Every camera, in the order of the layer."""
        tokens = self.tokens
        if self._here("("):
            self.metres = _number(self._metadata().get("metersPerUnit", [])) or 0.01
        stack: list[tuple[str, str, dict[str, list[str]]]] = []
        count = 0
        while self.at < len(tokens):
            token = tokens[self.at]
            if token in ("def", "over", "class"):
                kind, name = self._prim()
                if self.at < len(tokens) and tokens[self.at] == "{":
                    stack.append((kind, name, {}))
                    if len(stack) > _MOST_DEPTH:
                        raise InvalidInputError.of(Fault("file", "(USD)", "is nested too deeply"))
                    self.at += 1
            elif token == "}":
                self.at += 1
                if stack:
                    kind, name, values = stack.pop()
                    if kind == "Camera":
                        count += 1
                        if count > MOST_CAMERAS:
                            raise InvalidInputError.of(
                                Fault("file", "(USD)", f"has more than {MOST_CAMERAS} cameras")
                            )
                        yield self._camera([*(n for _, n, _ in stack), name], values)
            elif token == "=" and stack:
                name = tokens[self.at - 1]
                self.at += 1
                value = self._value()
                stack[-1][2].setdefault(name.removesuffix(".timeSamples"), value)
            elif token == "(":
                self._value()
            else:
                self.at += 1

    def _here(self, token: str) -> bool:
        return self.at < len(self.tokens) and self.tokens[self.at] == token

    def _prim(self) -> tuple[str, str]:
        """Type and name after def, over or class; what is said of the prim in round brackets is passed over."""
        self.at += 1
        words: list[str] = []
        while self.at < len(self.tokens) and len(words) < 2 and self.tokens[self.at] not in ("{", "}", "("):
            words.append(self.tokens[self.at])
            self.at += 1
            if words[-1][0] in "\"'":
                break
        while self._here("("):
            self._value()
        name = _text([words[-1]]) if words else ""
        return (words[0] if len(words) == 2 else ""), name

    def _metadata(self) -> dict[str, list[str]]:
        inside, found = self._value(), {}
        for i, token in enumerate(inside):
            if token == "=" and 0 < i < len(inside) - 1:
                found[inside[i - 1]] = inside[i + 1 : i + 2]
        return found

    def _value(self) -> list[str]:
        """The tokens of a value: one, or what a bracket holds, however deep."""
        tokens, depth, found = self.tokens, 0, []
        while self.at < len(tokens):
            token = tokens[self.at]
            self.at += 1
            if token in "([{":
                depth += 1
            elif token in ")]}":
                depth -= 1
            else:
                found.append(token)
            if depth <= 0:
                break
        return found

    def _camera(self, path: list[str], values: dict[str, list[str]]) -> SeenCamera:
        mm = self.metres * 1000 / 10

        def told(name: str) -> float | None:
            return _number(values.get(name, []))

        notes = []
        order = values.get("xformOpOrder", [])
        if any("translate" not in op for op in order if op.startswith(('"', "'"))):
            notes.append("How the camera is turned is not read: the Bench looks level along its axis.")
        own = {
            key: _text(values[f"hextan:{key}"])
            for key in ("body", "mode", "format", "lens", "adapters")
            if f"hextan:{key}" in values
        }
        focal, wide = told("focalLength"), told("horizontalAperture")
        focus = told("focusDistance")
        focus_m = told("hextan:focusM")
        if focus_m is None and focus:
            focus_m = focus * self.metres
            notes.append(
                "Its focus distance counts from the camera's centre; here it is taken from the sensor plane."
            )
        place = [
            n
            for n in map(_float, (t for t in values.get("xformOp:translate", []) if t != ","))
            if n is not None
        ]
        height = told("hextan:heightM")
        if height is None and len(place) >= 3:
            height = place[1] * self.metres
        stop = told("hextan:stop")
        f_number = told("fStop") or None
        ei = told("hextan:ei")
        named = path[-2] if len(path) > 1 and path[-1] == "Camera" else path[-1]
        return SeenCamera(
            name=named,
            body=own.get("body"),
            mode=own.get("mode"),
            format=own.get("format"),
            lens=own.get("lens"),
            adapters=tuple(a for a in own["adapters"].split("; ") if a) if "adapters" in own else None,
            focal_mm=None if focal is None else focal * mm,
            set_mm=told("hextan:setMm"),
            wide_mm=told("hextan:wideMm")
            if told("hextan:wideMm") is not None
            else None
            if wide is None
            else wide * mm,
            stop=stop,
            f_number=None if stop is not None else f_number,
            focus_m=focus_m,
            subject_m=told("hextan:subjectM"),
            fps=told("hextan:fps"),
            shutter_deg=told("hextan:shutterDeg"),
            ei=None if ei is None else int(ei),
            camera_height_m=height,
            notes=tuple(notes),
        )


def _float(token: str) -> float | None:
    try:
        value = float(token)
    except ValueError:
        return None
    return value if abs(value) < 1e12 else None


def _number(tokens: list[str]) -> float | None:
    """The first number of a value; of samples over time the first value."""
    if len(tokens) > 1 and ":" in tokens[0]:
        return _float(tokens[1])
    if len(tokens) > 2 and tokens[1] == ":":
        return _float(tokens[2])
    return _float(tokens[0]) if tokens else None


def _text(tokens: list[str]) -> str:
    token = tokens[0] if tokens else ""
    for quotes in ('"""', "'''", '"', "'"):
        if token.startswith(quotes) and token.endswith(quotes) and len(token) >= 2 * len(quotes):
            inside = token[len(quotes) : -len(quotes)]
            return re.sub(r"\\(.)", lambda m: {"n": "\n", "r": "\r", "t": "\t"}.get(m[1], m[1]), inside)
    return token
