"""The carcass: gables, bottom, rails or top, grooved back, shelves and dividers, with dowel joints and hole rows.

Unit frame: x to the right, y from the front towards the wall (0 at the back, -depth at the front), z up. One carcass
serves every kind: what it has, and the plan of its front, are the kind's data. Corner units with two legs: cornered.py.
"""

from __future__ import annotations

import itertools
import math

from tall_plank.making.bayset import BayBox, BaySet, Rect
from tall_plank.making.builder import Builder
from tall_plank.making.holes import leg_count, rear_row, row_heights
from tall_plank.making.parts import Draft, Lent
from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_X, NEG_Z, X, Y, Z
from tall_plank.measure.outlines import Points
from tall_plank.setout.tops import slant_depth

GABLE_LEFT, GABLE_RIGHT = "left gable", "right gable"
BOW = 0.12
"""Rise of a bowed or hollowed front, as a share of the unit's width."""


def clear_depth(b: Builder) -> float:
    """mm from the carcass's front edge to the front of the back (or of the air kept behind what stands in it)."""
    made = b.spec.made
    if not b.spec.back:
        return b.spec.depth - b.spec.vent
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


def make_carcass(b: Builder, bays: BaySet) -> None:
    """Draft every part of the carcass and its joints."""
    spec, made = b.spec, b.spec.made
    w, h, t, s = spec.width, spec.height, made.carcass_thickness, side_thickness(b)
    d = spec.depth
    hung = spec.level == "hung"
    if spec.gables:
        # Left gable: x runs down; right gable: x runs up; L1 is the front edge on both.
        dl, dr = -front_edge(b, t / 2), -front_edge(b, w - t / 2)
        if spec.shape.startswith("angled"):
            dl, dr = -front_edge(b, 0.0), -front_edge(b, w)
        left = b.add(GABLE_LEFT, spec.carcass, t, h, dl, Frame((0.0, -dl, h), NEG_Z, Y), "carcass")
        right = b.add(GABLE_RIGHT, spec.carcass, t, h, dr, Frame((w, -dr, 0.0), Z, Y), "carcass")
        # A hung unit's underside is seen: its gables are banded there too.
        left.band(b.stock, made.edging_carcass, "L1", *(["W2"] if hung else []))
        right.band(b.stock, made.edging_carcass, "L1", *(["W1"] if hung else []))
    else:
        b.lent = [Lent(GABLE_LEFT, 0.0, d, h), Lent(GABLE_RIGHT, w, d, h)]
        left, right = b.part(GABLE_LEFT), b.part(GABLE_RIGHT)
    dowels = 0
    if spec.bottom:
        bottom = b.add("bottom", spec.carcass, t, w - 2 * s, d, Frame((s, -d, 0.0), X, Y), "carcass")
        _band_front(b, bottom, made.edging_carcass)
        shaped_board(b, bottom)
        dowels += _joint_to_gables(b, left, right, bottom, t / 2)
    if spec.top == "full":
        top = b.add("top", spec.carcass, t, w - 2 * s, d, Frame((w - s, -d, h), NEG_X, Y), "carcass")
        _band_front(b, top, made.edging_carcass)
        shaped_board(b, top)
        dowels += _joint_to_gables(b, left, right, top, h - t / 2)
    elif spec.top == "rails":
        dowels += _rails(b, left, right)
    for board in bays.boards:
        dowels += _board_between(b, board.kind, board.name, board.clear, board.left, board.right)
    if spec.back:
        _back(b, left, right)
    b.item(made.dowel, dowels, f"dowel joints every {made.dowel_spacing:g} mm at most")
    for box in bays.leaves:
        _shelves(b, box)
    if spec.cover:
        _cover(b)
    _feet(b)


def _feet(b: Builder) -> None:
    spec, made = b.spec, b.spec.made
    if spec.level == "hung":
        b.item(made.hanger, 2, "2 hangers for a hung unit")
    elif spec.bottom and spec.gables:
        count = leg_count(spec.width, made)
        if count is None:
            b.problem(f"No leg rule reaches {spec.width:g} mm of width.", "Add a rule to the shop standard.", "mind")
            count = made.leg_rules[-1].count if made.leg_rules else 4
        b.item(made.leg, count, f"{count} legs for {spec.width:g} mm of width")


