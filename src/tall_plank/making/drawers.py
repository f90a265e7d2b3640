"""Drawer boxes and their runners."""

from __future__ import annotations

from collections.abc import Callable

from tall_plank.job.bays import DRAWERS
from tall_plank.making.bayset import BayBox, Rect
from tall_plank.making.builder import Builder
from tall_plank.making.packers import PACKER, packing, through_packing
from tall_plank.making.parts import Bore, Draft, DrawerBox
from tall_plank.making.screws import CLEAR, PILOT, WOOD_SCREW, needed_screw
from tall_plank.making.shell import clear_depth
from tall_plank.making.strength import SHELF_LOAD
from tall_plank.measure import Frame, told
from tall_plank.measure.frames import NEG_X, NEG_Y, PartFrame, Vec, X, Y
from tall_plank.stock import Fitting, Stock

LEAST_BOX = 50.0
"""mm; a drawer box lower than this holds nothing."""


def runner_for(
    stock: Stock, usable: float, load: Callable[[Fitting], float] = lambda _: 0.0, choice: str = "auto"
) -> Fitting | None:
    """The runner for a usable depth (mm): the longest whose reach fits, and of those as long the weakest that carries
    the load (kg, of the drawer that it would make), else the strongest (common practice); or the one that was chosen,
    where it fits. None where nothing fits."""
    fitting = [r for r in stock.fittings_of("runner") if r.reach <= usable and choice in ("auto", r.code)]
    longest = max((r.length for r in fitting), default=0.0)
    alike = sorted((r for r in fitting if r.length == longest), key=lambda r: r.capacity)
    carrying = (r for r in alike if not r.capacity or load(r) <= r.capacity)
    return next(carrying, alike[-1] if alike else None)


def full_drawer(b: Builder, width: float, height: float, length: float, front: float) -> float:
    """kg of a full drawer: its box of those outer sizes (mm), its front (kg), and what it holds."""
    made, stock, finish = b.spec.made, b.stock, b.spec.drawer
    t = made.drawer_thickness
    side, bottom = stock.board(finish, t), stock.board(finish, made.drawer_bottom_thickness)
    inside = max(0.0, width - 2 * t) * max(0.0, length - 2 * t)
    box = (2 * length + 2 * (width - 2 * t)) * height * t * (side.density if side is not None else 0.0)
    box += inside * made.drawer_bottom_thickness * (bottom.density if bottom is not None else 0.0)
    return box * 1e-9 + front + SHELF_LOAD * inside * 1e-6


def make_drawers(b: Builder, boxes: tuple[BayBox, ...]) -> None:
    """Draft the box of every bay that a drawer front closes."""
    for box in boxes:
        front = box.bay.front
        if front is None or front.kind not in DRAWERS:
            continue
        inner = front.kind == "inner"
        behind = inner and any(_hinged(o) and box.path[: len(o.path)] == o.path for o in boxes)
        # A packer of carcass board on either side keeps a drawer clear of doors that open no wider than 110 degrees
        # (common practice).
        _drawer(b, box, inner=inner, packed=b.spec.made.carcass_thickness if behind else 0.0)


INNER_SETBACK = 15.0
"""mm that inner drawers stand behind the carcass's front edge, so that the door closes."""


def _hinged(box: BayBox) -> bool:
    return box.bay.front is not None and box.bay.front.kind in ("door", "pair", "bifold", "pocket")


