"""Bodies as files: JSON, CSV and ASC FDL, out and in, and every way in which a file can be wrong."""

import json

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.documents import parse_body
from hextan.formats import fdl, formats_csv
from hextan.formats.documents_json import BODY_FILE
from tests.core.bodies import a_body, a_format, a_mode, catalogue

BODIES = catalogue()


def refusal(read, *arguments):
    with pytest.raises(InvalidInputError) as refused:
        read(*arguments)
    return refused.value.faults


def told(read, *arguments):
    return [f"{f.field}: {f.rule}" for f in refusal(read, *arguments)]


@pytest.mark.parametrize("body", BODIES, ids=lambda b: b.name)
def test_json_round_trip(body):
    assert BODY_FILE.read(BODY_FILE.write([body])) == [body]


def test_json_of_several_bodies():
    assert BODY_FILE.read(BODY_FILE.write(BODIES)) == BODIES
    plain = json.loads(BODY_FILE.write(BODIES[:1]))
    assert (plain["schema"], plain["schema_version"]) == ("hextan.body", 2)


@pytest.mark.parametrize(
    ("text", "fault"),
    [
        (b"\xff\xfe{}", "file: is not UTF-8 text (at byte 0): save it as UTF-8"),
        (b'{\n "a": }', "file: is not valid JSON: Expecting value in line 2, column 7"),
        (b"[" * 100_000, "file: is nested too deeply to be read"),
        (b"[]", "file: holds 1 to 200 documents"),
        (b'{"schema": "else"}', "schema: must be hextan.body"),
        (b"7", "schema: must be hextan.body"),
        (b'{"schema": "hextan.body", "schema_version": 3}',
         "schema_version: must be 1 to 2: a file of a newer version needs a newer Hextan"),
        (b'[{"schema": "hextan.body", "schema_version": 1}]', "[0].name: is required"),
    ],
)  # fmt: skip
def test_json_that_is_refused(text, fault):
    assert fault in told(BODY_FILE.read, text)


def table(*rows, header=None):
    return "\n".join(
        [header or "mode,window_w,window_h,row_time_us,format,raster_w,raster_h,rates", *rows]
    ).encode()


@pytest.fixture
def body():
    return parse_body(a_body([a_mode(formats=[a_format("UHD")])]))


@pytest.mark.parametrize("index", range(4))
def test_csv_round_trip(index):
    body = BODIES[index]
    assert formats_csv.read_formats(formats_csv.write_formats(body), body) == body
    # Into an empty body: the same figures under new keys.
    empty = body.model_copy(update={"modes": [], "crops": [], "claims": type(body.claims)()})
    again = formats_csv.read_formats(formats_csv.write_formats(body), empty)
    assert formats_csv.write_formats(again) == formats_csv.write_formats(body)


def test_template_can_be_read():
    body = parse_body(a_body())
    read = formats_csv.read_formats(formats_csv.write_template(), body)
    assert read.modes[0].formats[0].rates == ["24000/1001", "24", "25", "30..60"]


def test_csv_changes_by_name_and_adds_the_rest(body):
    read = formats_csv.read_formats(
        table(
            "Full,6000,3000,5.5,UHD,3840,2160,25; 50",
            "Full,6000,3000,5.5,HD,1920,1080,25",
            "Small,3000,1688,,HD,1920,1080,100",
        ),
        body,
    )
    full, small = read.modes
    assert (full.key, full.formats[0].key) == (body.modes[0].key, body.modes[0].formats[0].key)
    assert (full.window, full.row_time_us, full.overhead_us) == ([6000, 3000], 5.5, 400.0)
    assert full.formats[0].rates == ["25", "50"]
    assert full.formats[0].compression == 5.0
    assert [f.name for f in full.formats] == ["UHD", "HD"]
    assert small.row_time_us is None


@pytest.mark.parametrize(
    "text",
    [
        "mode;window_w;window_h;row_time_us;format;raster_w;raster_h;rates\nFull;6000;3375;6,5;HD;1920;1080;23,976; 25\n",
        "\ufeffMODE\twindow_w\twindow_h\trow_time_us\tformat\traster_w\traster_h\trates\nFull\t6000\t3375\t6.5\tHD\t1920\t1080\t23.976 25\n",
        'mode,window_w,window_h,row_time_us,format,raster_w,raster_h,rates\r\n\r\nFull,6000,3375,"6,5",HD,1920,1080,"23.976, 25"\r\n,,,\r\n',
    ],
)
def test_csv_as_spreadsheets_write_it(text, body):
    if ";" in text:
        text = text.replace("23,976; 25", '"23,976; 25"')
    read = formats_csv.read_formats(text.encode(), body)
    assert read.modes[0].row_time_us == 6.5
    assert read.modes[0].formats[1].rates == ["24000/1001", "25"]


