"""Moldings in the panels of wall fields; their boards are parts and stand with all others."""

from __future__ import annotations

from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_X, NEG_Y, NEG_Z, X, Z
from tall_plank.solids.solids import Prism, Solid
from tall_plank.solids.things.common import Stage, ThingSolids


def _dress(stage: Stage) -> list[Solid]:
    found: list[Solid] = []
    stock = stage.job.stock
    for made in stage.made.fields:
        if made.room != stage.room.room.id:
            continue
        wall = stage.room.wall(made.wall_id)
        for m in made.moldings:
            profile = stock.profile(m.profile)
            if profile is None:
                continue
            finish = stock.finish(profile.finish)
            # Across the molding first, then out of the wall; each side runs with its outer edge to its left.
            section = tuple((y, x) for x, y in profile.points)
            wide, high = m.x1 - m.x0, m.z1 - m.z0
            for inward, at, length in (
                (Z, (m.x0, m.z0), wide), (NEG_X, (m.x1, m.z0), high), (NEG_Z, (m.x1, m.z1), wide),
                (X, (m.x0, m.z1), high),
            ):  # fmt: skip
                frame = wall.frame.then(Frame((at[0], -m.back, at[1]), inward, NEG_Y))
                color = finish.color if finish else "#EDEAE2"
                found.append(Prism(frame, section, length, color, made.source, "panel molding", (1.0, -1.0)))
    return found


WALL_FIELD = ThingSolids(dress=_dress, on_face=True)