def _drawer(b: Builder, box: BayBox, *, inner: bool, packed: float) -> None:
    """Box width = clear width - 2 runner clearances; its length is the runner's (common practice)."""
    spec, made, stock = b.spec, b.spec.made, b.stock
    if not b.held(box, "A drawer"):
        return
    # Before a face frame that its front lies over, the box comes out to the front's back.
    setback = b.recess + (INNER_SETBACK if inner else -max(0.0, made.front_out))
    usable = clear_depth(b) - setback
    above, below = made.drawer_clear_above, made.drawer_clear_below
    space = box.through
    space = Rect(max(space.x0, box.clear.x0 + packed), space.z0, min(space.x1, box.clear.x1 - packed), space.z1)
    height = space.height - above - below
    closing = next((f for f in b.fronts if f.path == box.path and not inner), None)
    mine = [d for d in b.drafts if closing is not None and closing.owns(d.name)]
    front_weight = sum(d.area * d.thickness * d.board.density * 1e-9 for d in mine)

    def load(r: Fitting) -> float:
        return full_drawer(b, space.width - 2 * r.side_clearance, height, r.length, front_weight)

    runner = _needed_runner(b, usable, load)
    if runner is None:
        return
    if height < LEAST_BOX:
        needed = LEAST_BOX + above + below
        b.problem(
            f"A drawer has {told(space.height)} mm of clear height; its box needs {needed:g} mm.", "Make it higher."
        )
        return
    number = len(b.drawers) + 1
    t = made.drawer_thickness
    width = space.width - 2 * runner.side_clearance
    length = runner.length
    x0, y0, z0 = space.x0 + runner.side_clearance, -spec.depth + setback, space.z0 + below
    name = f"drawer {number}"

    def add(word: str, long: float, frame: PartFrame) -> Draft:
        part = b.add(f"{name} {word}", spec.drawer, t, long, height, frame, "drawer")
        # The upper edge is banded: it is the one that hands meet.
        return part.band(stock, made.edging_carcass, "L2")

    up = (0.0, 0.0, 1.0)
    # Sides run the whole length; face A looks into the drawer.
    left = add("left side", length, Frame((x0, y0, z0), Y, up))
    right = add("right side", length, Frame((x0 + width, y0 + length, z0), NEG_Y, up))
    within = width - 2 * t
    front = add("front", within, Frame((x0 + width - t, y0, z0), NEG_X, up))
    back = add("back", within, Frame((x0 + t, y0 + length, z0), X, up))
    _box_joints(b, left, right, front, back, (x0, y0, z0), width, length, height)
    _bottom(b, name, (left, right, front, back), (x0, y0, z0), width, length)
    if mine:
        _screw_front(b, front, mine, (x0 + t, y0, z0), within, height)
    _on_runners(b, box, space, name, runner, y0, z0 + height / 2)
    full = load(runner)
    b.drawers.append(DrawerBox(name, box.path, runner.code, full))
    by = "chosen by hand, " if made.runner != "auto" else ""
    carries = f" of {runner.capacity:g} kg" if runner.capacity else ""
    why = f"pair of runners {runner.length:g}: {by}{told(usable)} mm of usable depth, {full:.0f}{carries} when full"
    b.item(runner.code, 1, why)
    b.force(f"depth of {name}", usable, length, f"runners {runner.length:g} long")


def _needed_runner(b: Builder, usable: float, load: Callable[[Fitting], float]) -> Fitting | None:
    """The runner of a drawer; where none fits, that is told. `usable`: mm of depth; `load`: as for `runner_for`."""
    runner = runner_for(b.stock, usable, load, b.spec.made.runner)
    if runner is None:
        chosen = b.stock.fitting(b.spec.made.runner)
        what = f"No runner fits {usable:g} mm of depth."
        if chosen is not None:
            what = f"{chosen.name} needs {chosen.reach:g} mm of depth; here are {usable:g} mm."
        b.problem(what, "Make the unit deeper." if chosen is None else "Choose another one, or make the unit deeper.")
    return runner


def _on_runners(b: Builder, box: BayBox, space: Rect, name: str, runner: Fitting, front: float, middle: float) -> None:
    """The runners' holes in what carries them, on packers where that stands aside.

    Parameters
    ----------
    space : what the drawer passes through
    front, middle : y of the box's front, and the height of its middle, mm
    """
    for upright, x, side in ((box.left, box.clear.x0, space.x0), (box.right, box.clear.x1, space.x1)):
        carrier, layers, left_side = b.part(upright), [], upright == box.left
        if abs(side - x) >= 0.5:
            word = f"{name} {'left' if left_side else 'right'} packer"
            low, start = middle - PACKER / 2, max(front, -b.spec.depth)
            long = front + runner.length - start
            layers = packing(b, carrier, word, min(x, side), abs(side - x), start, long, low, left=left_side)
        for hole in runner.holes:
            at = (side, front + hole.dx, middle + hole.dy)
            through_packing(layers, carrier, at, hole, "runner", left=left_side)


FRONT_IN, FRONT_LOW, FRONT_HIGH = 35.0, 30.0, 20.0
"""mm from the ends of a box's front to the screws of its drawer front, and at least from its lower and upper edge."""

CLEAR_OF = 8.0
"""mm that such a screw keeps from the middle of another hole and from the edge of its piece."""


