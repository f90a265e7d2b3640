"""What is cut right through: openings in parts, then the parts out of their board, what lies in an opening before it.

A mill goes round with the waste on its left. It swings in from the waste where that has room, else it goes down along
the path. Small parts are held until the end, by tabs or by a skin of wood.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from tall_plank.measure.outlines import Point, Points, area, circle, inner_corners, rounded_box
from tall_plank.shop.machine.model import Machine, Tool
from tall_plank.shop.machine.steps import Leg, Steps, legs_of, points_of
from tall_plank.shop.machine.work import Left, Opening, PartWork, opening_words

if TYPE_CHECKING:
    from shapely import Polygon

RAMP = 60.0
"""mm of path over which a mill goes down into the wood (common practice)."""

HELD = 2500.0
"""mm2; what falls out of an opening is held by tabs from this size on."""

FINE = 16
"""Chords in a quarter of a mill's way round a corner, where a machine takes no arcs in a lifted pass."""


def cut_openings(out: Steps, works: Sequence[PartWork], refused: list[Left]) -> None:
    """Openings of parts, those before the parts that lie in them excepted: `cut_outlines` cuts these."""
    for work in works:
        for opening in work.openings:
            if not _within_it(opening, works, work):
                _opening(out, work, opening, refused)


def cut_outlines(out: Steps, works: Sequence[PartWork], refused: list[Left]) -> None:
    """Parts out of their board, the smallest first; what lies in an opening before the opening is cut."""
    from shapely import Polygon
    from shapely.strtree import STRtree

    shapes = [Polygon(w.outline, [_corners(o) for o in w.openings]) for w in works]
    if not shapes:
        return
    tree = STRtree(shapes)
    skins: list[_Ring] = []
    # By what they cover, their openings with it: what lies in an opening is smaller than what is around it.
    covered = [abs(area(w.outline)) for w in works]
    order = sorted(range(len(works)), key=lambda i: (covered[i], works[i].part))
    for i in order:
        work, shape = works[i], shapes[i]
        for opening in work.openings:
            if inside := _within_it(opening, works, work):
                _opening(out, work, opening, refused, inside)
        gap = min((shape.distance(shapes[j]) for j in tree.query(shape.buffer(40.0)) if j != i), default=1e9)
        mill = _outliner(out.machine, out.thickness, gap)
        if mill is None:
            told = f"the next part lies {gap:.1f} mm away" if gap < 1e8 else "no mill reaches through the board"
            refused.append(Left(work.part, work.up, "its outline", told))
            continue
        out.take(mill)

        def free(swept: Polygon) -> bool:
            return not any(swept.intersects(shapes[j]) for j in tree.query(swept)) and _on_bed(out, swept)

        small = covered[i] < out.machine.tabs_below
        ring = _ring(out, _round(Polygon(work.outline), mill, out.machine), free)
        if small and out.machine.hold == "skin":
            _go_round(out, ring, out.passes(out.machine.skin), tabs=False)
            skins.append(ring)
        else:
            _go_round(out, ring, out.passes(-out.machine.into_spoil), tabs=small)
        if out.machine.inner_corners == "round":
            refused += [_kept_round(work, at, mill) for _, at in work.inner]
    for ring in skins:
        out.take(ring.mill)
        _go_round(out, ring, [-out.machine.into_spoil], tabs=False)


def _outliner(machine: Machine, thickness: float, gap: float) -> Tool | None:
    """The machine's mill for outlines where it has room to the next part, else the widest that has."""
    usual = machine.outliner(thickness)
    if usual is None or usual.diameter <= gap + 0.01:
        return usual
    other = machine.mill(gap + 0.01, thickness + machine.into_spoil)
    return other if other is not None and other.diameter >= 6.0 else None


def _kept_round(work: PartWork, at: str, mill: Tool) -> Left:
    return Left(work.part, work.up, f"inner corner at {at} is round, R{mill.diameter / 2:g}", "corner")


def _within_it(opening: Opening, works: Sequence[PartWork], own: PartWork) -> list[PartWork]:
    """The other parts that lie in an opening."""
    return [
        w
        for w in works
        if w is not own and all(opening.x0 < x < opening.x1 and opening.y0 < y < opening.y1 for x, y in w.outline)
    ]


