"""Closed outlines out of an SVG drawing: paths, polygons, rectangles, circles, and single lines that close a ring.
Returned in mm with y up; arcs of circles are read as arcs, other curves as straight pieces."""

from __future__ import annotations

import itertools
import math
import re
from pathlib import Path as FilePath
from typing import Any
from xml.etree import ElementTree

from fontTools.misc.transform import Identity, Transform
from fontTools.svgLib.path.arc import EllipticalArc
from fontTools.svgLib.path.parser import parse_path

from tall_plank.files.closed_outlines import Found, add_closed, rings_of
from tall_plank.formats.door import bytes_of, through
from tall_plank.measure import PlankError
from tall_plank.measure.outlines import Point
from tall_plank.measure.paths import Corner, Side, arc_chords

MAX_FILE = 5_000_000
MOST_CORNERS = 20_000
WITHIN = 0.02
"""mm by which straight pieces leave a curve that is no arc of a circle."""

JOIN = 0.05
"""mm; ends of single lines nearer than this meet."""

UNITS = {"mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72.0, "pc": 25.4 / 6.0}
"""mm in a unit of a drawing's width (CSS Values and Units); a pixel says no size."""

APART = ("defs", "symbol", "clipPath", "mask", "marker", "pattern")
"""What is not drawn where it stands."""


def read_svg_outlines(path: FilePath) -> tuple[Found, ...]:
    """Closed outlines of a drawing, the largest first.

    Raises
    ------
    PlankError for a file that is no SVG, too large, or holds no closed outline
    """
    data = bytes_of(path, MAX_FILE, "drawing")
    if b"<!ENTITY" in data:
        raise PlankError("The drawing defines entities.", path.name, "Save it as plain SVG.")
    with through(path.name, "drawing", "Save it as SVG again."):
        try:
            root = ElementTree.fromstring(data)
        except ElementTree.ParseError as error:
            raise PlankError(f"This is no SVG drawing ({error}).", path.name, "Save it as SVG.") from None
        if _tag(root) != "svg":
            raise PlankError("This is no SVG drawing.", path.name, "Save it as SVG.")
        return _Reader(root, path.name).outlines()
    raise AssertionError


def _tag(element: Any) -> str:
    return str(element.tag).rpartition("}")[2]


class _Reader:
    """Reads the elements of a drawing one by one."""

    def __init__(self, root: Any, where: str) -> None:
        self.root, self.where = root, where
        self.found: list[Found] = []
        self.loose: list[Side] = []
        self.corners = 0
        self.scale, self.scaled = _scale_of(root)

    def outlines(self) -> tuple[Found, ...]:
        # y runs down in the file and up here.
        self._read(self.root, Transform(self.scale, 0.0, 0.0, -self.scale, 0.0, 0.0), 0)
        for ring in rings_of(self.loose, JOIN):
            add_closed(self.found, ring, "", closed=True, scaled=self.scaled, join=JOIN)
        if not self.found:
            raise PlankError("The drawing holds no closed outline.", self.where, "Draw it as one closed path.")
        return tuple(sorted(self.found, key=lambda f: -f.area))

    def _read(self, element: Any, to: Transform, deep: int) -> None:
        if _tag(element) in APART or deep > 60:
            return
        to = to.transform(_transform(element.get("transform", "")))
        self._shape(element, to)
        for child in element:
            self._read(child, to, deep + 1)

    def _shape(self, element: Any, to: Transform) -> None:
        pen = _Pen()
        match _tag(element):
            case "path":
                parse_path(element.get("d", ""), pen)
            case "polygon" | "polyline" as kind:
                numbers = [float(n) for n in re.findall(NUMBER, element.get("points", ""))]
                points = list(zip(numbers[::2], numbers[1::2], strict=False))
                pen.corners = [(x, y, 0.0) for x, y in points]
                pen.close() if kind == "polygon" else pen.endPath()
            case "line":
                x1, y1, x2, y2 = (_number(element, key) for key in ("x1", "y1", "x2", "y2"))
                pen.corners = [(x1, y1, 0.0), (x2, y2, 0.0)]
                pen.endPath()
            case "rect":
                pen.corners = _rectangle(element)
                pen.close()
            case "circle" | "ellipse":
                _round(element, pen)
        for corners, closed in pen.done:
            self._take(corners, closed, to)

    def _take(self, corners: list[Corner], closed: bool, to: Transform) -> None:
        if len(corners) > 2 and math.dist(corners[0][:2], corners[-1][:2]) * self.scale < JOIN:
            corners, closed = corners[:-1], True
        placed = _placed(corners, closed, to)
        self.corners += len(placed)
        if self.corners > MOST_CORNERS:
            raise PlankError("The drawing holds too many lines.", self.where, "Leave only the outline in it.")
        if closed:
            add_closed(self.found, placed, "", closed=True, scaled=self.scaled, join=JOIN)
            return
        for (ax, ay, bulge), (bx, by, _) in itertools.pairwise(placed):
            self.loose.append(Side((ax, ay), (bx, by), bulge))


def _scale_of(root: Any) -> tuple[float, bool]:
    """mm of a unit inside a drawing, and whether its size is said in a unit of length."""
    box = [float(n) for n in re.findall(NUMBER, root.get("viewBox", ""))]
    match = re.fullmatch(rf"\s*({NUMBER})\s*([a-z%]*)\s*", root.get("width", "") or "")
    if match is None or match[2] not in UNITS or float(match[1]) <= 0:
        return 1.0, False
    wide = float(match[1]) * UNITS[match[2]]
    if len(box) == 4 and box[2] > 0:
        return wide / box[2], True
    # Without a box a unit is a pixel: 96 to an inch (CSS Values and Units).
    return 25.4 / 96.0, True


NUMBER = r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?"


def _number(element: Any, key: str, standard: float = 0.0) -> float:
    match = re.match(rf"\s*({NUMBER})", element.get(key, ""))
    return float(match[1]) if match else standard


def _transform(text: str) -> Transform:
    """The transform that an element says, after the SVG specification."""
    found = Identity
    for name, inside in re.findall(r"([a-zA-Z]+)\s*\(([^)]*)\)", text):
        n = [float(v) for v in re.findall(NUMBER, inside)]
        match name, len(n):
            case "matrix", 6:
                found = found.transform(n)
            case "translate", 1 | 2:
                found = found.translate(n[0], n[1] if len(n) > 1 else 0.0)
            case "scale", 1 | 2:
                found = found.scale(n[0], n[1] if len(n) > 1 else n[0])
            case "rotate", 1:
                found = found.rotate(math.radians(n[0]))
            case "rotate", 3:
                found = found.translate(n[1], n[2]).rotate(math.radians(n[0])).translate(-n[1], -n[2])
            case "skewX", 1:
                found = found.skew(math.radians(n[0]), 0.0)
            case "skewY", 1:
                found = found.skew(0.0, math.radians(n[0]))
    return found


def _placed(corners: list[Corner], closed: bool, to: Transform) -> list[Corner]:
    """Corners in the drawing's place; arcs stay arcs where circles stay circles, else they are straight pieces."""
    a, b, c, d, _, _ = to
    long = math.hypot(a, b)
    alike = abs(long - math.hypot(c, d)) < 1e-6 * long and abs(a * c + b * d) < 1e-6 * long * long
    turned = -1.0 if a * d - b * c < 0 else 1.0
    found: list[Corner] = []
    for i, (x, y, bulge) in enumerate(corners):
        last = i == len(corners) - 1 and not closed
        if not bulge or alike or last:
            found.append((*to.transformPoint((x, y)), bulge * turned))
            continue
        nx, ny, _ = corners[(i + 1) % len(corners)]
        pieces = arc_chords((x, y), (nx, ny), bulge, WITHIN / 4 / max(long, 1e-9))
        found += [(*to.transformPoint(p), 0.0) for p in pieces]
    return found


class _Pen:
    """Takes what a path says; keeps rows of corners, with whether each is closed."""

    def __init__(self) -> None:
        self.corners: list[Corner] = []
        self.done: list[tuple[list[Corner], bool]] = []

    def moveTo(self, p: Point) -> None:
        if len(self.corners) > 1:
            self.endPath()
        self.corners = [(*p, 0.0)]

    def lineTo(self, p: Point) -> None:
        self.corners.append((*p, 0.0))

    def arcTo(self, rx: float, ry: float, rotation: float, large: bool, sweep: bool, end: Point) -> None:
        """An arc of a circle stays one; of an ellipse it becomes curves."""
        x, y, _ = self.corners[-1]
        chord = math.dist((x, y), end)
        if chord <= 0.0:
            return
        if rx <= 0.0 or ry <= 0.0:
            self.lineTo(end)
        elif abs(rx - ry) < 1e-9 * rx:
            turn = 2.0 * math.asin(min(1.0, chord / (2.0 * rx)))
            turn = 2.0 * math.pi - turn if large else turn
            # Clockwise as seen in the file, whose y runs down: counter-clockwise in its numbers.
            self.corners[-1] = (x, y, math.tan(turn / 4.0) * (1.0 if sweep else -1.0))
            self.lineTo(end)
        else:
            EllipticalArc(complex(x, y), rx, ry, rotation, large, sweep, complex(*end)).draw(self)

    def curveTo(self, *points: Point) -> None:
        x, y, _ = self.corners[-1]
        nodes = ((x, y), *points)
        count = _pieces(nodes)
        for k in range(1, count + 1):
            self.corners.append((*_on_curve(nodes, k / count), 0.0))

    qCurveTo = curveTo  # noqa: N815

    def closePath(self) -> None:
        self.close()

    def close(self) -> None:
        if len(self.corners) > 1:
            self.done.append((self.corners, True))
        # What follows without a move starts where this one did.
        self.corners = self.corners[:1]

    def endPath(self) -> None:
        if len(self.corners) > 1:
            self.done.append((self.corners, False))
        self.corners = []


def _pieces(nodes: tuple[Point, ...]) -> int:
    """Straight pieces of a curve that leave it by about `WITHIN`, by the length of its control polygon."""
    around = sum(math.dist(p, q) for p, q in itertools.pairwise(nodes))
    return max(4, min(48, math.ceil(math.sqrt(around / WITHIN) / 1.5)))


def _on_curve(nodes: tuple[Point, ...], t: float) -> Point:
    """A point of a Bézier curve (de Casteljau)."""
    points = list(nodes)
    while len(points) > 1:
        points = [(p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t) for p, q in itertools.pairwise(points)]
    return points[0]


def _rectangle(element: Any) -> list[Corner]:
    x, y, wide, high = (_number(element, key) for key in ("x", "y", "width", "height"))
    r = min(_number(element, "rx", _number(element, "ry")), wide / 2, high / 2)
    if r <= 0:
        return [(x, y, 0.0), (x + wide, y, 0.0), (x + wide, y + high, 0.0), (x, y + high, 0.0)]
    q = math.tan(math.pi / 8)
    return [
        (x + r, y, 0.0), (x + wide - r, y, q), (x + wide, y + r, 0.0), (x + wide, y + high - r, q),
        (x + wide - r, y + high, 0.0), (x + r, y + high, q), (x, y + high - r, 0.0), (x, y + r, q),
    ]  # fmt: skip


def _round(element: Any, pen: _Pen) -> None:
    cx, cy, r = (_number(element, key) for key in ("cx", "cy", "r"))
    rx, ry = (r, r) if _tag(element) == "circle" else (_number(element, "rx"), _number(element, "ry"))
    if rx > 0 and ry > 0:
        pen.moveTo((cx + rx, cy))
        pen.arcTo(rx, ry, 0.0, False, True, (cx - rx, cy))
        pen.arcTo(rx, ry, 0.0, False, True, (cx + rx, cy))
        pen.close()
