"""Treatments: how a wall is covered, apart from the walls that have it, so that several share one.

A treatment is a tree of zones: each is split into others, or covered. Lengths that are None are the shop standard's.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

import msgspec

from tall_plank.job.choices import WallHold
from tall_plank.measure import Length

PanelStyle = Literal["planted", "framed", "raised", "molded"]
"""A frame planted on a board; frame and panel; fields planted on a board; moldings planted on a board."""

ArchKind = Literal["round", "segmental", "elliptical", "pointed"]
PanelTakers = Literal["ends", "evenly", "last", "panel"]
SlatStart = Literal["fitted", "left", "centered"]
"""Gaps are fitted so that whole slats end both sides; from the left end; about the middle."""


class Panels(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="panels"):
    """Equal panels in a frame of stiles and rails.

    Attributes
    ----------
    target : width that is wanted: every stretch of a wall gets as many as come nearest to it, or a count of its own
    rows : of panels above one another
    stile, end_stile, top_rail, mid_rail, bottom_rail, board, frame, step : None: the standard's; end stiles without
        a width of their own are as wide as stiles
    rest : who takes what is left of rounding
    finish, panel_finish : codes; empty: that of fronts; panels: that of the frame
    molding : code of a profile inside each panel's edge, or that makes the panel; empty: none
    """

    style: PanelStyle = "planted"
    target: Length = Length("600mm", 600.0)
    rows: int = 1
    stile: Length | None = None
    end_stile: Length | None = None
    top_rail: Length | None = None
    mid_rail: Length | None = None
    bottom_rail: Length | None = None
    board: Length | None = None
    frame: Length | None = None
    step: Length | None = None
    rest: PanelTakers = "ends"
    finish: str = ""
    panel_finish: str = ""
    molding: str = ""


class SlatStep(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A slat and the gap after it; None: the standard's."""

    width: Length | None = None
    gap: Length | None = None


class Slats(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="slats"):
    """A repeating pattern of slats.

    Attributes
    ----------
    pattern : the slats that repeat
    angle : degrees by which they lean to the right from upright
    start : where the pattern begins
    least_gap, most_gap : between which gaps may be fitted; None: half and twice the typed ones
    least : narrower or shorter pieces are left out
    depth, board : None: the standard's; a board of 0: none, they stand on the battens
    finish, board_finish : codes; empty: that of fronts; the board: that of the slats
    """

    pattern: tuple[SlatStep, ...] = (SlatStep(),)
    angle: float = 0.0
    start: SlatStart = "fitted"
    least_gap: Length | None = None
    most_gap: Length | None = None
    least: Length = Length("10mm", 10.0)
    depth: Length | None = None
    board: Length | None = None
    finish: str = ""
    board_finish: str = ""


class Boards(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="boards"):
    """Flat boards with a gap between them.

    Attributes
    ----------
    count : side by side; 0: as few as the boards of the stock allow
    gap : between them; None: the standard's shadow gap
    thickness : None: the standard's board
    groove, groove_pitch, groove_depth : upright grooves in their faces; a groove of 0: none
    """

    count: int = 0
    gap: Length | None = None
    thickness: Length | None = None
    groove: Length = Length("0mm", 0.0)
    groove_pitch: Length = Length("50mm", 50.0)
    groove_depth: Length = Length("3mm", 3.0)
    finish: str = ""


class Modules(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="modules"):
    """A rectangle of four mitred pieces round a center, repeated.

    Attributes
    ----------
    ring : width of the pieces round the center; 0: the center is the whole module
    gap : between modules; None: the standard's shadow gap
    start : from the middle of the zone, or its lower left corner
    edges : modules are cut at the edges of the zone, or what is left there stays bare
    least : cut pieces that are narrower are left out
    board : thickness of the board behind; None: the standard's; 0: none, they stand on the battens
    ring_thickness, center_thickness : None: the standard's frame; a center of 0: the board behind is seen
    """

    width: Length = Length("750mm", 750.0)
    height: Length = Length("750mm", 750.0)
    ring: Length = Length("200mm", 200.0)
    gap: Length | None = None
    start: Literal["centered", "corner"] = "centered"
    edges: Literal["cut", "bare"] = "cut"
    least: Length = Length("20mm", 20.0)
    board: Length | None = None
    ring_thickness: Length | None = None
    center_thickness: Length = Length("0mm", 0.0)
    finish: str = ""
    center_finish: str = ""


class Bare(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="bare"):
    """The wall as it is."""


