"""The carcass: gables, bottom, rails or top, grooved back, shelves and dividers, with dowel joints and hole rows.

Unit frame: x to the right, y from the front towards the wall (0 at the back, -depth at the front), z up. One carcass
serves every kind: what it has, and the plan of its front, are the kind's data. Corner units with two legs: cornered.py.
"""

from __future__ import annotations

import itertools
import math

from tall_plank.job.standard import impossible
from tall_plank.making.bayset import BayBox, BaySet, Rect
from tall_plank.making.builder import Builder
from tall_plank.making.holes import leg_count, rear_row, row_heights
from tall_plank.making.joints import tongue
from tall_plank.making.parts import Cutout, Draft, Lent, Rebate
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_X, NEG_Z, X, Y, Z
from tall_plank.measure.outlines import Points
from tall_plank.setout.tops import slant_depth

GABLE_LEFT, GABLE_RIGHT = "left gable", "right gable"
SHELF_STANDS = "shelf"
"""Use of the row holes that a shelf stands on; the others, for pins, give way where something needs the place."""

BOW = 0.12
"""Rise of a bowed or hollowed front, as a share of the unit's width."""


def rear_cut(b: Builder) -> float:
    """How far lying boards end before the carcass's rear: the back lies behind them, unless it stands in a groove."""
    made = b.spec.made
    return made.back_thickness if b.spec.back and made.back_fit != "groove" else 0.0


def gable_cut(b: Builder) -> float:
    """How far gables end before the carcass's rear, mm: only where the back is planted on."""
    return rear_cut(b) if b.spec.made.back_fit == "on" else 0.0


def is_over(b: Builder) -> bool:
    """Whether a whole top lies on the gables."""
    return b.spec.gables and b.spec.top == "full" and b.spec.made.top_fit == "over"


def is_under(b: Builder) -> bool:
    """Whether the bottom lies under the gables."""
    return b.spec.gables and b.spec.bottom and b.spec.made.bottom_fit == "under"


def check_standard_fits(b: Builder) -> None:
    """Raises PlankError where values of the shop standard cannot stand together on this unit, naming one of them."""
    spec, made = b.spec, b.spec.made
    for key, what, remedy in impossible(made):
        raise PlankError(what, key, remedy)
    if spec.corner == "blind" and spec.blind > 0 and (made.face_frame == "frame" or made.overlay == "inset"):
        raise PlankError(
            "A unit that runs into a corner is made with fronts over its gables.",
            "fronts", "Choose another standard for its fronts and face frame.",
        )  # fmt: skip
    if spec.shape != "straight" and (made.face_frame == "frame" or made.overlay == "inset"):
        raise PlankError(
            "A unit with a slanted or bowed front is made with fronts over its gables.",
            "fronts", "Choose another standard for its fronts and face frame.",
        )  # fmt: skip


def clear_depth(b: Builder) -> float:
    """mm from the carcass's front edge to the front of the back (or of the air kept behind what stands in it)."""
    made = b.spec.made
    if not b.spec.back:
        return b.spec.depth - b.spec.vent
    if made.back_fit != "groove":
        return b.spec.depth - made.back_thickness - b.spec.vent
    return b.spec.depth - made.back_inset - made.back_thickness - made.groove_width_play - b.spec.vent


def side_thickness(b: Builder) -> float:
    """Thickness of the unit's own gables, mm; 0 where it hangs between the panels of an island."""
    return b.spec.made.carcass_thickness if b.spec.gables else 0.0


def clear_of_carcass(b: Builder) -> Rect:
    """The clear space between gables, bottom and top (or the underside of the rails)."""
    spec, t, s = b.spec, b.spec.made.carcass_thickness, side_thickness(b)
    top = spec.height if spec.sink or spec.top == "none" else spec.height - t
    return Rect(s, t if spec.bottom else 0.0, spec.width - s, top)


