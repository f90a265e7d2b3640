"""Handles on fronts: where they sit, and their holes."""

from __future__ import annotations

from tall_plank.job.bays import HINGED
from tall_plank.job.choices import Side
from tall_plank.making.builder import Builder, FacePlane
from tall_plank.making.parts import Draft


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
    half = handle.centers / 2
    if kind in HINGED:
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
            piece.bore(piece.frame.at(u, v, 0.0), hole.diameter, hole.depth, "handle")
    b.item(handle.code, 1, f"one handle for a {kind}")
    reach = handle.length / 2
    return (hx - along[0] * reach, hz - along[1] * reach, hx + along[0] * reach, hz + along[1] * reach)


NO_HOLD = ("glass", "louvre", "front bar")
"""Roles of pieces that no handle is screwed to."""


TALL_HANDLE = 950.0
"""mm above a tall unit's underside at which its doors are pulled (common practice: about the worktop's height)."""
