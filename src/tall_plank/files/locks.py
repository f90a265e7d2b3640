"""Who has a file: a lock that the system itself holds for as long as its program lives.

A number of a process says nothing once it is used again, and in a container it is always the same. A lock held by the
system goes with its program, however that ends, and two machines that share a folder see each other's. What is written
in the lock's file (host, start of the machine, time) is for people.
"""

from __future__ import annotations

import contextlib
import json
import os
import time
from pathlib import Path
from typing import Any

try:
    import fcntl
except ImportError:  # no such locks here: everything is held by whoever asks
    fcntl = None  # type: ignore[assignment]


class FileLock:
    """A lock by the name of its own file, which is there only while it is held."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._handle: int | None = None

    @property
    def held(self) -> bool:
        return self._handle is not None

    def take(self) -> bool:
        """Take it; False where another holds it, in this program or in any.

        Raises
        ------
        OSError where its file cannot be made, or the file system knows no locks
        """
        if self._handle is not None:
            return True
        if fcntl is None:
            return True
        for _ in range(50):
            handle = os.open(self.path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o666)
            try:
                fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except BlockingIOError:
                os.close(handle)
                return False
            except OSError:  # a file system that knows no locks: somebody's lock it is not
                os.close(handle)
                with contextlib.suppress(OSError):
                    self.path.unlink()
                raise
            # Its file may have been taken away between opening and locking: then this lock is of no name.
            with contextlib.suppress(OSError):
                if os.fstat(handle).st_ino == os.stat(self.path).st_ino:
                    os.ftruncate(handle, 0)
                    os.write(handle, json.dumps(_about()).encode())
                    self._handle = handle
                    return True
            os.close(handle)
        return False

    def holder(self) -> dict[str, Any]:
        """What is known of who holds it: host, time; nothing where it cannot be read."""
        try:
            found = json.loads(self.path.read_text(encoding="utf-8"))
        except (OSError, ValueError):
            return {}
        return found if isinstance(found, dict) else {}

    def release(self) -> None:
        """Let it go; its file goes first, while nobody else can have it."""
        if self._handle is None:
            return
        with contextlib.suppress(OSError):
            self.path.unlink()
        os.close(self._handle)
        self._handle = None


def is_held(path: Path) -> bool:
    """Whether a lock is held by a program that lives. A lock without a file is not."""
    if fcntl is None or not path.exists():
        return False
    try:
        handle = os.open(path, os.O_RDWR | os.O_CLOEXEC)
    except OSError:
        return False
    try:
        fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return True
    except OSError:
        return False
    finally:
        os.close(handle)
    return False


def _about() -> dict[str, Any]:
    boot = ""
    with contextlib.suppress(OSError):
        boot = Path("/proc/sys/kernel/random/boot_id").read_text(encoding="ascii").strip()
    return {
        "host": os.uname().nodename,
        "boot": boot,
        "process": os.getpid(),
        "since": time.strftime("%Y-%m-%d %H:%M"),
    }
