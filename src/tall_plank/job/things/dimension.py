"""A dimension by hand: between two things, by what they are and by which side, never by a place."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun

Role = Literal["left", "right", "top", "underside", "front", "rear", "center", "corner"]


class DimensionEnd(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What a dimension holds on to.

    Attributes
    ----------
    to : the thing, as `cell:u4`
    role : which side of it, as it is seen in its view; front and rear are the lower and the upper side of a plan
    corner : which corner of its outline in that view, from 1 on; 0 for other roles
    """

    to: str
    role: Role
    corner: int = 0

    @property
    def side(self) -> str:
        """What is typed for it: `left`, `corner 3`."""
        return f"corner {self.corner}" if self.role == "corner" else self.role


class Dimension(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A dimension by hand.

    Attributes
    ----------
    view : letter of the wall or face on whose elevation it stands; empty: the plan
    along : which way it measures: across the view, or up
    offset : mm of paper that its line stands off what it measures; below 0 on the other side (below, or at the left)
    text : in place of the figure; empty: the true length
    """

    id: str
    view: str
    a: DimensionEnd
    b: DimensionEnd
    along: Literal["x", "y"]
    offset: float = 12.0
    text: str = ""


DIMENSION = Noun(
    kind=Kind.DIMENSION,
    word="dimension",
    prefix="h",
    rows="dimensions",
)
