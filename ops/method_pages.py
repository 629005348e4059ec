"""Writes what follows from the code into docs/method: each family's table of readings, and its picture.

    ./tropo method

The pictures are drawn from the truth of a made-up golfer. The words around the tables are written by hand.
"""

import gzip
import json
from pathlib import Path
from typing import Any

from tropometer.swing.names import CHECKPOINTS, PLANE_OF, VIEWS
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.from_plate import FromPlate
from tropometer.swing.readings.not_shown import NOT_SHOWN, not_shown
from tropometer.swing.readings.register import KINDS, Kind, kinds_of
from tropometer.swing.readings.round import needs_of

ROOT = Path(__file__).parents[1]
PAGES = ROOT / "docs" / "method"
GOLFER = ROOT / "demo" / "clips" / "model_loaded_face.truth.json.gz"
BEGIN, END = "<!-- made by ./tropo method -->\n", "<!-- end -->\n"
NONE = "\N{EN DASH}"
FAMILIES = ("feet", "knees", "pelvis", "trunk", "club", "sequence", "pressure")
SHORT = {"frontal": "front", "sagittal": "line"}

PINE, CLAY, BRASS, GREY = "#16302B", "#C4572E", "#96701F", "#9AA6A1"
PX_PER_M = 165
WIDE, HIGH = 300, 360
Point = tuple[float, float]
Place = tuple[float, float, float]


def table(family: str) -> str:
    """The family's readings as a table."""
    lines = ["| reading | unit | at | seen from | how | sign |", "|---|---|---|---|---|---|"]
    for kind in KINDS.values():
        if kind.group == family:
            mark = " ✱" if isinstance(kind, FromMarks) and kind.scale == "mat" else ""
            row = (f"`{kind.id}`{mark}", kind.unit, _at(kind), _seen(kind), kind.method, kind.sign)
            lines.append(f"| {' | '.join(row)} |")
    return "\n".join(lines) + "\n"


def _at(kind: Kind) -> str:
    if kind.at == CHECKPOINTS:
        return "all"
    if kind.at == CHECKPOINTS[1:]:
        return "all after address"
    return ", ".join(at.replace("_", " ") for at in kind.at)


def _seen(kind: Kind) -> str:
    if isinstance(kind, FromMarks):
        return ", ".join("both" if len(planes) == 2 else SHORT[planes[0]] for planes in kind.seen)
    return "plate" if isinstance(kind, FromPlate) else NONE


def sides() -> str:
    """What each side tells by itself and does not show, as a table."""
    kinds = kinds_of(FromMarks)
    lines = ["| filmed | marks it does not show | readings of marks, alone | of its plane not |"]
    lines.append("|---|---|---|---|")
    for view in VIEWS:
        own = [kind for kind in kinds if (PLANE_OF[view],) in kind.seen]
        lost = [kind.id for kind in own if any(not_shown(name, view) for name, _ in needs_of(kind))]
        hidden = ", ".join(sorted(part.replace("_", " ") for part in NOT_SHOWN[view]))
        told = ", ".join(f"`{each}`" for each in lost) or NONE
        lines.append(f"| {view.replace('_', ' ')} | {hidden} | {len(own) - len(lost)} | {told} |")
    return "\n".join(lines) + "\n"


def pages() -> dict[str, str]:
    """What is made from the code for each page."""
    return {"readings": sides()} | {family: table(family) for family in FAMILIES}


def written(name: str, made: str) -> str:
    """A page with what is made from the code put into it."""
    page = (PAGES / f"{name}.md").read_text(encoding="utf-8")
    before, _, rest = page.partition(BEGIN)
    _, _, after = rest.partition(END)
    return before + BEGIN + made + END + after


