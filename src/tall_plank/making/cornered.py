"""Corner units with two legs, one along each wall: an L with a two-part door, or a slanted front.

Drawn for a corner at the unit's right; at its left everything is its mirror image, which here means other frames.
Unit frame as elsewhere: origin left-back-bottom on the first wall. The second leg runs out from that wall along the
next one: for a corner at the right it takes x from width - depth to width, y from -leg to 0.
"""

from __future__ import annotations

import math

from tall_plank.job import Bay
from tall_plank.job.choices import Side
from tall_plank.making.bayset import BayBox, Rect
from tall_plank.making.builder import Builder
from tall_plank.making.faceplane import FacePlane, plane
from tall_plank.making.fronts import make_front
from tall_plank.making.joints import join, tongue
from tall_plank.making.parts import Draft, PartRole
from tall_plank.making.pinrows import rear_row
from tall_plank.making.shell import GABLE_LEFT, GABLE_RIGHT
from tall_plank.making.shelves import SHELF_STANDS, shelf_heights
from tall_plank.measure import Frame, PlankError, told
from tall_plank.measure.frames import NEG_X, NEG_Y, NEG_Z, X, Y, Z
from tall_plank.measure.outlines import Points

Bays = tuple[tuple[tuple[int, ...], float, float, float, float], ...]


def make_cornered(b: Builder) -> Bays:
    """Draft the parts of a corner unit; returns its one bay as seen along the first wall.

    Raises
    ------
    PlankError where its legs are no longer than it is deep
    """
    spec, made = b.spec, b.spec.made
    w, h, d, leg, t = spec.width, spec.height, spec.depth, spec.leg, made.carcass_thickness
    least = d + 150.0
    if w < least or leg < least:
        raise PlankError(
            f"A corner unit {d:g} mm deep needs legs of {least:g} mm; it has {w:g} mm and {leg:g} mm.",
            "width",
            "Make its legs longer, or choose a unit that runs into the corner blind.",
        )
    if made.overlay == "inset" or made.face_frame == "frame":
        raise PlankError(
            "A corner unit with two legs is made with fronts over its gables.",
            "fronts",
            "Choose another standard for its fronts and face frame, or a unit that runs into the corner blind.",
        )
    right = spec.corner_side != "left"
    near, far = _gables(b, right)
    opened = (w - d - t + tongue(b), leg - d - t + tongue(b))
    into = t - tongue(b)
    bottom = _lying(b, "bottom", 0.0, t, (into, into), made.edging_carcass, opened, "carcass")
    top = _lying(b, "top", h - t, t, (into, into), made.edging_carcass, opened, "carcass")
    for board, z in ((bottom, t / 2), (top, h - t / 2)):
        x = t if right else w - t
        join(b, near, board, (x, -d, z), (x, 0.0, z), d - _deep(b))
        y = -leg + t
        x0, x1 = (w - d, w) if right else (d, 0.0)
        join(b, far, board, (x0, y, z), (x1, y, z), d - _deep(b))
    _backs(b, right, near, far, bottom, top)
    b.fixed()
    box = BayBox((), spec.bay, Rect(t, t, w - t, h - t), Rect(0.0, 0.0, 0.0, 0.0), GABLE_LEFT, GABLE_RIGHT)
    _shelves(b, box, near, far, right)
    _fronts(b, right)
    if spec.level == "hung":
        b.item(made.hanger, 3, "3 hangers for a hung corner unit")
    else:
        b.item(made.leg, 5, "5 legs for a corner unit")
    _corner_fittings(b)
    return (((), t, t, w - 2 * t, h - 2 * t),)


def _corner_fittings(b: Builder) -> None:
    """What always goes into it. Rails: the first along the first wall up to the other back, the second along the other
    wall up to the middle of the first leg."""
    spec, t = b.spec, b.spec.made.carcass_thickness
    rails = [spec.width - t - (spec.depth - _deep(b)), spec.leg - t - spec.depth / 2]
    for code in spec.fittings:
        thing = b.stock.fitting(code)
        if thing is not None and thing.kind == "rail" and rails:
            length = rails.pop(0) - thing.cut
            b.item(code, 1, f"rail along a leg, cut to {told(length)} mm", length)
            b.role_item("rail socket", 2, "2 sockets for each hanging rail")
        else:
            b.item(code, 1, "fitting of this corner unit")


def _deep(b: Builder) -> float:
    made = b.spec.made
    return b.spec.depth - made.back_inset - made.back_thickness - made.groove_width_play


