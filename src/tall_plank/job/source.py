"""What a drawn, made or selected thing belongs to: its kind and its id."""

from __future__ import annotations

from enum import StrEnum

import msgspec


class Kind(StrEnum):
    """Every kind of thing that can be selected."""

    ROOM = "room"
    WALL = "wall"
    RUN = "run"
    CELL = "cell"
    BAY = "bay"
    """A bay of the selected unit; its id is its path, such as 0.1."""
    PART = "part"
    """A part of a unit that is looked at by itself; its id is its place among the parts."""
    OPENING = "opening"
    COLUMN = "column"
    SOFFIT = "soffit"
    SLOPE = "slope"
    ROOF_WINDOW = "roof window"
    SERVICE = "service"
    MOLDING = "molding"
    ISLAND = "island"
    SLIDING = "sliding"
    WALL_FIELD = "wall field"
    GUIDE = "guide"
    UNDERLAY = "underlay"
    SECTION = "section"
    DETAIL = "detail"
    DIMENSION = "dimension"
    NOTE = "note"

    def of(self, thing_id: str) -> Source:
        """The thing of this kind with an id."""
        return Source(self, thing_id)


class Source(msgspec.Struct, frozen=True, cache_hash=True):
    """A thing by its kind and its id; as text `cell:u4`, as it stands in job files."""

    kind: Kind
    id: str

    def __str__(self) -> str:
        return f"{self.kind}:{self.id}"

    @classmethod
    def parse(cls, text: str) -> Source | None:
        """The source that a text such as `cell:u4` names; None where it names no kind."""
        kind, sign, thing_id = text.partition(":")
        return cls(Kind(kind), thing_id) if sign and kind in KINDS else None


KINDS = frozenset(kind.value for kind in Kind)
