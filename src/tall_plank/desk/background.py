"""Long work beside the window: progress, Stop, and what is done so far stays."""

from __future__ import annotations

from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QThread, pyqtSignal

from tall_plank.desk.texts import tr
from tall_plank.job import Job
from tall_plank.measure import PlankError
from tall_plank.package import write_package
from tall_plank.workings import Workings

if TYPE_CHECKING:
    from tall_plank.desk.window import Window


class PackageThread(QThread):
    """Writes every paper of a job. Takes a frozen job, touches no widget."""

    told = pyqtSignal(str)
    ended = pyqtSignal(int, str)
    """Number of files written, and what went wrong (empty: nothing)."""

    def __init__(self, workings: Workings, folder: Path) -> None:
        super().__init__()
        self._workings, self._folder = Workings(workings.job, workings.machine), folder
        self._stop = False

    def stop(self) -> None:
        self._stop = True

    def run(self) -> None:
        count, wrong = 0, ""

        def progress(name: str) -> bool:
            nonlocal count
            if self._stop:
                return False
            count += 1
            self.told.emit(name)
            return True

        try:
            count = len(write_package(self._workings, self._folder, progress, date.today().isoformat()))
        except PlankError as error:
            wrong = str(error)
        self.ended.emit(count, wrong)


class BarsThread(QThread):
    """Looks for the least bars of a job. Takes a frozen job, touches no widget; what it finds is remembered."""

    def __init__(self, job: Job) -> None:
        super().__init__()
        self._job = job

    def run(self) -> None:
        Workings(self._job).bars  # noqa: B018  worked out where it is asked for


def run_package(window: Window, folder: Path) -> PackageThread:
    """Start writing the package; the message line shows the file in work with a Stop."""
    thread = PackageThread(window.document.workings, folder)
    window.package_thread = thread
    message = window.message

    def told(name: str) -> None:
        message.text.setText(f"{tr('Writing')} {name}")

    def ended(count: int, wrong: str) -> None:
        message._asking = False
        message.tell(wrong or f"{count} {tr('files written into')} {folder.name}", "wrong" if wrong else "note")

    thread.told.connect(told)
    thread.ended.connect(ended)
    message.ask(tr("Writing the package"), {tr("Stop"): thread.stop})
    thread.start()
    return thread
