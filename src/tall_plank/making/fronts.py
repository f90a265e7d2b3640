"""Fronts: slab and framed flat panel, with hinges, handles and what they need in the gables."""

from __future__ import annotations

from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder, FrontBox
from tall_plank.making.carcass import GABLE_LEFT, GABLE_RIGHT
from tall_plank.making.holes import hinge_count, hinge_heights
from tall_plank.making.parts import Draft, Groove, Rebate
from tall_plank.measure import Frame
from tall_plank.measure.frames import X, Z

LEAST_SIGHT = 40.0
"""mm of panel seen; a framed front with less is made as a slab (common practice for shallow drawer fronts)."""


def make_fronts(b: Builder, boxes: tuple[BayBox, ...]) -> None:
    """Draft the fronts of all bays that have one."""
    for box in boxes:
        front = box.bay.front
        if front is None:
            continue
        zone = box.zone
        if front.kind == "pair":
            leaf = (zone.width - b.spec.made.gap_between) / 2
            _front(b, box, "door", "left", zone.x0, leaf)
            _front(b, box, "door", "right", zone.x1 - leaf, leaf)
        else:
            _front(b, box, front.kind, front.hand, zone.x0, zone.width)


def _front(b: Builder, box: BayBox, kind: str, hand: str, x: float, width: float) -> None:
    made, zone = b.spec.made, box.zone
    z, height = zone.z0, zone.height
    style = made.front_style
    sight_w, sight_h = width - 2 * made.frame_stile, height - 2 * made.frame_rail
    if style == "framed" and min(sight_w, sight_h) < LEAST_SIGHT:
        style = "slab"
    number = len(b.fronts) + 1
    name = f"{'door' if kind == 'door' else kind + ' front'} {number}"
    pieces = _framed(b, name, x, z, width, height) if style == "framed" else [_slab(b, name, x, z, width, height)]
    weight = sum(p.length * p.width * p.thickness * p.board.density * 1e-9 for p in pieces)
    if kind == "door":
        _hinges(b, box, pieces, hand, x, z, width, height, weight)
    handle = _handle(b, pieces, kind, hand, x, z, width, height)
    b.fronts.append(
        FrontBox(
            kind=kind,  # type: ignore[arg-type]
            x=x,
            z=z,
            width=width,
            height=height,
            hand=hand if kind == "door" else "",
            style=style,
            frame=made.frame_stile if style == "framed" else 0.0,
            handle=handle,
            path=box.path,
        )
    )


def _face_frame(b: Builder, x: float, z: float, *, upright: bool, inset: float = 0.0) -> Frame:
    """Frame of a piece of a front whose lower left corner stands at x, z: face A looks into the unit."""
    front = -b.spec.depth - b.spec.made.front_thickness + inset
    # Upright: length up, L1 at the left; lying: length to the right. In both, z points into the unit.
    return Frame((x, front, z), Z, X) if upright else Frame((x, front, z), X, (0.0, 0.0, -1.0))


def _slab(b: Builder, name: str, x: float, z: float, width: float, height: float) -> Draft:
    made = b.spec.made
    if made.front_grain == "vertical":
        frame = _face_frame(b, x, z, upright=True)
        slab = b.add(name, b.spec.front, made.front_thickness, height, width, frame, "front")
    else:
        frame = _face_frame(b, x, z + height, upright=False)
        slab = b.add(name, b.spec.front, made.front_thickness, width, height, frame, "front")
    return slab.band(b.stock, made.edging_front, "L1", "L2", "W1", "W2")


