"""Real time from played time: a clip shot at 240 and played at 30 runs eight times too slow."""

from __future__ import annotations


def real_times_s(played_times_s: list[float], played_fps: float, capture_fps: float | None) -> list[float]:
    """Seconds of real time from the first frame; without a capture rate the clip plays in real time."""
    slow = 1.0 if capture_fps is None else played_fps / capture_fps
    return [round(t * slow, 7) for t in played_times_s]
