"""Lines of the core broken one at a time: the tests of the line's own room have to notice each (`./hextan mutate`)."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Mutation:
    """A piece of a module, which stands there once, and what is put in its place."""

    file: str
    old: str
    new: str

    @property
    def room(self) -> str:
        return self.file.split("/")[0]


_LISTED = {
    "base/rates.py": [
        ("ends = [min(high, limit_fps) for low, high", "ends = [max(high, limit_fps) for low, high"),
        ("return any(low - grain <= fps <= high + grain", "return all(low - grain <= fps <= high + grain"),
    ],
    "base/figures.py": [
        ("near = _rounded(near_m, digits, up=True)\n", "near = _rounded(near_m, digits, up=False)\n"),
        ("return math.ceil(scaled - _GRAIN) if up", "return math.floor(scaled - _GRAIN) if up"),
        ("feet, rest = divmod(sixteenths, 192)", "feet, rest = divmod(sixteenths, 160)"),
        ("return first if first == second else", "return first if first != second else"),
    ],
    "base/distances.py": [("if not 0 < total <= 1_000_000:", "if not 0 <= total <= 1_000_000:")],
    "record/differences.py": [
        ("total += math.log2(u.ei / p.ei)", "total -= math.log2(u.ei / p.ei)"),
        ("total += p.nd_stops - u.nd_stops", "total -= p.nd_stops - u.nd_stops"),
        ("true = head * min(over, 1.0)", "true = head * max(over, 1.0)"),
        ("wider < 1 - _LITTLE", "wider > 1 + _LITTLE"),
        ("SAME_RATE = 2e-4", "SAME_RATE = 2e-3"),
    ],
    "record/writing.py": [("if item.has(entry):", "if item.entry == entry:"), ("if based_on != item.revision:", "if based_on > item.revision:")],
    "record/curves.py": [("far = 2 / traced.pupil_z_mm - 1 / (near - origin)", "far = 2 / traced.pupil_z_mm - 1 / near")],
    "record/heard.py": [("SAME_SIZE = 0.004", "SAME_SIZE = 0.1"), ("bare *= setting.widest_t / setting.widest_f", "bare /= setting.widest_t / setting.widest_f")],
    "record/clips.py": [("BEFORE_S, AFTER_S = 60.0, 600.0", "BEFORE_S, AFTER_S = 60.0, 1.0"), ("0*{take.take}(?![0-9])", "0*{take.take}")],
    "base/stops.py": [("return 2.0 * math.log2(narrower / wider)", "return math.log2(narrower / wider)")],
    "optics/conjugates.py": [
        ("np.sqrt(q * (q - 4.0))", "np.sqrt(q * (q - 3.0))"),
        ("f * (1 + magnification) ** 2 / magnification", "f * (1 + magnification) / magnification"),
        ("1.0 / magnification + 1.0 / np.asarray(pupil_magnification)", "1.0 / magnification + np.asarray(pupil_magnification)"),
        ("return np.asarray(2.0 * np.log2(close_up_growth(", "return np.asarray(1.0 * np.log2(close_up_growth("),
    ],
    "optics/depth.py": [("return np.asarray(2.44 * GREEN_MM * working)", "return np.asarray(1.22 * GREEN_MM * working)")],
    "optics/coverage.py": [
        ("spare < needed * MARGINAL_SHARE, 1, 0", "spare < needed * MARGINAL_SHARE, 0, 1"),
        ("np.where(spare < 0, 2, covered)", "np.where(spare <= 0, 2, covered)"),
        ("np.where(inside, a * b, arc)", "np.where(inside, arc, a * b)"),
    ],
    "optics/windows.py": [("np.asarray(screen_aspect, dtype=float) / squeeze", "np.asarray(screen_aspect, dtype=float) * squeeze")],
    "optics/readout.py": [("np.where(interlaced, scan / 2.0, scan)", "np.where(interlaced, scan, scan)")],
    "optics/sampling.py": [("< 1 - ONE_TO_ONE", "< 1 + ONE_TO_ONE")],
    "light/exposure.py": [
        ("INCIDENT_C * t * t / (np.asarray(time_s) * ei)", "INCIDENT_C * t / (np.asarray(time_s) * ei)"),
        ("foreign = 0.0 if ei in means.base_eis", "foreign = 0.0 if ei not in means.base_eis"),
        ("lux = found.settings.lux * 2.0**-found.off_stops", "lux = found.settings.lux * 2.0**found.off_stops"),
        ("/ (360.0 * np.asarray(fps, dtype=float))", "/ (180.0 * np.asarray(fps, dtype=float))"),
    ],
    "light/flicker.py": [
        ("return Lamp(2.0 * mains_hz,", "return Lamp(1.0 * mains_hz,"),
        ("np.sinc(turns) * np.cos(2.0 * np.pi * (start + turns / 2.0))", "np.sinc(turns) * np.cos(2.0 * np.pi * start)"),
        ("self.duty, 1.0 / self.duty, 0.0", "self.duty, 1.0, 0.0"),
        ("return math.floor(hz / fps * (1.0 + TOLERANCE))", "return math.floor(hz / fps / 2 * (1.0 + TOLERANCE))"),
    ],
    "evaluation/computation.py": [
        ("columns.sites_h / columns.given.sampling_v", "columns.sites_w / columns.given.sampling_v"),
        ("offset_x_mm=columns.offset_x * given.squeeze", "offset_x_mm=columns.offset_x"),
        ("short = needed_mm > circle_mm", "short = needed_mm < circle_mm"),
    ],
    "evaluation/columns.py": [
        ("given.raster_w * given.sampling_h * per_mm", "given.raster_w * per_mm"),
        ("recorded_w, recorded_h = trimmed_w / given.crop, trimmed_h / given.crop", "recorded_w, recorded_h = trimmed_w, trimmed_h"),
    ],
    "evaluation/answer.py": [
        ("t.far_mm - t.near_mm", "t.far_mm + t.near_mm"),
        ("disc / (squeeze * wide)", "disc / wide"),
    ],
    "evaluation/sharp.py": [("c.picture_h, rule.picture_heights, rule.arcmin", "c.picture_w, rule.picture_heights, rule.arcmin")],
    "evaluation/links.py": [("(recorded / picture).tolist()", "(picture / recorded).tolist()")],
    "evaluation/notes.py": [("lost >= CLOSE_UP_STOPS", "lost >= 3 * CLOSE_UP_STOPS")],
    "equipment/mounting.py": [
        ("float(stops_of_adapter(self.magnification)) - math.log2(self.transmission)", "float(stops_of_adapter(self.magnification)) + math.log2(self.transmission)"),
        ("lens.flange_mm <= camera.flange_mm:", "lens.flange_mm < camera.flange_mm:"),
        ("_RANK[way.verdict] == _RANK[\"impossible\"],\n        abs(math.log(way.magnification)),", "_RANK[way.verdict] == _RANK[\"impossible\"],\n        -abs(math.log(way.magnification)),"),
        ("if a.classes and all(", "if a.classes and any("),
    ],
    "equipment/package.py": [
        ("scans = 2 if recording.interlaced else 1", "scans = 1 if recording.interlaced else 1"),
        ("lens == \"spherical\" and lens.squeeze != 1.0", "lens == \"spherical\" and lens.squeeze == 1.0"),
    ],
    "equipment/speed.py": [
        ("top / base,", "base / top,"),
        ("return self.rates.highest_within(self.possible_fps / (1 - RATE_TOLERANCE))", "return self.offered_fps"),
    ],
    "equipment/data.py": [("buffer_s * fps + 1e-9", "buffer_s + 1e-9")],
    "documents/body.py": [("w, h = (max(1, round(um_from_mm(size) / pitch_um))", "w, h = (max(1, round(um_from_mm(size) * pitch_um))")],
    "documents/claims.py": [
        ("<= 0.5 * 10.0**-claim.decimals", "<= 5.0 * 10.0**-claim.decimals"),
        ("at_home = [r for r in own if (r.basis, r.by) == (basis, by)]", "at_home = [r for r in own if r.basis == basis]"),
        ("error = math.sqrt(sum(part**2 for part in parts.values()))", "error = sum(part**2 for part in parts.values())"),
        ("(sw // mode.sampling[0]) * (sh // mode.sampling[1])", "(sw // mode.sampling[0]) * sh"),
    ],
    "documents/lens_figures.py": [("(lens.f_number / lens.t_stop) ** 2", "lens.f_number / lens.t_stop")],
    "documents/rig.py": [("f.stops * math.log10(2)", "f.stops * math.log2(2)")],
    "documents/catalogue.py": [("return bool(self.here != self.taken)", "return bool(self.here == self.taken)")],
    "kit/match.py": [
        ("100 * (self.needed_mm / self.focal_mm - 1)", "100 * (self.focal_mm / self.needed_mm - 1)"),
        ("return not c.covers, round(abs(c.off), 9)", "return c.covers, round(abs(c.off), 9)"),
    ],
    "kit/ladder.py": [("if b[0] / a[1] > ask.gap_ratio", "if b[0] / a[1] < ask.gap_ratio")],
    "kit/framing.py": [
        ("free = wish.headroom if top == 1.0 else 0.0", "free = 0.0"),
        ("return room.length_m - room.behind_subject_m - room.behind_camera_m", "return room.length_m - room.behind_subject_m"),
    ],
    "kit/dark_corners.py": [
        ("return sorted(found, key=lambda option: option[\"cost_stops\"])", "return found"),
        ("return 2 * math.log2(max(factor, 1.0))", "return math.log2(max(factor, 1.0))"),
    ],
    "kit/high_speed.py": [("rows.sort(key=lambda r: -int(r[\"kept\"]))", "rows.sort(key=lambda r: int(r[\"kept\"]))")],
    "finder/checks.py": [
        ("met = kind & offered & possible", "met = kind & possible"),
        ("met = known & (value >= wish.least * (1 - 1e-6))", "met = known & (value > wish.least * (1 + 1e-6))"),
        ("minutes = card.bytes / c.bytes_s / 60", "minutes = card.bytes / c.bytes_s / 3600"),
        ("return np.minimum(w / ask.delivery.raster[0], h / ask.delivery.raster[1])", "return np.maximum(w / ask.delivery.raster[0], h / ask.delivery.raster[1])"),
    ],
    "finder/changes.py": [("nearest = found if nearest is None else min(nearest, found)", "nearest = found if nearest is None else max(nearest, found)")],
    "finder/formats.py": [("np.where(oversampled(c.oversampling), 2.0, 1.0)", "np.where(oversampled(c.oversampling), 1.0, 2.0)")],
    "bench/view.py": [
        ("found.sort(key=lambda f: (-round(f[\"used\"], 2)", "found.sort(key=lambda f: (round(f[\"used\"], 2)"),
        ("t / math.sqrt(together.transmission)", "t / together.transmission"),
    ],
    "bench/plan.py": [("behind = 0.0 if far_m is None else max(farthest - far_m, 0.0)", "behind = 0.0 if far_m is None else max(far_m - farthest, 0.0)")],
    "bench/finder_picture.py": [
        ("\"width\": disc / self.squeeze, \"height\": disc", "\"width\": disc, \"height\": disc"),
        ("(z + EARS_M) / (z - NOSE_M) if", "(z - EARS_M) / (z - NOSE_M) if"),
    ],
    "bench/depth.py": [("exact = exact_n * self.to_mark", "exact = exact_n / self.to_mark")],
    "bench/light.py": [("close_up = float(close_up_stops(m if math.isfinite(m) else 0.0", "close_up = 0.5 * float(close_up_stops(m if math.isfinite(m) else 0.0")],
    "compare/cases.py": [("value = after\n", "value = value\n")],
    "compare/camera_match.py": [
        ("self.depth_stops) * COSTS[\"depth_stop\"]", "self.depth_stops) * 0 * COSTS[\"depth_stop\"]"),
        ("depth_stops=2 * math.log2(stop / exact_stop)", "depth_stops=math.log2(stop / exact_stop)"),
    ],
    "compare/view.py": [
        ("return abs(value - first) > row.same * max(abs(first), 1e-12)", "return abs(value - first) > 100 * row.same * max(abs(first), 1e-12)"),
        ("math.log2(area(s) / area(first))", "math.log2(area(first) / area(s))"),
        ("answer: MoreOrLess = \"same\" if abs(ratio - 1) <= SAME_SHARE else \"less\" if ratio < 1", "answer: MoreOrLess = \"same\" if abs(ratio - 1) <= SAME_SHARE else \"less\" if ratio > 1"),
    ],
}  # fmt: skip
MUTATIONS = [Mutation(file, old, new) for file, pairs in _LISTED.items() for old, new in pairs]
