"""Setting out the bays inside a unit: clear boxes, the zones of their fronts, and what stands between."""

from __future__ import annotations

from dataclasses import dataclass

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

    kind: str
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
    boxes: list[BayBox] = []
    boards: list[Board] = []
    short: list[tuple[tuple[int, ...], float]] = []
    members: list[tuple[str, Rect]] = []
    framed = made.face_frame == "frame"
    count = {"shelf": 0, "divider": 0}

    def visit(
        node: Bay, path: tuple[int, ...], clear: Rect, zone: Rect, left: str, right: str, behind: Rect | None = None
    ) -> None:
        opening = _opening(clear, behind or zone, made) if framed else None
        boxes.append(BayBox(path, node, clear, zone, left, right, opening))
        if not node.children:
            return
        if behind is None and node.front is not None:
            # What lies behind a front that covers several bays has no members of the frame of its own.
            behind = zone
        rows = node.split is Split.ROWS
        nothing = node.between == "nothing"
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
        if not shares.fits or shares.left > 0.01:
            short.append((path, shares.short or -shares.left))
        # Edges of the children along the split, from the top down or from the left.
        at = span.z1 if rows else span.x0
        edges: list[tuple[float, float]] = []
        for size in shares.sizes:
            far = at - size if rows else at + size
            edges.append((at, far))
            at = far - thick if rows else far + thick
        uprights = [left]
        last = len(edges) - 1
        for i in range(last):
            middle = (edges[i][1] + edges[i + 1][0]) / 2
            if framed and behind is None:
                members.append(_frame_member(zone, middle, made, rows=rows))
            if nothing:
                uprights.append(left)
                continue
            kind = "shelf" if rows else "divider"
            count[kind] += 1
            name = f"fixed shelf {count[kind]}" if rows else f"divider {count[kind]}"
            half = thick / 2
            box = (
                Rect(clear.x0, middle - half, clear.x1, middle + half)
                if rows
                else Rect(middle - half, clear.z0, middle + half, clear.z1)
            )
            boards.append(Board(kind, name, box, left, right, path, i))
            uprights.append(left if rows else name)
        uprights.append(right)
        for i, child in enumerate(node.children):
            start, end = edges[i]
            before = None if i == 0 else (edges[i - 1][1] + start) / 2
            after = None if i == last else (end + edges[i + 1][0]) / 2
            clear_shift = 0.0 if nothing else thick / 2
            if rows:
                c = Rect(
                    clear.x0,
                    clear.z0 if after is None else after + clear_shift,
                    clear.x1,
                    clear.z1 if before is None else before - clear_shift,
                )
                z = Rect(
                    zone.x0,
                    zone.z0 if after is None else after + gap / 2,
                    zone.x1,
                    zone.z1 if before is None else before - gap / 2,
                )
                visit(child, (*path, i), c, z, left, right, behind)
            else:
                c = Rect(
                    clear.x0 if before is None else before + clear_shift,
                    clear.z0,
                    clear.x1 if after is None else after - clear_shift,
                    clear.z1,
                )
                z = Rect(
                    zone.x0 if before is None else before + gap / 2,
                    zone.z0,
                    zone.x1 if after is None else after - gap / 2,
                    zone.z1,
                )
                far_side = right if i == last or nothing else uprights[i + 1]
                visit(child, (*path, i), c, z, uprights[i], far_side, behind)

    visit(bay, (), clear, zone, "left gable", "right gable")
    return BaySet(tuple(boxes), tuple(boards), tuple(short), tuple(members))


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


def _frame_member(zone: Rect, middle: float, made: Construction, *, rows: bool) -> tuple[str, Rect]:
    """The rail or mullion of a face frame between two bays; it ends at the frame's other members."""
    grow = made.gap_inset if made.overlay == "inset" else 0.0
    half = (made.face_rail if rows else made.face_stile) / 2
    if rows:
        return "rail", Rect(zone.x0 - grow, middle - half, zone.x1 + grow, middle + half)
    return "mullion", Rect(middle - half, zone.z0 - grow, middle + half, zone.z1 + grow)


def _opening(clear: Rect, zone: Rect, made: Construction) -> Rect:
    """The opening of a face frame before a bay, within the bay's clear space."""
    grow = made.gap_inset if made.overlay == "inset" else 0.0
    return Rect(
        max(clear.x0, zone.x0 - grow),
        max(clear.z0, zone.z0 - grow),
        min(clear.x1, zone.x1 + grow),
        min(clear.z1, zone.z1 + grow),
    )
