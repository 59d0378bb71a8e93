"""What is said not to be lost between programs is not: set-ups out and back, whatever they are; and files of others."""

import contextlib
import json

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from hextan.core.base import HextanError, InvalidInputError, NotFoundError
from hextan.core.handover import SeenCamera, setups_of, state_of
from hextan.formats import opentrackio, usd
from hextan.formats.handed import KINDS, Handed, kind_of, read_cameras
from tests.budget import examples
from tests.core.kits import format_named, lens_named
from tests.core.sheets.material import EMPTY, demo

PACKAGE = demo().package
#: What both formats carry both ways.
KEPT = ("format_id", "lens_id", "adapter_id", "second_adapter_id", "subject_m", "fps", "stop")


@st.composite
def benches(draw):
    """A Bench with any lens that fits any body, set anyhow."""
    m = demo()
    here = draw(st.sampled_from(list(PACKAGE.formats.values())))
    from hextan.core.equipment import ways

    fits = [
        (lens, way)
        for _, lens in PACKAGE.lenses.values()
        for way in ways(PACKAGE.rig, lens, here.body)
        if way.verdict != "impossible"
    ]
    lens, way = draw(st.sampled_from(fits))
    chain = [*way.key, None, None]
    subject = draw(st.floats(3, 60))
    stop = draw(st.floats(3, 16))
    return m.bench.model_copy(
        update={
            "format_id": here.recording.id, "lens_id": lens.id, "adapter_id": chain[0], "second_adapter_id": chain[1],
            "focal_mm": draw(st.floats(lens.focal_min_mm, lens.focal_max_mm)) if lens.is_zoom else None,
            "subject_m": subject, "focus_m": draw(st.none() | st.floats(3, 60)), "stop": stop,
            "fps": draw(st.sampled_from([23.976, 24.0, 25.0, 29.97, 50.0, 120.0])),
            "light": m.bench.light.model_copy(update={"ei": draw(st.sampled_from([200, 800, 5000]))}),
        }
    )  # fmt: skip


@pytest.mark.parametrize("module", [usd, opentrackio])
@given(bench=benches())
@settings(max_examples=examples(60), deadline=None, suppress_health_check=list(HealthCheck))
def test_a_set_up_comes_back_as_it_went(module, bench):
    m = demo()
    setups, without = setups_of("bench", PACKAGE, m.settings, bench)
    if without:
        return
    (seen,) = module.read(module.write(setups, "x"))
    state, notes = state_of(PACKAGE, m.bench, seen)
    assert notes == []
    for name in KEPT:
        got, was = getattr(state, name), getattr(bench, name)
        if name == "stop":
            was = setups[0]["stop"]
        assert got == (pytest.approx(was, rel=1e-5) if isinstance(was, float) else was), name
    lens = PACKAGE.lenses[bench.lens_id][1]
    if lens.is_zoom:
        assert state.focal_mm == pytest.approx(bench.focal_mm, rel=1e-6)
    assert (state.focus_m or state.subject_m) == pytest.approx(bench.focus_m or bench.subject_m, rel=1e-6)
    assert state.light.ei == bench.light.ei
    assert state.light.shutter_deg == pytest.approx(bench.light.shutter_deg)
    assert state.scene.camera_height_m == pytest.approx(bench.scene.camera_height_m)


def test_a_camera_of_another_program_is_matched_by_its_figures():
    s35 = format_named(PACKAGE, "S35 → UHD", "Ebb 64")
    state, notes = state_of(
        PACKAGE,
        demo().bench,
        SeenCamera(body="Ebb 64", focal_mm=50.2, recorded_mm=25.3, f_number=2.8, focus_m=4.0),
    )
    assert PACKAGE.formats[state.format_id].mode.id == PACKAGE.formats[s35].mode.id
    assert PACKAGE.lenses[state.lens_id][1].focal_min_mm == 50.0
    assert state.subject_m == 4.0
    assert notes == []
    far, told = state_of(PACKAGE, None, SeenCamera(focal_mm=4000.0, wide_mm=90.0))
    assert far.format_id in PACKAGE.formats
    assert any("comes nearest" in note for note in told)
    assert len(told) == 2
    gone, told = state_of(PACKAGE, demo().bench, SeenCamera(format="Lost", lens="Lost", adapters=("Lost",)))
    assert gone.lens_id in PACKAGE.lenses
    assert sum("not in the package" in note for note in told) == 3
    with pytest.raises(HextanError):
        state_of(EMPTY.package, None, SeenCamera())


