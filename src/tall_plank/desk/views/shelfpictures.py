"""Small pictures for the shelf, drawn from the real things: kinds, openings, what a room has, saved things."""

from __future__ import annotations

from PyQt6.QtCore import QSize
from PyQt6.QtGui import QColor, QPainter, QPixmap

from tall_plank.desk.views.canvas import PEN_PX
from tall_plank.desk.views.strokes import paint_strokes, strokes_of
from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape, rectangle
from tall_plank.drawing.shows import Shows
from tall_plank.drawing.unitfront import unit_front
from tall_plank.edits.library import Saved
from tall_plank.job import Body, Job, Template, Unit
from tall_plank.making.specs import spec_alone
from tall_plank.making.unit import make_unit
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
    spec = spec_alone(job, unit, template, (width, h, d))
    placed = PlacedUnit(
        "", "", "", "", "", "", template.level, template.code, template.body, x, 0.0, width, h, d, Frame()
    )
    items = list(unit_front(placed, make_unit(spec, job.stock), job.stock, shows=Shows(labels=False)))
    if template.body is Body.GAP:
        items.append(Shape(rectangle(x, 0, width, h), Pen.DASHED, Layer.CARCASS))
    return items, h


def template_drawing(job: Job, template: Template) -> Drawing:
    """A template as a unit of its starting size, seen from the front."""
    unit = Unit("shelf", template.code, template.bay, template.own)
    w = template.width
    items, h = _unit_items(job, template, unit, w, 0.0)
    if template.sink:
        items.append(Shape(rectangle(w * 0.2, h, w * 0.6, 50), Pen.MEDIUM, Layer.APPLIANCE, None, "basin"))
        items.append(Line(w * 0.5, h + 50, w * 0.5, h + 190, Pen.MEDIUM, Layer.APPLIANCE))
        items.append(Line(w * 0.5, h + 190, w * 0.64, h + 190, Pen.MEDIUM, Layer.APPLIANCE))
    if template.appliance.startswith("AP-HOB"):
        items.append(Shape(rectangle(w * 0.1, h, w * 0.8, 40), Pen.MEDIUM, Layer.APPLIANCE, None, "ink"))
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
        items.append(Shape(rectangle(-20, high, x + 40, 40), Pen.MEDIUM, Layer.TRIM, None, "ink"))
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
    board = Shape(rectangle(0, 0, 420, 300), Pen.NARROW, Layer.FRONT, None, color, "x" if grain else "")
    return picture(Drawing("", (board,), 0, 0, 420, 300), QSize(46, 34))
