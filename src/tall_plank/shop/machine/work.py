"""Work on a board: each part's operations in the board's frame, from above; what a three-axis machine cannot reach is
listed by itself, and nothing is left out.

A part lies with the face up that has more to be done. Operations are held in finished coordinates; here they move to
the cut part, whose edges lie inside by edging less pre-milling.
"""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.cutting import LaidPart
from tall_plank.making import Bore, Cutout, Groove, Part
from tall_plank.making.parts import Bevel, Rebate, ShapedEdge
from tall_plank.measure.outlines import Point, Points, inner_corners

Side = Literal["A", "B"]


class Hole(msgspec.Struct, frozen=True):
    """A hole from above: middle, diameter, depth below the top, mm; `through` goes right through. `at`, here and below:
    its place on the finished part, in words."""

    x: float
    y: float
    diameter: float
    depth: float
    through: bool
    use: str
    at: str = ""


class Slot(msgspec.Struct, frozen=True):
    """A groove from above along a line, `width` centred on it, mm."""

    x1: float
    y1: float
    x2: float
    y2: float
    width: float
    depth: float
    at: str = ""


class Pocket(msgspec.Struct, frozen=True):
    """A rectangle taken down by a depth from above: x0, y0, x1, y1, mm."""

    x0: float
    y0: float
    x1: float
    y1: float
    depth: float
    at: str = ""


class Opening(msgspec.Struct, frozen=True):
    """A rectangle cut right through: x0, y0, x1, y1 and the radius of its corners, mm."""

    x0: float
    y0: float
    x1: float
    y1: float
    radius: float
    at: str = ""


class Left(msgspec.Struct, frozen=True):
    """Work that is not done from above: on which part, which face, what, where (in finished coordinates), and why."""

    part: str
    face: str
    what: str
    why: str


class PartWork(msgspec.Struct, frozen=True):
    """A part on a board with all that is done to it from above.

    Attributes
    ----------
    up : the face that looks up
    outline : of the cut part, counter-clockwise, in the board's frame, mm
    left : what is left for a second side, for the edges, for the hand
    inner : corners of the outline that turn inwards, in the board's frame, with their places on the finished part
    """

    part: str
    name: str
    up: Side
    outline: Points
    holes: tuple[Hole, ...] = ()
    slots: tuple[Slot, ...] = ()
    pockets: tuple[Pocket, ...] = ()
    openings: tuple[Opening, ...] = ()
    left: tuple[Left, ...] = ()
    inner: tuple[tuple[Point, str], ...] = ()


def side_up(part: Part) -> Side:
    """The face with more to be done; A where both have the same."""
    counts = {"A": 0, "B": 0}
    for op in part.operations:
        if isinstance(op, Bore) and op.through:
            continue
        face = getattr(op, "face", "")
        if face in counts:
            counts[face] += 1
    return "B" if counts["B"] > counts["A"] else "A"


def worked_on(part: Part, face: Side) -> bool:
    """Whether a face has work of its own, for a program of its side."""
    for op in part.operations:
        if getattr(op, "face", "") != face:
            continue
        if not isinstance(op, Bore) or not (op.through or op.slant):
            return True
    return False


class _Way:
    """From finished coordinates of a part to its board."""

    def __init__(self, part: Part, placement: LaidPart, up: Side) -> None:
        self.part, self.at, self.up = part, placement, up
        self.dx, self.dy = part.cut_origin
        self.length, self.width = part.cut_length, part.cut_width
        self.angle = round(placement.angle) % 360 if placement.angle else (90 if placement.turned else 0)

    def out(self, x: float, y: float) -> tuple[float, float]:
        u, v = x - self.dx, y - self.dy
        if self.up == "B":
            v = self.width - v  # turned over about its length
        px, py = self.at.x, self.at.y
        return {
            0: (px + u, py + v), 90: (px + self.width - v, py + u),
            180: (px + self.length - u, py + self.width - v), 270: (px + v, py + self.length - u),
        }[self.angle]  # fmt: skip

    def box(self, x0: float, y0: float, x1: float, y1: float) -> tuple[float, float, float, float]:
        (ax, ay), (bx, by) = self.out(x0, y0), self.out(x1, y1)
        return min(ax, bx), min(ay, by), max(ax, bx), max(ay, by)


