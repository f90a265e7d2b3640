"""Closed outlines out of a DXF drawing: polylines, and single lines that close a ring. Returned in mm."""

from __future__ import annotations

import io
import math
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from tall_plank.formats.door import bytes_of, through
from tall_plank.measure import PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point, Points

MAX_FILE = 20_000_000
MAX_LINES = 20_000
JOIN = 1.0
"""mm; ends of lines nearer than this meet."""

UNITS = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0, 10: 914.4, 14: 100.0}
"""mm in one drawing unit by $INSUNITS (DXF reference); 0 and others: not known."""


@dataclass(frozen=True)
class Found:
    """A closed outline of a drawing, mm, with its layer; `scaled` says whether the drawing named its unit."""

    points: Points
    layer: str
    scaled: bool

    @property
    def area(self) -> float:
        return abs(ol.area(self.points))

    def with_length(self, side: int, mm: float) -> Points:
        """The outline scaled so that one of its sides is as long as is known."""
        a, b = self.points[side], self.points[(side + 1) % len(self.points)]
        factor = mm / math.dist(a, b)
        return tuple((x * factor, y * factor) for x, y in self.points)


def read_outlines(path: Path) -> tuple[Found, ...]:
    """Closed outlines of a drawing, the largest first.

    Raises
    ------
    PlankError for a file that is no DXF, too large, or holds no closed outline of straight sides
    """
    import ezdxf
    from ezdxf import recover

    data = bytes_of(path, MAX_FILE, "drawing")
    with through(path.name, "drawing", "Save it as DXF again."):
        try:
            document, _ = recover.read(io.BytesIO(data))
        except (ezdxf.DXFError, OSError, ValueError) as error:
            what = f"This is no DXF drawing that can be read ({str(error)[:100]})."
            raise PlankError(what, path.name, "Save it as DXF.") from None
        return _outlines_of(document, path.name)
    raise AssertionError


def _outlines_of(document: Any, where: str) -> tuple[Found, ...]:
    """The closed outlines of a drawing, the largest first."""
    unit = int(document.header.get("$INSUNITS", 0) or 0)
    factor = UNITS.get(unit, 1.0)
    found: list[Found] = []
    loose: dict[str, list[tuple[Point, Point]]] = {}
    for entity in document.modelspace():
        layer = str(entity.dxf.layer)
        if entity.dxftype() == "LWPOLYLINE":
            points = [(float(x) * factor, float(y) * factor) for x, y, *_ in entity.get_points("xy")]
            _add(found, points, layer, closed=bool(entity.closed), scaled=unit in UNITS)
        elif entity.dxftype() == "POLYLINE" and entity.is_2d_polyline:
            points = [(v.dxf.location.x * factor, v.dxf.location.y * factor) for v in entity.vertices]
            _add(found, points, layer, closed=bool(entity.is_closed), scaled=unit in UNITS)
        elif entity.dxftype() == "LINE":
            a, b = entity.dxf.start, entity.dxf.end
            lines = loose.setdefault(layer, [])
            if len(lines) < MAX_LINES:
                lines.append(((a.x * factor, a.y * factor), (b.x * factor, b.y * factor)))
    for layer, lines in loose.items():
        for ring in _rings(lines):
            _add(found, ring, layer, closed=True, scaled=unit in UNITS)
    if not found:
        raise PlankError("The drawing holds no closed outline.", where, "Draw the floor as one closed polyline.")
    return tuple(sorted(found, key=lambda f: -f.area))


REACH = 10_000_000.0
"""mm; ten kilometres from the drawing's origin nothing is a room, and NaN is nowhere."""


def _add(found: list[Found], points: list[Point], layer: str, *, closed: bool, scaled: bool) -> None:
    if len(points) > 2 and math.dist(points[0], points[-1]) < JOIN:
        points, closed = points[:-1], True
    outline = ol.cleaned(points)
    if not all(abs(c) <= REACH for p in outline for c in p):
        return
    if closed and 3 <= len(outline) <= 200 and ol.crossing(outline) is None:
        found.append(Found(outline, layer, scaled))


def _rings(lines: list[tuple[Point, Point]]) -> list[list[Point]]:
    """Rings that single lines make, each line used once."""

    def key(p: Point) -> tuple[int, int]:
        return (round(p[0] / JOIN), round(p[1] / JOIN))

    at: dict[tuple[int, int], list[int]] = {}
    for i, (a, b) in enumerate(lines):
        at.setdefault(key(a), []).append(i)
        at.setdefault(key(b), []).append(i)
    used: set[int] = set()
    rings = []
    for i, (a, b) in enumerate(lines):
        if i in used:
            continue
        ring, here, start = [a], b, key(a)
        used.add(i)
        while key(here) != start:
            ring.append(here)
            ahead = [k for k in at[key(here)] if k not in used]
            if not ahead:
                ring = []
                break
            used.add(ahead[0])
            p, q = lines[ahead[0]]
            here = q if key(p) == key(here) else p
        if len(ring) >= 3:
            rings.append(ring)
    return rings
