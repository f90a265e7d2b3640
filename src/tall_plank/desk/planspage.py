"""The page of cutting plans: boards with what lies on them, a search that betters them while it runs, Stop, Keep."""

from __future__ import annotations

from PyQt6.QtCore import QElapsedTimer, QTimer
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from tall_plank.desk.boardsview import BoardsView
from tall_plank.desk.document import Document
from tall_plank.desk.planner import Planner
from tall_plank.desk.texts import tr
from tall_plank.edits import cutting
from tall_plank.shop.boards import plan_from
from tall_plank.shop.nesting import NestPlan, Request
from tall_plank.shop.nesting.job import request_of
from tall_plank.shop.nesting.kept import fingerprint, kept, rules_of


class PlansPage(QWidget):
    """Boards below, the search above them."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.document = document
        self.planner = Planner(self)
        self.found: NestPlan | None = None
        self._asked: Request | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        line = QHBoxLayout()
        line.setContentsMargins(18, 12, 14, 6)
        self.title = QLabel(tr("Cutting plans"))
        self.title.setObjectName("specTitle")
        self.figures = QLabel()
        self.figures.setObjectName("specSub")
        self.search = QPushButton(tr("Plan the boards"))
        self.search.clicked.connect(self.start)
        self.stop = QPushButton(tr("Stop"))
        self.stop.clicked.connect(self.planner.stop)
        self.keep = QPushButton(tr("Keep this plan"))
        self.keep.clicked.connect(self.keep_found)
        line.addWidget(self.title)
        line.addSpacing(10)
        line.addWidget(self.figures, 1)
        self.material = QComboBox()
        self.material.setAccessibleName(tr("Material shown"))
        self.material.activated.connect(lambda _: self._draw())
        for widget in (self.material, self.search, self.stop, self.keep):
            line.addWidget(widget)
        column.addLayout(line)
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
        return request_of(w.made, w.job.stock, w.job.price_book(), rules_of(w.job.cutting))

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
            self.found = None
            self.document.do(lambda job: cutting.keep_plan(job, plan))

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
        plan = self.boards.plan
        if plan is None:
            return
        told = [f"{len(plan.boards)} {tr('boards')}", f"{plan.used * 100:.1f} % {tr('used')}"]
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
        self.figures.setText(" · ".join(told))
        self.note.setText(f"{tr('Not placed')}: {'; '.join(lost[:6])}" if lost else "")
