"""The carcass: gables, bottom, rails or top, grooved back, shelves and dividers, with dowel joints and hole rows.

Unit frame: x to the right, y from the front towards the wall (0 at the back, -depth at the front), z up. One carcass
serves every kind: what it has, and the plan of its front, are the kind's data. Corner units with two legs: cornered.py.
"""

from __future__ import annotations

from tall_plank.job.standard import impossible, unfitting
from tall_plank.making.backs import make_back
from tall_plank.making.bayset import BaySet
from tall_plank.making.bayset import Board as BayBoard
from tall_plank.making.builder import BETWEEN_BAYS, Builder
from tall_plank.making.fixed import hold_unit
from tall_plank.making.joints import join, tongue
from tall_plank.making.parts import Draft, Lent
from tall_plank.making.shell import (
    GABLE_LEFT,
    GABLE_RIGHT,
    band_front,
    clear_depth,
    floor_drop,
    front_edge,
    gable_cut,
    is_over,
    is_under,
    rear_cut,
    shaped_board,
    side_thickness,
)
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_X, NEG_Z, X, Y, Z
from tall_plank.measure.outlines import Points


def check_standard_fits(b: Builder) -> None:
    """Raises PlankError where values of the shop standard cannot stand together on this unit, naming one of them."""
    spec, made = b.spec, b.spec.made
    for key, what, remedy in (*impossible(made), *unfitting(made, b.stock)):
        raise PlankError(what, key, remedy)
    if spec.corner == "blind" and spec.blind > 0 and (made.face_frame == "frame" or made.overlay == "inset"):
        raise PlankError(
            "A unit that runs into a corner is made with fronts over its gables.",
            "fronts",
            "Choose another standard for its fronts and face frame.",
        )
    if spec.shape != "straight" and (made.face_frame == "frame" or made.overlay == "inset"):
        raise PlankError(
            "A unit with a slanted or bowed front is made with fronts over its gables.",
            "fronts",
            "Choose another standard for its fronts and face frame.",
        )


def _notch(b: Builder, left: Draft, right: Draft, down: float) -> None:
    """A notch in the lower front corner of both gables, as high as the plinth and deep enough to take its board."""
    made = b.spec.made
    deep = made.plinth_setback + made.plinth_thickness
    long, wide = left.length, left.width
    edged = long - down
    free = (edged, 0.0, 0.0, 0.0, 0.0, 0.0)
    outline: Points = ((0.0, 0.0), (edged, 0.0), (edged, deep), (long, deep), (long, wide), (0.0, wide))
    left.edge_outline(b.stock, outline, free, made.edging_carcass)
    outline = ((down, 0.0), (long, 0.0), (long, wide), (0.0, wide), (0.0, deep), (down, deep))
    right.edge_outline(b.stock, outline, free, made.edging_carcass)


