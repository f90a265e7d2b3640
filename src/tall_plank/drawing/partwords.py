"""A part in words: what it is of, its edging, and every operation with its places, so that nothing has to be measured
from the drawing. Places run along the length from W1, across it from L1; in an edge, through the thickness from face
B."""

from __future__ import annotations

import textwrap
from collections.abc import Iterable, Sequence
from itertools import pairwise

from tall_plank.making import numbers_told
from tall_plank.making.parts import Bevel, Bore, Cutout, Groove, Operation, Part, Rebate
from tall_plank.measure import DisplayUnit, format_length
from tall_plank.measure.outlines import Points
from tall_plank.measure.paths import Path, Side, arcs_in, sides_of
from tall_plank.measure.remembered import remembered

WIDE = 64
"""Letters in a line of the legend at the most."""

EDGES_A_LINE = 4
"""Banded edges on one line of a legend."""

STEADY = 3
"""Equal steps that are told as one."""


@remembered(1024)
def _path(outline: Points) -> Path:
    return arcs_in(outline)


def outline_path(part: Part) -> Path:
    """The outline of a part with its arcs as arcs, not by the straight sides that they are held by; mm."""
    return _path(part.outline) if part.outline else ()


def _corner_told(side: Side, display: DisplayUnit) -> str:
    """A corner with its place along and across; where an arc runs on from it, its radius too."""
    told = f"{format_length(side.a[0], display)} | {format_length(side.a[1], display)}"
    return f"{told} R {format_length(side.radius, display)}" if side.bulge else told


def operation_words(op: Operation, display: DisplayUnit) -> str:
    """An operation in words, without its place."""

    def mm(value: float) -> str:
        return format_length(value, display)

    match op:
        case Bore():
            # Drills are bought and set in mm, whatever the job shows lengths in.
            unit = "" if display is DisplayUnit.MM else " mm"
            deep = "through" if op.through else f"{op.depth:g}{unit} deep"
            slant = f", slanted {op.slant:g}°" if op.slant else ""
            return f"hole ø {op.diameter:g}{unit}, {deep}{slant}: {op.use}"
        case Groove():
            return f"groove {mm(op.width)} wide, {mm(op.depth)} deep: {op.over}"
        case Rebate():
            return f"rebate {mm(op.width)} x {mm(op.depth)} along {op.edge}"
        case Cutout():
            return f"cut-out {mm(op.length)} x {mm(op.width)}"
        case Bevel():
            return f"{op.edge} cut at {op.angle:g}° from square, long at face {op.long}"
        case _:
            return f"edge {op.edge} worked: {op.profile}"


def legend(part: Part, display: DisplayUnit, numbers: Sequence[str] = ()) -> list[str]:
    """Lines: the make-up, the edging, then each kind of operation with its number and its places.

    Parameters
    ----------
    numbers : of all parts that are the same piece; none where it is one
    """
    grain = "grain along the length" if part.grain == "length" else "no grain"
    size = " x ".join(format_length(v, display) for v in (part.length, part.width, part.thickness))
    lines = [f"{part.material}, {size}, {grain}"]
    if numbers:
        lines += _wrapped(f"{len(numbers)} alike: {numbers_told(numbers)}")
    lines += _banded(part, display)
    if part.fixed:
        lines += _wrapped(f"fixed: {part.fixed}")
    if part.bend:
        lines.append(f"bent to R {format_length(abs(part.bend), display)}")
    kinds: dict[tuple[str, str], list[Operation]] = {}
    for op in part.operations:
        kinds.setdefault((getattr(op, "face", ""), operation_words(op, display)), []).append(op)
    for (face, words), ops in sorted(kinds.items()):
        head = f"{len(ops)} on {face}: {words}" if face else words
        lines += _wrapped(head)
        for places in places_words(ops, display):
            lines += _wrapped(f"   {places}")
    if part.outline:
        corners = (_corner_told(side, display) for side in sides_of(outline_path(part)))
        lines += _wrapped(f"corners x | y: {'; '.join(corners)}")
    return lines


def _wrapped(text: str) -> list[str]:
    """A text in lines, those after the first set in further."""
    start = " " * (len(text) - len(text.lstrip()))
    lines = textwrap.wrap(
        text.strip(), WIDE, initial_indent=start, subsequent_indent=start + "   ", break_long_words=False,
        break_on_hyphens=False,
    )  # fmt: skip
    return lines or [text]


def _banded(part: Part, display: DisplayUnit) -> list[str]:
    """What is edged, as many to a line as are read at a glance."""
    whole = {"L1": part.length, "L2": part.length, "W1": part.width, "W2": part.width}
    bands = [
        f"{name} {code}" if abs(mm - whole.get(name, 0.0)) < 0.05 else f"{name} {code} {format_length(mm, display)}"
        for name, code, mm in part.banded
    ]
    return [
        ("edged: " if i == 0 else "") + ", ".join(bands[i : i + EDGES_A_LINE])
        for i in range(0, len(bands), EDGES_A_LINE)
    ]


