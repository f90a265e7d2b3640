"""Walls with their openings left open, and what fills these."""

from __future__ import annotations

from tall_plank.job import Kind, Opening
from tall_plank.measure import Frame
from tall_plank.setout import RoomLayout, Wall
from tall_plank.solids.frames import frame_solids
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.solids.things.common import GLASS, JOINERY, WALL, Stage, ThingSolids


def _wall_solids(wall: Wall, openings: list[Opening]) -> list[Solid]:
    """A wall with its openings left open: pieces beside, below and above each, under the slope of the ceiling."""
    found: list[Solid] = []
    t, source = wall.thickness, Kind.WALL.of(wall.id)

    def piece(x0: float, x1: float, z0: float, z1: float | None) -> None:
        if x1 - x0 <= 0.01:
            return
        if z1 is None and wall.profile:
            marks = [x0, *(x for x, _ in wall.profile if x0 < x < x1), x1]
            top = [(x, wall.height_at(x)) for x in reversed(marks)]
            points = ((x0, z0), (x1, z0), *top)
            # x along the wall, y up: z then looks into the room, so it starts at the wall's far side.
            frame = wall.frame.then(Frame((0.0, t, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)))
            found.append(Prism(frame, points, t, WALL, source, "wall"))
            return
        high = wall.height if z1 is None else z1
        if high - z0 > 0.01:
            found.append(Box(wall.frame.then(Frame((x0, 0.0, z0))), (x1 - x0, t, high - z0), WALL, source, "wall"))

    at = 0.0
    for o in sorted(openings, key=lambda o: o.x.mm):
        x, w, sill, top = o.x.mm, o.width.mm, o.sill.mm, o.sill.mm + o.height.mm
        piece(at, x, 0.0, None)
        piece(x, x + w, 0.0, sill)
        piece(x, x + w, top, None)
        if o.kind == "niche":
            deep = min(o.depth.mm, t)
            place = wall.frame.then(Frame((x, deep, sill)))
            found.append(Box(place, (w, max(1.0, t - deep), o.height.mm), WALL, Kind.OPENING.of(o.id), o.kind))
        elif o.kind != "arch":
            pane = GLASS if o.kind == "window" else JOINERY
            place = wall.frame.then(Frame((x, o.reveal.mm or t * 0.45, sill)))
            found.append(Box(place, (w, t * 0.1, o.height.mm), pane, Kind.OPENING.of(o.id), o.kind))
        at = x + w
    piece(at, wall.length, 0.0, None)
    return found


def _shell(room: RoomLayout) -> list[Solid]:
    found: list[Solid] = []
    for wall in room.walls:
        found += _wall_solids(wall, [o for o in room.room.openings if o.wall == wall.id])
    return found


def _dress(stage: Stage) -> list[Solid]:
    """Casings."""
    found: list[Solid] = []
    for casing in stage.room.casings:
        wall = stage.room.wall(casing.wall_id)
        found += frame_solids(stage.job.stock, wall, casing.frame, casing.source, f"{CASING} {casing.wall_id}")
    return found


CASING = "casing"
"""What names of the solids of casings begin with."""

OPENING = ThingSolids(shell=_shell, dress=_dress)
