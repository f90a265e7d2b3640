"""The search for a cutting plan: a valid one at once, better ones as they are found, the best when it ends.

Material by material: every way of laying the pieces out in order of size is tried, then a few boards at a time are
taken apart and laid out anew, as long as the effort allows. What it allows is counted in rounds, not in seconds, so
that the same question has the same answer; seconds and a stop only cut it short.
"""

from __future__ import annotations

import time
from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

from tall_plank.job.cutting import LaidBoard
from tall_plank.shop.nesting import kernel
from tall_plank.shop.nesting.layout import board_of
from tall_plank.shop.nesting.leftover import finish, laid_on
from tall_plank.shop.nesting.material import AT_A_TIME, Laid, Material, first_cut, materials_of, rounds_of
from tall_plank.shop.nesting.request import (
    NestBoard,
    NestPart,
    NestPlan,
    NestRules,
    Request,
    Stopped,
    Told,
    Unplaced,
)

TINY = ((26, 59), (64, 68), (61, 53), (35, 37), (67, 36), (38, 66), (24, 62))
"""Parts on boards of 100 x 100 whose first plan is not the best: they go through the whole search in no time."""

LARGE = 3000
"""Parts of a material."""

_compiled = False


def compile_search() -> None:
    """Compile the inner loop or load it, so that the seconds of a search go to the search: the very first time on a
    machine takes many of them."""
    global _compiled
    if not _compiled:
        _compiled = True
        parts = tuple(NestPart(str(i), float(x), float(y)) for i, (x, y) in enumerate(TINY))
        nest_sawn(Request(parts, (NestBoard("", "", 100.0, 100.0),), NestRules(0.0, 0.0, effort=2, seconds=0.0)))


def nest_sawn(request: Request, told: Told | None = None, stopped: Stopped | None = None) -> NestPlan:
    """The best plan from edge to edge; as `nest`, which calls it."""
    rules = request.rules
    compile_search()
    started = time.perf_counter()
    materials, unplaced = materials_of(request)
    last_told, pause = -1.0, 0.0

    def tell() -> None:
        # A large plan takes a while to write down: that may take a fifth of the time.
        nonlocal last_told, pause
        now = time.perf_counter()
        if told is not None and now - last_told > pause:
            told(plan(done=False))
            last_told = time.perf_counter()
            pause = 4.0 * (last_told - now)

    def over() -> bool:
        late = rules.seconds > 0 and time.perf_counter() - started > rules.seconds
        return late or (stopped is not None and stopped())

    def plan(*, done: bool) -> NestPlan:
        return plan_of(materials, unplaced, rules, time.perf_counter() - started, done=done)

    for m in materials:
        first_plan(m, rules, quick=True, over=lambda m=m: m.count > 0 and over())  # type: ignore[misc]
    tell()
    if rules.effort > 1:
        for m in materials:
            if not over():
                first_plan(m, rules, quick=False, over=over)
        tell()
    todo = [m for m in materials if not m.proven]
    finished = not over()
    while todo and not over():
        for m in list(todo):
            before = (m.lost, m.cost)
            spent = improve_once(m, rules)
            if (m.lost, m.cost) < before:
                tell()
            if spent or m.proven:
                todo.remove(m)
            if over():
                break
        finished = not todo
    for m in materials:
        # A plan of thousands of parts that is late as it is stays as it lies: polishing it takes seconds.
        finished = (len(m.wide) < LARGE or not over()) and finish(m, rules, over) and finished
    return plan(done=finished)


# --- the question


# --- the search


def first_plan(m: Material, rules: NestRules, *, quick: bool, over: Stopped = lambda: False) -> None:
    """Every piece in its order, by a few rules or by all of them; the best is kept.

    Pieces first lie as they fit best each; then all with their long side along the board and cut in strips, or across
    it and cut in heads, as a saw is worked by hand.
    """
    n = len(m.wide)
    out, board_kind = np.empty((n, 4), np.int64), np.empty(n + 8, np.int64)
    free, least = np.empty((4 * n + 64, kernel.FREE_COLUMNS), np.int64), np.empty(n + 1, np.int64)
    keys = np.empty(n, np.float64)
    every = range(kernel.ORDERS)
    kind_rules = (0, 1) if m.from_rack or (len(m.boards) > 1 and not quick) else (0,)
    ways: list[tuple[NDArray[np.int64] | None, Iterable[int], Iterable[int]]] = [
        (None, (2, 0) if quick else every, (2, 4) if quick else range(kernel.SPLIT_RULES)),
        (_lying(m, along=True), (5,), (kernel.STRIPS,)),
        (_lying(m, along=False), (4,), (kernel.HEADS,)),
    ]
    for turn, orders, splits in ways:
        wide = m.wide if turn is None else np.where(turn, m.high, m.wide)
        high = m.high if turn is None else np.where(turn, m.wide, m.high)
        turnable = m.turnable if turn is None else np.zeros(n, np.int64)
        for key in orders:
            items = np.arange(n, dtype=np.int64)
            kernel.order_by(items, n, wide, high, key, 0.0, m.state, keys)
            kernel.fill_least(items, n, wide, high, least)
            for rect in (1,) if quick else range(kernel.RECT_RULES):
                if over():
                    return
                for split in splits:
                    for boards_rule in (kernel.FIRST_FIT,) if quick else range(3):
                        for kind_rule in kind_rules:
                            left = m.left.copy()
                            count, lost, nf = kernel.pack(
                                items,
                                n,
                                wide,
                                high,
                                turnable,
                                m.kinds,
                                left,
                                m.price,
                                rect,
                                split,
                                boards_rule,
                                kind_rule,
                                rules.turns,
                                first_cut(rules),
                                m.state,
                                out,
                                board_kind,
                                free,
                                least,
                            )
                            if turn is not None:
                                out[:, 3] = turn
                            cost = _kept_if_better(m, wide, high, out, board_kind[:count], lost)
                            if quick or lost or cost > m.cost + 1e-9:
                                continue
                            most = float((free[:nf, 2].astype(float) * free[:nf, 3]).max()) if nf else 0.0
                            if m.other is None or (-cost, most) > (-m.other.cost, m.other.free):
                                m.other = Laid(out.copy(), board_kind[:count].copy(), cost, most)
            if m.proven and quick and not m.from_rack:
                return


