"""The commands of a window: what each is called, its keys, and what it does; a file for each menu."""

from __future__ import annotations

from PyQt6.QtWidgets import QMenu

from tall_plank.desk.app.menus import arrange, bays, drawings, edit, help, job, paneling, place, room, select, view
from tall_plank.desk.app.window import Window
from tall_plank.desk.look.texts import tr

TITLES = {
    "job": "&Job", "edit": "&Edit", "room": "&Room", "place": "&Place", "bays": "&Bays",
    "paneling": "Pa&neling", "arrange": "&Arrange",
    "select": "&Select",
    "view": "&View", "drawings": "&Drawings", "help": "&Help",
    "bays/close": "&Close with", "bays/style": "All fronts of this st&yle",
    "bays/put": "&Put in", "place/Base": "&Base", "place/Corner": "&Corner", "place/Hung": "&Hung",
    "place/Tall": "&Tall", "place/End": "&Ends", "place/Furniture": "&Furniture",
    "place/Island": "&Island", "place/Appliances": "&Appliances",
    "place/Other": "&Others", "view/panes": "Pane si&zes",
}  # fmt: skip


def register(w: Window) -> None:
    """Register every command of a window and fill its menus."""
    w.commands.titles = TITLES
    for menu in (job, edit, room, place, paneling, arrange, select, view, bays, drawings, help):
        menu.register(w)
    w.menus = w.commands.fill_menus()
    w.recent = QMenu(tr("Open &recent"), w)
    w.menus["job"].insertMenu(w.commands.actions["save"], w.recent)
    w.recent.aboutToShow.connect(lambda: job.fill_recent(w, w.recent))
    w.document.changed.connect(lambda: place.follow(w))
