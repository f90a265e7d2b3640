"""The middle of the window: the drawings of a room, or a page of the shop and the offer, one at a time."""

from __future__ import annotations

from typing import Protocol

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QLabel, QStackedWidget, QVBoxLayout, QWidget

from tall_plank.desk.look.panes import Panes
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.pages.bars import BarsPage
from tall_plank.desk.pages.machine import MachinePage
from tall_plank.desk.pages.plans import PlansPage
from tall_plank.desk.pages.rack import RackPage
from tall_plank.desk.pages.sets import SetPage
from tall_plank.desk.pages.together import TogetherPage
from tall_plank.desk.pages.unit import UnitPage
from tall_plank.desk.pages.unitlists import UnitListPage
from tall_plank.desk.views.canvas import Canvas
from tall_plank.desk.views.modelview import ModelView
from tall_plank.desk.views.plan import PlanView
from tall_plank.desk.views.runlines import RunLines
from tall_plank.desk.views.runtextbar import RunTextBar
from tall_plank.desk.views.strip import Strip
from tall_plank.desk.views.sumline import SumLine
from tall_plank.desk.views.tables import TablePane
from tall_plank.files.userdata import Preferences
from tall_plank.papers.sets import KINDS


class Page(Protocol):
    """A page of the shop: it pulls the job when it is shown or the job changes."""

    def refresh(self) -> None: ...


class Center(QStackedWidget):
    """Every view and page, and which of them is worked on."""

    def __init__(self, document: Document, preferences: Preferences) -> None:
        super().__init__()
        self.strip = Strip(document)
        self.lines = RunLines(document, self.strip)
        self.sums = SumLine(document, self.strip)
        self.run_text = RunTextBar(document)
        self.plan = PlanView(document)
        self.model = ModelView(document)
        self.top_pane = QWidget()
        column = QVBoxLayout(self.top_pane)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.strip, 1)
        column.addWidget(self.lines)
        column.addWidget(self.sums)
        self.show_under_strip("units")
        column.addWidget(self.run_text)
        self.lower_panes = Panes(Qt.Orientation.Horizontal)
        for view, name in ((self.plan, tr("plan")), (self.model, tr("model"))):
            self.lower_panes.addWidget(view)
            label = QLabel(name, view)
            label.setObjectName("paneName")
            label.move(10, 6)
        self.lower_panes.setSizes([430, 460])
        self.lower_panes.let_close(self.plan, 430)
        self.lower_panes.let_close(self.model, 460)
        self.design = Panes(Qt.Orientation.Vertical)
        self.design.addWidget(self.top_pane)
        self.design.addWidget(self.lower_panes)
        self.design.setSizes([400, 310])
        self.design.let_close(self.lower_panes, 310)
        self.table = TablePane()
        self.plans = PlansPage(document)
        self.together = TogetherPage(document, self.plans.rack, preferences)
        self.bars = BarsPage(document)
        self.unit_lists = UnitListPage(document)
        self.machine = MachinePage(document)
        self.rack = RackPage(document, self.plans.rack)
        self.unit_page = UnitPage(document)
        self.sets = {kind: SetPage(document, kind) for kind in KINDS}
        shop: dict[str, Page] = {
            "plans": self.plans, "together": self.together, "by-unit": self.unit_lists, "bars": self.bars,
            "rack": self.rack, "machine": self.machine,
        }  # fmt: skip
        self.pages: dict[str, Page] = {**shop, **{f"set:{kind}": page for kind, page in self.sets.items()}}
        for page in (
            self.design, self.table, self.unit_page, self.plans, self.together, self.unit_lists,
            self.bars, self.rack, self.machine, *self.sets.values(),
        ):  # fmt: skip
            self.addWidget(page)

    def show_under_strip(self, stage: str) -> None:
        """Run lines, or at the Paneling stage the sum of the wall field."""
        self.lines.setVisible(stage != "paneling")
        self.sums.setVisible(stage == "paneling")

    def show_panes(self, name: str) -> None:
        """strip, plan, model or all of them."""
        self.top_pane.setVisible(name in ("strip", "all"))
        self.lower_panes.setVisible(name in ("plan", "model", "all"))
        self.plan.setVisible(name in ("plan", "all"))
        self.model.setVisible(name in ("model", "all"))
        # What was closed by hand and is asked for opens again.
        for panes, pane in (
            (self.lower_panes, self.plan), (self.lower_panes, self.model), (self.design, self.lower_panes),
        ):  # fmt: skip
            if pane.isVisibleTo(self) and not panes.is_open(pane):
                panes.open_pane(pane, True)

    def drawings(self) -> list[QWidget]:
        """The drawings of the room that are on screen."""
        return [v for v in (self.strip, self.plan, self.model) if v.isVisible()]

    def main_view(self) -> QWidget:
        """What is worked on: the strip, or the schedule, plan or page on screen."""
        page = self.currentWidget()
        if page is self.design:
            return next(iter(self.drawings()), self.strip)
        views: dict[QWidget, QWidget] = {
            self.plans: self.plans.boards, self.together: self.together.boards,
            self.unit_lists: self.unit_lists.pane.view, self.bars: self.bars.view, self.rack: self.rack.table.view,
            self.table: self.table.view,
        }  # fmt: skip
        return views.get(page, page) if page is not None else self.table.view

    def table_shown(self) -> TablePane | None:
        """The table that is on screen, by itself or on its page."""
        panes: dict[QWidget, TablePane] = {
            self.table: self.table,
            self.unit_lists: self.unit_lists.pane,
            self.rack: self.rack.table,
        }
        page = self.currentWidget()
        return panes.get(page) if page is not None else None

    def focused_view(self) -> Canvas | ModelView:
        """The view that zoom commands work on."""
        widget = QApplication.focusWidget()
        page = self.unit_page
        views: tuple[Canvas | ModelView, ...] = (
            self.strip, self.plan, self.model, self.plans.boards, self.together.boards, self.bars.view, page.drawing,
            page.model, *(s.view for s in self.sets.values()),
        )  # fmt: skip
        for view in views:
            if widget is view and view.isVisible():
                return view
        return next((v for v in views if v.isVisible()), self.strip)

    def fit(self) -> None:
        """Another job: everything is shown whole."""
        for view in (self.strip, self.plan, self.model):
            view.fit()

    def restyle(self) -> None:
        """The look changed."""
        for view in (
            self.strip,
            self.plan,
            self.plans.boards,
            self.together.boards,
            self.bars.view,
            *(s.view for s in self.sets.values()),
        ):
            view.restyle()
        self.model.restyle()
        self.table.restyle()
        self.unit_lists.pane.restyle()
        self.unit_lists.picture.restyle()
        self.lines.update()

    def close_views(self) -> None:
        """The window closes: what runs beside it ends."""
        for page in self.sets.values():
            page.close_view()
        self.model.close_view()
        self.unit_page.model.close_view()
        self.plans.close_page()
        self.together.close_page()
        self.machine.close_page()
