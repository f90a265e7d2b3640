"""Small pictures for the shelf, drawn from the real things: kinds, openings, what a room has, saved things."""

from __future__ import annotations

from PyQt6.QtCore import QSize
from PyQt6.QtGui import QColor, QPainter, QPixmap

from tall_plank.desk.views.canvas import PEN_PX, paint_strokes, strokes_of
from tall_plank.drawing.elevation import unit_front
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.edits.library import Saved
from tall_plank.job import Body, Job, Template, Unit
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.making.unit import UnitSpec, make_unit
from tall_plank.measure import Frame, Length
from tall_plank.measure.lengths import evaluate_text, names_in
from tall_plank.setout import Placed as PlacedUnit

PICTURE = QSize(52, 56)


def _size(job: Job, template: Template, unit: Unit, key: str) -> float:
    own = unit.own_value(key)
    if isinstance(own, Length):
        return own.mm
    text = getattr(template, key)
    named = job.named_values()
    return evaluate_text(text, named) if names_in(text) <= named.keys() else 600.0


def _unit_items(job: Job, template: Template, unit: Unit, width: float, x: float) -> tuple[list[Item], float]:
    """A unit seen from the front with its left side at x, and its height."""
    h, d = _size(job, template, unit, "height"), _size(job, template, unit, "depth")
    cornered = template.corner in ("l", "diagonal")
    blind = template.corner == "blind"
    spec = UnitSpec(
        template=template.code,
        level=template.level.value,
        body=template.body,
        top=template.top,
        sink=template.sink,
        appliance=template.appliance,
        bay=unit.bay,
        width=width,
        height=h,
        depth=d,
        made=construction_of(job, unit),
        front=finish_of(job, unit, Role.FRONT),
        carcass=finish_of(job, unit, Role.CARCASS),
        drawer=finish_of(job, unit, Role.DRAWER),
        corner=template.corner,
        corner_side="right" if template.corner else "",
        leg=width if cornered else 0.0,
        blind=width * 0.45 if blind else 0.0,
        filler=40.0 if blind else 0.0,
        shape=template.shape,
        gables=template.gables,
        bottom=template.bottom,
        back=template.back,
        cover=template.cover,
        vent=template.vent,
        fittings=template.fittings,
        parameters=template.parameters,
        build=template.build,
    )
    placed = PlacedUnit(
        "", "", "", "", "", "", template.level, template.code, template.body, x, 0.0, width, h, d, Frame()
    )
    items = list(unit_front(placed, make_unit(spec, job.stock), job.stock, labels=False))
    if template.body is Body.GAP:
        items.append(Shape(rectangle(x, 0, width, h), Pen.DASHED, Layer.CARCASS))
    return items, h


def template_drawing(job: Job, template: Template) -> Drawing:
    """A template as a unit of its starting size, seen from the front."""
    unit = Unit("shelf", template.code, template.bay, template.own)
    w = template.width
    items, h = _unit_items(job, template, unit, w, 0.0)
    if template.sink:
        items.append(Shape(rectangle(w * 0.2, h, w * 0.6, 50), Pen.MEDIUM, Layer.APPLIANCE, "", "basin"))
        items.append(Line(w * 0.5, h + 50, w * 0.5, h + 190, Pen.MEDIUM, Layer.APPLIANCE))
        items.append(Line(w * 0.5, h + 190, w * 0.64, h + 190, Pen.MEDIUM, Layer.APPLIANCE))
    if template.appliance.startswith("AP-HOB"):
        items.append(Shape(rectangle(w * 0.1, h, w * 0.8, 40), Pen.MEDIUM, Layer.APPLIANCE, "", "ink"))
    return Drawing(template.name, tuple(items), 0.0, 0.0, w, h + (190.0 if template.sink else 0.0))


def saved_drawing(job: Job, saved: Saved) -> Drawing:
    """A saved unit, run or island: its units side by side, the second face of an island behind."""
    items: list[Item] = []
    x, high = 0.0, 0.0
    for part in saved.runs[:1]:
        for cell in part.run.cells:
            unit = next(u for u in part.units if u.id == cell.unit)
            template = next(t for t in saved.templates if t.code == unit.template)
            width = cell.width.length.mm if cell.width.length is not None else template.width
            more, h = _unit_items(job, template, unit, width, x)
            items += more
            x += width
            high = max(high, h)
    if saved.island is not None:
        items.append(Shape(rectangle(-20, high, x + 40, 40), Pen.MEDIUM, Layer.TRIM, "", "ink"))
        high += 40
    return Drawing(saved.name, tuple(items), 0.0, 0.0, max(x, 100.0), max(high, 100.0))