def test_cells_that_look_like_formulas_are_made_harmless():
    body = parse_body(a_body([a_mode(formats=[a_format("=1+1", key="f"), a_format("@home", key="g")])]))
    written = formats_csv.write_formats(body)
    assert b",'=1+1," in written
    assert b",'@home," in written
    assert formats_csv.read_formats(written, body) == body


@pytest.mark.parametrize(
    ("rows", "faults"),
    [
        (["Full,6000,3375,6,UHD,wide,2160,25"], ["row 2, column raster_w: must be a number"]),
        (["Full,6000,3375,6,UHD,3840.5,2160,25"], ["row 2, column raster_w: must be a whole number"]),
        (['Full,"6,000",3375,6,UHD,3840,2160,25'],
         ["row 2, column window_w: may be read two ways: write it without separators, with a point for decimals"]),
        (["Full,6000,3375,6,,3840,2160,"], ["row 2, column format: is required", "row 2, column rates: is required"]),
        (["Full,6000,3375,6,UHD,3840,2160,25,extra"], ["row 2: has more cells than the 8 of the first row"]),
        (["Full,6000,3375,6,UHD,3840,2160,fast"],
         ["row 2, column rates: write rates like 23.976, 25, 24000/1001 or 1-60"]),
        (["Full,6000,3375,-6,UHD,3840,2160,25"], ["row 2, column row_time_us: must be greater than 0"]),
        (["Full,6000,3375,6,UHD,3840,2160,25", "", "Full,6000,3000,6,HD,1920,1080,25"],
         ["row 4, column window_h: says otherwise of Full than row 2: 3375"]),
        (["Full,6000,3375,6,UHD,3840,2160,25", "Full,6000,3375,6,UHD,1920,1080,25"],
         ["row 3, column format: is there already, in row 2"]),
        (["Huge,7000,3375,6,UHD,3840,2160,25"],
         ["row 2, column window_w: reaches 500 photosites beyond the sensor across: the sensor has 6000, the window 7000"]),
        ([], ["file: has no rows below the first"]),
    ],
)  # fmt: skip
def test_csv_faults_name_row_and_column(rows, faults, body):
    assert told(formats_csv.read_formats, table(*rows), body) == faults


def test_csv_headers_are_checked(body):
    assert told(formats_csv.read_formats, b"mode,mode,width\nx,y,z\n", body) == [
        "row 1: is not a column of this file: see the template", "row 1: is there twice",
        "row 1: the column window_w is missing", "row 1: the column window_h is missing",
        "row 1: the column format is missing", "row 1: the column raster_w is missing",
        "row 1: the column raster_h is missing", "row 1: the column rates is missing",
    ]  # fmt: skip
    assert told(formats_csv.read_formats, b'mode,"unclosed\n', body)[0].startswith("file: is not a CSV file")
    assert refusal(formats_csv.read_formats, b"", body)


def test_every_wrong_cell_of_many_rows_is_listed(body):
    rows = [f"M{i},6000,3375,6,F,3840,{'x' if i % 1000 == 0 else 2160},25" for i in range(10_000)]
    found = refusal(formats_csv.read_formats, table(*rows), body)
    assert [f.field for f in found] == [f"row {i + 2}, column raster_h" for i in range(0, 10_000, 1000)]
    assert refusal(formats_csv.read_formats, table(*rows * 3), body)[0].rule == "may hold 20000 rows at most"


DELIVERIES = [fdl.Delivery("scope", (239, 100), 0.05), fdl.Delivery("social", (9, 16))]


@pytest.mark.parametrize("index", range(4))
@pytest.mark.parametrize("squeeze", [1.0, 2.0])
def test_fdl_round_trip(index, squeeze):
    body = BODIES[index]
    data, notes = fdl.write_fdl(body, DELIVERIES, squeeze)
    assert notes == [fdl.NOT_CARRIED]
    read = fdl.read_fdl(data)
    assert (read.deliveries, read.notes) == (DELIVERIES, [])
    again = read.bodies[0]
    assert (again.pitch_um, again.photosites, again.firmware) == (
        body.pitch_um,
        body.photosites,
        body.firmware,
    )

    def figures(document):
        return [
            (m.model_dump(exclude={"key", "formats", "origins"}),
             [f.model_dump(exclude={"key", "origins", "name"}) for f in m.formats])
            for m in document.modes
        ]  # fmt: skip

    assert figures(again) == figures(body)


