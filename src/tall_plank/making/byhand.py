"""What is bought and not drilled for is fixed by hand: the schedule says so, and how."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import msgspec

from tall_plank.making.parts import Asked, Bore, Groove, Item, Part
from tall_plank.stock import Fitting, Stock

BY_HAND = {
    "leg": "screwed on by hand where its bottom has room",
    "shelf_pin": "drilled by hand where the shelf meets its support",
    "fold_hinge": "let in by hand, to the maker's template, on the backs of both leaves",
    "joint_bolt": "let in by hand from below, across the joint",
    "wall_fixing": "screwed by hand to the top and to the wall",
    "hanger": "fixed by hand inside the upper rear corners",
    "pullout": "fixed by hand on the bottom, its front adjusted last",
    "bifold": "track and guide screwed on by hand under the top",
    "pocket": "fixed by hand beside the gable, to the maker's sheet",
    "socket": "screwed on by hand at the rail's ends",
    "handle": "drilled by hand through the front's face",
    "grille": "set in by hand",
    "light": "fixed by hand, clipped or stuck on",
    "bed": "bolted by hand to the gables",
    "bracket": "screwed on by hand under its shelf",
    "basket": "screwed on by hand at both sides",
    "rail": "its sockets screwed on by hand",
    "rack": "screwed on by hand at both sides",
    "tray": "screwed on by hand at both sides",
    "shoes": "set on brackets by hand",
    "bin": "screwed on by hand to the bottom",
    "drainer": "set in by hand between the gables",
}
"""Kind of fitting -> how it is fixed where nothing is drilled for it (common practice)."""

PAIRED = {
    "dowel": "dowel",
    "biscuit": "biscuit",
    "tenon": "loose tenon",
    "pocket_screw": "pocket screw",
    "cam": "cam dowel",
}
"""Kinds of which each goes into a hole or a slot on both sides -> the use of those."""


def holes_of(fitting: Fitting) -> tuple[str, int]:
    """What the holes of a fitting are drilled for, and how many belong to one; 0: nothing is drilled for its kind."""
    count = len(fitting.holes)
    if fitting.kind in PAIRED:
        return PAIRED[fitting.kind], 2
    if fitting.kind == "hinge":
        return ("butt hinge", 2 * count) if fitting.is_butt else ("hinge", count)
    if fitting.kind == "shelf_pin":
        return "shelf", 1
    use = {"plate": "hinge plate", "leg": "leg plate"}.get(fitting.kind, fitting.kind)
    if fitting.kind in ("plate", "leg", "handle", "hanger", "stay"):
        return use, count
    # What is put into a bay, and runners, are fixed at both sides.
    return use, 2 * count


def drilled_for(parts: Iterable[Part], lent: Sequence[tuple[str, Sequence[Asked]]]) -> dict[str, int]:
    """Use -> how many holes and slots there are for it, those in panels beside the unit with them."""
    found: dict[str, int] = {}
    for part in parts:
        for op in part.operations:
            use = op.use if isinstance(op, Bore) else op.over if isinstance(op, Groove) else ""
            # A runner's or a plate's hole that goes on behind a packer is one.
            if use and not (part.role == "packer" and isinstance(op, Bore) and op.through):
                found[use] = found.get(use, 0) + 1
    for _, works in lent:
        for work in works:
            found[work.use] = found.get(work.use, 0) + 1
    return found


def say_by_hand(
    items: Sequence[Item], parts: Sequence[Part], lent: Sequence[tuple[str, Sequence[Asked]]], stock: Stock
) -> tuple[Item, ...]:
    """The items; those for which nothing, or too little, is drilled say how they are fixed."""
    drilled = drilled_for(parts, lent)
    found = []
    for item in items:
        fitting = stock.fitting(item.code)
        how = BY_HAND.get(fitting.kind, "") if fitting is not None else ""
        if fitting is None or not how:
            found.append(item)
            continue
        use, each = holes_of(fitting)
        free = drilled.get(use, 0) // each if each else 0
        used = min(item.qty, free)
        drilled[use] = drilled.get(use, 0) - used * each
        left = item.qty - used
        if left:
            some = f"{left} of them " if used else ""
            item = msgspec.structs.replace(item, why=f"{item.why}; {some}{how}")
        found.append(item)
    return tuple(found)