class Figure:
    """A made-up golfer at a checkpoint, seen from one side, as lines."""

    def __init__(self, known: dict[str, Any], view: str, at: str, left: float = 0.0) -> None:
        frame = known["checkpoints"][at]
        self.places: dict[str, Place] = {name: tuple(rows[frame]) for name, rows in known["tbu_m"].items()}
        self.view, self.left = view, left

    def at(self, name: str) -> Point:
        return self.to(self.places[name])

    def to(self, place: Place) -> Point:
        """T runs to the right face-on, B down the line; from above the ball is up and the target left."""
        t, b, u = place
        if self.view == "above":
            return self.left + WIDE / 2 - t * 2.2 * PX_PER_M, HIGH - 150 - b * 2.2 * PX_PER_M
        across = t if self.view == "face_on" else b - 0.25
        return self.left + WIDE / 2 + across * PX_PER_M, HIGH - 24 - u * PX_PER_M

    def bones(self, ink: str, width: float) -> str:
        ways = [
            *(
                [f"{side}_hip", f"{side}_knee", f"{side}_ankle", f"{side}_heel", f"{side}_toe"]
                for side in SIDES
            ),
            *([f"{side}_shoulder", f"{side}_elbow", f"{side}_wrist", "grip"] for side in SIDES),
            ["lead_hip", "trail_hip"],
            ["lead_shoulder", "trail_shoulder"],
            ["grip", "club_head"],
        ]
        lines = [path([self.at(name) for name in way], ink, width) for way in ways]
        middle = tuple(
            (a + b) / 2 for a, b in zip(self.places["lead_hip"], self.places["trail_hip"], strict=True)
        )
        lines.append(path([self.to((middle[0], middle[1], middle[2])), self.at("neck")], ink, width))
        x, y = self.at("head")
        return (
            "".join(lines)
            + f'<circle cx="{x:.1f}" cy="{y:.1f}" r="17" fill="none" stroke="{ink}" stroke-width="{width}"/>'
        )


SIDES = ("lead", "trail")


def path(points: list[Point], ink: str, width: float = 1.5, dash: str = "") -> str:
    """A line through points."""
    through = " ".join(f"{x:.1f},{y:.1f}" for x, y in points)
    dashes = f' stroke-dasharray="{dash}"' if dash else ""
    return (
        f'<polyline points="{through}" fill="none" stroke="{ink}" stroke-width="{width}" '
        f'stroke-linecap="round" stroke-linejoin="round"{dashes}/>'
    )


def words(at: Point, text: str, anchor: str = "start") -> str:
    """Words beside a place."""
    return f'<text x="{at[0]:.1f}" y="{at[1]:.1f}" text-anchor="{anchor}">{text}</text>'


def upright(at: Point, up: float, dash: str = "") -> str:
    """A plumb line."""
    return path([at, (at[0], at[1] - up)], BRASS, 1.8, dash)


def between(a: Point, b: Point) -> str:
    """A measured way with an end at each side."""
    return path([a, b], BRASS, 2.4) + "".join(path([(x, y - 5), (x, y + 5)], BRASS, 1.8) for x, y in (a, b))


def picture(body: str, wide: float = 2 * WIDE, high: float = HIGH) -> str:
    """A whole picture on paper."""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {wide:g} {high:g}" '
        f'width="{wide:g}" height="{high:g}" font-family="sans-serif" font-size="12" fill="{PINE}">'
        f'<rect width="{wide:g}" height="{high:g}" fill="#F6F3EA"/>{body}</svg>\n'
    )


def both_views(known: dict[str, Any], at: str) -> tuple[Figure, Figure, Figure, Figure, str]:
    """Face-on and down the line, now and at address, and the drawing of all four."""
    face, line = Figure(known, "face_on", at), Figure(known, "down_the_line", at, WIDE)
    face0, line0 = Figure(known, "face_on", "address"), Figure(known, "down_the_line", "address", WIDE)
    ghost = "" if at == "address" else face0.bones(GREY, 1.2) + line0.bones(GREY, 1.2)
    said = words((10, 20), f"face-on, {at.replace('_', ' ')}") + words((WIDE + 10, 20), "down the line")
    return face, line, face0, line0, ghost + face.bones(PINE, 2) + line.bones(PINE, 2) + said


