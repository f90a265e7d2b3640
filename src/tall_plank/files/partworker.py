"""Texts of part files written in a process beside: works come in as MessagePack, texts go out so, in the same order.

Parts are many and their files are most of a package's time; a second core does them while the papers are written. Where
no process can be started, or it fails, they are written where they are asked for.
"""

from __future__ import annotations

import gc
import os
import subprocess
import sys
import tempfile
from collections.abc import Iterable
from pathlib import Path
from types import TracebackType
from typing import IO

import msgspec

from tall_plank.files.machinefiles import alike, part_text
from tall_plank.shop.machine.work import PartWork


class PartTexts:
    """The texts of some parts' files, worked out beside until they are asked for. Closing it ends the work."""

    def __init__(self, works: Iterable[PartWork]) -> None:
        self._keys = list(dict.fromkeys(alike(w) for w in works))
        self._texts: dict[PartWork, str] | None = None
        self._out: IO[bytes] | None = None
        self._process: subprocess.Popen[bytes] | None = None

    def __enter__(self) -> PartTexts:
        if not self._keys or (os.cpu_count() or 1) < 2:
            return self
        self._out = tempfile.TemporaryFile()
        asked = tempfile.TemporaryFile()
        asked.write(msgspec.msgpack.encode(self._keys))
        asked.seek(0)
        source = Path(__file__).parents[2]
        paths = os.pathsep.join([str(source), *filter(None, [os.environ.get("PYTHONPATH")])])
        try:
            self._process = subprocess.Popen(
                [sys.executable, "-m", "tall_plank.files.partworker"],
                stdin=asked, stdout=self._out, stderr=subprocess.DEVNULL, env={**os.environ, "PYTHONPATH": paths},
            )  # fmt: skip
        except OSError:
            self._process = None
        finally:
            asked.close()
        return self

    def text(self, work: PartWork) -> str:
        """The text of a part's file; waits for the process."""
        if self._texts is None:
            self._texts = self._answer()
        key = alike(work)
        return self._texts.get(key) or part_text(key)

    def _answer(self) -> dict[PartWork, str]:
        if self._process is None or self._out is None or self._process.wait() != 0:
            return {}
        self._out.seek(0)
        try:
            texts = msgspec.msgpack.decode(self._out.read(), type=list[str])
        except msgspec.DecodeError:
            return {}
        return dict(zip(self._keys, texts, strict=False))

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        if self._process is not None:
            self._process.kill()
            self._process.wait()
        if self._out is not None:
            self._out.close()


def main() -> None:
    """Answer one question on standard input."""
    gc.disable()  # it ends before it would matter
    works = msgspec.msgpack.decode(sys.stdin.buffer.read(), type=list[PartWork])
    sys.stdout.buffer.write(msgspec.msgpack.encode([part_text(w) for w in works]))


if __name__ == "__main__":
    main()
