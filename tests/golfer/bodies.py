"""Bodies, swings and random settings for the golfer's tests."""

from functools import lru_cache
from typing import Any

import numpy as np
from hypothesis import strategies as st

from tropometer.golfer.body import Body, build
from tropometer.golfer.motion import Motion
from tropometer.golfer.settings import EVENTS, KEYED, SwingSettings


@lru_cache
def body(stature_m: float = 1.78, man: float = 1.0, weight: float = 0.0) -> Body:
    return build(stature_m, man, weight)


@lru_cache
def default_motion() -> Motion:
    return Motion(body(), SwingSettings())


# Random swings: each drawn setting goes up to a fifth of its range from the default, at one event or all.
VARIED = tuple(name for name in KEYED if not name.startswith(("lead_cop", "trail_cop", "lead_share")))
SINGLES = ("stance_ratio", "lead_flare", "trail_flare", "toe_line", "backswing", "downswing", "pelvis_bump")


@st.composite
def settings(draw: Any) -> SwingSettings:
    base = SwingSettings()
    changed: dict[str, Any] = {}
    for name in draw(st.lists(st.sampled_from(SINGLES), max_size=3, unique=True)):
        limits = base.__dataclass_fields__[name].metadata
        changed[name] = draw(st.floats(limits["low"], limits["high"]))
    for name in draw(st.lists(st.sampled_from(VARIED), min_size=1, max_size=5, unique=True)):
        limits = base.__dataclass_fields__[name].metadata
        reach = 0.1 * (limits["high"] - limits["low"])
        keys = np.array(getattr(base, name))
        event = draw(st.integers(1, len(EVENTS) - 1))
        keys[event] += draw(st.floats(-reach, reach))
        changed[name] = tuple(np.clip(keys, limits["low"], limits["high"]))
    return base.but(**changed)


BODIES = st.sampled_from([(1.55, 0.0, -0.5), (1.68, 0.0, 0.3), (1.78, 1.0, 0.0), (1.90, 1.0, 0.6)])
