"""What the makers of a unit share: its values, its stock, the parts drafted so far, items and problems."""

from __future__ import annotations

import math
from typing import Literal

import msgspec

from tall_plank.job import Bay, Body, Construction
from tall_plank.making.holes import dowel_places
from tall_plank.making.parts import Draft, Item, Lent, Problem
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_Z, Vec, Z
from tall_plank.setout.tops import slant_depth
from tall_plank.stock import Board, Stock


class UnitSpec(msgspec.Struct, frozen=True, cache_hash=True):
    """All that a unit is made from, without its number and its place. Lengths in mm."""

    template: str
    level: str
    body: Body
    top: str
    sink: bool
    appliance: str
    bay: Bay
    width: float
    height: float
    depth: float
    made: Construction
    front: str
    carcass: str
    drawer: str
    corner: str = ""
    corner_side: str = ""
    leg: float = 0.0
    blind: float = 0.0
    filler: float = 0.0
    shape: str = "straight"
    gables: bool = True
    bottom: bool = True
    back: bool = True
    cover: float = 0.0
    vent: float = 0.0
    fittings: tuple[str, ...] = ()


class FacePlane(msgspec.Struct, frozen=True, cache_hash=True):
    """The plane of a unit's front edges, seen from above: where it starts at the left, and where it runs.

    Attributes
    ----------
    x, y : of its left end in the unit's frame, mm
    ux, uy : unit vector from left to right
    name : front, or leg for the face on a corner unit's other leg
    """

    x: float
    y: float
    ux: float = 1.0
    uy: float = 0.0
    name: str = "front"

    def point(self, u: float, out: float, z: float) -> Vec:
        """The point at u along the face, `out` before it, at height z, in the unit's frame."""
        return (self.x + self.ux * u + self.uy * out, self.y + self.uy * u - self.ux * out, z)

    def frame(self, u: float, out: float, z: float, *, upright: bool) -> Frame:
        """Frame of a board on the face whose face A looks into the unit: length up with L1 at the left, or length to
        the right with L1 above."""
        along = (self.ux, self.uy, 0.0)
        return Frame(self.point(u, out, z), Z, along) if upright else Frame(self.point(u, out, z), along, NEG_Z)


class FrontBox(msgspec.Struct, frozen=True, cache_hash=True):
    """A front as it is seen: rectangle in the unit's face (x right, z up, mm), for drawings and the model."""

    kind: Literal["door", "drawer", "fixed", "appliance", "filler", "flap", "drop", "pullout", "machine"]
    x: float
    z: float
    width: float
    height: float
    hand: str
    style: str
    frame: float
    handle: tuple[float, float, float, float] | None
    """Both ends of the handle, (x, z, x, z), or None."""
    path: tuple[int, ...]
    face: FacePlane | None = None
    """The plane it stands in, where that is not the unit's straight front."""


def plane(a: tuple[float, float], b: tuple[float, float], name: str = "front") -> FacePlane:
    """The face from a to b, seen from above."""
    length = math.dist(a, b)
    return FacePlane(a[0], a[1], (b[0] - a[0]) / length, (b[1] - a[1]) / length, name)


class Builder:
    """The work bench for one unit."""

    def __init__(self, spec: UnitSpec, stock: Stock) -> None:
        self.spec = spec
        self.stock = stock
        self.drafts: list[Draft] = []
        self.items: list[Item] = []
        self.problems: list[Problem] = []
        self.fronts: list[FrontBox] = []
        self.lent: list[Lent] = []

    @property
    def face(self) -> FacePlane:
        """The plane of the unit's front; slanted at an angled end unit."""
        spec = self.spec
        shallow = slant_depth(spec.width, spec.depth)
        if spec.shape == "angled right":
            return plane((0.0, -spec.depth), (spec.width, -shallow))
        if spec.shape == "angled left":
            return plane((0.0, -shallow), (spec.width, -spec.depth))
        return FacePlane(0.0, -spec.depth)

    def board(self, finish: str, thickness: float, use: str) -> Board:
        """The board for a use.

        Raises
        ------
        PlankError where the stock has none
        """
        board = self.stock.board(finish, thickness)
        if board is None:
            found = self.stock.finish(finish)
            name = found.name if found else finish
            raise PlankError(
                f"No {thickness:g} mm board in {name} for the {use}.",
                use,
                "Choose another finish or thickness, or add the board to the stock.",
            )
        return board

    def add(
        self, name: str, finish: str, thickness: float, length: float, width: float, frame: Frame, role: str
    ) -> Draft:
        """Draft a part; sizes in mm.

        Raises
        ------
        PlankError where a size is not above zero: the unit is too small for its construction
        """
        if length <= 0 or width <= 0:
            raise PlankError(
                f"The {name} would be {length:.1f} x {width:.1f} mm.", name, "The unit is too small for its standard."
            )
        draft = Draft(name, self.board(finish, thickness, name), (length, width), frame, role)
        self.drafts.append(draft)
        return draft

    def part(self, name: str) -> Draft:
        """A part drafted before, or what stands for one that the unit does not own."""
        found = next((d for d in self.drafts if d.name == name), None)
        return found or next(lent for lent in self.lent if lent.name == name)  # type: ignore[return-value]

    def item(self, code: str, qty: int, why: str) -> None:
        if qty > 0:
            self.items.append(Item(code, qty, why))

    def problem(self, what: str, remedy: str, weight: str = "wrong") -> None:
        self.problems.append(Problem(what, remedy, weight))

    def dowel_joint(self, face_part: Draft, end_part: Draft, start: Vec, end: Vec, rear: float = 0.0) -> int:
        """Dowels along the line from start to end (the unit's frame) where the end of one part meets another's
        face; both halves are drilled at the same points. Returns the number of dowels."""
        made = self.spec.made
        length = sum((b - a) ** 2 for a, b in zip(start, end, strict=True)) ** 0.5
        places = dowel_places(length, made.dowel_from_edge, made.dowel_spacing, rear)
        for place in places:
            t = place / length
            point = (
                start[0] + (end[0] - start[0]) * t,
                start[1] + (end[1] - start[1]) * t,
                start[2] + (end[2] - start[2]) * t,
            )
            face_part.bore(point, made.dowel_diameter, made.dowel_face_depth, "dowel")
            end_part.bore(point, made.dowel_diameter, made.dowel_end_depth, "dowel")
        return len(places)
