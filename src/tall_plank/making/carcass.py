"""The carcass: gables, bottom, rails or top, grooved back, shelves and dividers, with dowel joints and hole rows.

Unit frame: x to the right, y from the front towards the wall (0 at the back, -depth at the front), z up.
"""

from __future__ import annotations

from tall_plank.making.bayset import BayBox, BaySet, Rect
from tall_plank.making.builder import Builder
from tall_plank.making.holes import leg_count, rear_row, row_heights
from tall_plank.making.parts import Draft
from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_X, NEG_Z, X, Y, Z

GABLE_LEFT, GABLE_RIGHT = "left gable", "right gable"


def clear_depth(b: Builder) -> float:
    """mm from the carcass's front edge to the front of the back."""
    made = b.spec.made
    return b.spec.depth - made.back_inset - made.back_thickness - made.groove_width_play


def clear_of_carcass(b: Builder) -> Rect:
    """The clear space between gables, bottom and top (or the underside of the rails)."""
    spec, t = b.spec, b.spec.made.carcass_thickness
    top = spec.height if spec.sink else spec.height - t
    return Rect(t, t, spec.width - t, top)


def make_carcass(b: Builder, bays: BaySet) -> None:
    """Draft every part of the carcass and its joints."""
    spec, made = b.spec, b.spec.made
    w, h, d, t = spec.width, spec.height, spec.depth, made.carcass_thickness
    hung = spec.level == "hung"
    # Left gable: x runs down; right gable: x runs up; L1 is the front edge on both.
    left = b.add(GABLE_LEFT, spec.carcass, t, h, d, Frame((0.0, -d, h), NEG_Z, Y), "carcass")
    right = b.add(GABLE_RIGHT, spec.carcass, t, h, d, Frame((w, -d, 0.0), Z, Y), "carcass")
    # A hung unit's underside is seen: its gables are banded there too.
    left.band(b.stock, made.edging_carcass, "L1", *(["W2"] if hung else []))
    right.band(b.stock, made.edging_carcass, "L1", *(["W1"] if hung else []))
    bottom = b.add("bottom", spec.carcass, t, w - 2 * t, d, Frame((t, -d, 0.0), X, Y), "carcass")
    bottom.band(b.stock, made.edging_carcass, "L1")
    dowels = _joint_to_gables(b, left, right, bottom, t / 2)
    if spec.top == "full":
        top = b.add("top", spec.carcass, t, w - 2 * t, d, Frame((w - t, -d, h), NEG_X, Y), "carcass")
        top.band(b.stock, made.edging_carcass, "L1")
        dowels += _joint_to_gables(b, left, right, top, h - t / 2)
    else:
        dowels += _rails(b, left, right)
    for board in bays.boards:
        dowels += _board_between(b, board.kind, board.name, board.clear, board.left, board.right)
    _back(b, left, right)
    b.item(made.dowel, dowels, f"dowel joints every {made.dowel_spacing:g} mm at most")
    for box in bays.leaves:
        _shelves(b, box)
    if spec.level == "base":
        count = leg_count(w, made)
        if count is None:
            b.problem(f"No leg rule reaches {w:g} mm of width.", "Add a rule to the shop standard.", "mind")
            count = made.leg_rules[-1].count if made.leg_rules else 4
        b.item(made.leg, count, f"{count} legs for {w:g} mm of width")
    elif hung:
        b.item(made.hanger, 2, "2 hangers for a hung unit")


def _joint_to_gables(b: Builder, left: Draft, right: Draft, board: Draft, z: float) -> int:
    spec, t = b.spec, b.spec.made.carcass_thickness
    rear = spec.depth - clear_depth(b)
    count = 0
    for gable, x in ((left, t), (right, spec.width - t)):
        count += b.dowel_joint(gable, board, (x, -spec.depth, z), (x, 0.0, z), rear)
    return count


