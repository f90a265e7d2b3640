"""Columns and chimney breasts."""

from __future__ import annotations

from tall_plank.job import Kind
from tall_plank.setout import RoomLayout
from tall_plank.setout.things.column import column_frame, column_height
from tall_plank.solids.solids import Box, Solid
from tall_plank.solids.things.common import WALL, ThingSolids


def _shell(room: RoomLayout) -> list[Solid]:
    found: list[Solid] = []
    for column in room.room.columns:
        size = (column.width.mm, column.depth.mm, column_height(room.room, column))
        found.append(Box(column_frame(room.room, column), size, WALL, Kind.COLUMN.of(column.id), column.kind))
    return found


COLUMN = ThingSolids(shell=_shell)
