"""Setting out the bays inside a unit: clear boxes, the zones of their fronts, and what stands between."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from tall_plank.job import Bay, Construction, Split
from tall_plank.measure.shareout import Member, Rule, share_out


@dataclass(frozen=True)
class Rect:
    """A rectangle seen from the unit's front: x to the right, z up, mm."""

    x0: float
    z0: float
    x1: float
    z1: float

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.z1 - self.z0


@dataclass(frozen=True)
class BayBox:
    """A bay set out.

    Attributes
    ----------
    path : child numbers from the root
    clear : its clear space
    zone : what its front covers
    left, right : name of the upright on either side ("left gable", "right gable" or a divider's name)
    opening : what things pass through on their way in: the clear space, or less where a face frame stands before it
    """

    path: tuple[int, ...]
    bay: Bay
    clear: Rect
    zone: Rect
    left: str
    right: str
    opening: Rect | None = None

    @property
    def through(self) -> Rect:
        return self.opening or self.clear


@dataclass(frozen=True)
class Board:
    """A shelf or divider between bays. `clear` is the board seen from the front; it stands after the child `index` of
    the bay at `parent`."""

    kind: Literal["shelf", "divider"]
    name: str
    clear: Rect
    left: str
    right: str
    parent: tuple[int, ...] = ()
    index: int = 0


@dataclass(frozen=True)
class BaySet:
    """All bays (branches included), boards between them, and what does not fit."""

    boxes: tuple[BayBox, ...]
    boards: tuple[Board, ...]
    short: tuple[tuple[tuple[int, ...], float], ...]
    members: tuple[tuple[str, Rect], ...] = ()
    """Rails and mullions of a face frame between bays, seen from the front."""

    @property
    def leaves(self) -> tuple[BayBox, ...]:
        return tuple(box for box in self.boxes if not box.bay.children)


def set_bays(bay: Bay, clear: Rect, zone: Rect, made: Construction) -> BaySet:
    """Divide a unit's clear space by its bay tree.

    Where shelves or dividers stand between bays, sizes are clear sizes and the fronts part at the boards' middle.
    Where nothing stands between, sizes are those of the fronts, and the bays part in the middle of the gap.
    """
    setter = _Setter(made, zone)
    setter.visit(bay, (), clear, zone, "left gable", "right gable")
    return BaySet(tuple(setter.boxes), tuple(setter.boards), tuple(setter.short), tuple(setter.members))


@dataclass(frozen=True)
class _Division:
    """How a bay is divided: along rows or columns, what stands between, and from where to where its children go.

    Attributes
    ----------
    board : thickness of what stands between, mm; 0 for nothing
    gap : mm between the fronts
    edges : start and end of each child, from the top down or from the left
    short : mm that its children lack, or leave over where nothing takes it
    """

    rows: bool
    nothing: bool
    board: float
    gap: float
    edges: tuple[tuple[float, float], ...]
    short: float

    @property
    def middles(self) -> tuple[float, ...]:
        """Where neighbouring children part."""
        return tuple((end + start) / 2 for (_, end), (start, _) in pairwise(self.edges))

    def part(self, whole: Rect, index: int, away: float) -> Rect:
        """The part of a rectangle that a child takes: up to `away` mm before the middles where it meets others."""
        before = self.middles[index - 1] if index > 0 else None
        after = self.middles[index] if index < len(self.middles) else None
        if self.rows:
            low = whole.z0 if after is None else after + away
            return Rect(whole.x0, low, whole.x1, whole.z1 if before is None else before - away)
        left = whole.x0 if before is None else before + away
        return Rect(left, whole.z0, whole.x1 if after is None else after - away, whole.z1)


def _divided(node: Bay, clear: Rect, zone: Rect, made: Construction) -> _Division:
    """Share a bay's height or width out among its children."""
    rows, nothing = node.split is Split.ROWS, node.between == "nothing"
    board = {"nothing": 0.0, "shelf": made.shelf_thickness, "divider": made.carcass_thickness}[node.between]
    gap = separation(made, board, rows=rows)
    thick = gap if nothing else board
    span = zone if nothing else clear
    sizes = [
        Member(Rule.SHARE, weight=child.weight, least=1.0)
        if child.size is None
        else Member(Rule.FIXED, size=child.size.mm)
        for child in node.children
    ]
    shares = share_out(span.height if rows else span.width, sizes, gap=thick)
    short = 0.0 if shares.fits and shares.left <= 0.01 else shares.short or -shares.left
    way = -1.0 if rows else 1.0
    at = span.z1 if rows else span.x0
    edges: list[tuple[float, float]] = []
    for size in shares.sizes:
        far = at + way * size
        edges.append((at, far))
        at = far + way * thick
    return _Division(rows, nothing, board, gap, tuple(edges), short)


