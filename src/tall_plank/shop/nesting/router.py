"""Plans for a router: outlines of any shape, turned by quarters, parts within the openings of others.

The plan starts from that of the rectangles about the parts. Then boards are emptied, the emptiest first: each of their
parts is tried in the free area of the others as it really is, at the places where its corners touch; and lists with
shaped parts are laid out anew as a whole in several orders. Free area is what is left of the trimmed board when the
parts, widened by the tool's gap, are taken off; openings in parts count as free.
"""

from __future__ import annotations

import math
import random
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

import msgspec

from tall_plank.job.cutting import LaidBoard, LaidPart
from tall_plank.shop.nesting.request import NestBoard, NestPart, NestPlan, NestRules, Request
from tall_plank.shop.nesting.search import compile_search, nest_sawn

NEAR = 1e-3  # mm

ORDERS = {1: 0, 2: 2, 3: 4, 4: 8, 5: 16, 6: 30, 7: 60, 8: 120, 9: 300}
"""Orders in which a list with shaped parts is laid out anew, by effort."""

MOST_PLACES = 600
"""Places tried for a part on one board."""


@dataclass
class _Sheet:
    """A board with parts on it, and what is free."""

    board: NestBoard
    price: float
    free: Any
    placed: list[tuple[NestPart, LaidPart, Any]] = field(default_factory=list)

    @property
    def area(self) -> float:
        return float(sum(shape.area for _, _, shape in self.placed))


def nest_free(
    request: Request, told: Callable[[NestPlan], None] | None = None, stopped: Callable[[], bool] | None = None
) -> NestPlan:
    """A plan for a router; as `nest`, which calls it."""
    compile_search()
    started = time.perf_counter()
    rules = request.rules
    boxes = msgspec.structs.replace(request, rules=msgspec.structs.replace(rules, mode="saw", turns=0))

    def late() -> bool:
        return rules.seconds > 0 and time.perf_counter() - started > rules.seconds

    def over() -> bool:
        return late() or (stopped is not None and stopped())

    base = nest_sawn(boxes, told, stopped)
    parts = {(p.material, p.part): p for p in request.parts}
    if not any(p.outline or p.holes for p in request.parts):
        # Rectangles lie no closer for a router than for a saw without a limit of turns.
        return msgspec.structs.replace(base, seconds=time.perf_counter() - started)
    base = msgspec.structs.replace(base, bound=_bound(request))
    boards = {(b.material, b.board): b for b in request.boards}
    sheets = [_sheet_of(b, boards[(b.material, b.board)], parts, rules) for b in base.boards]
    done = True
    for material in sorted({b.material for b in base.boards}):
        mine = [s for s in sheets if s.board.material == material]
        mine = _emptied(mine, rules, over)
        shaped = [p for s in mine for p, _, _ in s.placed]
        stock = [b for b in request.boards if b.material == material]
        pick = random.Random(rules.seed)
        for attempt in range(ORDERS[min(9, max(1, rules.effort))]):
            if over():
                done = False
                break
            order = sorted(shaped, key=lambda p: -p.length * p.width * (1 + (0.8 * pick.random() if attempt else 0.0)))
            again = _laid(order, stock, rules, limit=len(mine))
            if again is not None and _rank(again) < _rank(mine):
                mine = again
        sheets = [s for s in sheets if s.board.material != material] + mine
        if told is not None:
            told(_plan(sheets, base, started, done=False))
    return _plan(sheets, base, started, done=done and base.done)


def _bound(request: Request) -> int:
    """Boards that no plan can do without: by the areas of the shapes, which may lie in one another."""
    found = 0
    for material in {p.material for p in request.parts}:
        trim = request.rules.trim
        sizes = [(b.length - 2 * trim) * (b.width - 2 * trim) for b in request.boards if b.material == material]
        area = sum(outline_of(p).area * p.qty for p in request.parts if p.material == material)
        found += math.ceil(area / max(sizes) - 1e-6) if sizes and max(sizes) > 0 else 0
    return found


def _rank(sheets: list[_Sheet]) -> tuple[float, float]:
    """Less is better: what the boards cost, then how full the emptiest is."""
    if not sheets:
        return (0.0, 0.0)
    return (sum(s.price for s in sheets), min(s.area / (s.board.length * s.board.width) for s in sheets))


def _plan(sheets: list[_Sheet], base: NestPlan, started: float, *, done: bool) -> NestPlan:
    boards = []
    for s in sorted(sheets, key=lambda s: (s.board.material, s.board.board, -s.area)):
        places = tuple(sorted((p for _, p, _ in s.placed), key=lambda p: (p.y, p.x, p.part)))
        boards.append(LaidBoard(s.board.board, s.board.material, s.board.length, s.board.width, places))
    cost = sum(max(s.board.price, 0.0) for s in sheets)
    return NestPlan(tuple(boards), base.unplaced, base.bound, time.perf_counter() - started, done, cost)


# --- shapes


def outline_of(part: NestPart) -> Any:
    """A part's shape in its own frame, with its openings; mm."""
    from shapely import Polygon

    corners = part.outline or ((0.0, 0.0), (part.length, 0.0), (part.length, part.width), (0.0, part.width))
    return Polygon(corners, part.holes).buffer(0)


