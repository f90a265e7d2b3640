"""What the makers of a unit share: its values, its stock, the parts drafted so far, items and problems."""

from __future__ import annotations

import msgspec

from tall_plank.job import Bay, Body, Construction, Level
from tall_plank.job.bays import INSIDE, DrawnFront
from tall_plank.job.build import Build, Parameter
from tall_plank.job.choices import CarcassTop, Corner, EitherSide, Feet, Shape, Weight
from tall_plank.making.bayset import BayBox, BaySet
from tall_plank.making.dowels import end_depth
from tall_plank.making.faceplane import FacePlane, plane
from tall_plank.making.parts import Draft, DrawerBox, Forced, Item, Lent, PartRole, Problem
from tall_plank.making.proof.taken import Taken
from tall_plank.measure import PlankError, told
from tall_plank.measure.frames import PartFrame
from tall_plank.setout.tops import slant_depth
from tall_plank.stock import Board, Stock
from tall_plank.stock.models import FittingKind, FittingRole


class UnitSpec(msgspec.Struct, frozen=True, cache_hash=True):
    """All that a unit is made from, without its number and its place. Lengths in mm."""

    template: str
    level: Level
    body: Body
    top: CarcassTop
    lets_in: bool
    appliance: str
    bay: Bay
    width: float
    height: float
    depth: float
    made: Construction
    front: str
    carcass: str
    drawer: str
    corner: Corner = ""
    corner_side: EitherSide = ""
    leg: float = 0.0
    blind: float = 0.0
    filler: float = 0.0
    shape: Shape = "straight"
    gables: bool = True
    bottom: bool = True
    back: bool = True
    cover: float = 0.0
    vent: float = 0.0
    fittings: tuple[str, ...] = ()
    feet: Feet = "plinth"
    """What it stands on: plinth, legs that are seen, or none."""
    pipes: tuple[tuple[str, float, float], ...] = ()
    """Service points behind it: kind, x, z in its own frame, mm."""
    off_floor: float = 0.0
    """mm from the floor to its underside, where its gables run down to the floor."""
    parameters: tuple[Parameter, ...] = ()
    build: Build | None = None
    """Of a kind made of its own parts."""
    own: tuple[tuple[str, float], ...] = ()
    """Values of its parameters that it decides itself."""


class FittedBox(msgspec.Struct, frozen=True, cache_hash=True):
    """A fitting in its place: rectangle seen from the front (x right, z up) and its reach from front to rear, mm.

    Attributes
    ----------
    front : mm from the carcass's front edge to its front
    free_below : mm under it that stay free
    """

    code: str
    kind: FittingKind
    path: tuple[int, ...]
    x: float
    z: float
    width: float
    height: float
    front: float
    depth: float
    free_below: float = 0.0


class FrontBox(msgspec.Struct, frozen=True, cache_hash=True):
    """A front as it is seen: rectangle in the unit's face (x right, z up, mm), for drawings and the model."""

    kind: DrawnFront
    """A kind of front, or filler or machine for what is seen beside them."""
    x: float
    z: float
    width: float
    height: float
    hand: EitherSide
    style: str
    frame: float
    handle: tuple[float, float, float, float] | None
    """Both ends of the handle, (x, z, x, z), or None."""
    path: tuple[int, ...]
    face: FacePlane | None = None
    """The plane it stands in, where that is not the unit's straight front."""
    name: str = ""
    """What the names of its parts begin with."""
    pull: str = ""
    """Code of its handle."""

    def owns(self, part: str) -> bool:
        """Whether a part of that name belongs to it."""
        return bool(self.name) and (part == self.name or part.startswith(self.name + " "))


def has_fronts(bay: Bay) -> bool:
    """Whether anything closes a bay of a tree."""
    return bay.front is not None or any(has_fronts(child) for child in bay.children)