def places_words(ops: Sequence[Operation], display: DisplayUnit) -> list[str]:
    """Where operations of one kind lie: holes by rows, grooves by their middle line and ends, cut-outs by their
    sides."""
    first = ops[0]
    if isinstance(first, Bore):
        bores = [op for op in ops if isinstance(op, Bore)]
        names = {"A": "xy", "B": "xy", "L1": "xz", "L2": "xz", "W1": "yz", "W2": "yz"}[first.face]
        return row_words([(op.x, op.y) for op in bores], names, display)
    if isinstance(first, Groove):
        return _groove_words([op for op in ops if isinstance(op, Groove)], display)
    if isinstance(first, Cutout):
        return [
            f"x {format_length(op.x, display)} to {format_length(op.x + op.length, display)}, "
            f"y {format_length(op.y, display)} to {format_length(op.y + op.width, display)}, "
            f"corners R {format_length(op.radius, display)}"
            for op in ops
            if isinstance(op, Cutout)
        ]
    return []


def row_words(points: Sequence[tuple[float, float]], names: str, display: DisplayUnit) -> list[str]:
    """Points by rows: ``y 37, 453: x 77 + 17 × 32`` is two rows, each of 18 points.

    Parameters
    ----------
    names : what the first and the second number are called
    """
    u, v = names[0], names[1]
    by_first, by_second = _rows(points, 1), _rows(points, 0)
    # Along whichever way the rows are fewer.
    rows, along, across = (by_first, u, v) if len(by_first) <= len(by_second) else (by_second, v, u)
    return [
        f"{across} {', '.join(format_length(at, display) for at in ats)}: {along} {steps_words(places, display)}"
        for places, ats in rows.items()
    ]


def _rows(points: Iterable[tuple[float, float]], key: int) -> dict[tuple[float, ...], list[float]]:
    """Places along a row -> where the rows with just these places lie, mm; `key`: which number says the row."""
    rows: dict[float, list[float]] = {}
    for point in points:
        rows.setdefault(round(point[key], 3), []).append(round(point[1 - key], 3))
    found: dict[tuple[float, ...], list[float]] = {}
    for at, places in sorted(rows.items()):
        found.setdefault(tuple(sorted(places)), []).append(at)
    return found


def steps_words(places: Sequence[float], display: DisplayUnit) -> str:
    """Places along a line: equal steps as ``77 + 17 × 32``, others one by one."""
    words: list[str] = []
    i = 0
    steps = [b - a for a, b in pairwise(places)]
    while i < len(places):
        k = i
        while k < len(steps) and abs(steps[k] - steps[i]) < 0.005:
            k += 1
        if k - i >= STEADY:
            step = format_length(steps[i], display)
            words.append(f"{format_length(places[i], display)} + {k - i} × {step}")
            i = k + 1
        else:
            words.append(format_length(places[i], display))
            i += 1
    return ", ".join(words)


def _groove_words(ops: Sequence[Groove], display: DisplayUnit) -> list[str]:
    """The middle lines of grooves with their ends, those that run alike at a pitch on one line."""
    face = ops[0].face
    v, u = ("z", "y") if face in ("W1", "W2") else ("z", "x") if face in ("L1", "L2") else ("y", "x")
    level: dict[tuple[float, float], list[float]] = {}
    upright: dict[tuple[float, float], list[float]] = {}
    slanted: dict[tuple[float, float, float], list[float]] = {}

    def mm(value: float) -> str:
        return format_length(value, display)

    for op in ops:
        if abs(op.y1 - op.y2) < 0.005:
            low, high = sorted((op.x1, op.x2))
            level.setdefault((round(low, 3), round(high, 3)), []).append(op.y1)
        elif abs(op.x1 - op.x2) < 0.005:
            low, high = sorted((op.y1, op.y2))
            upright.setdefault((round(low, 3), round(high, 3)), []).append(op.x1)
        else:
            key = (round(op.x2 - op.x1, 3), round(op.y1, 3), round(op.y2, 3))
            slanted.setdefault(key, []).append(op.x1)
    found = [f"{v} {steps_words(sorted(at), display)}: {u} {mm(a)} to {mm(b)}" for (a, b), at in level.items()]
    found += [f"{u} {steps_words(sorted(at), display)}: {v} {mm(a)} to {mm(b)}" for (a, b), at in upright.items()]
    for (on, a, b), at in slanted.items():
        found.append(f"{u} {steps_words(sorted(at), display)}: {v} {mm(a)}, to {mm(on)} further: {v} {mm(b)}")
    return found
