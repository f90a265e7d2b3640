"""A material in the search: pieces and boards in thousandths of a millimetre, the best plan so far, its bounds."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from tall_plank.shop.nesting import kernel
from tall_plank.shop.nesting.blocks import Block, blocks_of
from tall_plank.shop.nesting.bounds import least_boards
from tall_plank.shop.nesting.request import NestBoard, NestPart, NestRules, Request, Unplaced

ROUNDS = {1: 0, 2: 4_000, 3: 12_000, 4: 40_000, 5: 120_000, 6: 300_000, 7: 800_000, 8: 2_000_000, 9: 6_000_000}
"""Rounds of improvement by effort, for a hundred pieces."""


AT_A_TIME = 2_000
"""Rounds between two looks at the clock."""


def rounds_of(rules: NestRules, pieces: int) -> int:
    """Rounds that an effort allows for so many pieces."""
    return int(ROUNDS[min(9, max(1, rules.effort))] * max(1.0, pieces / 100))


def first_cut(rules: NestRules) -> int:
    return {"either": kernel.ANY, "along": kernel.ALONG, "across": kernel.UP}[rules.first_cut]


MICRO = 1000
"""The kernel counts in micrometres."""


OFFCUT_WORTH = 4.0
"""A full offcut counts as so many full boards where plans cost the same: the rack comes first (common practice)."""


@dataclass(frozen=True)
class Laid:
    """A plan put by: places, kinds of its boards, its cost, the largest free rectangle."""

    placed: NDArray[np.int64]
    kinds: NDArray[np.int64]
    cost: float
    free: float


@dataclass
class Material:
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
    other: Laid | None = None
    """Of the first plans, one that costs as little and leaves the largest piece."""

    def keep(self, placed: NDArray[np.int64], kinds: NDArray[np.int64], count: int, lost: int, cost: float) -> None:
        """Keep a plan: places in thousandths of mm, kinds of board, how many boards, parts on none, money."""
        self.placed, self.board_kind = placed.copy(), kinds.copy()
        self.count, self.lost, self.cost = count, lost, cost

    def opened(self) -> tuple[NDArray[np.int64], NDArray[np.int64], NDArray[np.int64]]:
        """Copies of the best plan to be changed: what is left of each kind of board, kinds of its boards, places."""
        left = self.left.copy()
        for b in range(self.count):
            left[self.board_kind[b]] -= 1
        kinds = np.zeros(len(self.wide) + 8, np.int64)
        kinds[: self.count] = self.board_kind[: self.count]
        return left, kinds, self.placed.copy()

    def improve(
        self,
        rules: NestRules,
        rounds: int,
        plan: tuple[NDArray[np.int64], NDArray[np.int64], NDArray[np.int64]],
        count: int,
        slack: float,
        bound: float,
    ) -> int:
        """Some rounds of the inner loop on an opened plan of `count` boards; how many boards it has then.

        Parameters
        ----------
        slack : share of cost by which a round may be worse
        bound : cost at which it stops; below 0: never
        """
        left, kinds, placed = plan
        return int(
            kernel.improve(
                rounds, self.wide, self.high, self.turnable, self.kinds, left, self.price, rules.turns,
                first_cut(rules), self.state, placed, kinds, count, self.worth, slack, bound,
            )
        )  # fmt: skip

    @property
    def from_rack(self) -> bool:
        """Whether there are offcuts to cut."""
        return any(b.offcut for b in self.boards)

    @property
    def proven(self) -> bool:
        """Whether no plan can be better."""
        return self.lost == 0 and self.cost <= self.bound_cost + 1e-9


def materials_of(request: Request) -> tuple[list[Material], tuple[Unplaced, ...]]:
    """Pieces and boards by material, and the parts that cannot lie on any board."""
    rules = request.rules
    found: list[Material] = []
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
    """A length in mm as whole thousandths."""
    return round(mm * MICRO)


def _material(
    name: str, blocks: tuple[Block, ...], boards: tuple[NestBoard, ...], rules: NestRules, number: int
) -> Material:
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
    return Material(name, blocks, boards, wide, high, turnable, kinds, price, worth, left, bound, bound_cost, seed)
