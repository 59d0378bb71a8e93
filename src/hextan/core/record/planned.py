"""What the plan says for a shot: what is to be on the camera, by the names of its menu, and what to watch out for."""

from __future__ import annotations

from typing_extensions import TypedDict

from hextan.core.equipment import LensOnBody, Package, PackageSettings
from hextan.core.evaluation import BenchDelivery
from hextan.core.record.document import OnCamera
from hextan.core.record.figures import Figures, figures_of, found_of
from hextan.core.shots import Needs, Shot, ShotVerdict, answer_of_shot, needs_of


class Switch(TypedDict):
    """An in-camera crop of the body, and whether it is to be on."""

    name: str
    on: bool
    menu: str | None
    #: Why it cannot act here; None where it can.
    why_not: str | None


class Picture(TypedDict):
    """The picture that is delivered, which what counts as sharp goes by; None where it is as recorded."""

    aspect: float | None
    long_edge_px: int | None


class Planned(TypedDict):
    """A shot as it is to be shot."""

    shot: str
    name: str
    scene: str
    what: str
    day: str
    unit: str
    notes: str
    framing: str
    verdict: ShotVerdict
    #: What binds, or is missing.
    binds: str
    #: What has to be so that nobody stated.
    provided: list[str]
    #: None where nothing is chosen.
    on: OnCamera | None
    marks: str
    #: The lens, with its set where several have one of that name.
    lens_told: str
    is_zoom: bool
    effective_mm: float | None
    megapixels: float | None
    nd_parts: list[str]
    #: Where the scan mode stands in the camera's menu.
    mode_menu: str | None
    switches: list[Switch]
    picture: Picture
    cautions: list[str]
    keep_out: str


#: Kept with a package: the page of the set asks for all shots of a day whenever something is logged.
_KEPT = "planned shots"


def picture_of(settings: PackageSettings, needs: Needs | None = None) -> BenchDelivery:
    """The picture that is delivered: the shot's first, or the production's."""
    if needs is not None:
        return needs.delivery
    first = settings.deliveries[0] if settings.deliveries else None
    if first is None:
        return BenchDelivery(long_edge_px=None)
    return BenchDelivery(aspect=first.aspect, long_edge_px=first.long_edge_px, protect=first.protect)


def picture_told(settings: PackageSettings, needs: Needs | None = None) -> Picture:
    """`picture_of`, for asking about depth."""
    picture = picture_of(settings, needs)
    return {"aspect": picture.aspect, "long_edge_px": picture.long_edge_px}


def on_by_plan(package: Package, settings: PackageSettings, shot: Shot) -> OnCamera | None:
    """What a shot's choice has on the camera; None where nothing is chosen."""
    best = answer_of_shot(package, settings, shot)["best"]
    if best is None:
        return None
    here = package.formats[best["format_id"]]
    focus = best["focus_m"] if best["focus_m"] is not None else best["distance_m"]
    stop = best["stop"]
    return OnCamera(
        body=best["body"],
        mode=best["mode"],
        format=best["format"],
        lens=best["lens"],
        lens_set=best["lens_set"],
        adapters=best["adapters"],
        focal_mm=best["focal_mm"] if best["is_zoom"] else None,
        stop=stop if stop is not None and 0.3 <= stop <= 256 else None,
        ei=best["ei"],
        nd_stops=best["nd_stops"],
        fps=best["fps"],
        shutter_deg=best["shutter_deg"],
        focus_m=focus if focus is not None and 0 < focus <= 1e6 else None,
        crops=[crop.name for crop in here.body.crops if crop.id in best["crop_ids"]],
    )


def planned_of(package: Package, settings: PackageSettings, shot: Shot) -> Planned:
    """What the plan says for one shot; what was worked out before is kept with the package."""
    kept: dict[tuple[str, ...], Planned] = package.worked_out.setdefault(_KEPT, {})
    key = (shot.model_dump_json(), settings.model_dump_json())
    if key not in kept:
        if len(kept) > 4000:
            kept.clear()
        kept[key] = _planned(package, settings, shot)
    return kept[key]


def _planned(package: Package, settings: PackageSettings, shot: Shot) -> Planned:
    answer = answer_of_shot(package, settings, shot)
    needs = needs_of(shot, package, settings)
    on, best = on_by_plan(package, settings, shot), answer["best"]
    figures = None
    if on is not None:
        figures = figures_of(package, on, picture_of(settings, needs), package.reference)
    here = None if best is None else package.formats[best["format_id"]]
    return {
        "shot": shot.key,
        "name": shot.name,
        "scene": shot.scene,
        "what": shot.what,
        "day": shot.day.strip(),
        "unit": shot.unit.strip(),
        "notes": shot.notes,
        "framing": shot.framing,
        "verdict": answer["verdict"],
        "binds": answer["binds"],
        "provided": answer["provided"],
        "on": on,
        "marks": "T" if best is None else best["marks"],
        "lens_told": "" if best is None else package.lens_words(best["lens"], best["lens_set"]),
        "is_zoom": best is not None and best["is_zoom"],
        "effective_mm": None if best is None else best["effective_mm"],
        "megapixels": None if figures is None else figures.megapixels,
        "nd_parts": [] if best is None else best["nd_parts"],
        "mode_menu": None if here is None else here.mode.menu.told,
        "switches": [] if on is None else switches_of(package, on, figures),
        "picture": picture_told(settings, needs),
        "cautions": ([plan["told"]] if (plan := answer["plan"]) and plan["state"] == "otherwise" else [])
        + [w["text"] for w in answer["warnings"] if w["code"] != "keep_out"],
        "keep_out": next((w["text"] for w in answer["warnings"] if w["code"] == "keep_out"), ""),
    }


def switches_of(package: Package, on: OnCamera, figures: Figures | None) -> list[Switch]:
    """Every in-camera crop of the body, whether it is to be on, and where it stands in the menu."""
    here = found_of(package, on).here
    if here is None:
        return []
    lens = LensOnBody() if figures is None else figures.result.setting.on_body(here)
    return [
        {
            "name": crop.name,
            "on": crop.name in (on.crops or []),
            "menu": crop.menu.told,
            "why_not": here.crop_reason(crop, lens),
        }
        for crop in here.body.crops
    ]
