"""Sliding doors."""

from __future__ import annotations

from tall_plank.job.things.sliding import LEAF
from tall_plank.making.sliding import MadeSliding
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomFrame, Vec
from tall_plank.setout import Wall
from tall_plank.solids.parts import board_color, solid_of
from tall_plank.solids.solids import Box, Solid
from tall_plank.solids.things.common import Stage, ThingSolids
from tall_plank.stock import Stock


def sliding_solids(stock: Stock, wall: Wall, doors: MadeSliding, *, opened: bool) -> list[Solid]:
    """The leaves with their frames and fillings; opened, they stand one behind another at the left."""
    found: list[Solid] = []
    for i, leaf in enumerate(doors.leaves):
        shift = (doors.leaves[0].x - leaf.x) if opened and i % 2 else 0.0
        if opened and not i % 2 and i:
            shift = doors.leaves[i - 1].x + doors.leaves[i - 1].width / 3 - leaf.x
        line = wall.frame.then(Frame((shift, 0.0, 0.0)))
        y = -(doors.out - leaf.line * doors.pitch)
        f, w, h = doors.frame, leaf.width, doors.leaf_height

        def bar(x: float, z: float, size: Vec, line: RoomFrame = line, y: float = y) -> Box:
            return Box(line.then(Frame((x, y, z))), size, "#8F9496", doors.source, "leaf frame")

        found += [
            bar(leaf.x, doors.leaf_z, (f, LEAF, h)), bar(leaf.x + w - f, doors.leaf_z, (f, LEAF, h)),
            bar(leaf.x + f, doors.leaf_z, (w - 2 * f, LEAF, f)),
            bar(leaf.x + f, doors.leaf_z + h - f, (w - 2 * f, LEAF, f)),
        ]  # fmt: skip
        for band in leaf.bands[:-1]:
            found.append(bar(leaf.x + f, band.z - f, (w - 2 * f, LEAF, f)))
        for index, part in doors.parts:
            if index == i:
                color = board_color(stock, part.board)
                found += solid_of(line.then(part.frame), part, color, doors.source, part.name)
    for index, part in doors.parts:
        if index < 0:
            found += solid_of(
                wall.frame.then(part.frame), part, board_color(stock, part.board), doors.source, part.name
            )
    top = doors.leaf_z + doors.leaf_height
    for z, high in ((doors.leaf_z - 10.0, 8.0), (top + 4.0, 26.0)):
        deep = doors.pitch + LEAF
        frame = wall.frame.then(Frame((doors.x, -doors.out, z)))
        found.append(Box(frame, (doors.width, deep, high), "#8F9496", doors.source, "track"))
    return found


def _dress(stage: Stage) -> list[Solid]:
    found: list[Solid] = []
    room = stage.room
    for doors in stage.made.sliding:
        if doors.room == room.room.id and stage.fronts != "off":
            opened = stage.fronts == "open"
            found += sliding_solids(stage.job.stock, room.wall(doors.wall_id), doors, opened=opened)
    return found


SLIDING = ThingSolids(dress=_dress)
