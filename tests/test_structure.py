"""The structure of docs/architecture.md, held by tests: imports point inwards, the core stays pure."""

import ast
import json
import re
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
SOURCES = sorted((ROOT / "src" / "hextan").rglob("*.py"))
#: What each room may import of the others.
MAY_IMPORT = {
    "core": {"core"},
    "store": {"store", "core"},
    "demo": {"demo", "store", "core"},
    "formats": {"formats", "core"},
    "search": {"search", "core"},
    "paper": {"paper", "search", "core"},
    "live": {"live", "formats", "core"},
    "media": {"media", "formats", "core"},
    "standins": {"standins", "formats", "core"},
    "api": {"api", "demo", "live", "media", "paper", "formats", "search", "store", "core"},
    "cli": {"core", "formats", "media", "paper", "search"},
}
#: The rooms of the core from the ground up, and which of them each may enter, by its door (docs/architecture.md).
CORE_ROOMS = {
    "base": set(),
    "optics": {"base"},
    "light": {"base"},
    "reading": {"optics", "base"},
    "evaluation": {"optics", "base"},
    "equipment": {"evaluation", "optics", "light", "base"},
    "documents": {"equipment", "evaluation", "optics", "light", "base"},
    "entry": {"reading", "documents", "optics", "base"},
    "kit": {"equipment", "evaluation", "optics", "base"},
    "finder": {"equipment", "evaluation", "optics", "base"},
    "bench": {"kit", "equipment", "evaluation", "optics", "light", "base"},
    "compare": {"bench", "equipment", "evaluation", "optics", "light", "base"},
    "ask": {"reading", "kit", "equipment", "evaluation", "light", "optics", "base"},
    "shots": {"reading", "bench", "finder", "kit", "equipment", "evaluation", "light", "optics", "base"},
    "packing": {"shots", "equipment", "base"},
    "worth": {"packing", "shots", "bench", "equipment", "base"},
    "record": {"shots", "compare", "bench", "equipment", "evaluation", "light", "base"},
    "sheets": {
        "record",
        "worth",
        "packing",
        "shots",
        "compare",
        "bench",
        "kit",
        "documents",
        "equipment",
        "evaluation",
        "light",
        "optics",
        "base",
    },
    "handover": {"shots", "compare", "bench", "equipment", "evaluation", "base"},
    "production": {
        "sheets",
        "record",
        "packing",
        "shots",
        "compare",
        "bench",
        "documents",
        "equipment",
        "evaluation",
        "base",
    },
}
#: Outside libraries of the core: numbers, integer programs, and the checking of what comes in. No web, no database.
CORE_LIBRARIES = {"numpy", "pydantic", "pydantic_core", "typing_extensions", "highspy"}
NOT_IN_CORE = {"os", "sys", "pathlib", "io", "socket", "time", "datetime", "random", "subprocess", "logging"}


def imports_of(file):
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{file}: relative import"
            yield from {
                node.module,
                *(f"{node.module}.{alias.name}" for alias in node.names if node.module == "hextan"),
            }


def room_of(module):
    parts = module.split(".")
    return parts[1] if parts[0] == "hextan" and len(parts) > 1 else None


@pytest.mark.parametrize("file", SOURCES, ids=lambda f: str(f.relative_to(ROOT / "src")))
def test_imports_point_inwards(file):
    room = file.relative_to(ROOT / "src" / "hextan").parts[0].removesuffix(".py")
    if room == "__init__":
        return
    for module in imports_of(file):
        other = room_of(module)
        assert other is None or other == "__version__" or other in MAY_IMPORT[room], (
            f"{room} imports {module}"
        )
        if room == "core":
            top = module.split(".")[0]
            assert top not in NOT_IN_CORE, f"the core imports {module}"
            outside = {"hextan", "__future__"} | CORE_LIBRARIES
            import sys

            assert top in outside or top in sys.stdlib_module_names, f"the core imports {module}"


def from_core(file):
    """Every import from the core: the module, and the names taken from it."""
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("hextan.core."):
            yield node.module.split(".")[2:], [alias.name for alias in node.names]


def core_room_of(file):
    parts = file.relative_to(ROOT).parts
    return parts[3] if parts[:3] == ("src", "hextan", "core") and len(parts) == 5 else None


