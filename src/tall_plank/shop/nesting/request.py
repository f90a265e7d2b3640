"""What is asked of a cutting plan, and what it answers. Lengths are mm."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

import msgspec

from tall_plank.job.cutting import LaidBoard, share_used

Mode = Literal["saw", "router"]
FirstCut = Literal["either", "along", "across"]


class NestPart(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A part to cut, `qty` times.

    Attributes
    ----------
    length, width : mm, cut sizes
    grain : "length" runs along the board and is not turned, "none" may be
    match : parts of one name are cut side by side from one board, in their order
    match_way : "end": they are cut end to end instead
    outline : corners in the part's own frame where it is no rectangle (router only)
    holes : outlines of openings that go right through, in which smaller parts may lie (router only)
    """

    part: str
    length: float
    width: float
    qty: int = 1
    material: str = ""
    grain: Literal["length", "none"] = "none"
    match: str = ""
    match_way: Literal["side", "end"] = "side"
    outline: tuple[tuple[float, float], ...] = ()
    holes: tuple[tuple[tuple[float, float], ...], ...] = ()


class NestBoard(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A board that can be cut. Its length is its grain.

    Attributes
    ----------
    price : of one board; all 0: boards cost their area
    qty : how many there are; None: as many as needed
    offcut : a piece left from before: taken first
    """

    board: str
    material: str
    length: float
    width: float
    price: float = 0.0
    qty: int | None = None
    offcut: bool = False


class NestRules(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """How is cut.

    Attributes
    ----------
    kerf : mm, width of the saw's cut; for the router the gap that its tool takes between parts
    trim : mm taken off all four sides first, the trim's own cut included
    turns : turns of the board at the saw at most, the cuts that trim it left out; 0: as many as it takes
    first_cut : direction of the first cuts: along the board, across it (head cuts), or either
    keep_length, keep_width : mm, least size of what is left that is worth keeping
    effort : 1 (a quick look) to 9; the same effort, seed and parts give the same plan
    pack : whether boards are sawn in packs: then equal layouts are looked for, at the cost of no board
    seconds : after which the search ends early with the best so far; 0: not at all
    """

    kerf: float = 3.2
    trim: float = 10.0
    mode: Mode = "saw"
    turns: int = 0
    first_cut: FirstCut = "either"
    keep_length: float = 400.0
    keep_width: float = 150.0
    effort: int = 5
    seconds: float = 10.0
    seed: int = 1
    pack: bool = False


class Request(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Parts, boards and rules: a frozen question to a worker."""

    parts: tuple[NestPart, ...]
    boards: tuple[NestBoard, ...]
    rules: NestRules = NestRules()


class Unplaced(msgspec.Struct, frozen=True):
    """Parts that are on no board, and why."""

    part: str
    qty: int
    why: str


class NestPlan(msgspec.Struct, frozen=True):
    """A cutting plan.

    Attributes
    ----------
    boards : as they were asked for: an offcut's number stands in its code
    bound : least number of boards that any plan can do with, proven, over all materials
    seconds : that the search took
    done : whether the search went to its end
    cost : of its boards
    turns : of the saw at each board; none for the router
    """

    boards: tuple[LaidBoard, ...]
    unplaced: tuple[Unplaced, ...]
    bound: int = 0
    seconds: float = 0.0
    done: bool = True
    cost: float = 0.0
    turns: tuple[int, ...] = ()

    @property
    def used(self) -> float:
        """Yield: area of the parts over the full area of the boards."""
        return share_used(self.boards)


Told = Callable[[NestPlan], None]
"""Takes a better plan."""

Stopped = Callable[[], bool]
