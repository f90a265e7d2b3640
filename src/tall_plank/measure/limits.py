"""The one table of what makes sense: the least and the most of every number and length that is read or typed.

Boxes, readers and edits look here. A value that has no row is held to the widest range of its kind.
"""

from __future__ import annotations

import math
import re
from decimal import Decimal
from enum import Enum
from typing import Any, NamedTuple

import msgspec

from tall_plank.measure.errors import PlankError
from tall_plank.measure.lengths import MAX_TEXT, Length
from tall_plank.measure.remembered import remembered
from tall_plank.measure.units import TOLERANCE


class Range(NamedTuple):
    """The least and the most that make sense, both included; mm unless the row says otherwise."""

    least: float
    most: float

    def holds(self, value: Decimal | float) -> bool:
        """Whether a value is in it; what is no number is not."""
        return self.least - TOLERANCE <= value <= self.most + TOLERANCE

    def __str__(self) -> str:
        return f"{self.least:g} to {self.most:g}"


ANY = Range(-1_000_000.0, 1_000_000.0)
"""Of a length or number without a row: a kilometre is more than any room."""

COUNT = Range(0, 1_000_000_000)
"""Of a whole number without a row."""

MOST_TEXT = 4000
"""Characters of a text; a name is cut shorter where it is typed."""

MOST_ROWS = 200_000
"""Of a list inside a job or a file."""

DEEPEST = 40
"""Things inside one another, such as bays in bays."""

ON_WALL = Range(-100_000.0, 100_000.0)
SHARE = Range(0.01, 1000.0)

SIZES = {
    "height": Range(20.0, 4000.0),
    "depth": Range(50.0, 2000.0),
    "corner_leg": Range(200.0, 3000.0),
    "width": Range(1.0, 50_000.0),
}
"""mm of a carcass, whoever gives the size."""

CONSTRUCTION = Range(0.0, 3000.0)
"""mm of any value of a shop standard."""