def front_edge(b: Builder, x: float) -> float:
    """y of the carcass's front edge at x: -depth where the front is straight."""
    spec = b.spec
    shallow = slant_depth(spec.width, spec.depth)
    match spec.shape:
        case "angled right":
            return -spec.depth + (spec.depth - shallow) * x / spec.width
        case "angled left":
            return -shallow - (spec.depth - shallow) * x / spec.width
        case "bow" | "hollow":
            rise = BOW * spec.width
            # A circle's segment over the width: sagitta and chord give the radius (geometry).
            radius = (spec.width**2 / 4 + rise**2) / (2 * rise)
            away = abs(x - spec.width / 2)
            sag = math.sqrt(max(0.0, radius**2 - away**2)) - (radius - rise)
            return -spec.depth + (rise - sag) if spec.shape == "bow" else -spec.depth + sag
        case "rounded":
            radius = min(spec.width / 2, spec.depth)
            away = max(0.0, abs(x - spec.width / 2) - (spec.width / 2 - radius))
            return -spec.depth + radius - math.sqrt(max(0.0, radius**2 - away**2))
    return -spec.depth


def shaped_board(b: Builder, draft: Draft, setback: float = 0.0, edging: float | None = None) -> Draft:
    """Cut the front edge of a lying board (frame X, Y or -X, Y) to the plan of the unit's front."""
    if b.spec.shape == "straight":
        return draft
    steps = 1 if b.spec.shape.startswith("angled") else 24
    edge: list[tuple[float, float]] = []
    ox, oy = draft.frame.origin[0], draft.frame.origin[1]
    way = draft.frame.x[0]
    for i in range(steps + 1):
        u = draft.length * i / steps
        edge.append((u, front_edge(b, ox + way * u) + setback - oy))
    points: Points = (*edge, (draft.length, draft.width), (0.0, draft.width))
    length = sum(math.dist(p, q) for p, q in itertools.pairwise(edge))
    thick = b.spec.made.edging_carcass if edging is None else edging
    return draft.shape(b.stock, points, thick, length)


def _band_front(b: Builder, draft: Draft, thickness: float) -> None:
    """Edging along the front edge; a shaped edge gets its own."""
    if b.spec.shape == "straight":
        draft.band(b.stock, thickness, "L1")


def floor_drop(b: Builder) -> float:
    """mm by which the gables run down past the bottom, to the floor; 0 on legs.

    Raises
    ------
    PlankError where the bottom lies under the gables
    """
    spec = b.spec
    if spec.off_floor <= 0 or spec.level == "hung" or not spec.gables or spec.shape != "straight":
        return 0.0
    if is_under(b):
        raise PlankError(
            "Gables that run down to the floor need the bottom between them.", "gable_foot", "Change one of the two."
        )
    return spec.off_floor


def _notch(b: Builder, left: Draft, right: Draft, down: float) -> None:
    """A notch in the lower front corner of both gables, as high as the plinth and deep enough to take its board."""
    made = b.spec.made
    deep = made.plinth_setback + made.plinth_thickness
    long, wide = left.length, left.width
    edged = long - down
    left.shape(
        b.stock, ((0.0, 0.0), (edged, 0.0), (edged, deep), (long, deep), (long, wide), (0.0, wide)),
        made.edging_carcass, edged,
    )  # fmt: skip
    right.shape(
        b.stock, ((down, 0.0), (long, 0.0), (long, wide), (0.0, wide), (0.0, deep), (down, deep)),
        made.edging_carcass, edged,
    )  # fmt: skip


