"""Dimensions of a part: a chain for each pattern of holes, named by the rows that have it; where rows lie; where holes
lie through the thickness of an edge; ends of grooves, corners of outlines, sides of cut-outs."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from itertools import pairwise
from typing import Literal

from tall_plank.drawing.partwords import STEADY, outline_path
from tall_plank.drawing.primitives import Dim, Item
from tall_plank.making.parts import EDGE_NAMES, Bore, Cutout, Groove, Part
from tall_plank.measure import DisplayUnit, format_chain, format_length

MOST = 5
"""Chains below a face at the most; what has none of its own shares the last one, and stands in the legend."""

NEAR = 0.01
"""mm; nearer places are one."""


def face_dims(
    part: Part,
    face: str,
    y_of: Callable[[float], float],
    base: tuple[float, float],
    first: tuple[int, int],
    display: DisplayUnit,
) -> list[Item]:
    """Chains below a face and at its left.

    Parameters
    ----------
    base : where the chains below (y) and those at the left (x) count from, mm
    first : the row that each of them begins with, -1 or beyond what stands there already
    """  # fmt: skip
    below, left = base
    row, column = first
    items: list[Item] = []
    for places, name in patterns(part, face, display):
        chain = _chain([0.0, *places, part.length], below, row, "x", display, name)
        items += chain
        row -= 1 if chain else 0
    items.append(_whole(0.0, part.length, below, row, "x", display))
    ys = [y_of(y) for y in sorted({0.0, *rows_across(part, face), part.width})]
    chain = _chain(sorted(ys), left, column, "y", display)
    items += chain
    items.append(_whole(ys[0], ys[-1], left, column - (1 if chain else 0), "y", display))
    return items


def patterns(part: Part, face: str, display: DisplayUnit = DisplayUnit.MM) -> list[tuple[list[float], str]]:
    """Places along the length with what lies there, at the most `MOST`: first what the outline is, then rows of holes,
    those with most holes first."""
    found: list[tuple[list[float], str]] = []
    shape = {x for x, _, _ in outline_path(part)}
    for op in part.operations:
        if isinstance(op, Cutout):
            shape |= {op.x, op.x + op.length}
        elif isinstance(op, Groove) and op.face == face:
            shape |= _groove_ends(op)
    if _inner(shape, part.length):
        found.append((_inner(shape, part.length), "shape"))
    rows: dict[float, set[float]] = {}
    for bore in _bores(part, face):
        rows.setdefault(round(bore.y, 2), set()).add(round(bore.x, 3))
    alike: dict[tuple[float, ...], list[float]] = {}
    for y, xs in sorted(rows.items()):
        alike.setdefault(tuple(sorted(xs)), []).append(y)
    order = sorted(alike.items(), key=lambda entry: (-len(entry[0]), entry[1]))
    room = MOST - len(found)
    own = order if len(order) <= room else order[: room - 1]
    rest = order[len(own) :]
    for places, at in own:
        names = ", ".join(f"y {format_length(y, display)}" for y in at[:3])
        found.append((list(places), names + (" .." if len(at) > 3 else "")))
    if rest:
        found.append((sorted({x for xs, _ in rest for x in xs}), "others"))
    return found


def _inner(places: Iterable[float], whole: float) -> list[float]:
    return sorted(p for p in places if NEAR < p < whole - NEAR)


def _groove_ends(op: Groove) -> set[float]:
    """Along the length: both ends of one that runs along it, else where it begins."""
    return {op.x1, op.x2} if abs(op.y1 - op.y2) < NEAR else {op.x1}


def rows_across(part: Part, face: str) -> set[float]:
    """Where rows of holes, grooves, cut-outs and corners lie across the width."""
    ys = {y for _, y, _ in outline_path(part)}
    for op in part.operations:
        if isinstance(op, Cutout):
            ys |= {op.y, op.y + op.width}
        elif isinstance(op, Groove) and op.face == face:
            ys |= {op.y1, op.y2}
    return set(_inner(ys | {bore.y for bore in _bores(part, face)}, part.width))


def _bores(part: Part, face: str) -> list[Bore]:
    """Holes that are seen on a face."""
    return [
        op
        for op in part.operations
        if isinstance(op, Bore) and (op.face == face or (op.through and op.face in ("A", "B")))
    ]


def edge_places(part: Part, edge: str) -> tuple[list[float], list[float]]:
    """Where holes and grooves of an edge lie along it, and through the thickness from face B, mm."""
    along: set[float] = set()
    through: set[float] = set()
    for op in part.operations:
        if isinstance(op, Bore) and op.face == edge:
            along.add(op.x)
            through.add(op.y)
        elif isinstance(op, Groove) and op.face == edge:
            along |= _groove_ends(op)
            through |= {op.y1, op.y2}
    whole = part.length if edge in ("L1", "L2") else part.width
    return _inner(along, whole), _inner(through, part.thickness)


def worked_edges(part: Part) -> tuple[str, ...]:
    """Edges with holes or grooves."""
    return tuple(e for e in EDGE_NAMES if any(getattr(op, "face", "") == e for op in part.operations))


def edge_dims(part: Part, edge: str, gap: float, display: DisplayUnit) -> list[Item]:
    """Along an unfolded edge, outside it; and through the thickness, at its end."""
    t, away = part.thickness, gap + part.thickness
    along, through = edge_places(part, edge)
    whole = part.length if edge in ("L1", "L2") else part.width
    base, row, way = {
        "L1": (-away, -1, "x"), "L2": (part.width + away, 1, "x"), "W1": (-away, -1, "y"),
        "W2": (part.length + away, 1, "y"),
    }[edge]  # fmt: skip
    items: list[Item] = []
    items += _chain([0.0, *along, whole], base, row, way, display, edge)  # type: ignore[arg-type]
    if through:
        # Unfolded: face A's side lies towards face A.
        ends = {
            "L1": (-away, 1.0), "L2": (part.width + away, -1.0), "W1": (-away, 1.0), "W2": (part.length + away, -1.0),
        }[edge]  # fmt: skip
        start, sign = ends
        places = sorted(start + sign * z for z in (0.0, *through, t))
        across: Literal["x", "y"] = "y" if way == "x" else "x"
        items += _chain(places, 0.0, -1, across, display)
    return items


def _whole(a: float, b: float, base: float, row: int, along: Literal["x", "y"], display: DisplayUnit) -> Dim:
    a, b = sorted((a, b))
    return Dim(a, b, base, row, along, format_length(b - a, display))


def _chain(
    places: Sequence[float], base: float, row: int, along: Literal["x", "y"], display: DisplayUnit, name: str = ""
) -> list[Item]:
    """Dimensions from place to place that add up; equal steps in a row are one: 12 × 32. None where there is nothing
    between the ends."""
    cleaned = [p for i, p in enumerate(places) if i == 0 or p - places[i - 1] > NEAR]
    if len(cleaned) < 3:
        return []
    # Each group: its first mark, and how many equal steps it has.
    groups: list[tuple[int, int]] = []
    steps = [b - a for a, b in pairwise(cleaned)]
    i = 0
    while i < len(steps):
        k = i
        while k + 1 < len(steps) and abs(steps[k + 1] - steps[i]) < 0.005:
            k += 1
        count = k - i + 1
        groups += [(i, count)] if count >= STEADY else [(n, 1) for n in range(i, k + 1)]
        i = k + 1
    texts = format_chain([cleaned[n + count] - cleaned[n] for n, count in groups], display)
    items: list[Item] = []
    for (n, count), text in zip(groups, texts, strict=True):
        words = text if count == 1 else f"{count} × {format_length(steps[n], display)}"
        items.append(Dim(cleaned[n], cleaned[n + count], base, row, along, words))
    last = items[-1]
    assert isinstance(last, Dim)
    items[-1] = Dim(last.a, last.b, base, row, along, last.text, name=name)
    return items
