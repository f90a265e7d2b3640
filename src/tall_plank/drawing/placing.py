"""Dimensions placed on paper: every figure stands, none over another.

A figure stands between its extension lines, else smaller, else beside the line with a leader: in one of three further
levels. Three equal steps or more that have no room are one figure (``4 × 32``). Where that does not do, two are, and
after that a letter stands for a figure, with a table of letters. Nothing is left out.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import count
from typing import Any, Literal, NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.assets import text_width
from tall_plank.drawing.primitives import Dim, Layer, Line, Pen, Text
from tall_plank.measure.remembered import remembered

FIRST_ROW = 6.0
"""mm on paper from the base to the first row."""
ROW = 6.0
"""mm on paper between rows that need no further levels."""
TICK = 1.2
NAME = 1.8
"""mm on paper from the end of a chain to its name."""
SIZE = 2.2
"""Height of capitals on paper, mm."""
LEAST = 1.8
"""The least height at which a text is set, mm: the smallest of ISO 3098 (from memory)."""
OVERSHOOT = 1.4
"""mm that an extension line runs past the dimension line: 8 times a narrow line (ISO 129-1, from memory)."""
ABOVE = 0.9
"""mm on paper from the line to a figure between its ends."""
OUTSIDE = 1.7
"""mm on paper from the line to a figure that has no room between its ends."""
FURTHER = 120
"""mm of paper that a row moves out of the way at the most."""
APART = 0.5
"""mm on paper between two texts."""
LEVELS = 3
"""Further levels at the most before figures are joined or become letters."""
LAST = 60.0
"""mm on paper that a letter stands aside at the most."""
ROWS = 3
"""Equal steps without room of their own that are one figure at once: a row of holes."""
SHIFT = 14.0
"""mm on paper that a figure stands aside at the most, on its leader."""

Floats = NDArray[np.float64]

Box = tuple[float, float, float, float]
Segment = tuple[float, float, float, float]


class Figure(msgspec.Struct, frozen=True):
    """A dimension placed, real mm.

    Attributes
    ----------
    dim : what it measures; several steps that are one figure are one
    at : where its line stands across the direction it measures
    text : its figure, or the letter that stands for it; none where it is one of several with one figure
    rules : its line, extension lines and ticks; what the one before it has already drawn is left out
    leader : from its line to a text that stands aside
    name : what its chain measures to, at its far end
    """

    dim: Dim
    at: float
    text: Text | None
    rules: tuple[Line, ...]
    leader: Line | None = None
    name: Text | None = None

    @property
    def texts(self) -> tuple[Text, ...]:
        return tuple(t for t in (self.text, self.name) if t is not None)


class Figures(NamedTuple):
    """Dimensions placed, and the table of what letters stand for."""

    figures: list[Figure]
    table: list[tuple[str, str]]


class _Spot(NamedTuple):
    """Where a figure stands: a box along and away from its line (mm of paper), its height, and its leader."""

    box: Box
    size: float
    leader: Segment | None
    inside: bool


def place(dims: Iterable[Dim], scale: float, letters: Iterator[str] | None = None) -> Figures:
    """Lines and texts of dimensions at a scale (real mm per mm of paper)."""
    letters = letters if letters is not None else letter_names()
    sides: dict[tuple[str, bool, float], dict[int, list[Dim]]] = {}
    found = Figures([], [])
    taken: list[Box] = []
    for dim in dims:
        if dim.away:  # by hand: it stays where it was put, and others make way
            own = _Row([dim], scale, letters)
            taken += own.boxes(dim.away)
            found.figures.extend(own.drawn(dim.away))
            found.table.extend(own.table)
            continue
        rows = sides.setdefault((dim.along, dim.row > 0, round(dim.base, 1)), {})
        rows.setdefault(abs(dim.row), []).append(dim)
    for rows in sides.values():
        at = last = 0.0
        for number in sorted(rows):
            row = _Row(rows[number], scale, letters)
            at = max(FIRST_ROW + ROW * (number - 1), last + row.before)
            # Where figures of another side stand, it moves further out.
            for _ in range(FURTHER):
                if not any(_meet(a, b) for a in row.boxes(at) for b in taken):
                    break
                at += 1.0
            taken += row.boxes(at)
            found.figures.extend(row.drawn(at))
            found.table.extend(row.table)
            last = at + row.beyond
    return found


def letter_names() -> Iterator[str]:
    """a, b .. z, aa, ab .. without those that read like figures (l, o)."""
    plain = "abcdefghijkmnpqrstuvwxyz"
    for n in count():
        name, n = "", n + 1
        while n:
            n, k = divmod(n - 1, len(plain))
            name = plain[k] + name
        yield name


class _Row:
    """The dimensions on one line."""

    def __init__(self, dims: Sequence[Dim], scale: float, letters: Iterator[str]) -> None:
        # The same distance is dimensioned once.
        self.dims = list({(round(min(d.a, d.b), 2), round(max(d.a, d.b), 2)): d for d in reversed(dims)}.values())
        self.dims.sort(key=lambda d: (min(d.a, d.b), max(d.a, d.b)))
        self.scale = scale
        self.level = self.dims[0].along == "x"
        self.outwards = self.dims[0].row > 0
        # Above a lying line and left of an upright one: where figures between the ends stand (ISO 129-1, from memory).
        self.inner_out = self.outwards == self.level
        self.table: list[tuple[str, str]] = []
        self.names = [d for d in self.dims if d.name]
        self.figures: list[tuple[Dim, str, _Spot]] = self._placed(letters)
        boxes = [spot.box for _, _, spot in self.figures]
        far = max((b[3] for b in boxes), default=0.0)
        near = min((b[1] for b in boxes), default=0.0)
        self.before = -near + 0.8 if near < 0 else 1.2
        """mm of paper that it needs towards what it measures."""
        self.beyond = max(far, OVERSHOOT) + 0.6
        """mm of paper that it takes beyond its line."""

    # --- placing

    def _placed(self, letters: Iterator[str]) -> list[tuple[Dim, str, _Spot]]:
        texts = self._merged([(d, d.text) for d in self.dims], ROWS)
        found = self._try(texts)
        if None in found:
            texts = self._merged(texts, 2)
            found = self._try(texts)
        if None in found:
            given: dict[str, str] = {}
            for i, spot in enumerate(found):
                if spot is None:
                    dim, text = texts[i]
                    if text not in given:
                        given[text] = next(letters)
                        self.table.append((given[text], text))
                    texts[i] = (dim, given[text])
            found = self._try(texts, last=True)
        return [(d, t, spot) for (d, t), spot in zip(texts, found, strict=True) if spot is not None]

    def _merged(self, texts: list[tuple[Dim, str]], least: int) -> list[tuple[Dim, str]]:
        """Equal steps without room of their own that follow one another, so many at the least, as one figure."""
        found: list[tuple[Dim, str]] = []
        run: list[tuple[Dim, str]] = []

        def close() -> None:
            if len(run) >= least:
                a, b = min(run[0][0].a, run[0][0].b), max(run[-1][0].a, run[-1][0].b)
                first = run[0][0]
                whole = Dim(a, b, first.base, first.row, first.along, first.text, first.source)
                found.append((whole, f"{len(run)} × {run[0][1]}"))
            else:
                found.extend(run)
            run.clear()

        for dim, text in texts:
            meets = run and run[-1][1] == text and abs(max(run[-1][0].a, run[-1][0].b) - min(dim.a, dim.b)) < 0.05
            if "×" in text or self._inside(dim, text) is not None or not meets:
                close()
            if "×" in text or self._inside(dim, text) is not None:
                found.append((dim, text))
            else:
                run.append((dim, text))
        close()
        return found

    def _try(self, texts: list[tuple[Dim, str]], *, last: bool = False) -> list[_Spot | None]:
        """A spot for every figure; None where it has none. `last`: with no bound on how far it stands aside."""
        spots: list[_Spot | None] = [None] * len(texts)
        taken: list[Box] = [self._name_box(d) for d in self.names]
        leaders: list[Segment] = []
        rest = []
        for i, (dim, text) in enumerate(texts):
            spot = self._inside(dim, text)
            if spot is not None and not any(_meet(spot.box, b) for b in taken):
                spots[i] = spot
                taken.append(spot.box)
            else:
                rest.append(i)
        widest = max((text_width(texts[i][1], LEAST) for i in rest), default=0.0)
        for i in rest:
            dim, text = texts[i]
            # Only what it could come near to is looked at.
            reach = (LAST if last else SHIFT) + text_width(text, LEAST)
            middle = (dim.a + dim.b) / 2 / self.scale
            boxes = [b for b in taken if b[0] < middle + reach and b[2] > middle - reach]
            lines = [s for s in leaders if min(s[0], s[2]) < middle + reach and max(s[0], s[2]) > middle - reach]
            spot = self._aside(dim, text, widest, boxes, lines, last=last)
            if spot is not None:
                spots[i] = spot
                taken.append(spot.box)
                if spot.leader is not None:
                    leaders.append(spot.leader)
        return spots

    def _name_box(self, dim: Dim) -> Box:
        """What a chain's name takes beyond its far end."""
        start = max(dim.a, dim.b) / self.scale + NAME
        return (start, -LEAST / 2, start + text_width(dim.name, LEAST), LEAST / 2)

    def boxes(self, at_mm: float) -> list[Box]:
        """What its texts take on paper, its line standing `at_mm` from the base: x0, y0, x1, y1."""
        out = 1.0 if self.outwards else -1.0
        at = self.dims[0].base / self.scale + out * at_mm
        found = []
        for u0, v0, u1, v1 in (*(spot.box for _, _, spot in self.figures), *map(self._name_box, self.names)):
            low, high = sorted((at + out * v0, at + out * v1))
            found.append((u0, low, u1, high) if self.level else (low, u0, high, u1))
        return found

    def _inside(self, dim: Dim, text: str) -> _Spot | None:
        """Between the extension lines, where there is room."""
        room = abs(dim.b - dim.a) / self.scale - 1.2
        middle = (dim.a + dim.b) / 2 / self.scale
        for size in (SIZE, LEAST):
            half = text_width(text, size) / 2
            if 2 * half <= room:
                v = ABOVE if self.inner_out else -ABOVE - size
                return _Spot((middle - half, v, middle + half, v + size), size, None, True)
        return None

    def _aside(
        self, dim: Dim, text: str, widest: float, boxes: list[Box], leaders: list[Segment], *, last: bool
    ) -> _Spot | None:
        """The nearest free place beside the line; None where there is none."""
        middle = (dim.a + dim.b) / 2 / self.scale
        wide = text_width(text, LEAST)
        half = wide / 2 if self.level else LEAST * 0.65
        deep = LEAST if self.level else wide
        pitch = (LEAST if self.level else widest) + 1.0
        lanes, shifts = _places(self.level, last, round(max(0.5, half * 0.5), 1))
        u, v = middle + shifts, OUTSIDE + lanes * pitch
        low, high = u - half, u + half
        ends = np.minimum(np.maximum(middle, low + 0.3), high - 0.3)
        led = (lanes > 0) | (shifts != 0.0)
        free = np.ones(len(u), dtype=bool)
        for x0, y0, x1, y1 in boxes:
            free &= (low >= x1 + APART) | (high <= x0 - APART) | (v >= y1 + APART) | (v + deep <= y0 - APART)
            free &= ~led | ~_cross(middle, 0.0, ends, v - 0.3, x0, y0, x1, y1)
        for a, b, c, d in leaders:
            free &= ~_cross(a, b, c, d, low, v, high, v + deep)
        if not free.any():
            return None
        k = int(np.argmax(free))
        box = (float(low[k]), float(v[k]), float(high[k]), float(v[k]) + deep)
        leader = (middle, 0.0, float(ends[k]), float(v[k]) - 0.3) if led[k] else None
        return _Spot(box, LEAST, leader, False)

    # --- drawing

    def drawn(self, at_mm: float) -> Iterator[Figure]:
        """Its dimensions, the dimension line standing `at_mm` (paper) from the base."""
        out = 1.0 if self.outwards else -1.0
        scale = self.scale
        at = self.dims[0].base + out * at_mm * scale
        told = {id(dim): (text, spot) for dim, text, spot in self.figures}
        joined = [dim for dim, _, _ in self.figures if not any(dim is d for d in self.dims)]

        def point(u: float, v: float) -> tuple[float, float]:
            across = at + out * v * scale
            return (u, across) if self.level else (across, u)

        def line(u1: float, v1: float, u2: float, v2: float, dim: Dim) -> Line:
            return Line(*point(u1, v1), *point(u2, v2), Pen.NARROW, Layer.DIMENSION, dim.source)

        extended: set[float] = set()
        for dim in (*self.dims, *joined):
            a, b = sorted((dim.a, dim.b))
            rules = [line(a, 0.0, b, 0.0, dim)] if dim in self.dims else []
            for u in (a, b):
                if round(u, 2) in extended:
                    continue
                extended.add(round(u, 2))
                rules.append(line(u, 1.0 - at_mm, u, OVERSHOOT, dim))
                tick = TICK * scale
                x, y = point(u, 0.0)
                rules.append(Line(x - tick, y - tick, x + tick, y + tick, Pen.NARROW, Layer.DIMENSION, dim.source))
            if id(dim) not in told:
                yield Figure(dim, at, None, tuple(rules))
                continue
            text, spot = told[id(dim)]
            leader = None
            if spot.leader is not None:
                u1, v1, u2, v2 = spot.leader
                leader = line(u1 * scale, v1, u2 * scale, v2, dim)
            yield Figure(dim, at, self._text(dim, text, spot, at), tuple(rules), leader)

        for dim in self.names:
            u = max(dim.a, dim.b) + NAME * scale
            x, y = point(u, 0.0)
            angle = 0.0 if self.level else 90.0
            name = Text(x, y, dim.name, LEAST, Layer.DIMENSION, dim.source, "left", angle, quiet=True, rise=-LEAST / 2)
            yield Figure(dim, at, None, (), None, name)

    def _text(self, dim: Dim, text: str, spot: _Spot, at: float) -> Text:
        u0, v0, u1, v1 = spot.box
        middle = (u0 + u1) / 2 * self.scale
        out = 1.0 if self.outwards else -1.0
        layer, source, size = Layer.DIMENSION, dim.source, spot.size
        if self.level:
            rise = v0 if self.outwards else -v1
            return Text(middle, at, text, size, layer, source, rise=rise, backed=not spot.inside)
        if spot.inside:
            # Read from the right: the text stands on the left of an upright dimension line.
            return Text(at, middle, text, size, layer, source, angle=90.0, rise=ABOVE)
        align: Literal["left", "right"] = "left" if self.outwards else "right"
        return Text(
            at + out * v0 * self.scale, middle, text, size, layer, source, align=align, rise=-size / 2, backed=True
        )


