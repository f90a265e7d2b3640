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
    """

    path: tuple[int, ...]
    bay: Bay
    clear: Rect
    zone: Rect
    left: str
    right: str


@dataclass(frozen=True)
class Board:
    """A shelf or divider between bays. `clear` is the board seen from the front."""

    kind: str
    name: str
    clear: Rect
    left: str
    right: str


@dataclass(frozen=True)
class BaySet:
    """All bays (branches included), boards between them, and what does not fit."""

    boxes: tuple[BayBox, ...]
    boards: tuple[Board, ...]
    short: tuple[tuple[tuple[int, ...], float], ...]

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
    count = {"shelf": 0, "divider": 0}

    def visit(node: Bay, path: tuple[int, ...], clear: Rect, zone: Rect, left: str, right: str) -> None:
        boxes.append(BayBox(path, node, clear, zone, left, right))
        if not node.children:
            return
        rows = node.split is Split.ROWS
        nothing = node.between == "nothing"
        gap = made.gap_between
        thick = {"nothing": gap, "shelf": made.shelf_thickness, "divider": made.carcass_thickness}[node.between]
        span = zone if nothing else clear
        members = [
            Member(Rule.SHARE, weight=child.weight, least=1.0)
            if child.size is None
            else Member(Rule.FIXED, size=child.size.mm)
            for child in node.children
        ]
        shares = share_out(span.height if rows else span.width, members, gap=thick)
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
            boards.append(Board(kind, name, box, left, right))
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
                visit(child, (*path, i), c, z, left, right)
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
                visit(child, (*path, i), c, z, uprights[i], right if i == last or nothing else uprights[i + 1])

    visit(bay, (), clear, zone, "left gable", "right gable")
    return BaySet(tuple(boxes), tuple(boards), tuple(short))
