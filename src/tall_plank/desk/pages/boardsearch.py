"""A page that searches for cutting plans: boards below, figures and the search above; better plans as they come, Stop.

What is asked and what is done with the answer is for the pages that grow from it.
"""

from __future__ import annotations

from abc import abstractmethod
from collections import Counter
from collections.abc import Sequence

from PyQt6.QtCore import QElapsedTimer, QTimer
from PyQt6.QtWidgets import QCheckBox, QComboBox, QLabel, QPushButton, QVBoxLayout, QWidget

from tall_plank.desk.look.rows import WrappingRow
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.search_process import Planner
from tall_plank.desk.views.boards import BoardsView
from tall_plank.files.rack import Rack, RackPiece
from tall_plank.job import Job
from tall_plank.measure import PlankError
from tall_plank.shop.boards import Plan
from tall_plank.shop.nesting import NestBoard, NestPlan, Request
from tall_plank.shop.nesting.job import offcut_boards
from tall_plank.shop.sawsteps import Pack, packs_of
from tall_plank.stock import Stock


def booked_by(job: Job) -> str:
    """The name under which a job books on the rack."""
    return f"{job.number} {job.name}".strip()


class BoardSearch(QWidget):
    """The search and what it shows."""

    def __init__(self, document: Document, rack: Rack, title: str) -> None:
        super().__init__()
        self.setObjectName("pane")
        self.document = document
        self.planner = Planner(self)
        self.found: NestPlan | None = None
        self._asked: Request | None = None
        self.rack = rack
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        line = WrappingRow()
        line.setContentsMargins(18, 12, 14, 2)
        line.setSpacing(6)
        self.title = QLabel(title)
        self.title.setObjectName("specTitle")
        self.figures = QLabel()
        self.figures.setObjectName("specSub")
        self.figures.setMinimumWidth(60)
        self.search = QPushButton(tr("Plan the boards"))
        self.search.clicked.connect(self.start)
        self.stop = QPushButton(tr("Stop"))
        self.stop.clicked.connect(self.planner.stop)
        line.addWidget(self.title)
        line.addStretch(1)
        self.material = QComboBox()
        self.material.setAccessibleName(tr("Material shown"))
        self.material.activated.connect(lambda _: self._draw())
        self.from_rack = QCheckBox(tr("Offcuts first"))
        self.from_rack.setChecked(True)
        for widget in (self.material, self.from_rack, self.search, self.stop):
            line.addWidget(widget)
        self.line = line
        column.addLayout(line)
        self.figures.setContentsMargins(18, 0, 14, 6)
        column.addWidget(self.figures)
        self.boards = BoardsView()
        self.boards.setAccessibleName(tr("Boards"))
        column.addWidget(self.boards, 1)
        self.note = QLabel()
        self.note.setObjectName("specNote")
        self.note.setWordWrap(True)
        self.note.setContentsMargins(18, 2, 14, 6)
        column.addWidget(self.note)
        self.column = column
        self._clock = QElapsedTimer()
        self._tick = QTimer(self)
        self._tick.setInterval(200)
        self._tick.timeout.connect(self._figures)
        self.planner.told.connect(self._show)
        self.planner.ended.connect(self._ended)
        self.planner.failed.connect(self._failed)

    # --- for the pages that grow from it

    @abstractmethod
    def request(self) -> Request:
        """What is asked of the saw now.

        Raises
        ------
        PlankError where it cannot be asked
        """

    @abstractmethod
    def plan_shown(self) -> Plan | None:
        """The plan on screen: what was found, or what there is without a search."""

    @abstractmethod
    def state(self) -> str:
        """Where the plan on screen stands, in words."""

    @abstractmethod
    def books_as(self) -> str:
        """The name under which this page books on the rack."""

    def refresh_acts(self) -> None:
        """Buttons that follow the state."""

    # --- the search

    def offcuts(self, stock: Stock) -> tuple[NestBoard, ...]:
        """Offcuts that may be cut, as boards; none where they are not wanted first."""
        if not self.from_rack.isChecked():
            return ()
        pieces: tuple[RackPiece, ...] = ()
        try:
            pieces = self.rack.free_for(self.books_as())
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")
        return offcut_boards(stock, [(p.id, p.board, p.length, p.width) for p in pieces])

    def start(self) -> None:
        """Search for a better plan beside the window."""
        try:
            asked = self.request()
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")
            return
        self._asked = asked
        self.found = None
        self._clock.start()
        self._tick.start()
        self.planner.ask(asked)
        self._figures()

    def set_aside(self) -> None:
        """The answer is no longer wanted."""
        self.planner.stop()
        self.found, self._asked = None, None

    def cut_on_rack(
        self, made_from: str, boards: Sequence[tuple[str, int]], left: Sequence[tuple[str, float, float]]
    ) -> None:
        """Boards were cut: offcuts and whole boards leave the rack, what is left goes on it, and that is told.

        Parameters
        ----------
        made_from : hash of what the plan was made from; with the offcuts that it cuts it says which plan this is
        boards : code of each board, and its number where it is an offcut, else 0
        left : code, length and width (mm) of each piece that is worth keeping
        """
        used = tuple(rack for _, rack in boards if rack)
        wholes = Counter(code for code, rack in boards if not rack)
        which = f"{self.books_as()} {made_from} {','.join(map(str, used))}"
        tenths = [(code, round(long, 1), round(wide, 1)) for code, long, wide in left]
        try:
            new = self.rack.cut(self.books_as(), which, used, wholes, tenths)
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")
            return
        said = f"{len(used)} {tr('offcuts used')}, {len(new)} {tr('new ones on the rack')}"
        self.document.told.emit(f"{said}. {tr('The rack’s own history takes it back.')}", "note")

    def close_page(self) -> None:
        """The window closes: the search ends."""
        self._tick.stop()
        self.planner.close()

    def _show(self, plan: NestPlan) -> None:
        if self._asked is None:
            return  # what was asked has changed since
        self.found = plan
        self._draw()

    def _ended(self, plan: NestPlan) -> None:
        self._tick.stop()
        self._show(plan)

    def _failed(self, why: str) -> None:
        self._tick.stop()
        self._draw()
        self.note.setText(f"{tr('The search ended without a plan; the one before it stands.')} ({why})")

    def packs(self, plan: Plan) -> tuple[Pack, ...]:
        """The boards of a plan that are sawn in packs; none where the job's saw takes one at a time."""
        job = self.document.job
        return packs_of(plan, job.cutting, job.stock) if job.cutting.pack > 0 else ()

    def _draw(self) -> None:
        plan = self.plan_shown()
        names = sorted({b.material for b in plan.boards}) if plan is not None else []
        chosen = str(self.material.currentData() or "")
        if [self.material.itemData(i) for i in range(self.material.count())] != ["", *names]:
            self.material.clear()
            self.material.addItem(tr("All materials"), "")
            for name in names:
                self.material.addItem(name, name)
            self.material.setCurrentIndex(max(0, self.material.findData(chosen)))
        shown = plan or Plan((), (), 0.0, 0.0)
        packs = self.packs(shown)
        self.boards.show_plan(shown, str(self.material.currentData() or ""), packs, self.document.job.display)
        self._figures()

    def _figures(self) -> None:
        busy = self.planner.busy
        self.stop.setVisible(busy)
        self.search.setVisible(not busy)
        self.refresh_acts()
        plan = self.boards.plan
        if plan is None:
            return
        old = len(plan.boards) - plan.new
        told = [f"{plan.new} {tr('boards')}"] + ([f"{old} {tr('offcuts')}"] if old else [])
        told.append(f"{plan.used * 100:.1f} % {tr('used')}")
        if not plan.boards:
            told = []
        lost = [*plan.unplaced]
        if self.found is not None:
            told.append(f"{tr('no plan needs fewer than')} {self.found.bound}")
            lost = [f"{u.part}: {u.why}" for u in self.found.unplaced]
        told.append(f"{tr('searching')}, {self._clock.elapsed() / 1000:.0f} s" if busy else self.state())
        self.figures.setText(" · ".join(t for t in told if t))
        self.note.setText(f"{tr('Not placed')}: {'; '.join(lost[:6])}" if lost else "")