def test_an_f_number_becomes_a_mark():
    """A lens with T marks is set by them: f/2.8 behind no adapter is T(2.8 T/f)."""
    glass = PACKAGE.lenses[lens_named(PACKAGE, "Merrow 50")][1]
    state, _ = state_of(
        PACKAGE, demo().bench, SeenCamera(body="Ebb 64", lens="Merrow 50", f_number=2.8, focus_m=3.0)
    )
    assert state.stop == pytest.approx(2.8 * glass.t_stop / glass.f_number, rel=1e-5)


SAMPLE = {
    "type": "object",
    "required": ["protocol", "sampleId", "static", "lens", "transforms"],
    "properties": {
        "protocol": {"type": "object", "properties": {"name": {"const": "OpenTrackIO"}}},
        "sampleId": {"type": "string", "pattern": "^urn:uuid:[0-9a-f-]{36}$"},
        "static": {"type": "object", "properties": {"camera": {"type": "object", "properties": {
            "activeSensorPhysicalDimensions": {"type": "object", "required": ["height", "width"]},
            "activeSensorResolution": {"type": "object", "properties": {"width": {"type": "integer"}}},
            "anamorphicSqueeze": {"$ref": "#/$defs/rational"}, "captureFrameRate": {"$ref": "#/$defs/rational"},
            "isoSpeed": {"type": "integer", "minimum": 1}, "shutterAngle": {"type": "number", "maximum": 360}}}}},
        "lens": {"type": "object", "properties": {"fStop": {"type": "number", "exclusiveMinimum": 0},
                 "focusDistance": {"type": "number", "minimum": 0}, "pinholeFocalLength": {"type": "number", "exclusiveMinimum": 0}}},
        "transforms": {"type": "array", "minItems": 1, "items": {"type": "object", "required": ["translation", "rotation"]}},
    },
    "$defs": {"rational": {"type": "object", "required": ["num", "denom"], "properties": {
        "num": {"type": "integer", "minimum": 1}, "denom": {"type": "integer", "minimum": 1}}}},
}  # fmt: skip


def test_samples_have_the_documented_structure():
    """The structure of the standard's documented samples, from memory: its schema could not be had."""
    m = demo()
    setups, _ = setups_of("shots", m.package, m.settings, m.bench, (), m.shots)
    samples = json.loads(opentrackio.write(setups, "x"))
    assert len(samples) == len(setups)
    for sample in samples:
        Draft202012Validator(SAMPLE).validate(sample)
    assert len({sample["sampleId"] for sample in samples}) == len(samples)
    assert opentrackio.sample_of(setups[0]) == opentrackio.sample_of(setups[0])
    assert opentrackio._rational(23.976) == {"num": 24000, "denom": 1001}
    assert opentrackio._rational(25.0) == {"num": 25, "denom": 1}
    lines = b"\n".join(json.dumps(sample).encode() for sample in samples)
    assert len(opentrackio.read(lines)) == len(samples)


HOSTILE = [
    b"", b"[]", b"{}", b"null", b"[1]", b'{"lens": {"focusDistance": -1}}', b'{"lens": {"focusDistance": 1e999}}',
    b'{"static": {"camera": {"captureFrameRate": {"num": 1, "denom": 0}}}}', b"[" * 5000, b"\xff\xfe", b"#usda 1.0", b"PXR-USDC1234",
    b"PK\x03\x04", b"#usda 1.0\n" + b"def Xform \"a\" {" * 3000, b"#usda 1.0\ndef Camera \"a\" ( references = @x@ ",
    b"#usda 1.0\n(\n metersPerUnit = 1e400\n)\n", b"#usda 1.0\n}}}}}",
]  # fmt: skip


