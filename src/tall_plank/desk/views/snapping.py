"""What is dragged on a wall snaps to seams, edges and middles of what stands there, and to guide lines; by name."""

from __future__ import annotations

from dataclasses import dataclass

from tall_plank.desk.look.texts import tr
from tall_plank.measure import format_length
from tall_plank.measure.units import DisplayUnit
from tall_plank.setout import RoomLayout

SNAP_PX = 6.0


@dataclass(frozen=True)
class Mark:
    """A place on a wall, mm from its left end or from the floor, with its name."""

    at: float
    name: str


def upright_marks(room: RoomLayout, wall: str, leave: tuple[str, ...] = ()) -> list[Mark]:
    """Places along a wall. `leave`: sources and run ids of what is moving."""
    marks = []
    line = room.wall(wall)
    for p in room.placed:
        if p.wall == wall and p.run not in leave and f"cell:{p.cell}" not in leave and p.is_solid:
            marks += [
                Mark(p.x, f"{tr('left of')} {p.number}"),
                Mark(p.right, f"{tr('right of')} {p.number}"),
                Mark(p.x + p.width / 2, f"{tr('middle of')} {p.number}"),
            ]
    things: list[tuple[str, str, float, float]] = [
        (f"opening:{o.id}", o.kind, o.x.mm, o.width.mm) for o in room.room.openings if o.wall == wall
    ]
    things += [(f"column:{c.id}", c.kind, c.x.mm, c.width.mm) for c in room.room.columns if c.wall == wall]
    for source, kind, x, width in things:
        if source not in leave:
            marks += [
                Mark(x, f"{tr('left of')} {tr(kind)}"),
                Mark(x + width, f"{tr('right of')} {tr(kind)}"),
                Mark(x + width / 2, f"{tr('middle of')} {tr(kind)}"),
            ]
    marks += [Mark(s.x.mm, tr(s.kind)) for s in room.room.services if s.wall == wall and f"service:{s.id}" not in leave]
    marks += [
        Mark(g.at.mm, tr("guide line"))
        for g in room.room.guides
        if g.axis == "x" and g.wall == wall and f"guide:{g.id}" not in leave
    ]
    return [*marks, Mark(line.length / 2, tr("middle of the wall"))]


def level_marks(room: RoomLayout, wall: str, leave: tuple[str, ...] = ()) -> list[Mark]:
    """Heights on a wall: tops and undersides of units, worktops, openings, moldings, guide lines."""
    marks = []
    for p in room.placed:
        if p.wall == wall and p.run not in leave and p.is_solid:
            marks += [Mark(p.top, f"{tr('top of')} {p.number}"), Mark(p.bottom, f"{tr('underside of')} {p.number}")]
    for top in room.worktops:
        if top.wall == wall:
            marks.append(Mark(top.bottom + top.thickness, tr("worktop")))
    for o in room.room.openings:
        if o.wall == wall and f"opening:{o.id}" not in leave:
            marks += [
                Mark(o.sill.mm, f"{tr('sill of')} {tr(o.kind)}"),
                Mark(o.sill.mm + o.height.mm, f"{tr('head of')} {tr(o.kind)}"),
            ]
    for piece in room.moldings:
        if piece.wall == wall:
            marks.append(Mark(piece.low, f"{tr('underside of')} {tr(piece.kind)}"))
    marks += [
        Mark(g.at.mm, tr("guide line")) for g in room.room.guides if g.axis == "z" and f"guide:{g.id}" not in leave
    ]
    return marks


def nearest(at: float, marks: list[Mark], scale: float) -> Mark | None:
    """The mark within a few pixels of a place, mm; None where there is none. `scale`: px per mm."""
    near = [(abs(m.at - at), m.at, m) for m in marks if abs(m.at - at) * scale < SNAP_PX]
    return min(near, key=lambda n: n[:2])[2] if near else None


def snap_box(x: float, width: float, marks: list[Mark], scale: float) -> tuple[float, Mark | None]:
    """Where the left side of something as wide as `width` comes to lie when its nearest side or its middle snaps."""
    found = []
    for by in (0.0, width, width / 2):
        mark = nearest(x + by, marks, scale)
        if mark is not None:
            found.append((abs(mark.at - x - by), mark.at - by, mark))
    if not found:
        return x, None
    _, left, mark = min(found, key=lambda f: f[:2])
    return left, mark


def place_name(mm: float, display: DisplayUnit, mark: Mark | None) -> str:
    """What stands at the pointer during a drag: the distance, and what it snapped to."""
    text = format_length(mm, display)
    return f"{text} · {mark.name}" if mark is not None else text