def make_carcass(b: Builder, bays: BaySet) -> None:
    """Draft every part of the carcass and its joints."""
    spec, made = b.spec, b.spec.made
    w, h, t, s = spec.width, spec.height, made.carcass_thickness, side_thickness(b)
    d = spec.depth
    hung = spec.level == "hung"
    over, under, tg, cut = is_over(b), is_under(b), tongue(b), rear_cut(b)
    z0, z1 = (t - tg if under else 0.0), (h - t + tg if over else h)
    if spec.gables:
        # Left gable: x runs down; right gable: x runs up; L1 is the front edge on both.
        dl, dr = -front_edge(b, t / 2), -front_edge(b, w - t / 2)
        if spec.shape.startswith("angled"):
            # Square-edged, a gable ends where the slant first meets it.
            dl = min(-front_edge(b, 0.0), -front_edge(b, t))
            dr = min(-front_edge(b, w), -front_edge(b, w - t))
        back, down = gable_cut(b), floor_drop(b)
        high = z1 - z0 + down
        left = b.add(GABLE_LEFT, spec.carcass, t, high, dl - back, Frame((0.0, -dl, z1), NEG_Z, Y), "carcass")
        right = b.add(GABLE_RIGHT, spec.carcass, t, high, dr - back, Frame((w, -dr, z0 - down), Z, Y), "carcass")
        if down and spec.feet == "plinth":
            _notch(b, left, right, down)
        else:
            # A hung unit's underside is seen: its gables are banded there too.
            seen = hung and not under
            left.band(b.stock, made.edging_carcass, "L1", *(["W2"] if seen else []))
            right.band(b.stock, made.edging_carcass, "L1", *(["W1"] if seen else []))
    else:
        b.lent = [Lent(GABLE_LEFT, 0.0, d, h), Lent(GABLE_RIGHT, w, d, h)]
        left, right = b.part(GABLE_LEFT), b.part(GABLE_RIGHT)
    if spec.bottom:
        x0 = 0.0 if under else s - tg
        bottom = b.add("bottom", spec.carcass, t, w - 2 * x0, d - cut, Frame((x0, -d, 0.0), X, Y), "carcass")
        _band_front(b, bottom, made.edging_carcass)
        if under:
            bottom.band(b.stock, made.edging_carcass, "W1", "W2")
        shaped_board(b, bottom)
        _join_lying(b, left, right, bottom, t / 2, t, beyond=under)
    if spec.top == "full":
        x0 = 0.0 if over else s - tg
        top = b.add("top", spec.carcass, t, w - 2 * x0, d - cut, Frame((w - x0, -d, h), NEG_X, Y), "carcass")
        _band_front(b, top, made.edging_carcass)
        if over:
            top.band(b.stock, made.edging_carcass, "W1", "W2")
        shaped_board(b, top)
        _join_lying(b, left, right, top, h - t / 2, h - t, beyond=over)
    elif spec.top == "rails":
        _rails(b, left, right)
    for board in bays.boards:
        _board_between(b, board.kind, board.name, board.clear, board.left, board.right)
    if spec.back:
        _back(b, left, right)
    b.fixed()
    if spec.cover:
        _cover(b)
    _feet(b)


def _feet(b: Builder) -> None:
    """Hangers and their holes, or legs with the holes of their plates; fixings of a tall unit to the wall."""
    spec, made = b.spec, b.spec.made
    if spec.level == "hung":
        b.item(made.hanger, 2, "2 hangers for a hung unit")
        _hanger_holes(b)
        return
    if made.wall_fixing != "none" and spec.height > WALL_FIXED * spec.depth:
        b.item(made.wall_fixing, 2, f"2 fixings to the wall: {spec.height:.0f} mm high, {spec.depth:.0f} deep")
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

LEG_IN = 85.0
"""mm from a carcass's edges to the middle of a hidden leg: its plate stays clear of the joints."""