def test_rooms_of_the_core_are_entered_from_above_and_by_their_doors():
    core = ROOT / "src" / "hextan" / "core"
    assert {d.name for d in core.iterdir() if (d / "__init__.py").exists()} == set(CORE_ROOMS)
    assert [f.name for f in core.glob("*.py")] == ["__init__.py"]
    for file in [*SOURCES, *(ROOT / "bench").glob("*.py")]:
        here = core_room_of(file)
        for path, _ in from_core(file):
            if path[0] != here:
                assert len(path) == 1, f"{file.name} goes into {'.'.join(path)} by the window"
                assert here is None or path[0] in CORE_ROOMS[here], f"{here} ({file.name}) imports {path[0]}"


def test_the_table_of_rooms_has_no_circle_and_no_door_that_nobody_uses():
    from_the_ground = list(CORE_ROOMS)
    for i, room in enumerate(from_the_ground):
        assert CORE_ROOMS[room] <= set(from_the_ground[:i]), room
    used = {(core_room_of(f), path[0]) for f in SOURCES for path, _ in from_core(f)}
    assert {(a, b) for a, below in CORE_ROOMS.items() for b in below} <= used


def test_a_door_hands_out_what_is_asked_for_elsewhere_and_says_its_question():
    asked = {room: set() for room in CORE_ROOMS}
    for file in [*SOURCES, *(ROOT / "bench").glob("*.py")]:
        for path, names in from_core(file):
            if path[0] != core_room_of(file):
                asked[path[0]].update(names)
    asked["evaluation"].add("evaluate")
    architecture = (ROOT / "docs" / "architecture.md").read_text()
    for room, names in asked.items():
        door = ast.parse((ROOT / "src" / "hextan" / "core" / room / "__init__.py").read_text())
        assert ast.get_docstring(door) in architecture, room
        listed = next(n for n in door.body if isinstance(n, ast.Assign))
        assert set(ast.literal_eval(listed.value)) == names, room


def test_tests_of_the_core_live_in_the_rooms_of_the_core():
    for where in (ROOT / "tests" / "core", ROOT / "tests" / "reference"):
        assert {d.name for d in where.iterdir() if (d / "__init__.py").exists()} <= set(CORE_ROOMS)
        assert list(where.glob("test_*.py")) == []
    for room in CORE_ROOMS:
        assert list((ROOT / "tests" / "core" / room).glob("test_*.py")), room


def test_launcher_uses_the_standard_library_only():
    import sys

    for file in (ROOT / "launcher").glob("*.py"):
        for module in imports_of(file):
            assert module.split(".")[0] in {*sys.stdlib_module_names, "launcher"}, (
                f"{file.name} imports {module}"
            )


def test_every_note_and_error_code_is_documented():
    from hextan.api import errors as mapping
    from hextan.core.evaluation.notes import CODES

    documented = set(
        re.findall(r"^\| `(\w+)` \|", (ROOT / "docs" / "evaluation.md").read_text(), re.MULTILINE)
    )
    codes = {kind.code for kind in mapping.STATUS} | set(CODES)
    codes |= {"mount", "stop_clamped", "focal_clamped", "too_large", "database_unavailable", "internal"}
    assert codes <= documented


def test_the_rules_of_the_finder_are_documented():
    from hextan.core.finder.formats import TIE_BREAKS

    text = (ROOT / "docs" / "finder.md").read_text()
    places = [text.index(told) for told in TIE_BREAKS]
    assert places == sorted(places)


def test_the_columns_of_the_table_are_documented():
    from hextan.formats.formats_csv import COLUMNS

    text = (ROOT / "docs" / "files.md").read_text()
    assert [column.name for column in COLUMNS if f"`{column.name}`" not in text] == []


def test_the_rules_of_the_kit_are_documented():
    from hextan.core.kit.dark_corners import HANDLING_STOPS
    from hextan.core.kit.framing import FRAMINGS
    from hextan.core.optics import LEAST_ANGLE_DEG
    from hextan.formats.lenses_csv import COLUMNS

    text = (ROOT / "docs" / "kit.md").read_text()
    assert [column.name for column in COLUMNS if f"`{column.name}`" not in text] == []
    table = text[text.index("## What to do about dark corners") : text.index("## Views by angle")]
    assert re.findall(r"^\| [a-z -]+ \| ([\d.]+) \|", table, re.MULTILINE) == [
        f"{HANDLING_STOPS[kind]:g}"
        for kind in ("nothing", "stop", "focal", "crop", "format", "lens", "adapter", "correct")
    ]
    assert all(f"{angle:.1f}°" in text for angle in LEAST_ANGLE_DEG)
    assert all(f"{bottom:g}" in text for bottom, _ in FRAMINGS.values() if bottom)


