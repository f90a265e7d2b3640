"""Starting the program: the application, its look, the first window, recovery; and no trace on screen."""

from __future__ import annotations

import gc
import logging
import os
import sys
import threading
import traceback
from pathlib import Path
from types import TracebackType

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QApplication

from tall_plank.desk.app.menus import register
from tall_plank.desk.app.placement import last_stage, offer_last, take_place
from tall_plank.desk.app.window import Window
from tall_plank.desk.look import theme
from tall_plank.desk.look.focus import FocusSeen
from tall_plank.desk.look.texts import tr
from tall_plank.files.log import keep_log
from tall_plank.files.userdata import Autosave, Preferences, UserFolders, default_folders
from tall_plank.job import Job
from tall_plank.job.start import new_job

_windows: list[Window] = []
log = logging.getLogger("tall_plank")


def make_app() -> QApplication:
    """The application, once, with the shipped face."""
    existing = QApplication.instance()
    app = existing if isinstance(existing, QApplication) else QApplication(sys.argv[:1])
    app.setApplicationName("tall-plank")
    app.setApplicationDisplayName("Tall Plank")
    app.setDesktopFileName("tall-plank")
    theme.load_fonts()
    if app.findChild(FocusSeen) is None:
        FocusSeen(app)
    return app


def _gone(window: Window) -> None:
    if window in _windows:
        _windows.remove(window)


def settle_memory() -> None:
    """What stands when the first window opens stays for good: the collector need not look at it again and again, which
    took 60 ms in the middle of typing; and it comes by less often."""
    if not gc.get_freeze_count():
        gc.freeze()
        gc.set_threshold(20_000, 20, 20)


def open_window(job: Job, folders: UserFolders) -> Window:
    """A window with a job."""
    window = Window(job, folders, register, lambda other: open_window(other, folders).show())
    settle_memory()
    _windows.append(window)
    window.destroyed.connect(lambda: _gone(window))
    return window


class Defects(QObject):
    """Defects that nothing caught, in whatever thread: they are told where the windows are."""

    found = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        # From another thread the signal waits in the queue of the thread that this belongs to.
        self.found.connect(self.tell)

    def tell(self) -> None:
        """One plain line in every window."""
        for window in _windows:
            window.message.tell(tr("Something went wrong; the job is as it was. The log holds the details."), "wrong")


def catch_defects() -> Defects:
    """From now on a defect goes to the log, and to the user as one plain line."""
    defects = Defects()

    def hook(kind: type[BaseException], error: BaseException | None, trace: TracebackType | None) -> None:
        log.error("".join(traceback.format_exception(kind, error, trace)))
        defects.found.emit()

    sys.excepthook = hook
    threading.excepthook = lambda args: hook(args.exc_type, args.exc_value, args.exc_traceback)
    return defects


def run(path: Path | None, *, demo: bool = False, folders: UserFolders | None = None) -> int:
    """Open the window with a job file, the demo job or a new job; returns the exit code."""
    folders = folders or default_folders()
    app = make_app()
    keep_log(folders)
    catch_defects()
    preferences = Preferences(folders)
    notes = [*folders.faults(), *preferences.told]
    look = preferences.get("look", "light")
    theme.apply(app, dark=look == "dark")
    if demo:
        from tall_plank.demo import demo_job

        job = demo_job()
    else:
        job = new_job()
    window = open_window(job, folders)
    take_place(window)
    window.show()
    if path is not None:
        if window.open_path(path):
            window.show_stage(last_stage(window))
    elif not demo:
        window.show_stage("room")
    left = Autosave.left_behind(folders, notes)
    window.tell_at_start(notes, left)
    if path is None and not demo and not notes and not left:
        offer_last(window)
    if os.environ.get("TALL_PLANK_READY"):  # the bench waits for this line
        app.processEvents()
        print("ready", flush=True)
    return app.exec()
