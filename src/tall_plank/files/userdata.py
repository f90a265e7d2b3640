"""The user's folders: autosave with recovery, locks against a second opening, recent files, preferences."""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from tall_plank.files.plankfile import job_bytes, job_from_bytes, write_atomic
from tall_plank.job import Job
from tall_plank.measure import PlankError

MAX_RECENT = 12


@dataclass(frozen=True)
class UserFolders:
    """Where things of the user are kept; tests and a second profile give other folders."""

    config: Path
    state: Path
    data: Path | None = None
    """What grows over the years; in a folder of `state` where none is given."""

    def made(self) -> UserFolders:
        self.config.mkdir(parents=True, exist_ok=True)
        (self.state / "autosave").mkdir(parents=True, exist_ok=True)
        return self

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
    """Small settings as one JSON file; a broken one is set aside and starting values hold."""

    def __init__(self, folders: UserFolders) -> None:
        self._path = folders.made().config / "preferences.json"
        self._values: dict[str, Any] = {}
        try:
            read = json.loads(self._path.read_text(encoding="utf-8"))
            if isinstance(read, dict):
                self._values = read
        except (OSError, ValueError):
            self._values = {}

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
        return [Path(p) for p in self.get("recent", []) if isinstance(p, str) and Path(p).exists()]

    def add_recent(self, path: Path) -> None:
        rest = [str(p) for p in self.recent() if p != path.resolve()]
        self.set("recent", [str(path.resolve()), *rest][:MAX_RECENT])


@dataclass(frozen=True)
class Recovered:
    """An autosaved job that its program never put away: the file it belongs to (empty for a new one)."""

    job: Job
    file: str
    path: Path


class Autosave:
    """Keeps job.json of one window in the state folder; gone when the window closes in peace."""

    def __init__(self, folders: UserFolders) -> None:
        self._folder = folders.made().state / "autosave"
        self._path = self._folder / f"{os.getpid()}-{id(self):x}.json"

    def keep(self, job: Job, file: Path | None) -> None:
        """Write the job; errors of the disk are told to the caller.

        Raises
        ------
        PlankError
        """
        head = json.dumps({"file": str(file or ""), "pid": os.getpid()}).encode()
        write_atomic(self._path, head + b"\n" + job_bytes(job))

    def put_away(self) -> None:
        """The work is saved or given up."""
        self._path.unlink(missing_ok=True)

    @staticmethod
    def left_behind(folders: UserFolders) -> list[Recovered]:
        """Autosaves whose program runs no longer. One that cannot be read is set aside, never deleted."""
        found = []
        for path in sorted((folders.made().state / "autosave").glob("*.json")):
            try:
                head, _, body = path.read_bytes().partition(b"\n")
                told = json.loads(head)
                if _alive(int(told["pid"])):
                    continue
                found.append(Recovered(job_from_bytes(body, path.name), str(told.get("file", "")), path))
            except (OSError, ValueError, KeyError, TypeError, AttributeError, PlankError):
                path.rename(path.with_suffix(".unread"))
        return found


def _alive(pid: int) -> bool:
    if pid <= 0:
        return False
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True


class Lock:
    """Says that a job file is open in a program that runs; a second opening is read-only."""

    def __init__(self, folders: UserFolders, path: Path) -> None:
        folder = folders.made().state / "locks"
        folder.mkdir(parents=True, exist_ok=True)
        name = hashlib.sha256(str(path.resolve()).encode()).hexdigest()[:24]
        self._path = folder / f"{name}.lock"
        self._mine = False

    def take(self) -> bool:
        """Take the lock; False where another opening holds it. A dead holder's lock is taken over."""
        for _ in range(2):
            try:
                handle = os.open(self._path, os.O_CREAT | os.O_EXCL | os.O_WRONLY)
                with os.fdopen(handle, "w") as file:
                    file.write(str(os.getpid()))
                self._mine = True
                return True
            except FileExistsError:
                try:
                    holder = int(self._path.read_text() or "0")
                except (OSError, ValueError):
                    holder = 0
                if holder and _alive(holder):
                    return False
                self._path.unlink(missing_ok=True)
            except OSError:
                return True  # a state folder that cannot be written must not stop the work
        return False

    def release(self) -> None:
        if self._mine:
            self._path.unlink(missing_ok=True)
            self._mine = False
