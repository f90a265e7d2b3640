"""The bay tree of a unit: clear spaces split by shelves, dividers or nothing, with the fronts that close them."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

import msgspec

from tall_plank.job.choices import Side
from tall_plank.measure import Length

FrontKind = Literal[
    "door", "pair", "drawer", "fixed", "appliance", "flap", "drop", "pullout", "inner", "bifold", "pocket"
]
DrawnFront = FrontKind | Literal["machine", "sliding leaf", "filler"]
"""A front as it is made: also an appliance's own face, a leaf of sliding doors, a filler."""
Between = Literal["nothing", "shelf", "divider"]
Start = Literal["", "low", "high", "middle"]

INSIDE = ("inner",)
"""Fronts that stand inside a bay, behind what closes it: drawers behind a door."""

DRAWERS = ("drawer", *INSIDE)
"""Fronts with a drawer box."""

PULLED = (*DRAWERS, "pullout")
"""Fronts whose boxes or frames take all the room of their bay."""

HINGED = ("door", "bifold", "pocket")
"""Fronts that hang on one side."""


class Split(StrEnum):
    """How a bay is split: not at all, in rows from the top down, or in columns from the left."""

    NONE = "none"
    ROWS = "rows"
    COLUMNS = "columns"


class Front(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What closes a bay. `hand` is the side of the hinges, seen from the front; a flap is hinged above, a drop below,
    a pull-out carries its contents on runners, a bifold is two leaves hinged to one another, a pocket door is pushed
    back into the side; an inner drawer stands behind another front. A front of a divided bay covers all of it.

    `style` and `handle` are its own; empty: those of its unit. `from_edge` and `from_end` place its handle: on a door
    from the opening edge and from the upper or lower end, on others from the end alone; None: by the standard.
    """

    kind: FrontKind
    hand: Side = "left"
    style: str = ""
    handle: str = ""
    from_edge: Length | None = None
    from_end: Length | None = None


class Fitted(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A fitting in a bay.

    Attributes
    ----------
    code : of the stock
    start : it stands on the board below, hangs under the board above, or is centred in the height; empty: as such a
        fitting does
    at : distance from that board (or from the middle, upwards); None: what the fitting itself asks for
    """

    code: str
    start: Start = ""
    at: Length | None = None


class Bay(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A clear space.

    Attributes
    ----------
    split, between : how it is divided and by what
    children : rows from the top down, columns from the left
    size : its typed size in its parent: the clear size between shelves or dividers, the height of the front
        where nothing stands between; None takes a share
    weight : its part in the share-out where no size is typed
    front : what closes it
    shelves : number of adjustable shelves
    appliance : code of what is built into it; the bay has to give the opening that it asks for
    fittings : what goes into it, in the order in which it was put in
    """

    split: Split = Split.NONE
    between: Between = "nothing"
    children: tuple[Bay, ...] = ()
    size: Length | None = None
    weight: float = 1.0
    front: Front | None = None
    shelves: int = 0
    appliance: str = ""
    fittings: tuple[Fitted, ...] = ()

    def at(self, path: tuple[int, ...]) -> Bay:
        """The bay at a path of child numbers."""
        bay = self
        for i in path:
            bay = bay.children[i]
        return bay

    def paths(self, start: tuple[int, ...] = ()) -> tuple[tuple[int, ...], ...]:
        """Paths of this bay and all inside it, a bay before its children."""
        found = [start]
        for i, child in enumerate(self.children):
            found += child.paths((*start, i))
        return tuple(found)

    def replaced(self, path: tuple[int, ...], bay: Bay) -> Bay:
        """This tree with the bay at a path replaced."""
        if not path:
            return bay
        i = path[0]
        children = (*self.children[:i], self.children[i].replaced(path[1:], bay), *self.children[i + 1 :])
        return msgspec.structs.replace(self, children=children)


class Insert(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """The inside of a bay, kept under a name to be put into other bays; it takes on their sizes."""

    name: str
    bay: Bay


def mirrored(bay: Bay) -> Bay:
    """The bay tree seen in a mirror: columns turned round, hands swapped (RN7)."""
    front = bay.front
    if front is not None:
        front = msgspec.structs.replace(front, hand="right" if front.hand == "left" else "left")
    children = tuple(mirrored(child) for child in bay.children)
    if bay.split is Split.COLUMNS:
        children = children[::-1]
    return msgspec.structs.replace(bay, front=front, children=children)
