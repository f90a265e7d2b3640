"""Backs: in a groove, on the back or in a rebate, with the holes for what comes out of the wall."""

from __future__ import annotations

import math

from tall_plank.job.standard import WEB
from tall_plank.making.builder import Builder
from tall_plank.making.joints import tongue
from tall_plank.making.parts import Cutout, Draft, Lent, Rebate
from tall_plank.making.screws import BACK_SCREW, CLEAR, needed_screw
from tall_plank.making.shell import clear_depth, is_over, is_under, side_thickness
from tall_plank.measure import Frame
from tall_plank.measure.frames import NEG_X, X, Z


def make_back(b: Builder, left: Draft, right: Draft) -> None:
    """The back: in grooves of gables, bottom and (where it is whole) top, in rebates of the gables, or planted on."""
    made = b.spec.made
    beside = None
    if made.back_fit == "on":
        beside = _back_on(b)
    elif made.back_fit == "rebate":
        beside = _back_rebated(b, left, right)
    else:
        _back_grooved(b, left, right)
    if b.spec.depth - clear_depth(b) > b.spec.depth - 100:
        b.problem("The unit is too shallow for its back.", "Make it deeper.")
    _pipes(b)
    if made.back_fit != "groove":
        _back_screws(b, b.part("back"), beside)


PIPE_HOLE = {"water": 80.0, "waste": 90.0, "power": 80.0, "gas": 70.0, "vent": 170.0}
"""mm; side of the square cut out of a back round a service point (common practice: room for a hand and a trap)."""


def _pipes(b: Builder) -> None:
    """Cut-outs in the back round the service points behind it; near an edge they are notches. Points close together
    share one."""
    back = b.part("back")
    boxes: list[list[float]] = []
    for kind, x, z in b.spec.pipes:
        half = PIPE_HOLE[kind] / 2
        u, v, _ = back.frame.into((x, 0.0, z))
        low_u, high_u = max(0.0, u - half), min(back.length, u + half)
        low_v, high_v = max(0.0, v - half), min(back.width, v + half)
        if high_u - low_u < 10.0 or high_v - low_v < 10.0:
            continue
        box = [low_u, low_v, high_u, high_v]
        for other in list(boxes):
            if box[0] < other[2] + 20 and other[0] < box[2] + 20 and box[1] < other[3] + 20 and other[1] < box[3] + 20:
                boxes.remove(other)
                box = [min(box[0], other[0]), min(box[1], other[1]), max(box[2], other[2]), max(box[3], other[3])]
        boxes.append(box)
    for u0, v0, u1, v1 in boxes:
        back.operations.append(Cutout(u0, v0, u1 - u0, v1 - v0, 10.0))


def _back_board(b: Builder, x0: float, x1: float, z0: float, z1: float, rear: float) -> Draft:
    """A back between two places, its rear face so far before the carcass's rear. Face A looks into the unit: length
    up, L1 at the right; lying where it is wider than its board."""
    spec, made = b.spec, b.spec.made
    board = b.board(spec.carcass, made.back_thickness, "back")
    lying = x1 - x0 > board.width - 20.0 and z1 - z0 <= board.width - 20.0
    frame = Frame((x0, -rear, z0), X, Z) if lying else Frame((x1, -rear, z0), Z, NEG_X)
    size = (x1 - x0, z1 - z0) if lying else (z1 - z0, x1 - x0)
    return b.add("back", spec.carcass, made.back_thickness, *size, frame, "back")


SCREW_PITCH, SCREW_IN = 150.0, 40.0
"""mm between the screws of a back that is planted on or lies in a rebate, at most, and from its corners to the first
(common practice)."""


