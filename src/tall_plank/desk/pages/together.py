"""The page of jobs that are cut together: which they are, their one plan, its papers in a folder, booked when cut."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout

from tall_plank.desk.look import asking
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread, Tell
from tall_plank.desk.pages.boardsearch import BoardSearch
from tall_plank.files.rack import Rack
from tall_plank.files.userdata import Preferences
from tall_plank.measure import PlankError
from tall_plank.shop.boards import Plan
from tall_plank.shop.nesting import Request
from tall_plank.shop.nesting.job import board_and_rack
from tall_plank.shop.nesting.kept import fingerprint
from tall_plank.together import Together, read_jobs
from tall_plank.workings import Workings


class TogetherPage(BoardSearch):
    """This window's job first, then others from their files; those are read anew for every search."""

    def __init__(self, document: Document, rack: Rack, preferences: Preferences) -> None:
        super().__init__(document, rack, tr("Jobs together"))
        self.preferences = preferences
        self.others: list[Path] = [Path(p) for p in preferences.get("together", []) if isinstance(p, str)]
        self.together: Together | None = None
        self._task: InThread | None = None
        self.write = QPushButton(tr("Write the plan…"))
        self.write.clicked.connect(self.write_plan)
        self.cut = QPushButton(tr("Boards are cut"))
        self.cut.setToolTip(tr("Offcuts and boards of this plan leave the rack; what is left of them goes on it."))
        self.cut.clicked.connect(self.book_cut)
        self.line.addWidget(self.write)
        self.line.addWidget(self.cut)
        row = QHBoxLayout()
        row.setContentsMargins(18, 0, 14, 6)
        row.setSpacing(6)
        self.jobs = QListWidget()
        self.jobs.setAccessibleName(tr("Jobs that are cut together"))
        self.jobs.setObjectName("listing")
        self.jobs.setFixedHeight(84)
        row.addWidget(self.jobs, 1)
        acts = QVBoxLayout()
        acts.setSpacing(6)
        self.add = QPushButton(tr("Add jobs…"))
        self.add.clicked.connect(self.add_jobs)
        self.out = QPushButton(tr("Take out"))
        self.out.clicked.connect(self.take_out)
        for button in (self.add, self.out):
            acts.addWidget(button)
        acts.addStretch(1)
        row.addLayout(acts)
        self.column.insertLayout(2, row)
        self.jobs.currentRowChanged.connect(lambda _: self.refresh_acts())

    # --- the jobs

    def add_jobs(self) -> None:
        """Job files to cut with this one."""
        beside = self.document.path.parent if self.document.path else Path.home()
        here = self.document.path.resolve() if self.document.path else None
        for path in asking.ask_read_many(self, tr("Jobs to cut with this one"), beside, asking.JOB_FILTER):
            if path.resolve() == here or path in self.others:
                continue
            try:
                read_jobs([path])
            except PlankError as error:
                self.document.told.emit(str(error), "wrong")
                continue
            self.others.append(path)
        self._changed()

    def take_out(self) -> None:
        """The chosen job is cut by itself."""
        row = self.jobs.currentRow() - 1
        if 0 <= row < len(self.others):
            del self.others[row]
            self._changed()

    def _changed(self) -> None:
        self.preferences.set("together", [str(p) for p in self.others])
        self.set_aside()
        self.together = None
        self.refresh()

    # --- the plan

    def books_as(self) -> str:
        return self.together.title if self.together is not None else ""

    def request(self) -> Request:
        self.together = Together([self.document.workings, *read_jobs(self.others)])
        return self.together.request(self.offcuts(self.together.stock))

    def refresh(self) -> None:
        """Show the jobs; a plan for another state of this one is put aside."""
        if self._asked is not None and self.together is not None:
            now = Together([self.document.workings, *self.together.jobs[1:]])
            try:
                same = fingerprint(now.request()) == fingerprint(self._asked)
            except PlankError:
                same = False
            if not same:
                self.set_aside()
                self.together = None
        chosen = self.jobs.currentRow()
        self.jobs.clear()
        job = self.document.job
        own = f"{job.number} {job.name}".strip()
        self.jobs.addItem(QListWidgetItem(f"{own} · {tr('this job; its rules for the saw hold')}"))
        for path in self.others:
            item = QListWidgetItem(path.name if path.exists() else f"{path.name} · {tr('the file is gone')}")
            item.setToolTip(str(path))
            self.jobs.addItem(item)
        self.jobs.setCurrentRow(min(max(chosen, 0), self.jobs.count() - 1))
        self._draw()

    def plan_shown(self) -> Plan | None:
        if self.found is None or self.together is None:
            return None
        return self.together.plan(self.found)

    def refresh_acts(self) -> None:
        ready = self.found is not None and not self.planner.busy
        self.write.setText(tr("Stop writing") if self._task is not None else tr("Write the plan…"))
        self.write.setEnabled(ready or self._task is not None)
        self.cut.setEnabled(ready)
        self.out.setEnabled(self.jobs.currentRow() > 0)
        self.search.setEnabled(bool(self.others))

    def state(self) -> str:
        if self.found is not None:
            return tr("found") if self.found.done else tr("stopped")
        return tr("add the jobs that are cut with this one") if not self.others else tr("not planned yet")

    def write_plan(self) -> None:
        """Its papers into a folder; its offcuts are booked. While they are written, stop."""
        if self._task is not None:
            self._task.stop()
            return
        if self.found is None or self.together is None:
            return
        beside = self.document.path.parent if self.document.path else Path.home()
        folder = asking.ask_folder(self, tr("Folder for the plan"), beside)
        if folder is None:
            return
        try:
            self.rack.book(self.books_as(), self._used())
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")
            return
        jobs = tuple(w.job for w in self.together.jobs)
        plan, machines = self.found, self.document.machines
        together = Together([Workings(job, machines) for job in jobs])

        def work(tell: Tell) -> int:
            return len(together.write(plan, folder, tell, date.today().isoformat()))

        self._task = InThread(work, self)
        self._task.ended.connect(lambda count: self._written(f"{count} {tr('files written into')} {folder.name}"))
        self._task.failed.connect(lambda why: self._written(why, "wrong"))
        self._task.told.connect(lambda name: self.document.told.emit(f"{tr('Writing')} {name}", "note"))
        self._task.start()
        self.refresh_acts()

    def _written(self, said: str, level: str = "note") -> None:
        self._task = None
        self.document.told.emit(said, level)
        self.refresh_acts()

    def _used(self) -> tuple[int, ...]:
        assert self.found is not None
        return tuple(rack for b in self.found.boards if (rack := board_and_rack(b.board)[1]))

    def book_cut(self) -> None:
        """The plan was cut: its boards leave the rack and the stock, its offcuts go on the rack."""
        if self.found is None or self._asked is None:
            return
        boards = [board_and_rack(b.board) for b in self.found.boards]
        named = zip(boards, self.found.boards, strict=True)
        left = [(code, o[2], o[3]) for (code, _), b in named for o in b.offcuts]
        self.cut_on_rack(fingerprint(self._asked), boards, left)

    def close_page(self) -> None:
        super().close_page()
        if self._task is not None:
            # What is written so far stays; the file in work is finished.
            self._task.stop()
            self._task.wait()
