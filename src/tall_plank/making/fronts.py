"""Fronts: slab and framed flat panel, with hinges, handles and what they need in the gables."""

from __future__ import annotations

import math

from tall_plank.job.bays import INSIDE
from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder, FacePlane, FrontBox
from tall_plank.making.carcass import BOW, GABLE_LEFT, GABLE_RIGHT
from tall_plank.making.holes import hinge_count, hinge_heights
from tall_plank.making.parts import Draft, Groove, Rebate
from tall_plank.measure.frames import Vec, Z

LEAST_SIGHT = 40.0
"""mm of panel seen; a framed front with less is made as a slab (common practice for shallow drawer fronts)."""


HINGED = ("door", "flap", "drop")
"""Fronts that hang on hinges."""


def make_fronts(b: Builder, boxes: tuple[BayBox, ...], face: FacePlane | None = None) -> None:
    """Draft the fronts of all bays that have one, on the unit's front or on another face."""
    plane = face or b.face
    for box in boxes:
        front = box.bay.front
        if front is None or front.kind in INSIDE:
            if box.bay.appliance and front is None:
                _machine(b, box)
            continue
        zone = box.zone
        if front.kind == "pair":
            leaf = (zone.width - b.spec.made.gap_between) / 2
            make_front(b, box, "door", "left", zone.x0, leaf, plane)
            make_front(b, box, "door", "right", zone.x1 - leaf, leaf, plane)
        else:
            # Next to the corner there is no gable to hang on.
            hand = front.hand if b.spec.corner != "blind" else "right" if b.spec.corner_side == "left" else "left"
            make_front(b, box, front.kind, hand, zone.x0, zone.width, plane)


def _machine(b: Builder, box: BayBox) -> None:
    """The face of an appliance that stands open in its bay, for drawings and the model."""
    c = box.clear
    b.fronts.append(FrontBox("machine", c.x0, c.z0, c.width, c.height, "", "machine", 0.0, None, box.path, None))


def make_front(
    b: Builder,
    box: BayBox,
    kind: str,
    hand: str,
    x: float,
    width: float,
    plane: FacePlane,
    *,
    hinges: bool = True,
    handle: bool = True,
) -> list[Draft]:
    """Draft one front from x along its face, with its hinges and handle."""
    made, zone = b.spec.made, box.zone
    z, height = zone.z0, zone.height
    own = box.bay.front
    style = (own.style if own is not None else "") or made.front_style
    bent = b.spec.shape in ("bow", "hollow", "rounded")
    sight_w, sight_h = width - 2 * made.frame_stile, height - 2 * made.frame_rail
    if style == "framed" and (min(sight_w, sight_h) < LEAST_SIGHT or bent):
        style = "slab"
    number = len(b.fronts) + 1
    words = {"door": "door", "pullout": "pull-out front", "flap": "flap", "drop": "drop front"}
    name = f"{words.get(kind, kind + ' front')} {number}"
    if style == "framed":
        pieces = _framed(b, name, x, z, width, height, plane)
    else:
        pieces = [_slab(b, name, x, z, width, height, plane)]
    if bent:
        _bend(b, pieces[0], width)
    weight = sum(p.length * p.width * p.thickness * p.board.density * 1e-9 for p in pieces)
    if kind == "door" and hinges:
        _hinges(b, box, pieces, hand, x, z, width, height, weight, plane)
    if kind in ("flap", "drop"):
        _stays(b, box, kind, height, weight)
    if kind == "pullout":
        b.item(made.pullout, 1, "frame of the pull-out")
    pull = (own.handle if own is not None else "") or made.handle
    grip = _handle(b, pieces, kind, hand, x, z, width, height, plane, pull) if handle else None
    b.fronts.append(
        FrontBox(
            kind=kind,
            x=x,
            z=z,
            width=width,
            height=height,
            hand=hand if kind == "door" else "",
            style=style,
            frame=made.frame_stile if style == "framed" else 0.0,
            handle=grip,
            path=box.path,
            face=None if plane == FacePlane(0.0, -b.spec.depth - made.front_out) else plane,
            name=name,
        )
    )
    return pieces


