"""What the job knows of a kind of placed thing."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from tall_plank.job.source import Kind


@dataclass(frozen=True, kw_only=True)
class Noun:
    """A kind of placed thing.

    Attributes
    ----------
    word : what it is called in messages and steps
    prefix : first letter of the ids of new ones
    rows : attribute that holds them, of the room or of its runs
    on_run : whether its runs hold them, not the room itself
    wall : letter of the wall that one stands on, of all things of its room; empty: on none
    extent : how far its left side lies from the wall's left end, and how wide it is, mm; None: it is not measured so
    name : what one of them is called, where things of the kind have names of their own
    """

    kind: Kind
    word: str
    prefix: str
    rows: str
    on_run: bool = False
    wall: Callable[[Any, Any], str] = lambda room, thing: ""
    extent: Callable[[Any], tuple[float, float]] | None = None
    name: Callable[[Any], str] | None = None

    def name_of(self, thing: Any) -> str:
        """What one of them is called: a chimney breast is a column."""
        return self.name(thing) if self.name is not None else self.word
