"""An independent check of cutting plans: nothing here is shared with the search that makes them."""

from __future__ import annotations

import itertools
from collections import Counter

from tall_plank.job.cutting import LaidBoard
from tall_plank.shop.nesting import NestPlan, Request

NEAR = 1e-3  # mm


def check_plan(request: Request, plan: NestPlan) -> None:
    """Inside the trimmed board, a kerf apart, grain kept, edge-to-edge cuttable, quantities exact, stock not exceeded."""
    rules = request.rules
    parts = {(p.material, p.part): p for p in request.parts}
    boards = {(b.material, b.board): b for b in request.boards}
    used: Counter[tuple[str, str]] = Counter()
    found: Counter[tuple[str, str]] = Counter()
    for board in plan.boards:
        stock = boards[(board.material, board.board)]
        assert (board.length, board.width) == (stock.length, stock.width)
        used[(board.material, board.board)] += 1
        for p in board.parts:
            part = parts[(board.material, p.part)]
            found[(board.material, p.part)] += 1
            size = (part.width, part.length) if p.turned else (part.length, part.width)
            assert abs(p.length - size[0]) < NEAR and abs(p.width - size[1]) < NEAR
            assert not (p.turned and part.grain == "length"), p
            assert p.x >= rules.trim - NEAR and p.y >= rules.trim - NEAR, p
            assert p.x + p.length <= board.length - rules.trim + NEAR, p
            assert p.y + p.width <= board.width - rules.trim + NEAR, p
        for a, b in itertools.combinations(board.parts, 2):
            apart_x = max(a.x - b.x - b.length, b.x - a.x - a.length)
            apart_y = max(a.y - b.y - b.width, b.y - a.y - a.width)
            assert max(apart_x, apart_y) >= rules.kerf - NEAR, (a, b)
        if rules.mode == "saw":
            turns = least_turns(board, rules.kerf, rules.trim)
            assert turns is not None, f"{board.board} cannot be cut from edge to edge"
            assert rules.turns == 0 or turns <= rules.turns, (turns, rules.turns)
    for key, number in used.items():
        qty = boards[key].qty
        assert qty is None or number <= qty, key
    lost: Counter[str] = Counter()
    for u in plan.unplaced:
        assert u.why
        lost[u.part] += u.qty
    for (material, name), part in parts.items():
        if found[(material, name)] != part.qty:
            assert found[(material, name)] + lost[name] >= part.qty, name
        assert found[(material, name)] <= part.qty


def least_turns(board: LaidBoard, kerf: float, trim: float) -> int | None:
    """Fewest turns that part the pieces by cuts from edge to edge, tried every way; None where none does."""
    boxes = [(p.x, p.y, p.x + p.length, p.y + p.width) for p in board.parts]
    area = (trim, trim, board.length - trim, board.width - trim)
    tries = [t for t in (_turns(boxes, area, kerf, axis) for axis in (0, 1)) if t is not None]
    return min(tries, default=None)


def _turns(boxes, area, kerf: float, axis: int) -> int | None:  # type: ignore[no-untyped-def]
    """Cuts in one direction first: at each place where a whole cut meets no piece."""
    if len(boxes) == 1 and all(abs(p - q) < NEAR for p, q in zip(boxes[0], area, strict=True)):
        return 0
    low, high = axis, axis + 2
    slabs: list[list] = []
    for box in sorted(boxes, key=lambda b: b[low]):
        if slabs and box[low] < max(b[high] for b in slabs[-1]) + kerf - NEAR:
            slabs[-1].append(box)
        else:
            slabs.append([box])
    worst, cut = 0, len(slabs) > 1
    for slab in slabs:
        start, end = min(b[low] for b in slab), max(b[high] for b in slab)
        cut = cut or start - area[low] > NEAR or area[high] - end > NEAR
        inner = list(area)
        inner[low], inner[high] = start, end
        if len(slab) == 1 and all(abs(p - q) < NEAR for p, q in zip(slab[0], inner, strict=True)):
            continue
        if len(slabs) == 1 and start - area[low] < NEAR and area[high] - end < NEAR:
            return None  # no cut was possible here
        turns = _turns(slab, inner, kerf, 1 - axis)
        if turns is None:
            return None
        worst = max(worst, turns)
    return worst + (1 if cut else 0)