@pytest.mark.parametrize("module", [usd, opentrackio])
@pytest.mark.parametrize("data", HOSTILE, ids=range(len(HOSTILE)))
def test_files_that_are_none_are_refused_with_a_rule(module, data):
    with pytest.raises(InvalidInputError) as refused:
        module.read(data)
    assert refused.value.faults


@given(
    st.text(alphabet="#usda1.0 \n(){}[]=,;\"'@defCameraXform float focalLength 40 :translate", max_size=300)
)
def test_any_text_is_read_or_refused(text):
    for data in (
        text.encode(),
        b"#usda 1.0\n" + text.encode(),
        b'#usda 1.0\ndef Camera "c" {' + text.encode(),
    ):
        with contextlib.suppress(InvalidInputError):
            assert usd.read(data)


def test_a_camera_is_found_where_it_stands_and_nothing_else_is():
    text = """#usda 1.0
    (
        subLayers = [@/etc/hostname@]
        metersPerUnit = 0.01
    )
    class "Look" { }
    def Xform "Set" ( references = @other.usda@</a> ) {
        def "Empty" { string note = "def Camera \\"no\\" { }" }  # def Camera "no" {}
        def Camera "Main" ( customData = { dictionary a = { double b = 1 } } ) {
            float focalLength.timeSamples = { 1: 35, 2: 70, }
            float horizontalAperture = 24.9
            double3 xformOp:translate = (0, 160, -5)
            float3 xformOp:rotateXYZ = (0, 20, 0)
            uniform token[] xformOpOrder = ["xformOp:translate", "xformOp:rotateXYZ"]
        }
    }
    """
    (seen,) = usd.read(text.encode())
    assert (seen.name, seen.focal_mm, seen.wide_mm, seen.camera_height_m) == ("Main", 35.0, 24.9, 1.6)
    assert any("turned" in note for note in seen.notes)


def test_every_kind_says_what_it_carries_and_what_it_loses():
    for kind in KINDS:
        assert kind.carries and kind.lost and kind.back
        assert kind_of(kind.name) is kind
    with pytest.raises(NotFoundError, match="usd"):
        kind_of("fbx")
    with pytest.raises(InvalidInputError, match="no set-ups"):
        read_cameras("fdl", b"{}")


def test_the_framing_list_of_shots_is_valid_by_the_standards_library():
    """asc-fdl: its schema and rules; bodies, formats and squeezes of the shots alone, each delivery an intent and a template."""
    import fdl as library
    import fdl_ffi

    native = fdl_ffi.get_lib()
    for name in dir(native):
        getattr(native, name, None)
    m = demo()
    setups, _ = setups_of("shots", m.package, m.settings, m.bench, (), m.shots)
    data = kind_of("fdl").write(Handed(m.name, setups, m.bodies, m.settings, m.bench))
    with library.FDL.parse(data) as read:
        read.validate()
        contexts = list(read.contexts)
        assert {c.label.split(" ", 1)[1] for c in contexts} == {each["body"] for each in setups}
        canvases = [canvas for context in contexts for canvas in context.canvases]
        assert len(canvases) == len({(s["body"], s["mode"], s["format"], s["squeeze"]) for s in setups})
        intents = list(read.framing_intents)
        assert len(intents) == len({round(d.aspect, 3) for d in m.settings.deliveries if d.aspect})
        assert len(list(read.canvas_templates)) == len(
            [d for d in m.settings.deliveries if d.aspect and d.long_edge_px]
        )
        template = next(iter(read.canvas_templates))
        canvas = canvases[0]
        decision = next(iter(canvas.framing_decisions))
        done = template.apply(canvas, decision, "new", "new")
        with done.fdl as made:
            made.validate()
