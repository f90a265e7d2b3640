"""Hinges: how many by height and weight, where they sit, and what is drilled for them (common practice)."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from tall_plank.job import Construction
from tall_plank.job.bays import INSIDE
from tall_plank.job.choices import Side
from tall_plank.job.standard import WEB
from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.packers import PACKER, packing, through_packing
from tall_plank.making.parts import Bore, Draft
from tall_plank.making.pinrows import on_grid_middle
from tall_plank.making.shell import GABLE_LEFT, GABLE_RIGHT
from tall_plank.measure import told
from tall_plank.measure.frames import Vec, Z
from tall_plank.stock import Fitting


def hinge_count(height: float, weight: float, made: Construction) -> int | None:
    """Number of hinges by height (mm) and weight (kg), the larger demand, or as decided by hand; None where no rule
    reaches."""
    if made.hinges != "auto":
        return int(made.hinges)
    for rule in made.hinge_rules:
        if height <= rule.height and weight <= rule.weight:
            return rule.count
    return None


LEAST_FROM_END, HINGES_APART = 50.0, 128.0
"""mm from a low door's end to its hinge, and between two hinges (common practice: a cup's screws need about 55)."""


def hinge_heights(
    low: float,
    high: float,
    count: int,
    gable: float,
    made: Construction,
    blocked: tuple[tuple[float, float], ...] = (),
) -> tuple[float, ...] | None:
    """Heights of hinges on a door from low to high, on the gable's grid: the end ones near their distance from
    the door's ends, the others evenly between; each moves along the grid where a board or drawer behind the door is in
    its way. None where one finds no place.

    Parameters
    ----------
    blocked : stretches of height, mm, that no hinge's middle may lie in
    """
    # On a low door the hinges stand nearer to its ends, so that they keep clear of one another.
    from_end = min(made.hinge_from_end, max(LEAST_FROM_END, (high - low - HINGES_APART) / 2))
    ends = (low + from_end, high - from_end)
    wanted = [ends[0] + (ends[1] - ends[0]) * i / (count - 1) for i in range(count)] if count > 1 else [ends[0]]
    found: list[float] = []
    for z in wanted:
        at = on_grid_middle(z, gable, made)
        steps = (0, *(s for k in range(1, 12) for s in ((k, -k) if z < (low + high) / 2 else (-k, k))))
        free = (
            at + s * made.row_pitch
            for s in steps
            if low + LEAST_FROM_END <= at + s * made.row_pitch <= high - LEAST_FROM_END
            and not any(a < at + s * made.row_pitch < c for a, c in blocked)
        )
        place = next(free, None)
        if place is None:
            return None
        found.append(place)
    return tuple(found)


class Hung(NamedTuple):
    """A door and what it hangs on.

    Attributes
    ----------
    left : the side of its hinges
    edge_x, gable_x : of its hinged edge and of the upright's face, on the unit's front, mm
    angle : degrees inside the unit between the front and the upright
    """

    pieces: list[Draft]
    plane: FacePlane
    left: bool
    edge_x: float
    upright: Draft
    upright_name: str
    gable_x: float
    angle: float


def make_hinges(
    b: Builder,
    box: BayBox,
    pieces: list[Draft],
    hand: Side,
    x: float,
    z: float,
    width: float,
    height: float,
    weight: float,
    plane: FacePlane,
    *,
    carried: bool = False,
) -> None:
    """Cups in the door and plates on what it hangs on, at the same heights, the plates' holes on the system row. `x`,
    `z`, `width`, `height`: mm. `weight`: kg. `carried`: its plates are those of the carrier that it slides in on."""
    made = b.spec.made
    count = hinge_count(height, weight, made)
    if count is None:
        b.problem(
            f"No hinge rule reaches a door of {height:g} mm and {weight:.1f} kg.", "Divide the door or add a rule."
        )
        return
    left = hand == "left"
    # A hinge needs an upright at its own side of the front.
    upright_name, gable_x = (box.left, box.clear.x0) if left else (box.right, box.clear.x1)
    edge_x = x if left else x + width
    at_side = b.framed or plane.uy != 0.0 or abs(edge_x - gable_x) <= made.carcass_thickness
    if not upright_name or (not at_side and upright_name in (GABLE_LEFT, GABLE_RIGHT)):
        b.problem("A door has no gable or divider to hang on.", "Put a divider between the doors.")
        return
    upright = b.part(upright_name)
    angle = front_angle(plane, upright, left=left)
    hung = Hung(pieces, plane, left, edge_x, upright, upright_name, gable_x, angle)
    hinge = hinge_for(b, angle, FOLDED if b.spec.corner == "l" else 0.0, carried=carried)
    if hinge is None or not _reaches(b, hung, hinge):
        return
    packed = 0.0 if carried else _to_be_packed(b, box, hinge, left=left)
    behind = _behind(b, upright_name, packed=packed > 0.5)
    heights = hinge_heights(z, z + height, count, b.spec.height, made, behind)
    if heights is None or len({round(h) for h in heights}) < count or heights[0] - z < made.cup_from_edge:
        b.problem(
            f"A door of {height:g} mm has no room for {count} hinges beside what is behind it.",
            "Make the door higher, take fewer hinges, or move the shelves.",
        )
        return
    number = pieces[0].name.split()[1]
    for end, asked, at in (("lower", z, heights[0]), ("upper", z + height, heights[-1])):
        b.force(
            f"hinge of door {number} from its {end} end",
            made.hinge_from_end,
            abs(at - asked),
            f"holes {made.row_pitch:g} apart",
        )
    _hang(b, hung, hinge, heights, packed, f"door {height:g} mm high, {weight:.1f} kg", carried=carried)


def _reaches(b: Builder, hung: Hung, hinge: Fitting) -> bool:
    """Whether a hinge reaches over what its front covers; where it does not, that is told."""
    if hinge.is_butt or b.framed or hung.plane.uy != 0.0 or b.spec.shape != "straight":
        return True
    covers = hung.gable_x - hung.edge_x if hung.left else hung.edge_x - hung.gable_x
    most = b.spec.made.cup_from_edge - BEYOND
    if covers <= most:
        return True
    from_edge = b.spec.made.cup_from_edge
    b.problem(
        f"A door covers {told(covers)} mm of its upright; with a cup {from_edge:g} mm from its edge a hinge reaches "
        f"over {most:g} mm at most.",
        "Let fronts cover half of the gables, or take a thinner carcass.",
    )
    return False


def _hang(
    b: Builder, hung: Hung, hinge: Fitting, heights: tuple[float, ...], packed: float, what: str, *, carried: bool
) -> None:
    """Both halves of every hinge, and what is bought for them.

    Parameters
    ----------
    heights : of the hinges, mm
    packed : mm from the upright to the edge of the face frame that plates have to stand at
    what : the door, in words
    """
    made, left, count = b.spec.made, hung.left, len(heights)
    if hinge.is_butt:
        _butts(b, hung.pieces, heights, hung.edge_x, hung.plane, hung.upright_name, hung.gable_x, hinge)
        b.item(hinge.code, count, f"{count} butt hinges: {what}")
        return
    plate = plate_for(b)
    if plate is None and not hinge.on_frame and not carried:
        b.problem("The stock has no such plate.", "Choose another plate in the shop standard.")
        return
    _cups(
        b,
        hung.pieces,
        hinge,
        heights,
        hung.edge_x + (1.0 if left else -1.0) * made.cup_from_edge,
        hung.plane,
        left=left,
    )
    by = "" if made.hinges == "auto" else ", number set by hand"
    slant = f", {hung.angle:.0f}° to its gable" if abs(hung.angle - 90.0) > 1.0 else ""
    why = f"{count} hinges: {what}{by}{slant}"
    b.item(hinge.code, count, why)
    if carried:
        return
    if plate is None or hinge.on_frame:
        _on_frame(b, heights, hung.edge_x, left=left)
        return
    line = hung.plane.y + PLATE_LINE
    if packed > 0.5:
        _packed_plates(b, hung.pieces, hung.upright, plate, heights, packed, hung.gable_x, line, left=left)
    else:
        # The line of the plates follows the front: 37 behind its back, wherever the rows of holes stand.
        square = hung.plane.uy == 0.0 and b.spec.shape == "straight"
        _plates(hung.upright, plate, heights, line - hung.upright.frame.origin[1] if square else PLATE_LINE, left=left)
    b.item(plate.code, count, why)


PLATE_LINE = 37.0
"""mm from the back of a front to the line of its hinges' plates (common practice: cup hinges are made for it)."""


