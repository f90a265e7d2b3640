"""Sliding doors in elevation and plan."""

from __future__ import annotations

from tall_plank.drawing.primitives import Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.drawing.things.common import Scope, ThingDrawn
from tall_plank.job.things.sliding import LEAF
from tall_plank.making.sliding import MadeSliding
from tall_plank.setout import Wall
from tall_plank.stock import Stock

METAL = "#B9BDBF"


def sliding_items(doors: MadeSliding, stock: Stock) -> list[Item]:
    """The leaves as they are seen from the room, those behind first; an arrow on each says which way it runs."""
    source, frame = doors.source, doors.frame
    items: list[Item] = []
    if not doors.leaves:
        box = rectangle(doors.x, doors.z, doors.width, doors.height)
        items.append(Shape(box, Pen.DASHED, Layer.FRONT, source, ""))
        items.append(Line(doors.x, doors.z, doors.x + doors.width, doors.z + doors.height, Pen.DASHED, Layer.FRONT))
        return items
    top = doors.leaf_z + doors.leaf_height
    track = rectangle(doors.x, top - 6.0, doors.width, doors.z + doors.height - top + 6.0)
    items.append(Shape(track, Pen.NARROW, Layer.FRONT, source, METAL))
    low = rectangle(doors.x, doors.z, doors.width, doors.leaf_z - doors.z)
    items.append(Shape(low, Pen.NARROW, Layer.FRONT, source, METAL))
    for index, part in doors.parts:
        if index < 0:
            board = stock.board_by_code(part.board)
            finish = stock.finish(board.finish) if board else None
            strip = rectangle(part.frame.origin[0], part.frame.origin[2], part.length, part.thickness)
            items.append(Shape(strip, Pen.NARROW, Layer.FRONT, source, finish.color if finish else "#CCCCCC"))
    for i, leaf in sorted(enumerate(doors.leaves), key=lambda pair: -pair[1].line):
        outer = rectangle(leaf.x, doors.leaf_z, leaf.width, doors.leaf_height)
        items.append(Shape(outer, Pen.MEDIUM, Layer.FRONT, source, METAL))
        for band in leaf.bands:
            finish = stock.finish(band.finish)
            color = finish.color if finish else "#CCCCCC"
            x, w = leaf.x + frame, leaf.width - 2 * frame
            grain = "y" if finish is not None and finish.grain != "none" else ""
            items.append(Shape(rectangle(x, band.z, w, band.height), Pen.NARROW, Layer.FRONT, source, color, grain))  # type: ignore[arg-type]
        items += _leaf_signs(doors, i, stock)
    return items


def _leaf_signs(doors: MadeSliding, number: int, stock: Stock) -> list[Item]:
    """Strokes on glass, and an arrow."""
    source, leaf = doors.source, doors.leaves[number]
    items: list[Item] = []
    for band in leaf.bands:
        finish = stock.finish(band.finish)
        if finish is not None and "glass" in finish.roles:
            w = leaf.width - 2 * doors.frame
            gx, gz = leaf.x + doors.frame + w * 0.12, band.z + band.height * 0.12
            for shift in (0.0, 50.0):
                items.append(Line(gx + shift, gz, gx + shift + 90, gz + 150, Pen.NARROW, Layer.FRONT, source))
    # It runs over its neighbour: to the right but for the last leaf.
    way = 1.0 if number + 1 < len(doors.leaves) else -1.0
    mx, mz, reach = leaf.x + leaf.width / 2, doors.leaf_z + doors.leaf_height * 0.42, 90.0
    tip = mx + way * reach
    items += [
        Line(mx - way * reach, mz, tip, mz, Pen.MEDIUM, Layer.FRONT, source),
        Line(tip, mz, tip - way * 35, mz + 22, Pen.MEDIUM, Layer.FRONT, source),
        Line(tip, mz, tip - way * 35, mz - 22, Pen.MEDIUM, Layer.FRONT, source),
    ]
    return items


def leaves_from_above(doors: MadeSliding) -> list[tuple[tuple[float, float], ...]]:
    """Outlines of the leaves on the line's plan: x along it, y out of the wall (negative), mm."""
    found = []
    for leaf in doors.leaves:
        y = -(doors.out - leaf.line * doors.pitch)
        found.append(rectangle(leaf.x, y, leaf.width, LEAF))
    return found


def _on(scope: Scope, wall: Wall) -> list[MadeSliding]:
    return [d for d in scope.made.sliding if d.wall_id == wall.id and d.room == scope.room.room.id]


def _closing(scope: Scope, wall: Wall) -> list[Item]:
    return [item for doors in _on(scope, wall) for item in sliding_items(doors, scope.job.stock)]


def _signs(scope: Scope, wall: Wall) -> list[Item]:
    items: list[Item] = []
    for doors in _on(scope, wall):
        if not doors.leaves:
            items += sliding_items(doors, scope.job.stock)
        for i in range(len(doors.leaves)):
            items += _leaf_signs(doors, i, scope.job.stock)
    return items


def _fronts(scope: Scope) -> list[Item]:
    items: list[Item] = []
    for doors in scope.made.sliding:
        if doors.room == scope.room.room.id:
            frame = scope.room.wall(doors.wall_id).frame
            for leaf in leaves_from_above(doors):
                points = tuple(frame.floor(x, y) for x, y in leaf)
                items.append(Shape(points, Pen.NARROW, Layer.FRONT, doors.source, "unit"))
    return items


SLIDING = ThingDrawn(closing=_closing, solid=True, signs=_signs, fronts=_fronts)
