"""Where the things of a room lie in its views: what dimensions by hand hold on to."""

from __future__ import annotations

from collections.abc import Sequence

from tall_plank.job import Kind, Source
from tall_plank.job.things.dimension import Dimension, DimensionEnd
from tall_plank.measure.frames import FloorPoint
from tall_plank.measure.outlines import Point
from tall_plank.setout.layout import RoomLayout
from tall_plank.setout.things.column import column_height, column_points

Box = tuple[float, float, float, float]
"""x0, y0, x1, y1, mm of the view."""

ACROSS = {"left": 0, "right": 2}
UP = {"underside": 1, "front": 1, "top": 3, "rear": 3}
"""Sides by the number of a box that they are."""


def box_in(room: RoomLayout, view: str, source: Source) -> Box | None:
    """What a thing takes in a view: on a wall from its left end and the floor, on the plan in the room. None where the
    thing is gone or not in that view."""
    if view:
        return _on_wall(room, view, source) if room.has_line(view) else None
    points = _footprint(room, source)
    return _about(points) if points else None


def corners_in(room: RoomLayout, view: str, source: Source) -> list[Point]:
    """The corners of a thing's outline in a view, mm: on the plan of its footprint, on an elevation of a wall with its
    slopes; of other things the corners of what they take, from the lower left one counter-clockwise."""
    if not view:
        return list(_footprint(room, source))
    if source.kind is Kind.WALL and source.id == view and room.has_line(view) and (wall := room.wall(view)).profile:
        return [(0.0, 0.0), (wall.length, 0.0), *reversed(wall.profile)]
    box = box_in(room, view, source)
    if box is None:
        return []
    x0, y0, x1, y1 = box
    return [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]


def _about(points: Sequence[Point]) -> Box:
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return min(xs), min(ys), max(xs), max(ys)


def _on_wall(room: RoomLayout, view: str, source: Source) -> Box | None:
    wall = room.wall(view)
    r = room.room
    match source.kind:
        case Kind.WALL:
            return (0.0, 0.0, wall.length, wall.height) if source.id == view else None
        case Kind.CELL:
            p = next((p for p in room.placed if p.cell == source.id and p.wall_id == view), None)
            return (p.x, p.bottom, p.right, p.top) if p is not None else None
        case Kind.OPENING:
            o = next((o for o in r.openings if o.id == source.id and o.wall == view), None)
            return (o.x.mm, o.sill.mm, o.x.mm + o.width.mm, o.sill.mm + o.height.mm) if o is not None else None
        case Kind.COLUMN:
            c = next((c for c in r.columns if c.id == source.id and c.wall == view), None)
            return (c.x.mm, 0.0, c.x.mm + c.width.mm, column_height(r, c)) if c is not None else None
        case Kind.SERVICE:
            s = next((s for s in r.services if s.id == source.id and s.wall == view), None)
            return (s.x.mm, s.height.mm, s.x.mm, s.height.mm) if s is not None else None
        case Kind.RUN | Kind.ISLAND:
            tops = [t for t in room.worktops if t.source == source and t.wall_id == view]
            if not tops:
                return None
            return (
                min(t.x for t in tops), min(t.bottom for t in tops), max(t.x + t.length for t in tops),
                max(t.bottom + t.thickness for t in tops),
            )  # fmt: skip
    return None


def _footprint(room: RoomLayout, source: Source) -> list[FloorPoint]:
    r = room.room
    match source.kind:
        case Kind.ROOM:
            return list(room.points) if source.id == r.id else []
        case Kind.WALL if room.has_line(source.id):
            wall = room.wall(source.id)
            return [wall.start, wall.end]
        case Kind.CELL:
            p = next((p for p in room.placed if p.cell == source.id), None)
            return [p.frame.floor(x, y) for x, y in p.plan] if p is not None else []
        case Kind.OPENING:
            o = next((o for o in r.openings if o.id == source.id), None)
            if o is None or not room.has_line(o.wall):
                return []
            frame = room.wall(o.wall).frame
            return [frame.floor(x, 0.0) for x in (o.x.mm, o.x.mm + o.width.mm)]
        case Kind.COLUMN:
            c = next((c for c in r.columns if c.id == source.id), None)
            return list(column_points(r, c)) if c is not None else []
        case Kind.SERVICE:
            s = next((s for s in r.services if s.id == source.id), None)
            if s is None:
                return []
            return [room.wall(s.wall).frame.floor(s.x.mm, 0.0) if s.wall else FloorPoint((s.x.mm, s.y.mm))]
        case Kind.RUN | Kind.ISLAND:
            return [
                room.wall(t.wall_id).frame.floor(x, -out)
                for t in room.worktops
                if t.source == source
                for x, out in t.points
            ]
    return []


def anchor_at(room: RoomLayout, dimension: Dimension, anchor: DimensionEnd) -> Point | None:
    """Where an anchor lies in its view: the place along what is measured, and across it; None where it is gone."""
    source = Source.parse(anchor.to)
    box = box_in(room, dimension.view, source) if source is not None else None
    if box is None:
        return None
    k = 0 if dimension.along == "x" else 1
    if anchor.role == "corner":
        corners = corners_in(room, dimension.view, source) if source is not None else []
        if not 1 <= anchor.corner <= len(corners):
            return None
        point = corners[anchor.corner - 1]
        return point[k], point[1 - k]
    sides = ACROSS if k == 0 else UP
    at = box[sides[anchor.role]] if anchor.role in sides else (box[k] + box[k + 2]) / 2
    return at, (box[1 - k] if dimension.offset < 0 else box[3 - k])


def measured(room: RoomLayout, dimension: Dimension) -> tuple[float, float, float] | None:
    """From where to where a dimension measures, and where its line counts from, mm; None where an anchor is gone."""
    a, b = anchor_at(room, dimension, dimension.a), anchor_at(room, dimension, dimension.b)
    if a is None or b is None:
        return None
    base = min(a[1], b[1]) if dimension.offset < 0 else max(a[1], b[1])
    return a[0], b[0], base


def gone(room: RoomLayout, dimension: Dimension) -> list[str]:
    """Which of its anchors are gone, in words."""
    return [anchor_words(room, x.to) for x in (dimension.a, dimension.b) if anchor_at(room, dimension, x) is None]


def anchor_words(room: RoomLayout, to: str) -> str:
    """What an anchor's thing is called: a unit by its number where it is there."""
    source = Source.parse(to)
    if source is None:
        return "something"
    if source.kind is Kind.CELL:
        return next((p.number or "a filler" for p in room.placed if p.cell == source.id), "a unit")
    return f"wall {source.id}" if source.kind is Kind.WALL else f"the {source.kind.value}"
