"""A line at which a room is cut open for a drawing."""

from __future__ import annotations

from typing import Literal

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length


class Section(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A line at which a room is cut open for a drawing, in the room's plan.

    Attributes
    ----------
    x1, y1, x2, y2 : its ends
    looks : to which side of the way from its first end to its second one it is looked
    """

    id: str
    x1: Length
    y1: Length
    x2: Length
    y2: Length
    looks: Literal["left", "right"] = "left"


SECTION = Noun(
    kind=Kind.SECTION,
    word="section",
    prefix="q",
    rows="sections",
)
