"""The window: job bar, shelf, centre, spec sheet, tally, and how they hear of one another."""

from __future__ import annotations

import itertools
from pathlib import Path

from PyQt6.QtCore import QBuffer, QIODevice, QSize, Qt, QTimer
from PyQt6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QIcon, QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import (
    QApplication,
    QDialog,
    QHBoxLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QMainWindow,
    QMenu,
    QSplitter,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from tall_plank import assets
from tall_plank.desk import dialogs, theme
from tall_plank.desk.background import BarsThread, PackageThread
from tall_plank.desk.barspage import BarsPage
from tall_plank.desk.canvas import Canvas
from tall_plank.desk.commands import Commands
from tall_plank.desk.document import Document
from tall_plank.desk.jobbar import JobBar
from tall_plank.desk.machinepage import MachinePage
from tall_plank.desk.menus import TITLES, fill_recent, register, show_stock
from tall_plank.desk.menus_room import place_in_room
from tall_plank.desk.messages import MessageLine
from tall_plank.desk.modelview import ModelView
from tall_plank.desk.planspage import PlansPage
from tall_plank.desk.planview import PlanView
from tall_plank.desk.rackpage import RackPage
from tall_plank.desk.runlines import RunLines
from tall_plank.desk.runtextbar import RunTextBar
from tall_plank.desk.sheetview import SheetView
from tall_plank.desk.shelf import Shelf
from tall_plank.desk.specsheet import SpecSheet
from tall_plank.desk.strip import Strip
from tall_plank.desk.tableview import TablePane
from tall_plank.desk.tally import Tally
from tall_plank.desk.texts import tr
from tall_plank.desk.togetherpage import TogetherPage
from tall_plank.desk.unitlists import UnitListPage
from tall_plank.desk.unitpage import UnitPage
from tall_plank.edits import runs, units
from tall_plank.edits.library import place_saved
from tall_plank.edits.stock import offered
from tall_plank.files.library import kept
from tall_plank.files.userdata import Autosave, Preferences, Recovered, UserFolders
from tall_plank.job import Job, Role
from tall_plank.job.start import shipped_templates
from tall_plank.measure import PlankError
from tall_plank.papers import schedules
from tall_plank.papers.drawings import job_sheets
from tall_plank.papers.offer import offer
from tall_plank.stock import shipped_stock

AUTOSAVE_MS = 3000
SHOP_LISTS = (
    ("cut-list", "Cut list"), ("by-unit", "By unit"), ("fronts", "Fronts"), ("frames", "Frames"),
    ("drawers", "Drawer boxes"), ("timber", "Solid timber"), ("areas", "Areas, weights"),
    ("plans", "Cutting plans"), ("boards", "Boards"), ("saw-cuts", "Saw cuts"),
    ("together", "Jobs together"),
    ("rack", "Offcut rack"),
    ("edging", "Edging"), ("glass", "Glass"), ("lengths", "Moldings"), ("bars", "Bars"),
    ("machine", "Machine"), ("handwork", "Edges, handwork"),
    ("hardware", "Hardware"), ("orders", "Orders"), ("units", "Units"), ("snags", "Snags"),
)  # fmt: skip
OFFER_LISTS = (("price", "Price"), ("offer", "Estimate"))


class Window(QMainWindow):
    """One job in a window."""

    def __init__(self, job: Job, folders: UserFolders) -> None:
        super().__init__()
        self.preferences = Preferences(folders)
        self.document = Document(job, folders)
        self.autosave = Autosave(folders)
        self.stage = "units"
        self.listing = {"shop": "cut-list", "offer": "price"}
        self.view_shown = "all"
        self._room_shown = job.rooms[0].id
        self.package_thread: PackageThread | None = None
        self.bars_thread: BarsThread | None = None
        self.standards_page: QDialog | None = None
        self.stock_page: QDialog | None = None
        self.setWindowIcon(QIcon(str(assets.ICONS / "tall-plank.svg")))
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self.commands = Commands(self)
        self._build()
        register(self)
        self.menus = self.commands.fill_menus(TITLES)
        self.recent = QMenu(tr("Open &recent"), self)
        self.menus["job"].insertMenu(self.commands.actions["save"], self.recent)
        self.recent.aboutToShow.connect(lambda: fill_recent(self, self.recent))
        doc = self.document
        doc.changed.connect(self._job_changed)
        doc.selected.connect(self._selection_changed)
        doc.filed.connect(self._filed)
        doc.told.connect(self.message.tell)
        self._autosave_timer = QTimer(self)
        self._autosave_timer.setSingleShot(True)
        self._autosave_timer.setInterval(AUTOSAVE_MS)
        self._autosave_timer.timeout.connect(self.keep_autosave)
        self.show_stage("units")
        self._job_changed()
        self.strip.setFocus()
        self._autosave_timer.stop()
        self._filed()

    # --- building

    def _build(self) -> None:
        doc = self.document
        self.bar = JobBar(doc, self.commands)
        self.shelf = Shelf(doc)
        self.lists = QListWidget()
        self.lists.setObjectName("listing")
        self.lists.setFixedWidth(150)
        self.left = QStackedWidget()
        self.left.setFixedWidth(150)
        self.left.addWidget(self.shelf)
        self.left.addWidget(self.lists)
        self.strip = Strip(doc)
        self.lines = RunLines(doc, self.strip)
        self.run_text = RunTextBar(doc)
        self.plan = PlanView(doc)
        self.model = ModelView(doc)
        top = QWidget()
        column = QVBoxLayout(top)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.strip, 1)
        column.addWidget(self.lines)
        column.addWidget(self.run_text)
        self.top_pane = top
        self.lower = QSplitter(Qt.Orientation.Horizontal)
        self.lower.setHandleWidth(1)
        for view, name in ((self.plan, tr("plan")), (self.model, tr("model"))):
            self.lower.addWidget(view)
            label = QLabel(name, view)
            label.setObjectName("paneName")
            label.move(10, 6)
        self.lower.setSizes([430, 460])
        self.design = QSplitter(Qt.Orientation.Vertical)
        self.design.setHandleWidth(1)
        self.design.addWidget(top)
        self.design.addWidget(self.lower)
        self.design.setSizes([400, 310])
        self.table = TablePane()
        self.plans = PlansPage(doc)
        self.boards = self.plans.boards
        self.together = TogetherPage(doc, self.plans.rack, self.preferences)
        self.bars = BarsPage(doc)
        self.unit_lists = UnitListPage(doc)
        self.machine = MachinePage(doc)
        self.rack = RackPage(doc, self.plans.rack)
        self.sheet = SheetView()
        self.center = QStackedWidget()
        self.unit_page = UnitPage(doc)
        self.unit_page.closed.connect(self.leave_unit)
        self.shop_pages = {
            "plans": self.plans, "together": self.together, "by-unit": self.unit_lists, "bars": self.bars,
            "rack": self.rack, "machine": self.machine,
        }  # fmt: skip
        for page in (self.design, self.table, self.sheet, self.unit_page, *self.shop_pages.values()):
            self.center.addWidget(page)
        self.spec = SpecSheet(doc)
        self.spec.setFixedWidth(262)
        self.tally = Tally(doc)
        middle = QWidget()
        row = QHBoxLayout(middle)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.left)
        row.addWidget(self.center, 1)
        row.addWidget(self.spec)
        whole = QWidget()
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.bar)
        column.addWidget(middle, 1)
        column.addWidget(self.tally)
        self.middle = middle
        self.setCentralWidget(whole)
        self.message = MessageLine(middle)
        self.spec.browse.connect(lambda group: show_stock(self, group))
        self.bar.stage_chosen.connect(self.show_stage)
        self.shelf.used.connect(self.use_from_shelf)
        self.tally.opened.connect(self.open_schedule)
        self.lists.currentItemChanged.connect(self._list_chosen)
        self.table.row_chosen.connect(self.go_to_cell)
        self.strip.place_wanted.connect(self.place_on_wall)
        self.plan.place_wanted.connect(self.place_on_plan)
        self.model.place_wanted.connect(self.place_on_plan)
        self.model.size_wanted.connect(lambda: self.commands.run("type_width"))
        self.strip.step_asked.connect(self.lines.step)
        self.strip.level_asked.connect(self.lines.step_level)
        self.lines.run_text_wanted.connect(self.type_run)
        self.run_text.closed.connect(self.strip.setFocus)

    def sizeHint(self) -> QSize:
        return QSize(1280, 800)

    # --- following the job

    def _job_changed(self) -> None:
        """Everything that shows the job pulls it; the model follows after the 2D views have painted."""
        self.bar.refresh()
        if self.stage in ("shop", "offer"):
            self._show_listing()
        else:
            self._refresh_design()
        self.spec.refresh()
        self.tally.refresh()
        for name in ("off", "open"):
            self.commands.actions[f"fronts_{name}"].setChecked(self.document.fronts == name)
        self.commands.actions["for_shop"].setChecked(self.document.shop)
        if not self.document.history.is_saved and not self._autosave_timer.isActive():
            self._autosave_timer.start()

    def _refresh_design(self) -> None:
        """Strip, run lines, plan, model and shelf pull the job; another room is shown whole."""
        if self._room_shown != self.document.room_id:
            self._room_shown = self.document.room_id
            self.strip.fitted = self.plan.fitted = True
            self.model.fit()
        for view in (self.strip, self.lines, self.plan, self.model, self.shelf):
            view.refresh()

    def _selection_changed(self) -> None:
        self.message.dismiss()
        self.strip.show_selection()
        self.strip.refresh_selection()
        self.lines.refresh()
        self.plan.refresh_selection()
        self.model.refresh_selection()
        self.spec.refresh()
        self.commands.refresh()

    def _update_history_texts(self) -> None:
        history = self.document.history
        for name, text, what in (("undo", tr("Undo"), history.undo_name), ("redo", tr("Redo"), history.redo_name)):
            self.commands.actions[name].setText(f"{text} {tr(what).lower()}".strip())

    def _filed(self) -> None:
        doc = self.document
        name = doc.path.name if doc.path else doc.job.name
        mark = " [" + tr("read-only") + "]" if doc.read_only else ""
        self.setWindowTitle(f"{name}[*]{mark} — Tall Plank")
        self.setWindowModified(not doc.history.is_saved)
        if doc.history.is_saved:
            self._autosave_timer.stop()
            self.autosave.put_away()
        if doc.drag_from is None:
            # While a drag runs, menus and their greyed commands wait for its end.
            self._update_history_texts()
            self.commands.refresh()

    def keep_autosave(self) -> None:
        """Write the job to the state folder."""
        try:
            self.autosave.keep(self.document.job, self.document.path)
        except PlankError as error:
            self.message.tell(f"{tr('The work cannot be kept safe')}: {error}", "wrong")

    # --- stages

    def show_stage(self, stage: str) -> None:
        """Room, units, finish: the drawing; shop and offer: schedules and pages. The selection stays."""
        self.stage = stage
        self.bar.show_stage(stage)
        self.shelf.show_stage(stage)
        self.spec.stage = stage
        self.strip.stage = stage
        if stage in ("shop", "offer"):
            self.left.setCurrentWidget(self.lists)
            self._fill_lists()
        else:
            self.left.setCurrentWidget(self.shelf)
            self.spec.show()
            self.center.setCurrentWidget(self.design)
            self._refresh_design()
        self.spec.refresh()
        self.commands.refresh()
        self.message.dismiss()
        widget = QApplication.focusWidget()
        if widget is None or not widget.isVisible() or not self.isAncestorOf(widget) or self.table.isAncestorOf(widget):
            self.main_view().setFocus()

    def _fill_lists(self) -> None:
        entries = list(SHOP_LISTS if self.stage == "shop" else OFFER_LISTS)
        if self.stage == "offer":
            sheets = job_sheets(self.document.workings, shop=self.document.shop)
            entries += [(f"sheet{i}", s.drawing.title) for i, s in enumerate(sheets)]
        self.lists.blockSignals(True)
        self.lists.clear()
        wanted = self.listing[self.stage]
        for code, label in entries:
            item = QListWidgetItem(tr(label))
            item.setData(Qt.ItemDataRole.UserRole, code)
            self.lists.addItem(item)
            if code == wanted:
                self.lists.setCurrentItem(item)
        if self.lists.currentItem() is None:
            self.lists.setCurrentRow(0)
            first = self.lists.currentItem()
            assert first is not None
            self.listing[self.stage] = first.data(Qt.ItemDataRole.UserRole)
        self.lists.blockSignals(False)
        self._show_listing()

    def _list_chosen(self, item: QListWidgetItem | None) -> None:
        if item is not None and self.stage in self.listing:
            self.listing[self.stage] = item.data(Qt.ItemDataRole.UserRole)
            self._show_listing()

    def _show_listing(self) -> None:
        w = self.document.workings
        code = self.listing[self.stage]
        display = w.job.display
        # A table takes the whole width; what it is made by stands on the page of standards.
        self.spec.setVisible(self.stage != "shop" or code == "plans")
        if code in self.shop_pages:
            page = self.shop_pages[code]
            page.refresh()
            self.center.setCurrentWidget(page)
        elif code.startswith("sheet"):
            sheets = job_sheets(w, shop=self.document.shop)
            self.sheet.show_sheet(sheets[min(int(code.removeprefix("sheet")), len(sheets) - 1)])
            self.center.setCurrentWidget(self.sheet)
        else:
            table = offer(w) if code == "offer" else schedules.ALL[code](w)
            self.center.setCurrentWidget(self.table)
            self.table.show_table(table, display)

        if code in ("bars", "orders"):
            self._settle_bars()

    def _settle_bars(self) -> None:
        """Look for the least bars beside the window where a first plan of them is on screen."""
        if self.bars_thread is None and not self.document.workings.bars.settled:
            self.bars_thread = BarsThread(self.document.job)
            self.bars_thread.finished.connect(self._bars_settled)
            self.bars_thread.start()

    def _bars_settled(self) -> None:
        self.bars_thread = None
        self.document.workings.__dict__.pop("bars", None)
        if self.stage == "shop" and self.listing["shop"] in ("bars", "orders"):
            self._show_listing()

    def open_schedule(self, code: str) -> None:
        """A figure of the tally was clicked."""
        stage = "offer" if code == "price" else "shop"
        self.listing[stage] = "plans" if code == "boards" else code
        self.show_stage(stage)

    def go_to_cell(self, cell: str) -> None:
        """Show a unit that a schedule speaks of."""
        self.show_stage("units")
        self.document.select((f"cell:{cell}",))
        self.strip.setFocus()

    # --- views

    def show_view(self, name: str) -> None:
        """strip, plan, model or all."""
        if self.stage in ("shop", "offer"):
            self.show_stage("units")
        self.view_shown = name
        self.top_pane.setVisible(name in ("strip", "all"))
        self.lower.setVisible(name in ("plan", "model", "all"))
        self.plan.setVisible(name in ("plan", "all"))
        self.model.setVisible(name in ("model", "all"))

    def _beside_the_work(self) -> bool:
        """Whether the keys go to the shelf, the spec sheet or the bars."""
        widget = QApplication.focusWidget()
        return widget is not None and any(x.isAncestorOf(widget) for x in (self.spec, self.left, self.bar, self.tally))

    def main_view(self) -> QWidget:
        """What is worked on at this stage: the strip, or the schedule, plan or page on screen."""
        page = self.center.currentWidget()
        if page is self.design:
            return next((v for v in (self.strip, self.plan, self.model) if v.isVisible()), self.strip)
        views = {
            self.plans: self.boards, self.together: self.together.boards, self.unit_lists: self.unit_lists.pane.view,
            self.bars: self.bars.view, self.rack: self.rack.table.view, self.table: self.table.view,
        }  # fmt: skip
        return views.get(page, page) if page is not None else self.table.view

    def table_shown(self) -> TablePane | None:
        """The table that is on screen, by itself or on its page."""
        panes = {self.table: self.table, self.unit_lists: self.unit_lists.pane, self.rack: self.rack.table}
        page = self.center.currentWidget()
        return panes.get(page) if page is not None else None

    def next_pane(self, by: int) -> None:
        """The keys go to the next pane: shelf, drawing or table, plan, model, spec sheet."""
        panes: list[QWidget] = [self.shelf.search if self.left.currentWidget() is self.shelf else self.lists]
        panes += [v for v in (self.strip, self.plan, self.model) if v.isVisible()] or [self.main_view()]
        first = next((x.value for x in self.spec.lines.values() if x.row.apply is not None), None)
        panes += [first] if first is not None else []
        widget = QApplication.focusWidget()
        holders = {id(panes[0]): self.left, id(first): self.spec}
        at = next(
            (
                i
                for i, p in enumerate(panes)
                if widget is p or (widget is not None and id(p) in holders and holders[id(p)].isAncestorOf(widget))
            ),
            0,
        )
        panes[(at + by) % len(panes)].setFocus()

    def focused_view(self) -> Canvas | ModelView:
        """The view that zoom commands work on."""
        widget = QApplication.focusWidget()
        page = self.unit_page
        views = (
            self.strip, self.plan, self.model, self.boards, self.together.boards, self.bars.view, self.sheet,
            page.drawing, page.model,
        )  # fmt: skip
        for view in views:
            if widget is view and view.isVisible():
                return view
        return next((v for v in views if v.isVisible()), self.strip)

    def look_into(self) -> None:
        """The selected unit by itself: its parts, their machining, its model taken apart."""
        if self.stage in ("shop", "offer"):
            self.show_stage("units")
        self.center.setCurrentWidget(self.unit_page)
        self.unit_page.show_cell(self.document.cells[0])

    def leave_unit(self) -> None:
        """Back from the unit to the room."""
        if self.center.currentWidget() is self.unit_page:
            self.center.setCurrentWidget(self.design)
            self.strip.setFocus()

    # --- placing

    def use_from_shelf(self, code: str) -> None:
        """Enter or double click on the shelf: put it after the selection, or set the finish."""
        wall = self.strip.current_wall()
        after = self.document.cells[-1] if self.document.cells else ""
        self.place(code, wall, after=after)

    def place(
        self,
        code: str,
        wall: str,
        x: float | None = None,
        *,
        after: str = "",
        at: tuple[float, float] | None = None,
    ) -> None:
        """Put something of the shelf on a line: a finish, a thing of the room, something saved, or a kind of unit.

        Parameters
        ----------
        x : mm along the line where it was dropped; without it, it goes after a cell or to the end
        at : place on the floor where it was dropped on the plan
        """
        doc = self.document
        kind, _, name = code.partition(":")
        if self.stage == "finish" and kind not in ("room", "saved"):
            self.set_finish(Role(kind), name)
        elif kind == "room":
            place_in_room(self, name, wall, x, at)
        elif code in ("door", "window") and self.stage == "room":
            place_in_room(self, code, wall, x)
        elif kind == "saved":
            self.place_saved(name, wall, after, at)
        elif x is None:
            doc.do(lambda job: runs.insert_unit(job, doc.room_id, wall, code, after=after))
        else:
            level = runs.run_level(doc.job, doc.room_id, wall, doc.job.template(code))
            run = next((r for r in doc.room.runs if r.run.wall == wall and r.run.level is level), None)
            index = sum(p.x + p.width / 2 < x for p in run.cells) if run else 0
            doc.do(lambda job: runs.insert_unit(job, doc.room_id, wall, code, index=index))

    def place_saved(self, name: str, wall: str, after: str, at: tuple[float, float] | None) -> None:
        """Place something of the library."""
        found = next((k for k in kept(self.document.folders)[0] if k.path.name == name), None)
        if found is None:
            self.message.tell(tr("It is no longer in the library."), "wrong")
            self.shelf.library_changed()
            return
        text, room = found.text, self.document.room_id
        self.document.do(lambda job: place_saved(job, text, room, wall, at, after))

    def set_finish(self, role: Role, finish: str) -> None:
        """For the selected units, or the whole job where none is selected or the role belongs to no unit."""
        doc = self.document
        if doc.cells and role in (Role.FRONT, Role.CARCASS):
            doc.do(lambda job: units.set_own(job, doc.cells, f"finish_{role.value}", finish))
        else:
            doc.do(lambda job: units.set_scheme_finish(job, role, finish))

    def place_on_wall(self, code: str, wall: str, x: float) -> None:
        """Something was dropped on a wall."""
        self.place(code, wall, x)
        self.strip.setFocus()

    def place_on_plan(self, code: str, line: str, x: float, at: tuple[float, float]) -> None:
        """Something was dropped on the plan: on its nearest line, or on the floor."""
        self.place(code, line, x, at=at)
        self.plan.setFocus()

    def type_run(self, run_id: str) -> None:
        """Open the run as text."""
        _, run = self.document.job.find_run(run_id)
        self.run_text.open_for(run.wall, run.level)

    # --- files

    def load(self, job: Job, path: Path | None, *, saved: bool = True) -> None:
        """Show another job in this window."""
        self.document.load(job, path, saved=saved)
        self.strip.fit()
        self.plan.fit()
        self.model.fit()
        self.setWindowModified(not saved)

    def open_path(self, path: Path) -> bool:
        """Open a file; a message and the old job stay where that fails."""
        try:
            self.document.open(path)
        except PlankError as error:
            self.message.tell(str(error), "wrong")
            return False
        self.strip.fit()
        self.plan.fit()
        self.model.fit()
        self.preferences.add_recent(path)
        lacking = offered(self.document.job, shipped_templates(), shipped_stock())
        if lacking.kinds:
            note = tr("kinds of units in the library are not in this job: Job ▸ Take new kinds from the library")
            self.message.tell(f"{len(lacking.kinds)} {note}.")
        return True

    def may_leave(self) -> bool:
        """Ask about work that is not saved; True where the window may let go of its job."""
        if self.document.history.is_saved:
            return True
        answer = dialogs.ask_unsaved(self, self.document.job.name)
        if answer == "save":
            self.commands.run("save")
            return self.document.history.is_saved
        return answer == "discard"

    def preview_png(self) -> bytes:
        """A small picture for the job file."""
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        self.strip.grab().scaledToWidth(480, Qt.TransformationMode.SmoothTransformation).save(buffer, "PNG")
        return bytes(buffer.data())

    def offer_recovery(self, found: list[Recovered]) -> None:
        """Jobs that an earlier program left behind."""
        if not found:
            return
        first = found[0]

        def take() -> None:
            self.load(first.job, None, saved=False)
            self.document.told.emit(
                tr("This is the work as it was last kept. Save it under the name you want."), "note"
            )
            self.keep_autosave()
            first.path.unlink(missing_ok=True)
            rest()

        def drop() -> None:
            first.path.unlink(missing_ok=True)
            rest()

        def rest() -> None:
            self.offer_recovery(found[1:])

        self.message.ask(
            f"{tr('Work on')} “{first.job.name}” {tr('was not saved when the program ended.')}",
            {tr("Take it up"): take, tr("Let it go"): drop, tr("Later"): lambda: None},
        )

    # --- events

    def restyle(self) -> None:
        """The look changed."""
        for view in (self.strip, self.plan, self.boards, self.together.boards, self.bars.view, self.sheet):
            view.restyle()
        self.model.restyle()
        self.tally.restyle()
        self.table.restyle()
        self.unit_lists.pane.restyle()
        self.unit_lists.picture.restyle()
        self.lines.update()
        self.shelf.refresh()

    def set_look(self, look: str) -> None:
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        theme.apply(app, dark=look == "dark")
        self.restyle()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Escape that no box and no drag wanted: back to the drawing or the table, and from there, select nothing."""
        assert event is not None
        if event.key() == Qt.Key.Key_Escape and self._beside_the_work():
            self.main_view().setFocus()
        elif event.key() == Qt.Key.Key_Escape:
            self.commands.run("bay_leave" if self.document.bay is not None else "select_none")
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.message.place()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None and any(u.toLocalFile().endswith(".plank") for u in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is None:
            return
        paths = (Path(u.toLocalFile()) for u in event.mimeData().urls())
        for path in itertools.islice((p for p in paths if p.suffix == ".plank"), 1):
            if self.may_leave():
                self.open_path(path)

    def closeEvent(self, event: QCloseEvent | None) -> None:
        assert event is not None
        if not self.may_leave():
            event.ignore()
            return
        if self.bars_thread is not None:
            self.bars_thread.finished.disconnect()
            self.bars_thread.wait()
        if self.package_thread is not None:
            # What is written so far stays; the file in work is finished.
            self.package_thread.stop()
            self.package_thread.wait()
        self._autosave_timer.stop()
        self.autosave.put_away()
        self.document.release()
        self.model.close_view()
        self.unit_page.model.close_view()
        self.shelf.close_view()
        self.plans.close_page()
        self.together.close_page()
        self.machine.close_page()
        event.accept()
