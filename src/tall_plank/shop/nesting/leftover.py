"""What is left when the search is done: gathered on one board, in as large a piece as can be."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from tall_plank.shop.nesting import kernel
from tall_plank.shop.nesting.blocks import Block
from tall_plank.shop.nesting.cuts import ALIKE, sawn
from tall_plank.shop.nesting.layout import boxes_of, parts_on, trimmed
from tall_plank.shop.nesting.material import AT_A_TIME, MICRO, Laid, Material, first_cut, rounds_of
from tall_plank.shop.nesting.request import (
    NestRules,
    Stopped,
)


def finish(m: Material, rules: NestRules, over: Stopped) -> bool:
    """Of plans that cost as little take the one that leaves the largest piece, of those alike in that the one with
    fewer turns and cuts: the search's own, the same with what is left gathered, the best of the first plans. Offcuts
    cost nothing, so with them the one that fills them stands. False where that was ended early."""
    if m.count == 0 or m.lost:
        return True
    if m.from_rack:
        whole = gather(m, rules, over)
        largest_left(m, rules)
        return whole
    largest_left(m, rules)
    best = Laid(m.placed, m.board_kind, m.cost, _largest_piece(m, rules))
    handled = _handling(m, rules)
    whole = gather(m, rules, over)
    for other in (None, m.other):
        if other is not None:
            if other.cost > best.cost + 1e-9:
                continue
            m.keep(other.placed, other.kinds, len(other.kinds), 0, other.cost)
        largest_left(m, rules)
        piece, own = _largest_piece(m, rules), _handling(m, rules)
        better = (piece // ALIKE, -own, piece) > (best.free // ALIKE, -handled, best.free)
        if m.cost < best.cost - 1e-9 or (m.cost <= best.cost + 1e-9 and better):
            best, handled = Laid(m.placed, m.board_kind, m.cost, piece), own
    m.keep(best.placed, best.kinds, len(best.kinds), 0, best.cost)
    return whole


GATHER = 0.1
"""Share of the rounds of an effort that goes to gathering what is left, once the number of boards stands."""


def gather(m: Material, rules: NestRules, over: Stopped) -> bool:
    """With as many boards, fill most of them better, so that what is left comes together on one. False where it was
    ended early."""
    wanted = int(rounds_of(rules, len(m.wide)) * GATHER)
    if m.count < 2 or m.lost:
        return True
    plan, count, ended = m.opened(), m.count, False
    _, kinds, placed = plan
    for _ in range(0, wanted, AT_A_TIME):
        ended = over()
        if ended:
            break
        count = m.improve(rules, min(AT_A_TIME, wanted), plan, count, 0.0, -1.0)
    m.keep(placed, kinds[:count], count, 0, float(m.price[kinds[:count]].sum()))
    return not ended


LEFT_TRIES = {1: 60, 2: 200, 3: 300, 4: 400, 5: 500}
"""Ways by effort in which the emptiest board is laid out anew; more effort is worth no more."""


def largest_left(m: Material, rules: NestRules) -> None:
    """Lay the emptiest boards out anew so that what is left of each is one large piece."""
    if m.count == 0 or m.lost:
        return
    tries = LEFT_TRIES[min(5, max(1, rules.effort))]
    for k, board in enumerate(_emptiest(m)[:EMPTIEST]):
        _lay_anew(m, rules, int(board), tries if k == 0 else tries // 4)


EMPTIEST = 3
"""Boards that are looked at for the largest piece left."""


def _emptiest(m: Material) -> NDArray[np.int64]:
    """Boards, the one with the least share in use first."""
    fill = np.zeros(m.count)
    np.add.at(fill, m.placed[:, 0], m.wide.astype(float) * m.high.astype(float))
    share = fill / (m.kinds[m.board_kind[: m.count], 0].astype(float) * m.kinds[m.board_kind[: m.count], 1])
    return np.argsort(share, kind="stable")


def _lay_anew(m: Material, rules: NestRules, board: int, tries: int) -> None:
    """One board's pieces in some ways; the one that leaves the largest rectangle is kept."""
    n = len(m.wide)
    mine = np.nonzero(m.placed[:, 0] == board)[0].astype(np.int64)
    count = len(mine)
    if count > 200:
        return
    out, board_kind = np.empty((n, 4), np.int64), np.empty(n + 8, np.int64)
    free, least = np.empty((4 * n + 64, kernel.FREE_COLUMNS), np.int64), np.empty(n + 1, np.int64)
    keys = np.empty(n, np.float64)
    kind = int(m.board_kind[board])
    best = -1.0
    random = np.random.default_rng(rules.seed)
    fixed = np.zeros(n, np.int64)
    for attempt in range(tries):
        # Each piece lies as drawn: all alike in the first tries, any way round later.
        turn = np.full(n, attempt % 2) if attempt < tries // 4 else random.integers(0, 2, n)
        turn = turn * m.turnable
        wide, high = np.where(turn, m.high, m.wide), np.where(turn, m.wide, m.high)
        items = mine.copy()
        noise = 0.0 if attempt < tries // 4 else 0.5
        kernel.order_by(items, count, wide, high, attempt // 2 % kernel.ORDERS, noise, m.state, keys)
        least[: count + 1] = 0
        left = np.zeros(len(m.boards), np.int64)
        left[kind] = 1
        rect, split = int(random.integers(0, kernel.RECT_RULES)), int(random.integers(0, kernel.SPLIT_RULES))
        opened, lost, nf = kernel.pack(
            items,
            count,
            wide,
            high,
            fixed,
            m.kinds,
            left,
            m.price,
            rect,
            split,
            kernel.FIRST_FIT,
            0,
            rules.turns,
            first_cut(rules),
            m.state,
            out,
            board_kind,
            free,
            least,
        )
        if lost or opened != 1:
            continue
        largest = float((free[:nf, 2].astype(float) * free[:nf, 3]).max()) if nf else 0.0
        if largest > best:
            best = largest
            m.placed[mine, 1:3] = out[mine, 1:3]
            m.placed[mine, 3] = turn[mine]


def _largest_piece(m: Material, rules: NestRules) -> float:
    """Area of the largest piece that the cuts leave on any of the emptiest boards, mm2."""
    most = 0.0
    for b in _emptiest(m)[:EMPTIEST]:
        board = m.boards[int(m.board_kind[b])]
        laid = laid_on(m, int(b), rules)
        boxes = boxes_of(parts_on(laid, rules.kerf))
        found = sawn(boxes, trimmed(board.length, board.width, rules.trim), rules.kerf, rules.first_cut, rules.turns)
        if found is not None:
            most = max(most, *((x1 - x0) * (y1 - y0) for x0, y0, x1, y1 in found.left), 0.0)
    return most


TURN = 3
"""Cuts that a turn of a board counts for: it is lifted, turned and put to the stop anew (common practice)."""


def _handling(m: Material, rules: NestRules) -> int:
    """Cuts of all boards, and what their turns count for; 0 for the many boards of a list that no one saws by hand."""
    if m.count > MOST_HANDLED:
        return 0
    found = 0
    for b in range(m.count):
        board = m.boards[int(m.board_kind[b])]
        boxes = boxes_of(parts_on(laid_on(m, b, rules), rules.kerf))
        cut = sawn(boxes, trimmed(board.length, board.width, rules.trim), rules.kerf, rules.first_cut, rules.turns)
        found += TURN * cut.turns + len(cut.cuts) if cut is not None else 0
    return found


MOST_HANDLED = 60


def laid_on(m: Material, board: int, rules: NestRules) -> list[tuple[Block, float, float, bool]]:
    """Blocks on one board with their places, mm."""
    return [
        (m.blocks[i], int(m.placed[i, 1]) / MICRO + rules.trim, int(m.placed[i, 2]) / MICRO + rules.trim,
         bool(m.placed[i, 3]))
        for i in np.nonzero(m.placed[:, 0] == board)[0]
    ]  # fmt: skip
