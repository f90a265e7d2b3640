"""Cutting plans measured side by side with the general-purpose packer rectpack, in one run.

    bench/nesting.py            a sample of the published random classes, and cabinet-like lists
    bench/nesting.py --all      all 500 instances
    bench/nesting.py --quick    a few

Random classes: Berkey & Wang, J. Oper. Res. Soc. 38 (1987), I-VI; Martello & Vigo, Management Science 44 (1998), VII-X
(definitions from memory). rectpack runs its guillotine and its maximal-rectangles algorithms over all their ways of
choosing boards and orders. Parts and boards are both grown by one kerf, so both packers see the same sizes.
"""

from __future__ import annotations

import itertools
import random
import statistics
import sys
import time
from dataclasses import dataclass, field

import psutil
import rectpack
from rectpack import guillotine, maxrects, packer

from tall_plank.shop.nesting import NestBoard, NestPart, NestPlan, NestRules, Request
from tall_plank.shop.nesting.nest import nest

ORDERS = (
    packer.SORT_NONE, packer.SORT_AREA, packer.SORT_PERI, packer.SORT_DIFF, packer.SORT_SSIDE, packer.SORT_LSIDE,
    packer.SORT_RATIO,
)  # fmt: skip
BINS = (packer.PackingBin.BNF, packer.PackingBin.BFF, packer.PackingBin.BBF)
EDGE_TO_EDGE = [
    getattr(guillotine, f"Guillotine{fit}{split}")
    for fit in ("Baf", "Bssf", "Blsf")
    for split in ("Sas", "Las", "Slas", "Llas", "Maxas", "Minas")
]
FREE = [maxrects.MaxRectsBl, maxrects.MaxRectsBssf, maxrects.MaxRectsBaf, maxrects.MaxRectsBlsf]


@dataclass
class Case:
    """A list of parts on boards of one size. Sizes are whole numbers; kerf in the same unit."""

    group: str
    board: tuple[int, int]
    parts: list[tuple[int, int]]
    turnable: bool
    kerf: int = 0
    found: dict[str, float] = field(default_factory=dict)


