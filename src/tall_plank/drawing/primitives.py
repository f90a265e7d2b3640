"""The primitives of a drawing: mm of the real thing, x to the right, y up. Replaying never changes them."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

import msgspec

from tall_plank.job import Source


class Pen(StrEnum):
    """Line widths after ISO 128-2 (from memory): wide to narrow 2:1. Broken lines mean one thing each: dashed what is
    hidden behind, long strokes what hangs above, strokes with two dots what moves and how, a chain of strokes and dots
    an axis."""

    WIDE = "wide"
    MEDIUM = "medium"
    NARROW = "narrow"
    DASHED = "dashed"
    ABOVE = "above"
    MOVING = "moving"
    CHAIN = "chain"
    NONE = "none"


PEN_MM = {
    Pen.WIDE: 0.5, Pen.MEDIUM: 0.35, Pen.NARROW: 0.18, Pen.DASHED: 0.25, Pen.ABOVE: 0.25, Pen.MOVING: 0.18,
    Pen.CHAIN: 0.18, Pen.NONE: 0.0,
}  # fmt: skip
"""Width on paper, mm."""

DASHES: dict[Pen, tuple[float, ...]] = {
    Pen.DASHED: (2.2, 0.6), Pen.ABOVE: (4.4, 1.2), Pen.MOVING: (4.4, 0.6, 0.1, 0.6, 0.1, 0.6),
    Pen.CHAIN: (4.4, 0.6, 0.1, 0.6),
}  # fmt: skip
"""Strokes and gaps of broken lines, mm of paper: 12 and 3, 24, 3 and 0.5 widths of the narrow line, after ISO 128-2
(from memory)."""


TONES = {
    "wall": "#FBFAF7",
    "masonry": "#D8D2C6",
    "floor": "#FFFFFF",
    "opening": "#F3F1EB",
    "glass": "#E6EEF2",
    "door": "#F1ECE2",
    "inside": "#F4EEE2",
    "unit": "#F3F1EC",
    "appliance": "#ECECEA",
    "basin": "#EDF1F3",
    "ink": "#23282B",
    "board": "#EFE4CC",
    "offcut": "#FAF6EC",
    "column": "#ECE7DC",
    "niche": "#E9E4DA",
    "ceiling": "#F1EEE7",
    "fault": "#E9B4A6",
}
"""Tones of drawings that are no finish."""

INK, QUIET = "#23282B", "#636A6E"


Hatch = Literal["", "panel", "ply", "timber", "worktop", "glass", "masonry", "metal"]
"""What is hatched: boards of particles or fibers, plywood and veneered boards, solid timber, worktops, glass, walls."""


class Layer(StrEnum):
    """What a primitive belongs to; a layer of its own in DXF."""

    WALL = "wall"
    OPENING = "opening"
    CARCASS = "carcass"
    FRONT = "front"
    HANDLE = "handle"
    TRIM = "trim"
    APPLIANCE = "appliance"
    HUNG = "hung"
    MAKING = "making"
    CUT = "cut"
    LABEL = "label"
    DIMENSION = "dimension"


class Line(msgspec.Struct, frozen=True):
    """A straight line. `source` is what it draws; `over`: it lies on a finish, whatever its layer."""

    x1: float
    y1: float
    x2: float
    y2: float
    pen: Pen
    layer: Layer
    source: Source | None = None
    over: bool = False


class Shape(msgspec.Struct, frozen=True):
    """A closed outline. `fill` is a finish color ``#RRGGBB`` or a tone name, empty where it is open; `over` as for a
    line; `hatch` what it is made of where it is cut: `holes` are left out of it."""

    points: tuple[tuple[float, float], ...]
    pen: Pen
    layer: Layer
    source: Source | None = None
    fill: str = ""
    grain: Literal["", "x", "y"] = ""
    over: bool = False
    hatch: Hatch = ""
    holes: tuple[tuple[tuple[float, float], ...], ...] = ()


class Arc(msgspec.Struct, frozen=True):
    """A circular arc, counter-clockwise from `start` to `end` in degrees; 0 to 360 is a circle."""

    x: float
    y: float
    radius: float
    start: float
    end: float
    pen: Pen
    layer: Layer
    source: Source | None = None

    @property
    def sweep(self) -> float:
        """Degrees from its start to its end, 360 for a circle."""
        return (self.end - self.start) % 360 or 360.0


class Text(msgspec.Struct, frozen=True):
    """A text. `size` is the height of capitals on paper, mm; `angle` in degrees; `align` about (x, y)."""

    x: float
    y: float
    text: str
    size: float
    layer: Layer
    source: Source | None = None
    align: Literal["left", "middle", "right"] = "middle"
    angle: float = 0.0
    bold: bool = False
    quiet: bool = False
    rise: float = 0.0
    """mm on paper that the text stands above (x, y), at right angles to its line."""
    backed: bool = False
    """Whether a white ground lies under it, so that it reads on any finish."""
    within: float = 0.0
    """mm of the real thing that it has to fit into; where it would be wider, it stands beside it. 0: anywhere."""
    shift: tuple[float, float] = (0.0, 0.0)
    """mm of paper to the right and up that it was put aside by hand, on a leader; 0, 0: not at all."""


class Dim(msgspec.Struct, frozen=True):
    """A dimension between two points along x or y.

    Attributes
    ----------
    row : how many rows of dimensions it stands away from `base`; negative on the other side
    base : the coordinate (y for a dimension along x, x for one along y) its rows count from
    key : what typing over it sets, empty where it cannot be typed
    attention : a clear distance of the selected thing
    name : what is written at its far end, on paper: what its chain measures to
    away : mm of paper that a dimension by hand stands off its base; 0: by its row
    """

    a: float
    b: float
    base: float
    row: int
    along: Literal["x", "y"]
    text: str
    source: Source | None = None
    key: str = ""
    attention: bool = False
    name: str = ""
    away: float = 0.0


Item = Line | Shape | Arc | Text | Dim


class Drawing(msgspec.Struct, frozen=True, cache_hash=True):
    """A recorded drawing and the extent of what it draws, dimensions left out.

    Attributes
    ----------
    mark : what the number of its sheet ends with: the same as long as it is about the same thing
    scale : real mm per mm of paper that it is drawn for; 0: any
    pictorial : whether it is a picture: nothing can be measured on it, and it has no scale
    key : what it is called where it is put on a page by hand; it stays when things before it come or go
    """

    title: str
    items: tuple[Item, ...]
    x0: float
    y0: float
    x1: float
    y1: float
    mark: str = ""
    scale: float = 0.0
    key: str = ""
    pictorial: bool = False

    @property
    def is_words(self) -> bool:
        """Whether it is a table or a list: it has no scale."""
        return all(isinstance(i, Text) or (isinstance(i, Line) and i.layer is Layer.LABEL) for i in self.items)

    @property
    def has_scale(self) -> bool:
        """Whether something can be measured on it."""
        return not self.is_words and not self.pictorial

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.y1 - self.y0


def rectangle(x: float, y: float, w: float, h: float) -> tuple[tuple[float, float], ...]:
    """The four corners of an upright rectangle."""
    return ((x, y), (x + w, y), (x + w, y + h), (x, y + h))
