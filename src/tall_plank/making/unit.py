"""Making one unit: pure, and cached by the value of what it is made from."""

from __future__ import annotations

from functools import lru_cache

import msgspec

from tall_plank.job import Body
from tall_plank.making.bayset import Rect, set_bays
from tall_plank.making.builder import Builder, FrontBox, UnitSpec
from tall_plank.making.carcass import clear_of_carcass, make_carcass
from tall_plank.making.drawers import make_drawers
from tall_plank.making.fronts import make_fronts
from tall_plank.making.parts import Bore, Item, Part, Problem
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import X, Z
from tall_plank.stock import Stock

__all__ = ["FrontBox", "MadeUnit", "UnitSpec", "make_unit"]


class MadeUnit(msgspec.Struct, frozen=True, cache_hash=True):
    """A unit as the shop makes it.

    Attributes
    ----------
    parts : in the order of their numbers; empty where a problem stops the making
    items : bought items with their reasons
    fronts : what is seen from the front
    bays : clear rectangles of the leaf bays (path, x, z, width, height), mm
    problems : why it cannot be made as decided
    weight : kg, parts only
    """

    spec: UnitSpec
    parts: tuple[Part, ...] = ()
    items: tuple[Item, ...] = ()
    fronts: tuple[FrontBox, ...] = ()
    bays: tuple[tuple[tuple[int, ...], float, float, float, float], ...] = ()
    problems: tuple[Problem, ...] = ()
    weight: float = 0.0


@lru_cache(maxsize=4096)
def make_unit(spec: UnitSpec, stock: Stock) -> MadeUnit:
    """Parts, operations and items of a unit.

    A unit that cannot be made has no parts at all and says why in its problems: no half-made unit reaches a list.
    """
    b = Builder(spec, stock)
    if spec.body is Body.GAP:
        return MadeUnit(spec)
    try:
        bays: tuple[tuple[tuple[int, ...], float, float, float, float], ...] = ()
        if spec.body is Body.CARCASS:
            bays = _carcass_unit(b)
        elif spec.body is Body.APPLIANCE:
            _appliance(b)
        else:
            _filler(b)
    except PlankError as error:
        return MadeUnit(spec, problems=tuple(dict.fromkeys((*b.problems, Problem(error.what, error.remedy)))))
    made = spec.made
    parts = tuple(draft.done(stock, made.premilling, made.edging_ignored_below) for draft in b.drafts)
    problems = tuple(dict.fromkeys((*b.problems, *_clashes(parts))))
    if any(p.weight == "wrong" for p in problems):
        return MadeUnit(spec, fronts=tuple(b.fronts), bays=bays, problems=tuple(problems))
    return MadeUnit(spec, parts, tuple(b.items), tuple(b.fronts), bays, tuple(problems), sum(p.weight for p in parts))


def _zone(spec: UnitSpec) -> Rect:
    made = spec.made
    return Rect(made.gap_side, made.gap_bottom, spec.width - made.gap_side, spec.height - made.gap_top)


def _carcass_unit(b: Builder) -> tuple[tuple[tuple[int, ...], float, float, float, float], ...]:
    spec = b.spec
    clear = clear_of_carcass(b)
    if clear.width < 30 or clear.height < 30:
        raise PlankError(f"A unit {spec.width:g} mm wide has no clear space.", "width", "Make it wider.")
    bays = set_bays(spec.bay, clear, _zone(spec), spec.made)
    for _path, short in bays.short:
        if short > 0:
            b.problem(f"The bays are {short:g} mm short of their sizes.", "Shorten a typed bay size.")
        else:
            b.problem(f"The bays leave {-short:g} mm over.", "Let one bay take a share.")
    make_carcass(b, bays)
    make_fronts(b, bays.boxes)
    make_drawers(b, bays.boxes)
    if spec.appliance:
        b.item(spec.appliance, 1, "appliance of this unit")
    return tuple((box.path, box.clear.x0, box.clear.z0, box.clear.width, box.clear.height) for box in bays.leaves)


def _appliance(b: Builder) -> None:
    """No carcass; the front hangs on the appliance, which is checked against the space."""
    spec = b.spec
    appliance = b.stock.appliance(spec.appliance)
    if appliance is not None:
        if spec.width < appliance.width:
            b.problem(
                f"{appliance.name} needs {appliance.width:g} mm; the space is {spec.width:g} mm wide.", "Widen it."
            )
        b.item(appliance.code, 1, "appliance of this space")
    whole = Rect(0.0, 0.0, spec.width, spec.height)
    make_fronts(b, set_bays(spec.bay, whole, _zone(spec), spec.made).boxes)


def _filler(b: Builder) -> None:
    """A strip in the front's finish, flush with the fronts, banded all round."""
    spec, made = b.spec, b.spec.made
    frame = Frame((0.0, -spec.depth - made.front_thickness, 0.0), Z, X)
    strip = b.add("filler", spec.front, made.front_thickness, spec.height, spec.width, frame, "front")
    strip.band(b.stock, made.edging_front, "L1", "L2", "W1", "W2")
    b.fronts.append(FrontBox("filler", 0.0, 0.0, spec.width, spec.height, "", "slab", 0.0, None, ()))


def _clashes(parts: tuple[Part, ...]) -> list[Problem]:
    """Holes on one face of a part that run into one another."""
    found: list[Problem] = []
    for part in parts:
        by_face: dict[str, list[Bore]] = {}
        for op in part.operations:
            if isinstance(op, Bore):
                by_face.setdefault(op.face, []).append(op)
        for bores in by_face.values():
            bores.sort(key=lambda bore: bore.x)
            for i, one in enumerate(bores):
                for other in bores[i + 1 :]:
                    reach = (one.diameter + other.diameter) / 2
                    if other.x - one.x >= reach:
                        # Larger holes further on could still reach back; none is larger than a hinge cup.
                        if other.x - one.x >= reach + 17.5:
                            break
                        continue
                    if (one.x - other.x) ** 2 + (one.y - other.y) ** 2 < reach * reach - 1e-6:
                        found.append(
                            Problem(f"On the {part.name} a {one.use} hole runs into a {other.use} hole.", "Move one.")
                        )
                        return found
    return found