def _corners(o: Opening) -> Points:
    return ((o.x0, o.y0), (o.x1, o.y0), (o.x1, o.y1), (o.x0, o.y1))


def opener(machine: Machine, opening: Opening, thickness: float, room: float = 1e9) -> Tool | None:
    """The widest mill that fits an opening's corners and reaches through; sharp corners any mill leaves round. `room`:
    mm to what lies in it."""
    wide = min(opening.x1 - opening.x0, opening.y1 - opening.y0, 2 * opening.radius if opening.radius > 1 else 1e9)
    return machine.mill(min(wide, room + 0.01), thickness + machine.into_spoil)


def _opening(
    out: Steps, work: PartWork, opening: Opening, refused: list[Left], inside: Sequence[PartWork] = ()
) -> None:
    """`inside`: parts that lie in it, which have been cut."""
    from shapely import MultiPolygon, Polygon

    hole = Polygon(_corners(opening))
    parts = MultiPolygon([Polygon(w.outline) for w in inside])
    rounded = Polygon(rounded_box(opening.x0, opening.y0, opening.x1, opening.y1, opening.radius, count=24))
    room = float(rounded.exterior.distance(parts)) if inside else 1e9
    mill = opener(out.machine, opening, out.thickness, room)
    if mill is None:
        refused.append(Left(work.part, work.up, opening_words(opening), "no mill fits its corners and reaches through"))
        return
    path = _within(opening, mill, out.machine)
    if path is None:
        refused.append(Left(work.part, work.up, opening_words(opening), "no mill fits into it"))
        return
    out.take(mill)
    ring = _ring(out, path, lambda swept: hole.contains(swept) and not swept.intersects(parts))
    _go_round(out, ring, out.passes(-out.machine.into_spoil), tabs=path.area > HELD)
    if opening.radius < mill.diameter / 2 - 0.01 and out.machine.inner_corners == "round":
        what = f"corners of the {opening_words(opening)}: round, R{mill.diameter / 2:g}"
        refused.append(Left(work.part, work.up, what, "corner"))


# --- paths


@dataclass(frozen=True)
class _Way:
    """A closed way of a mill's middle: points with what they turn about, and runs into inner corners."""

    mill: Tool
    points: Points
    middles: Points
    radius: float
    counter: bool
    runs: tuple[tuple[Point, Point], ...] = ()

    @property
    def area(self) -> float:
        return abs(area(self.points))


def _round(shape: Polygon, mill: Tool, machine: Machine) -> _Way:
    """Clockwise round a part, climbing."""
    r = mill.diameter / 2
    path = shape.buffer(r, quad_segs=FINE, join_style="round")
    points = tuple((x, y) for x, y in path.exterior.coords[:-1])
    points = points if area(points) < 0 else tuple(reversed(points))
    corners = tuple((x, y) for x, y in shape.exterior.coords[:-1])
    runs = _runs(points, inner_corners(corners), r) if machine.inner_corners == "free" else ()
    return _Way(mill, points, corners, r, counter=False, runs=runs)


def _within(opening: Opening, mill: Tool, machine: Machine) -> _Way | None:
    """Counter-clockwise within an opening."""
    from shapely import Polygon

    r = mill.diameter / 2
    corner = max(opening.radius, r)
    inner = Polygon(_corners(opening)).buffer(-corner, join_style="mitre")
    if inner.is_empty or inner.geom_type != "Polygon":
        # As wide as the mill's corner: its middle goes to and fro on a line.
        cx, cy = (opening.x0 + opening.x1) / 2, (opening.y0 + opening.y1) / 2
        x, y = (opening.x1 - opening.x0) / 2 - r, (opening.y1 - opening.y0) / 2 - r
        if min(x, y) < -0.01:
            return None
        x, y = max(x, 0.0), max(y, 0.0)
        box: Points = ((cx - x, cy - y), (cx + x, cy - y), (cx + x, cy + y), (cx - x, cy + y))
        return _Way(mill, box, (), 0.0, counter=True)
    path = inner.buffer(corner - r, quad_segs=FINE) if corner > r + 0.01 else inner
    points = tuple((x, y) for x, y in path.exterior.coords[:-1])
    points = points if area(points) > 0 else tuple(reversed(points))
    middles = tuple((x, y) for x, y in inner.exterior.coords[:-1])
    sharp = opening.radius < r - 0.01 and machine.inner_corners == "free"
    runs = _runs(points, _corners(opening), r) if sharp else ()
    return _Way(mill, points, middles, corner - r, counter=True, runs=runs)