def make_carcass(b: Builder, bays: BaySet) -> None:
    """Draft every part of the carcass and its joints."""
    spec, made = b.spec, b.spec.made
    w, h, t, s = spec.width, spec.height, made.carcass_thickness, side_thickness(b)
    d = spec.depth
    hung = spec.level == "hung"
    over, under, tg, cut = is_over(b), is_under(b), tongue(b), rear_cut(b)
    z0, z1 = (t - tg if under else 0.0), (h - t + tg if over else h)
    if spec.gables:
        # Left gable: x runs down; right gable: x runs up; L1 is the front edge on both.
        dl, dr = -front_edge(b, t / 2), -front_edge(b, w - t / 2)
        if spec.shape.startswith("angled"):
            # Square-edged, a gable ends where the slant first meets it.
            dl = min(-front_edge(b, 0.0), -front_edge(b, t))
            dr = min(-front_edge(b, w), -front_edge(b, w - t))
        back, down = gable_cut(b), floor_drop(b)
        high = z1 - z0 + down
        left = b.add(GABLE_LEFT, spec.carcass, t, high, dl - back, Frame((0.0, -dl, z1), NEG_Z, Y), "carcass")
        right = b.add(GABLE_RIGHT, spec.carcass, t, high, dr - back, Frame((w, -dr, z0 - down), Z, Y), "carcass")
        if down and spec.feet == "plinth":
            _notch(b, left, right, down)
        else:
            # A hung unit's underside is seen: its gables are banded there too.
            seen = hung and not under
            left.band(b.stock, made.edging_carcass, "L1", *(["W2"] if seen else []))
            right.band(b.stock, made.edging_carcass, "L1", *(["W1"] if seen else []))
    else:
        b.lent = [Lent(GABLE_LEFT, 0.0, d, h), Lent(GABLE_RIGHT, w, d, h)]
        left, right = b.part(GABLE_LEFT), b.part(GABLE_RIGHT)
    if spec.bottom:
        x0 = 0.0 if under else s - tg
        bottom = b.add("bottom", spec.carcass, t, w - 2 * x0, d - cut, Frame((x0, -d, 0.0), X, Y), "carcass")
        band_front(b, bottom, made.edging_carcass)
        if under:
            bottom.band(b.stock, made.edging_carcass, "W1", "W2")
        shaped_board(b, bottom)
        _join_lying(b, left, right, bottom, t / 2, t, beyond=under)
    if spec.top == "full":
        x0 = 0.0 if over else s - tg
        top = b.add("top", spec.carcass, t, w - 2 * x0, d - cut, Frame((w - x0, -d, h), NEG_X, Y), "carcass")
        band_front(b, top, made.edging_carcass)
        if over:
            top.band(b.stock, made.edging_carcass, "W1", "W2")
        shaped_board(b, top)
        _join_lying(b, left, right, top, h - t / 2, h - t, beyond=over)
    elif spec.top == "rails":
        _rails(b, left, right)
    for board in bays.boards:
        _board_between(b, board)
    if spec.back:
        make_back(b, left, right)
    b.fixed()
    if spec.cover:
        _cover(b)
    hold_unit(b)


def _cover(b: Builder) -> None:
    """A board over the unit in the fronts' finish, flush with the fronts."""
    spec, made = b.spec, b.spec.made
    deep = spec.depth + made.reach
    frame = Frame((0.0, -deep, spec.height), X, Y)
    cover = b.add("cover", spec.front, spec.cover, spec.width, deep, frame, "cover")
    cover.band(b.stock, made.edging_front, "L1", "W1", "W2")
    cover.fixed = "screwed on by hand from inside"


def _join_lying(
    b: Builder, left: Draft, right: Draft, board: Draft, middle: float, face: float, *, beyond: bool
) -> None:
    """Join a bottom or top to both gables: its ends to their faces, or their ends to its face where it runs past them.

    Parameters
    ----------
    middle : height of the board's middle, mm
    face : height of its face that looks into the unit
    """
    spec, s = b.spec, side_thickness(b)
    grooved = spec.back and spec.made.back_fit == "groove"
    rear = spec.depth - clear_depth(b) - spec.vent if grooved else 0.0
    end = -rear_cut(b)
    for gable, x in ((left, s), (right, spec.width - s)):
        front = gable.frame.origin[1]
        if spec.shape in ("bow", "hollow", "rounded") and spec.made.joint != "groove":
            front = max(front, front_edge(b, x))
        if beyond:
            at = x - s / 2 if gable is left else x + s / 2
            join(b, board, gable, (at, front, face), (at, end, face), rear)
        else:
            join(b, gable, board, (x, front, middle), (x, end, middle), rear)


