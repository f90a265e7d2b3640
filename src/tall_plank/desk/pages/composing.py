"""The row over a sheet with which a set is put into order and its pages are composed: what is put on them, where a view
stands and at which scale, what views are drawn with."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, get_args

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QMenu, QPushButton, QWidget

from tall_plank.desk.look import asking
from tall_plank.desk.look.boxes import TextBox
from tall_plank.desk.look.texts import tr
from tall_plank.drawing.sheets import SCALES, View, room_of
from tall_plank.edits import sheetsets
from tall_plank.edits.change import Change
from tall_plank.files.images import read_image
from tall_plank.job import Job
from tall_plank.job.sheetset import NOTE, PICTURE, OwnPage, PageView, Showing
from tall_plank.measure import PlankError
from tall_plank.papers.ownpages import box_on, faults_of, fitting_scale, note_drawing
from tall_plank.papers.setcontent import shows_of
from tall_plank.papers.sets import LETTERS

if TYPE_CHECKING:
    from tall_plank.desk.pages.sets import SetPage

SHOWING: dict[Showing, str] = {
    "color": "Colors of finishes", "fronts": "Doors and drawer fronts", "worktops": "Worktops",
    "edging": "Edging", "joints": "Joints", "dimensions": "Dimensions", "labels": "Labels of units",
}  # fmt: skip

PICTURE_WIDE = 120.0
"""mm of paper that a picture is wide when it is put on a page."""


class ValueBox(TextBox):
    """A box for a value of the view that is held: Enter and Tab apply it, Escape gives the old one back."""

    def __init__(self, name: str, wide: int, apply: Callable[[str], None], back: Callable[[], None]) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.setFixedWidth(wide)
        self.apply, self.back = apply, back
        self.value = ""
        self.editingFinished.connect(self._typed)
        self.returnPressed.connect(back)

    def show_value(self, text: str) -> None:
        """Show what the job says."""
        self.value = text
        self.setText(text)

    def _typed(self) -> None:
        if self.text() != self.value:
            self.value = self.text()
            self.apply(self.text())

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() == Qt.Key.Key_Escape:
            if self.text() != self.value:
                self.setText(self.value)
                self.selectAll()
            else:
                self.back()
        else:
            super().keyPressEvent(event)


class Composing(QWidget):
    """The row, for the sheet that is looked at and the view that is held."""

    def __init__(self, page: SetPage) -> None:
        super().__init__()
        self.page, self.document, self.kind = page, page.document, page.kind
        self.order = QPushButton(tr("Order"))
        self.order.setCheckable(True)
        self.order.setToolTip(tr("List the sheets, to drag them into another order or leave some out"))
        self.order.toggled.connect(lambda on: page.order.setVisible(on))
        self.sheet = self._menu(tr("Sheet"), self._fill_sheet)
        self.put = self._menu(tr("Put on it"), self._fill_put)
        self.shows = self._menu(tr("Shows"), self._fill_shows)
        self.title = ValueBox(tr("Title of the page"), 120, self._set_title, self._hand_back)
        self.title.setPlaceholderText(tr("title"))
        self.scale = QComboBox()
        self.scale.setAccessibleName(tr("Scale of the view"))
        self.scale.addItems([f"1:{s:g}" for s in SCALES])
        self.scale.textActivated.connect(lambda text: self._set("scale", text))
        self.wide = ValueBox(tr("Width of the picture, mm of paper"), 52, self._set_wide, self._hand_back)
        self.from_left = self._box(tr("From the paper's left edge, mm"), 52, "x")
        self.from_below = self._box(tr("From the paper's lower edge, mm"), 52, "y")
        self.words = self._box(tr("Words of the note"), 110, "text")
        self.words.setMaximumWidth(260)  # as wide as there is room: the window stays as wide as it is
        self.off = QPushButton(tr("Take off"))
        self.off.setToolTip(tr("Take the view off the page: it is laid out by itself again"))
        self.off.clicked.connect(lambda: self.take_off(self.page.view.chosen))
        self.left, self.up = QLabel("→"), QLabel("↑")
        for label in (self.left, self.up):
            label.setObjectName("quiet")
        self.held: tuple[QWidget, ...] = (
            self.scale, self.wide, self.left, self.from_left, self.up, self.from_below, self.words, self.off,
        )  # fmt: skip
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 0, 12, 6)
        row.setSpacing(6)
        for tool in (self.order, self.sheet, self.put, self.shows, self.title):
            row.addWidget(tool)
        row.addSpacing(6)
        for box in self.held:
            row.addWidget(box)
        # What is of no use yet takes no room of the window.
        for hidden in (*self.held, self.put, self.title):
            hidden.setVisible(False)
        row.addStretch(1)
        view = page.view
        view.view_picked.connect(lambda _: self.fill())
        view.view_moved.connect(self._moved)
        view.view_stepped.connect(self._stepped)
        view.view_dropped.connect(self.take_off)

    def _box(self, name: str, wide: int, key: str) -> ValueBox:
        return ValueBox(name, wide, lambda text: self._set(key, text), self._hand_back)

    def _menu(self, text: str, fill: Callable[[QMenu], None]) -> QPushButton:
        button = QPushButton(text)
        menu = QMenu(button)
        menu.aboutToShow.connect(lambda: fill(menu))
        button.setMenu(menu)
        return button

    # --- what is looked at

    @property
    def own(self) -> OwnPage | None:
        """The page of the designer's own that is looked at."""
        laid = self.page.laid
        return self.document.job.sheet_set(self.kind).page(laid.key) if laid is not None else None

    def fill(self) -> None:
        """Show what can be done with the sheet and the view."""
        own = self.own
        at = self.page.view.chosen
        view = own.views[at] if own is not None and 0 <= at < len(own.views) else None
        self.put.setVisible(own is not None)
        self.title.setVisible(own is not None)
        if own is not None:
            self.title.show_value(own.title)
        drawing = self.page.drawings.get(view.what) if view is not None else None
        drawn = drawing is not None and drawing.pictorial
        # Each is shown or hidden once: what shows for a moment would make the window wider.
        unseen = {
            self.words: view is None or view.what != NOTE,
            self.wide: view is None or not (view.what.startswith(PICTURE) or drawn),
            self.scale: drawing is None or not drawing.has_scale or bool(drawing.scale),
        }
        for widget in self.held:
            widget.setVisible(view is not None and not unseen.get(widget, False))
        if view is not None:
            self.from_left.show_value(f"{view.x:g}")
            self.from_below.show_value(f"{view.y:g}")
            self.words.show_value(view.text.replace("\n", " / "))
            wide = drawing.width / view.scale if drawing is not None and drawn else view.scale
            self.wide.show_value(f"{round(wide, 1):g}")
            self.scale.setCurrentText(f"1:{view.scale:g}")
        sheet = self.page.view.sheet
        faults = faults_of(sheet) if own is not None and sheet is not None else []
        if faults:
            self.page.say(f"{'; '.join(faults)}.")

    def _hand_back(self) -> None:
        self.page.view.setFocus()

    def _do(self, edit: Callable[[Job], Change]) -> bool:
        """Apply an edit; what is wrong with it is told in the row of the sheet."""
        error = self.document.do(edit, at_place=True)
        if error is not None:
            self.fill()
            self.page.say(str(error))
        return error is None

    # --- pages

    def begin_page(self) -> None:
        """An empty page, which is looked at."""
        self._own_page(())

    def _own_page(self, views: tuple[PageView, ...], *, upright: bool = False) -> None:
        number = max((p.number for p in self.document.job.sheet_set(self.kind).pages), default=0) + 1
        self.page.look_at(f"{LETTERS[self.kind]}G{number}")
        self._do(lambda job: sheetsets.new_page(job, self.kind, views, upright=upright))

    def leave_out(self) -> None:
        """Leave the sheet out of the set; a page of one's own is given up."""
        laid, own = self.page.laid, self.own
        if laid is None:
            return
        if own is not None:
            self._do(lambda job: sheetsets.delete_page(job, self.kind, own.id))
            return
        keys = laid.keys(self.document.job.sheet_set(self.kind))
        self._do(lambda job: sheetsets.leave_out(job, self.kind, keys, out=True))

    def _set_title(self, text: str) -> None:
        own = self.own
        if own is not None:
            self._do(lambda job: sheetsets.set_page(job, self.kind, own.id, "title", text))

    def turn(self) -> None:
        """Let the paper stand, or lie."""
        own = self.own
        if own is not None:
            way = "lying" if own.upright else "upright"
            self._do(lambda job: sheetsets.set_page(job, self.kind, own.id, "way", way))

    # --- views

    def _set(self, key: str, text: str) -> None:
        own, at = self.own, self.page.view.chosen
        if own is not None and at >= 0:
            words = text.replace(" / ", "\n") if key == "text" else text
            self._do(lambda job: sheetsets.set_view(job, self.kind, own.id, at, key, words))

    def _set_wide(self, text: str) -> None:
        """How wide a picture is: one from a file, or one that the program draws."""
        own, at = self.own, self.page.view.chosen
        drawing = self.page.drawings.get(own.views[at].what) if own is not None and 0 <= at < len(own.views) else None
        page_id, real = own.id if own is not None else "", drawing.width if drawing is not None else 0.0
        self._do(lambda job: sheetsets.size_picture(job, self.kind, page_id, at, text, real))

    def _moved(self, at: int, dx: float, dy: float) -> None:
        """A view was dragged; a sheet that was laid out by itself becomes a page of one's own."""
        own = self.own
        if own is not None and at < len(own.views):
            view = own.views[at]
            self._do(lambda job: sheetsets.move_view(job, self.kind, own.id, at, view.x + dx, view.y + dy))
            return
        sheet = self.page.view.sheet
        if sheet is None:
            return
        if not all(v.drawing.key for v in sheet.views):
            self.page.look_again()
            self.page.say(tr("The index and the sheets of units and parts are laid out by themselves."))
            return
        # The view already stands where it was put.
        self._own_page(tuple(_page_view(v) for v in sheet.views), upright=sheet.upright)

    def _stepped(self, at: int, by: int) -> None:
        """One standard scale larger or smaller."""
        own = self.own
        if own is None or at >= len(own.views) or not self.scale.isVisible():
            return
        steps = [float(s) for s in SCALES]
        now = steps.index(own.views[at].scale) - by if own.views[at].scale in steps else -1
        if 0 <= now < len(steps):
            self._set("scale", f"{steps[now]:g}")

    def take_off(self, at: int) -> None:
        """Take a view off a page of one's own."""
        own = self.own
        if own is not None and 0 <= at < len(own.views):
            self.page.view.choose(-1)
            self._do(lambda job: sheetsets.take_off_page(job, self.kind, own.id, at))

    def put_on(self, view: PageView, picture: tuple[int, int, bytes] | None = None) -> None:
        """Put something on the page that is looked at."""
        own = self.own
        if own is not None:
            self._do(lambda job: sheetsets.put_on_page(job, self.kind, own.id, view, picture))

    def _fill_sheet(self, menu: QMenu) -> None:
        """What can be done with the sheet that is looked at."""
        menu.clear()
        own = self.own
        menu.addAction(tr("New page"), self.begin_page)
        if self.page.laid is not None:
            menu.addAction(tr("Give the page up") if own is not None else tr("Leave it out of the set"), self.leave_out)
            menu.addAction(tr("Earlier in the set"), lambda: self.page.step(-1))
            menu.addAction(tr("Later in the set"), lambda: self.page.step(1))
        if own is not None:
            menu.addAction(tr("Turn the paper"), self.turn)
        if self.document.job.sheet_set(self.kind).order:
            menu.addAction(tr("Order of sheets as it is by itself"), self._by_itself)

    def _by_itself(self) -> None:
        self._do(lambda job: sheetsets.order_sheets(job, self.kind, ()))

    def _fill_put(self, menu: QMenu) -> None:
        """Drawings and tables of the set that stand on no page yet, pictures and notes."""
        menu.clear()
        placed = {v.what for p in self.document.job.sheet_set(self.kind).pages for v in p.views}
        menu.addAction(tr("Note"), self.put_note)
        menu.addAction(tr("Picture from a file…"), self.put_picture)
        menu.addSeparator()
        for key, drawing in self.page.drawings.items():
            if key not in placed:
                menu.addAction(drawing.title, lambda key=key: self.put_drawing(key))

    def offer_put(self) -> None:
        """Open the list of what can be put on the page."""
        self.put.showMenu()

    def put_drawing(self, key: str) -> None:
        """Put a drawing in the middle of what is free, at the largest scale at which it stands on the page."""
        own, drawing = self.own, self.page.drawings.get(key)
        if own is None or drawing is None:
            return
        paper = self.document.job.papers.drawings
        scale = drawing.scale or fitting_scale(drawing, paper, upright=own.upright)
        if scale is None:
            self.page.say(f"{drawing.title}: {tr('no standard scale is small enough for this paper')}.")
            return
        view = View(drawing, scale, 0.0, 0.0)
        x0, y0, x1, y1 = box_on(view)
        room = room_of(paper, upright=own.upright)
        x, y = room.x + (room.width - (x1 - x0)) / 2, room.y + (room.height - (y1 - y0)) / 2
        self.put_on(PageView(key, round(x, 1), round(y, 1), scale, drawing.title))

    def put_note(self) -> None:
        """A note, whose words are typed at once."""
        room = room_of(self.document.job.papers.drawings, upright=self.own.upright if self.own else False)
        high = note_drawing(tr("Note")).height
        self.put_on(PageView(NOTE, round(room.x + 4), round(room.y + room.height - high - 24), 1.0, tr("Note")))
        own = self.own
        if own is not None:
            self.page.hold_next(len(own.views) - 1)

    def put_picture(self) -> None:
        """A picture from a file."""
        folder = self.document.path.parent if self.document.path else Path.home()
        path = asking.ask_read(self, tr("Put a picture on the page"), folder, f"{tr('Pictures')} (*.png *.jpg *.jpeg)")
        if path is None:
            return
        try:
            image = read_image(path)
        except PlankError as error:
            self.page.say(str(error))
            return
        room = room_of(self.document.job.papers.drawings)
        view = PageView(PICTURE, round(room.x + 4), round(room.y + 4), PICTURE_WIDE, path.stem[:60])
        self.put_on(view, (image.wide, image.high, image.data))

    # --- what views are drawn with

    def _fill_shows(self, menu: QMenu) -> None:
        menu.clear()
        shows, color = shows_of(self.document.job, self.kind)
        now = {"color": color, "dimensions": shows.dims}
        own = dict(self.document.job.sheet_set(self.kind).shows)
        for what in get_args(Showing):
            action = menu.addAction(tr(SHOWING[what]))
            assert action is not None
            action.setCheckable(True)
            action.setChecked(now[what] if what in now else bool(getattr(shows, what)))
            action.toggled.connect(lambda on, what=what: self.show_with(what, on))
        if own:
            menu.addSeparator()
            menu.addAction(tr("As usual for this set"), self._usual)

    def show_with(self, what: Showing, on: bool) -> None:
        """Draw the views of the set with something or without it."""
        self._do(lambda job: sheetsets.set_showing(job, self.kind, what, on))

    def _usual(self) -> None:
        self._do(lambda job: sheetsets.usual_showing(job, self.kind))


def _page_view(view: View) -> PageView:
    """A view where it stands, for a page of one's own."""
    seen = view.shown
    x, y = view.at(seen.x0, seen.y0)
    return PageView(view.drawing.key, round(x, 2), round(y, 2), view.scale, view.drawing.title)