def _bend(b: Builder, piece: Draft, chord: float) -> None:
    """A front bent to the plan of its unit: its developed width is the length of the arc over its chord.

    R = (c2/4 + h2) / 2h, length = R x 2 atan2(c/2, R - h) (geometry of a circle's segment).
    """
    rise = BOW * chord if b.spec.shape != "rounded" else min(b.spec.width / 2, b.spec.depth)
    radius = (chord**2 / 4 + rise**2) / (2 * rise)
    arc = radius * 2 * math.atan2(chord / 2, radius - rise)
    piece.bend = radius if b.spec.shape != "hollow" else -radius
    if b.spec.made.front_grain == "vertical":
        piece.width = arc
    else:
        piece.length = arc


def _stays(b: Builder, box: BayBox, kind: str, height: float, weight: float) -> None:
    """Stays that carry a flap or hold a drop front, one at each side; they bring their own hinges."""
    made = b.spec.made
    stay = b.stock.fitting(made.stay)
    if stay is None:
        b.problem("The stock has no such stay.", "Choose another one in the shop standard.")
        return
    if weight > 2 * stay.capacity:
        b.problem(
            f"The {kind} front weighs {weight:.1f} kg; a pair of stays carries {2 * stay.capacity:g} kg.",
            "Divide it or choose a stronger stay.",
        )
        return
    for upright, x in ((box.left, box.clear.x0), (box.right, box.clear.x1)):
        draft = b.part(upright)
        front = draft.frame.origin[1]
        for hole in stay.holes:
            z = box.clear.z1 - hole.dy if kind == "flap" else box.clear.z0 + hole.dy
            draft.bore((x, front + b.recess + hole.dx, z), hole.diameter, hole.depth, "stay")
    b.item(stay.code, 2, f"2 stays: {kind} {height:g} mm high, {weight:.1f} kg")


def _slab(b: Builder, name: str, x: float, z: float, width: float, height: float, plane: FacePlane) -> Draft:
    made = b.spec.made
    t = made.front_thickness
    if made.front_grain == "vertical":
        frame = plane.frame(x, t, z, upright=True)
        slab = b.add(name, b.spec.front, t, height, width, frame, "front")
    else:
        frame = plane.frame(x, t, z + height, upright=False)
        slab = b.add(name, b.spec.front, t, width, height, frame, "front")
    return slab.band(b.stock, made.edging_front, "L1", "L2", "W1", "W2")


def _framed(b: Builder, name: str, x: float, z: float, width: float, height: float, plane: FacePlane) -> list[Draft]:
    """Two stiles, two rails with tongues, one panel in grooves.

    rail = width - 2 stiles + 2 groove depths (both tongues);
    panel = sight size + 2 groove depths - 2 clearances for movement (common practice).
    """
    made, spec = b.spec.made, b.spec
    stile, rail, deep, free = made.frame_stile, made.frame_rail, made.frame_groove_depth, made.frame_panel_clearance
    t, panel_t = made.front_thickness, made.panel_thickness
    wide = panel_t + made.groove_width_play
    shoulder = (t - wide) / 2
    if shoulder <= 1.0:
        b.problem(
            f"A {panel_t:g} mm panel leaves no cheeks in a {t:g} mm frame.", "Choose a thinner panel or thicker front."
        )
    pieces = []
    for word, x0 in (("left stile", x), ("right stile", x + width - stile)):
        frame = plane.frame(x0, t, z, upright=True)
        piece = b.add(f"{name} {word}", spec.front, t, height, stile, frame, "front frame")
        inner = "L2" if word == "left stile" else "L1"
        piece.operations.append(Groove(inner, 0.0, t / 2, height, t / 2, wide, deep, "panel"))  # type: ignore[arg-type]
        pieces.append(piece)
    length = width - 2 * stile + 2 * deep
    for word, z1 in (("top rail", z + height), ("bottom rail", z + rail)):
        frame = plane.frame(x + stile - deep, t, z1, upright=False)
        piece = b.add(f"{name} {word}", spec.front, t, length, rail, frame, "front frame")
        inner = "L2" if word == "top rail" else "L1"
        piece.operations.append(Groove(inner, 0.0, t / 2, length, t / 2, wide, deep, "panel"))  # type: ignore[arg-type]
        for end in ("W1", "W2"):
            for face in ("A", "B"):
                piece.operations.append(Rebate(face, end, deep, shoulder))
        pieces.append(piece)
    reach = deep - free
    upright = made.front_grain == "vertical"
    panel_w, panel_h = width - 2 * stile + 2 * reach, height - 2 * rail + 2 * reach
    x0, z0 = x + stile - reach, z + rail - reach
    inset = (t - panel_t) / 2
    frame = plane.frame(x0, t - inset, z0 if upright else z0 + panel_h, upright=upright)
    size = (panel_h, panel_w) if upright else (panel_w, panel_h)
    pieces.append(b.add(f"{name} panel", spec.front, panel_t, *size, frame, "front panel"))
    return pieces