def picture(drawing: Drawing, size: QSize = PICTURE, ratio: float = 2.0, most: float = 0.07) -> QPixmap:
    """A small picture of a drawing, at `most` pixels for a mm at most."""
    pixmap = QPixmap(size * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(QColor(0, 0, 0, 0))
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    scale = min((size.width() - 6) / max(drawing.width, 1), (size.height() - 6) / max(drawing.height, 1), most)
    dx = (size.width() - drawing.width * scale) / 2 - drawing.x0 * scale
    painter.translate(dx, (size.height() + drawing.height * scale) / 2 + drawing.y0 * scale)
    painter.scale(scale, -scale)
    paint_strokes(painter, strokes_of(drawing), PEN_PX, cosmetic=True)
    painter.end()
    return pixmap


def swatch(color: str, grain: bool) -> QPixmap:
    """A finish as a small board."""
    board = Shape(rectangle(0, 0, 420, 300), Pen.NARROW, Layer.FRONT, "", color, "x" if grain else "")
    return picture(Drawing("", (board,), 0, 0, 420, 300), QSize(46, 34))


def _shape(points: tuple[tuple[float, float], ...], fill: str = "", pen: Pen = Pen.MEDIUM) -> Shape:
    return Shape(points, pen, Layer.OPENING, "", fill)


def room_drawing(kind: str) -> Drawing:
    """What can be put into a room, for the shelf: openings from the front, others from above."""
    if kind == "door":
        items: list[Item] = [
            _shape(rectangle(0, 0, 400, 760), "opening"),
            _shape(rectangle(36, 0, 328, 724), "door", Pen.NARROW),
            Line(290, 360, 335, 360, Pen.MEDIUM, Layer.OPENING),
        ]
    elif kind == "window":
        items = [
            _shape(rectangle(0, 0, 700, 560), "opening"),
            _shape(rectangle(36, 36, 628, 488), "glass", Pen.NARROW),
            Line(350, 36, 350, 524, Pen.NARROW, Layer.OPENING),
        ]
    elif kind == "arch":
        items = [_shape(rectangle(0, 0, 480, 760), "opening"), _shape(rectangle(0, 0, 480, 760), "", Pen.DASHED)]
    elif kind == "niche":
        items = [_shape(rectangle(0, 0, 500, 620), "niche"), _shape(rectangle(45, 45, 410, 530), "opening", Pen.NARROW)]
    elif kind in ("column", "chimney breast"):
        wide = 620 if kind == "chimney breast" else 300
        items = [
            _shape(rectangle(0, 300, 740, 120), "masonry", Pen.WIDE),
            _shape(rectangle(370 - wide / 2, 60, wide, 240), "masonry", Pen.WIDE),
        ]
    elif kind == "soffit":
        items = [
            _shape(rectangle(0, 0, 700, 560), "wall"),
            _shape(rectangle(0, 400, 700, 160), "column"),
        ]
    elif kind == "slope":
        items = [_shape(((0, 0), (700, 0), (700, 300), (380, 560), (0, 560)), "wall")]
    elif kind == "roof window":
        items = [
            _shape(((0, 0), (700, 0), (700, 60), (0, 60)), "wall"),
            _shape(((0, 60), (700, 60), (620, 560), (80, 560)), "ceiling"),
            _shape(((230, 170), (470, 170), (450, 440), (250, 440)), "glass"),
        ]
    elif kind == "upright":
        items = [_shape(rectangle(0, 0, 700, 560), "wall"), Line(260, -30, 260, 590, Pen.DASHED, Layer.OPENING)]
    elif kind == "level":
        items = [_shape(rectangle(0, 0, 700, 560), "wall"), Line(-30, 340, 730, 340, Pen.DASHED, Layer.OPENING)]
    elif kind == "across":
        items = [
            _shape(rectangle(0, 0, 700, 480), "floor", Pen.WIDE),
            Line(-30, 260, 730, 260, Pen.DASHED, Layer.OPENING),
        ]
    elif kind == "island":
        items = [
            _shape(rectangle(0, 0, 700, 360), "floor", Pen.WIDE),
            _shape(rectangle(20, 150, 660, 190), "unit", Pen.NARROW),
            Line(240, 150, 240, 340, Pen.NARROW, Layer.OPENING),
            Line(460, 150, 460, 340, Pen.NARROW, Layer.OPENING),
        ]
    elif kind == "peninsula":
        items = [
            _shape(rectangle(0, 0, 100, 500), "masonry", Pen.WIDE),
            _shape(rectangle(100, 110, 600, 280), "floor", Pen.WIDE),
            _shape(rectangle(110, 220, 580, 160), "unit", Pen.NARROW),
        ]
    else:
        items = _line_drawing(kind)
    shapes = [i for i in items if isinstance(i, Shape)]
    xs = [x for s in shapes for x, _ in s.points]
    ys = [y for s in shapes for _, y in s.points]
    return Drawing(kind, tuple(items), min(xs), min(ys), max(xs), max(ys))


def _line_drawing(kind: str) -> list[Item]:
    """Moldings as a band on a wall; service points as a ring."""
    bands = {"skirting": (0, 70), "dado rail": (200, 36), "picture rail": (420, 30), "cornice": (500, 60)}
    if kind in bands:
        low, high = bands[kind]
        return [_shape(rectangle(0, 0, 700, 560), "wall"), _shape(rectangle(0, low, 700, high), "board", Pen.NARROW)]
    ring = tuple((250 + 200 * x, 250 + 200 * y) for x, y in RING)
    marks: dict[str, list[Item]] = {
        "water": [_shape(((250, 400), (170, 220), (250, 140), (330, 220)), "glass", Pen.NARROW)],
        "waste": [_shape(rectangle(180, 150, 140, 200), "basin", Pen.NARROW)],
        "power": [_shape(((270, 400), (190, 240), (255, 240), (230, 110), (320, 290), (250, 290)), "ink", Pen.NARROW)],
        "gas": [_shape(((250, 400), (180, 260), (210, 150), (290, 150), (320, 260)), "", Pen.MEDIUM)],
        "vent": [Line(150, y, 350, y, Pen.MEDIUM, Layer.OPENING) for y in (190, 250, 310)],
    }
    return [_shape(ring, "floor"), *marks.get(kind, [])]


RING = (
    (1.0, 0.0), (0.87, 0.5), (0.5, 0.87), (0.0, 1.0), (-0.5, 0.87), (-0.87, 0.5),
    (-1.0, 0.0), (-0.87, -0.5), (-0.5, -0.87), (0.0, -1.0), (0.5, -0.87), (0.87, -0.5),
)  # fmt: skip
