"""Boards laid out alike, so that they are sawn in packs: a plan's parts in fewer layouts, at the cost of no board.

Sizes in large numbers are what this is for. A layout is looked for that can be repeated as often as may be: a board is
filled with its share of every size, and what is left must still go on the boards that are left. So the layouts go from
the most repeated to the least; where no repeat is found, the plan stays as it is.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable

import msgspec

from tall_plank.job.cutting import LaidBoard
from tall_plank.shop.nesting.cuts import sawn
from tall_plank.shop.nesting.request import NestBoard, NestPart, NestPlan, NestRules, Request

Size = tuple[float, float, str]
"""Cut length and width, mm, and the grain: what makes two parts the same to the saw."""

Layout = tuple[LaidBoard, int]
"""A board whose parts are named by their size's place, and how often it is cut."""

Nest = Callable[[Request], NestPlan]

WAYS = 6
"""Ways of repeating a layout that are followed to their end, where the first of them takes more than two."""

TRIES = 4
"""Boards of a plan of one share of all sizes that are tried as a layout."""


def laid_alike(plan: NestPlan, request: Request, nest: Nest, over: Callable[[], bool]) -> NestPlan:
    """The plan, each material in fewer layouts where that costs no board.

    Parameters
    ----------
    nest : lays parts out by the same rules
    over : whether the time is up
    """
    boards: list[LaidBoard] = []
    for material in dict.fromkeys(b.material for b in plan.boards):
        mine = tuple(b for b in plan.boards if b.material == material)
        again = None if over() else _again(material, mine, request, nest, over)
        boards += mine if again is None or _layouts(again) >= _layouts(mine) else again
    found = tuple(boards)
    turns = tuple(_turns(b, request.rules) for b in found) if plan.turns else ()
    return msgspec.structs.replace(plan, boards=found, turns=turns)


def _layouts(boards: Iterable[LaidBoard]) -> int:
    """How many different layouts some boards have."""
    return len({(b.board, frozenset(Counter((p.x, p.y, p.length, p.width) for p in b.parts).items())) for b in boards})


def _turns(b: LaidBoard, rules: NestRules) -> int:
    area = (rules.trim, rules.trim, b.length - rules.trim, b.width - rules.trim)
    boxes = tuple((p.x, p.y, p.x + p.length, p.y + p.width) for p in b.parts)
    found = sawn(boxes, area, rules.kerf, rules.first_cut, rules.turns)
    return found.turns if found is not None else 0


def _again(
    material: str, mine: tuple[LaidBoard, ...], request: Request, nest: Nest, over: Callable[[], bool]
) -> tuple[LaidBoard, ...] | None:
    """The boards of a material anew; None where they are of several kinds, from the rack, or fronts are matched."""
    stock = [b for b in request.boards if b.material == material and not b.offcut and b.qty is None]
    kinds = {b.board for b in mine}
    parts = {p.part: p for p in request.parts if p.material == material}
    board = next((b for b in stock if b.board in kinds), None)
    if len(mine) < 2 or len(kinds) > 1 or board is None or any(p.match for p in parts.values()):
        return None
    sizes: dict[Size, list[str]] = {}
    for b in mine:
        for placed in b.parts:
            p = parts[placed.part]
            sizes.setdefault((round(p.length, 2), round(p.width, 2), p.grain), []).append(p.part)
    search = _Search(list(sizes), board, request.rules, nest, over)
    found = search.repeated(tuple(len(names) for names in sizes.values()), len(mine))
    if found is None:
        return None
    pools = {str(i): list(names) for i, names in enumerate(sizes.values())}
    boards = []
    for layout, times in found:
        for _ in range(times):
            own = tuple(msgspec.structs.replace(p, part=pools[p.part].pop(0)) for p in layout.parts)
            boards.append(msgspec.structs.replace(layout, parts=own))
    return tuple(boards)


class _Search:
    """Layouts for numbers of some sizes on one kind of board."""

    def __init__(
        self, sizes: list[Size], board: NestBoard, rules: NestRules, nest: Nest, over: Callable[[], bool]
    ) -> None:
        self.sizes, self.board, self.nest, self.over = sizes, board, nest, over
        self.rules = msgspec.structs.replace(rules, effort=min(3, rules.effort), seconds=0.0, pack=False)
        self.room = (board.length - 2 * rules.trim) * (board.width - 2 * rules.trim)
        self.known: dict[tuple[int, ...], tuple[LaidBoard, ...]] = {}

    def laid(self, numbers: tuple[int, ...]) -> tuple[LaidBoard, ...]:
        """Boards for some numbers of each size, parts named by their size's place."""
        if numbers not in self.known:
            parts = tuple(
                NestPart(f"{i}", long, wide, n, self.board.material, "length" if grain == "length" else "none")
                for i, ((long, wide, grain), n) in enumerate(zip(self.sizes, numbers, strict=True))
                if n
            )
            self.known[numbers] = self.nest(Request(parts, (self.board,), self.rules)).boards
        return self.known[numbers]

    def area(self, numbers: Iterable[int]) -> float:
        return sum(long * wide * n for (long, wide, _), n in zip(self.sizes, numbers, strict=True))

    def repeated(self, wanted: tuple[int, ...], most: int) -> list[Layout] | None:
        """Layouts for what is wanted on so many boards at most, the most repeated first; None where none is found."""
        if not any(wanted):
            return []
        if most == 0 or self.area(wanted) > most * self.room:
            return None
        if most == 1:
            boards = self.laid(wanted)
            return [(boards[0], 1)] if len(boards) == 1 else None
        best: list[Layout] | None = None
        ways = 0
        for times in range(most, 0, -1):
            if self.over() or ways >= WAYS:
                break
            for layout, counts in self._candidates(tuple(n // times for n in wanted)):
                rest = tuple(n - times * c for n, c in zip(wanted, counts, strict=True))
                if not any(rest):
                    return [(layout, times)]
                # What is left must go on the boards that are left: by its area, then as it is laid.
                if self.area(rest) > (most - times) * self.room or len(self.laid(rest)) > most - times:
                    continue
                more = self.repeated(rest, most - times)
                if more is None:
                    continue
                ways += 1
                if best is None or 1 + len(more) < len(best):
                    best = [(layout, times), *more]
                if len(best) <= 2:  # one would have been found before
                    return best
        return best

    def _candidates(self, share: tuple[int, ...]) -> list[tuple[LaidBoard, tuple[int, ...]]]:
        """Boards full of a share of all sizes, the fullest first; each with how many of each size it has."""
        if not any(share):
            return []
        found: dict[tuple[int, ...], LaidBoard] = {}
        for b in sorted(self.laid(share), key=lambda b: -b.used)[:TRIES]:
            counts = Counter(p.part for p in b.parts)
            found.setdefault(tuple(counts[str(i)] for i in range(len(self.sizes))), b)
        return [(b, counts) for counts, b in found.items()]