LIMITS: dict[str, dict[str, Range]] = {
    # --- rooms and what is placed in them
    "Room": {"height": Range(1500.0, 12_000.0), "wall_thickness": Range(20.0, 1500.0)},
    "Rectangle": {"width": Range(500.0, 50_000.0), "depth": Range(500.0, 50_000.0)},
    "Sides": {"heading": Range(-3600.0, 3600.0)},
    "Side": {"length": Range(10.0, 100_000.0), "angle": Range(1.0, 359.0)},
    "WallOwn": {"thickness": Range(20.0, 1500.0), "height": Range(200.0, 12_000.0)},
    "Opening": {
        "x": ON_WALL, "width": Range(50.0, 50_000.0), "height": Range(50.0, 12_000.0), "sill": Range(0.0, 12_000.0),
        "reveal": Range(0.0, 1500.0), "depth": Range(0.0, 1500.0),
    },
    "Slope": {"low": Range(100.0, 12_000.0), "run": Range(100.0, 50_000.0)},
    "Soffit": {"drop": Range(10.0, 12_000.0), "reveal": Range(-300.0, 300.0)},
    "Corner": {"x": ON_WALL, "y": ON_WALL},
    "Column": {
        "x": ON_WALL, "y": ON_WALL, "width": Range(20.0, 20_000.0), "depth": Range(20.0, 20_000.0),
        "height": Range(50.0, 12_000.0),
    },
    "Service": {"x": ON_WALL, "y": ON_WALL, "height": Range(0.0, 12_000.0)},
    "RoomMolding": {"height": Range(0.0, 12_000.0), "out": Range(-1000.0, 1000.0)},
    "Island": {
        "x": ON_WALL, "y": ON_WALL, "length": Range(300.0, 20_000.0), "angle": Range(-3600.0, 3600.0),
        "gap": Range(0.0, 1500.0), "seating": Range(0.0, 1500.0),
    },
    "RoofWindow": {
        "x": ON_WALL, "width": Range(100.0, 20_000.0), "sill": Range(0.0, 12_000.0), "length": Range(100.0, 20_000.0),
    },
    "Guide": {"at": Range(0.0, 200_000.0)},
    "Underlay": {
        "x": Range(-500_000.0, 500_000.0), "y": Range(-500_000.0, 500_000.0), "width": Range(100.0, 500_000.0),
        "turn": Range(-3600.0, 3600.0),
    },
    "Picture": {"wide": Range(1, 20_000), "high": Range(1, 20_000)},
    # --- runs, units, bays
    "NamedValue": {"length": Range(0.0, 100_000.0)},
    "Run": {"start": Range(0.0, 100_000.0), "end": Range(0.0, 100_000.0), "bottom": Range(0.0, 4000.0)},
    "Cell": {"bottom": Range(0.0, 4000.0)},
    "WidthRule": {"length": SIZES["width"], "least": SIZES["width"], "most": Range(1.0, 50_000.0)},
    "Anchor": {"offset": ON_WALL},
    "Bay": {"size": Range(1.0, 3000.0), "weight": SHARE, "shelves": Range(0, 20)},
    "Front": {"from_edge": Range(0.0, 3000.0), "from_end": Range(0.0, 3000.0)},
    "Fitted": {"at": Range(0.0, 3000.0)},
    "SlidingDoors": {"overlap": Range(0.0, 300.0)},
    "Band": {"size": Range(10.0, 4000.0)},
    "BayRef": {"path": Range(0, 1000)},
    "Replaced": {"path": Range(0, 1000)},
    # --- worktops
    "Top": {"thickness": Range(10.0, 150.0), "joints": Range(0.0, 100_000.0), "splashback": Range(0.0, 2000.0)},
    "TopEdge": {"overhang": Range(-300.0, 1200.0)},
    "TopCut": {"x": ON_WALL, "back": ON_WALL, "width": Range(1.0, 5000.0), "depth": Range(1.0, 5000.0)},
    "TopPoint": {"x": ON_WALL, "out": ON_WALL, "bulge": Range(-1000.0, 1000.0)},
    # --- paneled walls
    "Limit": {"off": ON_WALL, "kept": ON_WALL},
    "WallField": {"clear": Range(0.0, 1000.0)},
    "OwnCount": {"path": Range(0, 1000), "stretch": Range(0, 200), "count": Range(1, 200)},
    "Treatment": {"fixing": Range(0.0, 500.0)},
    "Panels": {
        "target": Range(20.0, 5000.0), "rows": Range(1, 50), "step": Range(0.0, 100.0),
        **dict.fromkeys(("stile", "end_stile", "top_rail", "mid_rail", "bottom_rail"), Range(0.0, 2000.0)),
        "board": Range(0.0, 100.0), "frame": Range(3.0, 100.0),
    },
    "SlatStep": {"width": Range(2.0, 2000.0), "gap": Range(0.0, 2000.0)},
    "Slats": {
        "angle": Range(-80.0, 80.0), "least_gap": Range(0.0, 2000.0), "most_gap": Range(0.0, 4000.0),
        "least": Range(0.0, 500.0), "depth": Range(1.0, 300.0), "board": Range(0.0, 100.0),
    },
    "Boards": {
        "count": Range(0, 200), "gap": Range(0.0, 200.0), "thickness": Range(1.0, 100.0), "groove": Range(0.0, 100.0),
        "groove_pitch": Range(4.0, 2000.0), "groove_depth": Range(0.1, 100.0),
    },
    "Modules": {
        "width": Range(20.0, 5000.0), "height": Range(20.0, 5000.0), "ring": Range(0.0, 2500.0),
        "gap": Range(0.0, 200.0), "least": Range(1.0, 500.0), "board": Range(0.0, 100.0),
        "ring_thickness": Range(1.0, 100.0), "center_thickness": Range(0.0, 100.0),
    },
    "ZoneBand": {"size": Range(1.0, 50_000.0), "share": SHARE},
    "Arched": {
        "width": Range(10.0, 20_000.0), "height": Range(10.0, 12_000.0), "left": ON_WALL,
        "bottom": Range(0.0, 12_000.0), "rise": Range(1.0, 12_000.0), "border": Range(0.0, 2000.0),
    },
    "Raked": {"angle": Range(-60.0, 60.0), "start": Range(-12_000.0, 12_000.0), "height": Range(50.0, 12_000.0)},
    "Parted": {**dict.fromkeys(("x1", "y1", "x2", "y2"), Range(0.0, 1.0)), "rise": Range(-12_000.0, 12_000.0)},
    # --- drawings: ends of section lines on the plan; mm of paper
    "Section": dict.fromkeys(("x1", "y1", "x2", "y2"), Range(-100_000.0, 100_000.0)),
    "Dimension": {"offset": Range(-150.0, 150.0)},
    "DimensionEnd": {"corner": Range(0, 1000)},
    "Note": dict.fromkeys(("right", "up"), Range(-200.0, 200.0)),
    "Detail": {
        "x": ON_WALL, "z": Range(0.0, 12_000.0), "away": Range(0.0, 20_000.0), "size": Range(20.0, 2000.0),
        "scale": Range(1, 10),
    },
    # Digits of what stands on an issued sheet.
    "IssuedSheet": dict.fromkeys(("marks", "places"), Range(0, 2_000_000)),
    "OwnPage": {"number": Range(1, 10_000)},
    "PageView": {"x": Range(-1300.0, 1300.0), "y": Range(-1300.0, 1300.0), "scale": Range(0.1, 2000.0)},
    # --- standards and kinds; weights in kg
    "LengthValue": {"length": CONSTRUCTION},
    "HingeRule": {"height": Range(0.0, 10_000.0), "weight": Range(0.0, 1000.0), "count": Range(0, 20)},
    "LegRule": {"width": Range(0.0, 10_000.0), "count": Range(0, 100)},
    "Template": {
        "width": SIZES["width"], "least": SIZES["width"], "most": SIZES["width"], "cover": Range(0.0, 3000.0),
        "vent": Range(0.0, 3000.0),
    },
    "Parameter": {"least": ANY, "most": ANY},
    # --- rows of cut lists
    "Listed": {
        "length_mm": Range(0.5, 100_000.0), "width_mm": Range(0.5, 100_000.0), "qty": Range(0, 100_000),
        "price": Range(0.0, 10_000_000.0),
    },
    # --- the saw; seconds of a search
    "Cutting": {
        "kerf": Range(0.0, 100.0), "trim": Range(0.0, 1000.0), "turns": Range(0, 9), "keep_length": Range(0.0, 6000.0),
        "keep_width": Range(0.0, 6000.0), "effort": Range(1, 9), "seconds": Range(0.0, 3600.0),
        "gap": Range(0.0, 100.0), "pack": Range(0.0, 1000.0), "opens": Range(0.0, 1000.0),
    },
    "LaidBoard": {"length": Range(1.0, 100_000.0), "width": Range(1.0, 100_000.0), "offcuts": Range(0.0, 100_000.0)},
    "LaidPart": {
        "x": Range(-1.0, 100_000.0), "y": Range(-1.0, 100_000.0), "length": Range(0.1, 100_000.0),
        "width": Range(0.1, 100_000.0), "angle": Range(-3600.0, 3600.0), "area": Range(0.0, 1e10),
    },
    "LabelSheet": {
        "paper": Range(10.0, 2000.0), "across": Range(1, 40), "down": Range(1, 40), "size": Range(5.0, 2000.0),
        "left": Range(0.0, 1200.0), "top": Range(0.0, 1200.0), "pitch": Range(0.0, 2000.0),
    },
    # --- stock; densities in kg/m³, stiffness in N/mm², loads in kg, angles in degrees
    "Board": {
        "thickness": Range(0.1, 300.0), "length": Range(10.0, 20_000.0), "width": Range(10.0, 20_000.0),
        "density": Range(1.0, 25_000.0), "modulus": Range(0.0, 500_000.0),
    },
    "Edging": {"thickness": Range(0.01, 100.0), "width": Range(0.0, 1000.0), "strips": Range(1.0, 1_000_000.0)},
    "Fitting": {
        **dict.fromkeys(
            (
                "length", "reach", "centers", "projection", "side_clearance", "height", "free_below", "least_width",
                "most_width", "least_depth", "cut", "gap", "gauge",
            ),
            Range(0.0, 10_000.0),
        ),
        "capacity": Range(0.0, 10_000.0), "moment": Range(0.0, 1_000_000.0), "bars": Range(1.0, 20_000.0),
        "front_angle": Range(0.0, 360.0), "angle_play": Range(0.0, 180.0), "swing": Range(0.0, 360.0),
    },
    "Hole": {
        "dx": Range(-5000.0, 5000.0), "dy": Range(-5000.0, 5000.0), "diameter": Range(0.1, 500.0),
        "depth": Range(0.0, 1000.0),
    },
    "Appliance": dict.fromkeys(
        (
            "width", "height", "depth", "opening_width", "opening_height", "opening_depth", "cut_width", "cut_depth",
            "vent", "clear_front",
        ),
        Range(0.0, 5000.0),
    ),
    "Profile": {
        "points": Range(-2000.0, 2000.0), "length": Range(1.0, 20_000.0), "lengths": Range(1.0, 20_000.0),
        "spring": Range(0.0, 80.0),
    },
    # --- money
    "PriceRow": {"price": Range(0, 10_000_000), "pack": Range(0, 1_000_000), "least_qty": Range(0, 1_000_000)},
    "LaborRow": {"minutes": Range(0, 100_000)},
    "PriceBook": {
        "labor_rate": Range(0, 100_000), "delivery": Range(0, 10_000_000), "board_waste_percent": Range(0, 300),
        "edging_waste_percent": Range(0, 300),
    },
    # A margin of 100 % has no price.
    "Pricing": {
        "overhead": Range(0, 500), "margin": Range(0, 95), "discount": Range(0, 100), "tax": Range(0, 100),
        "bought_over": Range(0, 1000),
    },
    # --- machines; feeds in mm/min, speeds in turns a minute, times in s
    "Tool": {
        "number": Range(1, 999), "diameter": Range(0.1, 300.0), "length": Range(0.1, 1000.0),
        "feed": Range(1.0, 200_000.0), "plunge": Range(1.0, 200_000.0), "speed": Range(1.0, 200_000.0),
    },
    "Clamp": {
        "x": Range(-1000.0, 50_000.0), "y": Range(-1000.0, 50_000.0), "length": Range(0.1, 20_000.0),
        "width": Range(0.1, 20_000.0), "height": Range(0.0, 2000.0),
    },
    "Machine": {
        "bed_length": Range(10.0, 50_000.0), "bed_width": Range(10.0, 50_000.0), "travel": Range(1.0, 5000.0),
        "safe_height": Range(0.1, 5000.0), "into_spoil": Range(0.0, 20.0), "rapid": Range(1.0, 1_000_000.0),
        "step_down": Range(0.1, 300.0), "margin": Range(0.0, 5000.0), "tool_change_seconds": Range(0.0, 3600.0),
        "tab_width": Range(0.1, 500.0), "tab_height": Range(0.0, 300.0), "tabs_below": Range(0.0, 100_000_000.0),
        "lead": Range(0.0, 500.0), "spindle_wait": Range(0.0, 120.0), "chord": Range(0.001, 0.5),
        "skin": Range(0.05, 3.0), "outline_tool": Range(0, 999),
    },
}  # fmt: skip
"""Name of a kind of value -> its field -> what makes sense there."""


