"""RS-274 programs for a three-axis machine (NIST IR 6556): drilling, grooves, pockets, openings, outlines with tabs.

Tool by tool: drills first, then what lies within parts, outlines last and the smallest parts before the large ones, so
that a part is worked on while it still holds. What no tool of the machine can do is refused by name, never left out in
silence. The words of the machine are written at the end, by `wording`.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import msgspec

from tall_plank.measure.outlines import Point, Points, bounds
from tall_plank.shop.machine.cutout import cut_openings, cut_outlines, kept_whole
from tall_plank.shop.machine.model import Machine, Tool
from tall_plank.shop.machine.setup import SetUp
from tall_plank.shop.machine.steps import Go, Leg, Steps, Take, seconds_of
from tall_plank.shop.machine.wording import worded
from tall_plank.shop.machine.work import Hole, Left, PartWork, Pocket, Slot, all_left

OVERLAP = 0.7
"""Share of its diameter that a mill moves over between two passes of a pocket (common practice: 0.5 to 0.8)."""


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
        return self.setup is None or bool(self.setup.tools)


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
    out = Steps(machine, size)
    refused: list[Left] = []
    if not machine.length_offsets:  # with them, Z is only known with a tool
        out.up()
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
    cut_openings(out, works, refused)
    if outlines:
        cut_outlines(out, works, refused)
    if out.tool is not None:
        out.up()
    zero = out.frame.zero
    out.steps.append(Go(*zero))
    said = [f"{name}: {size[0]:g} x {size[1]:g} x {size[2]:g} mm"]
    if setup is not None:
        setup = _told(setup, out)
        said += _comments(setup)
    text = worded(out.steps, machine, out.frame, said)
    return Program(name, text, size, kept_whole(works, machine, size[2]), tuple(refused), setup)


def _told(setup: SetUp, out: Steps) -> SetUp:
    """With the tools that the program takes, in their order, and its time."""
    tools = tuple(dict.fromkeys(step.tool for step in out.steps if isinstance(step, Take)))
    return msgspec.structs.replace(setup, tools=tools, seconds=seconds_of(out.steps, out.machine))


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


def _drill_all(out: Steps, works: Sequence[PartWork], refused: list[Left]) -> None:
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
        for z in out.passes(bottom):
            out.plunge(z)
            if radius > 0.01:
                begin = (hole.x + radius, hole.y)
                out.follow(begin, [Leg(*begin, (hole.x, hole.y))])
        out.up()


def _bottom(out: Steps, depth: float, *, through: bool) -> float:
    return -out.machine.into_spoil if through else out.thickness - depth


# --- within parts


def _slot(out: Steps, work: PartWork, slot: Slot, refused: list[Left]) -> None:
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
    _back_and_forth(out, lines, slot.depth, ends=(short[0] > 0, short[1] > 0))


def _back_and_forth(
    out: Steps, lines: Sequence[tuple[Point, Point]], depth: float, ends: tuple[bool, bool] = (False, False)
) -> None:
    """Lines side by side, every other one backwards, in passes down to a depth.

    Parameters
    ----------
    ends : whether the lines' starts, and their ends, are to be cut straight across, as a groove's within its part
    """
    for z in out.passes(out.thickness - depth):
        for i, (start, end) in enumerate(lines):
            path = [end, start] if i % 2 else [start, end]
            if i == 0:
                out.over(*path[0])
                out.plunge(z)
                path = path[1:]
            out.cut(path)
        if len(lines) > 1 and any(ends):
            _straight_ends(out, lines, ends)
        out.up()


def _straight_ends(out: Steps, lines: Sequence[tuple[Point, Point]], ends: tuple[bool, bool]) -> None:
    """From the end of the last line across the ends that lie within the part: between two lines side by side a round
    mill leaves a point there."""
    at = 0 if len(lines) % 2 == 0 else 1
    first, last = lines[0], lines[-1]
    if ends[at]:
        out.cut([first[at]])
        if ends[1 - at]:
            out.cut([first[1 - at], last[1 - at]])
    else:
        out.cut([last[1 - at], first[1 - at]])


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


def _pocket(out: Steps, work: PartWork, pocket: Pocket, refused: list[Left]) -> None:
    """Lines along the longer side, a share of the mill apart. Where they leave the part the mill's middle goes to its
    edge, so that no wood stays in the corners there."""
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
    px0, py0, px1, py1 = bounds(work.outline)
    if along:
        x0, x1 = min(x0, px0) if pocket.x0 < px0 else x0, max(x1, px1) if pocket.x1 > px1 else x1
    else:
        y0, y1 = min(y0, py0) if pocket.y0 < py0 else y0, max(y1, py1) if pocket.y1 > py1 else y1
    across = y1 - y0 if along else x1 - x0
    count = max(1, math.ceil(across / (mill.diameter * OVERLAP) - 1e-9)) + 1 if across > 0.02 else 1
    offsets = [across * i / max(1, count - 1) for i in range(count)]
    lines = [((x0, y0 + off), (x1, y0 + off)) if along else ((x0 + off, y0), (x0 + off, y1)) for off in offsets]
    _back_and_forth(out, lines, pocket.depth)