BEYOND = 1.5
"""mm that the middle of a cup lies beyond its upright's face at least (common practice: hinges cover 19 to 21)."""

FOLDED = 150.0
"""degrees that the leaf of a corner's folding door opens: it lies against the gable's far side (common practice)."""


def front_angle(plane: FacePlane, upright: Draft, *, left: bool) -> float:
    """Degrees inside the unit between a front and the upright that it hangs on."""
    along = (plane.ux, plane.uy) if left else (-plane.ux, -plane.uy)
    back = upright.frame.y
    return math.degrees(math.acos(max(-1.0, min(1.0, along[0] * back[0] + along[1] * back[1]))))


def hinge_for(b: Builder, angle: float, swing: float = 0.0, *, carried: bool = False) -> Fitting | None:
    """The standard's hinge where it fits, else the one of the stock that does; None, which is told, where none does.

    Parameters
    ----------
    angle : degrees between the front and its upright
    swing : degrees that it should open, where the stock has such a one
    carried : it hangs on a carrier inside the carcass: by cup hinges, never before a frame
    """
    made, stock = b.spec.made, b.stock
    own = stock.fitting(made.hinge)
    if own is None:
        b.problem("The stock has no such hinge.", "Choose another hinge in the shop standard.")
        return None
    over_frame = b.framed and made.overlay != "inset" and not carried

    def fits(h: Fitting) -> bool:
        return (
            abs(h.front_angle - angle) <= h.angle_play
            and h.on_frame == over_frame
            and not (h.is_butt and (over_frame or carried))
        )

    found = [h for h in (own, *stock.fittings_of("hinge")) if fits(h) and (h is own or not h.is_butt)]
    if not found:
        where = "lies over a face frame" if over_frame else f"stands at {angle:.0f}° to its upright"
        b.problem(f"The stock has no hinge for a front that {where}.", "Add such a hinge to the stock.")
        return None
    # The standard's own comes first among those that open far enough; where none does, the one that opens furthest.
    return min(found, key=lambda h: (max(0.0, swing - h.swing), h is not own, abs(h.front_angle - angle), h.code))


