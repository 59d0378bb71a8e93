"""What may stand in a list of shots: one row for each cell. Tables, the page, wishes and docs read it.

A need that is added is a field of `Shot` and a row here; `needs.py` reads the cell, `checks.py` holds it against an answer.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class CellRow:
    """One cell of a shot."""

    name: str
    #: Over its column in a table that goes out, and what else people call it.
    title: str
    also: tuple[str, ...] = ()
    #: What is written there, told on the page when the cell is chosen.
    gloss: str = ""
    #: Width of its column on the page, characters.
    size: int = 8
    #: Whether it is a need: a must, or a wish with a weight; and whether it asks for an answer by itself.
    need: bool = False
    asks: bool = False
    #: Over its column on the page, where that is another word.
    short: str = ""

    @property
    def page_title(self) -> str:
        """Over its column on the page."""
        return self.short or self.title


def _need(name: str, title: str, also: tuple[str, ...], size: int, gloss: str, asks: bool = True) -> CellRow:
    return CellRow(name, title, also, gloss, size, need=True, asks=asks)


#: In the order of a table.
ROWS: tuple[CellRow, ...] = (
    CellRow(
        "name",
        "Shot",
        (
            "shot number",
            "shot no",
            "number",
            "no",
            "nr",
            "slate",
            "setup",
            "name",
            "id",
            "sh",
            "shot id",
            "einst",
            "einstellung",
            "plan",
            "take",
        ),
        size=5,
    ),
    CellRow(
        "scene",
        "Scene",
        (
            "location",
            "loc",
            "set",
            "place",
            "scene no",
            "sc",
            "bild",
            "szene",
            "motiv",
            "drehort",
            "décor",
            "decor",
            "lieu",
        ),
        size=14,
    ),
    CellRow(
        "what",
        "What",
        (
            "description",
            "descr",
            "desc",
            "subject",
            "action",
            "content",
            "shot description",
            "beschreibung",
            "aufnahme",
            "inhalt",
        ),
        size=16,
    ),
    CellRow(
        "height", "Height", ("subject height",), "How tall whoever is framed is; 1.7 m where nobody says", 6
    ),
    CellRow("day", "Day", ("shooting day", "shoot day", "date", "tag", "drehtag", "jour"), size=3),
    CellRow("unit", "Unit", ("camera unit", "cam", "einheit", "équipe"), size=3),
    _need(
        "framing",
        "Framing",
        (
            "size",
            "shot size",
            "shot type",
            "type",
            "field",
            "größe",
            "groesse",
            "einstellungsgröße",
            "valeur",
            "cadre",
        ),
        15,
        "waist, 1.9 m wide, as 35 on Super 35 at 3 m, like 50",
    ),
    _need(
        "distance",
        "Distance",
        (
            "subject distance",
            "subj dist",
            "subj distance",
            "dist",
            "focus distance",
            "movement",
            "move",
            "abstand",
            "entfernung",
            "bewegung",
            "distance sujet",
        ),
        8,
        "3 m, 2-4 m, up to 5 m; free where it is empty",
    ),
    _need("room", "Room", (), 7, "From the subject to the wall behind the camera", asks=False),
    _need("nearest", "Not nearer", ("nearest",), 7, "For the sake of the perspective", asks=False),
    _need(
        "speed",
        "Speed",
        ("fps", "frame rate", "rate", "frames", "bildrate", "cadence"),
        7,
        "100, 4x slow, 25-100 for a ramp",
    ),
    _need(
        "deliveries",
        "Delivered",
        ("deliveries", "delivery", "frame"),
        12,
        "Frames of Settings by their names, or 3840x2160",
    ),
    _need("hold", "Sharp", ("hold", "depth", "depth of field"), 9, "±30 cm, 2.5-4 m, deep"),
    _need("background", "Background", ("softness",), 9, "How wide a point of light is drawn: 3 % at 8 m"),
    _need(
        "stop",
        "Stop",
        ("aperture", "t stop", "t-stop", "t", "f", "iris", "blende", "diaph", "diaphragme"),
        8,
        "T2.8, T2-T4, up to T4",
    ),
    _need(
        "light",
        "Light",
        (
            "int/ext",
            "i/e",
            "d/n",
            "day/night",
            "time",
            "time of day",
            "licht",
            "innen/aussen",
            "innen/außen",
            "int ext",
            "lumière",
            "effet",
        ),
        10,
        "200 lux, day, night, EI 400-1600",
    ),
    CellRow("lamps", "Lamps", ("mains", "flicker"), "50 Hz for the mains, pulsed 400 Hz", 8),
    _need("picture", "Picture", ("recording",), 14, "raw, 12 bit, no binning, re-frame 20 %, stabiliser"),
    _need(
        "rig",
        "Rig",
        ("support", "grip", "rigging", "camera support", "stativ", "machinerie"),
        12,
        "tripod, hand, gimbal 4.5 kg, no lens change",
    ),
    _need("look", "Look", ("squeeze",), 8, "spherical, 2x"),
    _need("body", "Body", ("camera body", "camera"), 9, "One body alone"),
    _need(
        "glass",
        "Lens",
        (
            "lens",
            "focal length",
            "focal",
            "optic",
            "glass",
            "objective",
            "brennweite",
            "objektiv",
            "optik",
            "focale",
        ),
        9,
        "35, 24-70, 24-70 at 35, or a lens by its name",
    ),
    CellRow(
        "keep_out",
        "Keep-out",
        ("keep out",),
        "The distance that whoever is responsible for safety has set",
        7,
    ),
    CellRow("keep_out_by", "Keep-out set by", ("set by",), size=14, short="Set by"),
    CellRow(
        "notes",
        "Notes",
        ("note", "comment", "comments", "remarks", "remark", "bemerkung", "bemerkungen", "remarques"),
        size=24,
    ),
)
#: Needs in the order in which the page asks for them.
ON_PAGE = ("framing", "distance", "speed", "stop", "light", "hold", "background", "picture", "deliveries", "room", "nearest",
           "look", "rig", "body", "glass")  # fmt: skip
