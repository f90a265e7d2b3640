"""Pages that need a window of their own: files, preferences, the key sheet, the question before closing."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFileDialog,
    QFormLayout,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QMessageBox,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from tall_plank.desk.commands import Commands
from tall_plank.desk.specroom import DISPLAYS
from tall_plank.desk.texts import tr
from tall_plank.files.userdata import Preferences

JOB_FILTER = "Tall Plank (*.plank)"


def ask_open(parent: QWidget, folder: Path) -> Path | None:
    """A job file to open."""
    name, _ = QFileDialog.getOpenFileName(parent, tr("Open a job"), str(folder), f"{JOB_FILTER};;{tr('All files')} (*)")
    return Path(name) if name else None


def ask_read(parent: QWidget, title: str, folder: Path, filters: str) -> Path | None:
    """Another file to read."""
    name, _ = QFileDialog.getOpenFileName(parent, title, str(folder), f"{filters};;{tr('All files')} (*)")
    return Path(name) if name else None


def ask_read_many(parent: QWidget, title: str, folder: Path, filters: str) -> list[Path]:
    """Files to read together."""
    names, _ = QFileDialog.getOpenFileNames(parent, title, str(folder), f"{filters};;{tr('All files')} (*)")
    return [Path(name) for name in names]


def ask_save(parent: QWidget, title: str, start: Path, filters: str) -> Path | None:
    """A file to write; the ending follows the chosen filter where none is typed."""
    name, chosen = QFileDialog.getSaveFileName(parent, title, str(start), filters)
    if not name:
        return None
    path = Path(name)
    if not path.suffix and "*." in chosen:
        path = path.with_suffix("." + chosen.split("*.")[1].split(")")[0].split(" ")[0])
    return path


def ask_folder(parent: QWidget, title: str, start: Path) -> Path | None:
    name = QFileDialog.getExistingDirectory(parent, title, str(start))
    return Path(name) if name else None


def ask_unsaved(parent: QWidget, name: str) -> str:
    """ "save", "discard" or "cancel" for a job that is not saved."""
    box = QMessageBox(parent)
    box.setIcon(QMessageBox.Icon.NoIcon)
    box.setWindowTitle(tr("Not saved"))
    box.setText(f"{tr('Save the changes to')} “{name}”?")
    box.setStandardButtons(
        QMessageBox.StandardButton.Save | QMessageBox.StandardButton.Discard | QMessageBox.StandardButton.Cancel
    )
    box.setDefaultButton(QMessageBox.StandardButton.Save)
    answer = box.exec()
    return {QMessageBox.StandardButton.Save: "save", QMessageBox.StandardButton.Discard: "discard"}.get(
        QMessageBox.StandardButton(answer), "cancel"
    )


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
        for menus in (("job", "edit"), ("room", "place", "arrange"), ("bays", "select", "view", "help")):
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
                "paper, Ctrl and a click adds to the selection, Escape gives up a drag."
            )
        )
        extra.setObjectName("specNote")
        extra.setWordWrap(True)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(body)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addWidget(scroll, 1)
        column.addWidget(extra)
        column.addWidget(buttons)
        self.resize(880, 600)
        self.setWindowFlag(Qt.WindowType.WindowContextHelpButtonHint, False)
