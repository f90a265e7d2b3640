"""The search for a cutting plan: a valid one at once, better ones as they are found, the best when it ends.

Material by material: every way of laying the pieces out in order of size is tried, then a few boards at a time are
taken apart and laid out anew, as long as the effort allows. What it allows is counted in rounds, not in seconds, so
that the same question has the same answer; seconds and a stop only cut it short.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from tall_plank.shop.nesting import kernel
from tall_plank.shop.nesting.blocks import Block, blocks_of
from tall_plank.shop.nesting.bounds import least_boards
from tall_plank.shop.nesting.cuts import sawn
from tall_plank.shop.nesting.layout import board_of, boxes_of, placements_of, trimmed
from tall_plank.shop.nesting.request import NestBoard, NestPart, NestPlan, NestRules, PlannedBoard, Request, Unplaced

MICRO = 1000
"""The kernel counts in micrometres."""

OFFCUT_WORTH = 4.0
"""A full offcut counts as so many full boards where plans cost the same: the rack comes first (common practice)."""

Told = Callable[[NestPlan], None]
"""Takes a better plan."""

Stopped = Callable[[], bool]


@dataclass(frozen=True)
class _Laid:
    """A plan put by: places, kinds of its boards, its cost, the largest free rectangle."""

    placed: NDArray[np.int64]
    kinds: NDArray[np.int64]
    cost: float
    free: float


@dataclass
class _Material:
    """The pieces of one material on their way onto boards; arrays in micrometres, grown by the kerf."""

    name: str
    blocks: tuple[Block, ...]
    boards: tuple[NestBoard, ...]
    wide: NDArray[np.int64]
    high: NDArray[np.int64]
    turnable: NDArray[np.int64]
    kinds: NDArray[np.int64]
    price: NDArray[np.float64]
    worth: NDArray[np.float64]
    left: NDArray[np.int64]
    bound: int
    bound_cost: float
    state: NDArray[np.uint64]
    placed: NDArray[np.int64] = field(default_factory=lambda: np.empty((0, 4), np.int64))
    board_kind: NDArray[np.int64] = field(default_factory=lambda: np.empty(0, np.int64))
    count: int = 0
    lost: int = 0
    cost: float = np.inf
    rating: float = -1.0
    """How well the offcuts of a first plan are filled."""
    rounds: int = 0
    other: _Laid | None = None
    """Of the first plans, one that costs as little and leaves the largest piece."""

    def keep(self, placed: NDArray[np.int64], kinds: NDArray[np.int64], count: int, lost: int, cost: float) -> None:
        self.placed, self.board_kind = placed.copy(), kinds.copy()
        self.count, self.lost, self.cost = count, lost, cost

    @property
    def from_rack(self) -> bool:
        """Whether there are offcuts to cut."""
        return any(b.offcut for b in self.boards)

    @property
    def proven(self) -> bool:
        """Whether no plan can be better."""
        return self.lost == 0 and self.cost <= self.bound_cost + 1e-9


TINY = ((26, 59), (64, 68), (61, 53), (35, 37), (67, 36), (38, 66), (24, 62))
"""Parts on boards of 100 x 100 whose first plan is not the best: they go through the whole search in no time."""

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
    started = time.perf_counter()
    rules = request.rules
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
        first_plan(m, rules, quick=True)
    tell()
    compile_search()
    started = time.perf_counter()
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
        finished = finish(m, rules, over) and finished
    return plan(done=finished)


# --- the question


def materials_of(request: Request) -> tuple[list[_Material], tuple[Unplaced, ...]]:
    """Pieces and boards by material, and the parts that cannot lie on any board."""
    rules = request.rules
    found: list[_Material] = []
    unplaced: list[Unplaced] = []
    by_name: dict[str, list[NestPart]] = {}
    for part in request.parts:
        if part.qty > 0:
            by_name.setdefault(part.material, []).append(part)
    for name in sorted(by_name):
        boards = tuple(b for b in request.boards if b.material == name and (b.qty is None or b.qty > 0))
        usable = [(b.length - 2 * rules.trim, b.width - 2 * rules.trim) for b in boards]
        boards = tuple(b for b, u in zip(boards, usable, strict=True) if min(u) > 0)
        if not boards:
            why = f"no board of “{name}”" if not usable else "the trims leave nothing of any board"
            unplaced += [Unplaced(p.part, p.qty, why) for p in by_name[name]]
            continue
        blocks, lost = blocks_of(tuple(by_name[name]), boards, rules)
        unplaced += lost
        if blocks:
            found.append(_material(name, blocks, boards, rules, len(found)))
    return found, tuple(unplaced)


def micro(mm: float) -> int:
    return round(mm * MICRO)


def _material(
    name: str, blocks: tuple[Block, ...], boards: tuple[NestBoard, ...], rules: NestRules, number: int
) -> _Material:
    kerf = rules.kerf
    kinds = np.array(
        [(micro(b.length - 2 * rules.trim + kerf), micro(b.width - 2 * rules.trim + kerf)) for b in boards], np.int64
    )
    wide = np.array([micro(b.length + kerf) for b in blocks], np.int64)
    high = np.array([micro(b.width + kerf) for b in blocks], np.int64)
    turnable = np.array([int(b.turnable) for b in blocks], np.int64)
    new = np.array([not b.offcut for b in boards])
    area = np.array([b.length * b.width for b in boards])
    own = np.array([b.price for b in boards])
    # Where a price is missing, boards cost their area. Offcuts are paid for already.
    price = np.where(new, own if (own[new] > 0).all() else area * 1e-6, 0.0)
    size = kinds[:, 0].astype(float) * kinds[:, 1]
    worth = np.where(new, 1.0, OFFCUT_WORTH * (size.max() / size) ** 2)
    left = np.array([1_000_000 if b.qty is None else b.qty for b in boards], np.int64)
    # As if all boards were the largest one, or the cheapest for its size: no plan needs fewer or costs less.
    largest = (float(kinds[:, 0].max()), float(kinds[:, 1].max()))
    bound = least_boards(wide.astype(float), high.astype(float), turnable == 1, largest)
    whole = float((wide.astype(float) * high).sum()) - float((size * left)[~new].sum())
    bound_cost = max(0.0, whole) * float((price / size)[new].min()) if new.any() else 0.0
    if new.all():
        bound_cost = max(bound_cost, bound * float(price.min()))
    seed = np.array([(rules.seed * 0x9E3779B97F4A7C15 + (number + 1) * 0xD1B54A32D192ED03) % 2**64 or 1], np.uint64)
    return _Material(name, blocks, boards, wide, high, turnable, kinds, price, worth, left, bound, bound_cost, seed)


# --- the search


def first_cut(rules: NestRules) -> int:
    return {"either": kernel.ANY, "along": kernel.ALONG, "across": kernel.UP}[rules.first_cut]


def first_plan(m: _Material, rules: NestRules, *, quick: bool, over: Stopped = lambda: False) -> None:
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
                            cost = float(m.price[board_kind[:count]].sum())
                            if turn is not None:
                                out[:, 3] = turn
                            rating = _rating(m, wide, high, out, board_kind[:count])
                            before = (m.lost if m.count or m.cost < np.inf else n + 1, m.cost, -m.rating)
                            if (lost, cost, -rating) < before:
                                m.keep(out, board_kind[:count], count, lost, cost)
                                m.rating = rating
                            if quick or lost or cost > m.cost + 1e-9:
                                continue
                            most = float((free[:nf, 2].astype(float) * free[:nf, 3]).max()) if nf else 0.0
                            if m.other is None or (-cost, most) > (-m.other.cost, m.other.free):
                                m.other = _Laid(out.copy(), board_kind[:count].copy(), cost, most)
            if m.proven and quick and not m.from_rack:
                return


def _rating(
    m: _Material, wide: NDArray[np.int64], high: NDArray[np.int64], placed: NDArray[np.int64], kinds: NDArray[np.int64]
) -> float:
    """Squares of the areas in use on the boards by their worth, as the improvement counts them; 0 without offcuts."""
    if not m.from_rack:
        return 0.0
    on = placed[:, 0] >= 0
    fill = np.bincount(placed[on, 0], (wide.astype(float) * high)[on], len(kinds))
    return float((fill**2 * m.worth[kinds]).sum())


def _lying(m: _Material, *, along: bool) -> NDArray[np.int64]:
    """Which pieces are turned so that all lie with their long side along the board, or across it, as far as the boards
    take them so."""
    other = (m.high > m.wide) if along else (m.wide > m.high)
    takes = ((m.high[:, None] <= m.kinds[:, 0]) & (m.wide[:, None] <= m.kinds[:, 1])).any(axis=1)
    plain = ((m.wide[:, None] <= m.kinds[:, 0]) & (m.high[:, None] <= m.kinds[:, 1])).any(axis=1)
    turned: NDArray[np.int64] = ((m.turnable == 1) & takes & (other | ~plain)).astype(np.int64)
    return turned


ROUNDS = {1: 0, 2: 4_000, 3: 12_000, 4: 40_000, 5: 120_000, 6: 300_000, 7: 800_000, 8: 2_000_000, 9: 6_000_000}
"""Rounds of improvement by effort, for a hundred pieces."""

AT_A_TIME = 2_000
"""Rounds between two looks at the clock."""


def improve_once(m: _Material, rules: NestRules) -> bool:
    """Some rounds of improvement; True once the effort is spent."""
    n = len(m.wide)
    wanted = int(ROUNDS[min(9, max(1, rules.effort))] * max(1.0, n / 100))
    if m.count == 0 or wanted == 0 or m.lost:
        return True
    rounds = min(AT_A_TIME, wanted - m.rounds)
    left = m.left.copy()
    for b in range(m.count):
        left[m.board_kind[b]] -= 1
    kinds = np.zeros(n + 8, np.int64)
    kinds[: m.count] = m.board_kind[: m.count]
    placed = m.placed.copy()
    # Early on dead ends are left freely, later hardly.
    slack = 0.02 * (1.0 - m.rounds / wanted)
    count = kernel.improve(
        rounds,
        m.wide,
        m.high,
        m.turnable,
        m.kinds,
        left,
        m.price,
        rules.turns,
        first_cut(rules),
        m.state,
        placed,
        kinds,
        m.count,
        m.worth,
        slack,
        m.bound_cost,
    )
    m.rounds += rounds
    m.keep(placed, kinds[:count], count, 0, float(m.price[kinds[:count]].sum()))
    return m.rounds >= wanted


def finish(m: _Material, rules: NestRules, over: Stopped) -> bool:
    """Of plans that cost as little take the one that leaves the largest piece: the search's own, the same with what is
    left gathered, the best of the first plans. Offcuts cost nothing, so with them the one that fills them stands. False
    where that was ended early."""
    if m.count == 0 or m.lost:
        return True
    if m.from_rack:
        whole = gather(m, rules, over)
        largest_left(m, rules)
        return whole
    largest_left(m, rules)
    best = _Laid(m.placed, m.board_kind, m.cost, _largest_piece(m, rules))
    whole = gather(m, rules, over)
    for other in (None, m.other):
        if other is not None:
            if other.cost > best.cost + 1e-9:
                continue
            m.keep(other.placed, other.kinds, len(other.kinds), 0, other.cost)
        largest_left(m, rules)
        piece = _largest_piece(m, rules)
        if m.cost < best.cost - 1e-9 or (m.cost <= best.cost + 1e-9 and piece > best.free):
            best = _Laid(m.placed, m.board_kind, m.cost, piece)
    m.keep(best.placed, best.kinds, len(best.kinds), 0, best.cost)
    return whole


GATHER = 0.1
"""Share of the rounds of an effort that goes to gathering what is left, once the number of boards stands."""


def gather(m: _Material, rules: NestRules, over: Stopped) -> bool:
    """With as many boards, fill most of them better, so that what is left comes together on one. False where it was
    ended early."""
    n = len(m.wide)
    wanted = int(ROUNDS[min(9, max(1, rules.effort))] * max(1.0, n / 100) * GATHER)
    if m.count < 2 or m.lost:
        return True
    left = m.left.copy()
    for b in range(m.count):
        left[m.board_kind[b]] -= 1
    kinds = np.zeros(n + 8, np.int64)
    kinds[: m.count] = m.board_kind[: m.count]
    placed, count, ended = m.placed.copy(), m.count, False
    for _ in range(0, wanted, AT_A_TIME):
        ended = over()
        if ended:
            break
        count = kernel.improve(
            min(AT_A_TIME, wanted),
            m.wide,
            m.high,
            m.turnable,
            m.kinds,
            left,
            m.price,
            rules.turns,
            first_cut(rules),
            m.state,
            placed,
            kinds,
            count,
            m.worth,
            0.0,
            -1.0,
        )
    m.keep(placed, kinds[:count], count, 0, float(m.price[kinds[:count]].sum()))
    return not ended


LEFT_TRIES = {1: 60, 2: 200, 3: 300, 4: 400, 5: 500}
"""Ways by effort in which the emptiest board is laid out anew; more effort is worth no more."""


def largest_left(m: _Material, rules: NestRules) -> None:
    """Lay the emptiest boards out anew so that what is left of each is one large piece."""
    if m.count == 0 or m.lost:
        return
    tries = LEFT_TRIES[min(5, max(1, rules.effort))]
    for k, board in enumerate(_emptiest(m)[:EMPTIEST]):
        _lay_anew(m, rules, int(board), tries if k == 0 else tries // 4)


EMPTIEST = 3
"""Boards that are looked at for the largest piece left."""


def _emptiest(m: _Material) -> NDArray[np.int64]:
    """Boards, the one with the least share in use first."""
    fill = np.zeros(m.count)
    np.add.at(fill, m.placed[:, 0], m.wide.astype(float) * m.high.astype(float))
    share = fill / (m.kinds[m.board_kind[: m.count], 0].astype(float) * m.kinds[m.board_kind[: m.count], 1])
    return np.argsort(share, kind="stable")


def _lay_anew(m: _Material, rules: NestRules, board: int, tries: int) -> None:
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


def _largest_piece(m: _Material, rules: NestRules) -> float:
    """Area of the largest piece that the cuts leave on any of the emptiest boards, mm2."""
    most = 0.0
    for b in _emptiest(m)[:EMPTIEST]:
        board = m.boards[int(m.board_kind[b])]
        laid = _laid_on(m, int(b), rules)
        boxes = boxes_of(placements_of(laid, rules.kerf))
        found = sawn(boxes, trimmed(board.length, board.width, rules.trim), rules.kerf, rules.first_cut, rules.turns)
        if found is not None:
            most = max(most, *((x1 - x0) * (y1 - y0) for x0, y0, x1, y1 in found.left), 0.0)
    return most


def _laid_on(m: _Material, board: int, rules: NestRules) -> list[tuple[Block, float, float, bool]]:
    """Blocks on one board with their places, mm."""
    return [
        (m.blocks[i], int(m.placed[i, 1]) / MICRO + rules.trim, int(m.placed[i, 2]) / MICRO + rules.trim,
         bool(m.placed[i, 3]))
        for i in np.nonzero(m.placed[:, 0] == board)[0]
    ]  # fmt: skip


# --- the answer


def plan_of(
    materials: list[_Material], unplaced: tuple[Unplaced, ...], rules: NestRules, seconds: float, *, done: bool
) -> NestPlan:
    """What stands on the boards now, in mm."""
    boards: list[PlannedBoard] = []
    lost = list(unplaced)
    for m in materials:
        for i in np.nonzero(m.placed[:, 0] < 0)[0]:
            lost += [Unplaced(part, 1, "no board is left for it") for part in m.blocks[i].parts]
        found = []
        for b in range(m.count):
            laid = _laid_on(m, b, rules)
            found.append(board_of(m.boards[int(m.board_kind[b])], float(m.price[int(m.board_kind[b])]), laid, rules))
        boards += sorted(found, key=lambda b: (b.board, -b.used, [p.part for p in b.placements]))
    return NestPlan(tuple(boards), _together(lost), sum(m.bound for m in materials), seconds, done)


def _together(lost: list[Unplaced]) -> tuple[Unplaced, ...]:
    """Parts that are lost for one reason, with their number."""
    counts: dict[tuple[str, str], int] = {}
    for u in lost:
        counts[(u.part, u.why)] = counts.get((u.part, u.why), 0) + u.qty
    return tuple(Unplaced(part, qty, why) for (part, why), qty in counts.items())