def test_fdl_geometry_by_hand():
    """A 36 x 20.25 mm window recorded as UHD, 2.39 delivered with 5 % protection."""
    body = parse_body(a_body([a_mode(formats=[a_format("UHD")])]))
    canvas = json.loads(fdl.write_fdl(body, DELIVERIES)[0])["contexts"][0]["canvases"][0]
    assert canvas["photosite_dimensions"] == {"width": 6000, "height": 3375}
    assert canvas["physical_dimensions"] == pytest.approx({"width": 36.0, "height": 20.25})
    scope, social = canvas["framing_decisions"]
    assert scope["id"] == "C1-I1"
    assert scope["protection_dimensions"] == pytest.approx({"width": 3840, "height": 3840 / 2.39})
    assert scope["dimensions"] == pytest.approx({"width": 3648, "height": 3648 / 2.39})
    assert scope["anchor_point"] == pytest.approx({"x": 96, "y": (2160 - 3648 / 2.39) / 2})
    assert social["dimensions"] == pytest.approx({"width": 2160 * 9 / 16, "height": 2160})
    squeezed = json.loads(fdl.write_fdl(body, DELIVERIES, 2.0)[0])["contexts"][0]["canvases"][0]
    # De-squeezed the canvas is 3.556:1, so 2.39 takes all of its height and 2160 * 2.39 / 2 of its pixels.
    assert squeezed["framing_decisions"][0]["protection_dimensions"] == pytest.approx(
        {"width": 2581.2, "height": 2160}
    )


def foreign(**changes):
    canvas = {"id": "A1", "source_canvas_id": "A1", "label": "Open gate", "dimensions": {"width": 4448, "height": 3096},
              "photosite_dimensions": {"width": 4448, "height": 3096},
              "physical_dimensions": {"width": 26.688, "height": 18.576}, "_maker_setting": 3}  # fmt: skip
    canvas |= changes
    return {"uuid": "6cc5bb0e-9c0f-4c1e-8d3b-0d1b5a1e0a11", "version": {"major": 2, "minor": 0},
            "framing_intents": [{"id": "X", "aspect_ratio": {"width": 185, "height": 100}}],
            "contexts": [{"label": "Harbour camera", "canvases": [canvas]}]}  # fmt: skip


def read(plain):
    return fdl.read_fdl(json.dumps(plain).encode())


def test_fdl_of_another_program_says_what_it_lacks():
    plain = foreign()
    more = [
        {"id": "B", "source_canvas_id": "A1", "dimensions": {"width": 1920, "height": 1080}},
        {"id": "C", "source_canvas_id": "C", "dimensions": {"width": 1920, "height": 1080}},
        {"id": "D", "source_canvas_id": "D", "dimensions": {"width": 2000, "height": 1000},
         "photosite_dimensions": {"width": 2000, "height": 1000}, "physical_dimensions": {"width": 20.0, "height": 10.0}},
    ]  # fmt: skip
    plain["contexts"][0]["canvases"] += more
    plain["contexts"][0]["canvases"].insert(
        0, {**plain["contexts"][0]["canvases"][0], "id": "A2", "source_canvas_id": "A2"}
    )
    plain["canvas_templates"] = [{}]
    got = read(plain)
    body = got.bodies[0]
    assert body.pitch_um == pytest.approx(6.0)
    assert [(m.name, [f.name for f in m.formats]) for m in body.modes] == [
        ("4448 × 3096", ["Open gate", "Open gate A1"])
    ]
    assert got.notes == [
        "Harbour camera: B is made from another canvas, so it is no recording: left out.",
        "Harbour camera: C does not say its photosites and millimetres, so nothing can be computed: left out.",
        "Harbour camera: D has photosites of 10.000 µm where the others have 6.000: left out.",
        "Harbour camera: an FDL does not say frame rates; 24 was entered wherever it is silent. Enter the true ones.",
        "Harbour camera: an FDL does not say how large the sensor is; its largest canvas was taken, 4448 × 3096.",
        "Canvas templates say how pictures are scaled later on: they are left out.",
    ]
    assert got.deliveries == [fdl.Delivery("X", (185, 100), 0.0)]


@pytest.mark.parametrize(
    ("plain", "fault"),
    [
        ({}, "uuid: is required"),
        (foreign() | {"version": {"major": 1, "minor": 0}}, "version.major: must be one of 2"),
        (foreign() | {"surprise": 1}, "request: surprise is not a key of ASC FDL (own keys begin with _)"),
        (foreign(id="no spaces!"), "contexts[0].canvases[0].id: "),
        (foreign(dimensions={"width": 0, "height": 1}), "contexts[0].canvases[0].dimensions.width: must be greater than 0"),
        (foreign() | {"default_framing_intent": "Y"}, "default_framing_intent: is not the id of an intent"),
        (foreign(framing_decisions=[{"id": "A1-Y", "framing_intent_id": "Y", "dimensions": {"width": 1, "height": 1},
                                     "anchor_point": {"x": 0, "y": 0}}]),
         "contexts[0].canvases[0].framing_decisions[0].framing_intent_id: is not the id of an intent"),
        (foreign(physical_dimensions=None), "contexts: has no canvas that can become a recording format."),
    ],
)  # fmt: skip
def test_fdl_that_is_refused(plain, fault):
    assert any(line.startswith(fault) for line in told(read, plain))