def _gables(b: Builder, right: bool) -> tuple[Draft, Draft]:
    """The gable on the first wall's leg and the one that ends the other leg; L1 is the front edge on both."""
    spec, made = b.spec, b.spec.made
    w, h, d, leg, t = spec.width, spec.height, spec.depth, spec.leg, made.carcass_thickness
    hung = spec.level == "hung"
    if right:
        near = b.add(GABLE_LEFT, spec.carcass, t, h, d, Frame((0.0, -d, h), NEG_Z, Y), "carcass")
        far = b.add("leg gable", spec.carcass, t, h, d, Frame((w - d, -leg, 0.0), Z, X), "carcass")
    else:
        near = b.add(GABLE_RIGHT, spec.carcass, t, h, d, Frame((w, -d, 0.0), Z, Y), "carcass")
        # Length down, width from the front (x = d) back to the wall: face A looks towards the corner.
        far = b.add("leg gable", spec.carcass, t, h, d, Frame((d, -leg, h), NEG_Z, NEG_X), "carcass")
    for gable in (near, far):
        down = "W2" if gable.frame.x == NEG_Z else "W1"
        gable.band(b.stock, made.edging_carcass, "L1", *([down] if hung else []))
    return near, far


def _lying(
    b: Builder,
    name: str,
    z: float,
    thickness: float,
    gaps: tuple[float, float],
    edging: float,
    opened: tuple[float, float],
    role: PartRole,
    setback: float = 0.0,
    rear: float = 0.0,
) -> Draft:
    """A bottom, top or shelf: the rectangle about both legs, less what lies before their fronts.

    Parameters
    ----------
    gaps : mm kept from the outer face of each gable
    opened : mm of front along each leg, from the gable to the inner corner
    setback, rear : mm that it stands back from the fronts and clear of the walls
    """
    spec = b.spec
    w, d, leg = spec.width, spec.depth, spec.leg
    length, width = w - gaps[0] - rear, leg - gaps[1] - rear
    a, c = opened[0] + setback, opened[1] + setback
    right = spec.corner_side != "left"
    x0 = gaps[0] if right else rear
    draft = b.add(name, spec.carcass, thickness, length, width, Frame((x0, -leg + gaps[1], z), X, Y), role)
    # Points for a corner at the right rear of the rectangle; the room lies at its left front.
    diagonal = spec.corner == "diagonal"
    inner: Points = ((0.0, c), (a, 0.0)) if diagonal else ((0.0, c), (a, c), (a, 0.0))
    points: Points = (*reversed(inner), (0.0, c), (0.0, width), (length, width), (length, 0.0))
    points = tuple(dict.fromkeys(points))
    # What looks at the room, between the inner points, is banded.
    free = [
        math.dist(p, q) if p in inner and q in inner else 0.0
        for p, q in zip(points, (*points[1:], *points[:1]), strict=True)
    ]
    if not right:
        points = tuple((length - x, y) for x, y in points)
    _ = d
    return draft.edge_outline(b.stock, points, free, edging)


def _backs(b: Builder, right: bool, near: Draft, far: Draft, bottom: Draft, top: Draft) -> None:
    """A back along each wall, in grooves of the gables, bottom and top; the second one butts on the first."""
    spec, made = b.spec, b.spec.made
    w, h, leg, t = spec.width, spec.height, spec.leg, made.carcass_thickness
    deep, play, inset = made.back_groove_depth, made.groove_bottom_play, made.back_inset
    wide = made.back_thickness + made.groove_width_play
    z0, z1 = t - deep + play, h - t + deep - play
    y = -(inset + wide / 2)
    reach = t - deep + play
    # Along the first wall, from the gable to the next wall's inset.
    x0, x1 = (reach, w - inset) if right else (inset, w - reach)
    frame = Frame((x1, -inset - made.groove_width_play / 2, z0), Z, NEG_X)
    b.add("back", spec.carcass, made.back_thickness, z1 - z0, x1 - x0, frame, "back")
    # Along the next wall, from the first back to the leg's gable.
    y0, y1 = -leg + reach, -inset - wide
    if right:
        frame = Frame((w - inset - made.groove_width_play / 2, y0, z0), Z, Y)
        xb = w - inset - wide / 2
    else:
        frame = Frame((inset + made.groove_width_play / 2, y1, z0), Z, NEG_Y)
        xb = inset + wide / 2
    b.add("leg back", spec.carcass, made.back_thickness, z1 - z0, y1 - y0, frame, "back")
    xn = t if right else w - t
    near.groove((xn, y, 0.0), (xn, y, h), wide, deep, "back")
    far.groove((xb, -leg + t, 0.0), (xb, -leg + t, h), wide, deep, "back")
    for board, z in ((bottom, t), (top, h - t)):
        xe = xn - tongue(b) if right else xn + tongue(b)
        board.groove((xe, y, z), (w - inset if right else inset, y, z), wide, deep, "back")
        board.groove((xb, y1, z), (xb, -leg + t - tongue(b), z), wide, deep, "back")


