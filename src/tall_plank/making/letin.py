"""Sinks and hobs hang from their worktops into the units below: what they meet there stops the unit."""

from __future__ import annotations

import itertools
from collections.abc import Iterator

import msgspec

from tall_plank.making.parts import Part, Problem
from tall_plank.making.proof.space import Shared, shared_space
from tall_plank.making.unit import MadeUnit
from tall_plank.measure import told
from tall_plank.measure.frames import Frame, RoomPoint, Vec
from tall_plank.setout import Placed, RoomLayout, Worktop
from tall_plank.stock import Appliance, Stock

Units = tuple[tuple[Placed, MadeUnit], ...]

AIR = 2.0
"""mm that a body is smaller than its cut-out at each side (common practice: cut-outs are 2 to 5 larger)."""


def let_in(room: RoomLayout, units: Units, stock: Stock) -> Units:
    """The units of a room; one whose parts stand where a sink or a hob hangs is not made, and says so."""
    bodies = list(_bodies(room, stock))
    if not bodies:
        return units
    found = []
    islands = {line.id: line.island for line in room.faces}
    for placed, made in units:
        for thing, corners, top, span in bodies:
            if top.wall_id == placed.wall_id:
                if placed.right < span[0] or placed.x > span[1]:
                    continue
            elif not islands.get(top.wall_id) or islands[top.wall_id] != islands.get(placed.wall_id):
                continue
            if made.parts and (problem := _meets(placed, made, thing, corners)) is not None:
                made = msgspec.structs.replace(
                    made, parts=(), items=(), drawers=(), weight=0.0, lent=(), faulty=made.parts,
                    problems=(*made.problems, problem),
                )  # fmt: skip
        found.append((placed, made))
    return tuple(found)


Body = tuple[Appliance, list[RoomPoint], Worktop, tuple[float, float]]
"""What is let in, the corners of its body below the worktop in the room, the worktop, from where to where along it."""


def _bodies(room: RoomLayout, stock: Stock) -> Iterator[Body]:
    """Everything that is let into a worktop."""
    for top in room.worktops:
        line = room.wall(top.wall_id)
        for cut in top.cutouts:
            thing = stock.appliance(cut.appliance)
            if thing is None:
                continue
            x0, out = top.x + cut.x + AIR, top.rear + cut.back + AIR
            low, high = top.bottom + top.thickness - thing.height, top.bottom
            if high - low < AIR:
                continue
            xs, ys = (x0, x0 + cut.width - 2 * AIR), (-out - cut.depth + 2 * AIR, -out)
            yield thing, [line.frame.at(x, y, z) for x, y, z in itertools.product(xs, ys, (low, high))], top, xs


def _meets(placed: Placed, made: MadeUnit, thing: Appliance, corners: list[RoomPoint]) -> Problem | None:
    """What a unit's parts share with a body; None where they leave it its place."""
    inside = [placed.frame.into(corner) for corner in corners]
    low: Vec = tuple(min(row) for row in zip(*inside, strict=True))
    high: Vec = tuple(max(row) for row in zip(*inside, strict=True))
    if low[0] > placed.width or high[0] < 0.0 or low[1] > 0.0 or high[1] < -placed.depth - 100.0:
        return None
    long, wide, thick = (b - a for a, b in zip(low, high, strict=True))
    body = Part(thing.name, "", "", long, wide, thick, "none", Frame(low))
    last = len(made.parts)
    met: list[Shared] = [s for s in shared_space((*made.parts, body)) if s.other == last]
    if not met:
        return None
    s = met[0]
    words = " x ".join(told(mm) for mm in s.size)
    return Problem(
        f"Part {s.one + 1}, {made.parts[s.one].name}, stands where the {thing.kind} ({thing.name}) hangs: {words} mm.",
        f"Take it out or move it, or choose a smaller {thing.kind}.",
        place=(s.low, s.high),
        parts=(s.one + 1,),
    )
