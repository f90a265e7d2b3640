"""The one base of every error the program raises on purpose."""

from __future__ import annotations


class PlankError(Exception):
    """Something that cannot be done, said in plain words.

    Parameters
    ----------
    what : str
        What is wrong.
    where : str
        The place: a box, a file with its line, a unit, a wall.
    remedy : str
        What to do about it.
    """

    def __init__(self, what: str, where: str = "", remedy: str = "") -> None:
        super().__init__(what)
        self.what = what
        self.where = where
        self.remedy = remedy

    def __str__(self) -> str:
        head = f"{self.where}: {self.what}" if self.where else self.what
        return f"{head} {self.remedy}".strip()
