"""The page of cutting plans: boards with what lies on them, a search that betters them while it runs, Stop, Keep."""

from __future__ import annotations

from PyQt6.QtWidgets import QPushButton

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.pages.boardsearch import BoardSearch, booked_by
from tall_plank.edits import cutting
from tall_plank.files.rack import SHORT, Rack
from tall_plank.job import Job
from tall_plank.measure import PlankError
from tall_plank.shop.boards import Plan, plan_from
from tall_plank.shop.nesting import Request
from tall_plank.shop.nesting.job import request_of
from tall_plank.shop.nesting.kept import fingerprint, kept, rules_of


class PlansPage(BoardSearch):
    """The plan of the job: searched for, kept in it, cut."""

    def __init__(self, document: Document) -> None:
        super().__init__(document, Rack(document.folders.rack, SHORT), tr("Cutting plans"))
        self._history, self._booked = document.history, _on_rack(document.job)
        document.changed.connect(self._book)
        self.keep = QPushButton(tr("Keep this plan"))
        self.keep.clicked.connect(self.keep_found)
        self.cut = QPushButton(tr("Boards are cut"))
        self.cut.setToolTip(tr("Offcuts and boards of the kept plan leave the rack; what is left of them goes on it."))
        self.cut.clicked.connect(self.book_cut)
        self.line.addWidget(self.keep)
        self.line.addWidget(self.cut)

    def books_as(self) -> str:
        return booked_by(self.document.job)

    def request(self) -> Request:
        w = self.document.workings
        saw = w.job.cutting
        offcuts = self.offcuts(w.job.stock)
        return request_of(w.made, w.job.stock, w.job.price_book(), rules_of(saw, w.kerf), offcuts, saw.matched)

    def refresh(self) -> None:
        """Show the plan of the job as it is now; one that was searched for another state of it is put aside."""
        if self._asked is not None and fingerprint(self.request()) != fingerprint(self._asked):
            self.set_aside()
        self._draw()

    def keep_found(self) -> None:
        """Keep what was found in the job, as one step."""
        if self.found is not None and self._asked is not None:
            plan = kept(self.found, self._asked)
            if plan.rack != self._booked and not self.document.read_only:
                try:
                    self.rack.book(self.books_as(), plan.rack)
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
        left = [(b.board, o[2], o[3]) for b in plan.boards for o in b.offcuts]
        self.cut_on_rack(plan.made_from, [(b.board, b.rack) for b in plan.boards], left)

    def _book(self) -> None:
        """What the job has booked follows its kept plan: after undo and redo too, never by opening a file."""
        wanted = _on_rack(self.document.job)
        if self._history is not self.document.history:
            self._history, self._booked = self.document.history, wanted
        if wanted == self._booked or self.document.read_only:
            return
        self._booked = wanted
        try:
            self.rack.book(self.books_as(), wanted)
        except PlankError as error:
            self.document.told.emit(str(error), "wrong")

    def plan_shown(self) -> Plan:
        w = self.document.workings
        if self.found is not None:
            return plan_from(self.found, w.job.stock, w.kerf, w.job.cutting.trim)
        return w.plan

    def refresh_acts(self) -> None:
        w, busy = self.document.workings, self.planner.busy
        self.keep.setEnabled(self.found is not None and not busy)
        self.cut.setVisible(w.plan_is_kept and self.found is None and not busy)

    def state(self) -> str:
        w = self.document.workings
        if self.found is not None:
            return tr("found, not kept yet") if self.found.done else tr("stopped, not kept yet")
        if w.plan_is_kept:
            return tr("kept")
        told = tr("a first plan") if w.job.kept_plan is None else tr("the kept plan no longer fits the job")
        if w.job.cutting.matched != "no":
            told = f"{told} · {tr('its fronts are not matched: plan the boards')}"
        return told


def _on_rack(job: Job) -> tuple[int, ...]:
    return job.kept_plan.rack if job.kept_plan is not None else ()
