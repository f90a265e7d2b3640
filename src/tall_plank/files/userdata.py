"""The user's folders: autosave with recovery, locks against a second opening, recent files, preferences."""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import time
import uuid
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from tall_plank.files.aside import said, set_aside
from tall_plank.files.locks import FileLock, is_held
from tall_plank.files.plankfile import MAX_PACKED, job_bytes, job_from_bytes
from tall_plank.formats.door import bytes_of, json_of, through
from tall_plank.formats.writing import write_atomic
from tall_plank.job import Job
from tall_plank.measure import PlankError

MAX_RECENT = 12
MAX_SETTINGS = 1_000_000
MAX_KEPT = MAX_PACKED // 3 * 4
"""Bytes of kept work that are read: as much as a job file holds, its images and issued sets written as text."""
WORD = "file of preferences"


@dataclass(frozen=True)
class UserFolders:
    """Where things of the user are kept; tests and a second profile give other folders."""

    config: Path
    state: Path
    data: Path | None = None
    """What grows over the years; in a folder of `state` where none is given."""

    def made(self) -> UserFolders:
        """The folders, made as far as they can be."""
        for folder in (self.config, self.state / "autosave"):
            with contextlib.suppress(OSError):
                folder.mkdir(parents=True, exist_ok=True)
        return self

    def faults(self) -> tuple[str, ...]:
        """What cannot be kept because a folder cannot be written, in plain words."""
        self.made()
        kinds = (
            (self.config, "preferences, recent files, machines and the library"),
            (self.state / "autosave", "work that is not saved"),
            (self.rack.parent, "the offcut rack"),
        )
        told = []
        for folder, what in kinds:
            there = next((f for f in (folder, *folder.parents) if f.exists()), folder)
            if not (there.is_dir() and os.access(there, os.W_OK | os.X_OK)):
                told.append(f"{folder} cannot be written: {what} cannot be kept.")
        return tuple(told)

    @property
    def machine(self) -> Path:
        """The shop's one machine, as older programs kept it."""
        return self.config / "machine.toml"

    @property
    def machines(self) -> Path:
        """The folder of the shop's own machines."""
        return self.config / "machines"

    @property
    def rack(self) -> Path:
        """The file of the offcut rack."""
        return (self.data or self.state / "data") / "rack.sqlite"


def default_folders() -> UserFolders:
    """The folders of the desktop standard (XDG base directories)."""
    import platformdirs

    return UserFolders(
        Path(platformdirs.user_config_dir("tall-plank")),
        Path(platformdirs.user_state_dir("tall-plank")),
        Path(platformdirs.user_data_dir("tall-plank")),
    )


class Preferences:
    """Small settings as one JSON file; a broken one is set aside and starting values hold.

    Attributes
    ----------
    told : what was wrong with the file, in plain words
    """

    def __init__(self, folders: UserFolders) -> None:
        self._path = folders.made().config / "preferences.json"
        self._values: dict[str, Any] = {}
        self.told: tuple[str, ...] = ()
        if not _is_there(str(self._path)):
            return
        try:
            read = json_of(bytes_of(self._path, MAX_SETTINGS, WORD), self._path.name, WORD, "")
            if not isinstance(read, dict):
                raise PlankError("It holds no settings.")
            self._values = read
        except PlankError:
            self.told = (said(WORD, self._path),)
        if not isinstance(self._values.get("recent", []), list):
            del self._values["recent"]
            self.told = ("The list of recent files could not be read; it begins anew.",)

    def get(self, key: str, default: Any) -> Any:
        """A setting; one of another type than its default counts as missing."""
        value = self._values.get(key, default)
        return value if isinstance(value, type(default)) else default

    def set(self, key: str, value: Any) -> None:
        self._values[key] = value
        # A read-only home folder must not stop the work.
        with contextlib.suppress(PlankError):
            write_atomic(self._path, json.dumps(self._values, indent=1, sort_keys=True).encode())

    def recent(self) -> list[Path]:
        """Files opened last, newest first, those that are still there."""
        return [Path(p) for p in self.get("recent", []) if isinstance(p, str) and _is_there(p)]

    def add_recent(self, path: Path) -> None:
        rest = [str(p) for p in self.recent() if p != path.resolve()]
        self.set("recent", [str(path.resolve()), *rest][:MAX_RECENT])


