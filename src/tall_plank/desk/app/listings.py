"""The lists of the Shop and the Offer stage: their names at the left, and the page or table that each is shown on."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QListWidget, QListWidgetItem, QWidget

from tall_plank.desk.app.background import settle_bars
from tall_plank.desk.app.center import Center
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.tasks import InThread
from tall_plank.desk.spec.sheet import SpecSheet
from tall_plank.papers import schedules
from tall_plank.papers.offer import offer

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
SETS = (
    ("set:client", "Client's set"), ("set:site", "Site set"), ("set:shop", "Shop set"),
    ("set:installer", "Installer's set"),
)  # fmt: skip
"""Sets of sheets, each on a page of its own where one leafs through it."""


class Listings(QListWidget):
    """The names; choosing one shows it."""

    def __init__(self, document: Document, center: Center, spec: SpecSheet) -> None:
        super().__init__()
        self.document, self.center, self.spec = document, center, spec
        self.stage = "units"
        self.chosen = {"shop": "cut-list", "offer": "price"}
        """Which list each stage shows."""
        self.bars_task: InThread | None = None
        self.setObjectName("listing")
        self.setAccessibleName(tr("Schedules"))
        self.setMinimumWidth(150)
        self.currentItemChanged.connect(self._list_chosen)

    def show_stage(self, stage: str) -> None:
        """Offer the lists of a stage and show the one that it showed last."""
        self.stage = stage
        self._fill()

    def close_view(self) -> None:
        """The window closes: wait for what still runs."""
        if self.bars_task is not None:
            self.bars_task.forget()
            self.bars_task.wait()

    def _fill(self) -> None:
        entries = list(SHOP_LISTS if self.stage == "shop" else OFFER_LISTS)
        if self.stage == "offer":
            entries += SETS
        self.blockSignals(True)
        self.clear()
        wanted = self.chosen[self.stage]
        for code, label in entries:
            item = QListWidgetItem(tr(label))
            item.setData(Qt.ItemDataRole.UserRole, code)
            self.addItem(item)
            if code == wanted:
                self.setCurrentItem(item)
        if self.currentItem() is None:
            self.setCurrentRow(0)
            first = self.currentItem()
            assert first is not None
            self.chosen[self.stage] = first.data(Qt.ItemDataRole.UserRole)
        self.blockSignals(False)
        self.refresh()

    def _list_chosen(self, item: QListWidgetItem | None) -> None:
        if item is not None and self.stage in self.chosen:
            self.chosen[self.stage] = item.data(Qt.ItemDataRole.UserRole)
            self.refresh()

    def refresh(self) -> None:
        w = self.document.workings
        code = self.chosen[self.stage]
        display = w.job.display
        # A table takes the whole width; what it is made by stands on the page of standards.
        self.spec.setVisible(self.stage != "shop" or code == "plans")
        if code in self.center.pages:
            page = self.center.pages[code]
            page.refresh()
            assert isinstance(page, QWidget)
            self.center.setCurrentWidget(page)
        else:
            table = offer(w) if code == "offer" else schedules.ALL[code](w)
            self.center.setCurrentWidget(self.center.table)
            self.center.table.show_table(table, display)

        if code in ("bars", "orders"):
            self._settle_bars()

    def _settle_bars(self) -> None:
        """Look for the least bars beside the window where a first plan of them is on screen."""
        if self.bars_task is None and not self.document.workings.bars.settled:
            self.bars_task = settle_bars(self.document.job)
            self.bars_task.ended.connect(self._bars_settled)
            self.bars_task.failed.connect(self._bars_settled)
            self.bars_task.start()

    def _bars_settled(self, _: object) -> None:
        self.bars_task = None
        self.document.workings.__dict__.pop("bars", None)
        if self.stage == "shop" and self.chosen["shop"] in ("bars", "orders"):
            self.refresh()