def _kept_if_better(
    m: Material,
    wide: NDArray[np.int64],
    high: NDArray[np.int64],
    out: NDArray[np.int64],
    kinds: NDArray[np.int64],
    lost: int,
) -> float:
    """Keep a plan where it loses fewer pieces, costs less, or leaves more in one piece; returns its cost."""
    cost = float(m.price[kinds].sum())
    rating = _rating(m, wide, high, out, kinds)
    before = (m.lost if m.count or m.cost < np.inf else len(m.wide) + 1, m.cost, -m.rating)
    if (lost, cost, -rating) < before:
        m.keep(out, kinds, len(kinds), lost, cost)
        m.rating = rating
    return cost


def _rating(
    m: Material, wide: NDArray[np.int64], high: NDArray[np.int64], placed: NDArray[np.int64], kinds: NDArray[np.int64]
) -> float:
    """Squares of the areas in use on the boards by their worth, as the improvement counts them; 0 without offcuts."""
    if not m.from_rack:
        return 0.0
    on = placed[:, 0] >= 0
    fill = np.bincount(placed[on, 0], (wide.astype(float) * high)[on], len(kinds))
    return float((fill**2 * m.worth[kinds]).sum())


def _lying(m: Material, *, along: bool) -> NDArray[np.int64]:
    """Which pieces are turned so that all lie with their long side along the board, or across it, as far as the boards
    take them so."""
    other = (m.high > m.wide) if along else (m.wide > m.high)
    takes = ((m.high[:, None] <= m.kinds[:, 0]) & (m.wide[:, None] <= m.kinds[:, 1])).any(axis=1)
    plain = ((m.wide[:, None] <= m.kinds[:, 0]) & (m.high[:, None] <= m.kinds[:, 1])).any(axis=1)
    turned: NDArray[np.int64] = ((m.turnable == 1) & takes & (other | ~plain)).astype(np.int64)
    return turned


def improve_once(m: Material, rules: NestRules) -> bool:
    """Some rounds of improvement; True once the effort is spent."""
    wanted = rounds_of(rules, len(m.wide))
    if m.count == 0 or wanted == 0 or m.lost:
        return True
    rounds = min(AT_A_TIME, wanted - m.rounds)
    plan = m.opened()
    # Early on dead ends are left freely, later hardly.
    count = m.improve(rules, rounds, plan, m.count, 0.02 * (1.0 - m.rounds / wanted), m.bound_cost)
    _, kinds, placed = plan
    m.rounds += rounds
    m.keep(placed, kinds[:count], count, 0, float(m.price[kinds[:count]].sum()))
    return m.rounds >= wanted


# --- the answer


def plan_of(
    materials: list[Material], unplaced: tuple[Unplaced, ...], rules: NestRules, seconds: float, *, done: bool
) -> NestPlan:
    """What stands on the boards now, in mm."""
    boards: list[tuple[LaidBoard, int]] = []
    cost = 0.0
    lost = list(unplaced)
    for m in materials:
        for i in np.nonzero(m.placed[:, 0] < 0)[0]:
            lost += [Unplaced(part, 1, "no board is left for it") for part in m.blocks[i].parts]
        found = []
        for b in range(m.count):
            laid = laid_on(m, b, rules)
            asked = m.boards[int(m.board_kind[b])]
            found.append(board_of(asked, laid, rules))
            cost += max(asked.price, 0.0)
        boards += sorted(found, key=lambda b: (b[0].board, -b[0].used, [p.part for p in b[0].parts]))
    laid_boards, turns = tuple(b for b, _ in boards), tuple(n for _, n in boards)
    bound = sum(m.bound for m in materials)
    return NestPlan(laid_boards, _together(lost), bound, seconds, done, cost, turns)


def _together(lost: list[Unplaced]) -> tuple[Unplaced, ...]:
    """Parts that are lost for one reason, with their number."""
    counts: dict[tuple[str, str], int] = {}
    for u in lost:
        counts[(u.part, u.why)] = counts.get((u.part, u.why), 0) + u.qty
    return tuple(Unplaced(part, qty, why) for (part, why), qty in counts.items())
