"""Fronts in their bays, with hinges, handles and what they need in the gables. Their styles: styles.py."""

from __future__ import annotations

import math

from tall_plank.job.bays import INSIDE
from tall_plank.job.inherit import handle_of
from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder, FacePlane, FrontBox
from tall_plank.making.holes import hinge_count, hinge_heights
from tall_plank.making.parts import Draft
from tall_plank.making.shell import BOW, GABLE_LEFT, GABLE_RIGHT, clear_depth
from tall_plank.making.styles import FRAMED, Field, make_style, style_for
from tall_plank.measure.frames import Vec, Z


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
        elif front.kind == "bifold":
            _bifold(b, box, front.hand, plane)
        else:
            # Next to the corner there is no gable to hang on.
            hand = front.hand if b.spec.corner != "blind" else "right" if b.spec.corner_side == "left" else "left"
            make_front(b, box, front.kind, hand, zone.x0, zone.width, plane)


def _bifold(b: Builder, box: BayBox, hand: str, plane: FacePlane) -> None:
    """Two leaves of the same width: one on the gable, one hinged to it that runs in a track at its far end."""
    zone, made = box.zone, b.spec.made
    leaf = (zone.width - made.gap_between) / 2
    left = hand == "left"
    near, far = (zone.x0, zone.x1 - leaf) if left else (zone.x1 - leaf, zone.x0)
    first = make_front(b, box, "bifold", hand, near, leaf, plane, handle=False)
    make_front(b, box, "bifold", hand, far, leaf, plane, hinges=False)
    weight = 2 * sum(p.area * p.thickness * p.board.density * 1e-9 for p in first)
    count = hinge_count(zone.height, weight / 2, made) or 5
    b.item(made.fold_hinge, count, f"{count} fold hinges: leaves {zone.height:g} mm high, {weight / 2:.1f} kg")
    b.role_item("bifold set", 1, f"track and guide of a bifold door {zone.width:g} mm wide")


def _pocket(b: Builder, box: BayBox, width: float, height: float) -> None:
    """A pocket door turns open and slides back beside its gable: the depth has to take it, and a set carries it."""
    depth = clear_depth(b)
    if depth < width - POCKET_OUT:
        b.problem(
            f"A pocket door {width:g} mm wide needs {width - POCKET_OUT:g} mm of clear depth; here are {depth:.1f}.",
            "Make the unit deeper, or close it with a pair.",
        )
        return
    b.role_item("pocket set", 1, f"pocket set: door {height:g} x {width:g} mm")


