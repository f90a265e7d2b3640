"""Moldings with their sections and mitres."""

from __future__ import annotations

import math

from tall_plank.job import Kind
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomPoint
from tall_plank.solids.solids import Prism, Solid
from tall_plank.solids.things.common import Stage, ThingSolids


def _dress(stage: Stage) -> list[Solid]:
    job, room = stage.job, stage.room
    found: list[Solid] = []
    for piece in room.all_moldings:
        profile = job.stock.profile(piece.profile)
        if profile is None:
            continue
        length = math.dist(piece.start, piece.end)
        ux, uy = (piece.end[0] - piece.start[0]) / length, (piece.end[1] - piece.start[1]) / length
        # Section: x out of the wall (to the right of the way), y up; z runs back along the piece.
        frame = Frame(RoomPoint((piece.end[0], piece.end[1], piece.low)), (uy, -ux, 0.0), (0.0, 0.0, 1.0))
        finish = job.stock.finish(profile.finish)
        color = finish.color if finish else "#EDEAE2"
        # At an inner corner the back is the longer side: the face draws in.
        skew = (math.tan(math.radians(piece.right)), -math.tan(math.radians(piece.left)))
        found.append(
            Prism(
                frame,
                profile.section,
                length,
                color,
                Kind.MOLDING.of(piece.molding),
                f"{piece.kind} {piece.wall_id}",
                skew,
            )
        )
    return found


MOLDING = ThingSolids(dress=_dress)