def _leg_plates(b: Builder, count: int) -> None:
    """Pilot holes of each leg's plate in the bottom's underside: pairs from left to right, a fifth in the middle.

    Where a divider stands over a pair in the middle, the pair moves aside."""
    spec = b.spec
    leg = b.stock.fitting(spec.made.leg)
    if leg is None or not leg.holes or spec.corner in ("l", "diagonal") or spec.shape != "straight":
        return
    bottom = b.part("bottom")
    inset = LEG_IN if spec.feet == "plinth" else spec.made.leg_inset + LEG_HALF
    pairs = max(2, count // 2)
    span, deep = spec.width - 2 * inset, bottom.width - 2 * inset
    if span < 60.0 or deep < 60.0:
        return
    uprights = [(d.frame.origin[0] - d.thickness / 2) for d in b.drafts if d.name.startswith("divider")]
    places = []
    for i in range(pairs):
        x = inset + span * i / (pairs - 1)
        near = next((u for u in uprights if abs(u - x) < PLATE_CLEAR), None)
        if near is not None and 0 < i < pairs - 1:
            x = near + PLATE_CLEAR
        places += [(x, -spec.depth + inset), (x, -spec.depth + inset + deep)]
    if count % 2:
        places.append((spec.width / 2, -spec.depth + bottom.width / 2))
    if floor_drop(b):
        places = [p for p in places if inset + 1.0 < p[0] < spec.width - inset - 1.0]
    for x, y in places[:count]:
        for hole in leg.holes:
            bottom.bore((x + hole.dx, y + hole.dy, 0.0), hole.diameter, hole.depth, "leg plate")


LEG_HALF = 20.0
"""mm; half of a leg that is seen."""

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
        for hole in hanger.holes:
            b.part(gable).bore((x, rear - hole.dx, low - hole.dy), hole.diameter, hole.depth, "hanger")


def _cover(b: Builder) -> None:
    """A board over the unit in the fronts' finish, flush with the fronts."""
    spec, made = b.spec, b.spec.made
    deep = spec.depth + made.reach
    frame = Frame((0.0, -deep, spec.height), X, Y)
    cover = b.add("cover", spec.front, spec.cover, spec.width, deep, frame, "cover")
    cover.band(b.stock, made.edging_front, "L1", "W1", "W2")


def _join_lying(
    b: Builder, left: Draft, right: Draft, board: Draft, middle: float, face: float, *, beyond: bool
) -> None:
    """Join a bottom or top to both gables: its ends to their faces, or their ends to its face where it runs past them.

    Parameters
    ----------
    middle : height of the board's middle, mm
    face : height of its face that looks into the unit
    """
    spec, s = b.spec, side_thickness(b)
    grooved = spec.back and spec.made.back_fit == "groove"
    rear = spec.depth - clear_depth(b) - spec.vent if grooved else 0.0
    end = -rear_cut(b)
    for gable, x in ((left, s), (right, spec.width - s)):
        front = gable.frame.origin[1]
        if spec.shape in ("bow", "hollow", "rounded") and spec.made.joint != "groove":
            front = max(front, front_edge(b, x))
        if beyond:
            at = x - s / 2 if gable is left else x + s / 2
            b.join(board, gable, (at, front, face), (at, end, face), rear)
        else:
            b.join(gable, board, (x, front, middle), (x, end, middle), rear)


def _rails(b: Builder, left: Draft, right: Draft) -> None:
    """Two rails at the top: lying flat, or standing on edge under a sink."""
    spec, made = b.spec, b.spec.made
    w, h, d, t, r, s = spec.width, spec.height, spec.depth, made.carcass_thickness, made.rail_width, side_thickness(b)
    rear, tg = -(d - clear_depth(b) - spec.vent), tongue(b)
    for name, front_y in (("front rail", -d), ("rear rail", rear - (t if spec.sink else r))):
        if spec.sink:
            # Standing: face A looks back into the unit, length runs from left to right.
            frame = Frame((w - s + tg, front_y, h - r), NEG_X, Z)
            rail = b.add(name, spec.carcass, t, w - 2 * (s - tg), r, frame, "carcass")
            middle = front_y + t / 2
            lines = [((x, middle, h), (x, middle, h - r)) for x in (s, w - s)]
        else:
            frame = Frame((w - s + tg, front_y, h), NEG_X, Y)
            rail = b.add(name, spec.carcass, t, w - 2 * (s - tg), r, frame, "carcass")
            lines = [((x, front_y, h - t / 2), (x, front_y + r, h - t / 2)) for x in (s, w - s)]
        if name == "front rail" and not spec.sink:
            rail.band(b.stock, made.edging_carcass, "L1")
        for gable, (start, end) in zip((left, right), lines, strict=True):
            b.join(gable, rail, start, end)


def _back(b: Builder, left: Draft, right: Draft) -> None:
    """The back: in grooves of gables, bottom and (where it is whole) top, in rebates of the gables, or planted on."""
    made = b.spec.made
    if made.back_fit == "on":
        _back_on(b)
    elif made.back_fit == "rebate":
        _back_rebated(b, left, right)
    else:
        _back_grooved(b, left, right)
    if b.spec.depth - clear_depth(b) > b.spec.depth - 100:
        b.problem("The unit is too shallow for its back.", "Make it deeper.")
    _pipes(b)


PIPE_HOLE = {"water": 80.0, "waste": 90.0, "power": 80.0, "gas": 70.0, "vent": 170.0}
"""mm; side of the square cut out of a back round a service point (common practice: room for a hand and a trap)."""


def _pipes(b: Builder) -> None:
    """Cut-outs in the back round the service points behind it; near an edge they are notches. Points close together
    share one."""
    back = b.part("back")
    boxes: list[list[float]] = []
    for kind, x, z in b.spec.pipes:
        half = PIPE_HOLE[kind] / 2
        u, v, _ = back.frame.into((x, 0.0, z))
        low_u, high_u = max(0.0, u - half), min(back.length, u + half)
        low_v, high_v = max(0.0, v - half), min(back.width, v + half)
        if high_u - low_u < 10.0 or high_v - low_v < 10.0:
            continue
        box = [low_u, low_v, high_u, high_v]
        for other in list(boxes):
            if box[0] < other[2] + 20 and other[0] < box[2] + 20 and box[1] < other[3] + 20 and other[1] < box[3] + 20:
                boxes.remove(other)
                box = [min(box[0], other[0]), min(box[1], other[1]), max(box[2], other[2]), max(box[3], other[3])]
        boxes.append(box)
    for u0, v0, u1, v1 in boxes:
        back.operations.append(Cutout(u0, v0, u1 - u0, v1 - v0, 10.0))


def _back_board(b: Builder, x0: float, x1: float, z0: float, z1: float, rear: float) -> Draft:
    """A back between two places, its rear face so far before the carcass's rear. Face A looks into the unit: length
    up, L1 at the right; lying where it is wider than its board."""
    spec, made = b.spec, b.spec.made
    board = b.board(spec.carcass, made.back_thickness, "back")
    lying = x1 - x0 > board.width - 20.0 and z1 - z0 <= board.width - 20.0
    frame = Frame((x0, -rear, z0), X, Z) if lying else Frame((x1, -rear, z0), Z, NEG_X)
    size = (x1 - x0, z1 - z0) if lying else (z1 - z0, x1 - x0)
    return b.add("back", spec.carcass, made.back_thickness, *size, frame, "back")


SCREW_PITCH = 150.0
"""mm between the screws of a back that is planted on or lies in a rebate (common practice)."""


def _back_screws(b: Builder, back: Draft) -> None:
    count = 4 + 2 * (int(back.length // SCREW_PITCH) + int(back.width // SCREW_PITCH))
    b.item(b.spec.made.screw, count, f"back screwed on every {SCREW_PITCH:g} mm")


def _back_on(b: Builder) -> None:
    spec, made = b.spec, b.spec.made
    play = made.groove_bottom_play
    _back_screws(b, _back_board(b, play, spec.width - play, play, spec.height - play, 0.0))


def _back_rebated(b: Builder, left: Draft, right: Draft) -> None:
    """Rebates along the gables' rear edges take the back's edges; it covers the rear of bottom and top."""
    spec, made, s = b.spec, b.spec.made, side_thickness(b)
    play = made.groove_bottom_play
    into = made.back_rebate - play if s else -play
    for gable in (left, right):
        if not isinstance(gable, Lent):
            gable.operations.append(Rebate("A", "L2", made.back_thickness, made.back_rebate))
    _back_screws(b, _back_board(b, s - into, spec.width - s + into, play, spec.height - play, 0.0))


def _back_grooved(b: Builder, left: Draft, right: Draft) -> None:
    spec, made = b.spec, b.spec.made
    w, h, t, s = spec.width, spec.height, made.carcass_thickness, side_thickness(b)
    deep, play = made.back_groove_depth, made.groove_bottom_play
    wide = made.back_thickness + made.groove_width_play
    y = -(made.back_inset + wide / 2)
    full = spec.top == "full"
    side = deep if s else 0.0
    z0 = t - deep + play if spec.bottom else 0.0
    z1 = h - t + deep - play if full else h
    x0, x1 = s - side + play, w - s + side - play
    _back_board(b, x0, x1, z0, z1, made.back_inset + made.groove_width_play / 2)
    low, high = (t if is_under(b) else 0.0), (h - t if is_over(b) else h)
    left.groove((s, y, low), (s, y, high), wide, deep, "back")
    right.groove((w - s, y, low), (w - s, y, high), wide, deep, "back")
    tg = tongue(b)
    if spec.bottom:
        # Under the gables it takes the back's whole width, which reaches into their grooves.
        end = s - side if is_under(b) else s - tg
        b.part("bottom").groove((end, y, t), (w - end, y, t), wide, deep, "back")
    if full:
        end = s - side if is_over(b) else s - tg
        b.part("top").groove((end, y, h - t), (w - end, y, h - t), wide, deep, "back")


def _board_between(b: Builder, kind: str, name: str, r: Rect, left: str, right: str) -> None:
    """A fixed shelf or a divider between bays, joined at both ends."""
    spec, made = b.spec, b.spec.made
    deep, tg = clear_depth(b), tongue(b)
    d = spec.depth
    if kind == "shelf":
        thick = made.shelf_thickness
        frame = Frame((r.x0 - tg, -d, r.z0), X, Y)
        shelf = b.add(name, spec.carcass, thick, r.width + 2 * tg, deep, frame, "carcass")
        _band_front(b, shelf, made.edging_shelf)
        shaped_board(b, shelf, edging=made.edging_shelf)
        z = (r.z0 + r.z1) / 2
        for upright, x in ((left, r.x0), (right, r.x1)):
            gable = b.part(upright)
            front = gable.frame.origin[1] if gable.role in ("carcass", "lent") else -d
            if spec.shape in ("bow", "hollow", "rounded"):
                front = max(front, front_edge(b, x))
            b.join(gable, shelf, (x, front, z), (x, -d + deep, z))
        return
    # A divider stands like a right gable: x up, face A to the left. It enters only boards that are there.
    x = (r.x0 + r.x1) / 2
    ends = [
        next((p for p in b.drafts if p.role == "carcass" and _lies_at(p, x, z, d)), None) for z in (r.z0, r.z1)
    ]  # fmt: skip
    low, high = (r.z0 - tg if ends[0] else r.z0), (r.z1 + tg if ends[1] else r.z1)
    divider = b.add(
        name, spec.carcass, made.carcass_thickness, high - low, deep, Frame((r.x1, -d, low), Z, Y), "carcass"
    )
    divider.band(b.stock, made.edging_carcass, "L1")
    for z, lying in zip((r.z0, r.z1), ends, strict=True):
        if lying is not None:
            b.join(lying, divider, (x, -d, z), (x, -d + min(deep, lying.width), z))


def _lies_at(part: Draft, x: float, z: float, depth: float) -> bool:
    """Whether a lying part has a face at height z over x, near the front of the unit."""
    local = part.frame.into((x, -depth + 20.0, z))
    on_face = abs(local[2]) < 0.01 or abs(local[2] - part.thickness) < 0.01
    return on_face and 0 < local[0] < part.length and 0 < local[1] < part.width


def free_height(b: Builder, box: BayBox) -> tuple[float, float]:
    """The largest clear height that the fittings of a bay leave to its adjustable shelves: from, to, mm."""
    taken = sorted(
        (f.z - f.free_below, f.z + f.height) for f in b.fitted if f.path == box.path and f.kind not in ("light",)
    )
    best = (box.clear.z0, box.clear.z0)
    at = box.clear.z0
    for low, high in (*taken, (box.clear.z1, box.clear.z1)):
        if low - at > best[1] - best[0]:
            best = (at, low)
        at = max(at, high)
    return best


def shelf_heights(b: Builder, box: BayBox) -> tuple[tuple[float, ...], list[float]]:
    """System hole heights of a bay, and the underside of each of its adjustable shelves, spread evenly on them over the
    height that its fittings leave."""
    made, count = b.spec.made, box.bay.shelves
    low, high = free_height(b, box)
    heights = row_heights(b.spec.height, low + made.row_margin, high - made.row_margin, made)
    if len(heights) < count:
        b.problem(
            f"{count} adjustable shelves have only {len(heights)} hole places.", "Take a shelf out or make it higher."
        )
        return heights, []
    thick = made.shelf_thickness
    step = (high - low + thick) / (count + 1)
    found = []
    for i in range(1, count + 1):
        wanted = low + i * step - thick
        nearest = min(heights, key=lambda hole, wanted=wanted: abs(hole - wanted))  # type: ignore[misc]
        found.append(nearest + made.pin_diameter / 2)
        shelf = sum(d.role == "shelf" for d in b.drafts) + i
        b.force(f"height of shelf {shelf}", wanted, found[-1], f"holes {made.row_pitch:g} apart")
    return heights, found


def make_shelves(b: Builder, box: BayBox) -> None:
    """Adjustable shelves of a bay, spread evenly on the hole rows, with pins."""
    spec, made, count = b.spec, b.spec.made, box.bay.shelves
    if not count:
        return
    deep = clear_depth(b)
    thick = made.shelf_thickness
    length = box.clear.width - 2 * made.shelf_play
    width = deep - b.recess - made.shelf_setback - made.shelf_back_clearance
    heights, places = shelf_heights(b, box)
    if not places:
        return
    # Holes in both rows on both uprights of the bay.
    for upright, x in ((box.left, box.clear.x0), (box.right, box.clear.x1)):
        draft = b.part(upright)
        front = draft.frame.origin[1]
        first = made.row_inset + b.recess
        inside = deep - b.recess - (front + spec.depth)
        for row in (first, b.recess + rear_row(inside, made.row_inset, made.row_pitch)):
            for z in heights:
                use = SHELF_STANDS if any(abs(z - p + made.pin_diameter / 2) < 0.01 for p in places) else "shelf pin"
                draft.bore((x, front + row, z), made.pin_diameter, made.pin_depth, use)
    for z in places:
        origin = (box.clear.x0 + made.shelf_play, -spec.depth + b.recess + made.shelf_setback, z)
        shelf = b.add(
            f"shelf {sum(d.role == 'shelf' for d in b.drafts) + 1}",
            spec.carcass,
            thick,
            length,
            width,
            Frame(origin, X, Y),
            "shelf",
        )
        _band_front(b, shelf, made.edging_shelf)
        shaped_board(b, shelf, b.recess + made.shelf_setback, made.edging_shelf)
    b.item(made.shelf_pin, 4 * count, f"4 pins for each of {count} shelves")
