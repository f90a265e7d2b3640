"""What holds a wall field: level battens at a pitch, split battens in pairs, screws."""

from __future__ import annotations

import math

from shapely.geometry.base import BaseGeometry

from tall_plank.making.paneling.shop import SCREW_PITCH, FieldShop
from tall_plank.making.paneling.splitting import joints_in, pieces_between
from tall_plank.making.parts import Bevel, Item
from tall_plank.setout.paneling.marks import Box
from tall_plank.setout.paneling.raked import covered_spans, joined
from tall_plank.setout.paneling.values import hold_of
from tall_plank.setout.paneling.zones import free_boxes

SPLIT = 45.0
"""Degrees at which split battens hook (common practice)."""


def batten_levels(low: float, high: float, width: float, pitch: float) -> tuple[float, ...]:
    """Lower edges of battens: one at the foot, one at the top, the others evenly between, no farther apart than the
    pitch; mm."""
    if high - low <= 2 * width:
        return ((low + high - width) / 2,) if high - low >= width else ()
    free = high - low - width
    count = max(1, math.ceil(free / pitch - 1e-9))
    return tuple(low + free * i / count for i in range(count + 1))


def make_battens(shop: FieldShop) -> None:
    """Battens behind all that is covered, ripped from boards of the carcass finish; screws for all of it.

    Raises
    ------
    PlankError where the stock has no board for them
    """
    laid, made = shop.laid, shop.made
    hold = hold_of(laid.treatment, made)
    regions = [r for z in laid.zones for r in z.regions]
    covered = [r.bounds for r in regions]
    if hold not in ("battens", "split") or laid.fixing <= 0 or not covered:
        if hold == "screws" and covered:
            around = sum(2 * (b[2] - b[0] + b[3] - b[1]) for b in covered)
            shop.items.append(
                Item(made.screw, math.ceil(around / SCREW_PITCH), "screws through the face, every 400 mm")
            )
        return
    there = joined(regions)
    low, high = min(b[1] for b in covered), max(b[3] for b in covered)
    left, right = min(b[0] for b in covered), max(b[2] for b in covered)
    width = made.batten_width
    screws = 0
    outlets = [shop.around(o) for o in laid.outlets]
    holes = [*laid.blocks, *outlets]
    for z in batten_levels(low, high, width, made.batten_pitch):
        # A batten runs where something covered lies before it, and nothing opens the wall.
        for box in free_boxes((left, z, right, z + width), holes):
            z0, z1 = box[1], box[3]
            if z1 - z0 < width - 0.1:
                continue
            for c, d in battens_behind(there, box):
                screws += _batten(shop, (c, z0, d, z1), split=hold == "split")
    if screws:
        shop.items.append(
            Item(made.screw, screws, "screws of battens, every 400 mm, into the wall and from the boards")
        )


GAP = 100.0
"""mm between what is covered that a batten runs on behind: gaps between boards, slats and modules."""

SHORTEST = 60.0
"""mm; no batten is shorter."""


def battens_behind(there: BaseGeometry, box: Box) -> list[tuple[float, float]]:
    """Where along the wall a level strip lies behind what is covered, mm; narrow gaps count as covered."""
    x0, z0, x1, z1 = box
    found: list[tuple[float, float]] = []
    for a, b in covered_spans(there, ((x0, z0), (x1, z0), (x1, z1), (x0, z1))):
        if found and a - found[-1][1] < GAP:
            found[-1] = (found[-1][0], b)
        else:
            found.append((a, b))
    return [(a, b) for a, b in found if b - a >= SHORTEST]


def _batten(shop: FieldShop, box: Box, *, split: bool) -> int:
    """A batten in as many lengths as its board asks for; how many screws it takes."""
    x0, z0, x1, z1 = box
    board = shop.board(shop.carcass, shop.laid.fixing, "battens", (x1 - x0, z1 - z0))
    cuts, _ = joints_in(x1 - x0, board.usable_length)
    screws = 0
    for a, b in pieces_between(x0, x1, cuts):
        screws += 2 * max(2, math.ceil((b - a) / SCREW_PITCH) + 1)
        if split:
            # The lower half is screwed to the wall, the upper one to the boards, hooked over it.
            half = (z1 - z0) / 2
            for name, c, edge, long in (("wall batten", z0, "L2", "A"), ("board batten", z0 + half, "L1", "A")):
                draft = shop.piece(name, board, (a, c, b, c + half), 0.0, "batten", upright=False)
                draft.operations.append(Bevel(edge, long, SPLIT))  # type: ignore[arg-type]
                draft.fixed = "screwed"
                shop.add(draft)
        else:
            draft = shop.piece("batten", board, (a, z0, b, z1), 0.0, "batten", upright=False)
            draft.fixed = "screwed to the wall"
            shop.add(draft)
    return screws
