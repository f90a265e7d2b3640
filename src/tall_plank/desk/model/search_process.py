"""Cutting plans searched for beside the window: a process that stays warm, better plans as signals, Stop."""

from __future__ import annotations

import sys

import msgspec
from PyQt6.QtCore import QObject, QProcess

from tall_plank.desk.model.tasks import Task
from tall_plank.shop.nesting import NestPlan, Request
from tall_plank.shop.nesting.worker import Answer, Line


class Planner(Task):
    """Asks the worker and tells what it answers: better plans on the way (NestPlan), then the last one. One question
    at a time; a new one ends the last."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.busy = False
        self.request: Request | None = None
        self._number = 0
        self._process: QProcess | None = None
        self._rest = b""

    def ask(self, request: Request) -> None:
        """Start a search."""
        if self.busy:
            self.stop()
        self._number += 1
        self.request, self.busy = request, True
        self._send(Line(ask=self._number, request=request))

    def stop(self) -> None:
        """End the search early; its best plan is told as the last."""
        if self.busy:
            self._send(Line(stop=self._number))

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
            self.told.emit(plan)

    def _gone(self) -> None:
        """The process ended by itself: a defect there, or somebody ended it."""
        self._process, self._rest = None, b""
        if self.busy:
            self.busy = False
            self.failed.emit("the search ended before its answer")
