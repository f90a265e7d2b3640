"""Files that are dropped on a window: a job is opened where it lies; whoever dragged it moves nothing."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QDragEnterEvent, QDropEvent

from tall_plank.desk.look.texts import tr

if TYPE_CHECKING:
    from tall_plank.desk.app.window import Window


def files_of(event: QDropEvent) -> list[Path]:
    """The files that are dragged."""
    data = event.mimeData()
    return [Path(u.toLocalFile()) for u in data.urls()] if data is not None else []


def dragged_in(event: QDragEnterEvent) -> None:
    """Take files, as copies."""
    if files_of(event):
        event.setDropAction(Qt.DropAction.CopyAction)
        event.accept()


def dropped(window: Window, event: QDropEvent) -> None:
    """Open the first job among dropped files; say so where there is none."""
    event.setDropAction(Qt.DropAction.CopyAction)
    event.accept()
    files = files_of(event)
    jobs = [path for path in files if path.suffix == ".plank"]
    if not jobs:
        window.message.tell(f"{files[0].name}: {tr('this is no job. Drop a .plank file.')}", "wrong")
    elif window.may_leave():
        window.open_path(jobs[0])