def _hinges(
    b: Builder,
    box: BayBox,
    pieces: list[Draft],
    hand: str,
    x: float,
    z: float,
    width: float,
    height: float,
    weight: float,
    plane: FacePlane,
) -> None:
    """Cups in the door and plates on the gable, at the same heights, the plates' holes on the system row."""
    made, spec, stock = b.spec.made, b.spec, b.stock
    count = hinge_count(height, weight, made)
    if count is None:
        b.problem(
            f"No hinge rule reaches a door of {height:g} mm and {weight:.1f} kg.", "Divide the door or add a rule."
        )
        return
    left = hand == "left"
    # A hinge needs an upright at its own side of the front.
    upright_name, gable_x = (box.left, box.clear.x0) if left else (box.right, box.clear.x1)
    straight = plane.uy == 0.0
    framed = made.face_frame == "frame"
    at_side = framed or not straight or abs((x if left else x + width) - gable_x) <= made.carcass_thickness
    if not at_side and upright_name in (GABLE_LEFT, GABLE_RIGHT):
        b.problem("A door has no gable or divider to hang on.", "Put a divider between the doors.")
        return
    hinge, plate = stock.fitting(made.hinge), stock.fitting(made.plate)
    if hinge is None or (plate is None and not hinge.is_butt):
        b.problem("The stock has no such hinge or plate.", "Choose another hinge in the shop standard.")
        return
    heights = hinge_heights(z, z + height, count, spec.height, made)
    if len({round(h) for h in heights}) < count or heights[0] - z < made.cup_from_edge:
        b.problem(f"A door of {height:g} mm is too low for its hinges.", "Make the door higher.")
        return
    if hinge.is_butt:
        _butts(b, pieces, heights, x if left else x + width, plane, upright_name, gable_x)
        b.item(hinge.code, count, f"{count} butt hinges: door {height:g} mm high, {weight:.1f} kg")
        return
    side = 1.0 if left else -1.0
    cup_x = x + made.cup_from_edge if left else x + width - made.cup_from_edge
    upright = b.part(upright_name)
    for middle in heights:
        for hole in hinge.holes:
            point = plane.point(cup_x + side * hole.dx, 0.0, middle + hole.dy)
            target = next((p for p in pieces if p.holds(point)), pieces[0])
            target.bore(point, hole.diameter, hole.depth, "hinge")
        for hole in plate.holes if plate is not None else ():
            place = inner_point(upright, made.row_inset + b.recess + hole.dx, middle + hole.dy, left=left)
            upright.bore(place, hole.diameter, hole.depth, "hinge plate")
    why = f"{count} hinges: door {height:g} mm high, {weight:.1f} kg"
    b.item(hinge.code, count, why)
    if plate is not None:
        b.item(plate.code, count, why)