def _framed(b: Builder, name: str, x: float, z: float, width: float, height: float) -> list[Draft]:
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
        frame = _face_frame(b, x0, z, upright=True)
        piece = b.add(f"{name} {word}", spec.front, t, height, stile, frame, "front frame")
        inner = "L2" if word == "left stile" else "L1"
        piece.operations.append(Groove(inner, 0.0, t / 2, height, t / 2, wide, deep, "panel"))  # type: ignore[arg-type]
        pieces.append(piece)
    length = width - 2 * stile + 2 * deep
    for word, z1 in (("top rail", z + height), ("bottom rail", z + rail)):
        frame = _face_frame(b, x + stile - deep, z1, upright=False)
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
    frame = _face_frame(b, x0, z0 if upright else z0 + panel_h, upright=upright, inset=inset)
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
    at_side = abs((x if left else x + width) - gable_x) <= made.carcass_thickness
    if not at_side and upright_name in (GABLE_LEFT, GABLE_RIGHT):
        b.problem("A door has no gable or divider to hang on.", "Put a divider between the doors.")
        return
    hinge, plate = stock.fitting(made.hinge), stock.fitting(made.plate)
    if hinge is None or plate is None:
        b.problem("The stock has no such hinge or plate.", "Choose another hinge in the shop standard.")
        return
    heights = hinge_heights(z, z + height, count, spec.height, made)
    if len({round(h) for h in heights}) < count or heights[0] - z < made.cup_from_edge:
        b.problem(f"A door of {height:g} mm is too low for its hinges.", "Make the door higher.")
        return
    side = 1.0 if left else -1.0
    cup_x = x + made.cup_from_edge if left else x + width - made.cup_from_edge
    upright = b.part(upright_name)
    for middle in heights:
        for hole in hinge.holes:
            point = (cup_x + side * hole.dx, -spec.depth, middle + hole.dy)
            target = next((p for p in pieces if p.holds(point)), pieces[0])
            target.bore(point, hole.diameter, hole.depth, "hinge")
        for hole in plate.holes:
            point = (gable_x, -spec.depth + made.row_inset + hole.dx, middle + hole.dy)
            upright.bore(point, hole.diameter, hole.depth, "hinge plate")
    why = f"{count} hinges: door {height:g} mm high, {weight:.1f} kg"
    b.item(hinge.code, count, why)
    b.item(plate.code, count, why)


def _handle(
    b: Builder, pieces: list[Draft], kind: str, hand: str, x: float, z: float, width: float, height: float
) -> tuple[float, float, float, float] | None:
    """Handle holes: upright beside the opening edge on doors, lying in the middle on drawers, near the top on
    appliance fronts; none on fixed fronts. Base doors are pulled from above, hung ones from below."""
    made = b.spec.made
    if kind == "fixed" or made.handle == "none":
        return None
    handle = b.stock.fitting(made.handle)
    if handle is None:
        b.problem("The stock has no such handle.", "Choose another handle.")
        return None
    half = handle.centers / 2
    if kind == "door":
        hx = x + width - made.handle_from_edge if hand == "left" else x + made.handle_from_edge
        hz = z + height - made.handle_from_end - half if b.spec.level == "base" else z + made.handle_from_end + half
        along = (0.0, 1.0)
        fits = height >= handle.length + made.handle_from_end
    else:
        hx = x + width / 2
        hz = z + height / 2 if kind == "drawer" else z + height - made.handle_from_end
        along = (1.0, 0.0)
        fits = width >= handle.length + 20
    if not fits:
        b.problem(f"The handle is {handle.length:g} mm long; its front has no room for it.", "Choose a shorter handle.")
        return None
    outer = -b.spec.depth - made.front_thickness
    for hole in handle.holes:
        px, pz = hx + along[0] * hole.dx, hz + along[1] * hole.dx
        for piece in pieces:
            # A panel stands behind the frame's face, so each piece is drilled on its own face.
            y = outer + (made.front_thickness - piece.thickness) / 2
            if piece.holds((px, y, pz)):
                piece.bore((px, y, pz), hole.diameter, hole.depth, "handle")
                break
    b.item(handle.code, 1, f"one handle for a {kind}")
    reach = handle.length / 2
    return (hx - along[0] * reach, hz - along[1] * reach, hx + along[0] * reach, hz + along[1] * reach)
