"""Broken files of the program's own are set aside under another name: nothing of them is lost, and nothing waits."""

from __future__ import annotations

from pathlib import Path

KEPT = 5
"""Broken files of one name that are kept; the oldest goes first."""


def set_aside(path: Path) -> Path | None:
    """Move a broken file out of the way; its new name, or None where it cannot be moved."""
    names = [path.with_name(f"{path.name}.broken{f'-{n}' if n > 1 else ''}") for n in range(1, KEPT + 1)]
    try:
        free = next((n for n in names if not n.exists()), None) or min(names, key=lambda n: n.stat().st_mtime)
        path.replace(free)
    except OSError:
        return None
    return free


def said(word: str, path: Path) -> str:
    """Set a broken file aside, and what is told of it."""
    new = set_aside(path)
    where = f"It is kept as {new}" if new is not None else f"It stays as {path}"
    return f"The {word} cannot be read. {where}; a new one is begun."
