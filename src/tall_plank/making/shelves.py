"""Adjustable shelves on their hole rows: how many fit, on which holes, with pins."""

from __future__ import annotations

from collections.abc import Sequence

from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder
from tall_plank.making.pinrows import rear_row, row_heights
from tall_plank.making.shell import band_front, clear_depth, shaped_board
from tall_plank.measure import Frame
from tall_plank.measure.frames import X, Y

LEAST_BETWEEN = 40.0
"""mm of clear height between two adjustable shelves (common practice: enough for a hand)."""

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
    thick = made.shelf_thickness
    apart = thick + LEAST_BETWEEN
    step = (high - low + thick) / (count + 1)
    wanted = [low + i * step - thick for i in range(1, count + 1)]
    holes = nearest_apart(heights, wanted, apart)
    if holes is None:
        most = 0
        while nearest_apart(heights, wanted[: most + 1], apart) is not None:
            most += 1
        room = f"on holes {made.row_pitch:g} mm apart, with {LEAST_BETWEEN:g} mm between them, here is room for {most}"
        b.problem(f"{count} adjustable shelves: {room}.", "Take a shelf out or make it higher.")
        return heights, []
    found = [hole + made.pin_diameter / 2 for hole in holes]
    before = sum(d.role == "shelf" for d in b.drafts)
    for i, (asked, at) in enumerate(zip(wanted, found, strict=True), 1):
        b.force(f"height of shelf {before + i}", asked, at, f"holes {made.row_pitch:g} apart")
    return heights, found


def nearest_apart(holes: Sequence[float], wanted: Sequence[float], apart: float) -> list[float] | None:
    """A hole for each wanted height, upwards and at least so far apart, with the least distances in all; None where
    there are too few. All in mm.

    Found step by step: the best for the first shelves that ends at each hole (dynamic programming).
    """
    best: list[tuple[float, list[float]] | None] = [(0.0, [])]
    for i, height in enumerate(wanted):
        row: list[tuple[float, list[float]] | None] = []
        cheapest: tuple[float, list[float]] | None = best[0] if i == 0 else None
        below = 0
        for hole in holes:
            while i > 0 and below < len(holes) and hole - holes[below] >= apart - 1e-6:
                one = best[below]
                if one is not None and (cheapest is None or one[0] < cheapest[0]):
                    cheapest = one
                below += 1
            row.append(None if cheapest is None else (cheapest[0] + abs(hole - height), [*cheapest[1], hole]))
        best = row
    ends = [end for end in best if end is not None]
    return min(ends, key=lambda end: end[0])[1] if ends else None


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