def angles_of(part: NestPart) -> tuple[float, ...]:
    """Turns in degrees that a part may lie in: with grain only end for end."""
    return (0.0, 180.0) if part.grain == "length" else (0.0, 90.0, 180.0, 270.0)


def laid_shape(part: NestPart, placement: LaidPart) -> Any:
    """The shape of a part where it lies on its board, mm."""
    from shapely import affinity

    shape = affinity.rotate(outline_of(part), placement.angle, origin=(0, 0))
    x0, y0, _, _ = shape.bounds
    return affinity.translate(shape, placement.x - x0, placement.y - y0)


def _usable(board: NestBoard, trim: float) -> Any:
    from shapely import box

    return box(trim, trim, board.length - trim, board.width - trim)


def _sheet_of(planned: LaidBoard, board: NestBoard, parts: dict[tuple[str, str], NestPart], rules: NestRules) -> _Sheet:
    sheet = _Sheet(board, _price(board), _usable(board, rules.trim))
    for p in planned.parts:
        part = parts[(planned.material, p.part)]
        shape = laid_shape(part, p)
        x0, y0, x1, y1 = shape.bounds
        _take(sheet, part, LaidPart(p.part, x0, y0, x1 - x0, y1 - y0, p.turned, p.angle), shape, rules)
    return sheet


def _price(board: NestBoard) -> float:
    return 0.0 if board.offcut else board.price if board.price > 0 else board.length * board.width * 1e-6


def _take(sheet: _Sheet, part: NestPart, placement: LaidPart, shape: Any, rules: NestRules) -> None:
    if shape.area < placement.length * placement.width - 1.0:
        placement = msgspec.structs.replace(placement, area=round(shape.area, 1))
    sheet.placed.append((part, placement, shape))
    sheet.free = sheet.free.difference(shape.buffer(rules.kerf - NEAR / 2, join_style="mitre"))


def _place(sheet: _Sheet, part: NestPart, rules: NestRules) -> bool:
    """Put a part where it touches: lowest first, then leftmost."""
    from shapely import affinity, prepared

    best: tuple[tuple[float, float], LaidPart, Any] | None = None
    if part.length * part.width * 0.2 > sheet.free.area:
        return False
    room = prepared.prep(sheet.free.buffer(NEAR, join_style="mitre"))
    corners = _corners(sheet.free)
    base = outline_of(part)
    if base.area > sheet.free.area:
        return False
    for angle in angles_of(part):
        shape = affinity.rotate(base, angle, origin=(0, 0))
        own = list(shape.exterior.coords)[:-1]
        x0, y0, x1, y1 = shape.bounds
        touches = sorted({(cy - oy, cx - ox) for cx, cy in corners for ox, oy in own})
        for dy, dx in touches[:MOST_PLACES]:
            key = (dy + y0, dx + x0)
            if best is not None and key >= best[0]:
                break
            moved = affinity.translate(shape, dx, dy)
            if room.contains(moved):
                place = LaidPart(
                    part.part, round(dx + x0, 3), round(dy + y0, 3), x1 - x0, y1 - y0, angle in (90.0, 270.0), angle
                )
                best = (key, place, affinity.translate(shape, place.x - x0, place.y - y0))
                break
    if best is None:
        return False
    _take(sheet, part, best[1], best[2], rules)
    return True


def _corners(free: Any) -> list[tuple[float, float]]:
    """Corners of free areas, their openings' too."""
    found: set[tuple[float, float]] = set()
    for piece in getattr(free, "geoms", [free]):
        if piece.is_empty:
            continue
        for ring in (piece.exterior, *piece.interiors):
            found.update((round(x, 4), round(y, 4)) for x, y in ring.coords)
    return sorted(found)


# --- making it better


def _emptied(sheets: list[_Sheet], rules: NestRules, over: Callable[[], bool]) -> list[_Sheet]:
    """Boards taken off the plan, the emptiest first, as long as all their parts find a place on the others."""
    while len(sheets) > 1 and not over():
        sheets.sort(key=lambda s: s.area / (s.board.length * s.board.width))
        victim, rest = sheets[0], sheets[1:]
        kept = [(s.free, list(s.placed)) for s in rest]
        parts = sorted((p for p, _, _ in victim.placed), key=lambda p: -p.length * p.width)
        if all(any(_place(s, part, rules) for s in rest) for part in parts):
            sheets = rest
            continue
        for s, (free, placed) in zip(rest, kept, strict=True):
            s.free, s.placed = free, placed
        break
    return sheets


def _laid(order: list[NestPart], stock: list[NestBoard], rules: NestRules, limit: int) -> list[_Sheet] | None:
    """All parts laid out anew in an order; None where that takes more boards than there were."""
    sheets: list[_Sheet] = []
    left = {b.board: b.qty for b in stock}
    by_price = sorted(stock, key=lambda b: (not b.offcut, _price(b) / (b.length * b.width)))
    for part in order:
        if any(_place(s, part, rules) for s in sheets):
            continue
        for board in by_price:
            if left[board.board] == 0:
                continue
            sheet = _Sheet(board, _price(board), _usable(board, rules.trim))
            if _place(sheet, part, rules):
                sheets.append(sheet)
                left[board.board] = None if left[board.board] is None else left[board.board] - 1  # type: ignore[operator]
                break
        else:
            return None
        if len(sheets) > limit:
            return None
    return sheets
