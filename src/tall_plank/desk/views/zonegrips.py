"""Grips of the chosen wall field in the strip: the ends and the rise of a line that parts a zone, the boundaries of
bands; and a line that is drawn across a zone."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal, Protocol

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter, QPen

from tall_plank.desk.look.theme import Theme
from tall_plank.desk.model.document import Document
from tall_plank.edits.treatments import move_band, move_line, set_zone, split_zone
from tall_plank.job import Job, Kind
from tall_plank.job.treatment import Bands, Halves, Parted, ZonePath, zone_at
from tall_plank.measure import PlankError, format_length
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.setout.paneling.marks import Box
from tall_plank.setout.paneling.zones import band_sizes

if TYPE_CHECKING:
    from tall_plank.desk.views.strip import Strip

What = Literal["start", "end", "rise", "band"]
NEAR = 8.0
"""Pixels from a grip, and from a side of a zone that a line's end snaps to."""

SIZE = 4.0


class ZoneDrag(Protocol):
    """Something of a field's zones that follows the pointer."""

    def to(self, strip: Strip, x: float, z: float) -> None:
        """The pointer is at a place of the wall, mm."""


def chosen_field(doc: Document) -> FieldLaid | None:
    """The one wall field that is chosen, as it is set out."""
    ids = doc.ids(Kind.WALL_FIELD)
    if len(ids) != 1 or len(doc.selection) != 1:
        return None
    return next((f for f in doc.room.fields if f.field.id == ids[0]), None)


@dataclass(frozen=True)
class ZoneGrip:
    """A grip.

    Attributes
    ----------
    at : its place on the wall, mm
    box : of its zone, as the treatment has it
    index : of the band under or left of a boundary
    """

    laid: FieldLaid
    path: ZonePath
    what: What
    at: tuple[float, float]
    box: Box
    index: int = 0

    def to(self, strip: Strip, x: float, z: float) -> None:
        """Bring it to a place of the wall, mm; part of a drag."""
        laid, path, what = self.laid, self.path, self.what
        tid = laid.treatment.id
        zone = zone_at(laid.treatment.zone, path)
        if what in ("start", "end"):
            u, v = _snapped(strip, laid, self.box, x, z)
            first = what == "start"
            strip.document.drag(lambda job: move_line(job, tid, path, first, *_shares(self.box, u, v)))
        elif what == "rise" and isinstance(zone, Parted):
            (ax, az), (bx, bz) = line_ends(zone, self.box)
            u = _shown(laid, x)
            size = math.dist((ax, az), (bx, bz)) or 1.0
            off = ((bx - ax) * (z - az) - (bz - az) * (u - ax)) / size
            rise = float(round(max(-size / 2, min(size / 2, off))))
            strip.tell_snap(format_length(abs(rise), strip.document.job.display))
            strip.document.drag(lambda job: set_zone(job, tid, path, "rise", f"{rise:g}mm"))
        elif isinstance(zone, Bands):
            up = zone.way == "up"
            source = Kind.WALL_FIELD.of(laid.field.id)
            at = strip.snapped_level(laid.wall_id, z, source) if up else strip.snapped_upright(laid.wall_id, x, source)
            total = self.box[3] - self.box[1] if up else self.box[2] - self.box[0]
            sizes = band_sizes(zone, total)
            start = (self.box[1] if up else self.box[0]) + math.fsum(sizes[: self.index])
            both = sizes[self.index] + sizes[self.index + 1]
            low = float(round((at if up else _shown(laid, at)) - start, 3))
            if abs(low - round(low)) > 0.001 and not strip.snapped_to_mark:
                low = float(round(low))
            low = max(20.0, min(both - 20.0, low))
            strip.tell_snap(" | ".join(format_length(mm, strip.document.job.display) for mm in (low, both - low)))
            strip.document.drag(lambda job: move_band(job, tid, path, self.index, low, both - low))


@dataclass(frozen=True)
class NewLine:
    """A line being drawn across a zone.

    Attributes
    ----------
    start : where it begins, as the treatment has it, mm
    """

    laid: FieldLaid
    path: ZonePath
    box: Box
    start: tuple[float, float]

    def to(self, strip: Strip, x: float, z: float) -> None:
        """Its end is at a place of the wall, mm; part of a drag."""
        u, v = _snapped(strip, self.laid, self.box, x, z, self.path)
        if math.dist((u, v), self.start) < 20.0:
            return
        tid, path = self.laid.treatment.id, self.path

        def drawn(job: Job):  # type: ignore[no-untyped-def]
            change = split_zone(job, tid, path, "line")
            change = move_line(change.job, tid, path, True, *_shares(self.box, *self.start))
            return move_line(change.job, tid, path, False, *_shares(self.box, u, v))

        strip.document.drag(drawn)


