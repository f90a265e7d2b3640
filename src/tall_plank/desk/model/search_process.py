"""Cutting plans searched for beside the window: a process that stays warm, better plans as signals, Stop."""

from __future__ import annotations

import sys

import msgspec
from PyQt6.QtCore import QObject, QProcess, QTimer

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.tasks import Task
from tall_plank.shop.nesting import NestPlan, Request
from tall_plank.shop.nesting.worker import Answer, Line

STOP_MS = 400
"""Milliseconds that a search may take to end once it is stopped."""


class Planner(Task):
    """Asks the worker and tells what it answers: better plans on the way (NestPlan), then the last one. One question
    at a time; a new one ends the last."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.busy = False
        self.request: Request | None = None
        self._number = 0
        self._best: NestPlan | None = None
        self._process: QProcess | None = None
        self._rest = b""

    def ask(self, request: Request) -> None:
        """Start a search."""
        if self.busy:
            self.stop()
        self._number += 1
        self.request, self.busy, self._best = request, True, None
        self._send(Line(ask=self._number, request=request))

    def stop(self) -> None:
        """End the search early; its best plan is told as the last. A process that cannot listen yet, for its loops
        are being compiled, is not waited for: what it told so far counts."""
        if self.busy:
            number = self._number
            self._send(Line(stop=number))
            QTimer.singleShot(STOP_MS, lambda: self._give_up(number))

    def _give_up(self, number: int) -> None:
        """End a search that has not answered to being stopped; what it says later is nobody's."""
        if not self.busy or number != self._number:
            return
        self._number += 1
        self.busy = False
        if self._best is not None:
            self.ended.emit(msgspec.structs.replace(self._best, done=False))
        else:
            self.failed.emit(tr("it was stopped before its first plan"))

    def close(self) -> None:
        """End the process."""
        self.busy = False
        if self._process is not None:
            self._process.finished.disconnect()
            self._process.closeWriteChannel()
            if not self._process.waitForFinished(1500):
                self._process.kill()
                self._process.waitForFinished(1500)
            self._process = None

    def _send(self, line: Line) -> None:
        if self._process is None:
            self._process = QProcess(self)
            self._process.readyReadStandardOutput.connect(self._read)
            self._process.finished.connect(self._gone)
            self._process.setProgram(sys.executable)
            self._process.setArguments(["-m", "tall_plank.shop.nesting.worker"])
            self._process.start()
        self._process.write(msgspec.json.encode(line) + b"\n")

    def _read(self) -> None:
        assert self._process is not None
        text = self._rest + bytes(self._process.readAllStandardOutput().data())
        *lines, self._rest = text.split(b"\n")
        for line in lines:
            answer = msgspec.json.decode(line, type=Answer)
            if answer.ask != self._number:
                continue
            if answer.error:
                self.busy = False
                self.failed.emit(answer.error)
            elif answer.plan is not None:
                self._tell(answer.plan, answer.last)

    def _tell(self, plan: NestPlan, last: bool) -> None:
        if last:
            self.busy = False
            self.ended.emit(plan)
        else:
            self._best = plan
            self.told.emit(plan)

    def _gone(self) -> None:
        """The process ended by itself: a defect there, or somebody ended it."""
        self._process, self._rest = None, b""
        if self.busy:
            self.busy = False
            self.failed.emit("the search ended before its answer")