class _Setter:
    """Goes through a bay tree and gathers boxes, boards and the members of a face frame."""

    def __init__(self, made: Construction, zone: Rect) -> None:
        self.made = made
        self.zone = zone
        self.framed = made.face_frame == "frame"
        self.boxes: list[BayBox] = []
        self.boards: list[Board] = []
        self.short: list[tuple[tuple[int, ...], float]] = []
        self.members: list[tuple[str, Rect]] = []
        self._count = {"shelf": 0, "divider": 0}

    def visit(
        self,
        node: Bay,
        path: tuple[int, ...],
        clear: Rect,
        zone: Rect,
        left: str,
        right: str,
        behind: Rect | None = None,
    ) -> None:
        """Set a bay and its children out; `behind` is the zone of a front before several bays."""
        opening = _opening(clear, behind or zone, self.zone, self.made) if self.framed else None
        self.boxes.append(BayBox(path, node, clear, zone, left, right, opening))
        if not node.children:
            return
        if behind is None and node.front is not None:
            # What lies behind a front that covers several bays has no members of the frame of its own.
            behind = zone
        division = _divided(node, clear, zone, self.made)
        if division.short:
            self.short.append((path, division.short))
        if self.framed and behind is None:
            self.members += [_frame_member(zone, self.zone, m, self.made, rows=division.rows) for m in division.middles]
        names = [] if division.nothing else self._boards(division, path, clear, left, right)
        # Columns hang on the dividers beside them, rows on the uprights of the bay. Between columns with nothing
        # between them no upright stands.
        between = names or [""] * (len(node.children) - 1)
        uprights = None if division.rows else [left, *between, right]
        for i, child in enumerate(node.children):
            here = (left, right) if uprights is None else (uprights[i], uprights[i + 1])
            box = division.part(clear, i, division.board / 2)
            front = division.part(zone, i, division.gap / 2)
            self.visit(child, (*path, i), box, front, *here, behind)

    def _boards(self, division: _Division, path: tuple[int, ...], clear: Rect, left: str, right: str) -> list[str]:
        """The boards between the children of a bay; their names."""
        kind: Literal["shelf", "divider"] = "shelf" if division.rows else "divider"
        half = division.board / 2
        names = []
        for i, middle in enumerate(division.middles):
            self._count[kind] += 1
            names.append(f"fixed shelf {self._count[kind]}" if division.rows else f"divider {self._count[kind]}")
            rows = Rect(clear.x0, middle - half, clear.x1, middle + half)
            box = rows if division.rows else Rect(middle - half, clear.z0, middle + half, clear.z1)
            self.boards.append(Board(kind, names[-1], box, left, right, path, i))
        return names


def separation(made: Construction, board: float, *, rows: bool) -> float:
    """mm between the fronts of neighbouring bays.

    Parameters
    ----------
    board : thickness of what stands between the bays, mm; 0 for nothing
    """
    if made.face_frame == "frame":
        member = made.face_rail if rows else made.face_stile
        return member + 2 * made.gap_inset if made.overlay == "inset" else made.gap_between
    if made.overlay == "inset" and board:
        return board + 2 * made.gap_inset
    return made.gap_between


def _frame_member(zone: Rect, whole: Rect, middle: float, made: Construction, *, rows: bool) -> tuple[str, Rect]:
    """The rail or mullion of a face frame between two bays; it ends at the frame's other members."""
    within = _inside_frame(zone, whole, made)
    half = (made.face_rail if rows else made.face_stile) / 2
    if rows:
        return "rail", Rect(within.x0, middle - half, within.x1, middle + half)
    return "mullion", Rect(middle - half, within.z0, middle + half, within.z1)


def _inside_frame(zone: Rect, whole: Rect, made: Construction) -> Rect:
    """What the members of a face frame leave open behind the fronts of a zone.

    Parameters
    ----------
    whole : what the fronts of the unit cover
    """

    def edge(at: float, outer: float, size: float, gap: float) -> float:
        """mm from the edge of a front to that of the opening behind it."""
        if made.overlay == "inset":
            return -made.gap_inset
        # Over its frame a front reaches to the unit's edge, and to the middle of what stands between two bays.
        return size - gap if abs(at - outer) < 0.01 else (size - made.gap_between) / 2

    st, rl = made.face_stile, made.face_rail
    return Rect(
        zone.x0 + edge(zone.x0, whole.x0, st, made.gap_side),
        zone.z0 + edge(zone.z0, whole.z0, rl, made.gap_bottom),
        zone.x1 - edge(zone.x1, whole.x1, st, made.gap_side),
        zone.z1 - edge(zone.z1, whole.z1, rl, made.gap_top),
    )


def _opening(clear: Rect, zone: Rect, whole: Rect, made: Construction) -> Rect:
    """The opening of a face frame before a bay, within the bay's clear space."""
    within = _inside_frame(zone, whole, made)
    return Rect(max(clear.x0, within.x0), max(clear.z0, within.z0), min(clear.x1, within.x1), min(clear.z1, within.z1))
