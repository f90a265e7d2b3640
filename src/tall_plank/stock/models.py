"""The things of stock, each a frozen value with a code. Lengths are mm, weights kg, money Decimal."""

from __future__ import annotations

from decimal import ROUND_CEILING, Decimal
from typing import Literal

import msgspec

from tall_plank.measure.outlines import Points
from tall_plank.measure.paths import Path, bounds, chords, rotated, shifted
from tall_plank.measure.remembered import remembered

Grain = Literal["length", "none"]


class Finish(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """How a surface looks. `color` is sRGB as ``#RRGGBB``; `grain` says whether it has a direction."""

    code: str
    name: str
    color: str
    grain: Grain = "none"
    roles: tuple[str, ...] = ()
    """Roles that this finish is offered for: front, carcass, worktop, plinth, drawer."""


SAW_TRIM = 10.0
"""mm that the saw takes off each edge of a board first (common practice)."""


class Board(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """A board that is sold whole. Its length is its grain."""

    code: str
    name: str
    finish: str
    thickness: float
    length: float
    width: float
    density: float
    """kg/m3."""
    grain: Grain = "none"
    supplier: str = ""
    cut_to_size: bool = False
    """Bought cut to its sizes: glass, mirror. It is on no cutting plan."""
    blank: bool = False
    """A worktop blank: cut to length only, as a bar is, never ripped into two worktops."""
    solid: bool = False
    """Solid timber: its parts are on the list for the timber yard, with rough sizes."""
    modulus: float = 0.0
    """N/mm2, of elasticity in bending along its length; 0: not known."""
    coated: bool = False
    """Finished after it is machined, as lacquered boards are: all its edges are finished with it."""

    @property
    def planned(self) -> bool:
        """Whether its parts lie on cutting plans: it is no pane bought to size and no blank."""
        return not self.cut_to_size and not self.blank

    @property
    def usable_length(self) -> float:
        """mm that are left of its length when both ends are trimmed."""
        return self.length - 2 * SAW_TRIM


class Edging(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """Edging from a roll, or in strips; it matches the finish of the same code."""

    code: str
    name: str
    finish: str
    thickness: float
    width: float
    supplier: str = ""
    strips: tuple[float, ...] = ()
    """mm of the strips it is sold in (solid lippings); none: a roll."""


class Hole(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """A hole that a fitting asks for, in the fitting's own frame: dx along its reach, dy across it."""

    dx: float
    dy: float
    diameter: float
    depth: float
    """mm; 0 goes right through."""


FittingKind = Literal[
    "hinge", "plate", "runner", "handle", "leg", "shelf_pin", "dowel", "hanger", "screw", "stay", "pullout", "drainer",
    "rail", "grille", "bed", "bracket", "fold_hinge", "joint_bolt", "basket", "cam", "cam_dowel", "biscuit", "tenon",
    "pocket_screw", "rack", "tray", "shoes", "bin", "light", "profile", "slide_profile", "slide_top",
    "slide_bottom", "slide_roller", "wall_fixing", "bifold", "pocket", "socket",
]  # fmt: skip


FittingRole = Literal["", "rail socket", "rail bracket", "bifold set", "pocket set", "glazing bead", "grille"]
"""What making needs of a stock without being asked for a code: one fitting fills each."""


INSIDE_KINDS = ("rail", "rack", "tray", "shoes", "bin", "basket", "light", "drainer", "bed", "bracket")
"""Kinds of fittings that are put into bays."""


HandleShape = Literal["bar", "bow", "knob", "cup", "edge"]
"""A bar on two posts, a bow, a knob, a cup, a profile over the edge (common practice)."""


class Fitting(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """Something bought that goes on or into a part.

    Attributes
    ----------
    length : mm; nominal length of a runner, overall length of a handle
    reach : mm; least clear depth that a runner needs
    capacity : kg that it carries (runners, hangers, legs)
    centers : mm between the hole centres of a handle
    projection : mm that it stands out
    side_clearance : mm that a runner takes on each side of its drawer box
    consumable : dowels, screws: bought by the box, left out of the count of fittings
    height : mm of clear height that it takes in a bay
    free_below : mm that stay free under it: what hangs from a rail, what is reached from above
    least_width, most_width : mm of clear width that it fits; 0: any
    least_depth : mm of clear depth that it needs
    cut : mm that it is shorter than the bay's clear width, where it is cut to length; 0: as it is
    pulls : it is pulled out on runners, so that nothing may hinder it in front
    gap : mm that it keeps from the board that it is placed from
    start : the board that it is placed from by itself: low, high, or centred
    moment : what a stay holds at the front's middle, kg x mm (flaps), 0: by its capacity
    shape : how a handle looks
    picture : name of its image among the job's pictures; empty: it is drawn from its sizes
    bars : mm of the bars that it is sold in, where it is cut to length from bars
    role : what it fills in making; empty: nothing that is not asked for by its code
    front_angle, angle_play : degrees inside the unit between a front and the upright that a hinge is made for, and by
        how much either way it may be another
    swing : degrees that a hinge opens
    on_frame : a hinge whose base is screwed to the edge of a face frame, before which the front lies
    gauge : mm; diameter of a screw
    """

    code: str
    name: str
    kind: FittingKind
    supplier: str = ""
    length: float = 0.0
    reach: float = 0.0
    capacity: float = 0.0
    centers: float = 0.0
    projection: float = 0.0
    side_clearance: float = 0.0
    holes: tuple[Hole, ...] = ()
    consumable: bool = False
    finish: str = ""
    height: float = 0.0
    free_below: float = 0.0
    least_width: float = 0.0
    most_width: float = 0.0
    least_depth: float = 0.0
    cut: float = 0.0
    pulls: bool = False
    gap: float = 0.0
    start: Literal["low", "high", "middle"] = "low"
    moment: float = 0.0
    shape: HandleShape = "bar"
    picture: str = ""
    bars: tuple[float, ...] = ()
    role: FittingRole = ""
    front_angle: float = 90.0
    angle_play: float = 7.5
    swing: float = 110.0
    on_frame: bool = False
    gauge: float = 0.0

    @property
    def is_inside(self) -> bool:
        """Whether it is put into a bay."""
        return self.kind in INSIDE_KINDS

    @property
    def is_butt(self) -> bool:
        """Whether a hinge is screwed to edges, without a cup in the door."""
        return self.kind == "hinge" and not any(hole.diameter >= 20.0 for hole in self.holes)


ApplianceKind = Literal[
    "dishwasher", "oven", "sink", "hob", "washer", "dryer", "microwave", "fridge", "hood", "cooker", "tap"
]


class Appliance(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """An appliance as a box with the opening it asks for. Bought by others unless priced.

    Attributes
    ----------
    width, height, depth : mm, of the thing itself
    opening_width, opening_height, opening_depth : mm, the clear opening that it asks for; 0: its own size
    cut_width, cut_depth : mm, of its cut-out in a worktop; 0: none
    vent : mm of clear space behind it for air
    clear_front : mm of floor kept free before it
    services : kinds of service points that it needs
    picture : name of its image among the job's pictures
    """

    code: str
    name: str
    kind: ApplianceKind
    width: float
    height: float
    depth: float
    supplier: str = ""
    opening_width: float = 0.0
    opening_height: float = 0.0
    opening_depth: float = 0.0
    cut_width: float = 0.0
    cut_depth: float = 0.0
    vent: float = 0.0
    clear_front: float = 0.0
    services: tuple[str, ...] = ()
    picture: str = ""

    @property
    def opening(self) -> tuple[float, float, float]:
        """Width, height and depth of the opening that it asks for, mm."""
        return (
            self.opening_width or self.width,
            self.opening_height or self.height,
            self.opening_depth or self.depth,
        )


class Profile(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """The section of a molding. Bought in lengths.

    Attributes
    ----------
    uses : what it is offered for: skirting, dado rail, picture rail, cornice, casing, panel molding, unit cornice,
        light rail, shelf edge
    points : its outline as it lies on its back, mm: x out from its back, y up from its lower edge; a third number is
        the bulge of the side that starts there (see measure.paths)
    length : mm of one bar; where it is priced each, that bar's price
    lengths : mm of other bars that it is sold in
    spring : degrees from the wall to its back where it is set at a slant; 0: its back lies on the wall
    """

    code: str
    name: str
    uses: tuple[str, ...]
    points: tuple[tuple[float, ...], ...]
    length: float
    finish: str = ""
    supplier: str = ""
    lengths: tuple[float, ...] = ()
    spring: float = 0.0

    @property
    def path(self) -> Path:
        """Its outline as it lies on its back, mm."""
        return _lying(self.points)

    @property
    def placed(self) -> Path:
        """Its outline as it is set, mm: x out from the wall, y up from its lowest point; its back leans out at the
        top by the spring angle."""
        return _placed(self.points, self.spring)

    @property
    def section(self) -> Points:
        """Its outline as it is set, in straight pieces for a screen or a drawing, mm."""
        return _section(self.points, self.spring)

    @property
    def height(self) -> float:
        """mm up the wall, as it is set."""
        return _size(self.points, self.spring)[1]

    @property
    def depth(self) -> float:
        """mm out from the wall, as it is set."""
        return _size(self.points, self.spring)[0]


SECTION_CHORD = 0.05
"""mm by which straight pieces leave the arcs of a section, on a screen and on paper."""

Outline = tuple[tuple[float, ...], ...]


def _lying(points: Outline) -> Path:
    return tuple((p[0], p[1], p[2] if len(p) > 2 else 0.0) for p in points)


@remembered(512)
def _placed(points: Outline, spring: float) -> Path:
    path = _lying(points)
    if not path or not spring:
        return path
    leant = rotated(path, -spring)
    x0, y0, _, _ = bounds(leant)
    return shifted(leant, -x0, -y0)


@remembered(512)
def _section(points: Outline, spring: float) -> Points:
    return chords(_placed(points, spring), SECTION_CHORD)


@remembered(512)
def _size(points: Outline, spring: float) -> tuple[float, float]:
    _, _, x1, y1 = bounds(_placed(points, spring))
    return x1, y1


Per = Literal["each", "m2", "m", "hour", "sheet"]


class PriceRow(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """What one thing costs: `price` in the book's currency for each, square metre, metre, hour or sheet.

    Attributes
    ----------
    pack : how many, or metres, are sold at once; 0: any number
    least_qty : how many, or metres, are sold at least
    """

    code: str
    price: Decimal
    per: Per
    pack: Decimal = Decimal(0)
    least_qty: Decimal = Decimal(0)

    def bought(self, qty: Decimal) -> Decimal:
        """What has to be bought for a quantity: whole packs, and the least that is sold."""
        if qty <= 0:
            return qty
        wanted = max(qty, self.least_qty)
        return (wanted / self.pack).to_integral_value(ROUND_CEILING) * self.pack if self.pack > 0 else wanted


Work = Literal[
    "cut_part", "band_metre", "drill_hole", "groove_metre", "rebate_metre", "cut_out", "shape_metre", "bend_part",
    "veneer_m2", "worktop_joint", "assemble_unit", "fit_front", "install_unit",
]  # fmt: skip
"""Work that a price book may have minutes for."""


class LaborRow(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """Minutes of labor that one piece of work takes."""

    work: Work
    minutes: Decimal


class PriceBook(msgspec.Struct, frozen=True, forbid_unknown_fields=True, cache_hash=True):
    """Prices valid from a date, with the minutes of labor and the waste by area."""

    code: str
    name: str
    valid_from: str
    currency: str
    board_waste_percent: Decimal
    edging_waste_percent: Decimal
    labor_rate: Decimal
    """Money for an hour in the shop."""
    delivery: Decimal
    rows: tuple[PriceRow, ...] = ()
    labor: tuple[LaborRow, ...] = ()
