"""The search in a process of its own, so that no window waits for it.

A line of JSON asks: ``{"ask": 3, "request": {...}}``; a line ``{"stop": 3}`` ends that question early. Lines of JSON
answer: ``{"ask": 3, "plan": {...}, "last": false}``, the last one with true; ``{"ask": 3, "error": "..."}`` where it
failed. The process stays warm between questions and ends with its input.
"""

from __future__ import annotations

import sys
import threading
from queue import Queue
from typing import TextIO

import msgspec

from tall_plank.shop.nesting.request import NestPlan, Request


class Line(msgspec.Struct, omit_defaults=True):
    """What is asked."""

    ask: int = 0
    request: Request | None = None
    stop: int = 0


class Answer(msgspec.Struct, omit_defaults=True):
    """What is answered."""

    ask: int
    plan: NestPlan | None = None
    last: bool = False
    error: str = ""


def serve(asked: TextIO, told: TextIO) -> None:
    """Answer questions until the input ends."""
    from tall_plank.shop.nesting.nest import nest

    questions: Queue[Line | None] = Queue()
    stopped: set[int] = set()

    def listen() -> None:
        for text in asked:
            try:
                line = msgspec.json.decode(text, type=Line)
            except msgspec.MsgspecError:
                continue
            if line.stop:
                stopped.add(line.stop)
            else:
                questions.put(line)
        stopped.add(-1)
        questions.put(None)

    def say(answer: Answer) -> None:
        told.write(msgspec.json.encode(answer).decode() + "\n")
        told.flush()

    threading.Thread(target=listen, daemon=True).start()
    while (line := questions.get()) is not None:
        number, request = line.ask, line.request
        if request is None:
            continue
        try:
            plan = nest(
                request,
                lambda plan, n=number: say(Answer(n, plan)),  # type: ignore[misc]
                lambda n=number: n in stopped or -1 in stopped,  # type: ignore[misc]
            )
            say(Answer(number, plan, True))
        except Exception as error:  # one question must not end the process
            say(Answer(number, error=f"{type(error).__name__}: {error}"))


if __name__ == "__main__":
    serve(sys.stdin, sys.stdout)
