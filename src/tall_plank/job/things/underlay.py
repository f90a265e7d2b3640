"""An image of a plan under the drawing."""

from __future__ import annotations

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import Length


class Underlay(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """An image of a plan under the drawing, to trace over.

    Attributes
    ----------
    image : name of the picture among the job's images
    x, y : the room's place of its lower left corner
    width : what the image's width stands for
    turn : degrees counter-clockwise about its lower left corner
    """

    id: str
    image: str
    x: Length
    y: Length
    width: Length
    turn: float = 0.0
    shown: bool = True


UNDERLAY = Noun(
    kind=Kind.UNDERLAY,
    word="plan image",
    prefix="b",
    rows="underlays",
)