@dataclass(frozen=True)
class Recovered:
    """An autosaved job that its program never put away: the file it belongs to (empty for a new one), when it was kept,
    how large it is in bytes."""

    job: Job
    file: str
    path: Path
    kept: str = ""
    size: int = 0

    def let_go(self) -> None:
        """Take it and its lock's file away, where that can be."""
        for path in (self.path, self.path.with_suffix(".lock")):
            with contextlib.suppress(OSError):
                path.unlink(missing_ok=True)


class Autosave:
    """Keeps job.json of one window in the state folder; gone when the window closes in peace. A lock beside it says
    that its program lives."""

    def __init__(self, folders: UserFolders) -> None:
        self._folder = folders.made().state / "autosave"
        self._path = self._folder / f"{uuid.uuid4().hex}.json"
        self._lock = FileLock(self._path.with_suffix(".lock"))

    def keep(self, job: Job, file: Path | None) -> None:
        """Write the job; errors of the disk are told to the caller.

        Raises
        ------
        PlankError
        """
        # The work is kept whatever the lock says: without one it may be offered while this program lives.
        with contextlib.suppress(OSError):
            self._lock.take()
        head = json.dumps({"file": str(file or ""), "kept": time.strftime("%Y-%m-%d %H:%M")}).encode()
        write_atomic(self._path, head + b"\n" + job_bytes(job))

    def put_away(self) -> None:
        """The work is saved or given up."""
        with contextlib.suppress(OSError):
            self._path.unlink(missing_ok=True)
        self._lock.release()

    @staticmethod
    def left_behind(folders: UserFolders, told: list[str] | None = None) -> list[Recovered]:
        """Autosaves whose program lives no longer, the newest first. One that cannot be read is set aside, never
        deleted, and that is told."""
        found = []
        there = folders.made().state / "autosave"
        try:
            paths = sorted(there.glob("*.json"), key=_time, reverse=True) if there.is_dir() else []
        except OSError:
            paths = []
        for path in paths:
            if is_held(path.with_suffix(".lock")):
                continue
            try:
                with through(path.name, "autosave", ""):
                    head, _, body = bytes_of(path, MAX_KEPT, "autosave").partition(b"\n")
                    about = json_of(head, path.name, "autosave", "")
                    file, kept = (str(about.get(key, ""))[:4000] for key in ("file", "kept"))
                    found.append(Recovered(job_from_bytes(body, path.name), file, path, kept[:40], len(body)))
            except PlankError:
                new = set_aside(path)
                if told is not None and new is not None:
                    told.append(f"Work that was not saved cannot be read. It is kept as {new}.")
        return found


def _is_there(path: str) -> bool:
    """Whether there is such a file, as far as one may look."""
    try:
        return Path(path).exists()
    except (OSError, ValueError):  # a folder that one may not enter, a name that is none
        return False


def _time(path: Path) -> float:
    try:
        return path.stat().st_mtime
    except OSError:
        return 0.0


class Lock:
    """Says that a job file is open in a program that lives; a second opening is read-only. It lies beside the file, so
    that machines which share its folder see each other; in the state folder where that cannot be written."""

    def __init__(self, folders: UserFolders, path: Path) -> None:
        real = path.resolve()
        name = hashlib.sha256(str(real).encode()).hexdigest()[:24]
        beside = hashlib.sha256(real.name.encode()).hexdigest()[:16]
        self._folders = folders
        self._locks = [FileLock(real.parent / f".{beside}.plank-lock")]
        self._own = folders.state / "locks" / f"{name}.lock"

    def take(self) -> bool:
        """Take the lock; False where another opening holds it."""
        for lock in (*self._locks, FileLock(self._own)):
            with contextlib.suppress(OSError):
                if lock.path == self._own:
                    self._own.parent.mkdir(parents=True, exist_ok=True)
                taken = lock.take()
                self._locks = [lock]
                return taken
        return True  # nothing can be written anywhere: that must not stop the work

    def holder(self) -> str:
        """Who has it, in words: host and time; nothing where that is not known."""
        found = self._locks[0].holder()
        return ", ".join(str(found[k])[:60] for k in ("host", "since") if found.get(k))

    def release(self) -> None:
        self._locks[0].release()
