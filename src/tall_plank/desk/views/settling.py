"""What is worked out more exactly once the job has been left alone for a moment."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

IDLE = 350
"""ms without a change after which it begins."""

BETWEEN = 5
"""ms between its steps, so that what is typed or dragged meanwhile comes first."""


class Settling(QObject):
    """Runs short steps one by one while nothing changes.

    Parameters
    ----------
    step : does one piece; False where nothing was left to do
    held : whether something is dragged: then it waits
    """

    settled = pyqtSignal()

    def __init__(self, owner: QObject, step: Callable[[], bool], held: Callable[[], bool]) -> None:
        super().__init__(owner)
        self._step, self._held = step, held
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._go_on)

    def wait(self) -> None:
        """Something changed: begin anew after a moment."""
        self._timer.start(IDLE)

    def finish(self) -> None:
        """Do all that is left at once."""
        self._timer.stop()
        while self._step():
            pass
        self.settled.emit()

    def _go_on(self) -> None:
        if self._held():
            self._timer.start(IDLE)
        elif self._step():
            self._timer.start(BETWEEN)
        else:
            self.settled.emit()
