"""What every file of ours says of itself: its kind and the number of its format; and bringing an older one up.

A file without a number was written before files had one: it is of number 1.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from tall_plank.measure import PlankError

Raw = dict[str, Any]
Step = Callable[[Raw], None]
"""Brings what a file holds from one number to the next, in place."""


@dataclass(frozen=True)
class Format:
    """A kind of file.

    Attributes
    ----------
    kind : as the file names itself
    word : what it is called in messages
    steps : from number 1 on; there is one less than numbers
    remedy : what to do where such a file is damaged
    """

    kind: str
    word: str
    steps: tuple[Step, ...]
    remedy: str

    @property
    def number(self) -> int:
        """The number that is written now."""
        return len(self.steps) + 1


def number_of(raw: Raw, kind: Format, where: str) -> int:
    """The number of a file's format.

    Raises
    ------
    PlankError where it is no number, or that of a newer program
    """
    number = raw.get("format", 1)
    if not isinstance(number, int) or isinstance(number, bool) or number < 1:
        raise PlankError(f"The {kind.word} has no format number.", where, kind.remedy)
    if number > kind.number:
        raise PlankError(
            f"This {kind.word} was saved by a newer Tall Plank (format {number}; this one reads up to {kind.number}).",
            where,
            "Open it with the newer version.",
        )
    return number


def brought_up(raw: Raw, kind: Format, where: str, inside: str = "") -> Raw:
    """What a file holds, in today's format, without its kind and number.

    Parameters
    ----------
    inside : key of what the steps work on, where the file holds more; empty: the whole file

    Raises
    ------
    PlankError where the file is of another kind or a newer format, or lacks what a step works on
    """
    if raw.get("kind", kind.kind) != kind.kind:
        raise PlankError(f"This is no {kind.word}.", where, kind.remedy)
    number = number_of(raw, kind, where)
    content = {key: value for key, value in raw.items() if key not in ("kind", "format")}
    try:
        payload = content[inside] if inside else content
        for step in kind.steps[number - 1 :]:
            step(payload)
    except (KeyError, TypeError, AttributeError, IndexError):
        raise PlankError(f"The {kind.word} is damaged.", where, kind.remedy) from None
    return content


def marked(content: Raw, kind: Format) -> Raw:
    """What a file holds with its kind and today's number."""
    return {"kind": kind.kind, "format": kind.number, **content}
