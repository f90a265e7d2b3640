"""How the shop cuts this job's boards, and the cutting plan that was kept."""

from __future__ import annotations

from typing import Literal

import msgspec


class Cutting(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Decisions on the saw. Lengths are mm.

    Attributes
    ----------
    kerf : width of the saw's cut
    gap : between parts on the router; 0: as wide as the mill that cuts them out
    machine : name of the shop's machine that programs are written for; none: the shop's first
    pack : height of the boards that are cut at once; 0: one at a time
    opens : height that the saw takes
    sawn_on : a beam saw cuts strips in packs of any length, a panel saw cuts one piece after another by hand
    trim : taken off all four sides of a board first
    turns : turns of the board at the saw at most (three: along, across, along again; common practice); 0: as many as it
        takes
    keep_length, keep_width : least size of an offcut that goes to the rack
    effort : 1 (a quick look) to 9
    matched : whose fronts are cut side by side so that their grain goes on
    """

    kerf: float = 3.2
    trim: float = 10.0
    mode: Literal["saw", "router"] = "saw"
    turns: int = 3
    first_cut: Literal["either", "along", "across"] = "either"
    keep_length: float = 400.0
    keep_width: float = 150.0
    effort: int = 5
    seconds: float = 20.0
    matched: Literal["no", "unit", "run"] = "no"
    gap: float = 0.0
    machine: str = ""
    pack: float = 0.0
    opens: float = 80.0
    sawn_on: Literal["beam", "panel"] = "beam"


class LaidPart(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A part on a board, wherever a plan is searched for, shown, printed or kept.

    Attributes
    ----------
    x, y : mm along the board's length and width to its least corner, from a corner of the untrimmed board
    length, width : mm that it takes along x and y
    turned : its own length lies across the board
    angle : degrees that it is turned by, counter-clockwise; 0 with `turned`: a quarter
    area : mm² of its shape, where others may lie beside it in its box; 0: all of its box
    """

    part: str
    x: float
    y: float
    length: float
    width: float
    turned: bool = False
    angle: float = 0.0
    area: float = 0.0

    @property
    def covers(self) -> float:
        """Area of the board that it takes, mm²."""
        return self.area or self.length * self.width


def worth_keeping(length: float, width: float, keep_length: float, keep_width: float) -> bool:
    """Whether what is left of a board is as large as the least offcut, either way round. All in mm."""
    return (length >= keep_length and width >= keep_width) or (width >= keep_length and length >= keep_width)


class LaidBoard(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A board with its parts.

    Attributes
    ----------
    board, material : its code and what it is of
    length, width : mm
    offcuts : (x, y, length, width) of what is left and worth keeping, mm
    rack : number of the offcut that it is; 0: a new board
    """

    board: str
    material: str
    length: float
    width: float
    parts: tuple[LaidPart, ...]
    offcuts: tuple[tuple[float, float, float, float], ...] = ()
    rack: int = 0

    @property
    def title(self) -> str:
        """Its material, and which offcut it is."""
        return f"{self.material}, offcut {self.rack}" if self.rack else self.material

    @property
    def used(self) -> float:
        """Share of the full area that parts take."""
        return sum(p.covers for p in self.parts) / (self.length * self.width)


def share_used(boards: tuple[LaidBoard, ...]) -> float:
    """Yield: area of the parts over the full area of the boards; 0 where there is none."""
    area = sum(b.length * b.width for b in boards)
    return sum(b.used * b.length * b.width for b in boards) / area if area else 0.0


class KeptPlan(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A cutting plan that was accepted, with the hash of what it was made from: it holds as long as that stays."""

    made_from: str
    boards: tuple[LaidBoard, ...]

    @property
    def rack(self) -> tuple[int, ...]:
        """Numbers of the offcuts that it cuts."""
        return tuple(b.rack for b in self.boards if b.rack)
