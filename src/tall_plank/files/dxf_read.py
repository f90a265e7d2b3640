"""Closed outlines out of a DXF drawing: polylines, circles, and single lines and arcs that close a ring. Returned in
mm; arcs are read as arcs."""

from __future__ import annotations

import io
import math
from pathlib import Path as FilePath
from typing import Any

from tall_plank.files.closed_outlines import JOIN, Found, add_closed, rings_of
from tall_plank.formats.door import bytes_of, through
from tall_plank.measure import PlankError
from tall_plank.measure.paths import Side

MAX_FILE = 20_000_000
MAX_LINES = 20_000
UNITS = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0, 10: 914.4, 14: 100.0}
"""mm in one drawing unit by $INSUNITS (DXF reference); 0 and others: not known."""


def read_outlines(path: FilePath, join: float = JOIN) -> tuple[Found, ...]:
    """Closed outlines of a drawing, the largest first. `join`: mm; ends of lines nearer than this meet.

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
        return _outlines_of(document, path.name, join)
    raise AssertionError


def _outlines_of(document: Any, where: str, join: float) -> tuple[Found, ...]:
    """The closed outlines of a drawing, the largest first."""
    unit = int(document.header.get("$INSUNITS", 0) or 0)
    factor = UNITS.get(unit, 1.0)
    found: list[Found] = []
    loose: dict[str, list[Side]] = {}
    for entity in document.modelspace():
        layer = str(entity.dxf.layer)
        if entity.dxftype() == "LWPOLYLINE":
            points = [(float(x) * factor, float(y) * factor, float(b)) for x, y, b in entity.get_points("xyb")]
            add_closed(found, points, layer, closed=bool(entity.closed), scaled=unit in UNITS, join=join)
        elif entity.dxftype() == "POLYLINE" and entity.is_2d_polyline:
            points = [
                (v.dxf.location.x * factor, v.dxf.location.y * factor, float(v.dxf.bulge)) for v in entity.vertices
            ]
            add_closed(found, points, layer, closed=bool(entity.is_closed), scaled=unit in UNITS, join=join)
        elif entity.dxftype() == "CIRCLE":
            x, y, r = entity.dxf.center.x * factor, entity.dxf.center.y * factor, float(entity.dxf.radius) * factor
            add_closed(found, [(x + r, y, 1.0), (x - r, y, 1.0)], layer, closed=True, scaled=unit in UNITS, join=join)
        elif entity.dxftype() in ("LINE", "ARC"):
            lines = loose.setdefault(layer, [])
            if len(lines) < MAX_LINES:
                lines.append(_loose(entity, factor))
    for layer, lines in loose.items():
        for ring in rings_of(lines, join):
            add_closed(found, ring, layer, closed=True, scaled=unit in UNITS, join=join)
    if not found:
        raise PlankError("The drawing holds no closed outline.", where, "Draw the floor as one closed polyline.")
    return tuple(sorted(found, key=lambda f: -f.area))


def _loose(entity: Any, factor: float) -> Side:
    """A single line or arc."""
    if entity.dxftype() == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        return Side((a.x * factor, a.y * factor), (b.x * factor, b.y * factor), 0.0)
    turn = math.radians((entity.dxf.end_angle - entity.dxf.start_angle) % 360.0)
    a, b = entity.start_point, entity.end_point
    return Side((a.x * factor, a.y * factor), (b.x * factor, b.y * factor), math.tan(turn / 4))
