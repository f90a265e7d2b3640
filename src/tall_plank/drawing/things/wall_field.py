"""Wall fields: their pieces and panel moldings as they are seen, those nearer to the wall first."""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from tall_plank.drawing.floor import on_line
from tall_plank.drawing.frames import frame_items
from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job import Kind, Source
from tall_plank.job.things.column import face_id
from tall_plank.making import MadeTrim, Part
from tall_plank.making.parts import Groove
from tall_plank.measure import format_length
from tall_plank.measure.outlines import Points
from tall_plank.setout import RoomLayout, Wall
from tall_plank.setout.paneling.values import depth_of
from tall_plank.stock import Stock


def field_trims(scope: Scope, wall: Wall) -> list[MadeTrim]:
    """The pieces of the fields of a wall."""
    return [
        t
        for t in scope.made.trims
        if t.part is not None
        and t.source is not None
        and t.source.kind is Kind.WALL_FIELD
        and t.room == scope.room.room.id
        and t.parent == wall.frame
    ]


def covered_fronts(room: RoomLayout, wall: Wall) -> list[tuple[Wall, float, float]]:
    """The covered fronts of columns that stand against a wall, with where each begins along it and how far it stands
    out, mm."""
    fronts = {face_id(c, "front"): c for c in room.room.columns if c.wall == wall.id}
    return [(s, fronts[s.id].x.mm, fronts[s.id].depth.mm) for s in room.sides if s.id in fronts]


def outline_on_wall(part: Part) -> Points:
    """A piece that lies flat on its wall: x along it, z up, mm."""
    points = part.outline or ((0.0, 0.0), (part.length, 0.0), (part.length, part.width), (0.0, part.width))
    found = []
    for u, v in points:
        x, _, z = part.frame.at(u, v, 0.0)
        found.append((x, z))
    return tuple(found)


def _groove_edges(part: Part, source: Source | None, x: float) -> list[Item]:
    """Both edges of every groove in the face of a piece; `x`: mm that its line lies along the wall."""
    items: list[Item] = []
    for op in part.operations:
        if isinstance(op, Groove) and op.face == "A" and op.over == "face":
            for side in (-op.width / 2, op.width / 2):
                (a, _, c), (b, _, d) = (part.frame.at(u, v + side, 0.0) for u, v in ((op.x1, op.y1), (op.x2, op.y2)))
                items.append(Line(x + a, c, x + b, d, Pen.NARROW, Layer.TRIM, source, over=True))
    return items


def _color(stock: Stock, part: Part) -> tuple[str, str]:
    board = stock.board_by_code(part.board)
    finish = stock.finish(board.finish) if board else None
    grain = ""
    if board is not None and board.grain != "none":
        grain = "y" if abs(part.frame.x[2]) > 0.5 else "x"
    return (finish.color if finish else "#CCCCCC"), grain


def _on_wall(scope: Scope, wall: Wall) -> list[Item]:
    items: list[Item] = []
    pieces = [
        (t.part, t.source, x, out)
        for line, x, out in ((wall, 0.0, 0.0), *covered_fronts(scope.room, wall))
        for t in field_trims(scope, line)
        if t.part is not None and t.part.role != "batten"
    ]
    # From the wall outwards: what stands farther off covers what is behind.
    pieces.sort(key=lambda piece: piece[0].thickness - piece[0].frame.origin[1] + piece[3])
    for part, source, x, _ in pieces:
        color, grain = _color(scope.job.stock, part)
        points = tuple((x + u, z) for u, z in outline_on_wall(part))
        items.append(Shape(points, Pen.NARROW, Layer.TRIM, source, color, grain))  # type: ignore[arg-type]
        items += _groove_edges(part, source, x)
    for line, x, _ in ((wall, 0.0, 0.0), *covered_fronts(scope.room, wall)):
        for made in scope.made.fields:
            if made.room == scope.room.room.id and made.wall_id == line.id:
                for frame in made.moldings:
                    here = msgspec.structs.replace(frame, x0=x + frame.x0, x1=x + frame.x1) if x else frame
                    items += frame_items(scope.job.stock, here, made.source)
    return [*items, *_rakes(scope, wall)]


def _signs(scope: Scope, wall: Wall) -> list[Item]:
    """What no solid shows: grooves in boards of other outlines than rectangles, and what is told of rakes."""
    items: list[Item] = []
    for line, x, _ in ((wall, 0.0, 0.0), *covered_fronts(scope.room, wall)):
        for t in field_trims(scope, line):
            if t.part is not None and t.part.outline:
                items += _groove_edges(t.part, t.source, x)
    return [*items, *_rakes(scope, wall)]


ROOM_FOR_WORDS = 2500.0
"""mm; a shorter raking stretch tells its angle only."""


def _rakes(scope: Scope, wall: Wall) -> list[Item]:
    """What is told of every raking stretch over its upper line: its angle, how high it is plumb, and how high its foot
    begins at the left."""
    items: list[Item] = []
    display = scope.job.display
    for laid in (f for f in scope.room.fields if f.wall_id == wall.id):
        over = max((r.z1 - r.z0 for r in laid.rails if r.what == "raked rail"), default=0.0)
        for s in (s for zone in laid.zones for s in zone.stretches if s.rake):
            degrees = math.degrees(math.atan(s.rake))
            high, foot = (format_length(mm, display) for mm in (s.z1 - s.z0, s.z0))
            text = f"{degrees:.4g}°"
            if s.x1 - s.x0 >= ROOM_FOR_WORDS:
                text += f", {high} plumb, from {foot} at its left end"
            x = (s.x0 + s.x1) / 2
            z = s.line.at(x) + s.z1 - s.z0 + over
            source = Kind.WALL_FIELD.of(laid.field.id)
            items.append(Text(x, z, text, 2.0, Layer.LABEL, source, angle=degrees, rise=2.4, quiet=True))
    return items


def _floor(scope: Scope) -> list[Item]:
    """From above: what each zone that reaches below the plan's cut takes before its wall, battens and all."""
    items: list[Item] = []
    for laid in scope.room.fields:
        wall = scope.room.wall(laid.wall_id)
        for zone in laid.zones:
            out = laid.fixing + depth_of(zone.cover, laid.made)
            spans = sorted((r.bounds[0], r.bounds[2]) for r in zone.regions if r.bounds[1] < PLAN_CUT)
            for x0, x1 in joined_spans(spans):
                points = on_line(wall, x0, -out, x1 - x0, out)
                items.append(Shape(points, Pen.NARROW, Layer.TRIM, Kind.WALL_FIELD.of(laid.field.id), "unit"))
    return items


PLAN_CUT = 1200.0
"""mm above the floor at which a plan is cut (common practice)."""


def joined_spans(spans: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """Stretches along a wall, those that touch in one; mm, sorted."""
    found: list[tuple[float, float]] = []
    for a, b in spans:
        if found and a <= found[-1][1] + 0.5:
            found[-1] = (found[-1][0], max(found[-1][1], b))
        else:
            found.append((a, b))
    return found


WALL_FIELD = ThingDrawn(on_wall=_on_wall, solid=True, signs=_signs, floor=_floor)
