"""Readings from a mat that feels the force under each foot.

Its clock is not the camera's: impact is found on both, and all else is told from there.
"""

from __future__ import annotations

import math

import numpy as np
from scipy.signal import savgol_coeffs, savgol_filter

from tropometer.swing.arrays import Array
from tropometer.swing.error.budget import Share
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.names import CHECKPOINTS, Checkpoint, spoken
from tropometer.swing.readings.curves import Series, leading_clip, swing_frames
from tropometer.swing.readings.reading import Need, Reading, Refused
from tropometer.swing.readings.times import SINCE, TimedKind, peg_sd_s
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.plate import PressurePlate
from tropometer.swing.record.swing import SwingRecord

STANDING_N = 100.0  # with less nobody stands on the mat
SMOOTHED_S = 0.09  # by parabolas over so long (Savitzky and Golay 1964, Anal Chem 36:1627)
ON_FOOT_N = 25.0  # with less a foot has no place of pressure worth telling
NO_MAT = "Needs the data of a pressure mat."
PLACES = {
    f"cop_{side}_{way}": (side, axis)
    for side in ("lead", "trail")
    for axis, way in enumerate(("toe", "outer"))
}
PRESSURE: dict[str, TimedKind] = {
    "pressure_lead_share": TimedKind(
        "ratio", "pressure", "1 is all on the lead foot",
        "Force under the lead foot, by that under both.",
    ),
    "cop_lead_toe": TimedKind(
        "ratio", "pressure", "0 at the heel, 1 at the toe",
        "Where along the lead shoe the pressure is centred.",
    ),
    "cop_lead_outer": TimedKind(
        "ratio", "pressure", "0 at the inner edge, 1 at the outer",
        "Where across the lead shoe the pressure is centred.",
    ),
    "cop_trail_toe": TimedKind(
        "ratio", "pressure", "0 at the heel, 1 at the toe",
        "Where along the trail shoe the pressure is centred.",
    ),
    "cop_trail_outer": TimedKind(
        "ratio", "pressure", "0 at the inner edge, 1 at the outer",
        "Where across the trail shoe the pressure is centred.",
    ),
    "pressure_peak_trail": TimedKind(
        "ratio", "pressure", "1 is all on the trail foot",
        "Largest share under the trail foot before impact.",
    ),
    "pressure_peak_trail_time": TimedKind(
        "s", "pressure", f"from the top; {SINCE}",
        "When the largest share is under the trail foot, from the top.",
    ),
    "pressure_cross_time": TimedKind(
        "s", "pressure", f"from impact; {SINCE}",
        "When the lead foot first has half of the force after the trail foot had most, from impact.",
    ),
}  # fmt: skip
AT_CHECKPOINTS = ("pressure_lead_share", *PLACES)


def plate_readings(record: SwingRecord) -> list[Reading]:
    """All readings of the mat, given or refused; at the checkpoints that a clip pegs.

    Without a mat's data each is refused once, as a whole.
    """
    if record.plate is None:
        return [_refused(reading, "swing", Refused(NO_MAT)) for reading in PRESSURE]
    clip = next((each for each in record.clips if "impact" in each.checkpoints), None)
    pegged = [at for at in CHECKPOINTS if clip and at in clip.checkpoints] or ["impact"]
    wanted: list[tuple[str, str]] = [(reading, at) for reading in AT_CHECKPOINTS for at in pegged]
    wanted += [
        ("pressure_peak_trail", "swing"),
        ("pressure_peak_trail_time", "top"),
        ("pressure_cross_time", "impact"),
    ]
    if clip is None:
        unpegged = Refused("Set the impact peg.", Need("peg", "impact", "impact"))
        return [_refused(reading, at, unpegged) for reading, at in wanted]
    felt = _Felt(record.plate, clip)
    found = []
    for reading, at in wanted:
        try:
            found.append(felt.read(reading, at))
        except Refused as refusal:
            found.append(_refused(reading, at, refusal))
    return found


def plate_series(record: SwingRecord) -> list[Series]:
    """The mat's readings on every frame from address to finish; none while impact is not pegged."""
    clip = leading_clip(record)
    if record.plate is None or clip is None or "impact" not in clip.checkpoints:
        return []
    felt = _Felt(record.plate, clip)
    return [curve for reading in AT_CHECKPOINTS if (curve := felt.curve(reading))]


