"""Strength: shelves that sag, drawers heavier than their runners carry, tall units with no wall to be fixed to (CK4).

Doors heavier than their hinges carry, and carcasses wider than their legs, stop the making itself; see making.
"""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.making import MadeUnit, Part
from tall_plank.making.strength import SAG_LIMIT, SHELF_LOAD, line_load, longest, sag, second_moment
from tall_plank.measure import format_length, told
from tall_plank.setout import Placed
from tall_plank.snags.checked import Checked
from tall_plank.stock import Stock

TIPPING = 4.0
"""A unit higher than so many times its depth is fixed to the wall (common practice)."""


def find(checked: Checked) -> list[Snag]:
    found: list[Snag] = []
    walls = {wall.id for room in checked.layout.rooms for wall in room.walls}
    for placed, unit in checked.made.units:
        if not unit.parts:
            continue
        told = [weak_shelf(unit, checked), heavy_drawer(unit, checked.job.stock), tipping(placed, unit, walls)]
        where = Where(placed.room, placed.wall_id, placed.run, placed.cell, placed.number)
        found += [Snag("strength", what, remedy, where, "mind") for what, remedy in filter(None, told)]
    return found


def weak_shelf(unit: MadeUnit, checked: Checked) -> tuple[str, str] | None:
    """The shelf that sags most beyond the limit, with the span that its board carries."""
    worst: tuple[float, Part, float, float] | None = None
    for part in unit.parts:
        if part.role != "shelf" and not part.name.startswith("fixed shelf"):
            continue
        board = checked.job.stock.board_by_code(part.board)
        if board is None or not board.modulus or part.outline:
            continue
        moment = second_moment(part.width, part.thickness)
        load = line_load(SHELF_LOAD, board.density, part.width, part.thickness)
        down = sag(part.length, load, board.modulus, moment)
        over = down / (part.length / SAG_LIMIT)
        if over > 1.0 and (worst is None or over > worst[0]):
            worst = (over, part, down, longest(load, board.modulus, moment))
    if worst is None:
        return None
    _, part, down, most = worst
    display = checked.job.display
    length, span = format_length(part.length, display), format_length(float(int(most)), display)
    return (
        f"The {part.name} is {length} long and sags {told(down)} mm under {SHELF_LOAD:g} kg/m².",
        f"{part.material} carries {span}: put a divider in, or take a thicker shelf.",
    )


def heavy_drawer(unit: MadeUnit, stock: Stock) -> tuple[str, str] | None:
    """A drawer whose box, front and contents weigh more than its runners carry."""
    over = [
        (drawer.load, runner)
        for drawer in unit.drawers
        if (runner := stock.fitting(drawer.runner)) is not None and 0.0 < runner.capacity < drawer.load
    ]
    if not over:
        return None
    heaviest, runner = max(over, key=lambda pair: pair[0])
    return (
        f"A full drawer weighs {heaviest:.0f} kg ({SHELF_LOAD:g} kg/m²); {runner.name} carries {runner.capacity:g} kg.",
        "Make the drawer smaller, or choose stronger runners.",
    )


def tipping(placed: Placed, unit: MadeUnit, walls: set[str]) -> tuple[str, str] | None:
    """A tall unit that stands free: no wall behind it to be fixed to."""
    if placed.level == "hung" or unit.spec.height <= TIPPING * unit.spec.depth or placed.wall_id in walls:
        return None
    return (
        f"It is {told(unit.spec.height)} mm high and {told(unit.spec.depth)} deep, with no wall behind it.",
        "Fix it to the floor or to a unit beside it, or make it lower.",
    )