def plate_for(b: Builder) -> Fitting | None:
    """The standard's plate; where what it names is none, as where butt hinges ship, the first one of the stock."""
    own = b.stock.fitting(b.spec.made.plate)
    if own is not None and own.kind == "plate":
        return own
    return next(iter(b.stock.fittings_of("plate")), None)


def _to_be_packed(b: Builder, box: BayBox, hinge: Fitting, *, left: bool) -> float:
    """mm from an upright to the edge of the face frame before it, which the plate of a cup hinge has to stand at."""
    if not b.framed or hinge.is_butt or hinge.on_frame:
        return 0.0
    return box.through.x0 - box.clear.x0 if left else box.clear.x1 - box.through.x1


def _packed_plates(
    b: Builder,
    pieces: list[Draft],
    upright: Draft,
    plate: Fitting,
    heights: Sequence[float],
    thick: float,
    gable_x: float,
    line_y: float,
    *,
    left: bool,
) -> None:
    """A packer for each plate, which brings it to the edge of the frame. Lengths in mm."""
    door, front = pieces[0].name.rsplit(" ", 2)[0] if len(pieces) > 1 else pieces[0].name, -b.spec.depth
    for i, middle in enumerate(heights, 1):
        low = middle - PACKER / 2
        x = gable_x if left else gable_x - thick
        layers = packing(b, upright, f"{door} hinge packer {i}", x, thick, front, PLATE_PACKER, low, left=left)
        face = x + thick if left else x
        for hole in plate.holes:
            at = (face, line_y + hole.dx, middle + hole.dy)
            through_packing(layers, upright, at, hole, "hinge plate", left=left)


PLATE_PACKER = 80.0
"""mm; how far a plate's packer reaches behind the frame."""


def _on_frame(b: Builder, heights: Sequence[float], edge: float, *, left: bool) -> None:
    """Pilot holes of the bases of frame hinges in the edge of the member that the front lies over. `edge`: x of the
    front's hinged edge, mm."""
    made = b.spec.made
    members = [d for d in b.drafts if d.role == "face frame" and d.frame.x == Z]
    y = -b.spec.depth - made.face_thickness / 2
    for middle in heights:
        places = ((m, m.frame.origin[0] + (m.width if left else 0.0)) for m in members)
        near = min(
            ((m, x) for m, x in places if (x - edge if left else edge - x) > 0.0 and _high(m, middle)),
            key=lambda row: abs(row[1] - edge),
            default=None,
        )
        if near is None:
            b.problem("A door over a face frame has no stile or mullion to hang on.", "Put a divider between the bays.")
            return
        member, x = near
        for dz in (-FRAME_HOLES, FRAME_HOLES):
            member.bore((x, y, middle + dz), FRAME_PILOT, FRAME_DEEP, "frame hinge")


def _high(member: Draft, z: float) -> bool:
    low = member.frame.origin[2]
    return low + FRAME_HOLES < z < low + member.length - FRAME_HOLES


