"""A unit: its template, its own values and its bays. Where it stands is told by the cell that places it."""

from __future__ import annotations

import msgspec

from tall_plank.job.bays import Bay
from tall_plank.measure import Length


class Own(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A value that this unit decides itself: a length, or a choice by its code."""

    key: str
    value: Length | str


class Unit(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """One design of a unit; several cells may share it (linked copies).

    Attributes
    ----------
    id : short and stable
    template : code of its template in the job
    bay : its bay tree, copied from the template and then its own
    own : its own values, sorted by key; what is not here is inherited
    """

    id: str
    template: str
    bay: Bay
    own: tuple[Own, ...] = ()

    def own_value(self, key: str) -> Length | str | None:
        for item in self.own:
            if item.key == key:
                return item.value
        return None

    def with_own(self, key: str, value: Length | str | None) -> Unit:
        """This unit with an own value, or without it (None: inherited again)."""
        rest = tuple(item for item in self.own if item.key != key)
        if value is not None:
            rest = tuple(sorted((*rest, Own(key, value)), key=lambda item: item.key))
        return msgspec.structs.replace(self, own=rest)
