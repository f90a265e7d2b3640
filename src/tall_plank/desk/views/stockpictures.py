"""Pictures of stock: an image that came with a list, a handle as it looks, a finish, a fitting with its holes."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPixmap

from tall_plank.desk.look.theme import LIGHT
from tall_plank.desk.views.shelfpictures import picture
from tall_plank.drawing.handles import handle_drawing
from tall_plank.drawing.primitives import Drawing, Item, Layer, Pen, Shape, rectangle
from tall_plank.job import Job
from tall_plank.measure.outlines import circle
from tall_plank.measure.remembered import KeptBy
from tall_plank.stock import Fitting
from tall_plank.stock.catalog import Entry

_pixmaps: KeptBy[tuple[object, ...], QPixmap] = KeptBy("desk.views.stockpictures", 600)


def stock_picture(job: Job, entry: Entry, size: QSize, *, dark: bool) -> QPixmap:
    """The picture of a thing of the job's stock at a size."""
    image = next((p for p in job.pictures if p.name == entry.picture), None) if entry.picture else None
    key = (entry, image.data if image is not None else b"", size.width(), size.height(), dark)
    kept = _pixmaps.get(key)
    if kept is None:
        kept = _of_image(image.data, size) if image is not None else _drawn(job, entry, size)
        if dark:
            kept = _on_paper(kept, size)
        _pixmaps.put(key, kept)
    return kept


def _on_paper(pixmap: QPixmap, size: QSize) -> QPixmap:
    """In the dark look things keep their own colors, on a piece of paper."""
    made = QPixmap(pixmap.size())
    made.setDevicePixelRatio(pixmap.devicePixelRatio())
    made.fill(QColor(0, 0, 0, 0))
    painter = QPainter(made)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(QColor(LIGHT.paper))
    painter.drawRoundedRect(QRectF(0, 0, size.width(), size.height()), 4, 4)
    painter.drawPixmap(0, 0, pixmap)
    painter.end()
    return made


def _of_image(data: bytes, size: QSize, ratio: float = 2.0) -> QPixmap:
    whole = QPixmap()
    whole.loadFromData(data)
    made = QPixmap(size * ratio)
    made.setDevicePixelRatio(ratio)
    made.fill(QColor(0, 0, 0, 0))
    if not whole.isNull():
        fitted = whole.size().scaled(size, Qt.AspectRatioMode.KeepAspectRatio)
        place = QRectF(
            (size.width() - fitted.width()) / 2, (size.height() - fitted.height()) / 2, fitted.width(), fitted.height()
        )
        painter = QPainter(made)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawPixmap(place, whole, QRectF(whole.rect()))
        painter.end()
    return made


def _drawn(job: Job, entry: Entry, size: QSize) -> QPixmap:
    fitting = job.stock.fitting(entry.code)
    if fitting is not None and fitting.kind == "handle":
        return picture(handle_drawing(fitting), size, most=10.0)
    profile = job.stock.profile(entry.code)
    if profile is not None:
        section = Shape(profile.section, Pen.NARROW, Layer.TRIM, None, entry.finish or "unit")
        return picture(Drawing("", (section,), 0, 0, profile.depth, profile.height), size, most=10.0)
    if fitting is not None:
        return picture(_fitting_drawing(fitting), size, most=10.0)
    grain = (
        "x"
        if any(
            f.code == getattr(job.stock.board_by_code(entry.code), "finish", "") and f.grain == "length"
            for f in job.stock.finishes
        )
        else ""
    )
    # Boards and edging by their finish, appliances by the shape of their front.
    sizes = dict(entry.sizes)
    if entry.kind == "appliance":
        w, h = sizes.get("wide", 600.0), sizes.get("high", 600.0)
        shape = Shape(rectangle(0, 0, w, h), Pen.NARROW, Layer.APPLIANCE, None, "appliance")
        return picture(Drawing("", (shape,), 0, 0, w, h), size, most=10.0)
    wide, high = (420.0, 300.0) if entry.kind == "board" else (420.0, 90.0)
    shape = Shape(rectangle(0, 0, wide, high), Pen.NARROW, Layer.FRONT, None, entry.finish or "unit", grain)  # type: ignore[arg-type]
    return picture(Drawing("", (shape,), 0, 0, wide, high), size, most=10.0)


def _fitting_drawing(fitting: Fitting) -> Drawing:
    """What is known of a fitting's shape: its holes in their places, and its length where it has one."""
    spots = [(h.dx, h.dy, max(h.diameter, 2.0) / 2) for h in fitting.holes]
    items: list[Item] = []
    if fitting.length and fitting.kind not in ("leg", "hanger"):
        high = (
            max(fitting.height, 8.0, *(2 * abs(y) + 12.0 for _, y, _ in spots))
            if spots
            else max(min(fitting.height, fitting.length), 8.0)
        )
        low = min((x for x, _, _ in spots), default=0.0)
        start = min(0.0, low - 8.0)
        items.append(Shape(rectangle(start, -high / 2, fitting.length, high), Pen.NARROW, Layer.FRONT, None, "unit"))
    elif not spots:
        items.append(Shape(rectangle(0, 0, 60, 40), Pen.NARROW, Layer.FRONT, None, "unit"))
    items += [Shape(circle(x, y, r), Pen.NARROW, Layer.FRONT, None, "ink") for x, y, r in spots]
    xs = [x for item in items if isinstance(item, Shape) for x, _ in item.points]
    ys = [y for item in items if isinstance(item, Shape) for _, y in item.points]
    pad = 4.0
    return Drawing(
        fitting.name,
        tuple(items),
        min(xs) - pad,
        min(ys) - pad,
        max(xs) - min(xs) + 2 * pad,
        max(ys) - min(ys) + 2 * pad,
    )