def _cover(b: Builder) -> None:
    """A board over the unit in the fronts' finish, flush with the fronts."""
    spec, made = b.spec, b.spec.made
    deep = spec.depth + made.front_thickness
    frame = Frame((0.0, -deep, spec.height), X, Y)
    cover = b.add("cover", spec.front, spec.cover, spec.width, deep, frame, "cover")
    cover.band(b.stock, made.edging_front, "L1", "W1", "W2")


def _joint_to_gables(b: Builder, left: Draft, right: Draft, board: Draft, z: float) -> int:
    spec, s = b.spec, side_thickness(b)
    rear = spec.depth - clear_depth(b)
    count = 0
    for gable, x in ((left, s), (right, spec.width - s)):
        front = gable.frame.origin[1]
        if spec.shape in ("bow", "hollow", "rounded"):
            front = max(front, front_edge(b, x))
        count += b.dowel_joint(gable, board, (x, front, z), (x, 0.0, z), rear)
    return count


def _rails(b: Builder, left: Draft, right: Draft) -> int:
    """Two rails at the top: lying flat, or standing on edge under a sink."""
    spec, made = b.spec, b.spec.made
    w, h, d, t, r, s = spec.width, spec.height, spec.depth, made.carcass_thickness, made.rail_width, side_thickness(b)
    rear = -(d - clear_depth(b))
    dowels = 0
    for name, front_y in (("front rail", -d), ("rear rail", rear - (t if spec.sink else r))):
        if spec.sink:
            # Standing: face A looks back into the unit, length runs from left to right.
            frame = Frame((w - s, front_y, h - r), NEG_X, Z)
            rail = b.add(name, spec.carcass, t, w - 2 * s, r, frame, "carcass")
            middle = front_y + t / 2
            lines = [((x, middle, h), (x, middle, h - r)) for x in (s, w - s)]
        else:
            rail = b.add(name, spec.carcass, t, w - 2 * s, r, Frame((w - s, front_y, h), NEG_X, Y), "carcass")
            lines = [((x, front_y, h - t / 2), (x, front_y + r, h - t / 2)) for x in (s, w - s)]
        if name == "front rail" and not spec.sink:
            rail.band(b.stock, made.edging_carcass, "L1")
        for gable, (start, end) in zip((left, right), lines, strict=True):
            dowels += b.dowel_joint(gable, rail, start, end)
    return dowels


def _back(b: Builder, left: Draft, right: Draft) -> None:
    """The back in grooves of gables, bottom and (where it is whole) top; without one it runs up flush."""
    spec, made = b.spec, b.spec.made
    w, h, d, t, s = spec.width, spec.height, spec.depth, made.carcass_thickness, side_thickness(b)
    deep, play = made.back_groove_depth, made.groove_bottom_play
    wide = made.back_thickness + made.groove_width_play
    y = -(made.back_inset + wide / 2)
    full = spec.top == "full"
    side = deep if s else 0.0
    z0 = t - deep + play if spec.bottom else 0.0
    z1 = h - t + deep - play if full else h
    x0, x1 = s - side + play, w - s + side - play
    front = -made.back_inset - made.groove_width_play / 2
    board = b.board(spec.carcass, made.back_thickness, "back")
    wide_back = x1 - x0 > board.width - 20.0 and z1 - z0 <= board.width - 20.0
    # Face A looks into the unit: length up, L1 at the right; lying where it is wider than its board.
    frame = Frame((x0, front, z0), X, Z) if wide_back else Frame((x1, front, z0), Z, NEG_X)
    size = (x1 - x0, z1 - z0) if wide_back else (z1 - z0, x1 - x0)
    b.add("back", spec.carcass, made.back_thickness, *size, frame, "back")
    left.groove((s, y, 0.0), (s, y, h), wide, deep, "back")
    right.groove((w - s, y, 0.0), (w - s, y, h), wide, deep, "back")
    if spec.bottom:
        b.part("bottom").groove((s, y, t), (w - s, y, t), wide, deep, "back")
    if full:
        b.part("top").groove((s, y, h - t), (w - s, y, h - t), wide, deep, "back")
    if d - made.back_inset - wide < 100:
        b.problem("The unit is too shallow for its grooved back.", "Make it deeper.")


