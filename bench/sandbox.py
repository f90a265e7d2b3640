"""The folders in which hostile input is tried: what is read, where may be written, what was written elsewhere."""

from __future__ import annotations

import contextlib
import os
import shutil
import sys
import tempfile
from pathlib import Path
from typing import Any


class Sandbox:
    """Folders of one worker: what it reads, where it may write, and what was written elsewhere."""

    def __init__(self) -> None:
        from tall_plank.shop.compiled import cache_folder

        # What is compiled stays where it is kept on this machine.
        os.environ.setdefault("NUMBA_CACHE_DIR", str(cache_folder() or ""))
        self.root = Path(tempfile.mkdtemp(prefix="hostile-"))
        self.out = self.root / "out"
        self.home = self.root / "home"
        for folder in (self.out, self.home):
            folder.mkdir()
        self.elsewhere: list[str] = []
        for key, name in (("CONFIG", ".config"), ("STATE", ".state"), ("DATA", ".data"), ("CACHE", ".cache")):
            os.environ[f"XDG_{key}_HOME"] = str(self.home / name)
        os.environ["HOME"] = str(self.home)
        # What libraries write for a moment lies here too.
        tempfile.tempdir = os.environ["TMPDIR"] = str(self.home)
        os.chdir(self.out)
        self.watching = False
        sys.addaudithook(self._seen)

    def _seen(self, event: str, given: tuple[Any, ...]) -> None:
        if not self.watching:
            return
        if event == "open":
            path, mode, flags = given
            written = (isinstance(mode, str) and any(c in mode for c in "wax+")) or (flags & (os.O_WRONLY | os.O_RDWR))
            if written and isinstance(path, str | bytes | Path):
                self._written(path)
        elif event in ("os.rename", "os.link", "os.symlink"):
            self._written(given[1])
        elif event in ("os.mkdir", "os.remove", "os.rmdir", "shutil.rmtree"):
            self._written(given[0])

    def _written(self, path: Any) -> None:
        full = os.path.realpath(os.fsdecode(path)) if not isinstance(path, int) else ""
        fine = (str(self.out), str(self.home), str(self.root / "in"), "/dev/", "/proc/")
        if full and not full.startswith(fine) and "numba" not in full and "__pycache__" not in full:
            self.elsewhere.append(full)

    def put(self, name: str, data: bytes | str) -> Path:
        """A file to be read."""
        folder = self.root / "in"
        folder.mkdir(exist_ok=True)
        path = folder / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(data.encode("utf-8", "surrogatepass") if isinstance(data, str) else data)
        return path

    def clean(self) -> None:
        """Begin anew, but for what is compiled."""
        for folder in (self.root / "in", self.out):
            for path in folder.iterdir() if folder.is_dir() else ():
                shutil.rmtree(path) if path.is_dir() else path.unlink()


class SenseError(Exception):
    """Something was taken, or came out, that makes no sense."""


def sensible(right: Any, what: str) -> None:
    if not right:
        raise SenseError(what)


@contextlib.contextmanager
def refusal():  # type: ignore[no-untyped-def]
    """A refusal in plain words is fine."""
    from tall_plank.measure import PlankError

    try:
        yield
    except PlankError as error:
        if not str(error).strip():
            raise SenseError("a refusal without a word") from error
