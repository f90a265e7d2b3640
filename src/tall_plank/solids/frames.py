"""Moldings mitred round a rectangle on a wall, as solids."""

from __future__ import annotations

from tall_plank.job import Source
from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_X, NEG_Y, NEG_Z, X, Z
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
    starts = {
        "bottom": (Z, frame.x0, frame.z0), "right": (NEG_X, frame.x1, frame.z0), "top": (NEG_Z, frame.x1, frame.z1),
        "left": (X, frame.x0, frame.z1),
    }  # fmt: skip
    found: list[Solid] = []
    for side, length, start, end in frame.pieces():
        inwards, x, z = starts[side]
        place = wall.frame.then(Frame((x, -frame.back, z), inwards, NEG_Y))
        skew = (1.0 if start else 0.0, -1.0 if end else 0.0)
        found.append(Prism(place, section, length, color, source, name, skew))
    return found
