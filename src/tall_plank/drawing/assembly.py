"""How a unit is put together: steps that follow from its joints, each drawn with its new parts apart from what stands
already, and with what is bought for it."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Text
from tall_plank.drawing.seen import Seen, Way, see
from tall_plank.drawing.sheets import SCALES
from tall_plank.drawing.shopmarks import JOINTS
from tall_plank.job import Kind
from tall_plank.making import Item as Bought
from tall_plank.making import MadeUnit, Part
from tall_plank.making.parts import Bore, Groove
from tall_plank.measure import Frame
from tall_plank.measure.frames import RoomPoint, Vec
from tall_plank.measure.outlines import area
from tall_plank.solids.parts import solid_of
from tall_plank.solids.solids import Solid
from tall_plank.stock import Stock

APART = 0.28
"""How far a new part stands off, as a share of the unit's size that way."""

WIDE = 126.0
"""mm of paper that a step is drawn wide or high at the most."""


@dataclass(frozen=True)
class Step:
    """A step: what is done, the numbers of its new parts in the unit (from 1), where they stand off to, and what is
    bought for it."""

    title: str
    parts: tuple[int, ...]
    way: Vec
    items: tuple[tuple[str, int], ...] = ()


def joined(parts: Sequence[Part]) -> dict[int, set[int]]:
    """Which parts a joint holds together, by their places in the list: two holes or slots that start in one spot."""
    spots: dict[tuple[int, int, int], set[int]] = {}
    for n, part in enumerate(parts):
        for op in part.operations:
            at = None
            if isinstance(op, Bore) and op.use in JOINTS:
                at = part.place(op.face, op.x, op.y)
            elif isinstance(op, Groove) and op.over in JOINTS:
                at = part.place(op.face, (op.x1 + op.x2) / 2, (op.y1 + op.y2) / 2)
            if at is not None:
                spots.setdefault((round(at[0] * 10), round(at[1] * 10), round(at[2] * 10)), set()).add(n)
    found: dict[int, set[int]] = {n: set() for n in range(len(parts))}
    for there in spots.values():
        for n in there:
            found[n] |= there - {n}
    return found


def steps_of(unit: MadeUnit, stock: Stock) -> list[Step]:
    """The steps of a unit in their order; every part is in one of them, and so is everything that is bought."""
    parts = list(unit.shown)
    links = joined(parts)
    fronts = {n for n, p in enumerate(parts) if any(f.owns(p.name) for f in unit.fronts)}
    drawers = {n for n, p in enumerate(parts) if p.role in ("drawer", "drawer bottom")}
    loose = {n for n, p in enumerate(parts) if p.role == "shelf" and not links[n]} - fronts
    backs = {n for n, p in enumerate(parts) if p.role == "back"}
    carcass = [n for n in range(len(parts)) if n not in fronts | drawers | loose | backs]
    found: list[tuple[str, list[int], Vec]] = []
    if carcass:
        first, rest = _first_side(parts, links, carcass)
        found.append((f"Join to the {parts[first[0]].name}", first, (1.0, 0.0, 0.0)))
        for group in rest:
            found.append((f"Press on: {', '.join(parts[n].name for n in group[:3])}", group, _side_of(parts, group)))
    if backs:
        found.append(("Slide in the back" if not links[min(backs)] else "Fix the back", sorted(backs), (0.0, 1.0, 0.0)))
    if drawers:
        found.append(("Make the drawer boxes", sorted(drawers), (0.0, -1.0, 0.0)))
    if loose:
        found.append(("Put in the shelves", sorted(loose), (0.0, -1.0, 0.0)))
    if fronts:
        found.append(("Hang the fronts", sorted(fronts), (0.0, -1.0, 0.0)))
    titles = [title for title, _, _ in found]
    bought = _bought(unit, stock, titles)
    made = [Step(title, tuple(n + 1 for n in group), way, bought.get(title, ())) for title, group, way in found]
    last = bought.get(SET, ())
    return [*made, Step(SET, (), (0.0, 0.0, 0.0), last)] if last or not made else made


SET = "Set it and fix it"
"""The last step: legs, fixings, what hangs and stands inside."""


def _first_side(
    parts: Sequence[Part], links: dict[int, set[int]], carcass: Sequence[int]
) -> tuple[list[int], list[list[int]]]:
    """The first gable with all that hangs on it by joints but the last one, and what follows: the other gable, and what
    no joint holds."""
    there = set(carcass)
    gables = [n for n in carcass if "gable" in parts[n].name]
    start = gables[0] if gables else carcass[0]
    end = gables[-1] if len(gables) > 1 else None
    found, queue = [start], [start]
    while queue:
        n = queue.pop(0)
        for m in sorted(links[n] & there):
            if m not in found and m != end:
                found.append(m)
                queue.append(m)
    rest = [[end]] if end is not None else []
    left = [n for n in carcass if n not in found and n != end]
    return found, [*rest, *([left] if left else [])]


def _side_of(parts: Sequence[Part], group: Sequence[int]) -> Vec:
    """The way in which something stands off: a gable sideways, else forwards."""
    return (1.0, 0.0, 0.0) if "gable" in parts[group[0]].name else (0.0, -1.0, 0.0)


WHERE = {
    "hinge": "Hang the fronts", "plate": "Hang the fronts", "handle": "Hang the fronts", "stay": "Hang the fronts",
    "bifold": "Hang the fronts", "runner": "Make the drawer boxes",
}  # fmt: skip
"""Kinds of fittings, and the step that they belong to."""


