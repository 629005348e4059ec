"""A pressure plate's data beside one clip's pegs.

Its clock is not the camera's: impact is found on both, and all else is told from there.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from scipy.signal import savgol_coeffs, savgol_filter

from tropometer.swing.arrays import Array
from tropometer.swing.error.source import Source
from tropometer.swing.error.value import NORMAL_95, Measured
from tropometer.swing.names import CHECKPOINTS, Checkpoint, spoken
from tropometer.swing.readings.clock import peg_sd_s
from tropometer.swing.readings.reading import Given, Refused
from tropometer.swing.readings.series import Series, swing_frames
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.plate import STANDING_N, PressurePlate

SMOOTHED_S = 0.09  # by parabolas over so long (Savitzky and Golay 1964, Anal Chem 36:1627)


@dataclass(frozen=True, kw_only=True, eq=False)
class Channel:
    """Something that a plate feels at each of its samples (n,).

    It tells nothing while the `force` (n,) that it is told by is less than `least_n`, newtons.
    """

    values: Array
    sd: Array
    force: Array
    least_n: float


class Felt:
    """What a plate felt, smoothed, and when the clip's checkpoints are on its clock."""

    def __init__(self, plate: PressurePlate, clip: Clip) -> None:
        self.plate = plate
        self.clip = clip
        self.total = plate.lead_force_n + plate.trail_force_n
        with np.errstate(divide="ignore", invalid="ignore"):
            self.share = plate.lead_force_n / self.total
            # First-order error of L / (L + T) when each force has the same one: sd √(L² + T²) / (L + T)².
            both = np.hypot(plate.lead_force_n, plate.trail_force_n)
            self.share_sd = plate.force_sd_n * both / np.square(self.total)
        # A largest value of noisy ones is too large: it is looked for where the noise is smoothed away.
        step = float(np.median(np.diff(plate.times_s)))
        window = min(max(2 * round(SMOOTHED_S / step / 2) + 1, 5), (len(self.share) - 1) // 2 * 2 + 1)
        weights = savgol_coeffs(window, min(2, window - 1))
        self.smooth = savgol_filter(self.share, window, min(2, window - 1), mode="nearest")
        self.smooth_sd = self.share_sd * math.sqrt(float(np.sum(weights**2)))

    def at(self, channel: Channel, at: str) -> Given:
        """A channel at a checkpoint, between the plate's samples."""
        moment, sd_s = self.moment(at)
        times = self.plate.times_s
        if not times[0] <= moment <= times[-1]:
            raise Refused(f"The plate's data do not reach to {spoken(at)}.")
        if np.interp(moment, times, channel.force) < channel.least_n:
            raise Refused("There is too little force on the plate then.")
        value, slope, sd = self._between(np.array([moment]), channel)
        return self.given(value[0], by_time=abs(slope[0]) * sd_s, by_plate=sd[0], at=at)

    def curve(self, reading: str, channel: Channel) -> Series | None:
        """A channel on the clip's frames; None where the plate does not tell it on two at least."""
        frames, from_impact = swing_frames(self.clip)
        moments = self.plate.impact_s + from_impact
        value, slope, sd = self._between(moments, channel)
        sd_s = math.hypot(self.plate.impact_sd_s, peg_sd_s(self.clip, self.clip.checkpoints["impact"]))
        times = self.plate.times_s
        ok = (times[0] <= moments) & (moments <= times[-1])
        ok &= np.interp(moments, times, channel.force) >= channel.least_n
        if ok.sum() < 2:
            return None
        return Series(
            reading=reading,
            frames=frames,
            times_s=from_impact,
            values=np.where(ok, value, np.nan),
            u95=np.where(ok, NORMAL_95 * np.hypot(sd, slope * sd_s), np.nan),
        )

    def least(self) -> int:
        """The sample before impact at which the lead foot has the smallest share."""
        times = self.plate.times_s
        start = self.moment("address")[0] if "address" in self.clip.checkpoints else times[0]
        inside = (times >= start) & (times <= self.plate.impact_s) & (self.total >= STANDING_N)
        if not inside.any():
            raise Refused("The plate's data do not reach from address to impact.")
        return int(np.flatnonzero(inside)[np.argmin(self.smooth[inside])])

    def moment(self, at: str) -> tuple[float, float]:
        """A checkpoint on the plate's clock, and one standard deviation of that, seconds."""
        frame = self.clip.checkpoints[_checkpoint(at)]
        from_impact = self.clip.time_from_impact_s(frame) or 0.0
        if at == "impact":
            return self.plate.impact_s, self.plate.impact_sd_s
        impact_sd = peg_sd_s(self.clip, self.clip.checkpoints["impact"])
        own = math.hypot(peg_sd_s(self.clip, frame), impact_sd)
        return self.plate.impact_s + from_impact, math.hypot(self.plate.impact_sd_s, own)

    def given(self, value: float, *, by_time: float = 0.0, by_plate: float = 0.0, at: str = "") -> Given:
        """A value with what the pegs' times and the plate's noise each do to it, one standard deviation."""
        frame = self.clip.checkpoints.get(_checkpoint(at)) if at else None
        sources = ((by_time, Source("moment", view=self.clip.view)), (by_plate, Source("plate")))
        errors = (Measured.of(0.0, sd, source) for sd, source in sources if sd > 0)
        return Given(
            value=sum(errors, Measured(np.asarray(value, float))),
            clips=() if frame is None else (self.clip.id,),
            frames=() if frame is None else (frame,),
        )

    def _between(self, moments: Array, channel: Channel) -> tuple[Array, Array, Array]:
        """Values, slopes a second and standard deviations at moments between the plate's samples."""
        times, values, sd = self.plate.times_s, channel.values, channel.sd
        # Between two samples their noise partly cancels.
        after = np.clip(np.searchsorted(times, moments), 1, len(times) - 1)
        late = (moments - times[after - 1]) / (times[after] - times[after - 1])
        return (
            np.interp(moments, times, values),
            np.interp(moments, times, np.gradient(values, times)),
            np.hypot(late * sd[after], (1 - late) * sd[after - 1]),
        )


def _checkpoint(at: str) -> Checkpoint:
    return next(name for name in CHECKPOINTS if name == at)
