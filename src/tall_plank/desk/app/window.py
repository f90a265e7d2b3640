"""The window: job bar, shelf, centre, spec sheet, tally, and how they hear of one another."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path

from PyQt6.QtCore import QBuffer, QIODevice, QSize, Qt, QTimer
from PyQt6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QIcon, QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QApplication, QMainWindow, QMenu, QStackedWidget, QVBoxLayout, QWidget

from tall_plank import assets
from tall_plank.desk.app import droppedfiles
from tall_plank.desk.app.center import Center
from tall_plank.desk.app.commands import Commands
from tall_plank.desk.app.jobbar import JobBar
from tall_plank.desk.app.listings import Listings
from tall_plank.desk.app.messages import MessageLine
from tall_plank.desk.app.placement import keep_place
from tall_plank.desk.app.placer import Placer
from tall_plank.desk.app.recovery import RecoveryList, about
from tall_plank.desk.app.tally import Tally
from tall_plank.desk.look import asking, theme
from tall_plank.desk.look.panes import GRAB, Panes
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread
from tall_plank.desk.pages.standards import StandardsPage
from tall_plank.desk.pages.stock import StockPage
from tall_plank.desk.spec.sheet import SpecSheet
from tall_plank.desk.views.shelf import Shelf
from tall_plank.edits.stock import offered
from tall_plank.files.userdata import Autosave, Preferences, Recovered, UserFolders
from tall_plank.job import Job, Kind
from tall_plank.job.start import shipped_templates
from tall_plank.measure import PlankError
from tall_plank.stock import shipped_stock

AUTOSAVE_MS = 3000


class Window(QMainWindow):
    """One job in a window."""

    def __init__(
        self,
        job: Job,
        folders: UserFolders,
        register: Callable[[Window], None],
        open_another: Callable[[Job], None],
    ) -> None:
        """
        Parameters
        ----------
        register : registers the commands of the window and fills its menus
        open_another : opens a window beside this one
        """
        super().__init__()
        self.open_another = open_another
        self.preferences = Preferences(folders)
        self.document = Document(job, folders)
        self.autosave = Autosave(folders)
        self.stage = "units"
        self.view_shown = "all"
        self._room_shown = job.rooms[0].id
        self.package_task: InThread | None = None
        self.standards_page: StandardsPage | None = None
        self.stock_page: StockPage | None = None
        self.setWindowIcon(QIcon(str(assets.ICONS / "tall-plank.svg")))
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self.commands = Commands(self)
        self.menus: dict[str, QMenu] = {}
        self.recent = QMenu(self)
        self._build()
        register(self)
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
        self.center = Center(doc, self.preferences)
        self.spec = SpecSheet(doc)
        self.spec.setMaximumWidth(560)
        self.lists = Listings(doc, self.center, self.spec)
        self.left = QStackedWidget()
        self.left.setMinimumWidth(150)
        self.left.setMaximumWidth(420)
        self.left.addWidget(self.shelf)
        self.left.addWidget(self.lists)
        c = self.center
        self.strip, self.lines, self.run_text = c.strip, c.lines, c.run_text
        self.plan, self.model, self.table, self.unit_page = c.plan, c.model, c.table, c.unit_page
        self.plans, self.boards, self.together, self.bars = c.plans, c.plans.boards, c.together, c.bars
        self.unit_lists, self.machine, self.rack = c.unit_lists, c.machine, c.rack
        self.unit_page.closed.connect(self.leave_unit)
        self.placer = Placer(doc, self.strip, self.shelf)
        self.tally = Tally(doc)
        middle = Panes(Qt.Orientation.Horizontal)
        for pane in (self.left, self.center, self.spec):
            middle.addWidget(pane)
        middle.setSizes([150, 868 - 2 * GRAB, 262])
        middle.setStretchFactor(1, 1)
        middle.let_close(self.left, 150)
        middle.let_close(self.spec, 262)
        whole = QWidget()
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        # Messages lie over the panes, and are none themselves.
        ground = QWidget()
        over = QVBoxLayout(ground)
        over.setContentsMargins(0, 0, 0, 0)
        over.addWidget(middle)
        column.addWidget(self.bar)
        column.addWidget(ground, 1)
        column.addWidget(self.tally)
        self.middle = middle
        self.setCentralWidget(whole)
        self.message = MessageLine(ground)
        self.spec.browse.connect(self.show_stock)
        self.bar.stage_chosen.connect(self.show_stage)
        self.shelf.used.connect(self.placer.use)
        self.tally.opened.connect(self.open_schedule)
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
            self.lists.refresh()
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
        for view in (self.strip, self.lines, self.plan, self.model, self.shelf, self.center.sums):
            view.refresh()

    def _selection_changed(self) -> None:
        self.message.dismiss()
        self.strip.show_selection()
        self.strip.refresh_selection()
        self.lines.refresh()
        self.center.sums.refresh()
        self.plan.refresh_selection()
        self.model.refresh_selection()
        self.spec.refresh()
        self.commands.refresh()
        # What is selected is said of every drawing that shows it.
        told = f"{self.spec.title.text()}, {self.spec.subtitle.text()}".strip(" ,")
        for view in (self.strip, self.lines, self.plan, self.model):
            view.setAccessibleDescription(told)

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
            self.lines.refresh()

    def keep_autosave(self) -> bool:
        """Write the job to the state folder; whether that could be done."""
        try:
            self.autosave.keep(self.document.job, self.document.path)
        except PlankError as error:
            self.message.tell(f"{tr('The work cannot be kept safe')}: {error}", "wrong")
            return False
        return True

    # --- stages

    def show_stage(self, stage: str) -> None:
        """Room, units, paneling, finish: the drawing; shop and offer: schedules and pages. The selection stays."""
        self.stage = stage
        self.bar.show_stage(stage)
        self.shelf.show_stage(stage)
        self.spec.stage = stage
        self.strip.stage = self.placer.stage = stage
        if stage in ("shop", "offer"):
            self.left.setCurrentWidget(self.lists)
            self.lists.show_stage(stage)
        else:
            self.left.setCurrentWidget(self.shelf)
            self.spec.show()
            self.center.setCurrentWidget(self.center.design)
            self.center.show_under_strip(stage)
            self._refresh_design()
        self.spec.refresh()
        self.commands.refresh()
        self.message.dismiss()
        widget = QApplication.focusWidget()
        if widget is None or not widget.isVisible() or not self.isAncestorOf(widget) or self.table.isAncestorOf(widget):
            self.center.main_view().setFocus()

    def open_schedule(self, code: str) -> None:
        """A figure of the tally was clicked."""
        stage = "offer" if code == "price" else "shop"
        self.lists.chosen[stage] = "plans" if code == "boards" else code
        self.show_stage(stage)

    def go_to_cell(self, cell: str) -> None:
        """Show a unit that a schedule speaks of."""
        self.show_stage("units")
        self.document.select((Kind.CELL.of(cell),))
        self.strip.setFocus()

    # --- views

    def show_view(self, name: str) -> None:
        """strip, plan, model or all."""
        if self.stage in ("shop", "offer"):
            self.show_stage("units")
        self.view_shown = name
        self.center.show_panes(name)

    # --- where the keys go

    def _beside_the_work(self) -> bool:
        """Whether the keys go to the shelf, the spec sheet or the bars."""
        widget = QApplication.focusWidget()
        return widget is not None and any(x.isAncestorOf(widget) for x in (self.spec, self.left, self.bar, self.tally))

    def next_pane(self, by: int) -> None:
        """The keys go to the next pane: shelf, drawing or table, plan, model, spec sheet."""
        panes: list[QWidget] = [self.shelf.search if self.left.currentWidget() is self.shelf else self.lists]
        panes += self.center.drawings() or [self.center.main_view()]
        first = next((x.value for x in self.spec.lines.values() if x.row.apply is not None), None)
        panes += [first] if first is not None else []
        widget = QApplication.focusWidget()
        holders: dict[int, QWidget] = {id(panes[0]): self.left, id(first): self.spec}
        at = next(
            (
                i
                for i, p in enumerate(panes)
                if widget is p or (widget is not None and id(p) in holders and holders[id(p)].isAncestorOf(widget))
            ),
            0,
        )
        panes[(at + by) % len(panes)].setFocus()

    def look_into(self) -> None:
        """The selected unit by itself: its parts, their machining, its model taken apart."""
        if self.stage in ("shop", "offer"):
            self.show_stage("units")
        self.center.setCurrentWidget(self.unit_page)
        self.unit_page.show_cell(self.document.cells[0])

    def leave_unit(self) -> None:
        """Back from the unit to the room."""
        if self.center.currentWidget() is self.unit_page:
            self.center.setCurrentWidget(self.center.design)
            self.strip.setFocus()

    # --- what commands and views ask for

    def place_on_wall(self, code: str, wall_id: str, x: float, z: float | None = None) -> None:
        """Something was dropped on a wall, mm from its left end and above the floor."""
        self.placer.place(code, wall_id, x, z=z)
        self.strip.setFocus()

    def place_on_plan(self, code: str, line: str, x: float, at: tuple[float, float]) -> None:
        """Something was dropped on the plan: on its nearest line, or on the floor."""
        self.placer.place(code, line, x, at=at)
        self.plan.setFocus()

    def open_line(
        self, head: str, text: str, example: str, hint: str, edit: Callable[[str], PlankError | None]
    ) -> None:
        """The line under the strip, for a text that takes its width."""
        if self.stage in ("shop", "offer"):
            self.show_stage("units")
        if not self.center.top_pane.isVisible():
            self.show_view("all")
        self.run_text.ask_line(head, text, example, hint, edit)

    def chosen_island(self) -> str:
        """The selected island, or the one that what is selected stands on; empty where there is none."""
        found = self.document.ids(Kind.ISLAND)
        return found[0] if found else self.document.room.wall(self.strip.current_wall()).island

    def show_standards(self) -> None:
        """The page of shop standards, beside the window."""
        if self.standards_page is None:
            self.standards_page = StandardsPage(self, self.document)
        self.standards_page.show()
        self.standards_page.raise_()
        self.standards_page.activateWindow()

    def show_stock(self, group: str = "") -> None:
        """The page of stock, beside the window; at one heading where one is given."""
        if self.stock_page is None:
            self.stock_page = StockPage(self, self.document)
        if group:
            self.stock_page.show_group(group)
        self.stock_page.show()
        self.stock_page.raise_()
        self.stock_page.activateWindow()
        self.stock_page.search.setFocus()

    def type_run(self, run_id: str) -> None:
        """Open the run as text."""
        _, run = self.document.job.find_run(run_id)
        self.run_text.open_for(run.wall, run.level)

    # --- files

    def load(self, job: Job, path: Path | None, *, saved: bool = True) -> None:
        """Show another job in this window."""
        self.document.load(job, path, saved=saved)
        self.center.fit()
        self.setWindowModified(not saved)

    def open_path(self, path: Path) -> bool:
        """Open a file; a message and the old job stay where that fails."""
        try:
            self.document.open(path)
        except PlankError as error:
            self.message.tell(str(error), "wrong")
            return False
        self.center.fit()
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
        answer = asking.ask_unsaved(self, self.document.job.name)
        if answer == "save":
            self.commands.run("save")
            return self.document.history.is_saved
        return answer == "discard"

    def preview_png(self) -> bytes:
        """A small picture for the job file."""
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        self.strip.grab().scaledToWidth(480, Qt.TransformationMode.SmoothTransformation).save(buffer, "PNG")
        return buffer.data().data()

    def tell_at_start(self, notes: Sequence[str], found: list[Recovered]) -> None:
        """What was found when the program started: what is broken or cannot be kept, then work that was left behind."""
        if not notes:
            self.offer_recovery(found)
            return
        self.message.ask(" ".join(notes), {tr("I know"): lambda: self.offer_recovery(found)})

    def offer_recovery(self, found: list[Recovered]) -> None:
        """Work that earlier programs left behind: one is asked for, several stand in a list."""
        if not found:
            return
        if len(found) > 1:
            told = f"{len(found)} {tr('pieces of work were not saved when their programs ended.')}"
            self.message.ask(told, {tr("Show them"): lambda: self.show_left(found), tr("Later"): lambda: None})
            return
        first = found[0]
        name, *rest = about(first)

        def take() -> None:
            if not self.take_up(first):
                self.offer_recovery(found)

        told = f"{tr('Work on')} “{name}” ({', '.join(rest)}) {tr('was not saved when the program ended.')}"
        answers = {tr("Take it up"): take, tr("Let it go"): first.let_go, tr("Later"): lambda: None}
        self.message.ask(told, answers)

    def show_left(self, found: list[Recovered] | None = None) -> None:
        """The list of work that was left behind."""
        found = Autosave.left_behind(self.document.folders) if found is None else found
        if not found:
            self.message.tell(tr("No work was left behind."))
            return
        self.left_list = RecoveryList(self, found, self.take_up)
        self.left_list.open()

    def take_up(self, piece: Recovered) -> bool:
        """Open work that was left behind. What is open and changed is asked for, as for any opening; False where that
        stays."""
        if not self.may_leave():
            return False
        self.load(piece.job, None, saved=False)
        self.document.told.emit(tr("This is the work as it was last kept. Save it under the name you want."), "note")
        if self.keep_autosave():
            piece.let_go()
        return True

    def hand_keys_back(self) -> None:
        """What was typed in a box stands: the keys are for the drawing or the table again."""
        self.center.main_view().setFocus()

    # --- events

    def restyle(self) -> None:
        """The look changed."""
        self.center.restyle()
        self.tally.restyle()
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
            self.center.main_view().setFocus()
        elif event.key() == Qt.Key.Key_Escape:
            if self.document.chosen:
                self.document.let_go_of_bays()
            else:
                self.commands.run("bay_leave" if self.document.bay is not None else "select_none")
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.message.place()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None:
            droppedfiles.dragged_in(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None:
            droppedfiles.dropped(self, event)

    def closeEvent(self, event: QCloseEvent | None) -> None:
        assert event is not None
        if not self.may_leave():
            event.ignore()
            return
        keep_place(self)
        self.lists.close_view()
        if self.package_task is not None:
            # What is written so far stays; the file in work is finished.
            self.package_task.stop()
            self.package_task.wait()
        self._autosave_timer.stop()
        self.autosave.put_away()
        self.document.release()
        self.center.close_views()
        self.shelf.close_view()
        event.accept()
