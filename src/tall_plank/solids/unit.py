"""A unit as solids: its parts, closed, open or without its fronts, its fittings, its legs. Room frame, mm, z up. Holes
are cut only where they are looked at."""

from __future__ import annotations

import math

from tall_plank.job import Kind
from tall_plank.job.choices import FrontsSeen
from tall_plank.making import FrontBox, MadeUnit
from tall_plank.making.builder import FittedBox
from tall_plank.making.feet import seen_legs
from tall_plank.measure import Frame
from tall_plank.measure.frames import Vec
from tall_plank.measure.remembered import remembered
from tall_plank.setout import Placed
from tall_plank.solids.handles import handle_solids
from tall_plank.solids.opening import drawer_of, front_of, opened
from tall_plank.solids.parts import board_color, solid_of
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.stock import Stock


@remembered(512)
def part_boxes(
    stock: Stock, placed: Placed, unit: MadeUnit, hidden: bool, fronts: FrontsSeen = "closed"
) -> tuple[Solid, ...]:
    """The parts of a unit as solids; without hidden ones a closed unit shows its outside only.

    Parameters
    ----------
    fronts : closed, open (doors turned, drawers pulled) or off
    """
    found: list[Solid] = []
    closing = [f for f in unit.fronts if f.kind not in ("machine", "filler")]
    seen_in = hidden or fronts != "closed" or not closing or _open_somewhere(unit)
    moves = opened(unit) if fronts == "open" else {}
    source = Kind.CELL.of(placed.cell)
    for part in unit.shown:
        if not seen_in and part.role in ("shelf", "drawer", "drawer bottom", "packer"):
            continue
        front = front_of(unit, part)
        if front is not None and fronts == "off":
            continue
        frame = part.frame
        move = moves.get(front.name if front is not None else drawer_of(part))
        if move is not None:
            frame = move.then(frame)
        color = board_color(stock, part.board)
        found += solid_of(placed.frame.then(frame), part, color, source, f"{placed.number} {part.name}")
    for front in unit.fronts:
        if front.kind == "machine":
            found += _machine(placed, unit, front)
        elif front.handle is not None and unit.shown and fronts != "off":
            found += handle_solids(stock, placed, unit, front, moves.get(front.name))
    if seen_in:
        for fitted in unit.fitted:
            found += fitted_solids(placed, unit, fitted)
    return tuple(found)


def _open_somewhere(unit: MadeUnit) -> bool:
    """Whether a bay stands open, so that the inside is seen."""
    covered = [f.path for f in unit.fronts if f.kind not in ("machine", "filler")]
    return any(all(bay[0][: len(c)] != c for c in covered) for bay in unit.bays)


STEEL, GLASS_BLACK = "#B9BDBF", "#3B4146"


def _machine(placed: Placed, unit: MadeUnit, f: FrontBox) -> list[Solid]:
    """An appliance in its bay or space: a box with a darker window."""
    depth = placed.depth - 40.0
    source, name = Kind.CELL.of(placed.cell), f"{placed.number} appliance"
    body = Frame((f.x + 2, -placed.depth - 15.0, f.z + 2))
    found: list[Solid] = [Box(placed.frame.then(body), (f.width - 4, depth, f.height - 4), STEEL, source, name)]
    head = min(90.0, f.height * 0.2)
    if f.width > 200 and f.height > head + 150:
        glass = Frame((f.x + 45, -placed.depth - 18.0, f.z + 45))
        size = (f.width - 90, 3.0, f.height - head - 90)
        found.append(Box(placed.frame.then(glass), size, GLASS_BLACK, source, name))
    return found


def fitted_solids(placed: Placed, unit: MadeUnit, f: FittedBox) -> list[Solid]:
    """A fitting as a plain body in its place: a rail as a bar, a basket as its rims, the others as boxes."""
    source, name = Kind.CELL.of(placed.cell), f"{placed.number} {f.kind}"
    y0 = -unit.spec.depth + f.front

    def box(x: float, y: float, z: float, size: Vec, color: str = STEEL) -> Box:
        return Box(placed.frame.then(Frame((x, y, z))), size, color, source, name)

    if f.kind == "rail":
        return [box(f.x, y0 + f.depth / 2 - 7, f.z + f.height / 2 - 12, (f.width, 15.0, 25.0))]
    if f.kind in ("light", "tray", "bin", "bed", "drainer"):
        return [box(f.x, y0, f.z, (f.width, f.depth, f.height))]
    if f.kind == "bracket":
        return []
    bar = 8.0
    found: list[Solid] = []
    for z in (f.z, f.z + f.height - bar):
        found += [
            box(f.x, y0, z, (f.width, bar, bar)), box(f.x, y0 + f.depth - bar, z, (f.width, bar, bar)),
            box(f.x, y0, z, (bar, f.depth, bar)), box(f.x + f.width - bar, y0, z, (bar, f.depth, bar)),
        ]  # fmt: skip
    found += [box(x, y0, f.z, (bar, bar, f.height)) for x in (f.x, f.x + f.width - bar)]
    count = max(2, int(f.width // 90))
    for i in range(1, count):
        found.append(box(f.x + f.width * i / count, y0, f.z, (3.0, f.depth, 3.0)))
    return found


ROUND = 16
"""Sides of a round leg as it is looked at."""


def leg_solids(placed: Placed, unit: MadeUnit) -> list[Solid]:
    """The legs of a unit that are seen, square or round."""
    found: list[Solid] = []
    size, source = unit.spec.made.leg_size, Kind.CELL.of(placed.cell)
    for x, y in seen_legs(placed, unit.spec.made):
        foot = placed.frame.then(Frame((x, y, -placed.bottom)))
        if unit.spec.made.leg_shape == "round":
            angles = [2 * math.pi * i / ROUND for i in range(ROUND)]
            points = tuple((size / 2 * (1 + math.cos(a)), size / 2 * (1 + math.sin(a))) for a in angles)
            found.append(Prism(foot, points, placed.bottom, LEG_COLOR, source, "leg"))
        else:
            found.append(Box(foot, (size, size, placed.bottom), LEG_COLOR, source, "leg"))
    return found


LEG_COLOR = "#3A3A38"
