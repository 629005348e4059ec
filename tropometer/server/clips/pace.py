"""How slowly a clip plays, and when its frames really were."""

from typing import Any

import numpy as np

from tropometer.server.clips.models import Clip
from tropometer.swing.proposals.motion import plausible_slowness
from tropometer.video.timing import real_times_s


def slowness(clip: Clip) -> float:
    """How many times slower than life the clip plays: as was said, else as its movement makes plausible."""
    if clip.capture_fps is not None:
        return clip.capture_fps / clip.played_fps
    return (plausible_slowness(clip.played_times_s, clip.movement) if clip.movement else None) or 1.0


def real_times_of(clip: Clip) -> "np.ndarray[Any, np.dtype[np.float64]]":
    """Real time of every frame (n,) from the first, seconds."""
    return np.array(real_times_s(clip.played_times_s, 1.0, slowness(clip)))
