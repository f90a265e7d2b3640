"""Questions that take a window of the system's own: files, folders, and what becomes of work that is not saved."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QMessageBox, QWidget

from tall_plank.desk.look.texts import tr

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
