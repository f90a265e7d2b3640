"""RS-274 programs for a three-axis machine (NIST IR 6556): drilling, grooves, pockets, openings, outlines with tabs.

G21 G90 throughout; X0 Y0 is the corner of the untrimmed board, Z0 the top of the spoil board. Tool by tool: drills
first, then what lies within parts, outlines last and the smallest parts before the large ones, so that a part is worked
on while it still holds. What no tool of the machine can do is refused by name, never left out in silence.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

import msgspec

from tall_plank.measure.outlines import Point, Points, area
from tall_plank.shop.machine.model import Machine, Tool
from tall_plank.shop.machine.setup import SetUp, seconds_of
from tall_plank.shop.machine.work import Hole, Left, Opening, PartWork, Pocket, Slot, all_left, opening_words

if TYPE_CHECKING:
    from shapely import Polygon

ABOVE = 2.0
"""mm above the board at which a plunge begins."""

OVERLAP = 0.7
"""Share of its diameter that a mill moves over between two passes of a pocket (common practice: 0.5 to 0.8)."""

RAMP = 60.0
"""mm of path over which a mill goes down into the wood (common practice)."""


@dataclass(frozen=True)
class Program:
    """A program with what it leaves.

    Attributes
    ----------
    name : of its file, without ending
    size : length, width, thickness of the board, mm
    parts : (part, outline, openings) as they lie there, for whoever checks the program
    refused : work that no tool of the machine can do
    setup : how it is set up, with its tools and its time
    """

    name: str
    text: str
    size: tuple[float, float, float]
    parts: tuple[tuple[str, Points, tuple[Points, ...]], ...]
    refused: tuple[Left, ...]
    setup: SetUp | None = None

    @property
    def does(self) -> bool:
        """Whether any tool is taken."""
        return any(line.startswith("T") for line in self.text.splitlines())


@dataclass
class _Lines:
    """The text as it grows: words only where they change."""

    machine: Machine
    thickness: float
    lines: list[str] = field(default_factory=list)
    tool: Tool | None = None

    @property
    def safe(self) -> float:
        return self.thickness + self.machine.safe_height

    def add(self, text: str) -> None:
        self.lines.append(text)

    def take(self, tool: Tool) -> None:
        if self.tool == tool:
            return
        if self.tool is not None:
            self.add("M5")
        self.add(f"({_plain(tool.name)})")
        self.add(f"T{tool.number} M6")
        self.add(f"S{tool.speed:g} M3")
        self.add(f"G0 Z{_mm(self.safe)}")
        self.tool = tool

    def over(self, x: float, y: float) -> None:
        """Above the board to a place, then down to just above the wood."""
        self.add(f"G0 X{_mm(x)} Y{_mm(y)}")
        self.add(f"G0 Z{_mm(self.thickness + ABOVE)}")

    def up(self) -> None:
        self.add(f"G0 Z{_mm(self.safe)}")

    def plunge(self, z: float) -> None:
        assert self.tool is not None
        self.add(f"G1 Z{_mm(z)} F{self.tool.plunge:g}")

    def cut(self, points: Sequence[Point], z: float | None = None) -> None:
        assert self.tool is not None
        for i, (x, y) in enumerate(points):
            height = f" Z{_mm(z)}" if z is not None and i == 0 else ""
            feed = f" F{self.tool.feed:g}" if i == 0 else ""
            self.add(f"G1 X{_mm(x)} Y{_mm(y)}{height}{feed}")


def _mm(value: float) -> str:
    text = f"{value:.3f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _plain(text: str) -> str:
    """A text for a comment: plain letters, no brackets."""
    return "".join(c if c.isascii() and c.isprintable() and c not in "()" else "?" for c in text)[:80]


def program_of(
    name: str,
    size: tuple[float, float, float],
    works: Sequence[PartWork],
    machine: Machine,
    *,
    outlines: bool = True,
    setup: SetUp | None = None,
) -> Program:
    """The program of one board with all work from above.

    Parameters
    ----------
    size : length, width, thickness of the untrimmed board, mm
    outlines : whether the parts are cut out too; not on a second side
    setup : how it is set up: its comments say it
    """
    out = _Lines(machine, size[2])
    refused: list[Left] = []
    out.add(f"({_plain(name)}: {size[0]:g} x {size[1]:g} x {size[2]:g} mm)")
    out.add("G21 G90 G17 G94")
    out.add(f"G0 Z{_mm(out.safe)}")
    if out.safe > machine.travel:
        what = f"board {size[2]:g} mm thick with {machine.safe_height:g} mm above it"
        why = f"{what}: the machine's travel is {machine.travel:g} mm"
        works = _not_done(name, works, why, refused, outlines=outlines)
    if max(size[0] - machine.bed_length, size[1] - machine.bed_width) > machine.margin:
        what = f"board {size[0]:g} x {size[1]:g}"
        bed = f"the bed is {machine.bed_length:g} x {machine.bed_width:g}"
        works = _not_done(name, works, f"{what}: {bed}", refused, outlines=outlines)
    _drill_all(out, works, refused)
    for work in works:
        for slot in work.slots:
            _slot(out, work, slot, refused)
        for pocket in work.pockets:
            _pocket(out, work, pocket, refused)
    for work in works:
        for opening in work.openings:
            _opening(out, work, opening, refused)
    if outlines:
        _outlines(out, works, refused)
    out.up()
    if out.tool is not None:
        out.add("M5")
    out.add("G0 X0 Y0")
    out.add(machine.ending)
    if setup is not None:
        setup = _told(setup, out.lines, machine)
        out.lines[1:1] = [f"({_plain(line)})" for line in _comments(setup)]
    lines = ["%", *out.lines, "%"] if machine.percent else out.lines
    parts = tuple((w.part, w.outline, (*(_corners(o) for o in w.openings), *_milled(w, machine))) for w in works)
    return Program(name, "\n".join(lines) + "\n", size, parts, tuple(refused), setup)


def _told(setup: SetUp, lines: Sequence[str], machine: Machine) -> SetUp:
    """With the tools that the program takes, in their order, and its time."""
    taken = dict.fromkeys(int(line[1:].split()[0]) for line in lines if line.startswith("T"))
    by_number = {t.number: t for t in machine.tools}
    return msgspec.structs.replace(setup, tools=tuple(by_number[n] for n in taken), seconds=seconds_of(lines, machine))


def _comments(setup: SetUp) -> list[str]:
    tools = [f"T{t.number} {t.name}, cuts {t.length:g} deep" for t in setup.tools]
    return [*setup.lines, *tools, f"about {math.ceil(setup.seconds / 60)} min"]


def _not_done(
    name: str, works: Sequence[PartWork], why: str, refused: list[Left], *, outlines: bool
) -> Sequence[PartWork]:
    """Nothing of a board is done: all of it is told, work by work."""
    if not works:
        refused.append(Left(name, "board", "board", why))
    for work in works:
        refused += all_left(work, why)
        if outlines:
            refused.append(Left(work.part, work.up, "its outline", why))
    return ()


# --- drilling


def _drill_all(out: _Lines, works: Sequence[PartWork], refused: list[Left]) -> None:
    """Holes tool by tool, each next one the nearest; what has no drill is milled where a mill fits."""
    by_tool: dict[int, list[Hole]] = {}
    milled: list[tuple[PartWork, Hole, Tool]] = []
    tools = {t.number: t for t in out.machine.tools}
    for work in works:
        for hole in work.holes:
            deep = hole.depth + (out.machine.into_spoil if hole.through else 0.0)
            drill = out.machine.drill(hole.diameter, deep)
            mill = out.machine.mill(hole.diameter, deep)
            if drill is not None:
                by_tool.setdefault(drill.number, []).append(hole)
            elif mill is not None:
                milled.append((work, hole, mill))
            else:
                what = f"{hole.use}: hole of {hole.diameter:g}, {hole.depth:g} deep at {hole.at}"
                refused.append(Left(work.part, work.up, what, "no drill or mill of that size reaches so deep"))
    for number in sorted(by_tool):
        out.take(tools[number])
        todo, at = by_tool[number], (0.0, 0.0)
        while todo:
            hole = min(todo, key=lambda h: (math.dist(at, (h.x, h.y)), h.x, h.y))
            todo.remove(hole)
            at = (hole.x, hole.y)
            out.over(*at)
            out.plunge(_bottom(out, hole.depth, through=hole.through))
            out.up()
    for _, hole, mill in sorted(milled, key=lambda m: m[2].number):
        out.take(mill)
        radius = (hole.diameter - mill.diameter) / 2
        bottom = _bottom(out, hole.depth, through=hole.through)
        out.over(hole.x + radius, hole.y)
        for z in _passes(out, bottom):
            out.plunge(z)
            if radius > 0.01:
                out.add(f"G2 X{_mm(hole.x + radius)} Y{_mm(hole.y)} I{_mm(-radius)} J0 F{mill.feed:g}")
        out.up()


def _milled(work: PartWork, machine: Machine) -> tuple[Points, ...]:
    """Holes right through that are milled for want of a drill, as outlines: a mill goes through the part there."""
    from tall_plank.measure.outlines import circle

    return tuple(
        circle(h.x, h.y, h.diameter / 2 + 0.5)
        for h in work.holes
        if h.through and machine.drill(h.diameter, h.depth + machine.into_spoil) is None
    )


def _bottom(out: _Lines, depth: float, *, through: bool) -> float:
    return -out.machine.into_spoil if through else out.thickness - depth


def _passes(out: _Lines, bottom: float) -> list[float]:
    """Heights of passes from the top of the board down, in equal steps."""
    whole = out.thickness - bottom
    count = max(1, math.ceil(whole / out.machine.step_down - 1e-9))
    return [out.thickness - whole * (i + 1) / count for i in range(count)]


# --- within parts


def _slot(out: _Lines, work: PartWork, slot: Slot, refused: list[Left]) -> None:
    mill = out.machine.mill(slot.width, slot.depth)
    if mill is None:
        what = f"groove {slot.width:g} wide, {slot.depth:g} deep, {slot.at}"
        refused.append(Left(work.part, work.up, what, "no mill is so narrow and long enough"))
        return
    out.take(mill)
    length = math.dist((slot.x1, slot.y1), (slot.x2, slot.y2))
    ux, uy = ((slot.x2 - slot.x1) / length, (slot.y2 - slot.y1) / length) if length > 1e-6 else (1.0, 0.0)
    # An end within the part stops a radius short; at its edge the mill runs to it.
    radius = mill.diameter / 2
    short = [0.0 if _at_edge(work.outline, p) else radius for p in ((slot.x1, slot.y1), (slot.x2, slot.y2))]
    if length <= sum(short):
        short = [length / 2, length / 2]
    a = (slot.x1 + ux * short[0], slot.y1 + uy * short[0])
    b = (slot.x2 - ux * short[1], slot.y2 - uy * short[1])
    spare = (slot.width - mill.diameter) / 2
    count = max(1, math.ceil(2 * spare / (mill.diameter * OVERLAP) - 1e-9)) + 1 if spare > 0.02 else 1
    offsets = [spare * (2 * i / (count - 1) - 1) for i in range(count)] if count > 1 else [0.0]
    lines = [((a[0] - uy * off, a[1] + ux * off), (b[0] - uy * off, b[1] + ux * off)) for off in offsets]
    _back_and_forth(out, lines, slot.depth)


def _back_and_forth(out: _Lines, lines: Sequence[tuple[Point, Point]], depth: float) -> None:
    """Lines side by side, every other one backwards, in passes down to a depth."""
    for z in _passes(out, out.thickness - depth):
        for i, (start, end) in enumerate(lines):
            path = [end, start] if i % 2 else [start, end]
            if i == 0:
                out.over(*path[0])
                out.plunge(z)
                path = path[1:]
            out.cut(path)
        out.up()


def _at_edge(outline: Points, p: Point) -> bool:
    """Whether a point lies on the edge of a part, or beyond."""
    from tall_plank.measure.outlines import inside

    near = any(_distance(p, a, b) < 1.5 for a, b in zip(outline, (*outline[1:], outline[0]), strict=True))
    return near or not inside(outline, *p)


def _distance(p: Point, a: Point, b: Point) -> float:
    """From a point to a side."""
    length = math.dist(a, b)
    if length < 1e-9:
        return math.dist(p, a)
    t = max(0.0, min(1.0, ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / length**2))
    return math.dist(p, (a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])))


def _pocket(out: _Lines, work: PartWork, pocket: Pocket, refused: list[Left]) -> None:
    """Lines along the longer side, a share of the mill apart."""
    long, wide = pocket.x1 - pocket.x0, pocket.y1 - pocket.y0
    mill = out.machine.mill(min(long, wide), pocket.depth)
    if mill is None:
        what = f"rebate {min(long, wide):.1f} wide, {pocket.depth:g} deep {pocket.at}"
        refused.append(Left(work.part, work.up, what, "no mill is so narrow and long enough"))
        return
    out.take(mill)
    r = mill.diameter / 2
    x0, y0, x1, y1 = pocket.x0 + r, pocket.y0 + r, pocket.x1 - r, pocket.y1 - r
    along = long >= wide
    across = y1 - y0 if along else x1 - x0
    count = max(1, math.ceil(across / (mill.diameter * OVERLAP) - 1e-9)) + 1 if across > 0.02 else 1
    offsets = [across * i / max(1, count - 1) for i in range(count)]
    lines = [((x0, y0 + off), (x1, y0 + off)) if along else ((x0 + off, y0), (x0 + off, y1)) for off in offsets]
    _back_and_forth(out, lines, pocket.depth)


def _corners(o: Opening) -> Points:
    return ((o.x0, o.y0), (o.x1, o.y0), (o.x1, o.y1), (o.x0, o.y1))


def _opening(out: _Lines, work: PartWork, opening: Opening, refused: list[Left]) -> None:
    deep = out.thickness + out.machine.into_spoil
    width = min(opening.x1 - opening.x0, opening.y1 - opening.y0, 2 * opening.radius if opening.radius > 1 else 1e9)
    mill = out.machine.mill(width, deep)
    if mill is None:
        refused.append(Left(work.part, work.up, opening_words(opening), "no mill fits its corners and reaches through"))
        return
    from shapely import Polygon

    r = mill.diameter / 2
    inner = Polygon(_corners(opening)).buffer(-max(opening.radius, r), join_style="mitre")
    path = inner.buffer(max(opening.radius, r) - r, quad_segs=6) if opening.radius > r + 0.01 else inner
    if path.is_empty:
        return
    out.take(mill)
    points = tuple((x, y) for x, y in path.exterior.coords[:-1])
    points = points if area(points) > 0 else tuple(reversed(points))  # the waste on the left
    hole = Polygon(_corners(opening))
    _around(out, points, tabs=path.area > 2500.0, free=lambda swept: hole.contains(swept))


# --- outlines


def _outlines(out: _Lines, works: Sequence[PartWork], refused: list[Left]) -> None:
    from shapely import Polygon
    from shapely.strtree import STRtree

    shapes = [Polygon(w.outline) for w in works]
    if not shapes:
        return
    tree = STRtree(shapes)
    deep = out.thickness + out.machine.into_spoil
    order = sorted(range(len(works)), key=lambda i: (shapes[i].area, works[i].part))
    for i in order:
        work, shape = works[i], shapes[i]
        gap = min((shape.distance(shapes[j]) for j in tree.query(shape.buffer(40.0)) if j != i), default=1e9)
        # The mill that the last part was cut with serves again where it fits.
        mill = out.machine.mill(gap + 0.01, deep)
        if mill is None or mill.diameter < 6.0:
            told = f"the next part lies {gap:.1f} mm away" if gap < 1e8 else "no mill reaches through the board"
            refused.append(Left(work.part, work.up, "its outline", told))
            continue
        out.take(mill)
        path = shape.buffer(mill.diameter / 2, quad_segs=6, join_style="round")
        points = tuple((x, y) for x, y in path.exterior.coords[:-1])
        points = points if area(points) < 0 else tuple(reversed(points))  # clockwise about the part: climb milling

        def free(swept: Polygon) -> bool:
            return not any(swept.intersects(shapes[j]) for j in tree.query(swept)) and _on_bed(out.machine, swept)

        _around(out, points, tabs=shape.area < out.machine.tabs_below, free=free)


def _around(out: _Lines, points: Points, *, tabs: bool, free: Callable[[Polygon], bool]) -> None:
    """A closed path with the waste on its left, in passes: each from an arc that begins in the waste where that has
    room, else down by a ramp along the path; the last pass with tabs.

    Parameters
    ----------
    free : whether the mill may pass over some ground outside the path
    """
    sides = sorted(range(len(points)), key=lambda i: (-math.dist(points[i], points[(i + 1) % len(points)]), i))
    passes = _passes(out, -out.machine.into_spoil)
    for at in sides[:6]:
        lead = _lead(out, points[at], points[(at + 1) % len(points)], free)
        if lead is not None:
            start = _between(points[at], points[(at + 1) % len(points)], 0.5)
            _led(out, [start, *points[at + 1 :], *points[: at + 1], start], passes, lead, tabs=tabs)
            return
    at = sides[0]
    start = _between(points[at], points[(at + 1) % len(points)], 0.5)
    ring = [start, *points[at + 1 :], *points[: at + 1], start]
    out.over(*start)
    height = out.thickness
    for n, z in enumerate(passes):
        _ramp(out, ring, height, z)
        if n + 1 < len(passes):
            out.cut(ring[1:])
        height = z
    last = _with_tabs(ring, out.machine, passes[-1]) if tabs else [(x, y, passes[-1]) for x, y in ring]
    assert out.tool is not None
    for i, (x, y, z) in enumerate(last):
        out.add(f"G1 X{_mm(x)} Y{_mm(y)} Z{_mm(z)}" + (f" F{out.tool.feed:g}" if i == 0 else ""))
    out.up()


@dataclass(frozen=True)
class _Lead:
    """A quarter of a circle into a path and one out of it, both counter-clockwise about one middle."""

    begin: Point
    middle: Point
    end: Point


def _lead(out: _Lines, a: Point, b: Point, free: Callable[[Polygon], bool]) -> _Lead | None:
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


def _led(out: _Lines, ring: Sequence[Point], passes: Sequence[float], lead: _Lead, *, tabs: bool) -> None:
    """A closed path pass by pass, each plunged in the waste."""
    assert out.tool is not None
    feed = out.tool.feed
    for n, z in enumerate(passes):
        last = n + 1 == len(passes)
        out.over(*lead.begin)
        out.plunge(z)
        _arc(out, lead.begin, ring[0], lead.middle, feed)
        if last and tabs:
            for x, y, height in _with_tabs(ring, out.machine, z):
                out.add(f"G1 X{_mm(x)} Y{_mm(y)} Z{_mm(height)}")
        else:
            out.cut(ring[1:])
        _arc(out, ring[-1], lead.end, lead.middle, feed)
        out.up()


def _arc(out: _Lines, start: Point, end: Point, middle: Point, feed: float) -> None:
    """Counter-clockwise about a middle; with a digit more, so that both ends lie on the arc."""
    i, j = middle[0] - start[0], middle[1] - start[1]
    x, y, i, j = (round(v, 4) + 0.0 for v in (*end, i, j))
    out.add(f"G3 X{x:.4f} Y{y:.4f} I{i:.4f} J{j:.4f} F{feed:g}")


def _on_bed(machine: Machine, swept: Polygon) -> bool:
    """Whether a mill that sweeps some ground stays over the bed and clear of the clamps."""
    x0, y0, x1, y1 = swept.bounds
    if x0 < 0 or y0 < 0 or x1 > machine.bed_length or y1 > machine.bed_width:
        return False
    return not any(
        c.x < x1 + 1 and c.x + c.length > x0 - 1 and c.y < y1 + 1 and c.y + c.width > y0 - 1 for c in machine.clamps
    )


def _between(a: Point, b: Point, share: float) -> Point:
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share)


def _ramp(out: _Lines, ring: Sequence[Point], high: float, low: float) -> None:
    """Down along the first stretch of a path, and back to its start on the level."""
    ahead = _between(ring[0], ring[1], min(1.0, RAMP / max(1e-6, math.dist(ring[0], ring[1]))))
    out.plunge(high)
    out.cut([ahead], low)
    out.cut([ring[0]])


def _with_tabs(ring: Sequence[Point], machine: Machine, bottom: float) -> list[tuple[float, float, float]]:
    """The last pass, lifted over four tabs that are spread evenly along it."""
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
