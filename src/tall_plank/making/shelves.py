"""Adjustable shelves on their hole rows: how many fit, on which holes, with pins."""

from __future__ import annotations

from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder
from tall_plank.making.pinrows import rear_row, row_heights
from tall_plank.making.shell import band_front, clear_depth, shaped_board
from tall_plank.measure import Frame
from tall_plank.measure.frames import X, Y

SHELF_STANDS = "shelf"
"""Use of the row holes that a shelf stands on; the others, for pins, give way where something needs the place."""


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
    if not count or not b.held(box, "A shelf"):
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
        band_front(b, shelf, made.edging_shelf)
        shaped_board(b, shelf, b.recess + made.shelf_setback, made.edging_shelf)
    b.item(made.shelf_pin, 4 * count, f"4 pins for each of {count} shelves")
