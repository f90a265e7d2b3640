"""Corners: which run takes the corner, where the other one starts, and the fillers that let fronts pass.

Two runs meet in a corner where one reaches the right end of a wall and the other the left end of the next wall. The
run with a corner unit takes the corner, else the one that was started first; the other starts clear of its fronts.
"""

from __future__ import annotations

import math

import msgspec

from tall_plank.job import Basis, Body, Cell, Level, Room, Run, Template, Unit
from tall_plank.job.bays import Bay, Front
from tall_plank.job.choices import LEFT, RIGHT, EitherSide, Side
from tall_plank.job.inherit import construction_of, handle_of, size_of
from tall_plank.measure.lengths import evaluate_text
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout.wall import Wall

SQUARE = 0.05
"""Degrees; a corner nearer to 90 than this is square."""


class CornerEnd(msgspec.Struct, frozen=True, cache_hash=True):
    """How a run stands in the corner at one of its ends.

    Attributes
    ----------
    side : the run's end that lies in the corner
    angle : degrees inside the corner
    holds : whether this run takes the corner
    keep : how far from the corner its cells may begin, mm
    filler : width of the filler at its first cell, mm (part of keep)
    other : id of the other run
    other_depth : how far the other run's fronts stand from their wall, mm
    other_handle : how far handles stand out from those, mm
    """

    side: Side
    angle: float
    holds: bool
    keep: float
    filler: float
    other: str
    other_depth: float
    other_handle: float


def on_floor(level: Level) -> bool:
    return level is not Level.HUNG


def end_cell(basis: Basis, run: Run, side: Side) -> Cell | None:
    """The outermost cell at an end of a run, unless nothing stands there."""
    if not run.cells:
        return None
    cell = run.cells[0] if side == "left" else run.cells[-1]
    return None if basis.template_of(cell).body is Body.GAP else cell


def fronts_of(bay: Bay) -> tuple[Front, ...]:
    """Every front of a bay tree."""
    own = (bay.front,) if bay.front is not None else ()
    return own + tuple(f for child in bay.children for f in fronts_of(child))


def front_depth(basis: Basis, unit: Unit) -> float:
    """How far the face of a unit's fronts stands from its wall, mm."""
    made = construction_of(basis, unit)
    fronted = bool(fronts_of(unit.bay)) or basis.template(unit.template).body is Body.FILLER
    return size_of(basis, unit, "depth") + (made.reach if fronted or made.face_frame == "frame" else 0.0)


def handle_reach(basis: Basis, cell: Cell, swinging_to: EitherSide = "") -> float:
    """How far the handles of a unit stand out from its fronts, mm; 0 where it has none.

    Parameters
    ----------
    swinging_to : a side: of doors alone that are hinged there
    """
    unit = basis.unit(cell.unit)
    made = construction_of(basis, unit)
    fronts = _swinging(basis, cell, swinging_to) if swinging_to else fronts_of(unit.bay)
    handles = (basis.stock.fitting(handle_of(made, f.kind, f.handle)) for f in fronts)
    return max((h.projection for h in handles if h is not None), default=0.0)


def _swinging(basis: Basis, cell: Cell, side: Side) -> tuple[Front, ...]:
    """The doors of a unit that are hinged at a side, so that opened square they stand there with their handles out."""
    if basis.template_of(cell).corner == "blind":
        return ()  # its door always hangs on the gable away from the corner
    fronts = fronts_of(basis.unit(cell.unit).bay)
    return tuple(f for f in fronts if (f.kind == "door" and f.hand == side) or f.kind == "pair")


def needed_filler(basis: Basis, cell: Cell, side: Side, neighbour_handle: float) -> float:
    """Least width of the filler between a unit and the fronts that stand square to it, mm.

    What slides out or swings away passes the neighbour's handle; a door hinged at the corner's side stands square
    when open, and its own handle has to clear the neighbour's too (geometry; the play is the standard's).
    """
    template = basis.template_of(cell)
    if template.body not in (Body.CARCASS, Body.APPLIANCE) or not fronts_of(basis.unit(cell.unit).bay):
        return 0.0
    made = construction_of(basis, basis.unit(cell.unit))
    own = handle_reach(basis, cell, side)
    return neighbour_handle + own + made.corner_play


def leg_of(basis: Basis, cell: Cell) -> float:
    """Length of a corner unit's other leg along the next wall, mm."""
    unit = basis.unit(cell.unit)
    own = unit.own_value("corner_leg")
    if own is not None and not isinstance(own, str):
        return own.mm
    return evaluate_text(basis.template(unit.template).leg, basis.named_values())


