"""A row's figures, step by step, so that anybody can redo them with a pocket calculator.

Each step names the link of the chain it belongs to, the formula in symbols, the same with the
numbers put in, and the result.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

import numpy as np

from hextan.core.base import highest_rate, limit_digits, m_from_mm, signed
from hextan.core.evaluation.answers import Step
from hextan.core.evaluation.computation import Evaluation
from hextan.core.evaluation.sharp import rule_of
from hextan.core.optics import Traced, angles


def derivation_of(result: Evaluation, index: int) -> list[Step]:
    """Derive one format of an evaluation.

    Parameters
    ----------
    index : position of the format in the request

    Returns
    -------
    Steps, from the lens to the pixels.
    """
    return [
        {"link": link, "what": what, "formula": formula, "numbers": numbers, "result": told}
        for part in (_lens, _window, _recording, _crop, _angle, _focus, _depth, _coverage, _speed, _pixels)
        for link, what, formula, numbers, told in part(result, index)
    ]


Steps = Iterator[tuple[str, str, str, str, str]]


def _g(value: Any, digits: int = 3) -> str:
    return f"{float(value):.{digits}f}"


def _at(column: Any, index: int) -> float:
    array = np.asarray(column, dtype=float)
    return float(array if array.ndim == 0 else array[index])


def _limit(traced: Traced, index: int, which: str) -> str:
    """A depth limit in metres: to the millimetre and better, near rounded up and far down."""
    near, far = m_from_mm(_at(traced.near_mm, index)), m_from_mm(_at(traced.far_mm, index))
    return limit_digits(near, far, least=3)[0 if which == "near" else 1]


def _lens(result: Evaluation, index: int) -> Steps:
    asked, lens, m_a = result.request.lens, result.lens, result.request.adapter.magnification
    if m_a != 1.0:
        yield ("adapter", "Focal length behind the adapter", "f = m_a · f₀",
               f"{m_a:g} × {asked.focal_mm:g} mm", f"{_g(lens.focal_mm, 2)} mm")  # fmt: skip
        if asked.t_stop is not None:
            yield ("adapter", "T-stop behind the adapter", "T = m_a · T₀",
                   f"{m_a:g} × {asked.t_stop:g}", f"T{_g(lens.t_stop, 2)}")  # fmt: skip
        if asked.image_circle_mm is not None:
            yield ("adapter", "Image circle behind the adapter", "Ø = m_a · Ø₀",
                   f"{m_a:g} × {asked.image_circle_mm:g} mm", f"{_g(lens.image_circle_mm, 2)} mm")  # fmt: skip
    if asked.f_number is not None and asked.t_stop is not None:
        tau = (asked.f_number / asked.t_stop) ** 2
        yield ("lens", "f-number for depth", "N = T · √τ",
               f"{_g(lens.t_stop, 2)} × √{_g(tau)}", f"f/{_g(lens.f_number, 2)}")  # fmt: skip


def _window(result: Evaluation, index: int) -> Steps:
    c, asked = result.columns, result.request.formats[index]
    if asked["window"].get("photosites"):
        w, h = asked["window"].get("photosites") or (0, 0)
        yield ("readout", "Readout window", "photosites × pitch",
               f"{w} × {h} × {_at(c.given.pitch_um, index):g} µm",
               f"{_g(c.read_w[index])} × {_g(c.read_h[index])} mm")  # fmt: skip


def _recording(result: Evaluation, index: int) -> Steps:
    c, asked = result.columns, result.request.formats[index]
    recording = asked.get("recording", {})
    raster = recording.get("raster")
    if raster is not None and recording.get("map") == "crop":
        yield ("recording", "Photosite for pixel", "raster × sampling × pitch",
               f"{raster[0]} × {raster[1]} × {_at(c.given.pitch_um, index):g} µm",
               f"{_g(c.trimmed_w[index])} × {_g(c.trimmed_h[index])} mm")  # fmt: skip
    elif raster is not None:
        trimmed = (c.trimmed_w[index], c.trimmed_h[index]) != (c.read_w[index], c.read_h[index])
        yield ("recording", "Trimmed to the raster's aspect" if trimmed else "Whole window scaled to the raster",
               "a = raster width / height",
               f"{raster[0]} / {raster[1]} = {raster[0] / raster[1]:.4f}",
               f"{_g(c.trimmed_w[index])} × {_g(c.trimmed_h[index])} mm")  # fmt: skip
    before = c.trimmed_w[index]
    for crop in asked.get("crops", []):
        after = before / crop["factor"]
        yield ("recording", f"In-camera crop: {crop['name']}", "W / factor",
               f"{_g(before)} mm / {crop['factor']:g}", f"{_g(after)} mm wide")  # fmt: skip
        before = after
    squeeze = result.request.lens.squeeze
    if asked.get("delivery") is not None:
        a = c.picture_w[index] * squeeze / c.picture_h[index]
        yield ("delivery", "Largest picture of the delivery's aspect", "h = min(H, W·S / a),  w = h·a / S",
               f"min({_g(c.recorded_h[index])}, {_g(c.recorded_w[index])}·{squeeze:g} / {a:.4g})",
               f"{_g(c.picture_w[index])} × {_g(c.picture_h[index])} mm")  # fmt: skip


def _crop(result: Evaluation, index: int) -> Steps:
    c, by, squeeze = result.columns, result.reference.by, result.request.lens.squeeze
    w, h = c.picture_w[index] * squeeze, c.picture_h[index]
    ref_w, ref_h = result.reference.width_mm, result.reference.height_mm
    symbol, numbers = {
        "width": ("k = W_ref / (W·S)", f"{_g(ref_w, 2)} / {_g(w)}"),
        "height": ("k = H_ref / H", f"{_g(ref_h, 2)} / {_g(h)}"),
        "diagonal": ("k = √(W_ref² + H_ref²) / √((W·S)² + H²)", f"{_g(math.hypot(ref_w, ref_h))} / {_g(math.hypot(w, h))}"),
    }[by]  # fmt: skip
    k = result.crop[index]
    yield ("sum", f"Crop by {by} against {ref_w:g} × {ref_h:g} mm", symbol, numbers, f"{k:.4f}")
    yield ("sum", "Effective focal length", "f · k",
           f"{_g(result.lens.focal_mm, 2)} mm × {k:.4f}", f"{_g(result.lens.focal_mm * k, 2)} mm")  # fmt: skip
    if result.f_number is not None:
        n = result.f_number
        yield ("sum", "Depth like, by the same entrance pupil f / N", "N · k",
               f"{n:.3f} × {k:.4f}", f"f/{_g(n * k, 2)}")  # fmt: skip


def _angle(result: Evaluation, index: int) -> Steps:
    c, squeeze, lens = result.columns, result.request.lens.squeeze, result.request.lens
    w, f, dx = c.picture_w[index] * squeeze, result.lens.focal_mm, c.offset_x[index] * squeeze
    told = f"{_g(result.traced.angle_w_deg[index], 2)}°"
    if np.isnan(result.traced.angle_w_deg[index]):
        told = "beyond this projection"
    if lens.projection != "rectilinear":
        yield ("sum", f"Horizontal angle ({lens.projection})", angles.LAWS[lens.projection].words,
               f"r = {_g(w / 2)} mm, f = {_g(f, 2)} mm", told)  # fmt: skip
    elif dx:
        yield ("sum", "Horizontal angle, off centre", "atan((w/2 + x)/f) + atan((w/2 − x)/f)",
               f"w = {_g(w)}, x = {_g(dx)}, f = {_g(f, 2)} mm", told)  # fmt: skip
    else:
        yield ("sum", "Horizontal angle, at infinity", "2·atan(W·S / 2f)",
               f"2·atan({_g(w)} / (2 × {_g(f, 2)}))", told)  # fmt: skip


def _focus(result: Evaluation, index: int) -> Steps:
    t, c = result.traced, result.columns
    m = _at(t.magnification, index)
    if math.isnan(m):
        return
    f, distance = result.lens.focal_mm, _at(t.distance_mm, index)
    if result.request.subject.measured_from == "lens":
        yield ("subject", "Magnification", "m = f / (s − f)",
               f"{_g(f, 2)} / ({_g(distance, 1)} − {_g(f, 2)})", f"{m:.6f}")  # fmt: skip
    else:
        yield ("subject", "Magnification", "q = D/f,  m = 2 / (q − 2 + √(q(q − 4)))",
               f"q = {_g(distance, 1)} / {_g(f, 2)} = {distance / f:.4f}", f"{m:.6f}")  # fmt: skip
    field = _at(t.field_w_mm, index)
    if not math.isnan(field):
        w = c.picture_w[index] * result.request.lens.squeeze
        yield ("subject", "Field in the plane of focus", "W·S / m",
               f"{_g(w)} mm / {m:.6f}", f"{_g(m_from_mm(field))} m wide")  # fmt: skip


def _depth(result: Evaluation, index: int) -> Steps:
    t, n = result.traced, result.f_number
    coc, m = _at(result.coc_mm, index), _at(t.magnification, index)
    if n is None or math.isnan(coc) or math.isnan(m):
        return
    rule = rule_of(result.request.coc)
    f, z, origin = result.lens.focal_mm, _at(t.pupil_z_mm, index), _at(t.origin_mm, index)
    q = coc * n / (f * m)
    far = _at(t.far_mm, index)
    yield (
        "sum",
        "Circle of confusion",
        rule.formula,
        rule.numbers(result.request.coc, result.columns, index, coc),
        f"{coc:.5f} mm",
    )
    yield ("sum", "Entrance pupil to the plane of focus", "z = f(1/m + 1/p)",
           f"{_g(f, 2)} × ({1 / m:.3f} + {1 / result.request.lens.pupil_magnification:.3f})", f"{_g(z, 1)} mm")  # fmt: skip
    yield ("sum", "Share of blur", "q = c·N / (f·m)",
           f"{coc:.5f} × {n:.3f} / ({_g(f, 2)} × {m:.6f})", f"{q:.5f}")  # fmt: skip
    yield ("sum", "Near limit", "z / (1 + q) + E",
           f"{_g(z, 1)} / {1 + q:.5f} + {_g(origin, 1)}", f"{_limit(t, index, 'near')} m")  # fmt: skip
    yield ("sum", "Far limit", "z / (1 − q) + E",
           f"{_g(z, 1)} / {1 - q:.5f} + {_g(origin, 1)}" if math.isfinite(far) else f"q = {q:.4f}, not below 1",
           f"{_limit(t, index, 'far')} m" if math.isfinite(far) else "infinity")  # fmt: skip
    yield ("sum", "Hyperfocal distance, from the lens", "f² / (N·c) + f",
           f"{_g(f, 2)}² / ({n:.3f} × {coc:.5f}) + {_g(f, 2)}", f"{_g(m_from_mm(f * f / (n * coc) + f), 2)} m")  # fmt: skip


def _coverage(result: Evaluation, index: int) -> Steps:
    c = result.columns
    dx, dy = abs(c.offset_x[index]), abs(c.offset_y[index])
    circle, needed = result.lens.image_circle_mm, float(result.needed_mm[index])
    half_w, half_h = float(c.recorded_w[index]) / 2, float(c.recorded_h[index]) / 2
    yield (
        "lens",
        "Circle needed by the recording",
        "2·√((|dx| + W/2)² + (|dy| + H/2)²)",
        f"2·√(({_g(dx)} + {_g(half_w)})² + ({_g(dy)} + {_g(half_h)})²)",
        f"{needed:.2f} mm",
    )
    if circle is not None:
        numbers = f"{circle:.2f} mm − {needed:.2f} mm"
        yield (
            "lens",
            "Left over of the lens's circle",
            "Ø − needed",
            numbers,
            f"{signed(circle - needed, 2)} mm",
        )


def _speed(result: Evaluation, index: int) -> Steps:
    c = result.columns
    rows, row_us, extra = (
        c.sites_h[index] / c.given.sampling_v[index],
        c.given.row_time_us[index],
        c.given.overhead_us[index],
    )
    fps = result.highest_fps[index]
    if math.isnan(fps):
        return
    if not math.isnan(row_us):
        frame = rows * row_us + extra
        yield ("readout", "Time to read a frame", "rows × row time + overhead",
               f"{rows:.0f} × {row_us:g} µs + {extra:g} µs", f"{frame / 1000:.3f} ms")  # fmt: skip
    limit = (
        "the readout binds"
        if result.by_readout[index]
        else f"the stated {c.given.stated_fps[index]:g} scans/s bind"
    )
    formula = (
        "half the scan rate (two fields a frame)"
        if c.given.interlaced[index]
        else "the lower of readout and stated limit"
    )
    yield ("recording", "Highest frame rate", formula, limit, f"{highest_rate(float(fps))} frames/s")


def _pixels(result: Evaluation, index: int) -> Steps:
    c = result.columns
    if math.isnan(c.sites_w[index]) or math.isnan(c.given.raster_w[index]):
        return
    share = c.recorded_w[index] / c.read_w[index]
    across = c.sites_w[index] / c.given.sampling_h[index]
    yield ("recording", "Oversampling", "samples across the recording / raster width",
           f"{across:.0f} × {share:.4f} / {c.given.raster_w[index]:.0f}",
           f"{across * share / c.given.raster_w[index]:.3f}")  # fmt: skip
    if not math.isnan(c.given.delivered_w[index]):
        part = c.picture_w[index] / c.recorded_w[index]
        yield ("delivery", "Headroom over the delivery", "recorded pixels across the picture / delivered",
               f"{c.given.raster_w[index]:.0f} × {part:.4f} / {c.given.delivered_w[index]:.0f}",
               f"{c.given.raster_w[index] * part / c.given.delivered_w[index]:.3f}")  # fmt: skip