def _refused(reading: str, at: str, why: Refused) -> Reading:
    kind = PRESSURE[reading]
    return Reading(reading, at, kind.unit, "refused", kind.method, reason=why.reason, needs=why.needs)


class _Felt:
    """A mat's data beside one clip's pegs."""

    def __init__(self, mat: PressurePlate, clip: Clip) -> None:
        self.mat = mat
        self.clip = clip
        self.total = mat.lead_force_n + mat.trail_force_n
        with np.errstate(divide="ignore", invalid="ignore"):
            self.share = mat.lead_force_n / self.total
            # First-order error of L / (L + T) when each force has the same one.
            both = np.hypot(mat.lead_force_n, mat.trail_force_n)
            self.share_sd = mat.force_sd_n * both / np.square(self.total)
        # A largest value of noisy ones is too large: it is looked for where the noise is smoothed away.
        step = float(np.median(np.diff(mat.times_s)))
        window = min(max(2 * round(SMOOTHED_S / step / 2) + 1, 5), (len(self.share) - 1) // 2 * 2 + 1)
        weights = savgol_coeffs(window, min(2, window - 1))
        self.smooth = savgol_filter(self.share, window, min(2, window - 1), mode="nearest")
        self.smooth_sd = self.share_sd * math.sqrt(float(np.sum(weights**2)))

    def read(self, reading: str, at: str) -> Reading:
        if reading in AT_CHECKPOINTS:
            felt = self._felt(reading)
            if felt is None:
                side, _ = PLACES[reading]
                raise Refused(f"The mat does not say where under the {side} foot the pressure is.")
            return self._at(reading, at, *felt)
        least = self._least()
        if reading == "pressure_peak_trail":
            return self._given(reading, at, 1 - self.smooth[least], 0.0, self.smooth_sd[least])
        if reading == "pressure_peak_trail_time":
            return self._peak_time(least)
        return self._cross_time(least)

    def _at(self, reading: str, at: str, values: Array, sds: Array, force: Array, least_n: float) -> Reading:
        """At a checkpoint, between the mat's samples."""
        moment, sd_s = self._moment(at)
        times = self.mat.times_s
        if not times[0] <= moment <= times[-1]:
            raise Refused(f"The mat's data do not reach to {spoken(at)}.")
        if np.interp(moment, times, force) < least_n:
            raise Refused("There is too little force on the mat then.")
        value, slope, by_mat = self._between(np.array([moment]), values, sds)
        return self._given(reading, at, value[0], abs(slope[0]) * sd_s, by_mat[0], self._frame(at))

    def _between(self, moments: Array, values: Array, sds: Array) -> tuple[Array, Array, Array]:
        """Values, slopes a second and standard deviations at moments between the mat's samples."""
        times = self.mat.times_s
        # Between two samples their noise partly cancels.
        after = np.clip(np.searchsorted(times, moments), 1, len(times) - 1)
        late = (moments - times[after - 1]) / (times[after] - times[after - 1])
        return (
            np.interp(moments, times, values),
            np.interp(moments, times, np.gradient(values, times)),
            np.hypot(late * sds[after], (1 - late) * sds[after - 1]),
        )

    def curve(self, reading: str) -> Series | None:
        """A reading on the clip's frames; None where the mat does not tell it on two at least."""
        felt = self._felt(reading)
        if felt is None:
            return None
        values, sds, force, least_n = felt
        frames, from_impact = swing_frames(self.clip)
        moments = self.mat.impact_s + from_impact
        value, slope, by_mat = self._between(moments, values, sds)
        sd_s = math.hypot(self.mat.impact_sd_s, peg_sd_s(self.clip, self.clip.checkpoints["impact"]))
        times = self.mat.times_s
        ok = (times[0] <= moments) & (moments <= times[-1]) & (np.interp(moments, times, force) >= least_n)
        u95 = NORMAL_95 * np.hypot(by_mat, slope * sd_s)
        if ok.sum() < 2:
            return None
        return Series(reading, frames, from_impact, np.where(ok, value, np.nan), np.where(ok, u95, np.nan))

    def _felt(self, reading: str) -> tuple[Array, Array, Array, float] | None:
        """Values and standard deviations at the mat's samples; the force of which there must be enough."""
        if reading == "pressure_lead_share":
            return self.share, self.share_sd, self.total, STANDING_N
        side, axis = PLACES[reading]
        place = self.mat.lead_place if side == "lead" else self.mat.trail_place
        if place is None:
            return None
        force = self.mat.lead_force_n if side == "lead" else self.mat.trail_force_n
        return place[:, axis], np.full(len(place), self.mat.place_sd), force, ON_FOOT_N

    def _least(self) -> int:
        """The sample before impact at which the lead foot has the smallest share."""
        times = self.mat.times_s
        start = self._moment("address")[0] if "address" in self.clip.checkpoints else times[0]
        inside = (times >= start) & (times <= self.mat.impact_s) & (self.total >= STANDING_N)
        if not inside.any():
            raise Refused("The mat's data do not reach from address to impact.")
        return int(np.flatnonzero(inside)[np.argmin(self.smooth[inside])])

    def _peak_time(self, least: int) -> Reading:
        if "top" not in self.clip.checkpoints:
            raise Refused("Set the top peg.", Need("peg", "top", "top"))
        top, sd_s = self._moment("top")
        # A flat peak may lie at any sample that the force's error does not tell from it: two such differ
        # by √2 standard deviations, and two of those are looked at.
        alike = self.smooth <= self.smooth[least] + 2 * math.sqrt(2) * self.smooth_sd[least]
        first = least - int(np.argmin(alike[least::-1])) if not alike[: least + 1].all() else 0
        after = alike[least:]
        last = least + (int(np.argmin(after)) if not after.all() else len(after) - 1)
        wide = float(self.mat.times_s[last] - self.mat.times_s[first])
        value = float(self.mat.times_s[least]) - top
        return self._given(
            "pressure_peak_trail_time", "top", value, math.hypot(wide / math.sqrt(12), sd_s), 0.0
        )

    def _cross_time(self, least: int) -> Reading:
        over = np.flatnonzero(self.smooth[least:] >= 0.5)
        if self.smooth[least] >= 0.5:
            raise Refused("The trail foot never has half of the force.")
        if not len(over):
            raise Refused("The lead foot never takes half of the force after that.")
        after = least + int(over[0])
        (a, b), (t0, t1) = self.smooth[after - 1 : after + 1], self.mat.times_s[after - 1 : after + 1]
        value = float(t0 + (0.5 - a) / (b - a) * (t1 - t0)) - self.mat.impact_s
        by_force = float(self.smooth_sd[after] * (t1 - t0) / (b - a))
        return self._given("pressure_cross_time", "impact", value, self.mat.impact_sd_s, by_force)

    def _moment(self, at: str) -> tuple[float, float]:
        """A checkpoint on the mat's clock, and one standard deviation of that, seconds."""
        frame = self.clip.checkpoints[_checkpoint(at)]
        from_impact = self.clip.time_from_impact_s(frame) or 0.0
        if at == "impact":
            return self.mat.impact_s, self.mat.impact_sd_s
        impact_sd = peg_sd_s(self.clip, self.clip.checkpoints["impact"])
        own = math.hypot(peg_sd_s(self.clip, frame), impact_sd)
        return self.mat.impact_s + from_impact, math.hypot(self.mat.impact_sd_s, own)

    def _frame(self, at: str) -> tuple[int, ...]:
        frame = self.clip.checkpoints.get(_checkpoint(at))
        return () if frame is None else (frame,)

    def _given(
        self, reading: str, at: str, value: float, by_time: float, by_mat: float, frames: tuple[int, ...] = ()
    ) -> Reading:
        kind = PRESSURE[reading]
        whole = by_time**2 + by_mat**2
        shares = [("time between frames", by_time**2), ("the mat", by_mat**2)]
        return Reading(
            reading,
            at,
            kind.unit,
            "ok",
            kind.method,
            value=float(value),
            u95=float(NORMAL_95 * math.sqrt(whole)),
            clips=(self.clip.id,) if frames else (),
            frames=frames,
            budget=tuple(
                Share(name, float(square / whole))
                for name, square in sorted(shares, key=lambda each: -each[1])
                if square > 0
            ),
        )


def _checkpoint(at: str) -> Checkpoint:
    return next(name for name in CHECKPOINTS if name == at)
