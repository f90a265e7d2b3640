"""What holds a unit in its place: legs with their plates under it, hangers for the wall, wall fixings of tall units."""

from __future__ import annotations

from tall_plank.job.standard import WEB
from tall_plank.making.builder import Builder
from tall_plank.making.feet import insets, leg_count
from tall_plank.making.parts import ROW, Bore, Draft, Groove
from tall_plank.making.shell import GABLE_LEFT, GABLE_RIGHT, clear_depth, floor_drop, side_thickness
from tall_plank.measure import told
from tall_plank.measure.frames import Vec
from tall_plank.stock import Fitting


def hold_unit(b: Builder) -> None:
    """Hangers and their holes, or legs with the holes of their plates; fixings of a tall unit to the wall."""
    spec, made = b.spec, b.spec.made
    if spec.level == "hung":
        if spec.height < LEAST_HUNG and spec.fittings:
            return  # on its own brackets
        b.item(made.hanger, 2, "2 hangers for a hung unit")
        _hanger_holes(b)
        return
    if made.wall_fixing != "none" and spec.height > WALL_FIXED * spec.depth:
        b.item(made.wall_fixing, 2, f"2 fixings to the wall: {told(spec.height)} mm high, {told(spec.depth)} deep")
    if not (spec.bottom and spec.gables) or spec.feet == "none":
        return
    count = leg_count(spec.width, made)
    if count is None:
        b.problem(f"No leg rule reaches {spec.width:g} mm of width.", "Add a rule to the shop standard.", "mind")
        count = made.leg_rules[-1].count if made.leg_rules else 4
    by = "for" if made.legs == "auto" else "set by hand, for"
    if floor_drop(b):
        # The gables carry both ends.
        if count > 4:
            b.item(made.leg, count - 4, f"{count - 4} legs between the gables, {by} {spec.width:g} mm of width")
    else:
        b.item(made.leg, count, f"{count} legs {by} {spec.width:g} mm of width")
    _leg_plates(b, count)


WALL_FIXED = 3.0
"""A unit higher than so many times its depth is fixed to the wall (common practice)."""


def _leg_plates(b: Builder, count: int) -> None:
    """Pilot holes of each leg's plate in the bottom's underside: pairs from left to right, a fifth in the middle.

    Where a divider stands over a pair in the middle, the pair moves aside."""
    spec = b.spec
    leg = b.stock.fitting(spec.made.leg)
    if leg is None or not leg.holes or spec.corner in ("l", "diagonal") or spec.shape != "straight":
        return
    bottom = b.part("bottom")
    left, right, front, back = insets(spec.feet, spec.made)
    pairs = max(2, count // 2)
    span, deep = spec.width - left - right, bottom.width - front - back
    if span < 60.0 or deep < 60.0:
        return
    uprights = [(d.frame.origin[0] - d.thickness / 2) for d in b.drafts if d.name.startswith("divider")]
    places = []
    for i in range(pairs):
        x = left + span * i / (pairs - 1)
        near = next((u for u in uprights if abs(u - x) < PLATE_CLEAR), None)
        if near is not None and 0 < i < pairs - 1:
            x = near + PLATE_CLEAR
        places += [(x, -spec.depth + front), (x, -spec.depth + front + deep)]
    if count % 2:
        places.append((spec.width / 2, -spec.depth + bottom.width / 2))
    if floor_drop(b):
        places = [p for p in places if left + 1.0 < p[0] < spec.width - right - 1.0]
    for x, y in places[:count]:
        at = _clear_leg(bottom, leg, x, y, spec.width)
        for hole in leg.holes:
            bottom.bore((at + hole.dx, y + hole.dy, 0.0), hole.diameter, hole.depth, "leg plate")


LEG_MOVES = tuple(4.0 * i for i in range(16))
"""mm that a leg moves towards the unit's middle, where something is drilled at its plate; nearest first."""


def _clear_leg(bottom: Draft, leg: Fitting, x: float, y: float, width: float) -> float:
    """Where along the unit a leg's plate finds wood: moved by rule away from cams and joints. Lengths in mm."""
    way = 1.0 if x < width / 2 else -1.0

    def free(at: float) -> bool:
        for hole in leg.holes:
            u, v, _ = bottom.frame.into((at + hole.dx, y + hole.dy, 0.0))
            for op in bottom.operations:
                if isinstance(op, Bore) and op.face in ("A", "B"):
                    reach = (op.diameter + hole.diameter) / 2 + WEB
                    low = op.depth + hole.depth > bottom.thickness - WEB or op.through or op.face == "B"
                    if low and abs(op.x - u) < reach and abs(op.y - v) < reach:
                        return False
                elif isinstance(op, Bore) and op.face in ("W1", "W2"):
                    # A dowel's or a cam's hole from the end, in the middle of the thickness.
                    inside = op.depth + hole.diameter if op.face == "W1" else bottom.length - op.depth - hole.diameter
                    ahead = u < inside if op.face == "W1" else u > inside
                    deep = hole.depth > op.y - op.diameter / 2 - WEB
                    if ahead and deep and abs(op.x - v) < (op.diameter + hole.diameter) / 2 + WEB:
                        return False
        return True

    return next((x + way * move for move in LEG_MOVES if free(x + way * move)), x)


PLATE_CLEAR = 60.0
"""mm from a divider's middle to a leg's middle, so that its plate is clear of the joint."""


LEAST_HUNG = 150.0
"""mm; what is lower hangs on brackets, not on hangers in its gables."""


def _hanger_holes(b: Builder) -> None:
    """Holes of the hangers in both gables: dx before the back, dy under the top."""
    spec, made = b.spec, b.spec.made
    hanger = b.stock.fitting(made.hanger)
    if hanger is None or not spec.gables or spec.height < LEAST_HUNG:
        return
    low = spec.height - made.carcass_thickness
    rear = -(spec.depth - clear_depth(b) - spec.vent) if spec.back else 0.0
    for gable, x in ((GABLE_LEFT, side_thickness(b)), (GABLE_RIGHT, spec.width - side_thickness(b))):
        side = b.part(gable)
        places = [(x, rear - hole.dx, low - hole.dy) for hole in hanger.holes]
        away = next((s for s in HANGER_MOVES if all(_clear(side, _before(p, s), hanger) for p in places)), 0.0)
        for place, hole in zip(places, hanger.holes, strict=True):
            side.bore(_before(place, away), hole.diameter, hole.depth, "hanger")


HANGER_MOVES = (0.0, 12.0, 24.0, 36.0, 48.0)
"""mm that a hanger moves forward, where something else is drilled at its place; nearest first."""


def _before(place: Vec, away: float) -> Vec:
    return (place[0], place[1] - away, place[2])


def _clear(gable: Draft, place: Vec, hanger: Fitting) -> bool:
    """Whether nothing is cut into a gable, from either side, where a hanger's hole goes. Pockets and slots reach from
    the gable's end: they are kept clear of along their whole line."""
    u, v, _ = gable.frame.into(place)
    wide = max(hole.diameter for hole in hanger.holes) / 2 + WEB
    for op in gable.operations:
        match op:
            case Bore() if op.face in ("A", "B"):
                reach = wide + op.diameter / 2
                if abs(op.y - v) < reach and (op.slant or abs(op.x - u) < reach) and op.use != ROW:
                    return False
            case Bore() if op.face in ("W1", "W2"):
                if abs(op.x - v) < wide + op.diameter / 2:
                    return False
            case Groove() if op.face in ("W1", "W2"):
                if min(op.x1, op.x2) - wide < v < max(op.x1, op.x2) + wide:
                    return False
            case _:
                pass
    return True
