"""The user's library: saved units, runs and islands, each a small text file under its name."""

from __future__ import annotations

import re
from dataclasses import dataclass
from pathlib import Path

from tall_plank.edits.library import Saved, read_saved
from tall_plank.files.userdata import UserFolders
from tall_plank.formats.door import text_of, through
from tall_plank.formats.writing import write_atomic
from tall_plank.measure import PlankError

MAX_FILE = 2_000_000
MAX_KEPT = 500


@dataclass(frozen=True)
class Kept:
    """A saved thing and its file."""

    path: Path
    saved: Saved

    @property
    def text(self) -> str:
        return self.path.read_text(encoding="utf-8")


def folder_of(folders: UserFolders) -> Path:
    return folders.config / "library"


def keep(folders: UserFolders, name: str, text: str) -> Path:
    """Write a saved thing under its name; one of the same name is replaced, and kept beside it as .bak.

    Raises
    ------
    PlankError where the name makes no file or the folder cannot be written
    """
    stem = re.sub(r"[^\w \-]+", "_", name.strip())[:80].strip()
    if not stem or set(stem) <= {"_"}:
        raise PlankError(f"“{name}” makes no file name.", "library", "Use letters and digits.")
    read_saved(text)
    folder = folder_of(folders)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise PlankError(
            f"The library cannot be written ({error.strerror}).", str(folder), "Mend the folder."
        ) from None
    path = folder / f"{stem}.json"
    write_atomic(path, text.encode(), backup=True)
    return path


def kept(folders: UserFolders) -> tuple[tuple[Kept, ...], tuple[str, ...]]:
    """Everything in the library by name, and the names of files that cannot be read.

    Raises
    ------
    PlankError “The file is too large.”
    """
    found: list[Kept] = []
    broken: list[str] = []
    for path in sorted(folder_of(folders).glob("*.json"))[:MAX_KEPT]:
        try:
            with through(path.name, "library entry", "Take it out of the library."):
                found.append(Kept(path, read_saved(text_of(path, MAX_FILE, "library entry"))))
        except PlankError:
            broken.append(path.name)
    return tuple(found), tuple(broken)


def forget(folders: UserFolders, name: str) -> None:
    """Take a saved thing out of the library; its file stays beside as .bak.

    Raises
    ------
    PlankError where it is not there
    """
    path = folder_of(folders) / name
    try:
        if path.parent != folder_of(folders):
            raise FileNotFoundError
        path.replace(path.with_name(path.name + ".bak"))
    except OSError:
        raise PlankError(f"“{name}” is not in the library.", "library", "Choose another one.") from None
