"""Setting out a run: the width and place of every cell, by rules, anchors and corners."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from tall_plank.job import Basis, Body, Cell, Level, Run, Source, Unit
from tall_plank.job.choices import EitherSide, Feet, PlanShape, Side
from tall_plank.job.inherit import construction_of, size_of
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomFrame
from tall_plank.measure.outlines import Points
from tall_plank.measure.shareout import Member, Rule, share_out
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout.corners import CornerEnd, bottom_of, front_depth, handle_reach, leg_of, needed_filler
from tall_plank.setout.wall import Span, Wall


class Placed(msgspec.Struct, frozen=True, cache_hash=True):
    """A unit where it stands.

    Attributes
    ----------
    x : of its left side from the line's left end, mm
    bottom : underside of the carcass above the floor, mm
    width, height, depth : of the carcass, mm
    frame : the unit's frame in the room
    corner : the side of it that lies in a corner which it fills or runs into
    leg : length of its other leg along the next wall, mm
    blind : width that the neighbour's run covers, filler included, mm
    filler : width of the filler beside its fronts in the corner, mm
    shape : plan of its front, or what it does in a corner, as its kind says
    feet : what it stands on, where it does not hang
    """

    cell: str
    unit: str
    number: str
    room: str
    wall_id: str
    run: str
    level: Level
    template: str
    body: Body
    x: float
    bottom: float
    width: float
    height: float
    depth: float
    frame: RoomFrame
    corner: EitherSide = ""
    leg: float = 0.0
    blind: float = 0.0
    filler: float = 0.0
    shape: PlanShape = "straight"
    feet: Feet = "plinth"

    @property
    def plan(self) -> Points:
        """Outline of the carcass from above in the unit's frame: y runs from the front (negative) to the wall."""
        w, d, leg = self.width, self.depth, self.leg
        if leg > d:
            if self.corner == "left":
                inner: Points = ((d, -leg), (w, -d)) if self.shape == "diagonal" else ((d, -leg), (d, -d), (w, -d))
                return ((0.0, 0.0), (0.0, -leg), *inner, (w, 0.0))
            inner = ((0.0, -d), (w - d, -leg)) if self.shape == "diagonal" else ((0.0, -d), (w - d, -d), (w - d, -leg))
            return ((0.0, 0.0), *inner, (w, -leg), (w, 0.0))
        return ((0.0, 0.0), (0.0, -d), (w, -d), (w, 0.0))

    @property
    def right(self) -> float:
        return self.x + self.width

    @property
    def top(self) -> float:
        return self.bottom + self.height

    @property
    def is_solid(self) -> bool:
        """Whether something stands here (a gap is not something)."""
        return self.body is not Body.GAP


class Short(msgspec.Struct, frozen=True, cache_hash=True):
    """What is missing before a held cell, or before the end of the line (cell empty), mm."""

    cell: str
    mm: float


class RunLayout(msgspec.Struct, frozen=True, cache_hash=True):
    """A run as it sets out.

    Attributes
    ----------
    x, end : of the run's room from the line's left end, mm
    cells : placed units from left to right
    left : what nobody took, mm
    short : what is missing, mm; where above zero, shares and rests stand at their least width
    free : (x, width) of every stretch that nobody took
    shorts : what is missing where
    unmet : cells whose anchor holds them no longer, because what it names is not there
    start_corner, end_corner : how it stands in the corners at its ends
    """

    run: Run
    wall: Wall
    x: float
    end: float
    cells: tuple[Placed, ...]
    left: float
    short: float
    free: tuple[tuple[float, float], ...] = ()
    shorts: tuple[Short, ...] = ()
    unmet: tuple[str, ...] = ()
    start_corner: CornerEnd | None = None
    end_corner: CornerEnd | None = None

    @property
    def total(self) -> float:
        return self.end - self.x


Find = Callable[[Source], Span | None]
"""Source of what holds a cell -> its left and right side along the line, mm."""


def member_of(basis: Basis, cell: Cell) -> Member:
    """A cell as a member of the share-out; shares and rests keep to their own range, else to their kind's."""
    template = basis.template_of(cell)
    rule = cell.width
    if rule.rule is Rule.FIXED:
        assert rule.length is not None
        return Member(Rule.FIXED, size=outer_width(basis, cell))
    least = rule.least.mm if rule.least else template.least
    most = rule.most.mm if rule.most else template.most
    return Member(rule.rule, least=least, most=max(least, most))


def outer_width(basis: Basis, cell: Cell) -> float:
    """The width of a fixed cell, mm: typed, or its clear width and two gables; of any other the one it starts with."""
    if cell.width.length is None:
        return basis.template_of(cell).width
    mm = cell.width.length.mm
    if cell.width.clear and basis.template_of(cell).body is Body.CARCASS:
        mm += 2 * construction_of(basis, basis.unit(cell.unit)).carcass_thickness
    return mm