def fronts_meet(other_depth: float, own_depth: float, angle: float) -> float:
    """Distance along a wall, from a corner, of the place where the front lines of two rows meet, mm.

    Parameters
    ----------
    other_depth : float, mm; how far the other row stands out of its wall
    own_depth : float, mm; depth of this row
    angle : degrees inside the corner; 180 and more keep nothing clear

    A point at x along one wall and y out of it lies x sin(a) - y cos(a) from the other wall (geometry). Boxes that
    begin there clear the other row: in a square or sharp corner all of it, in a blunt one as long as the other row
    ends where the front lines meet too.
    """
    if angle >= 180.0 - 1e-6:
        return 0.0
    a = math.radians(angle)
    cos = 0.0 if abs(angle - 90.0) < 1e-9 else math.cos(a)
    return max(0.0, (other_depth + own_depth * cos) / math.sin(a))


def corner_kind(basis: Basis, cell: Cell | None) -> str:
    return "" if cell is None else basis.template_of(cell).corner


def _fills_corner(template: Template) -> bool:
    return template.corner in ("l", "diagonal")


def corners_of_room(basis: Basis, room: Room, walls: tuple[Wall, ...]) -> dict[tuple[str, Side], CornerEnd]:
    """(run id, side) -> how the run stands in that corner; ends that meet no other run, or have a typed place, are
    not in it, except that a sharp or blunt corner keeps its own run clear of the next wall."""
    found: dict[tuple[str, Side], CornerEnd] = {}
    order = {run.id: i for i, run in enumerate(room.runs)}
    for i, wall in enumerate(walls):
        follower = walls[(i + 1) % len(walls)]
        angle = wall.after
        if angle >= 180.0:
            continue
        led = [r for r in room.runs if not r.free]
        here = [r for r in led if r.wall == wall.id and r.end is None and end_cell(basis, r, "right")]
        there = [r for r in led if r.wall == follower.id and r.start is None and end_cell(basis, r, "left")]
        # A run keeps clear of the other wall itself where the corner is not square.
        for runs, side in ((here, RIGHT), (there, LEFT)):
            for run in runs:
                cell = end_cell(basis, run, side)
                assert cell is not None
                keep = fronts_meet(0.0, front_depth(basis, basis.unit(cell.unit)), angle)
                if keep > 0.001:
                    found[(run.id, side)] = CornerEnd(side, angle, True, keep, 0.0, "", 0.0, 0.0)
        for a in here:
            for b in there:
                if on_floor(a.level) is on_floor(b.level) and _beside(basis, a, b):
                    _meet(basis, a, b, angle, order, found)
    return found


def _beside(basis: Basis, a: Run, b: Run) -> bool:
    """Whether the ends of two runs that meet in a corner stand at heights that share something: several rows may hang
    on a wall."""
    spans = []
    for run, side in ((a, RIGHT), (b, LEFT)):
        cell = end_cell(basis, run, side)
        assert cell is not None
        low = bottom_of(basis, run, cell)
        spans.append((low, low + size_of(basis, basis.unit(cell.unit), "height")))
    return on_floor(a.level) or min(s[1] for s in spans) > max(s[0] for s in spans) + TOLERANCE


def bottom_of(basis: Basis, run: Run, cell: Cell | None = None) -> float:
    """Height of the underside of a run's carcasses above the floor, or of one of its cells, mm."""
    if cell is not None and cell.bottom is not None:
        return cell.bottom.mm
    if run.bottom is not None:
        return run.bottom.mm
    return basis.value("plinth" if on_floor(run.level) else "hung_bottom")


def _meet(
    basis: Basis, a: Run, b: Run, angle: float, order: dict[str, int], found: dict[tuple[str, Side], CornerEnd]
) -> None:
    """Decide a corner between run a (at its right end) and run b (at its left end)."""
    cell_a, cell_b = end_cell(basis, a, "right"), end_cell(basis, b, "left")
    assert cell_a is not None and cell_b is not None
    kind_a, kind_b = corner_kind(basis, cell_a), corner_kind(basis, cell_b)
    a_holds = bool(kind_a) if bool(kind_a) != bool(kind_b) else order[a.id] < order[b.id]
    holder, other = (a, b) if a_holds else (b, a)
    side, other_side = (RIGHT, LEFT) if a_holds else (LEFT, RIGHT)
    cell, passing = (cell_a, cell_b) if a_holds else (cell_b, cell_a)
    template = basis.template_of(cell)
    handle, other_handle = handle_reach(basis, cell), handle_reach(basis, passing)
    depth, other_depth = front_depth(basis, basis.unit(cell.unit)), front_depth(basis, basis.unit(passing.unit))
    if _fills_corner(template):
        keep, filler = leg_of(basis, cell), 0.0
    else:
        filler = needed_filler(basis, passing, other_side, handle)
        keep = fronts_meet(depth, other_depth, angle) + filler
    held = found.get((holder.id, side))
    held_keep = held.keep if held else 0.0
    if angle > 90.0 + SQUARE:
        # In a blunt corner both rows end where their front lines meet; the space behind stays empty.
        held_keep = fronts_meet(other_depth, depth, angle)
    found[(holder.id, side)] = CornerEnd(side, angle, True, held_keep, 0.0, other.id, other_depth, other_handle)
    found[(other.id, other_side)] = CornerEnd(other_side, angle, False, keep, filler, holder.id, depth, handle)