def feet(known: dict[str, Any]) -> str:
    """Shoes from above: flare, toe line, stance."""
    here = Figure(known, "above", "address", WIDE / 2)
    drawn = [words((10, 20), "from above, at address: the ball is up, the target left")]
    for side in SIDES:
        drawn.append(
            path(
                [here.at(f"{side}_{part}") for part in ("heel", "foot_outer", "toe", "foot_inner", "heel")],
                PINE,
                2,
            )
        )
        heel = here.at(f"{side}_heel")
        drawn.append(path([heel, (heel[0], heel[1] - 120)], GREY, 1.2, "4 4"))
        drawn.append(path([heel, here.at(f"{side}_toe")], CLAY, 2))
        drawn.append(words((here.at(f"{side}_toe")[0] - 14, here.at(f"{side}_toe")[1] - 22), f"{side} flare"))
    drawn.append(path([here.at("trail_toe"), here.at("lead_toe")], BRASS, 1.8, "6 4"))
    drawn.append(words((WIDE, here.at("lead_toe")[1] - 5), "toe line", "middle"))
    low = here.at("lead_heel")[1] + 30
    drawn.append(between((here.at("lead_heel")[0], low), (here.at("trail_heel")[0], low)))
    drawn.append(words((WIDE, low + 18), "stance, heel to heel", "middle"))
    return picture("".join(drawn))


def knees(known: dict[str, Any]) -> str:
    """Lead leg's lean at impact, a knee's bend down the line."""
    face, line, _, _, drawn = both_views(known, "impact")
    hip, ankle = face.at("lead_hip"), face.at("lead_ankle")
    drawn += (
        upright(ankle, 150, "5 4")
        + path([ankle, hip], CLAY, 2.4)
        + words((ankle[0] + 12, ankle[1] - 120), "lean")
    )
    leg = [line.at(f"trail_{part}") for part in ("hip", "knee", "ankle")]
    (hx, hy), (kx, ky), _ = leg
    drawn += path(leg, CLAY, 3) + path([(kx, ky), (2 * kx - hx, 2 * ky - hy)], BRASS, 1.8, "5 4")
    return picture(drawn + words((kx + 12, ky + 30), "flex"))


def pelvis(known: dict[str, Any]) -> str:
    """Sway and gap face-on, depth down the line, at the top."""
    face, line, face0, line0, drawn = both_views(known, "top")
    plumb, edge = face0.at("trail_foot_outer"), face.at("trail_hip_edge")
    drawn += (
        upright(plumb, 230)
        + between((plumb[0], edge[1]), edge)
        + words((plumb[0] - 6, edge[1] - 10), "gap", "end")
    )

    def middle(figure: Figure) -> Point:
        (a, b), (c, d) = figure.at("lead_hip"), figure.at("trail_hip")
        return (a + c) / 2, (b + d) / 2

    was, now = middle(face0), middle(face)
    drawn += (
        upright((was[0], was[1] + 60), 90, "5 4")
        + between(was, now)
        + words((was[0] + 8, was[1] + 58), "sway")
    )
    wall, seat = line0.at("seat"), line.at("seat")
    drawn += upright((wall[0], wall[1] + 80), 150, "10 3") + between((wall[0], seat[1]), seat)
    return picture(drawn + words((wall[0] - 6, wall[1] + 92), "seat wall", "end"))


def trunk(known: dict[str, Any]) -> str:
    """Spine incline down the line, side tilt face-on, at address."""
    face, line, _, _, drawn = both_views(known, "address")
    for figure, said in ((face, "side tilt"), (line, "incline")):
        (a, b), (c, d) = figure.at("lead_hip"), figure.at("trail_hip")
        foot, neck = ((a + c) / 2, (b + d) / 2), figure.at("neck")
        drawn += (
            path([foot, neck], CLAY, 3)
            + upright(foot, 130, "5 4")
            + words((foot[0] + 14, foot[1] - 108), said)
        )
    return picture(drawn)


