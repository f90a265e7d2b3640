"""Pages that need a window of their own: preferences, the key sheet."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.app.commands import Commands
from tall_plank.desk.look.texts import tr
from tall_plank.desk.spec.room import DISPLAYS
from tall_plank.files.userdata import Preferences


class PreferencesDialog(QDialog):
    """Look, and what new jobs start with."""

    def __init__(self, parent: QWidget, preferences: Preferences) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Preferences"))
        self.preferences = preferences
        form = QFormLayout()
        self.look = QComboBox()
        for code, label in (("light", tr("Paper")), ("dark", tr("Night"))):
            self.look.addItem(label, code)
        self.look.setCurrentIndex(max(0, self.look.findData(preferences.get("look", "light"))))
        self.display = QComboBox()
        for code, label in DISPLAYS:
            self.display.addItem(tr(label), code)
        self.display.setCurrentIndex(max(0, self.display.findData(preferences.get("display", "mm"))))
        self.look.setAccessibleName(tr("Look"))
        self.display.setAccessibleName(tr("Lengths of new jobs"))
        form.addRow(tr("Look"), self.look)
        form.addRow(tr("Lengths of new jobs"), self.display)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addLayout(form)
        column.addSpacing(8)
        column.addWidget(buttons)
        self.setMinimumWidth(360)

    def accept(self) -> None:
        self.preferences.set("look", self.look.currentData())
        self.preferences.set("display", self.display.currentData())
        super().accept()


class KeySheet(QDialog):
    """Every command with its keys, by menu."""

    def __init__(self, parent: QWidget, commands: Commands, titles: dict[str, str]) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Keys"))
        body = QWidget()
        side_by_side = QHBoxLayout(body)
        side_by_side.setSpacing(30)
        for menus in (("job", "edit"), ("room", "place", "arrange"), ("bays", "select", "view", "drawings", "help")):
            # Each column has rows of its own, so that one column's headings do not push the others apart.
            grid = QGridLayout()
            grid.setHorizontalSpacing(18)
            grid.setVerticalSpacing(2)
            side_by_side.addLayout(grid)
            row = 0
            for menu in menus:
                head = QLabel(titles[menu].replace("&", "").upper())
                head.setObjectName("specGroup")
                grid.addWidget(head, row, 0, 1, 2)
                row += 1
                for command in commands.all.values():
                    if command.menu != menu or not command.keys:
                        continue
                    keys = QLabel(" · ".join(command.keys))
                    keys.setObjectName("specNote")
                    grid.addWidget(QLabel(command.text.replace("&", "").replace("…", "")), row, 0)
                    grid.addWidget(keys, row, 1)
                    row += 1
            grid.setRowStretch(row, 1)
        extra = QLabel(
            tr(
                "On a run line: arrows walk along the cells, digits or Enter type a width, Tab goes on typing, "
                "“share” and “rest” are widths too. On a drawing: the wheel zooms, the middle button moves the "
                "paper, Ctrl and a click adds to the selection (in a bay: that bay too), Alt lifts one hung unit "
                "alone, Escape gives up a drag. On a sheet: Tab goes from view to view, arrows move one (with Shift "
                "ten times as far), plus and minus change its scale, Delete takes it off, Alt drags it past what it "
                "snaps to."
            )
        )
        extra.setObjectName("specNote")
        extra.setWordWrap(True)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(body)
        scroll.setAccessibleName(tr("Keys"))
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addWidget(scroll, 1)
        column.addWidget(extra)
        column.addWidget(buttons)
        self.resize(880, 600)
        self.setWindowFlag(Qt.WindowType.WindowContextHelpButtonHint, False)