POCKET_OUT = 60.0
"""mm of a pocket door that stay out before the carcass (common practice: enough for its handle)."""


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
    style = style_for(b, style, kind, width, height, bent=bent)
    number = len(b.fronts) + 1
    words = {"pullout": "pull-out front", "flap": "flap", "drop": "drop front"}
    hung = ("door", "bifold", "pocket")
    name = f"{'door' if kind in hung else words.get(kind, kind + ' front')} {number}"
    pieces = make_style(Field(b, name, x, z, width, height, plane), style)
    if bent:
        _bend(b, pieces[0], width)
    weight = sum(p.area * p.thickness * p.board.density * 1e-9 for p in pieces)
    if kind in ("door", "bifold", "pocket") and hinges:
        _hinges(b, box, pieces, hand, x, z, width, height, weight, plane)
    if kind == "pocket":
        _pocket(b, box, width, height)
    if kind in ("flap", "drop"):
        _stays(b, box, kind, height, weight)
    if kind == "pullout":
        b.item(made.pullout, 1, "frame of the pull-out")
    pull = handle_of(made, kind, own.handle if own is not None else "")
    own_place = (own.from_edge, own.from_end) if own is not None else (None, None)
    place = tuple(
        length.mm if length is not None else by_rule
        for length, by_rule in zip(own_place, (made.handle_from_edge, made.handle_from_end), strict=True)
    )
    moved = own_place[1] is not None
    grip = (
        _handle(b, pieces, kind, hand, x, z, width, height, plane, pull, place[0], place[1], moved=moved)
        if handle
        else None
    )
    b.fronts.append(
        FrontBox(
            kind=kind,
            x=x,
            z=z,
            width=width,
            height=height,
            hand=hand if kind in ("door", "bifold", "pocket") else "",
            style=style,
            frame=made.frame_stile if style in FRAMED else 0.0,
            handle=grip,
            path=box.path,
            face=None if plane == FacePlane(0.0, -b.spec.depth - made.front_out) else plane,
            name=name,
            pull=pull if grip is not None else "",
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
    if stay is not None and weight > 2 * stay.capacity:
        # The weakest stay that carries it.
        stronger = [s for s in b.stock.fittings_of("stay") if weight <= 2 * s.capacity]
        strongest = max(b.stock.fittings_of("stay"), key=lambda s: s.capacity)
        stay = min(stronger, key=lambda s: s.capacity, default=strongest)
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
    b.item(stay.code, 2, f"2 stays of {stay.capacity:g} kg: {kind} {height:g} mm high, {weight:.1f} kg")


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
    heights = hinge_heights(z, z + height, count, spec.height, made, _behind(b, upright_name))
    if len({round(h) for h in heights}) < count or heights[0] - z < made.cup_from_edge:
        b.problem(f"A door of {height:g} mm is too low for its hinges.", "Make the door higher.")
        return
    number = pieces[0].name.split()[1]
    for end, asked, at in (("lower", z, heights[0]), ("upper", z + height, heights[-1])):
        b.force(
            f"hinge of door {number} from its {end} end",
            made.hinge_from_end,
            abs(at - asked),
            f"holes {made.row_pitch:g} apart",
        )
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
    by = "" if made.hinges == "auto" else ", number set by hand"
    why = f"{count} hinges: door {height:g} mm high, {weight:.1f} kg{by}"
    b.item(hinge.code, count, why)
    if plate is not None:
        b.item(plate.code, count, why)


PLATE_HALF = 22.0
"""mm above and below a hinge's middle that its plate and arm take (common practice: holes 32 apart, 6 mm round)."""


def _behind(b: Builder, upright: str) -> tuple[tuple[float, float], ...]:
    """Stretches of an upright's height where a hinge would meet a shelf or the packer of an inner drawer."""
    made = b.spec.made
    if b.bays is None:
        return ()
    found = [
        (r.z0 - PLATE_HALF, r.z1 + PLATE_HALF)
        for board in b.bays.boards
        if board.kind == "shelf" and upright in (board.left, board.right)
        for r in (board.clear,)
    ]
    shelves = [d for d in b.drafts if d.role == "shelf"]
    for box in b.bays.leaves:
        if upright in (box.left, box.right):
            for shelf in shelves:
                x, _, z = shelf.frame.origin
                if box.clear.x0 <= x <= box.clear.x1 and box.clear.z0 <= z <= box.clear.z1:
                    found.append((z - PLATE_HALF, z + shelf.thickness + PLATE_HALF))
        if box.bay.front is not None and box.bay.front.kind in INSIDE and upright in (box.left, box.right):
            high = box.through.height - made.drawer_clear_above - made.drawer_clear_below
            middle = box.through.z0 + made.drawer_clear_below + high / 2
            found.append((middle - PACKER / 2 - PLATE_HALF, middle + PACKER / 2 + PLATE_HALF))
    return tuple(found)


PACKER = 60.0
"""mm; height of the strip that brings a runner out from an upright."""


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
    from_edge: float,
    from_end: float,
    *,
    moved: bool,
) -> tuple[float, float, float, float] | None:
    """Handle holes: upright beside the opening edge on doors, lying in the middle on drawers, near the edge that
    opens on flaps, drops, pull-outs and appliance fronts; none on fixed fronts. Base doors are pulled from above,
    hung ones from below, tall ones at the middle."""
    if pull == "none":
        return None
    handle = b.stock.fitting(pull)
    if handle is None:
        b.problem("The stock has no such handle.", "Choose another handle.")
        return None
    half = handle.centers / 2
    if kind in ("door", "bifold", "pocket"):
        hx = x + width - from_edge if hand == "left" else x + from_edge
        low, high = z + from_end + half, z + height - from_end - half
        hz = {"base": high, "hung": low}.get(b.spec.level, min(max(TALL_HANDLE, low), high))
        along = (0.0, 1.0)
        fits = height >= handle.length + from_end
    else:
        hx = x + width / 2
        hz = {"drawer": z + height - from_end if moved else z + height / 2, "flap": z + from_end}.get(
            kind, z + height - from_end
        )
        along = (1.0, 0.0)
        fits = width >= handle.length + 20
    if not fits:
        b.problem(f"The handle is {handle.length:g} mm long; its front has no room for it.", "Choose a shorter handle.")
        return None
    for hole in handle.holes:
        at = plane.point(hx + along[0] * hole.dx, 0.0, hz + along[1] * hole.dx)
        piece = next((p for p in pieces if p.holds(at)), None)
        if piece is None and not pieces[0].bend:
            b.problem("The handle would lie off its front.", "Bring it nearer to the edge.")
            return None
        if piece is not None and piece.role in NO_HOLD:
            b.problem(f"The handle would sit on the {piece.role} of its front.", "Bring it nearer to the edge.")
            return None
        if piece is not None:
            # Each piece is drilled on its own outer face.
            u, v, _ = piece.frame.into(at)
            piece.bore(piece.frame.out((u, v, 0.0)), hole.diameter, hole.depth, "handle")
    b.item(handle.code, 1, f"one handle for a {kind}")
    reach = handle.length / 2
    return (hx - along[0] * reach, hz - along[1] * reach, hx + along[0] * reach, hz + along[1] * reach)


NO_HOLD = ("glass", "louvre", "front bar")
"""Roles of pieces that no handle is screwed to."""

TALL_HANDLE = 950.0
"""mm above a tall unit's underside at which its doors are pulled (common practice: about the worktop's height)."""