def new_line(strip: Strip, x: float, z: float) -> NewLine | None:
    """A line that begins at a place (mm) of the chosen field; None where nothing of it is covered."""
    laid = chosen_field(strip.document)
    if laid is None:
        return None
    path = next((zone.path for zone in laid.zones if any(r.inside(x, z) for r in zone.regions)), None)
    boxes = dict(laid.boxes)
    if path is None or path not in boxes:
        return None
    return NewLine(laid, path, boxes[path], _snapped(strip, laid, boxes[path], x, z, path))


def line_ends(zone: Parted, box: Box) -> tuple[tuple[float, float], tuple[float, float]]:
    """Both ends of a parting line, mm."""
    x0, z0, x1, z1 = box
    w, h = x1 - x0, z1 - z0
    return (x0 + zone.x1 * w, z0 + zone.y1 * h), (x0 + zone.x2 * w, z0 + zone.y2 * h)


def _shown(laid: FieldLaid, x: float) -> float:
    """A place along the wall as the treatment has it, or the other way: a mirrored field turns it."""
    return laid.x0 + laid.x1 - x if laid.field.mirrored else x


def _in_half(laid: FieldLaid, path: ZonePath, x: float) -> float:
    """A place of a right half as the left one has it."""
    boxes = dict(laid.boxes)
    for n in range(len(path)):
        box = boxes.get(path[:n])
        if box is not None and isinstance(zone_at(laid.treatment.zone, path[:n]), Halves) and x > (box[0] + box[2]) / 2:
            x = box[0] + box[2] - x
    return x


def _snapped(strip: Strip, laid: FieldLaid, box: Box, x: float, z: float, path: ZonePath = ()) -> tuple[float, float]:
    """A place of the wall for a line's end, as the treatment has it: at a side of its zone, at a mark, else in whole
    mm; told from the zone's left lower corner."""
    source = Kind.WALL_FIELD.of(laid.field.id)
    u = _in_half(laid, path, _shown(laid, strip.snapped_upright(laid.wall_id, x, source)))
    v = strip.snapped_level(laid.wall_id, z, source)
    reach = NEAR / strip.scale
    u = next((side for side in (box[0], box[2]) if abs(side - u) < reach), float(round(u - box[0])) + box[0])
    v = next((side for side in (box[1], box[3]) if abs(side - v) < reach), float(round(v - box[1])) + box[1])
    u, v = min(max(u, box[0]), box[2]), min(max(v, box[1]), box[3])
    display = strip.document.job.display
    strip.tell_snap(f"{format_length(u - box[0], display)} × {format_length(v - box[1], display)}")
    return u, v


def _shares(box: Box, x: float, z: float) -> tuple[float, float]:
    return (x - box[0]) / (box[2] - box[0]), (z - box[1]) / (box[3] - box[1])


def grips_of(doc: Document) -> list[ZoneGrip]:
    """The grips of the chosen wall field."""
    laid = chosen_field(doc)
    if laid is None:
        return []
    found: list[ZoneGrip] = []
    for path, box in laid.boxes:
        zone = zone_at(laid.treatment.zone, path)
        if isinstance(zone, Parted):
            (ax, az), (bx, bz) = line_ends(zone, box)
            size = math.dist((ax, az), (bx, bz)) or 1.0
            rise = zone.rise.mm
            middle = ((ax + bx) / 2 - (bz - az) / size * rise, (az + bz) / 2 + (bx - ax) / size * rise)
            for what, (x, z) in (("start", (ax, az)), ("end", (bx, bz)), ("rise", middle)):
                found.append(ZoneGrip(laid, path, what, (_shown(laid, x), z), box))  # type: ignore[arg-type]
        elif isinstance(zone, Bands):
            up = zone.way == "up"
            try:
                sizes = band_sizes(zone, box[3] - box[1] if up else box[2] - box[0])
            except PlankError:  # they find no room: the field says so
                continue
            at = box[1] if up else box[0]
            for i, size in enumerate(sizes[:-1]):
                at += size
                x, z = ((box[0] + box[2]) / 2, at) if up else (at, (box[1] + box[3]) / 2)
                found.append(ZoneGrip(laid, path, "band", (_shown(laid, x), z), box, i))
    return found


def grip_at(strip: Strip, p: QPointF) -> ZoneGrip | None:
    """The grip under a point of the strip."""
    for grip in grips_of(strip.document):
        at = strip.to_px(strip.wall_x(grip.laid.wall_id) + grip.at[0], grip.at[1])
        if abs(at.x() - p.x()) <= NEAR and abs(at.y() - p.y()) <= NEAR:
            return grip
    return None


def paint_zone_grips(painter: QPainter, strip: Strip) -> None:
    """Rounds at the ends and the rise of a line, squares at the boundaries of bands."""
    painter.setPen(QPen(Theme.color("spruce"), 1.4))
    painter.setBrush(Theme.color("sheet"))
    for grip in grips_of(strip.document):
        at = strip.to_px(strip.wall_x(grip.laid.wall_id) + grip.at[0], grip.at[1])
        if grip.what == "band":
            painter.drawRect(int(at.x() - SIZE), int(at.y() - SIZE), int(2 * SIZE), int(2 * SIZE))
        else:
            painter.drawEllipse(at, SIZE, SIZE)
