"""How the shop cuts this job's boards, and the cutting plan that was kept."""

from __future__ import annotations

from typing import Literal

import msgspec


class Cutting(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Decisions on the saw. Lengths are mm.

    Attributes
    ----------
    kerf : width of the saw's cut; for the router the gap that its tool takes between parts
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


class LaidPart(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A part on a board: mm from a corner of the untrimmed board, sizes along x and y."""

    part: str
    x: float
    y: float
    length: float
    width: float
    turned: bool = False
    angle: float = 0.0


class LaidBoard(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A board of a kept plan; offcuts (x, y, length, width), mm. `rack`: number of the offcut that it is; 0: a new
    board."""

    board: str
    material: str
    length: float
    width: float
    parts: tuple[LaidPart, ...]
    offcuts: tuple[tuple[float, float, float, float], ...] = ()
    rack: int = 0


class KeptPlan(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A cutting plan that was accepted, with the hash of what it was made from: it holds as long as that stays."""

    made_from: str
    boards: tuple[LaidBoard, ...]

    @property
    def rack(self) -> tuple[int, ...]:
        """Numbers of the offcuts that it cuts."""
        return tuple(b.rack for b in self.boards if b.rack)