def limits_of(kind: type, key: str) -> Range:
    """What makes sense in a field of a kind of value."""
    return LIMITS.get(kind.__name__, {}).get(key, ANY)


def in_sense(key: str, value: Decimal | float, span: Range, where: str) -> None:
    """Raises PlankError naming the value where it is no number, or outside what makes sense."""
    finite = value.is_finite() if isinstance(value, Decimal) else math.isfinite(value)
    if not finite or not span.holds(value):
        raise PlankError(f"{str(value)[:30]} is out of range.", f"{where}, {key}", f"Give {span}.")


def check_reach(*places: float | None) -> None:
    """Raises PlankError where a place to which something is moved is nowhere, or out of reach; mm."""
    for place in places:
        if place is not None and not (math.isfinite(place) and ANY.holds(place)):
            raise PlankError(f"{place:g} mm is out of reach.", "", "Move it less far.")


class Unsound(NamedTuple):
    """A value that makes no sense: where it is, what is wrong, what to do."""

    where: str
    what: str
    remedy: str


def check_sound(value: msgspec.Struct, where: str) -> None:
    """Raises PlankError naming the first value anywhere inside that is outside of what makes sense: numbers that are
    none, lengths that nothing has, texts that no file can hold."""
    found = unsound(value)
    if found is not None:
        place = f"{where}, {found.where}" if found.where else where
        raise PlankError(found.what, place, found.remedy)