BETWEEN_BAYS = "Put a divider between the bays."
"""What to do where a bay has no upright at a side."""


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
        self.bays: BaySet | None = None
        self.fitted: list[FittedBox] = []
        self.forced: list[Forced] = []
        self.drawers: list[DrawerBox] = []
        self.taken: list[Taken] = []
        """Room of what is bought."""
        self._fixings: dict[tuple[str, str], int] = {}

    @property
    def face(self) -> FacePlane:
        """The plane of the unit's front; slanted at an angled end unit."""
        spec = self.spec
        shallow = slant_depth(spec.width, spec.depth)
        if spec.shape == "angled right":
            return plane((0.0, -spec.depth), (spec.width, -shallow))
        if spec.shape == "angled left":
            return plane((0.0, -shallow), (spec.width, -spec.depth))
        return FacePlane(0.0, -spec.depth - spec.made.front_out)

    @property
    def framed(self) -> bool:
        """Whether a face frame stands before it: on a carcass with gables that is high enough for one."""
        spec, made = self.spec, self.spec.made
        tall = spec.height > 4 * made.face_rail
        return made.face_frame == "frame" and spec.body is Body.CARCASS and spec.gables and tall

    @property
    def recess(self) -> float:
        """How far what goes into the unit starts behind its front edge, mm: fronts that are set in need their room."""
        return max(0.0, -self.spec.made.front_out) if has_fronts(self.spec.bay) else 0.0

    def behind(self, path: tuple[int, ...]) -> float:
        """How far a board between the bays of a bay stands back, mm: where a front that is set in goes over it, that
        needs its room; where each bay has its own, the board parts them and comes to the edge."""
        bay = self.spec.bay
        fronts = [bay.at(path[:k]).front for k in range(len(path) + 1)]
        covered = any(front is not None and front.kind not in INSIDE for front in fronts)
        return self.recess + self.spec.made.gap_inset if covered and self.recess else 0.0

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
        self, name: str, finish: str, thickness: float, length: float, width: float, frame: PartFrame, role: PartRole
    ) -> Draft:
        """Draft a part; sizes in mm.

        Raises
        ------
        PlankError where a size is not above zero: the unit is too small for its construction
        """
        if length <= 0 or width <= 0:
            raise PlankError(
                f"The {name} would be {told(length)} x {told(width)} mm.",
                name,
                "The unit is too small for its standard.",
            )
        draft = Draft(name, self.board(finish, thickness, name), (length, width), frame, role)
        made = self.spec.made
        group = "front" if role in ("front", "panel", "cover") else "drawer" if role == "drawer" else "carcass"
        edged_in = {
            "front": made.edging_front_in,
            "drawer": made.edging_drawer_in,
            "carcass": made.edging_carcass_in,
        }[group]
        draft.edged_in = "" if edged_in == "same" else edged_in
        self.drafts.append(draft)
        return draft

    def part(self, name: str) -> Draft:
        """A part drafted before, or what stands for one that the unit does not own."""
        found = next((d for d in self.drafts if d.name == name), None)
        return found or next(lent for lent in self.lent if lent.name == name)  # type: ignore[return-value]

    def item(self, code: str, qty: int, why: str, length: float = 0.0) -> None:
        if qty > 0:
            self.items.append(Item(code, qty, why, length))

    def role_item(self, role: FittingRole, qty: int, why: str, length: float = 0.0) -> None:
        """Buy what fills a role of the stock; a stock that nothing fills it in stops the unit."""
        fitting = self.stock.filling(role)
        if fitting is None:
            self.problem(f"The stock has no {role}.", f"Give a fitting of the stock the role “{role}”.")
            return
        self.item(fitting.code, qty, why, length)

    def problem(self, what: str, remedy: str, weight: Weight = "wrong") -> None:
        self.problems.append(Problem(what, remedy, weight))

    def dowel_end(self, face_depth: float) -> float:
        """Depth of a dowel's hole in an end, where that in the face is so deep, mm."""
        dowel = self.stock.fitting(self.spec.made.dowel)
        return end_depth(dowel.length if dowel is not None else 0.0, face_depth, self.spec.made.dowel_end_depth)

    def tenon_end(self, face_depth: float) -> float:
        """Depth of a loose tenon's mortice in an end, where that in the face is so deep, mm."""
        tenon = self.stock.fitting(self.spec.made.tenon)
        return end_depth(tenon.length if tenon is not None else 0.0, face_depth, self.spec.made.tenon_depth)

    def held(self, box: BayBox, what: str) -> bool:
        """Whether an upright stands at both sides of a bay; else what has nothing to hold it is told."""
        if box.left and box.right:
            return True
        side = "right" if box.left else "left"
        self.problem(f"{what} has nothing to hold it at the {side} of its bay.", BETWEEN_BAYS)
        return False

    def force(self, what: str, asked: float, made: float, why: str) -> None:
        """Note a size that a step or a stock size changed; mm. What came out as asked is not worth a word."""
        if abs(asked - made) > 0.05:
            self.forced.append(Forced(what, asked, made, why))

    def fix(self, code: str, qty: int, why: str) -> None:
        """Count the fixings of joints; `fixed` makes items of them."""
        old = self._fixings.get((code, why), 0)
        self._fixings[(code, why)] = old + qty

    def fixed(self) -> None:
        """Turn the counted fixings into items."""
        for (code, why), qty in self._fixings.items():
            self.item(code, qty, why)
        self._fixings.clear()
