"""How work lies on a machine: from the board's own frame to the numbers of its programs.

The board's frame: u along its length, v along its width, from the corner that lies nearest on the left, the face that
is worked up. As who stands before the machine sees it, u goes to the right; where the bed is long along Y, to the back.
"""

from __future__ import annotations

from tall_plank.shop.machine.model import Machine

Edge = tuple[str, str]
"""Which way an edge of the board lies: ("u", "least") is the end at u 0."""


class Frame:
    """A board of a size on a machine.

    Parameters
    ----------
    size : length, width, thickness of the board, mm
    """

    def __init__(self, machine: Machine, size: tuple[float, float, float]) -> None:
        self.machine = machine
        self.length, self.width, self.thickness = size
        upright = machine.long_side == "y"
        self.upright = upright
        self.seen = (self.width, self.length) if upright else (self.length, self.width)
        where = machine.zero
        part = {"left": 0.0, "right": 1.0, "front": 0.0, "back": 1.0}
        words = where.split()
        self.share = (0.5, 0.5) if where == "middle" else (part[words[1]], part[words[0]])

    def look(self, u: float, v: float) -> tuple[float, float]:
        """Where a place lies as who stands there sees it: to the right and to the back of the board's nearest corner on
        the left; mm."""
        return (self.width - v, u) if self.upright else (u, v)

    def out(self, u: float, v: float) -> tuple[float, float]:
        """X and Y of a place on the board, mm."""
        a, b = self.look(u, v)
        x, y = a - self.share[0] * self.seen[0], b - self.share[1] * self.seen[1]
        return (-x if self.machine.x_to == "left" else x), (-y if self.machine.y_to == "front" else y)

    def height(self, z: float) -> float:
        """Z of a height above the spoil board, mm."""
        return z - self.thickness if self.machine.z_zero == "top" else z

    @property
    def zero(self) -> tuple[float, float]:
        """Where X0 Y0 is in the board's frame, mm."""
        return self._back(0.0, 0.0)

    @property
    def mirrored(self) -> bool:
        """Whether its X and Y turn the other way round: arcs then do too."""
        return (self.machine.x_to == "left") != (self.machine.y_to == "front")

    def room(self) -> tuple[float, float, float, float]:
        """The bed in the board's frame: least u and v, greatest u and v, mm."""
        m = self.machine
        along, across = self.share[::-1] if self.upright else self.share
        # Upright, what lies to the right is the board's front.
        across = 1.0 - across if self.upright else across
        u0, v0 = along * (self.length - m.bed_length), across * (self.width - m.bed_width)
        return u0, v0, u0 + m.bed_length, v0 + m.bed_width

    def clamps(self) -> list[tuple[float, float, float, float, float]]:
        """Clamps in the board's frame: least u and v, greatest u and v, height, mm. A machine tells them in X and Y."""
        return [(*self._box(c.x, c.y, c.x + c.length, c.y + c.width), c.height) for c in self.machine.clamps]

    def _box(self, x0: float, y0: float, x1: float, y1: float) -> tuple[float, float, float, float]:
        found = [self._back(x, y) for x, y in ((x0, y0), (x1, y1))]
        us, vs = [p[0] for p in found], [p[1] for p in found]
        return min(us), min(vs), max(us), max(vs)

    def _back(self, x: float, y: float) -> tuple[float, float]:
        x, y = (-x if self.machine.x_to == "left" else x), (-y if self.machine.y_to == "front" else y)
        a, b = x + self.share[0] * self.seen[0], y + self.share[1] * self.seen[1]
        return (b, self.width - a) if self.upright else (a, b)

    @property
    def stops(self) -> tuple[Edge | None, Edge | None]:
        """Edges of the board that lie at X0 and at Y0; None where the middle does."""
        if self.machine.zero == "middle":
            return None, None
        right, back = self.share[0] > 0.5, self.share[1] > 0.5
        if self.upright:
            return ("v", "least" if right else "most"), ("u", "most" if back else "least")
        return ("u", "most" if right else "least"), ("v", "most" if back else "least")