def _board_between(b: Builder, kind: str, name: str, r: Rect, left: str, right: str) -> int:
    """A fixed shelf or a divider between bays, dowelled at both ends."""
    spec, made = b.spec, b.spec.made
    deep = clear_depth(b)
    d = spec.depth
    if kind == "shelf":
        thick = made.shelf_thickness
        shelf = b.add(name, spec.carcass, thick, r.width, deep, Frame((r.x0, -d, r.z0), X, Y), "carcass")
        _band_front(b, shelf, made.edging_shelf)
        shaped_board(b, shelf, edging=made.edging_shelf)
        z = (r.z0 + r.z1) / 2
        count = 0
        for upright, x in ((left, r.x0), (right, r.x1)):
            gable = b.part(upright)
            front = gable.frame.origin[1] if gable.role in ("carcass", "lent") else -d
            if spec.shape in ("bow", "hollow", "rounded"):
                front = max(front, front_edge(b, x))
            count += b.dowel_joint(gable, shelf, (x, front, z), (x, -d + deep, z))
        return count
    # A divider stands like a right gable: x up, face A to the left.
    divider = b.add(
        name, spec.carcass, made.carcass_thickness, r.height, deep, Frame((r.x1, -d, r.z0), Z, Y), "carcass"
    )
    divider.band(b.stock, made.edging_carcass, "L1")
    x = (r.x0 + r.x1) / 2
    count = 0
    for z in (r.z0, r.z1):
        below = next((p for p in b.drafts if p.role == "carcass" and p is not divider and _lies_at(p, x, z, d)), None)
        if below is not None:
            count += b.dowel_joint(below, divider, (x, -d, z), (x, -d + min(deep, below.width), z))
    return count


def _lies_at(part: Draft, x: float, z: float, depth: float) -> bool:
    """Whether a lying part has a face at height z over x, near the front of the unit."""
    local = part.frame.into((x, -depth + 20.0, z))
    on_face = abs(local[2]) < 0.01 or abs(local[2] - part.thickness) < 0.01
    return on_face and 0 < local[0] < part.length and 0 < local[1] < part.width


def shelf_heights(b: Builder, box: BayBox) -> tuple[tuple[float, ...], list[float]]:
    """System hole heights of a bay, and the underside of each of its adjustable shelves, spread evenly on them."""
    made, count = b.spec.made, box.bay.shelves
    heights = row_heights(b.spec.height, box.clear.z0 + made.row_margin, box.clear.z1 - made.row_margin, made)
    if len(heights) < count:
        b.problem(
            f"{count} adjustable shelves have only {len(heights)} hole places.", "Take a shelf out or make it higher."
        )
        return heights, []
    thick = made.shelf_thickness
    step = (box.clear.height + thick) / (count + 1)
    found = []
    for i in range(1, count + 1):
        wanted = box.clear.z0 + i * step - thick
        nearest = min(heights, key=lambda hole, wanted=wanted: abs(hole - wanted))  # type: ignore[misc]
        found.append(nearest + made.pin_diameter / 2)
    return heights, found


def _shelves(b: Builder, box: BayBox) -> None:
    """Adjustable shelves of a bay, spread evenly on the hole rows, with pins."""
    spec, made, count = b.spec, b.spec.made, box.bay.shelves
    if not count:
        return
    deep = clear_depth(b)
    thick = made.shelf_thickness
    length = box.clear.width - 2 * made.shelf_play
    width = deep - made.shelf_setback - made.shelf_back_clearance
    heights, places = shelf_heights(b, box)
    if not places:
        return
    # Holes in both rows on both uprights of the bay.
    for upright, x in ((box.left, box.clear.x0), (box.right, box.clear.x1)):
        draft = b.part(upright)
        front = draft.frame.origin[1]
        for row in (made.row_inset, rear_row(deep - (front + spec.depth), made.row_inset, made.row_pitch)):
            for z in heights:
                draft.bore((x, front + row, z), made.pin_diameter, made.pin_depth, "shelf pin")
    for z in places:
        origin = (box.clear.x0 + made.shelf_play, -spec.depth + made.shelf_setback, z)
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
        shaped_board(b, shelf, made.shelf_setback, made.edging_shelf)
    b.item(made.shelf_pin, 4 * count, f"4 pins for each of {count} shelves")