def _rails(b: Builder, left: Draft, right: Draft) -> None:
    """Two rails at the top: lying flat, or standing on edge where a sink or a hob hangs between them."""
    spec, made = b.spec, b.spec.made
    w, h, d, t, r, s = spec.width, spec.height, spec.depth, made.carcass_thickness, made.rail_width, side_thickness(b)
    rear, tg = -(d - clear_depth(b) - spec.vent), tongue(b)
    front = -d + (b.behind(()) if spec.lets_in else 0.0)
    for name, front_y in (("front rail", front), ("rear rail", rear - (t if spec.lets_in else r))):
        if spec.lets_in:
            # Standing: face A looks back into the unit, length runs from left to right.
            frame = Frame((w - s + tg, front_y, h - r), NEG_X, Z)
            rail = b.add(name, spec.carcass, t, w - 2 * (s - tg), r, frame, "carcass")
            middle = front_y + t / 2
            lines = [((x, middle, h), (x, middle, h - r)) for x in (s, w - s)]
        else:
            frame = Frame((w - s + tg, front_y, h), NEG_X, Y)
            rail = b.add(name, spec.carcass, t, w - 2 * (s - tg), r, frame, "carcass")
            lines = [((x, front_y, h - t / 2), (x, front_y + r, h - t / 2)) for x in (s, w - s)]
        if name == "front rail" and not spec.lets_in:
            rail.band(b.stock, made.edging_carcass, "L1")
        for gable, (start, end) in zip((left, right), lines, strict=True):
            join(b, gable, rail, start, end)


def _board_between(b: Builder, board: BayBoard) -> None:
    """A fixed shelf or a divider between bays, joined at both ends."""
    spec, made, r = b.spec, b.spec.made, board.clear
    if not (board.left and board.right):
        word = "fixed shelf" if board.kind == "shelf" else "divider"
        raise PlankError(f"A {word} has nothing to hold it at a side of its bay.", board.name, BETWEEN_BAYS)
    back, tg = b.behind(board.parent), tongue(b)
    d, deep = spec.depth - back, clear_depth(b) - back
    if board.kind == "shelf":
        thick = made.shelf_thickness
        frame = Frame((r.x0 - tg, -d, r.z0), X, Y)
        shelf = b.add(board.name, spec.carcass, thick, r.width + 2 * tg, deep, frame, "carcass")
        band_front(b, shelf, made.edging_shelf)
        shaped_board(b, shelf, back, made.edging_shelf)
        z = (r.z0 + r.z1) / 2
        for upright, x in ((board.left, r.x0), (board.right, r.x1)):
            gable = b.part(upright)
            front = max(-d, gable.frame.origin[1] if gable.role in ("carcass", "lent") else -d)
            if spec.shape in ("bow", "hollow", "rounded"):
                front = max(front, front_edge(b, x))
            join(b, gable, shelf, (x, front, z), (x, -d + deep, z))
        return
    # A divider stands like a right gable: x up, face A to the left. It enters only boards that are there.
    x = (r.x0 + r.x1) / 2
    carcass = [p for p in b.drafts if p.role == "carcass"]
    ends = [next((p for p in carcass if _lies_at(p, x, z, -d + 20.0)), None) for z in (r.z0, r.z1)]
    low, high = (r.z0 - tg if ends[0] else r.z0), (r.z1 + tg if ends[1] else r.z1)
    if spec.shape != "straight":
        # Square-edged, it ends where the front's line first meets it.
        front = max(front_edge(b, r.x0), front_edge(b, r.x1))
        d, deep = -front, deep - (d + front)
    divider = b.add(
        board.name, spec.carcass, made.carcass_thickness, high - low, deep, Frame((r.x1, -d, low), Z, Y), "carcass"
    )
    divider.band(b.stock, made.edging_carcass, "L1")
    for z, lying in zip((r.z0, r.z1), ends, strict=True):
        if lying is not None:
            join(b, lying, divider, (x, -d, z), (x, -d + min(deep, lying.width), z))
            if tg:
                # Its tongue is as long as it is deep: a rail at the rear takes it too.
                for rail in (p for p in carcass if p is not lying and _lies_at(p, x, z, -d + deep - 20.0)):
                    start = rail.frame.into((x, -d + deep, z))[1]
                    join(b, rail, divider, (x, -d + deep - min(start, rail.width), z), (x, -d + deep, z))


def _lies_at(part: Draft, x: float, z: float, y: float) -> bool:
    """Whether a lying part has a face at height z over the place x, y in the unit."""
    local = part.frame.into((x, y, z))
    on_face = abs(local[2]) < 0.01 or abs(local[2] - part.thickness) < 0.01
    return on_face and 0 < local[0] < part.length and 0 < local[1] < part.width