def _screw_front(b: Builder, box_front: Draft, pieces: list[Draft], origin: Vec, width: float, height: float) -> None:
    """Screws from inside the box into its drawer front: near both ends, low and high where there is wood.

    Parameters
    ----------
    origin : lower left corner of the box's front, in the unit, mm
    width, height : of the box's front, mm
    """
    made = b.spec.made
    x0, y0, z0 = origin
    solid = [p for p in pieces if p.role in ("front", "front frame") and not p.bend]
    screw = needed_screw(b, made.drawer_thickness, made.front_thickness, "a drawer front")
    if screw is None:
        return
    low = z0 + max(FRONT_LOW, made.drawer_groove_up + made.drawer_bottom_thickness + CLEAR_OF)
    high = z0 + height - FRONT_HIGH
    steps = [low + 4.0 * i for i in range(max(1, int((high - low) / 4.0) + 1))]
    if low > high:
        steps = [(low + z0 + height) / 2]
    count = 0
    for x in (x0 + FRONT_IN, x0 + width - FRONT_IN):
        free = [z for z in steps if _takes(solid, (x, y0, z))]
        high_too = len(free) > 1 and free[-1] - free[0] >= 2 * CLEAR_OF
        for z in (*free[:1], *(free[-1:] if high_too else ())):
            piece = next(p for p in solid if p.holds((x, y0, z)))
            box_front.bore((x, y0, z), CLEAR, 0.0, WOOD_SCREW)
            piece.bore((x, y0, z), PILOT, screw.bite, WOOD_SCREW)
            count += 1
    if count:
        b.item(screw.code, count, "screws of a drawer front, from inside its box")
    else:
        b.item(screw.code, 4, "screws of a drawer front, placed by hand from inside its box")
        pieces[0].fixed = "screwed by hand to its drawer box"


def _takes(pieces: list[Draft], at: Vec) -> bool:
    """Whether a piece of a front has whole wood for a screw at a point of its back."""
    for p in pieces:
        if not p.holds(at):
            continue
        u, v, _ = p.frame.into(at)
        near, far, low, high = p.whole()
        inside = near + CLEAR_OF <= u <= far - CLEAR_OF and low + CLEAR_OF <= v <= high - CLEAR_OF
        clear = all(abs(op.x - u) > CLEAR_OF or abs(op.y - v) > CLEAR_OF
                    for op in p.operations if isinstance(op, Bore) and op.face in ("A", "B"))  # fmt: skip
        return inside and clear
    return False


def _box_joints(
    b: Builder,
    left: Draft,
    right: Draft,
    front: Draft,
    back: Draft,
    origin: tuple[float, float, float],
    width: float,
    length: float,
    height: float,
) -> None:
    """Two dowels where front and back meet each side, above the bottom's groove."""
    made = b.spec.made
    x0, y0, z0 = origin
    t = made.drawer_thickness
    low = made.drawer_groove_up + made.drawer_bottom_thickness + 10.0
    # The side is thinner than a gable: its hole leaves 5 mm of wood, and the end's is as much deeper.
    into_side = t - 5.0
    into_end = b.dowel_end(into_side)
    count = 0
    for cross, y in ((front, y0 + t / 2), (back, y0 + length - t / 2)):
        for side, x in ((left, x0 + t), (right, x0 + width - t)):
            for z in _two_between(z0 + low, z0 + height - 12.0):
                side.bore((x, y, z), made.dowel_diameter, into_side, "dowel")
                cross.bore((x, y, z), made.dowel_diameter, into_end, "dowel")
                count += 1
    b.item(made.dowel, count, "dowels of the drawer box")


def _two_between(low: float, high: float) -> tuple[float, ...]:
    return (low, high) if high - low >= 16.0 else ((low + high) / 2,)


def _bottom(
    b: Builder,
    name: str,
    sides: tuple[Draft, Draft, Draft, Draft],
    origin: tuple[float, float, float],
    width: float,
    length: float,
) -> None:
    """The bottom in a groove all round: inner size + 2 groove depths - 2 plays."""
    made = b.spec.made
    left, right, front, back = sides
    x0, y0, z0 = origin
    t, deep = made.drawer_thickness, made.drawer_groove_depth
    reach = deep - made.groove_bottom_play
    wide = made.drawer_bottom_thickness + made.groove_width_play
    zm = z0 + made.drawer_groove_up + wide / 2
    x1, y1 = x0 + width - t, y0 + length - t
    left.groove((x0 + t, y0, zm), (x0 + t, y0 + length, zm), wide, deep, "bottom")
    right.groove((x1, y0, zm), (x1, y0 + length, zm), wide, deep, "bottom")
    front.groove((x0 + t, y0 + t, zm), (x1, y0 + t, zm), wide, deep, "bottom")
    back.groove((x0 + t, y1, zm), (x1, y1, zm), wide, deep, "bottom")
    z = z0 + made.drawer_groove_up + made.groove_width_play / 2
    frame = Frame((x0 + t - reach, y0 + t - reach, z), X, Y)
    size = (width - 2 * t + 2 * reach, length - 2 * t + 2 * reach)
    b.add(f"{name} bottom", b.spec.drawer, made.drawer_bottom_thickness, *size, frame, "drawer bottom")