def test_the_costs_of_a_match_are_documented():
    from hextan.core.compare.camera_match import COSTS

    text = (ROOT / "docs" / "looks.md").read_text()
    rows = dict(re.findall(r"^\| (an? [^|]*|each [^|]*) \| ([\d.]+) \|$", text, re.MULTILINE))
    assert [float(cost) for cost in rows.values()] == list(COSTS.values())


def test_the_thresholds_of_flicker_and_the_ripple_of_lamps_are_documented():
    from hextan.core.light.flicker import LAMPS, SEEN, UNSEEN

    text = " ".join((ROOT / "docs" / "looks.md").read_text().split())
    assert f"up to {UNSEEN:.2f} nothing is seen, above {SEEN:.2f} it is" in text
    for kind in ("tungsten", "magnetic", "electronic"):
        assert re.search(rf"{kind}[a-z ]* {100 * LAMPS[kind].ripple:g} %", text), kind


def test_every_setting_is_documented():
    from hextan.api.settings import Settings

    text = (ROOT / "README.md").read_text() + (ROOT / "docs" / "architecture.md").read_text()
    for name in Settings.model_fields:
        assert f"HEXTAN_{name.upper()}" in text
    used = {n for f in (ROOT / "launcher").glob("*.py") for n in re.findall(r"HEXTAN_[A-Z_]+", f.read_text())}
    for name in used:
        assert name in text, name


def test_commands_of_the_readme_exist():
    from launcher.__main__ import HELP

    named = set(re.findall(r"\./hextan (\w+)", (ROOT / "README.md").read_text()))
    assert {"demo", "test"} <= named <= set(HELP)


def test_references_lead_into_the_bibliography():
    keys = set(
        re.findall(r"^- \*\*\[(\w+)\]\*\*", (ROOT / "docs" / "bibliography.md").read_text(), re.MULTILINE)
    )
    cited = {k for f in SOURCES for k in re.findall(r"See \[(\w+)\]", f.read_text())}
    assert cited
    assert cited <= keys


def test_pictures_are_linked_from_the_readme():
    text = (ROOT / "README.md").read_text()
    for picture in (ROOT / "docs" / "screenshots").glob("*.png"):
        assert f"docs/screenshots/{picture.name}" in text


#: Read by others than the page: the launcher, people who script, the page of productions.
#: Read by others than the page, or sent back whole as they came.
READ_ELSEWHERE = {
    "EquipmentAdded.rig_before",
    "EquipmentAdded.rig_version",
    "Health.process",
    "ProductionKept.archived",
    "SheetTable.stacked",
    "ShotsAsk.changes_for",
}


def test_every_field_of_an_answer_has_a_reader():
    """A field of an answer that the page never names is written for nobody; the public evaluation is for programs."""
    schemas = json.loads((ROOT / "src" / "hextan" / "api" / "openapi.json").read_text())["components"][
        "schemas"
    ]

    def reached(*names):
        seen, waiting = set(), list(names)
        while waiting:
            name = waiting.pop()
            if name not in seen:
                seen.add(name)
                waiting += re.findall(r"#/components/schemas/(\w+)", json.dumps(schemas[name]))
        return seen

    public = reached("EvaluationAnswer", "EvaluationRequest", "ErrorAnswer")
    pages = " ".join(
        file.read_text()
        for kind in ("*.ts", "*.svelte")
        for file in (ROOT / "web" / "src").rglob(kind)
        if not {"node_modules", "generated"} & set(file.parts)
    )
    words = set(re.findall(r"\w+", pages))
    unread = {
        f"{name}.{field}"
        for name, schema in schemas.items()
        if name not in public and not name.endswith("In") and not name.startswith("Stale")
        for field in schema.get("properties", {})
        if field not in words
    }
    assert unread == READ_ELSEWHERE
