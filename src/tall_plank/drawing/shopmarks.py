"""What drawings for the shop show and those for the client do not: which edges are edged, and where joints are.

An edged edge has a line beside it and two ticks across its middle; one that is looked at has the ticks alone. Hidden
boards are dashed. The axis of a joint is a chain line as long as its two halves are deep (ISO 128-2, from memory), with
how many of its holes lie behind one another. None of it needs color.
"""

from __future__ import annotations

import math
from collections import Counter
from itertools import product
from typing import Literal

from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.making import MadeUnit, Part
from tall_plank.making.parts import EDGE_NAMES, Bore, Face, Groove
from tall_plank.measure.frames import Vec
from tall_plank.measure.remembered import remembered

View = Literal["front", "top"]

JOINTS = ("dowel", "cam dowel", "carcass screw", "pocket screw", "biscuit", "loose tenon")
"""Uses of holes and slots that hold two boards together."""

BESIDE = 22.0
"""mm from an edge to the line that says it is edged."""

BEYOND = 6.0
"""mm that an axis runs on past its holes."""

SLANTED = 30.0
"""mm of a slanted screw that its axis shows in the board it comes from."""

NOTE = "Line with two ticks: edged. Chain line: axis of a joint."
"""What the marks mean, for the foot of a sheet."""

NOTE_COUNTS = "4×: so many behind one another."
"""What is added where a unit is drawn by itself."""

Point = tuple[float, float]


@remembered(1024)
def shop_marks(
    unit: MadeUnit,
    view: View = "front",
    *,
    closed: bool = True,
    counts: bool = True,
    edging: bool = True,
    joints: bool = True,
) -> tuple[Item, ...]:
    """The marks of a unit in its own coordinates: x and z seen from the front, x and y from above.

    Parameters
    ----------
    closed : whether fronts are drawn over the carcass, so that its boards are hidden
    counts : whether it is told how many holes of a joint lie behind one another
    edging : whether edged edges are marked
    joints : whether joints are, with the boards that they join
    """
    items: list[Item] = []
    fronts = [p for p in unit.parts if any(f.owns(p.name) for f in unit.fronts)]
    inner = [p for p in unit.parts if p not in fronts and p.role in ("carcass", "shelf", "cover", "face frame")]
    pen = Pen.DASHED if closed and (fronts or view == "top") else Pen.NARROW
    outlines: set[tuple[float, ...]] = set()
    for part in inner:
        box = _box(part, view)
        key = tuple(round(v, 1) for v in box)
        if joints and key not in outlines and not part.outline:
            outlines.add(key)
            items.append(Shape(rectangle(*box), pen, Layer.MAKING, over=view == "front"))
    shown = [*inner, *(fronts if closed and view == "front" else ())]
    if edging:
        items += edging_marks(tuple(shown), view)
    if joints:
        items += _axes(unit.parts, view, counts=counts)
    return tuple(items)


def edging_marks(parts: tuple[Part, ...], view: View = "front") -> list[Item]:
    """Marks of the edged edges of parts, in the frame that the parts stand in; each place is marked once."""
    items: list[Item] = []
    seen: set[tuple[float, ...]] = set()
    for part in parts:
        if part.outline:
            continue
        for name, code in zip(EDGE_NAMES, part.edges, strict=True):
            if not code:
                continue
            a, b, c, d = (_flat(part.frame.at(*p), view) for p in _edge(part, name))
            key = tuple(round(v) for v in (*a, *b, *c, *d))
            if key in seen:
                continue
            seen.add(key)
            items += _edge_mark(part, name, (a, b, c, d), view)
    return items


def _edge(part: Part, name: str) -> tuple[Vec, Vec, Vec, Vec]:
    """The corners of an edge's face in the part's frame: along it on face B, then back along it on face A."""
    x, y, t = part.length, part.width, part.thickness
    (ax, ay), (bx, by) = {
        "L1": ((0.0, 0.0), (x, 0.0)), "L2": ((0.0, y), (x, y)), "W1": ((0.0, 0.0), (0.0, y)), "W2": ((x, 0.0), (x, y)),
    }[name]  # fmt: skip
    return (ax, ay, 0.0), (bx, by, 0.0), (bx, by, t), (ax, ay, t)


