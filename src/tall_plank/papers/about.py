"""What a PDF says of itself: its title, who made it, when."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class About:
    """Title, firm and date (year-month-day) of a paper; none is not said. Without a date it is always the same file."""

    title: str = ""
    firm: str = ""
    date: str = ""


def signed(canvas: Any, about: About, title: str = "") -> None:
    """Write title, author and date into a canvas's document. `title`: what the paper is."""
    canvas.setTitle(" · ".join(t for t in (about.title, title) if t))
    canvas.setCreator("Tall Plank")
    if about.firm:
        canvas.setAuthor(about.firm)
    if about.date:
        year, month, day = (int(part) for part in about.date.split("-"))
        # The same on every run of that day: midnight of it.
        canvas._doc._timeStamp.YMDhms = (year, month, day, 0, 0, 0)