class ZoneBand(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A band of a zone: a height or width of its own, or a share of what is left."""

    zone: Zone
    size: Length | None = None
    share: float = 1.0


class Bands(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="bands"):
    """A zone split into bands: from below up, or from left to right."""

    bands: tuple[ZoneBand, ...]
    way: Literal["up", "along"] = "up"


class Arched(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="arched"):
    """A zone with an arched one inside it.

    Attributes
    ----------
    width, height : of the arched zone, its rise included
    left : from the zone's left side; None: in the middle
    bottom : above the zone's lower side
    rise : None: half the width, or a quarter where the arch is segmental or elliptical
    border : a zone of its own runs so wide around the arch; 0: none
    """

    inner: Zone
    outer: Zone
    kind: ArchKind = "round"
    width: Length = Length("900mm", 900.0)
    height: Length = Length("1800mm", 1800.0)
    left: Length | None = None
    bottom: Length = Length("0mm", 0.0)
    rise: Length | None = None
    border: Length = Length("0mm", 0.0)
    edge: Zone = Bare()


class Parted(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="parted"):
    """A zone parted by a line or an arc, given by its ends as shares of the zone's width and height.

    Attributes
    ----------
    x1, y1, x2, y2 : shares, from 0 to 1
    rise : how far the arc stands off the line between its ends, to its left; 0: a line
    left, right : the zones at its left and right, seen along the line
    """

    left: Zone
    right: Zone
    x1: float = 0.0
    y1: float = 0.5
    x2: float = 1.0
    y2: float = 0.5
    rise: Length = Length("0mm", 0.0)


class Raked(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="raked"):
    """A zone with a band that rises along a stair. Stiles in it stay plumb, rails rake.

    Attributes
    ----------
    inner, below, above : the band itself, and what lies under and over it
    angle : degrees from level; above 0 it rises to the right
    start : its lower line above the zone's lower side, at the end where it is lower
    height : plumb, foot and cap included
    foot, cap : codes of profiles that run along its lower and its upper line; empty: none
    """

    inner: Zone
    below: Zone = Bare()
    above: Zone = Bare()
    angle: float = 35.0
    start: Length = Length("0mm", 0.0)
    height: Length = Length("900mm", 900.0)
    foot: str = ""
    cap: str = ""


class Halves(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True, tag="halves"):
    """A zone whose right half is the mirror image of its left one, whatever that is."""

    half: Zone


Zone = Panels | Slats | Boards | Modules | Bare | Bands | Arched | Parted | Raked | Halves
Cover = Panels | Slats | Boards | Modules
ZonePath = tuple[int, ...]
"""Place of a zone in its tree: the numbers of children from the whole zone down."""


class Treatment(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """How walls are covered.

    Attributes
    ----------
    hold : how it is held to the wall; empty: the standard's way
    fixing : mm that battens stand off the wall; None: their thickness, 0 where it is glued or screwed
    """

    id: str
    name: str
    zone: Zone
    hold: WallHold | Literal[""] = ""
    fixing: Length | None = None


def children_of(zone: Zone) -> tuple[Zone, ...]:
    """The zones that a zone is split into."""
    match zone:
        case Bands():
            return tuple(b.zone for b in zone.bands)
        case Arched():
            return (zone.inner, zone.outer, zone.edge)
        case Parted():
            return (zone.left, zone.right)
        case Raked():
            return (zone.inner, zone.below, zone.above)
        case Halves():
            return (zone.half,)
    return ()


def with_children(zone: Zone, children: tuple[Zone, ...]) -> Zone:
    """A zone with others in place of those that it is split into."""
    match zone:
        case Bands():
            bands = zip(zone.bands, children, strict=True)
            return msgspec.structs.replace(zone, bands=tuple(msgspec.structs.replace(b, zone=c) for b, c in bands))
        case Arched():
            inner, outer, edge = children
            return msgspec.structs.replace(zone, inner=inner, outer=outer, edge=edge)
        case Parted():
            left, right = children
            return msgspec.structs.replace(zone, left=left, right=right)
        case Raked():
            inner, below, above = children
            return msgspec.structs.replace(zone, inner=inner, below=below, above=above)
        case Halves():
            return Halves(children[0])
    return zone


def zones_of(zone: Zone, path: ZonePath = ()) -> Iterator[tuple[ZonePath, Zone]]:
    """Every zone of a tree with its place, the whole one first."""
    yield path, zone
    for i, child in enumerate(children_of(zone)):
        yield from zones_of(child, (*path, i))


def zone_at(zone: Zone, path: ZonePath) -> Zone | None:
    """The zone at a place of a tree; None where there is none."""
    for i in path:
        children = children_of(zone)
        if not 0 <= i < len(children):
            return None
        zone = children[i]
    return zone


def with_zone(zone: Zone, path: ZonePath, new: Zone) -> Zone:
    """A tree with another zone at a place that it has."""
    if not path:
        return new
    children = children_of(zone)
    i = path[0]
    return with_children(zone, (*children[:i], with_zone(children[i], path[1:], new), *children[i + 1 :]))
