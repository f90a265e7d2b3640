"""A boxed-down piece of ceiling."""

from __future__ import annotations

import msgspec

from tall_plank.job.source import Kind
from tall_plank.job.things.noun import Noun
from tall_plank.measure import ZERO, Length


class Corner(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A point on the floor, in the room's frame."""

    x: Length
    y: Length


class Soffit(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A boxed-down piece of ceiling: its outline, and how far it comes down below the ceiling.

    Attributes
    ----------
    over : id of a run that it stands on; outline and drop then follow its units, notched round taller ones
    reveal : how far its face is set in behind the fronts of those units
    """

    id: str
    corners: tuple[Corner, ...]
    drop: Length
    over: str = ""
    reveal: Length = ZERO


SOFFIT = Noun(
    kind=Kind.SOFFIT,
    word="soffit",
    prefix="f",
    rows="soffits",
)