def _butts(
    b: Builder,
    pieces: list[Draft],
    heights: tuple[float, ...],
    edge: float,
    plane: FacePlane,
    upright_name: str,
    gable_x: float,
) -> None:
    """Pilot holes of butt hinges in the door's edge and in the edge of the frame or the face of the upright beside it.

    Parameters
    ----------
    edge : x of the door's hinged edge on its face, mm
    """
    made = b.spec.made
    hinge = b.stock.fitting(made.hinge)
    assert hinge is not None
    members = [d for d in b.drafts if d.role == "face frame" and d.frame.x == Z]
    for middle in heights:
        for hole in hinge.holes:
            z = middle + hole.dy
            at = plane.point(edge, made.front_thickness / 2, z)
            door = next((p for p in pieces if p.on_edge(at)), None)
            if door is not None:
                door.bore(at, hole.diameter, hole.depth, "butt hinge")
            for shift in (-made.gap_inset, made.gap_inset):
                place = plane.point(edge + shift, made.front_thickness / 2, z)
                member = next((m for m in members if m.on_edge(place)), None)
                if member is not None:
                    member.bore(place, hole.diameter, hole.depth, "butt hinge")
                    break
            else:
                if upright_name and not members:
                    place = (gable_x, plane.y - made.front_thickness / 2, z)
                    b.part(upright_name).bore(place, hole.diameter, min(hole.depth, 13.0), "butt hinge")


def inner_point(upright: Draft, from_front: float, z: float, *, left: bool) -> Vec:
    """A point on the face of an upright that looks at the bay on its right (left: the upright stands left of it),
    so far behind its front edge and so high, in the unit's frame."""
    # Face A of a gable looks into the unit; a divider stands like a right gable, so a bay to its right sees face B.
    into = upright.thickness if upright.name in (GABLE_LEFT, GABLE_RIGHT, "leg gable") or not left else 0.0
    point = upright.frame.out((0.0, from_front, into))
    return (point[0], point[1], z)


def _handle(
    b: Builder,
    pieces: list[Draft],
    kind: str,
    hand: str,
    x: float,
    z: float,
    width: float,
    height: float,
    plane: FacePlane,
    pull: str,
) -> tuple[float, float, float, float] | None:
    """Handle holes: upright beside the opening edge on doors, lying in the middle on drawers, near the edge that
    opens on flaps, drops, pull-outs and appliance fronts; none on fixed fronts. Base doors are pulled from above,
    hung ones from below, tall ones at the middle."""
    made = b.spec.made
    if kind == "fixed" or pull == "none":
        return None
    handle = b.stock.fitting(pull)
    if handle is None:
        b.problem("The stock has no such handle.", "Choose another handle.")
        return None
    half = handle.centers / 2
    if kind == "door":
        hx = x + width - made.handle_from_edge if hand == "left" else x + made.handle_from_edge
        low, high = z + made.handle_from_end + half, z + height - made.handle_from_end - half
        hz = {"base": high, "hung": low}.get(b.spec.level, min(max(TALL_HANDLE, low), high))
        along = (0.0, 1.0)
        fits = height >= handle.length + made.handle_from_end
    else:
        hx = x + width / 2
        hz = {"drawer": z + height / 2, "flap": z + made.handle_from_end}.get(kind, z + height - made.handle_from_end)
        along = (1.0, 0.0)
        fits = width >= handle.length + 20
    if not fits:
        b.problem(f"The handle is {handle.length:g} mm long; its front has no room for it.", "Choose a shorter handle.")
        return None
    for hole in handle.holes:
        pu, pz = hx + along[0] * hole.dx, hz + along[1] * hole.dx
        for piece in pieces:
            # A panel stands behind the frame's face, so each piece is drilled on its own face.
            out = (made.front_thickness + piece.thickness) / 2
            point = plane.point(pu, out, pz)
            if piece.holds(point):
                piece.bore(point, hole.diameter, hole.depth, "handle")
                break
    b.item(handle.code, 1, f"one handle for a {kind}")
    reach = handle.length / 2
    return (hx - along[0] * reach, hz - along[1] * reach, hx + along[0] * reach, hz + along[1] * reach)


TALL_HANDLE = 950.0
"""mm above a tall unit's underside at which its doors are pulled (common practice: about the worktop's height)."""