def work_on(number: str, part: Part, placement: LaidPart, *, second: bool = False) -> PartWork:
    """All work on a part as it lies on its board; with `second`, that of its other face, the part turned over."""
    up: Side = side_up(part)
    if second:
        up = "A" if up == "B" else "B"
    way = _Way(part, placement, up)
    holes: list[Hole] = []
    slots: list[Slot] = []
    pockets: list[Pocket] = []
    openings: list[Opening] = []
    left: list[Left] = []
    for op in part.operations:
        match op:
            case Bore() if op.face not in ("A", "B"):
                where = f"{op.use}: ø{op.diameter:g}, {op.depth:g} deep at {op.x:.1f}, {op.y:.1f}"
                left.append(Left(number, op.face, where, "edge"))
            case Bore() if op.slant:
                where = f"{op.use}: ø{op.diameter:g}, leaning {op.slant:g}° at {op.x:.1f}, {op.y:.1f}"
                left.append(Left(number, op.face, where, "slanted"))
            case Bore() if not second if op.through else op.face == up:
                x, y = way.out(op.x, op.y)
                deep = part.thickness if op.through else op.depth
                holes.append(Hole(x, y, op.diameter, deep, op.through, op.use, f"{op.x:.1f}, {op.y:.1f}"))
            case Bore() if not op.through:
                where = f"{op.use}: ø{op.diameter:g}, {op.depth:g} deep at {op.x:.1f}, {op.y:.1f}"
                left.append(Left(number, op.face, where, "other face"))
            case Groove() if op.face == up:
                (x1, y1), (x2, y2) = way.out(op.x1, op.y1), way.out(op.x2, op.y2)
                ends = f"{op.x1:.1f}, {op.y1:.1f} to {op.x2:.1f}, {op.y2:.1f}"
                slots.append(Slot(x1, y1, x2, y2, op.width, op.depth, ends))
            case Groove():
                ends = f"{op.x1:.1f}, {op.y1:.1f} to {op.x2:.1f}, {op.y2:.1f}"
                where = f"groove {op.width:g} wide, {op.depth:g} deep, {ends}"
                left.append(Left(number, op.face, where, "other face" if op.face in ("A", "B") else "edge"))
            case Rebate() if op.face == up:
                pockets.append(Pocket(*way.box(*_rebate(part, op)), op.depth, f"along {op.edge}"))
            case Rebate():
                where = f"rebate {op.width:g} wide, {op.depth:g} deep along {op.edge}"
                left.append(Left(number, op.face, where, "other face"))
            case Cutout() if not second:
                box = way.box(op.x, op.y, op.x + op.length, op.y + op.width)
                openings.append(Opening(*box, op.radius, f"{op.x:.1f}, {op.y:.1f}"))
            case Bevel() if not second:
                left.append(Left(number, op.edge, f"cut at {op.angle:g}°, long at face {op.long}", "bevel"))
            case ShapedEdge() if not second:
                left.append(Left(number, op.edge, f"edge worked to {op.profile}", "profile"))
            case _:
                pass
    if second:
        left = []
    inner = tuple((way.out(x, y), f"{x:.1f}, {y:.1f}") for x, y in inner_corners(part.cut_outline or part.outline))
    return PartWork(
        number, part.name, up, _outline(part, way),
        tuple(holes), tuple(slots), tuple(pockets), tuple(openings), tuple(left), inner,
    )  # fmt: skip


def sides_of(number: str, part: Part, placement: LaidPart) -> tuple[PartWork, ...]:
    """A part seen on each face that is worked: the one with more on it first, and the other one where it has work of
    its own, turned over about the part's length."""
    first, other = (work_on(number, part, placement, second=second) for second in (False, True))
    return (first, other) if other.holes or other.slots or other.pockets else (first,)


def _rebate(part: Part, op: Rebate) -> tuple[float, float, float, float]:
    long, wide, over = part.length, part.width, 2.0
    return {
        "L1": (-over, -over, long + over, op.width), "L2": (-over, wide - op.width, long + over, wide + over),
        "W1": (-over, -over, op.width, wide + over), "W2": (long - op.width, -over, long + over, wide + over),
    }[op.edge]  # fmt: skip


def _outline(part: Part, way: _Way) -> Points:
    """The cut part's outline on the board, counter-clockwise."""
    from tall_plank.measure.outlines import area

    if not part.outline:
        x0, y0 = way.at.x, way.at.y
        long, wide = (way.length, way.width) if way.angle in (0, 180) else (way.width, way.length)
        return ((x0, y0), (x0 + long, y0), (x0 + long, y0 + wide), (x0, y0 + wide))
    points = tuple(way.out(x, y) for x, y in part.cut_outline or part.outline)
    return points if area(points) > 0 else tuple(reversed(points))


def all_left(work: PartWork, why: str) -> tuple[Left, ...]:
    """Everything that is done to a part from above, for another way of doing it, each with its place."""
    found = [
        (f"{h.use}: ø{h.diameter:g}, " + ("through" if h.through else f"{h.depth:g} deep") + f" at {h.at}")
        for h in work.holes
    ]
    found += [f"groove {s.width:g} wide, {s.depth:g} deep, {s.at}" for s in work.slots]
    found += [f"rebate {min(p.x1 - p.x0, p.y1 - p.y0):.1f} wide, {p.depth:g} deep {p.at}" for p in work.pockets]
    found += [opening_words(o) for o in work.openings]
    return tuple(Left(work.part, work.up, what, why) for what in found)


def opening_words(o: Opening) -> str:
    """An opening with its size and its place."""
    return f"opening {o.x1 - o.x0:.1f} x {o.y1 - o.y0:.1f}, corners R{o.radius:g}, from {o.at}"
