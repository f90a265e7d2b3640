"""Hinges: how many by height and weight, where they sit, and what is drilled for them (common practice)."""

from __future__ import annotations

from collections.abc import Sequence

from tall_plank.job import Construction
from tall_plank.job.bays import INSIDE
from tall_plank.job.choices import Side
from tall_plank.making.bayset import BayBox
from tall_plank.making.builder import Builder, FacePlane
from tall_plank.making.parts import Draft
from tall_plank.making.pinrows import on_grid_middle
from tall_plank.making.shell import GABLE_LEFT, GABLE_RIGHT
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
) -> tuple[float, ...]:
    """Heights of hinges on a door from low to high, on the gable's grid: the end ones near their distance from
    the door's ends, the others evenly between; each moves along the grid where a board or drawer behind the door is in
    its way.

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
        found.append(next(free, at))
    return tuple(found)


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
) -> None:
    """Cups in the door and plates on the gable, at the same heights, the plates' holes on the system row. `x`,
    `z`, `width`, `height`: mm. `weight`: kg."""
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
    if not upright_name or (not at_side and upright_name in (GABLE_LEFT, GABLE_RIGHT)):
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
    cup_x = x + made.cup_from_edge if left else x + width - made.cup_from_edge
    _cups(b, pieces, hinge, heights, cup_x, plane, left=left)
    if plate is not None:
        _plates(b, b.part(upright_name), plate, heights, left=left)
    by = "" if made.hinges == "auto" else ", number set by hand"
    why = f"{count} hinges: door {height:g} mm high, {weight:.1f} kg{by}"
    b.item(hinge.code, count, why)
    if plate is not None:
        b.item(plate.code, count, why)


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


def _plates(b: Builder, upright: Draft, plate: Fitting, heights: Sequence[float], *, left: bool) -> None:
    """The holes of plates in the upright that the front hangs on, on the system row. `heights`: mm."""
    for middle in heights:
        for hole in plate.holes:
            place = inner_point(upright, b.spec.made.row_inset + b.recess + hole.dx, middle + hole.dy, left=left)
            upright.bore(place, hole.diameter, hole.depth, "hinge plate")


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
    so far behind its front edge and so high, in the unit's frame. `from_front`, `z`: mm."""
    # Face A of a gable looks into the unit; a divider stands like a right gable, so a bay to its right sees face B.
    into = upright.thickness if upright.name in (GABLE_LEFT, GABLE_RIGHT, "leg gable") or not left else 0.0
    point = upright.frame.at(0.0, from_front, into)
    return (point[0], point[1], z)
