"""Fittings in a bay: where each goes, what it needs, its holes in the uprights, and how long it is cut."""

from __future__ import annotations

from tall_plank.job.bays import Fitted
from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder, FittedBox
from tall_plank.making.proof.taken import Taken
from tall_plank.making.shell import clear_depth
from tall_plank.measure import told
from tall_plank.stock import Fitting

LONG_RAIL = 1000.0
"""mm; a longer hanging rail gets a bracket under the board above it, at its middle (common practice)."""


def put_in(b: Builder, box: BayBox) -> None:
    """Place every fitting of a bay; what does not fit says the clear size that it needs."""
    taken: list[FittedBox] = []
    for fitted in box.bay.fittings:
        found = place(b, box, fitted)
        if found is None:
            continue
        other = next((t for t in taken if _meet(found, t)), None)
        if other is not None:
            name = b.stock.fitting(other.code)
            thing = b.stock.fitting(found.code)
            needs = found.height + found.free_below + other.height + other.free_below
            b.problem(
                f"{thing.name if thing else found.code} has no room beside the {name.name.lower() if name else ''}: "
                f"together they need {needs:g} mm of clear height; the bay has {told(box.clear.height)} mm.",
                "Move one of them, or make the bay higher.",
            )
            continue
        taken.append(found)
        b.fitted.append(found)
        name = b.stock.fitting(found.code)
        y0 = -b.spec.depth + found.front
        low, high = (found.x, y0, found.z), (found.x + found.width, y0 + found.depth, found.z + found.height)
        b.taken.append(Taken(f"the {name.name.lower() if name else found.code}", low, high))


def place(b: Builder, box: BayBox, fitted: Fitted) -> FittedBox | None:
    """One fitting in its place, drilled and counted; None where there is no room, which is told."""
    thing = b.stock.fitting(fitted.code)
    if thing is None:
        b.problem(f"The stock has no fitting {fitted.code}.", "Choose another one.")
        return None
    space, depth = box.through, clear_depth(b) - b.recess
    at = fitted.at.mm if fitted.at is not None else thing.gap
    start = fitted.start or thing.start
    # What lies under a fitting that is placed from below is free height for it.
    beside = at if start == "high" or (start == "low" and not thing.free_below) else 0.0
    lack = lacking(thing, space.width, space.height - beside, depth)
    if lack is not None:
        word, need, have = lack
        what = f"{thing.name} needs {need:g} mm of clear {word}; this bay has {told(have)} mm."
        more = {"width": "wider", "height": "higher", "depth": "deeper"}.get(word, "")
        b.problem(
            what, f"Make it {told(need - have)} mm {more}." if more else f"Make it {told(have - need)} mm narrower."
        )
        return None
    if start == "high":
        z = box.clear.z1 - at - thing.height
    elif start == "middle":
        z = (box.clear.z0 + box.clear.z1 - thing.height) / 2 + (fitted.at.mm if fitted.at is not None else 0.0)
    else:
        z = box.clear.z0 + at
    if start == "low" and thing.free_below > z - box.clear.z0 + 0.01:
        b.problem(
            f"{thing.name} needs {thing.free_below:g} mm free under it; here are {told(z - box.clear.z0)} mm.",
            "Place it higher, or under the board above.",
        )
        return None
    width = space.width - thing.cut if thing.cut or not thing.length else min(space.width, thing.length)
    deep = min(depth, thing.least_depth) if thing.least_depth else depth
    middle = thing.kind == "rail"
    front = b.recess + ((depth - deep) / 2 if middle else 0.0)
    found = FittedBox(
        thing.code,
        thing.kind,
        box.path,
        (space.x0 + space.x1 - width) / 2,
        z,
        width,
        thing.height,
        front,
        deep,
        thing.free_below,
    )
    _drill(b, box, thing, found, depth)
    count(b, thing, found)
    return found


def lacking(thing: Fitting, width: float, height: float, depth: float) -> tuple[str, float, float] | None:
    """What a fitting lacks in a space: the word, what it needs and what there is, mm; None where it fits."""
    needs = thing.height + thing.free_below
    for word, need, have in (
        ("width", thing.least_width, width),
        ("height", needs, height),
        ("depth", thing.least_depth, depth),
    ):
        if have < need - 0.01:
            return word, need, have
    if thing.most_width and width > thing.most_width + 0.01:
        return "width at the most", thing.most_width, width
    return None


def count(b: Builder, thing: Fitting, found: FittedBox) -> None:
    """It, cut to its length where it is, and what it needs besides."""
    if thing.cut:
        b.item(
            thing.code,
            1,
            f"{thing.name.split(',')[0].lower()} cut to {told(found.width)} mm: follows its bay",
            found.width,
        )
        if thing.kind == "rail":
            b.role_item("rail socket", 2, "2 sockets for each hanging rail")
            if found.width > LONG_RAIL:
                b.role_item("rail bracket", 1, f"a middle bracket: the rail is longer than {LONG_RAIL:g} mm")
    else:
        b.item(thing.code, 1, f"for {told(found.width)} mm of clear width")


def _drill(b: Builder, box: BayBox, thing: Fitting, found: FittedBox, depth: float) -> None:
    """Its holes in both uprights: dx from the front edge (from the middle of the depth for a rail), dy above its
    lower edge."""
    if thing.holes and not b.held(box, thing.name):
        return
    for upright, x in ((box.left, box.clear.x0), (box.right, box.clear.x1)):
        carrier = b.part(upright)
        edge = carrier.frame.origin[1]
        start = b.recess + (depth / 2 if thing.kind == "rail" else 0.0)
        for hole in thing.holes:
            carrier.bore((x, edge + start + hole.dx, found.z + hole.dy), hole.diameter, hole.depth, thing.kind)


def _meet(a: FittedBox, other: FittedBox) -> bool:
    """Whether two fittings, with what stays free under them, take the same height. Lights and racks that stand aside
    do not count."""
    if "light" in (a.kind, other.kind):
        return False
    return a.z - a.free_below < other.z + other.height - 0.01 and other.z - other.free_below < a.z + a.height - 0.01