def _meet(a: Box, b: Box) -> bool:
    """Whether two boxes come nearer than texts may."""
    return a[0] < b[2] + APART and b[0] < a[2] + APART and a[1] < b[3] + APART and b[1] < a[3] + APART


@remembered(256)
def _places(level: bool, last: bool, step: float) -> tuple[Floats, Floats]:
    """Level and shift along the line (mm of paper) of every place to be tried, the nearest first: level figures go to
    further levels before they stand aside, those beside an upright line stand aside along it."""
    count = int((LAST if last else SHIFT) / step)
    shifts = [0.0, *(s * k * step for k in range(1, count + 1) for s in (1, -1))]
    near, far = range(LEVELS), range(LEVELS, 40 if last else LEVELS)
    if level:
        order = [(lane, 0.0) for lane in near] + [(lane, s) for s in shifts[1:] for lane in near]
        order += [(lane, s) for lane in far for s in shifts]
    else:
        order = [(lane, s) for lane in (*near, *far) for s in shifts]
    return np.array([o[0] for o in order], dtype=np.float64), np.array([o[1] for o in order])


def _cross(ax: Any, ay: Any, bx: Any, by: Any, x0: Any, y0: Any, x1: Any, y1: Any) -> Any:
    """Whether straight lines run through boxes; numbers and arrays, which are taken pair by pair."""
    low: Any = 0.0
    high: Any = 1.0
    hit: Any = True
    for p, q, lo, hi in ((ax, bx, x0 - 0.2, x1 + 0.2), (ay, by, y0 - 0.1, y1 + 0.1)):
        way = q - p
        flat = np.abs(way) < 1e-9
        step = np.where(flat, 1.0, way)
        t1, t2 = (lo - p) / step, (hi - p) / step
        hit = hit & (~flat | ((lo < p) & (p < hi)))
        low = np.maximum(low, np.where(flat, 0.0, np.minimum(t1, t2)))
        high = np.minimum(high, np.where(flat, 1.0, np.maximum(t1, t2)))
    return hit & (low < high)