def _back_screws(b: Builder, back: Draft, beside: float | None) -> None:
    """Screws round a back with their holes: into the gables, the bottom, and what stands at the top.

    Parameters
    ----------
    beside : mm from its left and right edge to the screws; None where no gable is
    """
    spec, made = b.spec, b.spec.made
    # They go into edges: whatever length bites is right.
    screw = needed_screw(b, back.thickness, 60.0, "the back")
    if screw is None:
        return
    corners = [back.frame.at(u, v, 0.0) for u in (0.0, back.length) for v in (0.0, back.width)]
    (x0, x1), (z0, z1) = ((min(row), max(row)) for row in ([c[0] for c in corners], [c[2] for c in corners]))
    rear, half = corners[0][1], made.carcass_thickness / 2
    places = []
    if beside is not None:
        places += [(x, z) for x in (x0 + beside, x1 - beside) for z in _spread(z0, z1)]
    if spec.bottom:
        places += [(x, half) for x in _spread(x0, x1)]
    if spec.top != "none":
        places += [(x, spec.height - half) for x in _spread(x0, x1)]
    count = 0
    for x, z in places:
        u, v, _ = back.frame.into((x, rear, z))
        cuts = (op for op in back.operations if isinstance(op, Cutout))
        near = CLEAR / 2 + WEB
        if any(c.x - near < u < c.x + c.length + near and c.y - near < v < c.y + c.width + near for c in cuts):
            continue
        back.bore((x, rear, z), CLEAR, 0.0, BACK_SCREW)
        count += 1
    b.item(screw.code, count, f"back screwed on every {SCREW_PITCH:g} mm at most")


def _spread(low: float, high: float) -> list[float]:
    """Places along an edge, evenly between its corners, mm."""
    span = high - low - 2 * SCREW_IN
    if span <= 0.0:
        return [(low + high) / 2]
    steps = max(1, math.ceil(span / SCREW_PITCH))
    return [low + SCREW_IN + span * i / steps for i in range(steps + 1)]


def _back_on(b: Builder) -> float | None:
    """A back planted on; mm from its edges to where it is screwed to the gables."""
    spec, made = b.spec, b.spec.made
    play, s = made.groove_bottom_play, side_thickness(b)
    _back_board(b, play, spec.width - play, play, spec.height - play, 0.0)
    return s / 2 - play if s else None


def _back_rebated(b: Builder, left: Draft, right: Draft) -> float | None:
    """Rebates along the gables' rear edges take the back's edges; it covers the rear of bottom and top. Returned: mm
    from its edges to where it is screwed to the gables."""
    spec, made, s = b.spec, b.spec.made, side_thickness(b)
    play = made.groove_bottom_play
    into = made.back_rebate - play if s else -play
    for gable in (left, right):
        if not isinstance(gable, Lent):
            gable.operations.append(Rebate("A", "L2", made.back_thickness, made.back_rebate))
    _back_board(b, s - into, spec.width - s + into, play, spec.height - play, 0.0)
    return into / 2 if s else None


def _back_grooved(b: Builder, left: Draft, right: Draft) -> None:
    spec, made = b.spec, b.spec.made
    w, h, t, s = spec.width, spec.height, made.carcass_thickness, side_thickness(b)
    deep, play = made.back_groove_depth, made.groove_bottom_play
    wide = made.back_thickness + made.groove_width_play
    y = -(made.back_inset + wide / 2)
    full = spec.top == "full"
    side = deep if s else 0.0
    z0 = t - deep + play if spec.bottom else 0.0
    z1 = h - t + deep - play if full else h
    x0, x1 = s - side + play, w - s + side - play
    _back_board(b, x0, x1, z0, z1, made.back_inset + made.groove_width_play / 2)
    tg = tongue(b)
    # Through the tongues that the gables have where they stand on the bottom or under the top.
    low, high = (t - tg if is_under(b) else 0.0), (h - t + tg if is_over(b) else h)
    left.groove((s, y, low), (s, y, high), wide, deep, "back")
    right.groove((w - s, y, low), (w - s, y, high), wide, deep, "back")
    if spec.bottom:
        # Under the gables it takes the back's whole width, which reaches into their grooves.
        end = s - side if is_under(b) else s - tg
        b.part("bottom").groove((end, y, t), (w - end, y, t), wide, deep, "back")
    if full:
        end = s - side if is_over(b) else s - tg
        b.part("top").groove((end, y, h - t), (w - end, y, h - t), wide, deep, "back")