def _runs(points: Points, corners: Sequence[Point], r: float) -> tuple[tuple[Point, Point], ...]:
    """From the path's corner nearest to each inner corner, how far the mill runs in until its edge is there."""
    found = []
    for corner in corners:
        at = min(points, key=lambda p: math.dist(p, corner))
        away = math.dist(at, corner)
        if away > r + 0.01:
            found.append((at, _between(corner, at, r / away)))
    return tuple(found)


@dataclass(frozen=True)
class _Lead:
    """A quarter of a circle into a path and one out of it, both counter-clockwise about one middle."""

    begin: Point
    middle: Point
    end: Point


@dataclass(frozen=True)
class _Ring:
    """A closed path from the middle of one of its sides, with the arcs into it where they have room."""

    mill: Tool
    points: tuple[Point, ...]
    legs: tuple[Leg, ...]
    lead: _Lead | None


def _ring(out: Steps, way: _Way, free: Callable[[Polygon], bool]) -> _Ring:
    """`free`: whether the mill may pass over some ground outside the path."""
    p = way.points
    sides = sorted(range(len(p)), key=lambda i: (-math.dist(p[i], p[(i + 1) % len(p)]), i))
    led = ((at, _lead(out, p[at], p[(at + 1) % len(p)], free)) for at in sides[:6])
    at, lead = next(((at, lead) for at, lead in led if lead is not None), (sides[0], None))
    start = _between(p[at], p[(at + 1) % len(p)], 0.5)
    ring = [start, *p[at + 1 :], *p[: at + 1], start]
    legs = legs_of(ring, way.middles, way.radius, counter=way.counter)
    into = dict(way.runs)
    legs = [x for leg in legs for x in _with_run(leg, into)]
    ring = points_of(start, legs, 0.002)
    return _Ring(way.mill, tuple(ring), tuple(legs), lead)


def _with_run(leg: Leg, into: dict[Point, Point]) -> list[Leg]:
    """A leg, and from its end into the inner corner there and back."""
    there = into.get((leg.x, leg.y))
    return [leg] if there is None else [leg, Leg(*there), Leg(leg.x, leg.y)]


def _go_round(out: Steps, ring: _Ring, passes: Sequence[float], *, tabs: bool) -> None:
    """Round a path pass by pass; the last one with tabs."""
    assert out.tool is not None
    if ring.lead is not None:
        _led(out, ring, ring.lead, passes, tabs=tabs)
        return
    start = ring.points[0]
    out.over(*start)
    height = out.thickness
    for n, z in enumerate(passes):
        _ramp(out, ring.points, height, z)
        if n + 1 < len(passes):
            out.follow(start, ring.legs)
        height = z
    if tabs:
        out.lifted(_with_tabs(ring.points, out.machine, passes[-1]))
    else:
        out.follow(start, ring.legs)
    out.up()


def _led(out: Steps, ring: _Ring, lead: _Lead, passes: Sequence[float], *, tabs: bool) -> None:
    """A closed path pass by pass, each plunged in the waste."""
    for n, z in enumerate(passes):
        out.over(*lead.begin)
        out.plunge(z)
        start = ring.points[0]
        out.arc(lead.begin, start, lead.middle, counter=True)
        if tabs and n + 1 == len(passes):
            out.lifted(_with_tabs(ring.points, out.machine, z))
        else:
            out.follow(start, ring.legs)
        out.arc(start, lead.end, lead.middle, counter=True)
        out.up()


def _lead(out: Steps, a: Point, b: Point, free: Callable[[Polygon], bool]) -> _Lead | None:
    """Arcs to and from the middle of a side, from the waste on its left; None where they have no room."""
    from shapely import LineString

    assert out.tool is not None
    radius, length = out.machine.lead, math.dist(a, b)
    if radius <= 0 or length < 2 * radius:
        return None
    ux, uy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    x, y = _between(a, b, 0.5)
    middle = (x - uy * radius, y + ux * radius)
    turn = math.atan2(-uy, -ux)  # towards the beginning
    arc = [
        (middle[0] + radius * math.cos(turn + math.pi * k / 16), middle[1] + radius * math.sin(turn + math.pi * k / 16))
        for k in range(17)
    ]
    # A hair less than the mill: it touches the part on the path itself.
    swept = LineString(arc).buffer(out.tool.diameter / 2 - 0.02, quad_segs=8)
    return _Lead(arc[0], middle, arc[-1]) if free(swept) else None


