"""Closed outlines out of a DXF drawing: polylines, circles, and single lines and arcs that close a ring. Returned in
mm; arcs are read as arcs."""

from __future__ import annotations

import io
import math
from dataclasses import dataclass
from pathlib import Path as FilePath
from typing import Any

from tall_plank.edits.outline import WALL_LETTERS
from tall_plank.formats.door import bytes_of, through
from tall_plank.measure import PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point, Points
from tall_plank.measure.paths import Corner, Path, Side, area, chords, crossing, joined, path_of, sides_of

MAX_FILE = 20_000_000
MAX_LINES = 20_000
JOIN = 1.0
"""mm; ends of lines nearer than this meet."""

WALL_CHORDS = (5.0, 10.0, 20.0, 40.0, 80.0)
"""mm by which straight walls may leave an arc of the drawing, the first that gives few enough."""

UNITS = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0, 10: 914.4, 14: 100.0}
"""mm in one drawing unit by $INSUNITS (DXF reference); 0 and others: not known."""


@dataclass(frozen=True)
class Found:
    """A closed outline of a drawing, mm, with its layer; `scaled` says whether the drawing named its unit."""

    path: Path
    layer: str
    scaled: bool

    @property
    def points(self) -> Points:
        """Its corners, arcs by straight pieces: walls are straight."""
        return chords(self.path, self.within)

    @property
    def within(self) -> float:
        """mm by which straight walls leave its arcs at the most: as little as the number of walls of a room allows."""
        allowed = (mm for mm in WALL_CHORDS if len(chords(self.path, mm)) <= len(WALL_LETTERS))
        return next(allowed, WALL_CHORDS[-1])

    @property
    def arcs(self) -> int:
        """How many of its sides are arcs."""
        return sum(1 for side in sides_of(self.path) if side.bulge)

    @property
    def area(self) -> float:
        return abs(area(self.path))

    def with_length(self, side: int, mm: float) -> Found:
        """The outline scaled so that one of its sides is as long as is known."""
        factor = mm / list(sides_of(self.path))[side].length
        path = tuple((x * factor, y * factor, b) for x, y, b in self.path)
        return Found(path, self.layer, scaled=True)


def read_outlines(path: FilePath) -> tuple[Found, ...]:
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
    loose: dict[str, list[Side]] = {}
    for entity in document.modelspace():
        layer = str(entity.dxf.layer)
        if entity.dxftype() == "LWPOLYLINE":
            points = [(float(x) * factor, float(y) * factor, float(b)) for x, y, b in entity.get_points("xyb")]
            _add(found, points, layer, closed=bool(entity.closed), scaled=unit in UNITS)
        elif entity.dxftype() == "POLYLINE" and entity.is_2d_polyline:
            points = [
                (v.dxf.location.x * factor, v.dxf.location.y * factor, float(v.dxf.bulge)) for v in entity.vertices
            ]
            _add(found, points, layer, closed=bool(entity.is_closed), scaled=unit in UNITS)
        elif entity.dxftype() == "CIRCLE":
            x, y, r = entity.dxf.center.x * factor, entity.dxf.center.y * factor, float(entity.dxf.radius) * factor
            _add(found, [(x + r, y, 1.0), (x - r, y, 1.0)], layer, closed=True, scaled=unit in UNITS)
        elif entity.dxftype() in ("LINE", "ARC"):
            lines = loose.setdefault(layer, [])
            if len(lines) < MAX_LINES:
                lines.append(_loose(entity, factor))
    for layer, lines in loose.items():
        for ring in _rings(lines):
            _add(found, ring, layer, closed=True, scaled=unit in UNITS)
    if not found:
        raise PlankError("The drawing holds no closed outline.", where, "Draw the floor as one closed polyline.")
    return tuple(sorted(found, key=lambda f: -f.area))


REACH = 10_000_000.0
"""mm; ten kilometres from the drawing's origin nothing is a room, and NaN is nowhere."""


def _loose(entity: Any, factor: float) -> Side:
    """A single line or arc."""
    if entity.dxftype() == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        return Side((a.x * factor, a.y * factor), (b.x * factor, b.y * factor), 0.0)
    turn = math.radians((entity.dxf.end_angle - entity.dxf.start_angle) % 360.0)
    a, b = entity.start_point, entity.end_point
    return Side((a.x * factor, a.y * factor), (b.x * factor, b.y * factor), math.tan(turn / 4))


MOST_SIDES = 200


def _add(found: list[Found], corners: list[Corner], layer: str, *, closed: bool, scaled: bool) -> None:
    if len(corners) > 2 and math.dist(corners[0][:2], corners[-1][:2]) < JOIN:
        corners, closed = corners[:-1], True
    if not closed or not all(abs(x) <= REACH and abs(y) <= REACH and abs(b) <= 1e6 for x, y, b in corners):
        return
    path = _cleaned(corners)
    if 2 <= len(path) <= MOST_SIDES and abs(area(path)) > 1e-6 and crossing(path) is None:
        found.append(Found(path, layer, scaled))


def _cleaned(corners: list[Corner]) -> Path:
    """Without corners twice in one place and those in the middle of a straight side; begun at a straight side."""
    sides = [s for s in sides_of(tuple(corners)) if s.chord > 1e-6]
    if not any(s.bulge for s in sides):
        return path_of(ol.cleaned([s.a for s in sides]))
    kept: list[Side] = []
    for side in sides:
        if kept and not side.bulge and not kept[-1].bulge and len(ol.cleaned([kept[-1].a, side.a, side.b])) < 3:
            kept[-1] = Side(kept[-1].a, side.b, 0.0)
        else:
            kept.append(side)
    first = next((i for i, s in enumerate(kept) if not s.bulge), 0)
    return joined([*kept[first:], *kept[:first]])


def _rings(lines: list[Side]) -> list[list[Corner]]:
    """Rings that single lines and arcs make, each used once."""

    def key(p: Point) -> tuple[int, int]:
        return (round(p[0] / JOIN), round(p[1] / JOIN))

    at: dict[tuple[int, int], list[int]] = {}
    for i, (a, b, _) in enumerate(lines):
        at.setdefault(key(a), []).append(i)
        at.setdefault(key(b), []).append(i)
    used: set[int] = set()
    rings = []
    for i, (a, b, bulge) in enumerate(lines):
        if i in used:
            continue
        ring, here, start = [(*a, bulge)], b, key(a)
        used.add(i)
        while key(here) != start:
            ahead = [k for k in at[key(here)] if k not in used]
            if not ahead:
                ring = []
                break
            used.add(ahead[0])
            side = lines[ahead[0]]
            on = side if key(side.a) == key(here) else side.turned()
            ring.append((*here, on.bulge))
            here = on.b
        if len(ring) >= 2:
            rings.append(ring)
    return rings
