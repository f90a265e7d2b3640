"""What a package has written into its folder: so that a later one takes away what it no longer writes.

A program of a part that is no more, beside new ones, would be run by whoever finds it. Only files that the record
knows and that nobody has changed since are taken away.
"""

from __future__ import annotations

import contextlib
import json
from collections.abc import Iterable, Mapping
from pathlib import Path
from typing import Any

from tall_plank.formats.writing import clear_folders, put

RECORD = ".package.json"

Known = dict[str, tuple[int, int]]
"""Name of a file in the folder -> its size and the time of its writing, as they were then."""


def _all(folder: Path) -> dict[str, Any]:
    """The record of a folder by who wrote; empty where there is none that can be read."""
    try:
        found = json.loads((folder / RECORD).read_text(encoding="utf-8"))["files"]
    except (OSError, ValueError, KeyError, TypeError):
        return {}
    return found if isinstance(found, dict) else {}


def _known(files: Any) -> Known:
    """The files of one owner; what is written wrong, or leads out of the folder, is left out."""
    known: Known = {}
    for name, state in files.items() if isinstance(files, dict) else ():
        whole = isinstance(state, list) and len(state) == 2 and all(isinstance(n, int) for n in state)
        if whole and not Path(name).is_absolute() and ".." not in Path(name).parts:
            known[name] = (state[0], state[1])
    return known


def earlier(folder: Path, owner: str) -> Known:
    """What an earlier package of the same owner (a job, or some together) has written; nothing where that is not
    known. What other jobs wrote into the folder is theirs. Older programs noted no owner: what they noted is of
    whoever writes next."""
    found = _all(folder)
    return {**_known(found), **_known(found.get(owner))}


def of_others(folder: Path, owner: str) -> str:
    """What lies in a folder from packages under other names, in words: another job, or this one before it was named
    anew. Nothing where there is none."""
    told = []
    for other, files in _all(folder).items():
        count = sum(_state(folder / name) == state for name, state in _known(files).items()) if other != owner else 0
        if count:
            told.append(f"{count} {'file' if count == 1 else 'files'} of “{other[:60]}”")
    return f"In the folder lie also {', '.join(told)}. Take them away if they are not needed." if told else ""


def _state(path: Path) -> tuple[int, int] | None:
    try:
        stat = path.lstat()
    except OSError:
        return None
    return (stat.st_size, stat.st_mtime_ns)


def take_away(folder: Path, old: Mapping[str, tuple[int, int]], now: Iterable[str]) -> list[str]:
    """Take away what an earlier package wrote and this one does not, where nobody has changed it since; folders that
    are empty then go too. Returns what was left because it was changed."""
    kept: list[str] = []
    names = set(now)
    for name, state in old.items():
        path = folder / name
        if name in names or (found := _state(path)) is None:
            continue
        if found != state or not path.resolve().is_relative_to(folder.resolve()):
            kept.append(name)
            continue
        with contextlib.suppress(OSError):
            path.unlink()
            parent = path.parent
            while parent != folder and not any(parent.iterdir()):
                parent.rmdir()
                parent = parent.parent
    return kept


def note(folder: Path, owner: str, names: Iterable[str], old: Mapping[str, tuple[int, int]]) -> None:
    """Write the record: the files of now, and those of before that still lie there. A folder that takes no record has
    none."""
    known: dict[str, tuple[int, int]] = {n: s for n, s in old.items() if _state(folder / n) == s}
    for name in names:
        state = _state(folder / name)
        if state is not None:
            known[name] = state
    others = {
        other: {n: s for n, s in files.items() if n not in known}
        for other, files in _all(folder).items()
        if other != owner and isinstance(files, dict)
    }
    with contextlib.suppress(OSError):
        put(folder / RECORD, json.dumps({"files": {**others, owner: known}}))


def recorded(
    folder: Path, owner: str, done: Iterable[Path], old: Mapping[str, tuple[int, int]], *, whole: bool
) -> None:
    """Note what was written, each program with its outlines; what an earlier package wrote and a whole one does not any
    more is taken away."""
    names = [str(p.relative_to(folder)) for p in done]
    names += [n.removesuffix(".ngc") + ".json" for n in names if n.endswith(".ngc")]
    if whole:
        take_away(folder, old, names)
    note(folder, owner, names, old)
    clear_folders(folder / RECORD, {folder, *((folder / name).parent for name in names)})