def _on_bed(out: Steps, swept: Polygon) -> bool:
    """Whether a mill that sweeps some ground stays over the bed and clear of the clamps."""
    x0, y0, x1, y1 = swept.bounds
    u0, v0, u1, v1 = out.frame.room()
    if x0 < u0 or y0 < v0 or x1 > u1 or y1 > v1:
        return False
    return not any(a < x1 + 1 and c > x0 - 1 and b < y1 + 1 and d > y0 - 1 for a, b, c, d, _ in out.frame.clamps())


def _between(a: Point, b: Point, share: float) -> Point:
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share)


def _ramp(out: Steps, ring: Sequence[Point], high: float, low: float) -> None:
    """Down along the first stretch of a path, and back to its start on the level."""
    ahead = _between(ring[0], ring[1], min(1.0, RAMP / max(1e-6, math.dist(ring[0], ring[1]))))
    out.plunge(high)
    out.cut([ahead], low)
    out.cut([ring[0]])


def _with_tabs(ring: Sequence[Point], machine: Machine, bottom: float) -> list[tuple[float, float, float]]:
    """The last pass, lifted over tabs that are spread evenly along it."""
    whole = sum(math.dist(a, b) for a, b in itertools.pairwise(ring))
    reach = machine.tab_width / 2 + 6.0
    count = 4 if whole > 600.0 else 2
    spans = [(whole * (k + 0.5) / count - reach, whole * (k + 0.5) / count + reach) for k in range(count)]
    marks = sorted({m for span in spans for m in span})
    found: list[tuple[float, float, float]] = [(*ring[0], bottom)]
    gone = 0.0
    for a, b in itertools.pairwise(ring):
        length = math.dist(a, b)
        for mark in [m for m in marks if gone < m < gone + length]:
            x, y = _between(a, b, (mark - gone) / length)
            rising = any(abs(mark - low) < 1e-9 for low, _ in spans)
            found.append((x, y, bottom if rising else machine.tab_height))
            found.append((x, y, machine.tab_height if rising else bottom))
        gone += length
        lifted = any(low < gone < high for low, high in spans)
        found.append((*b, machine.tab_height if lifted else bottom))
    return found


# --- what stays whole


def kept_whole(
    works: Sequence[PartWork], machine: Machine, thickness: float
) -> tuple[tuple[str, Points, tuple[Points, ...]], ...]:
    """(part, outline, openings) of what must be left whole, for whoever checks the program: without what is milled
    through for want of a drill, and without inner corners that are cut free."""
    found = []
    for work in works:
        milled = tuple(
            circle(h.x, h.y, h.diameter / 2 + 0.5)
            for h in work.holes
            if h.through and machine.drill(h.diameter, h.depth + machine.into_spoil) is None
        )
        outline, openings = work.outline, tuple(_corners(o) for o in work.openings)
        if machine.inner_corners == "free":
            outline = _relieved(outline, inner_corners(outline), machine.outliner(thickness))
            openings = tuple(
                _relieved(_corners(o), _corners(o), opener(machine, o, thickness), grow=True) for o in work.openings
            )
        found.append((work.part, outline, (*openings, *milled)))
    return tuple(found)


def _relieved(outline: Points, corners: Sequence[Point], mill: Tool | None, *, grow: bool = False) -> Points:
    """An outline without the ground of a mill about its inner corners, or an opening with it; mm."""
    from shapely import Point as Spot
    from shapely import Polygon, union_all

    if mill is None or not corners:
        return outline
    shape = Polygon(outline)
    ground = union_all([Spot(c).buffer(mill.diameter + 0.5) for c in corners])
    shape = shape.union(ground) if grow else shape.difference(ground)
    return tuple((x, y) for x, y in shape.exterior.coords[:-1]) if shape.geom_type == "Polygon" else outline
