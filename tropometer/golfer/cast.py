"""The invented people of the demo: their bodies, clothes, cameras and swings."""

from __future__ import annotations

from dataclasses import dataclass, field

from tropometer.golfer.truth import Camera

Curve = list[float]


@dataclass(frozen=True)
class Part:
    """One clip to draw. `offsets` are added to the model's curves, a value per event of the swing."""

    name: str
    stature_m: float
    female: bool
    build: float
    left_handed: bool
    colours: str  # ten hex colours
    camera: Camera
    capture_fps: int
    played_fps: int
    codec: str
    container: str
    offsets: dict[str, Curve] = field(default_factory=dict)


def _camera(x: float, y: float, z: float, fov: float, portrait: bool = False) -> Camera:
    width, height = (720, 1280) if portrait else (1280, 720)
    return Camera((x, y, z), (x * 0.8, 0.93, 0), fov, width, height)


# Offsets run address, takeaway, mid-back, top, mid-down, delivery, impact, release, mid-through, finish.
SWAY: dict[str, Curve] = {
    "px": [0.0, -0.045, -0.095, -0.125, -0.085, -0.055, -0.03, -0.02, -0.01, 0.0],
    "pturn": [0, 5, 12, 17, 2, -4, -12, -12, -8, -4],
    "tturn": [0, 3, 8, 10, 4, 0, -2, 0, 0, 0],
}
LESS_SWAY: dict[str, Curve] = {name: [0.45 * value for value in curve] for name, curve in SWAY.items()}
LOADED: dict[str, Curve] = {
    "px": [0.0, -0.01, -0.015, -0.015, 0.0, 0.01, 0.015, 0.015, 0.01, 0.0],
    "pz": [0.0, -0.005, -0.01, -0.02, -0.01, 0.0, 0.0, 0.0, 0.0, 0.0],
}

# Colours: skin, shirt, trousers, shoe, sole, hair, eye, cap, glove, belt.
CAST = (
    Part(
        name="tobin",
        stature_m=1.81,
        female=False,
        build=0.25,
        left_handed=False,
        colours="d9a583 8a4b3c 4a5560 2f3540 e9e9e6 3b2a1e ffffff d8d2c2 ffffff 2a1c14",
        camera=_camera(0.05, 1.05, 4.6, 30),
        capture_fps=60,
        played_fps=60,
        codec="libx264",
        container="mp4",
        offsets=SWAY,
    ),
    Part(
        name="ilse",
        stature_m=1.68,
        female=True,
        build=-0.1,
        left_handed=True,
        colours="c98f6b 3f6f73 2c3446 f0f0f0 f7f7f7 23180f ffffff e6dcc4 ffffff 111111",
        camera=_camera(-0.04, 1.0, 4.3, 36, portrait=True),
        capture_fps=120,
        played_fps=30,
        codec="libx265",
        container="mov",
        offsets=LOADED,
    ),
    Part(
        name="dag",
        stature_m=1.75,
        female=False,
        build=-0.3,
        left_handed=False,
        colours="8d5a3c d9d2bd 3a4a3a 5a3a24 d8d0c0 15100c ffffff 7a2f2a ffffff 3a2414",
        camera=_camera(-0.08, 1.1, 4.9, 28),
        capture_fps=60,
        played_fps=60,
        codec="libx264",
        container="mp4",
        offsets=LESS_SWAY,
    ),
    Part(
        name="reference",
        stature_m=1.78,
        female=False,
        build=0.0,
        left_handed=False,
        colours="d9a583 e4ddc9 39506b 6b4a30 e9e9e6 2b2a26 ffffff 39506b ffffff 2a1c14",
        camera=_camera(0.0, 1.05, 4.6, 30),
        capture_fps=60,
        played_fps=60,
        codec="libx264",
        container="mp4",
        offsets={},
    ),
)
