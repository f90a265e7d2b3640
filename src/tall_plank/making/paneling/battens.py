"""What holds a wall field: level battens at a pitch, split battens in pairs, screws."""

from __future__ import annotations

import math

from tall_plank.making.paneling.shop import SCREW_PITCH, FieldShop
from tall_plank.making.paneling.splitting import joints_in, pieces_between
from tall_plank.making.parts import Bevel, Item
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
    covered = [r.bounds for z in laid.zones for r in z.regions]
    if hold not in ("battens", "split") or laid.fixing <= 0 or not covered:
        if hold == "screws" and covered:
            around = sum(2 * (b[2] - b[0] + b[3] - b[1]) for b in covered)
            shop.items.append(
                Item(made.screw, math.ceil(around / SCREW_PITCH), "screws through the face, every 400 mm")
            )
        return
    low, high = min(b[1] for b in covered), max(b[3] for b in covered)
    left, right = min(b[0] for b in covered), max(b[2] for b in covered)
    width = made.batten_width
    screws = 0
    outlets = [shop.around(o) for o in laid.outlets]
    holes = [*laid.blocks, *outlets]
    for z in batten_levels(low, high, width, made.batten_pitch):
        # A batten runs where something covered lies before it, and nothing opens the wall.
        for box in free_boxes((left, z, right, z + width), holes):
            x0, z0, x1, z1 = box
            if z1 - z0 < width - 0.1 or x1 - x0 < 60.0:
                continue
            if not any(b[0] < x1 - 1.0 and b[2] > x0 + 1.0 and b[1] < z1 - 1.0 and b[3] > z0 + 1.0 for b in covered):
                continue
            board = shop.board(shop.carcass, laid.fixing, "battens", (x1 - x0, width))
            cuts, _ = joints_in(x1 - x0, board.usable_length)
            for a, b in pieces_between(x0, x1, cuts):
                screws += 2 * max(2, math.ceil((b - a) / SCREW_PITCH) + 1)
                if hold == "split":
                    # The lower half is screwed to the wall, the upper one to the boards, hooked over it.
                    half = width / 2
                    for name, c, edge, long in (("wall batten", z0, "L2", "A"), ("board batten", z0 + half, "L1", "A")):
                        draft = shop.piece(name, board, (a, c, b, c + half), 0.0, "batten", upright=False)
                        draft.operations.append(Bevel(edge, long, SPLIT))  # type: ignore[arg-type]
                        draft.fixed = "screwed"
                        shop.add(draft)
                else:
                    draft = shop.piece("batten", board, (a, z0, b, z1), 0.0, "batten", upright=False)
                    draft.fixed = "screwed to the wall"
                    shop.add(draft)
    if screws:
        shop.items.append(
            Item(made.screw, screws, "screws of battens, every 400 mm, into the wall and from the boards")
        )