@remembered(16384)
def unsound(value: msgspec.Struct) -> Unsound | None:
    """The first value inside a struct that makes no sense; None where all do."""
    kind = type(value)
    rows = LIMITS.get(kind.__name__, {})
    for name in kind.__struct_fields__:
        span = _own(value) if kind.__name__ == "Own" and name == "value" else rows.get(name)
        found = _looked(getattr(value, name), span, name)
        if found is not None:
            return found
    return None


def _own(value: Any) -> Range:
    """What makes sense for a value that a unit decides itself, by its key."""
    return ANY if value.key.startswith("parameter.") else SIZES.get(value.key, CONSTRUCTION)


def _looked(value: Any, span: Range | None, name: str) -> Unsound | None:
    if value is None or isinstance(value, bool | Enum):
        return None
    if isinstance(value, str):
        return _text(value, name, MOST_TEXT if span is None else round(span.most))
    if isinstance(value, Length):
        if len(value.text) > 4 * MAX_TEXT:
            return Unsound(name, f"The length “{value.text[:30]}…” is too long.", "Write it shorter.")
        return _text(value.text, name) or _number(value.mm, span or ANY, name, " mm")
    if isinstance(value, int):
        return _number(value, span or COUNT, name, "")
    if isinstance(value, float | Decimal):
        return _number(value, span or ANY, name, "")
    if isinstance(value, tuple):
        if len(value) > MOST_ROWS:
            return Unsound(name, f"There are {len(value):,} of them.", f"{MOST_ROWS:,} are taken.")
        for i, item in enumerate(value):
            found = _looked(item, span, f"{name}[{i}]")
            if found is not None:
                return found
        return None
    if isinstance(value, msgspec.Struct):
        found = unsound(value)
        if found is not None:
            return found._replace(where=f"{name}{_called(value)}, {found.where}")
    return None


