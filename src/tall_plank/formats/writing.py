"""Files are written whole or not at all: beside their place first, then put into it."""

from __future__ import annotations

import contextlib
import errno
import hashlib
import os
import re
import stat
from collections.abc import Iterable
from pathlib import Path

from tall_plank.measure import PlankError


def write_atomic(path: Path, data: bytes, *, backup: bool = False) -> None:
    """Write a file by way of a temporary one beside it. Through a link the real file is written; a file that was there
    keeps its mode, and its owner where that can be.

    Raises
    ------
    PlankError where it cannot be written
    """
    named = path
    temporary: Path | None = None
    try:
        path = path.resolve() if path.is_symlink() else path
        mark = _mark(path)
        temporary = path.with_name(f".{mark}.{os.getpid()}.{os.urandom(3).hex()}.part")
        before = path.stat() if path.exists() else None
        with temporary.open("wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        _clear_left(temporary, mark)
        if before is not None:
            os.chmod(temporary, stat.S_IMODE(before.st_mode))
            with contextlib.suppress(OSError):
                os.chown(temporary, before.st_uid, before.st_gid)
        if backup and before is not None:
            _keep_backup(path, mark)
        os.replace(temporary, path)
    except (OSError, ValueError, RuntimeError) as error:
        if temporary is not None:
            with contextlib.suppress(OSError):
                temporary.unlink(missing_ok=True)
        why = getattr(error, "strerror", None) or str(error)
        raise PlankError(
            f"The file cannot be written ({why}).", str(named)[-200:], "Choose another folder or free some space."
        ) from None


def _keep_backup(path: Path, mark: str) -> None:
    """A full copy under a second name until the new file takes the first one. A name too long for its ending has
    none."""
    spare = path.with_name(path.name + ".bak")
    link = path.with_name(f".{mark}.{os.getpid()}.bak")
    link.unlink(missing_ok=True)
    try:
        os.link(path, link)
    except OSError:  # a file system without hard links
        link.write_bytes(path.read_bytes())
    try:
        os.replace(link, spare)
    except OSError as error:
        link.unlink(missing_ok=True)
        if error.errno != errno.ENAMETOOLONG:
            raise


LEFT_FOR = 3600.0
"""Seconds after which a half-written file is nobody's any more."""


def _clear_left(mine: Path, mark: str) -> None:
    """Take half-written files of this name away that an earlier program left: those that are old by the clock of their
    own disk, which wrote this one just now; a clock that was set says nothing there."""
    with contextlib.suppress(OSError):
        now = mine.stat().st_mtime
        for old in mine.parent.glob(f".{mark}.*.part"):
            if now - old.stat().st_mtime > LEFT_FOR:
                old.unlink(missing_ok=True)


def put(path: Path, data: bytes | str) -> None:
    """Write a paper, a list or a machine file whole: who looks for it finds the old one or the new one, never a half.
    Unlike `write_atomic` it does not wait for the disk.

    Raises
    ------
    OSError where it cannot be written; what was there stays
    """
    temporary = path.with_name(f".{_mark(path)}.{os.getpid()}.{os.urandom(3).hex()}.part")
    try:
        temporary.write_bytes(data.encode("utf-8") if isinstance(data, str) else data)
        os.replace(temporary, path)
    except BaseException:
        with contextlib.suppress(OSError):
            temporary.unlink(missing_ok=True)
        raise


_LEFT = re.compile(r"\.[0-9a-f]{12}\.\d+\.[0-9a-f]{6}\.part")


def clear_folders(mine: Path, folders: Iterable[Path]) -> None:
    """Take half-written files away that programs left in some folders long before a file that was written just now."""
    with contextlib.suppress(OSError):
        now = mine.stat().st_mtime
        for folder in folders:
            for old in folder.glob(".*.part"):
                if _LEFT.fullmatch(old.name) and now - old.stat().st_mtime > LEFT_FOR:
                    old.unlink(missing_ok=True)


def _mark(path: Path) -> str:
    """A short name of a file's own: with the file's it could be longer than a file system takes."""
    return hashlib.sha256(path.name.encode("utf-8", "surrogateescape")).hexdigest()[:12]
