"""Moldings in the panels of wall fields; their boards are parts and stand with all others."""

from __future__ import annotations

from tall_plank.solids.frames import frame_solids
from tall_plank.solids.solids import Solid
from tall_plank.solids.things.common import Stage, ThingSolids


def _dress(stage: Stage) -> list[Solid]:
    found: list[Solid] = []
    for made in stage.made.fields:
        if made.room == stage.room.room.id:
            wall = stage.room.wall(made.wall_id)
            for frame in made.moldings:
                found += frame_solids(stage.job.stock, wall, frame, made.source, f"panel molding {made.wall_id}")
    return found


WALL_FIELD = ThingSolids(dress=_dress, on_face=True)