def random_class(number: int, n: int, seed: int) -> Case:
    """An instance of a class, made anew by its published definition."""
    r = random.Random(number * 100_000 + n * 100 + seed)
    if number <= 6:
        high, side = [(10, 10), (10, 30), (35, 40), (35, 100), (100, 100), (100, 300)][number - 1]
        parts = [(r.randint(1, high), r.randint(1, high)) for _ in range(n)]
        return Case(f"class {number}", (side, side), parts, False)
    w = h = 100
    kinds = {
        1: lambda: (r.randint(2 * w // 3, w), r.randint(1, h // 2)),
        2: lambda: (r.randint(1, w // 2), r.randint(2 * h // 3, h)),
        3: lambda: (r.randint(w // 2, w), r.randint(h // 2, h)),
        4: lambda: (r.randint(1, w // 2), r.randint(1, h // 2)),
    }  # fmt: skip
    main = number - 6
    parts = []
    for _ in range(n):
        kind = main if r.random() < 0.7 else r.choice([k for k in kinds if k != main])
        parts.append(kinds[kind]())
    return Case(f"class {number}", (w, h), parts, False)


def cabinets(n: int, seed: int, *, turnable: bool) -> Case:
    """Parts as kitchens and wardrobes have them: a few depths and heights, widths in steps, in tenths of a mm."""
    r = random.Random(seed * 7919 + n)
    parts: list[tuple[int, int]] = []
    while len(parts) < n:
        width = r.choice([300, 400, 450, 500, 600, 800, 900, 1000])
        depth, high = r.choice([(560, 720), (330, 720), (560, 2090), (560, 1300), (400, 1800)])
        unit = [(high, depth)] * 2 + [(width - 36, depth)] * r.choice([1, 2]) + [(high - 20, width - 20)]
        unit += [(width - 38, depth - 40)] * r.choice([0, 1, 2, 4])
        if r.random() < 0.4:
            fronts = r.choice([2, 3, 4])
            unit += [(width - 3, (high - 3 * fronts) // fronts)] * fronts if high < 1500 else [(high - 3, width - 3)]
        parts += [(max(a, 60) * 10, max(b, 60) * 10) for a, b in unit]
    board = (28000 - 200, 20700 - 200)
    fits = [(a, b) for a, b in parts[:n] if a <= board[0] and b <= board[1]]
    return Case(f"cabinets {n} {'turnable' if turnable else 'with grain'}", board, fits, turnable, 32)


Rect = tuple[float, float, float, float]
"""x0, y0, x1, y1."""


def largest_empty(rects: list[Rect], wide: float, high: float, more_than: float = 0.0) -> float:
    """Area of the largest rectangle of a board that no part touches; 0 where none is larger than some area."""
    if wide * high - sum((c - a) * (d - b) for a, b, c, d in rects) <= more_than:
        return 0.0
    free: list[Rect] = [(0.0, 0.0, wide, high)]
    for a, b, c, d in rects:
        cut: list[Rect] = []
        for x0, y0, x1, y1 in free:
            if a >= x1 or c <= x0 or b >= y1 or d <= y0:
                cut.append((x0, y0, x1, y1))
                continue
            pieces = ((x0, y0, a, y1), (c, y0, x1, y1), (x0, y0, x1, b), (x0, d, x1, y1))
            cut += [p for p in pieces if (p[2] - p[0]) * (p[3] - p[1]) > more_than and p[2] > p[0] and p[3] > p[1]]
        free = [
            p
            for i, p in enumerate(cut)
            if not any(
                q[0] <= p[0] and q[1] <= p[1] and q[2] >= p[2] and q[3] >= p[3] and (q != p or j < i)
                for j, q in enumerate(cut)
                if j != i
            )
        ]
    return max(((x1 - x0) * (y1 - y0) for x0, y0, x1, y1 in free), default=0.0)


def by_rectpack(case: Case) -> None:
    """Fewest boards of its edge-to-edge and of all its algorithms; time for all of them; the largest rectangle that any
    of its edge-to-edge plans with so few boards leaves."""
    k = case.kerf
    grown = [(w + k, h + k) for w, h in case.parts]
    bw, bh = case.board[0] + k, case.board[1] + k
    start = time.perf_counter()
    looking = 0.0
    best = {"edge": len(grown), "any": len(grown)}
    left = 0.0
    for kind, algorithms in (("edge", EDGE_TO_EDGE), ("any", FREE)):
        for algorithm, bins, order in itertools.product(algorithms, BINS, ORDERS):
            p = rectpack.newPacker(
                mode=rectpack.PackingMode.Offline,
                bin_algo=bins,
                pack_algo=algorithm,
                sort_algo=order,
                rotation=case.turnable,
            )
            for w, h in grown:
                p.add_rect(w, h)
            p.add_bin(bw, bh, count=len(grown))
            p.pack()
            if sum(len(b) for b in p) == len(grown):
                looked = time.perf_counter()
                if kind == "edge" and len(p) <= best[kind]:
                    left = left if len(p) == best[kind] else 0.0
                    for b in p:
                        rects = [(float(r.x), float(r.y), float(r.x + r.width), float(r.y + r.height)) for r in b]
                        left = max(left, largest_empty(rects, bw, bh, left))
                best[kind] = min(best[kind], len(p))
                looking += time.perf_counter() - looked
    took = time.perf_counter() - start - looking
    case.found |= {"edge": best["edge"], "any": min(best.values()), "their s": took, "their left": left}


def request_of(case: Case, rules: NestRules) -> Request:
    grain = "none" if case.turnable else "length"
    parts = tuple(NestPart(str(i), float(w), float(h), 1, "m", grain) for i, (w, h) in enumerate(case.parts))  # type: ignore[arg-type]
    return Request(parts, (NestBoard("b", "m", float(case.board[0]), float(case.board[1])),), rules)


def by_us(case: Case, effort: int) -> NestPlan:
    """Our plan, and how long it took to come down to rectpack's best."""
    start = time.perf_counter()
    reached = [float("inf")]

    def told(plan: NestPlan) -> None:
        if len(plan.boards) <= case.found["any"]:
            reached.append(time.perf_counter() - start)

    rules = NestRules(kerf=float(case.kerf), trim=0.0, effort=effort, seconds=0.0, keep_length=1.0, keep_width=1.0)
    plan = nest(request_of(case, rules), told)
    took = time.perf_counter() - start
    if len(plan.boards) <= case.found["any"]:
        reached.append(took)
    k = case.kerf
    left = 0.0
    for b in plan.boards:
        rects = [(p.x, p.y, p.x + p.length + k, p.y + p.width + k) for p in b.parts]
        left = max(left, largest_empty(rects, case.board[0] + k, case.board[1] + k, left))
    case.found |= {
        "ours": len(plan.boards), "bound": plan.bound, "our s": took, "reached s": min(reached), "our left": left,
    }  # fmt: skip
    return plan


def cases(how: str) -> list[Case]:
    sizes = (20, 40, 60, 80, 100)
    seeds = range(10) if how == "all" else range(1) if how == "quick" else range(2)
    sizes = sizes if how != "quick" else (20, 60)
    found = [random_class(c, n, s) for c in range(1, 11) for n in sizes for s in seeds]
    lists = (60, 160) if how == "quick" else (40, 80, 160, 300)
    found += [cabinets(n, s, turnable=t) for n in lists for s in (1, 2) for t in (True, False)]
    return found


def main() -> None:
    how = "all" if "--all" in sys.argv else "quick" if "--quick" in sys.argv else "sample"
    effort = 5
    warm = random_class(1, 20, 99)
    warm.found["any"] = 0
    start = time.perf_counter()
    by_us(warm, 2)
    print(f"cold start of the search in this process: {time.perf_counter() - start:.2f} s")
    todo = cases(how)
    groups: dict[str, list[Case]] = {}
    for case in todo:
        by_rectpack(case)
        by_us(case, effort)
        groups.setdefault(case.group, []).append(case)
    print(f"{'lists':<26}{'n':>4}{'ours':>7}{'edge':>7}{'any':>7}{'bound':>7}{'our s':>9}{'reached':>9}{'their s':>9}")
    for name, found in groups.items():
        total = {k: sum(c.found[k] for c in found) for k in ("ours", "edge", "any", "bound", "our s", "their s")}
        reached = [c.found["reached s"] for c in found if c.found["reached s"] < float("inf")]
        print(
            f"{name:<26}{len(found):>4}{total['ours']:>7.0f}{total['edge']:>7.0f}{total['any']:>7.0f}"
            f"{total['bound']:>7.0f}{total['our s']:>9.2f}{sum(reached):>9.2f}{total['their s']:>9.2f}"
        )
    worse = [c for c in todo if c.found["ours"] > c.found["edge"]]
    lost = [c for c in todo if c.found["ours"] > c.found["any"]]
    slow = [c for c in todo if c.found["reached s"] > c.found["their s"] / 2 and c not in lost]
    far = [c for c in todo if len(c.parts) > 150 and c.found["ours"] > c.found["bound"] + 1]
    total = {k: sum(c.found[k] for c in todo) for k in ("ours", "edge", "any", "bound")}
    print(
        f"in all: ours {total['ours']:.0f}, edge-to-edge {total['edge']:.0f}, of any kind {total['any']:.0f}, "
        f"bound {total['bound']:.0f}"
    )
    print(f"more boards than its best edge-to-edge: {len(worse)} of {len(todo)} (target 0)")
    for c in lost:
        counts = f"{c.found['ours']:.0f} to {c.found['any']:.0f}"
        print(f"  lost to its best of any kind: {c.group}, {len(c.parts)} parts: {counts}")
    print(f"slower than half its time to that quality: {len(slow)} (target 0)")
    for c in slow:
        print(f"  {c.group}, {len(c.parts)} parts: {c.found['reached s']:.2f} s to {c.found['their s']:.2f} s")
    print(f"lists over 150 parts more than one board from the bound: {len(far)} (target 0)")
    even = [c for c in todo if c.found["ours"] == c.found["edge"]]
    size = {id(c): (c.board[0] + c.kerf) * (c.board[1] + c.kerf) / 100 for c in even}
    more = sum(c.found["our left"] > c.found["their left"] * 1.0001 for c in even)
    less = sum(c.found["our left"] < c.found["their left"] * 0.9999 for c in even)
    means = [statistics.mean(c.found[key] / size[id(c)] for c in even) for key in ("our left", "their left")]
    print(
        f"equally many boards as its edge-to-edge plans, {len(even)} lists: largest rectangle left larger {more}, "
        f"alike {len(even) - more - less}, smaller {less} than the best of all its plans; "
        f"in the mean {means[0]:.1f} % of a board to {means[1]:.1f} %"
    )
    ratio = [c.found["reached s"] / c.found["their s"] for c in todo if c.found["reached s"] < float("inf")]
    print(f"share of its time, median {statistics.median(ratio):.3f}, worst {max(ratio):.3f}")
    many = cabinets(400, 5, turnable=True)
    for label in ("first valid plan of 400 parts, warm", "again"):
        start = time.perf_counter()
        plan = nest(request_of(many, NestRules(kerf=32.0, trim=0.0, effort=1, seconds=0.0)))
        print(f"{label}: {time.perf_counter() - start:.3f} s, {len(plan.boards)} boards (target 0.5 s)")
    start = time.perf_counter()
    plan = nest(request_of(many, NestRules(kerf=32.0, trim=0.0, effort=5, seconds=10.0)))
    print(f"full quality: {time.perf_counter() - start:.2f} s (10), {len(plan.boards)} boards, bound {plan.bound}")
    for turns in (0, 4, 3, 2):
        plan = nest(request_of(many, NestRules(kerf=32.0, trim=0.0, effort=4, seconds=10.0, turns=turns)))
        print(f"turns {turns or 'free'}: {len(plan.boards)} boards, yield {plan.used * 100:.1f} %")
    print(f"memory: {psutil.Process().memory_info().rss / 1e6:.0f} MB (500)")


if __name__ == "__main__":
    main()
