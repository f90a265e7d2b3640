"""Making one unit: pure, and cached by the value of what it is made from."""

from __future__ import annotations

import msgspec

from tall_plank.job import Body
from tall_plank.making.bayset import BayBox, BaySet, Rect, set_bays
from tall_plank.making.builder import Builder, FittedBox, FrontBox, UnitSpec
from tall_plank.making.byhand import say_by_hand
from tall_plank.making.carcass import check_standard_fits, make_carcass
from tall_plank.making.clashes import settled
from tall_plank.making.cornered import make_cornered
from tall_plank.making.drawers import make_drawers
from tall_plank.making.faceframe import frame_zone, make_face_frame
from tall_plank.making.fitted import put_in
from tall_plank.making.fronts import make_fronts
from tall_plank.making.opening import ways_of
from tall_plank.making.own import make_own
from tall_plank.making.parts import Asked, DrawerBox, Forced, Item, Part, Problem
from tall_plank.making.proof import faults_of
from tall_plank.making.proof.paths import Drawn
from tall_plank.making.shell import clear_depth, clear_of_carcass, side_thickness
from tall_plank.making.shelves import make_shelves
from tall_plank.making.ways import Way
from tall_plank.measure import Frame, PlankError, told
from tall_plank.measure.frames import NEG_Z, X, Y, Z
from tall_plank.measure.remembered import remembered
from tall_plank.setout.topcuts import LET_IN, cut_size
from tall_plank.stock import Appliance, Stock

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
    set : its bays and the boards between them; None where it has none
    fitted : what stands and hangs in its bays
    forced : sizes that a step or a stock size changed from what was asked for
    drawers : its drawers with their runners and what they weigh when full
    appliances : those among its items
    faulty : its parts where they cannot be put together: to be looked at, in no list
    lent : (gable, what the unit asks of the panel in its place, in the unit's frame)
    """

    spec: UnitSpec
    parts: tuple[Part, ...] = ()
    items: tuple[Item, ...] = ()
    fronts: tuple[FrontBox, ...] = ()
    bays: tuple[tuple[tuple[int, ...], float, float, float, float], ...] = ()
    problems: tuple[Problem, ...] = ()
    weight: float = 0.0
    lent: tuple[tuple[str, tuple[Asked, ...]], ...] = ()
    set: BaySet | None = None
    fitted: tuple[FittedBox, ...] = ()
    forced: tuple[Forced, ...] = ()
    drawers: tuple[DrawerBox, ...] = ()
    appliances: tuple[Appliance, ...] = ()
    faulty: tuple[Part, ...] = ()

    @property
    def shown(self) -> tuple[Part, ...]:
        """The parts that are looked at, be they right or not."""
        return self.parts or self.faulty

    @property
    def clear_front(self) -> float:
        """How much floor has to stay free before it for its appliances, mm."""
        return max((a.clear_front for a in self.appliances), default=0.0)


@remembered(1024)
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
        elif spec.body is Body.PARTS:
            make_own(b)
        elif spec.body is Body.PANEL:
            _panel(b)
        else:
            _filler(b)
    except PlankError as error:
        return MadeUnit(spec, problems=tuple(dict.fromkeys((*b.problems, Problem(error.what, error.remedy)))))
    made = spec.made
    for draft in b.drafts:
        draft.operations = settled(draft)
    parts = tuple(draft.done(stock, made.premilling, made.edging_ignored_below) for draft in b.drafts)
    lent = tuple((g.name, tuple(g.asked)) for g in b.lent if g.asked)
    problems = tuple(dict.fromkeys(b.problems))
    if not any(p.weight == "wrong" for p in problems):
        problems = (*problems, *faults_of(parts, lent, _lengths(b), _drawn(b), _ways(b), b.taken))
    if any(p.weight == "wrong" for p in problems):
        return MadeUnit(
            spec,
            fronts=tuple(b.fronts),
            bays=bays,
            problems=tuple(problems),
            set=b.bays,
            fitted=tuple(b.fitted),
            faulty=parts if any(p.place is not None for p in problems) else (),
        )
    weight = sum(p.weight for p in parts)
    return MadeUnit(
        spec,
        parts,
        say_by_hand(b.items, parts, lent, stock),
        tuple(b.fronts),
        bays,
        tuple(problems),
        weight,
        lent,
        b.bays,
        tuple(b.fitted),
        tuple(b.forced),
        tuple(b.drawers),
        tuple(a for item in b.items if (a := stock.appliance(item.code)) is not None),
    )


def _lengths(b: Builder) -> dict[str, float]:
    """Use of a hole -> mm of what goes into it."""
    made = b.spec.made
    codes = (("dowel", made.dowel), ("carcass screw", made.screw), ("loose tenon", made.tenon))
    return {use: f.length for use, code in codes if (f := b.stock.fitting(code)) is not None}


def _drawn(b: Builder) -> list[Drawn]:
    """The drawers, each with its own front and the doors before it."""
    names = {draft.name: i for i, draft in enumerate(b.drafts) if draft.role != "packer"}
    found = []
    for drawer in b.drawers:
        own = tuple(i for name, i in names.items() if name.startswith(drawer.name + " "))
        opened = [f for f in b.fronts if drawer.path[: len(f.path)] == f.path]
        found.append(Drawn(own, tuple(i for name, i in names.items() if any(f.owns(name) for f in opened))))
    return found


def _ways(b: Builder) -> tuple[Way, ...]:
    """How the fronts open."""
    return ways_of(b.spec, b.fronts, b.drawers, {}, b.stock)


LEAST_OPENING = 200.0
"""mm of front that a unit which runs into a corner keeps open (common practice: enough to reach in)."""


def _zone(b: Builder) -> Rect:
    """What the fronts of a unit cover, on its face; what the corner takes is left out."""
    spec, made = b.spec, b.spec.made
    face = b.face
    length = spec.width if face.uy == 0.0 else spec.width / face.ux
    if b.framed:
        return frame_zone(b)
    if spec.body is Body.CARCASS and made.overlay == "inset":
        inner, gap = clear_of_carcass(b), made.gap_inset
        return Rect(inner.x0 + gap, inner.z0 + gap, inner.x1 - gap, inner.z1 - gap)
    side = made.gap_side + (made.carcass_thickness / 2 if made.overlay == "half" and spec.gables else 0.0)
    x0, x1 = side, length - side
    if spec.corner == "blind" and spec.blind > 0:
        # The filler beside the door stands a gap away from it.
        if spec.corner_side == "left":
            x0 = spec.blind + made.gap_between
        else:
            x1 = spec.width - spec.blind - made.gap_between
        if x1 - x0 < LEAST_OPENING:
            raise PlankError(
                f"The corner leaves {told(max(0.0, x1 - x0))} mm of front; {LEAST_OPENING:g} mm is the least.",
                "width",
                f"Make it at least {told(spec.width + LEAST_OPENING - (x1 - x0))} mm wide.",
            )
    if not spec.gables:
        # Between two panels the fronts stand inside, a gap from each.
        x0, x1 = made.gap_between, spec.width - made.gap_between
    return Rect(x0, made.gap_bottom, x1, spec.height - made.gap_top)


def _carcass_unit(b: Builder) -> tuple[tuple[tuple[int, ...], float, float, float, float], ...]:
    spec = b.spec
    if spec.corner in ("l", "diagonal"):
        return make_cornered(b)
    check_standard_fits(b)
    clear = clear_of_carcass(b)
    if clear.width < 30 or clear.height < 10:
        low = clear.width >= 30
        size = f"{spec.height:g} mm high" if low else f"{spec.width:g} mm wide"
        remedy = "Make it higher." if low else "Make it wider."
        raise PlankError(f"A unit {size} has no clear space.", "height" if low else "width", remedy)
    bays = b.bays = set_bays(spec.bay, clear, _zone(b), spec.made)
    for _path, short in bays.short:
        if short > 0:
            b.problem(f"The bays are {short:g} mm short of their sizes.", "Shorten a typed bay size.")
        else:
            b.problem(f"The bays leave {-short:g} mm over.", "Let one bay take a share.")
    make_carcass(b, bays)
    for box in bays.leaves:
        put_in(b, box)
        make_shelves(b, box)
    if b.framed:
        make_face_frame(b, bays)
    make_fronts(b, bays.boxes)
    make_drawers(b, bays.boxes)
    if spec.corner == "blind" and spec.blind > 0:
        _blind_panel(b)
    if spec.appliance:
        _let_in(b)
        b.item(spec.appliance, 1, "appliance of this unit")
    for box in bays.leaves:
        _bay_contents(b, box)
    for code in spec.fittings:
        b.item(code, 1, "goes into every unit of this kind")
    return tuple((box.path, box.clear.x0, box.clear.z0, box.clear.width, box.clear.height) for box in bays.leaves)


def _bay_contents(b: Builder, box: BayBox) -> None:
    """An appliance that asks for an opening and for air."""
    if not box.bay.appliance:
        return
    thing = b.stock.appliance(box.bay.appliance)
    if thing is None:
        b.problem(f"The stock has no appliance {box.bay.appliance}.", "Choose another one.")
        return
    width, height, depth = thing.opening
    have = (box.clear.width, box.clear.height, clear_depth(b) + b.spec.vent)
    needs = (width, height, depth + thing.vent)
    for word, has, need in zip(("wide", "high", "deep"), have, needs, strict=True):
        if has < need - 0.01:
            air = f" with {thing.vent:g} mm of air behind it" if word == "deep" and thing.vent else ""
            b.problem(
                f"{thing.name} needs an opening {need:g} mm {word}{air}; this one is {has:g} mm.",
                f"Make it {told(need - has)} mm more {word}.",
            )
    if thing.vent:
        b.role_item("grille", 1, f"{thing.vent:g} mm of air behind the {thing.kind}: a grille below")
    b.item(thing.code, 1, "appliance of this bay")


def _blind_panel(b: Builder) -> None:
    """What closes a unit in the corner: the filler that is seen, and the panel behind the neighbour's units."""
    spec, made = b.spec, b.spec.made
    left = spec.corner_side == "left"
    t = made.front_thickness
    seen = spec.blind - spec.filler if left else spec.width - spec.blind
    if spec.filler >= 1.0:
        # As high as every filler: the unit's whole height.
        frame = b.face.frame(seen, t, 0.0, upright=True)
        strip = b.add("corner filler", spec.front, t, spec.height, spec.filler, frame, "front")
        strip.band(b.stock, made.edging_front, "L1", "L2", "W1", "W2")
        strip.fixed = "screwed on by hand from inside"
        b.fronts.append(FrontBox("filler", seen, 0.0, spec.filler, spec.height, "", "slab", 0.0, None, (), None))
    hidden = spec.blind - spec.filler
    if hidden >= 1.0:
        x = 0.0 if left else spec.width - hidden
        frame = b.face.frame(x, made.carcass_thickness, 0.0, upright=True)
        panel = b.add("blind panel", spec.carcass, made.carcass_thickness, spec.height, hidden, frame, "blind")
        panel.fixed = "screwed on by hand from inside"


def _let_in(b: Builder) -> None:
    """A sink or a hob hangs between the gables."""
    thing = b.stock.appliance(b.spec.appliance)
    clear = b.spec.width - 2 * side_thickness(b)
    if thing is not None and thing.kind in LET_IN and (need := cut_size(thing)[0]) > clear + 1e-6:
        b.problem(
            f"{thing.name} is let in {need:g} mm wide; between the gables are {told(clear)} mm.",
            f"Make the unit {told(need - clear)} mm wider, or stock a smaller {thing.kind}.",
        )


def _appliance(b: Builder) -> None:
    """No carcass; the front hangs on the appliance, which is checked against the space."""
    spec = b.spec
    appliance = b.stock.appliance(spec.appliance)
    if appliance is not None:
        width = appliance.opening[0] if appliance.opening_width else appliance.width
        if spec.width < width:
            b.problem(f"{appliance.name} needs {width:g} mm; the space is {spec.width:g} mm wide.", "Widen it.")
        b.item(appliance.code, 1, "appliance of this space")
    whole = Rect(0.0, 0.0, spec.width, spec.height)
    bays = set_bays(spec.bay, whole, _zone(b), spec.made)
    make_fronts(b, bays.boxes)
    if not b.fronts and appliance is not None:
        b.fronts.append(FrontBox("machine", 0.0, 0.0, spec.width, spec.height, "", "machine", 0.0, None, (), None))


def _panel(b: Builder) -> None:
    """A finished panel beside a unit or an appliance: as thick as its cell is wide, flush with the fronts."""
    spec, made = b.spec, b.spec.made
    depth = spec.depth + made.reach
    low = 0.0
    frame = Frame((0.0, -depth, spec.height), NEG_Z, Y)
    panel = b.add("panel", spec.front, spec.width, spec.height - low, depth, frame, "panel")
    panel.band(b.stock, made.edging_front, "L1", "W1", "W2")
    b.fronts.append(FrontBox("filler", 0.0, low, spec.width, spec.height, "", "slab", 0.0, None, (), None))


def _filler(b: Builder) -> None:
    """A strip in the front's finish, flush with the fronts, banded all round."""
    spec, made = b.spec, b.spec.made
    frame = Frame((0.0, -spec.depth - made.reach, 0.0), Z, X)
    strip = b.add("filler", spec.front, made.front_thickness, spec.height, spec.width + made.scribe, frame, "front")
    strip.band(b.stock, made.edging_front, "L1", "L2", "W1", "W2")
    b.fronts.append(FrontBox("filler", 0.0, 0.0, spec.width, spec.height, "", "slab", 0.0, None, ()))