def feet_of(run: Run, unit: Unit) -> Feet:
    """What a unit stands on: its own decision, else its run's."""
    own = unit.own_value("feet")
    return own if isinstance(own, str) else run.feet  # type: ignore[return-value]


class _Pins(msgspec.Struct):
    left: float | None = None
    right: float | None = None


def _pins(basis: Basis, cell: Cell, find: Find, unmet: list[str]) -> _Pins:
    """Where an anchor holds the sides of a cell, mm."""
    anchor = cell.anchor
    if anchor is None:
        return _Pins()
    held_by = anchor.source
    span = find(held_by) if held_by is not None else (0.0, 0.0)
    if span is None:
        unmet.append(cell.id)
        return _Pins()
    by = anchor.offset.mm
    low, high = span[0] + by, span[1] + by
    match anchor.at:
        case "left":
            return _Pins(low, None)
        case "right":
            return _Pins(None, high)
        case "span":
            return _Pins(low, high)
        case "centre":
            middle = (low + high) / 2
            width = outer_width(basis, cell) if cell.width.rule is Rule.FIXED else basis.template_of(cell).width
            return _Pins(middle - width / 2, middle + width / 2)


def _free_ends(x: float, members: list[Member], pins: list[_Pins]) -> Span:
    """Where a row that hangs free begins and ends, mm: at its own place, or where something holds one of its units."""
    sizes = [m.size if m.rule is Rule.FIXED else max(m.least, 0.0) for m in members]
    for i, (size, pin) in enumerate(zip(sizes, pins, strict=True)):
        if pin.left is not None or pin.right is not None:
            left = pin.left if pin.left is not None else (pin.right or 0.0) - size
            return left - sum(sizes[:i]), left + sum(sizes[i:])
    return x, x + sum(sizes)


class Solved(msgspec.Struct, frozen=True):
    """Places and widths of a run's cells, and what does not come out."""

    places: tuple[Span, ...]
    free: tuple[Span, ...]
    shorts: tuple[tuple[int, float], ...]
    """(index of the held cell before which it is missing, or the number of cells for the end; mm)."""


def solve(
    x: float,
    end: float,
    members: list[Member],
    pins: list[tuple[float | None, float | None]],
    *,
    last_in_corner: bool = False,
) -> Solved:
    """Set out cells between x and end, some of whose sides are held.

    Held sides divide the line into stretches, each shared out by itself. A stretch that leaves something packs its
    cells against the held cell where one follows the line's free start, else from the left. A stretch that is too
    short pushes what follows, up to what the next stretches leave. Where the last cell is held by a corner, those
    before it keep to the left.

    The widths and the free stretches sum to the length of the line plus everything that is short.
    """
    n = len(members)
    places: list[Span] = []
    free: list[Span] = []
    shorts: list[tuple[int, float]] = []
    push = 0.0

    def stretch(first: int, last: int, low: float, high: float, *, to_right: bool) -> None:
        """Cells first..last-1 between low and high (as held, before any push)."""
        nonlocal push
        group = members[first:last]
        shares = share_out(high - low, group)
        left, short = shares.left, shares.short
        if high - low < -TOLERANCE and not group:
            left, short = 0.0, low - high
        taken = min(push, left)
        left -= taken
        at = low + push
        if left > TOLERANCE and to_right and group:
            free.append((at, left))
            at += left
        for width in shares.sizes:
            places.append((at, width))
            at += width
        if left > TOLERANCE and not (to_right and group):
            free.append((at, left))
        if short > TOLERANCE:
            shorts.append((last, short))
        push += short - taken

    low, first, pinned = x, 0, False
    for i, (left_pin, right_pin) in enumerate(pins):
        if left_pin is not None:
            stretch(first, i, low, left_pin, to_right=not pinned and not (last_in_corner and i == n - 1))
            low, first, pinned = left_pin, i, True
        if right_pin is not None:
            stretch(first, i + 1, low, right_pin, to_right=not pinned)
            low, first, pinned = right_pin, i + 1, True
    stretch(first, n, low, end, to_right=False)
    return Solved(tuple(places), tuple(free), tuple(shorts))


def _exact_pair(basis: Basis, cell: Cell, pins: _Pins, member: Member) -> Member:
    """A cell held on both sides takes the width between them, whatever its rule says."""
    if pins.left is not None and pins.right is not None:
        return Member(Rule.FIXED, size=max(0.0, pins.right - pins.left))
    return member


