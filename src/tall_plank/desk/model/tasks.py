"""Long work beside the window: it tells how far it is, ends with a result or fails with a sentence, and can be stopped.

A task takes frozen values and touches no widget; whoever started it listens. `InThread` does a function's work in a
thread; tasks in a process of their own (the search for cutting plans) tell, end and fail alike.
"""

from __future__ import annotations

import logging
from collections.abc import Callable

from PyQt6.QtCore import QObject, QThread, pyqtSignal

from tall_plank.desk.look.texts import tr
from tall_plank.measure import PlankError

log = logging.getLogger("tall_plank")

Tell = Callable[[str], bool]
"""Says how far the work is; False asks it to stop."""


class Task(QObject):
    """Work that goes on beside the window."""

    told = pyqtSignal(object)
    """How far it is: a name, or a first result."""
    ended = pyqtSignal(object)
    """What came of it."""
    failed = pyqtSignal(str)
    """Why nothing came of it, as a sentence."""

    busy = False

    def stop(self) -> None:
        """Ask it to stop; what it has so far is its result."""

    def wait(self) -> None:
        """Return when it has ended."""


class InThread(Task):
    """A function's work in a thread. A defect in it ends the task like any other failure; the log holds the trace."""

    def __init__(self, work: Callable[[Tell], object], parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._work = work
        self._stop = False
        self._thread = _Thread(self._run)
        self._thread.finished.connect(self._finished)

    def start(self) -> None:
        self.busy = True
        self._thread.start()

    def stop(self) -> None:
        self._stop = True

    def wait(self) -> None:
        self._thread.wait()
        self.busy = False

    def forget(self) -> None:
        """Nobody wants its answer any more; it ends by itself."""
        self.blockSignals(True)
        self.stop()

    def _tell(self, name: str) -> bool:
        if self._stop:
            return False
        self.told.emit(name)
        return True

    def _run(self) -> None:
        try:
            self._outcome: tuple[bool, object] = (True, self._work(self._tell))
        except PlankError as error:
            self._outcome = (False, str(error))
        except Exception:
            log.exception("work beside the window failed")
            self._outcome = (False, tr("Something went wrong; the job is as it was. The log holds the details."))

    def _finished(self) -> None:
        self.busy = False
        well, what = self._outcome
        if well:
            self.ended.emit(what)
        else:
            self.failed.emit(str(what))


class _Thread(QThread):
    def __init__(self, work: Callable[[], None]) -> None:
        super().__init__()
        self._work = work

    def run(self) -> None:
        self._work()