def _shelves(b: Builder, box: BayBox, near: Draft, far: Draft, right: bool) -> None:
    """Adjustable shelves over both legs, on pins in both gables and one support in the corner."""
    spec, made = b.spec, b.spec.made
    if not box.bay.shelves:
        return
    heights, places = shelf_heights(b, box)
    if not places:
        return
    w, d, leg, t = spec.width, spec.depth, spec.leg, made.carcass_thickness
    rear = rear_row(_deep(b), made.row_inset, made.row_pitch)
    for row in (made.row_inset, rear):
        for z in heights:
            use = SHELF_STANDS if any(abs(z - p + made.pin_diameter / 2) < 0.01 for p in places) else "shelf pin"
            near.bore((t if right else w - t, -d + row, z), made.pin_diameter, made.pin_depth, use)
            x = w - d + row if right else d - row
            far.bore((x, -leg + t, z), made.pin_diameter, made.pin_depth, use)
    back = made.back_inset + made.back_thickness + made.groove_width_play + made.shelf_back_clearance
    gap = t + made.shelf_play
    for i, z in enumerate(places, 1):
        opened = (w - d - gap, leg - d - gap)
        _lying(
            b,
            f"shelf {i}",
            z,
            made.shelf_thickness,
            (gap, gap),
            made.edging_shelf,
            opened,
            "shelf",
            made.shelf_setback,
            back,
        )
    count = len(places)
    b.item(made.shelf_pin, 5 * count, f"5 pins for each of {count} corner shelves")


def _fronts(b: Builder, right: bool) -> None:
    """The two-part door of an L, hinged at its first leg and folding in the corner; or one door on the slant."""
    spec, made = b.spec, b.spec.made
    w, d, leg, h = spec.width, spec.depth, spec.leg, spec.height
    front = spec.bay.front
    if front is None:
        return
    z0, z1 = made.gap_bottom, h - made.gap_top
    t = made.carcass_thickness
    if spec.corner == "diagonal":
        face = plane((0.0, -d), (w - d, -leg)) if right else plane((d, -leg), (w, -d))
        length = ((w - d) ** 2 + (leg - d) ** 2) ** 0.5
        # Each end stands back so far that the door's outer edge, a thickness before its plane, clears the fronts beside
        # it: those on the first wall look along y, those on the next one along x.
        out, side = made.front_thickness, made.gap_side
        along_x, along_y = (side + out * abs(face.uy)) / abs(face.ux), (side + out * abs(face.ux)) / abs(face.uy)
        left_in, right_in = (along_x, along_y) if right else (along_y, along_x)
        zone = Rect(left_in, z0, length - right_in, z1)
        names = (GABLE_LEFT, "leg gable") if right else ("leg gable", GABLE_RIGHT)
        box = BayBox((), Bay(front=front), Rect(t, t, length - t, h - t), zone, *names)
        make_front(b, box, "door", front.hand, zone.x0, zone.width, face)
        return
    ft, gap = made.front_thickness, made.gap_between
    if right:
        first, second = plane((0.0, -d), (w - d, -d)), plane((w - d, -d), (w - d, -leg), "leg")
        one = Rect(made.gap_side, z0, w - d - ft - gap, z1)
        two = Rect(gap, z0, leg - d - made.gap_side, z1)
        boxes = (
            BayBox((), Bay(front=front), Rect(t, t, w - d, h - t), one, GABLE_LEFT, "leg gable"),
            BayBox((), Bay(front=front), Rect(0.0, t, leg - d - t, h - t), two, GABLE_LEFT, "leg gable"),
        )
        _two_part(b, boxes, (first, second), hinged="left")
    else:
        second, first = plane((d, -leg), (d, -d), "leg"), plane((d, -d), (w, -d))
        # Both faces count from their left: the leg's from its gable, the other from the inner corner.
        two = Rect(made.gap_side, z0, leg - d - gap, z1)
        one = Rect(ft + gap, z0, w - d - made.gap_side, z1)
        boxes = (
            BayBox((), Bay(front=front), Rect(0.0, t, w - d - t, h - t), one, "leg gable", GABLE_RIGHT),
            BayBox((), Bay(front=front), Rect(t, t, leg - d, h - t), two, "leg gable", GABLE_RIGHT),
        )
        _two_part(b, boxes, (first, second), hinged="right")


def _two_part(b: Builder, boxes: tuple[BayBox, BayBox], faces: tuple[FacePlane, FacePlane], hinged: Side) -> None:
    """First leaf on its gable's hinges, second one folding on the first, the handle at its free edge."""
    made = b.spec.made
    one, two = boxes
    make_front(b, one, "door", hinged, one.zone.x0, one.zone.width, faces[0], handle=False)
    make_front(b, two, "door", hinged, two.zone.x0, two.zone.width, faces[1], hinges=False)
    b.item(made.fold_hinge, 2 if one.zone.height <= 900 else 3, "fold hinges between the leaves of a corner door")