def set_out_run(
    basis: Basis,
    room_id: str,
    wall: Wall,
    run: Run,
    ends: tuple[CornerEnd | None, CornerEnd | None] = (None, None),
    find: Find = lambda source: None,
    keep: Span = (0.0, 0.0),
) -> RunLayout:
    """Widths and places of a run's cells; what cannot be met is named, and nothing overlaps.

    Parameters
    ----------
    ends : how its left and right end stand in the corners of the room
    find : where things that hold cells stand along this line
    keep : mm kept at the line's ends by panels of an island
    """
    at_start, at_end = ends
    x = run.start.mm if run.start is not None else max(keep[0], at_start.keep if at_start else 0.0)
    kept = run.end.mm if run.end is not None else max(keep[1], at_end.keep if at_end else 0.0)
    end = wall.length - kept
    unmet: list[str] = []
    pins = [_pins(basis, cell, find, unmet) for cell in run.cells]
    members = [_exact_pair(basis, c, p, member_of(basis, c)) for c, p in zip(run.cells, pins, strict=True)]
    if run.free:
        x, end = _free_ends(x, members, pins)
    cornered = _into_corner(basis, run, wall, pins, members, end)
    solved = solve(x, end, members, [(p.left, p.right) for p in pins], last_in_corner=cornered)
    placed = []
    for i, (cell, (at, width)) in enumerate(zip(run.cells, solved.places, strict=True)):
        template = basis.template_of(cell)
        corner = _corner_side(i, len(run.cells), at_start, at_end) if template.corner else None
        found = at_start if corner == "left" else at_end
        placed.append(_placed(basis, room_id, wall, run, cell, at, width, bottom_of(basis, run, cell), corner, found))
    shorts = tuple(Short(run.cells[i].id if i < len(run.cells) else "", mm) for i, mm in solved.shorts)
    return RunLayout(
        run=run,
        wall=wall,
        x=x,
        end=end,
        cells=tuple(placed),
        left=sum(w for _, w in solved.free),
        short=sum(s.mm for s in shorts),
        free=solved.free,
        shorts=shorts,
        unmet=tuple(unmet),
        start_corner=at_start,
        end_corner=at_end,
    )


def _placed(
    basis: Basis,
    room_id: str,
    wall: Wall,
    run: Run,
    cell: Cell,
    at: float,
    width: float,
    bottom: float,
    corner: Side | None,
    found: CornerEnd | None,
) -> Placed:
    """A unit in its place; `at`, `width`, `bottom`: mm. `corner`: where it fills one; `found`: how its end of the run
    stands in it."""
    unit = basis.unit(cell.unit)
    template = basis.template(unit.template)
    leg, blind, filler = 0.0, 0.0, 0.0
    if template.corner == "blind" and corner is not None:
        filler, blind = _blind(basis, cell, corner, found, at, width, wall.length)
    elif template.corner:
        leg = leg_of(basis, cell)
    return Placed(
        cell=cell.id,
        unit=unit.id,
        number=cell.number,
        room=room_id,
        wall_id=wall.id,
        run=run.id,
        level=template.level if run.level is Level.BASE else run.level,
        template=template.code,
        body=template.body,
        x=at,
        bottom=bottom,
        width=width,
        height=size_of(basis, unit, "height"),
        depth=size_of(basis, unit, "depth"),
        frame=wall.frame.then(Frame((at, 0.0, bottom))),
        corner=corner or "",
        leg=leg,
        blind=blind,
        filler=filler,
        shape=template.corner or template.shape,
        feet=feet_of(run, unit),
    )


def _into_corner(basis: Basis, run: Run, wall: Wall, pins: list[_Pins], members: list[Member], end: float) -> bool:
    """Hold a corner unit at the end of a run in its corner, so that what is left lies before it."""
    if len(run.cells) < 2 or wall.island or wall.after >= 180.0 or run.end is not None:
        return False
    last, pin = run.cells[-1], pins[-1]
    if not basis.template_of(last).corner or pin.left is not None or pin.right is not None:
        return False
    if members[-1].rule is not Rule.FIXED:
        return False
    pin.left, pin.right = end - members[-1].size, end
    return True


def _corner_side(i: int, count: int, at_start: CornerEnd | None, at_end: CornerEnd | None) -> Side:
    """The side of a corner unit that lies in the corner: that of the end it stands at."""
    if i == 0 and not (count == 1 and at_end is not None and at_start is None):
        return "left"
    return "right"


def _blind(
    basis: Basis, cell: Cell, side: Side, found: CornerEnd | None, x: float, width: float, length: float
) -> tuple[float, float]:
    """Filler and blind width of a unit that runs into a corner, mm.

    Where no run stands on the other wall yet, the neighbour is taken to be as deep as the unit itself.
    """
    if found is not None and found.other:
        depth, handle = found.other_depth, found.other_handle
    else:
        depth, handle = front_depth(basis, basis.unit(cell.unit)), handle_reach(basis, cell)
    filler = needed_filler(basis, cell, side, handle)
    to_corner = x if side == "left" else length - x - width
    return filler, max(0.0, depth + filler - to_corner)