def _edge_mark(part: Part, name: str, corners: tuple[Point, Point, Point, Point], view: View) -> list[Item]:
    """A line beside an edge that is seen along its board, ticks across one that is looked at, nothing where neither
    shows."""
    a, b, c, d = corners
    along, across = math.dist(a, b), math.dist(a, d)
    if along < 1.0:
        return []
    ux, uy = (b[0] - a[0]) / along, (b[1] - a[1]) / along
    if across > 1.0:
        middle = ((a[0] + b[0] + c[0] + d[0]) / 4, (a[1] + b[1] + c[1] + d[1]) / 4)
        reach = across / 2 + 5.0
        return _ticks(middle, (ux, uy), (-uy, ux), (-reach, reach), view)
    # Seen along its board: the inside of the board is where its middle lies.
    cx, cy = _flat(part.frame.at(part.length / 2, part.width / 2, 0.0), view)
    mx, my = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
    wide = math.hypot(cx - mx, cy - my)
    if wide < 1.0:
        return []
    away = min(BESIDE, wide * 0.4)
    nx, ny = (cx - mx) / wide, (cy - my) / wide
    trim = min(BESIDE, along * 0.1)
    line = Line(
        a[0] + nx * away + ux * trim,
        a[1] + ny * away + uy * trim,
        b[0] + nx * away - ux * trim,
        b[1] + ny * away - uy * trim,
        Pen.NARROW,
        Layer.MAKING,
        over=view == "front",
    )
    return [line, *_ticks((mx, my), (ux, uy), (nx, ny), (0.0, away * 1.5), view)]


def _ticks(middle: Point, along: Point, across: Point, reach: Point, view: View) -> list[Item]:
    """Two short strokes across an edge, side by side about its middle; narrow on plans, whose scale is small."""
    pen = Pen.MEDIUM if view == "front" else Pen.NARROW
    start, end = reach
    found: list[Item] = []
    for shift in (-7.0, 7.0):
        x, y = middle[0] + along[0] * shift, middle[1] + along[1] * shift
        near = (x + across[0] * start, y + across[1] * start)
        far = (x + across[0] * end, y + across[1] * end)
        found.append(Line(*near, *far, pen, Layer.MAKING, over=view == "front"))
    return found


def _axes(parts: tuple[Part, ...], view: View, *, counts: bool) -> list[Item]:
    """Axes of the joints' holes: what enters the end of one board, as far as it enters the face of the other."""
    faces: dict[tuple[int, int, int], tuple[Vec, Vec, float]] = {}
    ends: list[tuple[Vec, Vec, float]] = []
    for part in parts:
        for op in part.operations:
            found = _hole(part, op)
            if found is None:
                continue
            at, depth, face = found
            way = part.inwards(face)
            if face not in ("A", "B"):
                ends.append((at, way, depth))
            elif not (isinstance(op, Bore) and op.slant):
                faces[_key(at)] = (at, way, depth)
    halves = [(at, way, depth, faces.pop(_key(at), (at, way, 0.0))[2]) for at, way, depth in ends]
    # A slanted screw leaves the end of its board without a hole there.
    halves += [(at, (-x, -y, -z), SLANTED, depth) for at, (x, y, z), depth in faces.values()]
    axes: Counter[tuple[Point, Point]] = Counter()
    for at, way, depth, other in halves:
        out = other + BEYOND
        a = _flat((at[0] - way[0] * out, at[1] - way[1] * out, at[2] - way[2] * out), view)
        deep = depth + BEYOND
        b = _flat((at[0] + way[0] * deep, at[1] + way[1] * deep, at[2] + way[2] * deep), view)
        if math.dist(a, b) > 1.0:
            axes[((round(a[0], 1), round(a[1], 1)), (round(b[0], 1), round(b[1], 1)))] += 1
    items: list[Item] = []
    for (a, b), count in sorted(axes.items()):
        items.append(Line(*a, *b, Pen.CHAIN, Layer.MAKING, over=view == "front"))
        if count > 1 and view == "front" and counts:
            x, side = (b[0] + 6.0, "left") if b[0] >= a[0] else (b[0] - 6.0, "right")
            items.append(Text(x, b[1], f"{count}×", 1.8, Layer.MAKING, None, side, rise=-0.8, backed=True, within=40.0))  # type: ignore[arg-type]
    return items


def _hole(part: Part, op: object) -> tuple[Vec, float, Face] | None:
    """Where a joint's hole or slot starts in the frame that its part stands in, how deep it is, and its face."""
    if isinstance(op, Bore) and op.use in JOINTS:
        return part.place(op.face, op.x, op.y), op.depth, op.face
    if isinstance(op, Groove) and op.over in JOINTS:
        return part.place(op.face, (op.x1 + op.x2) / 2, (op.y1 + op.y2) / 2), op.depth, op.face
    return None


def _key(at: Vec) -> tuple[int, int, int]:
    return (round(at[0] * 10), round(at[1] * 10), round(at[2] * 10))


def _flat(p: Vec, view: View) -> Point:
    return (p[0], p[2]) if view == "front" else (p[0], p[1])


def _box(part: Part, view: View) -> tuple[float, float, float, float]:
    """A part as it is seen: the lower left corner, width and height."""
    spans = product((0.0, part.length), (0.0, part.width), (0.0, part.thickness))
    points = [_flat(part.frame.at(*corner), view) for corner in spans]
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
