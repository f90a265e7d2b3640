"""What setting-out has of a kind of placed thing."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from tall_plank.job import Room
from tall_plank.setout.wall import Span, Wall


@dataclass(frozen=True, kw_only=True)
class ThingSetOut:
    """
    Attributes
    ----------
    span : where one lies along a line that cells may be held by, mm; None where it does not lie on that line
    fits : raises PlankError where one does not fit into its room
    """

    span: Callable[[Room, Wall, Any], Span | None] | None = None
    fits: Callable[[Room, Any], None] | None = None


def on_its_wall(wall: Wall, letter: str, x: float, width: float = 0.0) -> Span | None:
    """The span of something that stands on a wall of its own. `x`, `width`: mm."""
    return (x, x + width) if letter == wall.id else None
