"""Moldings mitred round an upright rectangle, flat on a wall: round panels, and casings round openings."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job import Kind, Room, Source
from tall_plank.measure.outlines import Points
from tall_plank.stock import Profile

FrameSide = Literal["bottom", "right", "top", "left"]
ALL_SIDES: tuple[FrameSide, ...] = ("bottom", "right", "top", "left")

CASING_BACK = 5.0
"""mm that a casing stands back from the edge of its opening (common practice)."""


class MoldingFrame(msgspec.Struct, frozen=True, cache_hash=True):
    """A molding round a rectangle.

    Attributes
    ----------
    x0, z0, x1, z1 : its outer edges on the wall, mm
    back : mm from the wall to its back
    profile : its code; the section's y runs in from the outer edge
    sides : those that it has; where two meet they are mitred, else it ends square
    """

    x0: float
    z0: float
    x1: float
    z1: float
    back: float
    profile: str
    sides: tuple[FrameSide, ...] = ALL_SIDES

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.z1 - self.z0

    def pieces(self) -> tuple[tuple[FrameSide, float, float, float], ...]:
        """Every side with its length at the long points, and the saw angle at its start and end, degrees from square:
        mitred to the outer edge, which is the longer one. Sides run round counter-clockwise."""
        found = []
        for i, side in enumerate(ALL_SIDES):
            if side in self.sides:
                before, after = ALL_SIDES[i - 1] in self.sides, ALL_SIDES[(i + 1) % 4] in self.sides
                length = self.width if side in ("bottom", "top") else self.height
                found.append((side, length, 45.0 if before else 0.0, 45.0 if after else 0.0))
        return tuple(found)

    def outline_of(self, side: FrameSide, wide: float) -> Points:
        """The four corners of a side as it is seen, of a molding so wide (mm): outer edge first."""
        starts = {
            "bottom": (self.x0, self.z0),
            "right": (self.x1, self.z0),
            "top": (self.x1, self.z1),
            "left": (self.x0, self.z1),
        }
        ways = {"bottom": (1.0, 0.0), "right": (0.0, 1.0), "top": (-1.0, 0.0), "left": (0.0, -1.0)}
        _, length, start, end = next(p for p in self.pieces() if p[0] == side)
        (x, z), (u, v) = starts[side], ways[side]

        def at(along: float, inwards: float) -> tuple[float, float]:
            return (x + u * along - v * inwards, z + v * along + u * inwards)

        a, b = wide if start else 0.0, wide if end else 0.0
        return (at(0.0, 0.0), at(length, 0.0), at(length - b, wide), at(a, wide))


class Casing(msgspec.Struct, frozen=True, cache_hash=True):
    """The casing of an opening.

    Attributes
    ----------
    wide : of its profile, mm
    """

    opening: str
    wall_id: str
    frame: MoldingFrame
    wide: float
    by_others: bool

    @property
    def source(self) -> Source:
        return Kind.OPENING.of(self.opening)

    @property
    def box(self) -> tuple[float, float, float, float]:
        """x0, z0, x1, z1 of all that it takes of its wall, mm."""
        return (self.frame.x0, self.frame.z0, self.frame.x1, self.frame.z1)


def casings_of(room: Room, profiles: tuple[Profile, ...]) -> tuple[Casing, ...]:
    """The casings of a room: three sides round what reaches the floor, four round what does not."""
    by_code = {p.code: p for p in profiles}
    found = []
    for o in room.openings:
        profile = by_code.get(o.casing)
        if profile is None:
            continue
        out = CASING_BACK + profile.height
        on_floor = o.sill.mm < 0.5
        x, z = o.x.mm, o.sill.mm
        frame = MoldingFrame(
            x - out, z if on_floor else z - out, x + o.width.mm + out, z + o.height.mm + out, 0.0, profile.code,
            ("right", "top", "left") if on_floor else ALL_SIDES,
        )  # fmt: skip
        found.append(Casing(o.id, o.wall, frame, profile.height, o.casing_by_others))
    return tuple(found)
