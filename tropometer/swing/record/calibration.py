"""What is known of a camera: a mat on the floor, and what was taped, paced, or seen in the picture."""

from __future__ import annotations

from dataclasses import dataclass, replace

Pixel = tuple[float, float]


@dataclass(frozen=True)
class PlumbLine:
    """An upright edge in the picture (a wall's corner, a door, a hanging club): two pixels on it."""

    a: Pixel
    b: Pixel
    sd_px: float = 1.5

    def mirrored(self, width: int) -> PlumbLine:
        """The same edge in the mirrored picture."""
        a, b = ((width - x, y) for x, y in (self.a, self.b))
        return PlumbLine(a, b, self.sd_px)


@dataclass(frozen=True, kw_only=True)
class FloorLength:
    """A straight thing of known length that lies on the floor, by its ends in pixels."""

    a: Pixel
    b: Pixel
    length_m: float
    length_sd_m: float
    sd_px: float
    along_b: tuple[float, float] | None = None  # along the target line at this B, and how surely, metres

    def mirrored(self, width: int) -> FloorLength:
        """The same thing in the mirrored picture."""
        a, b = ((width - x, y) for x, y in (self.a, self.b))
        return replace(self, a=a, b=b)


@dataclass(frozen=True, kw_only=True)
class CameraFacts:
    """Metres and degrees; `off_square_deg` is an angle and its standard deviation. None: nobody knows."""

    distance_m: float | None = None
    height_m: float | None = None
    off_square_deg: tuple[float, float] | None = None
    plumb: PlumbLine | None = None
    length: FloorLength | None = None
    body_length: FloorLength | None = None  # held upright or lying in the plane that the player stands in

    def mirrored(self, width: int) -> CameraFacts:
        """The same facts about the mirrored picture."""
        return CameraFacts(
            distance_m=self.distance_m,
            height_m=self.height_m,
            off_square_deg=self.off_square_deg,
            plumb=self.plumb.mirrored(width) if self.plumb else None,
            length=self.length.mirrored(width) if self.length else None,
            body_length=self.body_length.mirrored(width) if self.body_length else None,
        )


@dataclass(frozen=True)
class Mat:
    """Four corners in pixels, and how long the mat is along and across the target line, metres.

    It lies along the target line; two alignment sticks side by side are a mat too.
    """

    corners: tuple[tuple[float, float], ...]
    along_m: float
    across_m: float
    sd_px: float = 1.5

    def mirrored(self, width: int) -> Mat:
        """The same mat in the mirrored picture."""
        turned = tuple((width - x, y) for x, y in self.corners)
        return Mat(turned, self.along_m, self.across_m, self.sd_px)
