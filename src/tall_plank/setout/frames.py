"""Moldings mitred round an upright rectangle, flat on a wall: round panels, and casings round openings."""

from __future__ import annotations

import math
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
    """A molding round a rectangle, or round one whose level sides rake.

    Attributes
    ----------
    x0, z0, x1, z1 : its outer edges on the wall, mm; where it rakes, heights are those at its left side
    back : mm from the wall to its back
    profile : its code; the section's y runs in from the outer edge
    sides : those that it has; where two meet they are mitred, else it ends square, a raking one plumb
    rake : degrees by which its lower and upper side rise to the right
    what : what it is called on lists
    """

    x0: float
    z0: float
    x1: float
    z1: float
    back: float
    profile: str
    sides: tuple[FrameSide, ...] = ALL_SIDES
    rake: float = 0.0
    what: str = "panel molding"

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.z1 - self.z0

    def pieces(self) -> tuple[tuple[FrameSide, float, float, float], ...]:
        """Every side with the length of its outer edge, and the saw angle at its start and end, degrees from square:
        above 0 the outer edge is the longer one. Sides run round counter-clockwise."""
        # Corners from the lower left one on: half of what each lacks to a straight line.
        corners = [45.0 + (self.rake if i % 2 == 0 else -self.rake) / 2 for i in range(4)]
        found = []
        for i, side in enumerate(ALL_SIDES):
            if side in self.sides:
                before, after = ALL_SIDES[i - 1] in self.sides, ALL_SIDES[(i + 1) % 4] in self.sides
                level = side in ("bottom", "top")
                length = self.width / math.cos(math.radians(self.rake)) if level else self.height
                plumb = self.rake if level else 0.0
                found.append((
                    side, length, corners[i] if before else plumb, corners[(i + 1) % 4] if after else -plumb
                ))  # fmt: skip
        return tuple(found)

    def along(self, side: FrameSide) -> tuple[tuple[float, float], tuple[float, float]]:
        """Where the outer edge of a side starts on the wall, mm, and the unit vector along it; the frame lies to the
        left of it."""
        up = math.tan(math.radians(self.rake)) * self.width
        c, s = math.cos(math.radians(self.rake)), math.sin(math.radians(self.rake))
        return {
            "bottom": ((self.x0, self.z0), (c, s)),
            "right": ((self.x1, self.z0 + up), (0.0, 1.0)),
            "top": ((self.x1, self.z1 + up), (-c, -s)),
            "left": ((self.x0, self.z1), (0.0, -1.0)),
        }[side]

    def outline_of(self, side: FrameSide, wide: float) -> Points:
        """The four corners of a side as it is seen, of a molding so wide (mm): outer edge first."""
        _, length, start, end = next(p for p in self.pieces() if p[0] == side)
        (x, z), (u, v) = self.along(side)

        def at(along: float, inwards: float) -> tuple[float, float]:
            return (x + u * along - v * inwards, z + v * along + u * inwards)

        a, b = (wide * math.tan(math.radians(angle)) for angle in (start, end))
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