FRAME_HOLES, FRAME_PILOT, FRAME_DEEP = 16.0, 3.0, 14.0
"""mm from a frame hinge's middle to its screws, and their pilots' diameter and depth (common practice)."""


def _cups(
    b: Builder, pieces: list[Draft], hinge: Fitting, heights: Sequence[float], x: float, plane: FacePlane, *, left: bool
) -> None:
    """The holes of hinges in a front, in whichever of its pieces each falls. `heights`, `x`: mm."""
    side = 1.0 if left else -1.0
    for middle in heights:
        for hole in hinge.holes:
            point = plane.point(x + side * hole.dx, 0.0, middle + hole.dy)
            target = next((p for p in pieces if p.holds(point)), pieces[0])
            target.bore(point, hole.diameter, hole.depth, "hinge")


def _plates(upright: Draft, plate: Fitting, heights: Sequence[float], from_front: float, *, left: bool) -> None:
    """The holes of plates in the upright that the front hangs on. `heights`, `from_front`: mm."""
    for middle in heights:
        for hole in plate.holes:
            place = inner_point(upright, from_front + hole.dx, middle + hole.dy, left=left)
            upright.bore(place, hole.diameter, hole.depth, "hinge plate")


PLATE_HALF = 22.0
"""mm above and below a hinge's middle that its plate and arm take (common practice: holes 32 apart, 6 mm round)."""


def _behind(b: Builder, upright: str, *, packed: bool) -> tuple[tuple[float, float], ...]:
    """Stretches of an upright's height where a hinge would meet a shelf or the packer of an inner drawer.

    Parameters
    ----------
    packed : whether its plates stand on packers
    """
    made = b.spec.made
    half = PACKER / 2 if packed else PLATE_HALF
    found = _drilled(b.part(upright))
    if b.bays is None:
        return tuple(found)
    found += [
        (r.z0 - half, r.z1 + half)
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
                    found.append((z - half, z + shelf.thickness + half))
        if box.bay.front is not None and box.bay.front.kind in INSIDE and upright in (box.left, box.right):
            high = box.through.height - made.drawer_clear_above - made.drawer_clear_below
            middle = box.through.z0 + made.drawer_clear_below + high / 2
            found.append((middle - PACKER / 2 - half, middle + PACKER / 2 + half))
    return tuple(found)


def _drilled(upright: Draft) -> list[tuple[float, float]]:
    """Stretches of an upright's height where a plate's hole would meet one that carries something already."""
    half = PLATE_HOLES + HOLE_APART
    heights = {
        round(upright.place(op.face, op.x, op.y)[2], 2)
        for op in upright.operations
        if isinstance(op, Bore) and op.face in ("A", "B") and op.use in CARRIES
    }
    return [(z - half, z + half) for z in sorted(heights)]


CARRIES = ("shelf", "rail", "rack", "basket", "tray", "shoes")
"""Uses of holes of the rows in which something stands or hangs."""

PLATE_HOLES, HOLE_APART = 16.0, 4.0
"""mm from a plate's middle to its holes, and what they keep from the middle of another hole (32 mm system)."""


def _butts(
    b: Builder,
    pieces: list[Draft],
    heights: tuple[float, ...],
    edge: float,
    plane: FacePlane,
    upright_name: str,
    gable_x: float,
    hinge: Fitting,
) -> None:
    """Pilot holes of butt hinges in the door's edge and in the edge of the frame or the face of the upright beside it.

    Parameters
    ----------
    edge : x of the door's hinged edge on its face, mm
    """
    made = b.spec.made
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
                    # Between two doors pilots come from both edges of a mullion.
                    member.bore(place, hole.diameter, min(hole.depth, member.width / 2 - WEB), "butt hinge")
                    break
            else:
                if upright_name and not members:
                    place = (gable_x, plane.y - made.front_thickness / 2, z)
                    b.part(upright_name).bore(place, hole.diameter, min(hole.depth, 13.0), "butt hinge")


def inner_point(upright: Draft, from_front: float, z: float, *, left: bool) -> Vec:
    """A point on the face of an upright that looks at the bay on its right (left: the upright stands left of it),
    so far behind its front edge and so high, in the unit's frame. `from_front`, `z`: mm."""
    # Face A of a gable looks into the unit; a divider stands like a right gable, so a bay to its right sees face B.
    into = upright.thickness if upright.name in (GABLE_LEFT, GABLE_RIGHT, "leg gable") or not left else 0.0
    point = upright.frame.at(0.0, from_front, into)
    return (point[0], point[1], z)
