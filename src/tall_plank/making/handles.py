"""Handles on fronts: where they sit, and their holes."""

from __future__ import annotations

from tall_plank.job.bays import HINGED
from tall_plank.job.choices import Side
from tall_plank.making.builder import Builder
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.parts import Draft
from tall_plank.stock import Fitting


def make_handle(
    b: Builder,
    pieces: list[Draft],
    kind: str,
    hand: Side,
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
    opens on flaps, drops, pull-outs and appliance fronts; none on fixed fronts. Base doors are pulled from
    above, hung ones from below, tall ones at the middle. `x`, `z`, `width`, `height`, `from_edge`, `from_end`:
    mm."""
    if pull == "none":
        return None
    handle = b.stock.fitting(pull)
    if handle is None:
        b.problem("The stock has no such handle.", "Choose another handle.")
        return None
    upright = kind in HINGED
    along = (0.0, 1.0) if upright else (1.0, 0.0)
    if height < handle.length + from_end if upright else width < handle.length + 20:
        b.problem(f"The handle is {handle.length:g} mm long; its front has no room for it.", "Choose a shorter handle.")
        return None
    half = handle.centers / 2
    if upright:
        hx = x + width - from_edge if hand == "left" else x + from_edge
        low, high = z + from_end + half, z + height - from_end - half
        hz = {"base": high, "hung": low}.get(b.spec.level, min(max(TALL_HANDLE, low), high))
    else:
        hx, top = x + width / 2, z + height - from_end
        hz = {"drawer": top if moved else z + height / 2, "flap": z + from_end}.get(kind, top)
    shift = _clear_of_frame(pieces, handle, plane, (hx, hz), along) if any(p.role == FRAME for p in pieces) else 0.0
    if shift is None:
        b.problem(
            "The handle's screws find no whole wood: its front's panel, grooves and joints are in their way.",
            "Choose a shorter or a longer handle, or another style for the front.",
        )
        return None
    hx, hz = hx + along[1] * shift, hz + along[0] * shift
    b.force(f"handle of {pieces[0].name.rsplit(' ', 2)[0]} across its front", 0.0, abs(shift), "clear of a groove")
    if not _drilled(b, pieces, handle, plane, (hx, hz), along):
        return None
    b.item(handle.code, 1, f"one handle for a {kind}")
    reach = handle.length / 2
    return (hx - along[0] * reach, hz - along[1] * reach, hx + along[0] * reach, hz + along[1] * reach)


def _drilled(
    b: Builder,
    pieces: list[Draft],
    handle: Fitting,
    plane: FacePlane,
    middle: tuple[float, float],
    along: tuple[float, float],
) -> bool:
    """Drill a front for its handle; whether it can be, which is told otherwise. `middle`: on the face, mm."""
    for hole in handle.holes:
        at = plane.point(middle[0] + along[0] * hole.dx, 0.0, middle[1] + along[1] * hole.dx)
        piece = next((p for p in pieces if p.holds(at)), None)
        if piece is None and not pieces[0].bend:
            b.problem("The handle would lie off its front.", NEARER)
            return False
        if piece is not None and piece.role in NO_HOLD:
            b.problem(f"The handle would sit on the {piece.role} of its front.", NEARER)
            return False
        if piece is not None:
            # Each piece is drilled on its own outer face.
            u, v, _ = piece.frame.into(at)
            piece.bore(piece.frame.at(u, v, 0.0), hole.diameter, hole.depth, "handle")
    return True


FRAME = "front frame"

NEARER = "Bring it nearer to the edge."

MOST_MOVED = 120.0
"""mm that a handle moves by itself to keep clear of a groove."""


def _clear_of_frame(
    pieces: list[Draft], handle: Fitting, plane: FacePlane, middle: tuple[float, float], along: tuple[float, float]
) -> float | None:
    """mm across itself that a handle moves so that all its holes find whole wood: not the groove behind a frame's edge,
    not the joint between frame and panel. None where no place is near."""

    def sits(shift: float) -> bool:
        for hole in handle.holes:
            x = middle[0] + along[0] * hole.dx + along[1] * shift
            z = middle[1] + along[1] * hole.dx + along[0] * shift
            point = plane.point(x, 0.0, z)
            piece = next((p for p in pieces if p.holds(point)), None)
            need = hole.diameter / 2 + LEAST_BESIDE
            if piece is None:
                return False
            if piece.role in NO_HOLD:
                return True  # told by what it is
            u, v, _ = piece.frame.into(point)
            near, far, low, high = piece.whole()
            if not (near + need <= u <= far - need and low + need <= v <= high - need):
                return False
            if piece.role != FRAME:
                around = ((need, 0.0), (-need, 0.0), (0.0, need), (0.0, -need))
                beside = [plane.point(x + dx, 0.0, z + dz) for dx, dz in around]
                if any(p.role == FRAME and p.holds(at) for p in pieces for at in beside):
                    return False
        return True

    steps = int(MOST_MOVED / 0.5)
    return next((s * 0.5 for k in range(steps + 1) for s in ((k, -k) if k else (0,)) if sits(s * 0.5)), None)


LEAST_BESIDE = 1.0
"""mm of wood between a handle's hole and a groove or the edge of its piece."""


NO_HOLD = ("glass", "louver", "front bar")
"""Roles of pieces that no handle is screwed to."""


TALL_HANDLE = 950.0
"""mm above a tall unit's underside at which its doors are pulled (common practice: about the worktop's height)."""
