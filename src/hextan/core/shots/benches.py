"""Between the Bench and the list: a Bench kept as a shot, a shot opened on the Bench, and its finder picture."""

from __future__ import annotations

import math

import numpy as np
from typing_extensions import TypedDict

from hextan.core.base import CannotFocusError, InvalidInputError, Unit, distance_words, m_from_mm, parse_rate
from hextan.core.bench import BenchState, Scene, Viewfinder, compute_bench, viewfinder
from hextan.core.equipment import Package, PackageSettings, Pin
from hextan.core.shots.document import Shot
from hextan.core.shots.needs import USUAL_DISTANCE_M, needs_of
from hextan.core.shots.view import answer_of_shot

#: Nearer than this and farther than that the Bench does not go, metres.
_SUBJECT_M = (0.01, 100_000.0)
#: Stops that the Bench can be set to; a shot that cannot be may ask for others.
_STOPS = (0.3, 256.0)


class ShotPicture(TypedDict):
    """What the finder shows of a shot's choice; None where nothing is chosen, or no image is formed."""

    key: str
    viewfinder: Viewfinder | None


def bench_of_shot(
    package: Package, settings: PackageSettings, shot: Shot, scene: Scene | None = None
) -> BenchState | None:
    """Set the Bench as a shot's choice is set; None where nothing could be chosen.

    Parameters
    ----------
    scene : what stands before the camera besides; the subject is as tall as the shot says
    """
    choice = answer_of_shot(package, settings, shot)["best"]
    if choice is None:
        return None
    needs = needs_of(shot, package, settings)
    state = BenchState(
        format_id=choice["format_id"],
        lens_id=choice["lens_id"],
        adapter_id=next(iter(choice["adapter_ids"]), None),
        second_adapter_id=choice["adapter_ids"][1] if len(choice["adapter_ids"]) > 1 else None,
        focal_mm=choice["focal_mm"] if choice["is_zoom"] else None,
        stop=_settable(choice["stop"], _STOPS),
        subject_m=min(max(choice["distance_m"] or USUAL_DISTANCE_M, _SUBJECT_M[0]), _SUBJECT_M[1]),
        focus_m=_settable(choice["focus_m"], _SUBJECT_M),
        fps=choice["fps"],
        crop_ids=choice["crop_ids"],
        delivery=needs.delivery,
        scene=_scene(scene or Scene(), needs.height_m),
        unit=settings.unit,
    )
    lux = None if needs.lit is None else needs.lit.lux
    light = state.light.model_copy(
        update={
            "shutter_deg": settings.shutter_deg,
            "mains_hz": settings.mains_hz,
            **({} if lux is None else {"known_by": "lux", "lux": lux}),
            **({} if choice["ei"] is None else {"ei": choice["ei"], "nd_stops": choice["nd_stops"] or 0.0}),
        }
    )
    return state.model_copy(update={"light": light})


def _settable(figure: float | None, span: tuple[float, float]) -> float | None:
    return figure if figure is not None and span[0] <= figure <= span[1] else None


def _scene(scene: Scene, height_m: float) -> Scene:
    person = 0.3 <= height_m <= 3
    return scene.model_copy(update={"subject_height_m": height_m}) if person else scene


def shot_of_bench(package: Package, settings: PackageSettings, state: BenchState, number: str) -> Shot:
    """Keep a Bench as a shot: its field, distance, rate and stop are what the shot needs, and its choice is pinned.

    Raises
    ------
    InvalidInputError
        A state that names equipment which the production does not have.
    CannotFocusError
        A distance at which the lens forms no image.
    """
    result = compute_bench(package, state, format_ids=())
    here, setting = result.chosen, result.setting
    evaluation = result.evaluation
    m = float(np.ravel(evaluation.traced.magnification)[0])
    wide = m_from_mm(float(evaluation.columns.picture_w[0]) * setting.lens.squeeze / m)
    unit: Unit = settings.unit
    squeezed = setting.lens.squeeze != 1.0
    light = state.light
    rate = (
        ""
        if math.isclose(state.fps, float(parse_rate(settings.base_fps)), rel_tol=1e-4)
        else f"{state.fps:.6g}"
    )
    return Shot(
        name=number,
        height=distance_words(state.scene.subject_height_m, unit),
        framing=f"{distance_words(wide, unit)} wide",
        distance=distance_words(state.subject_m, unit),
        speed=rate,
        stop="" if setting.stop is None else f"{setting.marks}{setting.stop:.3g}",
        look=f"{setting.lens.squeeze:g}x" if squeezed else "",
        light=f"{light.lux:g} lux" if light.known_by == "lux" and light.ei is not None else "",
        picture="stabiliser" if any(c.id in state.crop_ids and "stabil" in c.name.lower() for c in here.body.crops) else "",
        pin=Pin(
            body=here.body.name,
            mode=here.mode.name,
            format=here.recording.name,
            lens=setting.lens.name,
            lens_set=package.lenses[setting.lens.id][0].name,
            focal_mm=setting.focal_mm if setting.lens.is_zoom else None,
            adapters=[adapter.name for adapter in setting.adapters],
        ),
    )  # fmt: skip


def pictures_of_shots(
    package: Package, settings: PackageSettings, shots: list[Shot], scene: Scene
) -> list[ShotPicture]:
    """What the finder shows of each shot, as its choice draws it."""
    return [{"key": shot.key, "viewfinder": _picture(package, settings, shot, scene)} for shot in shots]


def _picture(package: Package, settings: PackageSettings, shot: Shot, scene: Scene) -> Viewfinder | None:
    state = bench_of_shot(package, settings, shot, scene)
    if state is None:
        return None
    try:
        result = compute_bench(package, state, format_ids=())
        coc = float(result.evaluation.coc_mm[0])
        return viewfinder(result.evaluation, 0, state.scene, state.subject_m, coc, state.unit)
    except (InvalidInputError, CannotFocusError):
        # Something of the scene lies where this lens sees nothing: the shot has no picture, and keeps its figures.
        return None
