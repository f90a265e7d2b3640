"""Moldings mitred round a rectangle on a wall, as solids."""

from __future__ import annotations

import math

from tall_plank.job import Source
from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_Y
from tall_plank.setout import Wall
from tall_plank.setout.frames import MoldingFrame
from tall_plank.solids.solids import Prism, Solid
from tall_plank.stock import Stock


def frame_solids(stock: Stock, wall: Wall, frame: MoldingFrame, source: Source, name: str) -> list[Solid]:
    """Every side of a frame with its section and mitres."""
    profile = stock.profile(frame.profile)
    if profile is None:
        return []
    finish = stock.finish(profile.finish)
    color = finish.color if finish else "#EDEAE2"
    # Across the molding first, then out of the wall; each side runs with its outer edge to its right.
    section = tuple((y, x) for x, y in profile.section)
    found: list[Solid] = []
    for side, length, start, end in frame.pieces():
        (x, z), (u, v) = frame.along(side)
        place = wall.frame.then(Frame((x, -frame.back, z), (-v, 0.0, u), NEG_Y))
        skew = (math.tan(math.radians(start)), -math.tan(math.radians(end)))
        found.append(Prism(place, section, length, color, source, name, skew))
    return found