def _called(value: msgspec.Struct) -> str:
    """How a thing is found again: its number, name, key or id."""
    for key in ("number", "code", "name", "key", "id"):
        found = getattr(value, key, "")
        if isinstance(found, str) and found:
            return f" {found[:40]}"
    return ""


def _number(value: Decimal | float, span: Range, name: str, unit: str) -> Unsound | None:
    finite = value.is_finite() if isinstance(value, Decimal) else isinstance(value, int) or math.isfinite(value)
    if finite and span.holds(value):
        return None
    shown = f"{value:g}" if isinstance(value, float) else str(value)
    return Unsound(name, f"{shown[:30]}{unit} is out of range.", f"Give {span}{unit}.")


_UNPRINTED = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ud800-\udfff\ufffe\uffff]")


def plain_text(text: str) -> str:
    """A text without signs that cannot be printed or kept."""
    return _UNPRINTED.sub("", text)


def _text(value: str, name: str, most: int = MOST_TEXT) -> Unsound | None:
    if len(value) > most:
        return Unsound(name, f"The text “{value[:30]}…” is too long.", f"{most} characters are taken.")
    odd = _UNPRINTED.search(value)
    if odd is not None:
        what = f"The text holds a sign that cannot be printed (U+{ord(odd.group()):04X})."
        return Unsound(name, what, "Take it out.")
    return None
