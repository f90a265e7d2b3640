"""The sum under the strip at the Paneling stage: how a wall field is divided, as a carpenter writes it."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QWidget

from tall_plank.desk.look.texts import counted, tr
from tall_plank.desk.look.theme import Theme, font
from tall_plank.desk.model.document import Document
from tall_plank.desk.things.zones import sum_shown
from tall_plank.desk.views.strip import Strip
from tall_plank.job import Kind
from tall_plank.job.treatment import Modules, Panels, Slats
from tall_plank.measure import DisplayUnit, format_length, told_in
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.setout.paneling.laid import ZoneLaid
from tall_plank.setout.paneling.modules import ModulesLaid
from tall_plank.setout.paneling.values import slat_steps


def sums_of(laid: FieldLaid, unit: DisplayUnit) -> list[tuple[str, str]]:
    """The sums of a field, each with a line of words under it."""
    found: list[tuple[str, str]] = []
    for zone in laid.zones:
        match zone.cover:
            case Panels():
                for s in zone.stretches:
                    if s.grid is not None:
                        n = s.grid.count
                        taken = f"{counted(n, 'panel', 'panels')} {tr('and')} {counted(n + 1, 'stile', 'stiles')}"
                        left = (
                            tr("nothing left over") if s.grid.rounded < 0.001 else tr("the rest goes where it is named")
                        )
                        found.append(
                            (
                                sum_shown(s.grid, unit),
                                f"{taken}, {left}",
                            )
                        )
            case Modules():
                if zone.modules is not None:
                    found.append(_module_sum(zone.modules, unit))
            case Slats():
                found.append(_slat_sum(zone, laid, unit))
    return found


def _module_sum(laid: ModulesLaid, unit: DisplayUnit) -> tuple[str, str]:
    g = laid.grid
    size = f"{format_length(laid.shape.width, unit)} × {format_length(laid.shape.height, unit)}"
    words = f"{counted(g.across * g.up, 'module', 'modules')} {tr('of')} {size}: {g.across} × {g.up}"
    sides = [format_length(mm, unit) for mm in (g.margin_x, g.other_x, g.margin_z, g.other_z)]
    names = (tr("left over at the left"), tr("right"), tr("below"), tr("above"))
    return words, ", ".join(f"{name} {side}" for name, side in zip(names, sides, strict=True))


def _slat_sum(zone: ZoneLaid, laid: FieldLaid, unit: DisplayUnit) -> tuple[str, str]:
    assert isinstance(zone.cover, Slats)
    steps = slat_steps(zone.cover, laid.made)
    gaps = ", ".join(format_length(g * zone.fitted, unit) for _, g in steps)
    widths = ", ".join(format_length(w, unit) for w, _ in steps)
    strips = len({s.strip for s in zone.slats})
    words = f"{counted(strips, 'slat', 'slats')} {tr('of')} {widths}, {tr('gaps')} {gaps}"
    said = tr("whole slats end both sides") if zone.cover.start == "fitted" else tr("slats at the ends are cut")
    return words, said


class SumLine(QWidget):
    """One line for the selected wall field, or for the first one of the wall that is worked on."""

    def __init__(self, document: Document, strip: Strip) -> None:
        super().__init__()
        self.document, self.strip = document, strip
        self.setFixedHeight(60)
        self.setAccessibleName(tr("Sum of the wall field"))

    def told(self) -> tuple[str, str]:
        """The sum, and the line under it."""
        doc = self.document
        chosen = doc.ids(Kind.WALL_FIELD)
        laid = next((f for f in doc.room.fields if f.field.id in chosen), None)
        if laid is None:
            wall = self.strip.current_wall()
            laid = next((f for f in doc.room.fields if f.wall_id == wall), None)
        if laid is None:
            return "", tr("Put a treatment from the left onto a wall: its sum stands here.")
        if laid.faults:
            fault = laid.faults[0]
            return told_in(fault.what, doc.job.display), told_in(fault.remedy, doc.job.display)
        sums = sums_of(laid, doc.job.display)
        if not sums:
            return f"{laid.treatment.name}, {tr('wall field')} {laid.field.name}", ""
        text, words = sums[0]
        name = f"{tr('wall field')} {laid.field.name}"
        more = (
            f" · {tr('and')} {counted(len(sums) - 1, 'further stretch', 'further stretches')} {tr('on the sheet')}"
            if len(sums) > 1
            else ""
        )
        return text, f"{name}: {words}{more}"

    def refresh(self) -> None:
        """Pull the job."""
        text, words = self.told()
        self.setAccessibleDescription(f"{text}. {words}")
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), Theme.color("sheet"))
        text, words = self.told()
        painter.setPen(Theme.color("ink"))
        size = 16
        painter.setFont(font(size, bold=True))
        while size > 11 and painter.fontMetrics().horizontalAdvance(text) > self.width() - 24:
            size -= 1
            painter.setFont(font(size, bold=True))
        shown = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, self.width() - 24)
        painter.drawText(QRectF(12.0, 8.0, self.width() - 24.0, 24.0), Qt.AlignmentFlag.AlignCenter, shown)
        painter.setFont(font(12))
        painter.setPen(Theme.color("quiet"))
        shown = painter.fontMetrics().elidedText(words, Qt.TextElideMode.ElideRight, self.width() - 24)
        painter.drawText(QRectF(12.0, 32.0, self.width() - 24.0, 20.0), Qt.AlignmentFlag.AlignCenter, shown)