def _rails(b: Builder, left: Draft, right: Draft) -> int:
    """Two rails at the top: lying flat, or standing on edge under a sink."""
    spec, made = b.spec, b.spec.made
    w, h, d, t, r = spec.width, spec.height, spec.depth, made.carcass_thickness, made.rail_width
    rear = -(d - clear_depth(b))
    dowels = 0
    for name, front_y in (("front rail", -d), ("rear rail", rear - (t if spec.sink else r))):
        if spec.sink:
            # Standing: face A looks back into the unit, length runs from left to right.
            frame = Frame((w - t, front_y, h - r), NEG_X, Z)
            rail = b.add(name, spec.carcass, t, w - 2 * t, r, frame, "carcass")
            middle = front_y + t / 2
            lines = [((x, middle, h), (x, middle, h - r)) for x in (t, w - t)]
        else:
            rail = b.add(name, spec.carcass, t, w - 2 * t, r, Frame((w - t, front_y, h), NEG_X, Y), "carcass")
            lines = [((x, front_y, h - t / 2), (x, front_y + r, h - t / 2)) for x in (t, w - t)]
        if name == "front rail" and not spec.sink:
            rail.band(b.stock, made.edging_carcass, "L1")
        for gable, (start, end) in zip((left, right), lines, strict=True):
            dowels += b.dowel_joint(gable, rail, start, end)
    return dowels


def _back(b: Builder, left: Draft, right: Draft) -> None:
    """The back in grooves of gables, bottom and (where it is whole) top; without one it runs up flush."""
    spec, made = b.spec, b.spec.made
    w, h, d, t = spec.width, spec.height, spec.depth, made.carcass_thickness
    deep, play = made.back_groove_depth, made.groove_bottom_play
    wide = made.back_thickness + made.groove_width_play
    y = -(made.back_inset + wide / 2)
    full = spec.top == "full"
    z0 = t - deep + play
    z1 = h - t + deep - play if full else h
    x0, x1 = t - deep + play, w - t + deep - play
    b.add(
        "back",
        spec.carcass,
        made.back_thickness,
        z1 - z0,
        x1 - x0,
        # Face A looks into the unit: length up, L1 at the right.
        Frame((x1, -made.back_inset - made.groove_width_play / 2, z0), Z, NEG_X),
        "back",
    )
    left.groove((t, y, 0.0), (t, y, h), wide, deep, "back")
    right.groove((w - t, y, 0.0), (w - t, y, h), wide, deep, "back")
    b.part("bottom").groove((t, y, t), (w - t, y, t), wide, deep, "back")
    if full:
        b.part("top").groove((t, y, h - t), (w - t, y, h - t), wide, deep, "back")
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
        shelf.band(b.stock, made.edging_shelf, "L1")
        z = (r.z0 + r.z1) / 2
        count = 0
        for upright, x in ((left, r.x0), (right, r.x1)):
            count += b.dowel_joint(b.part(upright), shelf, (x, -d, z), (x, -d + deep, z))
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


def _shelves(b: Builder, box: BayBox) -> None:
    """Adjustable shelves of a bay, spread evenly on the hole rows, with pins."""
    spec, made, count = b.spec, b.spec.made, box.bay.shelves
    if not count:
        return
    deep = clear_depth(b)
    thick = made.shelf_thickness
    length = box.clear.width - 2 * made.shelf_play
    width = deep - made.shelf_setback - made.shelf_back_clearance
    heights = row_heights(spec.height, box.clear.z0 + made.row_margin, box.clear.z1 - made.row_margin, made)
    if len(heights) < count:
        b.problem(
            f"{count} adjustable shelves have only {len(heights)} hole places.", "Take a shelf out or make it higher."
        )
        return
    # Holes in both rows on both uprights of the bay.
    rows = (made.row_inset, rear_row(deep, made.row_inset, made.row_pitch))
    for upright, x in ((box.left, box.clear.x0), (box.right, box.clear.x1)):
        draft = b.part(upright)
        for row in rows:
            for z in heights:
                draft.bore((x, -spec.depth + row, z), made.pin_diameter, made.pin_depth, "shelf pin")
    step = (box.clear.height + thick) / (count + 1)
    for i in range(1, count + 1):
        wanted = box.clear.z0 + i * step - thick
        z = min(heights, key=lambda hole, wanted=wanted: abs(hole - wanted)) + made.pin_diameter / 2  # type: ignore[misc]
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
        shelf.band(b.stock, made.edging_shelf, "L1")
    b.item(made.shelf_pin, 4 * count, f"4 pins for each of {count} shelves")