def club(known: dict[str, Any]) -> str:
    """Arm and shaft face-on, and the plumb from the butt end down the line, at the top."""
    face, line, _, _, drawn = both_views(known, "top")
    drawn += path([face.at("lead_shoulder"), face.at("grip"), face.at("club_head")], CLAY, 3)
    x, y = line.at("grip_butt")
    drawn += path([(x, y), (x, line.at("trail_heel")[1])], BRASS, 1.8) + words((x + 8, y + 90), "plumb")
    return picture(drawn + words((face.at("grip")[0] - 8, face.at("grip")[1] - 12), "arm and shaft", "end"))


def sequence(known: dict[str, Any]) -> str:
    """When each part starts, from the floor up, against the top."""
    top, impact = known["times_s"]["checkpoints"]["top"], known["times_s"]["checkpoints"]["impact"]
    lanes = list(reversed(known["times_s"]["starts"].items()))

    def x(second: float) -> float:
        return 190.0 + float(second - top) * 1150

    drawn = [words((10, 20), "each starts toward the target; the cord is the top, the dashed line impact")]
    for i, (part, start) in enumerate(lanes):
        y = 44 + i * 26
        drawn.append(words((10, y + 13), part.replace("_", " ")))
        drawn.append(
            f'<rect x="{x(start):.1f}" y="{y}" width="{x(impact) - x(start):.1f}" height="18" '
            f'fill="{CLAY}" fill-opacity="0.4"/>'
        )
    low = 44 + len(lanes) * 26
    drawn.append(
        path([(x(top), 36), (x(top), low)], BRASS, 3)
        + path([(x(impact), 36), (x(impact), low)], PINE, 1.5, "4 4")
    )
    return picture("".join(drawn), high=low + 16)


def pressure(known: dict[str, Any]) -> str:
    """The share of the force under the lead foot at the checkpoints."""
    shares = {
        each["at"]: each["value"] for each in known["readings"] if each["reading"] == "pressure_lead_share"
    }
    seconds = known["times_s"]["checkpoints"]
    first, last = seconds["address"], seconds["finish"]

    def spot(at: str) -> Point:
        return 60 + (seconds[at] - first) / (last - first) * 510, 190 - shares[at] * 150

    drawn = [words((10, 20), "share of the force under the lead foot")]
    for share in (0, 0.5, 1):
        y = 190 - share * 150
        drawn.append(
            path([(60, y), (570, y)], GREY, 1, "2 4" if share == 0.5 else "")
            + words((52, y + 4), f"{share:g}", "end")
        )
    drawn.append(path([spot(at) for at in shares], CLAY, 2.4))
    for at in ("address", "top", "impact", "finish"):
        (px, py) = spot(at)
        drawn.append(
            f'<circle cx="{px:.1f}" cy="{py:.1f}" r="4" fill="{CLAY}"/>' + words((px, 208), at, "middle")
        )
    return picture("".join(drawn), high=220)


DRAWN = {
    "feet": feet,
    "knees": knees,
    "pelvis": pelvis,
    "trunk": trunk,
    "club": club,
    "sequence": sequence,
    "pressure": pressure,
}


def main() -> None:
    """Write all pages and pictures anew."""
    known: dict[str, Any] = json.loads(gzip.decompress(GOLFER.read_bytes()))
    for name, made in pages().items():
        (PAGES / f"{name}.md").write_text(written(name, made), encoding="utf-8")
    for family in FAMILIES:
        (PAGES / f"{family}.svg").write_text(DRAWN[family](known), encoding="utf-8")


if __name__ == "__main__":
    main()
