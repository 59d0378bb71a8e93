"""The one place that turns equipment into requests of the public evaluation format: formats, a lens, all of it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from hextan.core.base import mm_from_um
from hextan.core.equipment.lens_setting import LensSetting
from hextan.core.equipment.package import Body, FormatInPackage, ScanMode
from hextan.core.evaluation import (
    BenchDelivery,
    BenchReference,
    Coc,
    EvaluationRequest,
    Format,
    parse_request,
)


def format_requests(
    places: Iterable[FormatInPackage],
    delivery: BenchDelivery,
    setting: LensSetting,
    crop_ids: Iterable[int] = (),
    fps: float | None = None,
) -> list[Format]:
    """Write recording formats as a lens is put before them: those in-camera crops act that are on and can."""
    switched_on, squeeze = frozenset(crop_ids), setting.lens.squeeze
    return [
        here.as_request(
            fps, delivery.for_recording(here.recording.raster, squeeze), switched_on, setting.on_body(here)
        )
        for here in places
    ]


def reference_request(asked: BenchReference, modes: dict[int, tuple[Body, ScanMode]]) -> dict[str, Any]:
    """Write what crops are told against: by its name, or the window of a scan mode."""
    if asked.own is not None:
        return {"width_mm": asked.own.width_mm, "height_mm": asked.own.height_mm, "by": asked.by}
    if asked.name != "scan_mode" or asked.scan_mode_id is None:
        return {"name": asked.name, "by": asked.by}
    body, mode = modes[asked.scan_mode_id]
    w, h = (mm_from_um(n * body.pitch_um) for n in mode.window)
    return {"width_mm": w, "height_mm": h, "by": asked.by}


def lens_request(setting: LensSetting, longer: float = 1.0) -> dict[str, Any]:
    """Write a lens as it is set, without what is behind it.

    Parameters
    ----------
    longer : a lens that nobody has, so many times as long and else the same; its circle is not known then
    """
    lens, real = setting.lens, longer == 1.0
    return {
        "focal_mm": setting.focal_mm * longer,
        "f_number": setting.f_number,
        "t_stop": setting.t_stop,
        "squeeze": lens.squeeze,
        "image_circle_mm": setting.bare_circle_mm if real else None,
        "close_focus_m": lens.close_focus_m if real else None,
        "pupil_magnification": lens.pupil_magnification,
        "projection": lens.projection,
    }


def evaluation_request(
    setting: LensSetting, formats: list[Format], coc: Coc | None = None, longer: float = 1.0, **more: Any
) -> EvaluationRequest:
    """Ask about a lens as it is set and put on, in recording formats.

    Parameters
    ----------
    coc : what counts as sharp; the format's own rule without
    longer : see `lens_request`
    more : other parts of the request: reference, subject, background_m

    Raises
    ------
    InvalidInputError
        A figure that no lens can have.
    """
    return parse_request(
        {
            "lens": lens_request(setting, longer),
            "adapter": {"magnification": setting.magnification},
            "formats": formats,
            **({} if coc is None else {"coc": coc.model_dump()}),
            **more,
        }
    )
