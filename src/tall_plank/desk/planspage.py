"""The page of cutting plans: boards with what lies on them, a search that betters them while it runs, Stop, Keep."""

from __future__ import annotations

from PyQt6.QtCore import QElapsedTimer, QTimer
from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from tall_plank.desk.boardsview import BoardsView
from tall_plank.desk.document import Document
from tall_plank.desk.planner import Planner
from tall_plank.desk.texts import tr
from tall_plank.edits import cutting
from tall_plank.files.rack import Rack
from tall_plank.job import Job
from tall_plank.measure import PlankError
from tall_plank.shop.boards import plan_from
from tall_plank.shop.nesting import NestPlan, Request
from tall_plank.shop.nesting.job import offcut_boards, request_of
from tall_plank.shop.nesting.kept import fingerprint, kept, rules_of


def booked_by(job: Job) -> str:
    """The name under which a job books on the rack."""
    return f"{job.number} {job.name}".strip()


class PlansPage(QWidget):
    """Boards below, the search above them."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.document = document
        self.planner = Planner(self)
        self.found: NestPlan | None = None
        self._asked: Request | None = None
        self.rack = Rack(document.folders.rack)
        self._history, self._booked = document.history, _on_rack(document.job)
        document.changed.connect(self._book)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        line = QHBoxLayout()
        line.setContentsMargins(18, 12, 14, 2)
        line.setSpacing(6)
        self.title = QLabel(tr("Cutting plans"))
        self.title.setObjectName("specTitle")
        self.figures = QLabel()
        self.figures.setObjectName("specSub")
        self.figures.setMinimumWidth(60)
        self.search = QPushButton(tr("Plan the boards"))
        self.search.clicked.connect(self.start)
        self.stop = QPushButton(tr("Stop"))
        self.stop.clicked.connect(self.planner.stop)
        self.keep = QPushButton(tr("Keep this plan"))
        self.keep.clicked.connect(self.keep_found)
        line.addWidget(self.title)
        line.addStretch(1)
        self.material = QComboBox()
        self.material.setAccessibleName(tr("Material shown"))
        self.material.activated.connect(lambda _: self._draw())
        self.from_rack = QCheckBox(tr("Offcuts first"))
        self.from_rack.setChecked(True)
        self.cut = QPushButton(tr("Boards are cut"))
        self.cut.setToolTip(tr("Offcuts and boards of the kept plan leave the rack; what is left of them goes on it."))
        self.cut.clicked.connect(self.book_cut)
        for widget in (self.material, self.from_rack, self.search, self.stop, self.keep, self.cut):
            line.addWidget(widget)
        column.addLayout(line)
        self.figures.setContentsMargins(18, 0, 14, 6)
        column.addWidget(self.figures)
        self.boards = BoardsView()
        column.addWidget(self.boards, 1)
        self.note = QLabel()
        self.note.setObjectName("specNote")
        self.note.setWordWrap(True)
        self.note.setContentsMargins(18, 2, 14, 6)
        column.addWidget(self.note)
        self._clock = QElapsedTimer()
        self._tick = QTimer(self)
        self._tick.setInterval(200)
        self._tick.timeout.connect(self._figures)
        self.planner.better.connect(lambda plan: self._show(plan))
        self.planner.ended.connect(self._ended)
        self.planner.failed.connect(self._failed)

    def request(self) -> Request:
        """What the job asks of the saw now."""
        w = self.document.workings
        offcuts = ()
        if self.from_rack.isChecked():
            pieces = self._free()
            offcuts = offcut_boards(w.job.stock, [(p.id, p.board, p.length, p.width) for p in pieces])
        saw = w.job.cutting
        return request_of(w.made, w.job.stock, w.job.price_book(), rules_of(saw), offcuts, saw.matched)

    def refresh(self) -> None:
        """Show the plan of the job as it is now; one that was searched for another state of it is put aside."""
        if self._asked is not None and fingerprint(self.request()) != fingerprint(self._asked):
            self.planner.stop()
            self.found, self._asked = None, None
        self._draw()

    def start(self) -> None:
        """Search for a better plan beside the window."""
        self._asked = self.request()
        self.found = None
        self._clock.start()
        self._tick.start()
        self.planner.ask(self._asked)
        self._figures()

    def keep_found(self) -> None:
        """Keep what was found in the job, as one step."""
        if self.found is not None and self._asked is not None:
            plan = kept(self.found, self._asked)
            if plan.rack != self._booked and not self.document.read_only:
                try:
                    self.rack.book(booked_by(self.document.job), plan.rack)
                except PlankError as error:
                    self.document.told.emit(str(error), "wrong")
                    return
                self._booked = plan.rack
            self.found = None
            self.document.do(lambda job: cutting.keep_plan(job, plan))

    def book_cut(self) -> None:
        """The kept plan was cut: its boards leave the rack and the stock, its offcuts go on the rack."""
        w = self.document.workings
        plan = w.job.kept_plan
        if plan is None or not w.plan_is_kept:
            return
        wholes: dict[str, int] = {}
        for b in plan.boards:
            if not b.rack:
                wholes[b.board] = wholes.get(b.board, 0) + 1
        left = [(b.board, round(o[2], 1), round(o[3], 1)) for b in plan.boards for o in b.offcuts]
        # The same job cut from other boards is another plan.
        made_from = f"{booked_by(w.job)} {plan.made_from} {','.join(map(str, plan.rack))}"
        try:
            new = self.rack.cut(booked_by(w.job), made_from, plan.rack, wholes, left)
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")
            return
        said = f"{len(plan.rack)} {tr('offcuts used')}, {len(new)} {tr('new ones on the rack')}"
        self.document.told.emit(f"{said}. {tr('The rack’s own history takes it back.')}", "note")

    def _free(self):  # type: ignore[no-untyped-def]
        try:
            return self.rack.free_for(booked_by(self.document.job))
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")
            return ()

    def _book(self) -> None:
        """What the job has booked follows its kept plan: after undo and redo too, never by opening a file."""
        wanted = _on_rack(self.document.job)
        if self._history is not self.document.history:
            self._history, self._booked = self.document.history, wanted
        if wanted == self._booked or self.document.read_only:
            return
        self._booked = wanted
        try:
            self.rack.book(booked_by(self.document.job), wanted)
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")

    def close_page(self) -> None:
        """The window closes: the search ends."""
        self._tick.stop()
        self.planner.close()

    def _show(self, plan: NestPlan) -> None:
        if self._asked is None:
            return  # the job has changed since
        self.found = plan
        self._draw()

    def _ended(self, plan: NestPlan) -> None:
        self._tick.stop()
        self._show(plan)

    def _failed(self, why: str) -> None:
        self._tick.stop()
        self._draw()
        self.note.setText(f"{tr('The search failed; the plan before it stands.')} ({why})")

    def _draw(self) -> None:
        w = self.document.workings
        plan = w.plan
        if self.found is not None:
            plan = plan_from(self.found, w.job.stock, w.job.cutting.kerf, w.job.cutting.trim)
        names = sorted({b.name for b in plan.boards})
        chosen = str(self.material.currentData() or "")
        if [self.material.itemData(i) for i in range(self.material.count())] != ["", *names]:
            self.material.clear()
            self.material.addItem(tr("All materials"), "")
            for name in names:
                self.material.addItem(name, name)
            self.material.setCurrentIndex(max(0, self.material.findData(chosen)))
        self.boards.show_plan(plan, str(self.material.currentData() or ""))
        self._figures()

    def _figures(self) -> None:
        w, busy = self.document.workings, self.planner.busy
        self.stop.setVisible(busy)
        self.search.setVisible(not busy)
        self.keep.setEnabled(self.found is not None and not busy)
        self.cut.setVisible(w.plan_is_kept and self.found is None and not busy)
        plan = self.boards.plan
        if plan is None:
            return
        old = len(plan.boards) - plan.new
        told = [f"{plan.new} {tr('boards')}"] + ([f"{old} {tr('offcuts')}"] if old else [])
        told.append(f"{plan.used * 100:.1f} % {tr('used')}")
        lost = [*plan.unplaced]
        if self.found is not None:
            told.append(f"{tr('no plan needs fewer than')} {self.found.bound}")
            lost = [f"{u.part}: {u.why}" for u in self.found.unplaced]
        if busy:
            told.append(f"{tr('searching')}, {self._clock.elapsed() / 1000:.0f} s")
        elif self.found is not None:
            told.append(tr("found, not kept yet") if self.found.done else tr("stopped, not kept yet"))
        elif w.plan_is_kept:
            told.append(tr("kept"))
        elif w.job.kept_plan is not None:
            told.append(tr("the kept plan no longer fits the job"))
        else:
            told.append(tr("a first plan"))
        if self.found is None and not w.plan_is_kept and w.job.cutting.matched != "no":
            told.append(tr("its fronts are not matched: plan the boards"))
        self.figures.setText(" · ".join(told))
        self.note.setText(f"{tr('Not placed')}: {'; '.join(lost[:6])}" if lost else "")


def _on_rack(job: Job) -> tuple[int, ...]:
    return job.kept_plan.rack if job.kept_plan is not None else ()