def _bought(unit: MadeUnit, stock: Stock, titles: Sequence[str]) -> dict[str, tuple[tuple[str, int], ...]]:
    """What is bought for each step: all that the unit's list has, once."""
    counts: dict[str, Counter[str]] = {}
    carcass = next((t for t in titles if t.startswith(("Press on", "Join"))), SET)
    press = next((t for t in titles if t.startswith("Press on")), carcass)
    for item in unit.items:
        fitting = stock.fitting(item.code)
        kind = fitting.kind if fitting is not None else ""
        step = _step_of(item, kind, press, titles)
        counts.setdefault(step, Counter())[fitting.name if fitting is not None else item.code] += item.qty
    return {step: tuple(sorted(found.items())) for step, found in counts.items()}


def _step_of(item: Bought, kind: str, press: str, titles: Sequence[str]) -> str:
    """The step that something bought belongs to, by what it is and why it is bought."""
    if kind in WHERE and WHERE[kind] in titles:
        return WHERE[kind]
    drawer = "drawer" in item.why
    if kind in ("dowel", "screw", "cam", "biscuit", "tenon", "pocket"):
        if drawer and "front" in item.why and "Hang the fronts" in titles:
            return "Hang the fronts"
        if drawer and "Make the drawer boxes" in titles:
            return "Make the drawer boxes"
        return press if press in titles else SET
    if "pin" in item.why and "Put in the shelves" in titles:
        return "Put in the shelves"
    return SET


LEAN = (-0.42, -0.76, 0.50)
"""From where a unit is looked at: from its left, its front and above."""


def looking() -> Way:
    """Seen square to `LEAN`, upright lines upright."""
    size = math.sqrt(sum(v * v for v in LEAN))
    t = tuple(v / size for v in LEAN)
    flat = math.hypot(t[0], t[1])
    right = (-t[1] / flat, t[0] / flat, 0.0)
    up = (
        t[1] * right[2] - t[2] * right[1],
        t[2] * right[0] - t[0] * right[2],
        t[0] * right[1] - t[1] * right[0],
    )
    return Way((0.0, 0.0, 0.0), right, up)


def step_drawings(number: str, unit: MadeUnit, stock: Stock) -> list[Drawing]:
    """A drawing of each step, all at one scale."""
    steps = steps_of(unit, stock)
    spec = unit.spec
    right, up = looking().right, looking().up
    apart = 1.0 + APART
    wide = (abs(right[0]) * spec.width + abs(right[1]) * spec.depth) * apart
    high = abs(up[2]) * spec.height + (abs(up[0]) * spec.width + abs(up[1]) * spec.depth) * apart
    size = max(wide, high)
    scale = float(next((s for s in SCALES if size / s <= WIDE), SCALES[-1]))
    there: list[int] = []
    found = []
    for i, step in enumerate(steps, 1):
        found.append(_step_drawing(number, i, step, unit, tuple(there), scale))
        there += step.parts
    return found


def _step_drawing(number: str, i: int, step: Step, unit: MadeUnit, there: tuple[int, ...], scale: float) -> Drawing:
    spec = unit.spec
    sizes = (spec.width, spec.depth, spec.height)
    away = tuple(v * max(160.0, s * APART) for v, s in zip(step.way, sizes, strict=True))
    first = not there
    solids: list[Solid] = []
    for n in (*there, *step.parts):
        # Of the first step, one part stands and the others come to it.
        moved = n in step.parts and not (first and n == step.parts[0])
        solids += _solids(unit.shown[n - 1], n, away if moved else (0.0, 0.0, 0.0))
    seen = see(solids, looking())
    new = {str(n) for n in step.parts}
    items: list[Item] = []
    for (x1, y1, x2, y2), k in zip(seen.lines.tolist(), seen.line_of.tolist(), strict=True):
        source = seen.solids[k].source
        items.append(Line(x1, y1, x2, y2, Pen.MEDIUM if source.id in new else Pen.NARROW, Layer.CARCASS, source))
    items += _numbers(number, seen, new)
    xs = [v for x1, _, x2, _ in seen.lines.tolist() for v in (x1, x2)] or [0.0]
    ys = [v for _, y1, _, y2 in seen.lines.tolist() for v in (y1, y2)] or [0.0]
    lines = [f"{i}  {step.title}", *(f"{qty} × {name}" for name, qty in step.items)]
    low = min(ys) - 4.0 * scale
    items += [
        Text(min(xs), low, line, 1.8, Layer.LABEL, align="left", rise=-3.2 * k - 2.0, bold=k == 0)
        for k, line in enumerate(lines)
    ]
    return Drawing(
        f"{number} step {i}", tuple(items), min(xs), low - 3.2 * len(lines) * scale, max(xs), max(ys), number, scale
    )


def _solids(part: Part, n: int, away: Sequence[float]) -> list[Solid]:
    frame = Frame(RoomPoint((away[0], away[1], away[2]))).then(part.frame)
    return solid_of(frame, part, "#FFFFFF", Kind.PART.of(str(n)), part.name)


def _numbers(number: str, seen: Seen, new: set[str]) -> Iterator[Item]:
    """The numbers of the new parts, where most of each is seen."""
    where: dict[str, tuple[float, float, float]] = {}
    for corners, k in zip(seen.looked.corners, seen.looked.face_of.tolist(), strict=True):
        name = seen.solids[k].source.id
        size = abs(area([(float(x), float(y)) for x, y, _ in corners]))
        if name in new and size > where.get(name, (0.0, 0.0, 0.0))[2]:
            middle = corners[:, :2].mean(axis=0)
            where[name] = (float(middle[0]), float(middle[1]), size)
    for name, (x, y, _) in sorted(where.items(), key=lambda entry: int(entry[0])):
        yield Text(x, y, f"{number}.{name}", 1.8, Layer.LABEL, Kind.PART.of(name), backed=True, rise=-0.9)
