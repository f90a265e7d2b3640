"""Fronts opened: doors turned about their hinges, drawers and pull-outs pulled, flaps raised."""

from __future__ import annotations

import math

from tall_plank.job.bays import DRAWERS, HINGED
from tall_plank.making import FrontBox, MadeUnit, Part
from tall_plank.making.faceplane import FacePlane
from tall_plank.measure import Frame
from tall_plank.measure.frames import PartFrame

DOOR_ANGLE = 100.0
"""Degrees to which doors are shown open."""

PULLED = 0.7
"""Share of its depth by which a drawer is shown pulled."""

POCKET_LEFT = 60.0
"""mm of a pocket door that stay out of its pocket."""

Moves = dict[str, PartFrame]


def front_of(unit: MadeUnit, part: Part) -> FrontBox | None:
    """The front that a part belongs to."""
    return next((front for front in unit.fronts if front.owns(part.name)), None)


def drawer_of(part: Part) -> str:
    """Name of the drawer box that a part belongs to, such as `drawer 2`; empty for other parts."""
    return " ".join(part.name.split()[:2]) if part.role in ("drawer", "drawer bottom") else ""


def opened(unit: MadeUnit) -> Moves:
    """How fronts and drawer boxes move when all is opened: their names and the frame that carries them, in the
    unit."""
    moves: Moves = {}
    drawers = [
        b.path for b in (unit.set.boxes if unit.set else ()) if b.bay.front is not None and b.bay.front.kind in DRAWERS
    ]
    behind = {p for p in drawers if not any(f.path == p for f in unit.fronts)}
    for i, path in enumerate(drawers, 1):
        # Inner drawers come out less, so that the doors before them stay in sight.
        moves[f"drawer {i}"] = _slide(unit, PULLED * (0.6 if path in behind else 1.0))
    for front in unit.fronts:
        move = _move(unit, front)
        if move is not None:
            moves[front.name] = move
    return moves


def _slide(unit: MadeUnit, share: float) -> PartFrame:
    return Frame((0.0, -unit.spec.depth * share, 0.0))


def _move(unit: MadeUnit, f: FrontBox) -> PartFrame | None:
    plane = f.face or FacePlane(0.0, -unit.spec.depth - unit.spec.made.front_out)
    t = unit.spec.made.front_thickness
    if f.kind in ("drawer", "pullout"):
        out = unit.spec.depth * PULLED
        return Frame((plane.uy * out, -plane.ux * out, 0.0))
    if f.kind in HINGED:
        left = f.hand != "right"
        edge = f.x if left else f.x + f.width
        angle = DOOR_ANGLE if f.kind == "door" else 90.0
        turn = turned_upright(plane.point(edge, t, 0.0), -angle if left else angle)
        if f.kind == "pocket":
            # Open it stands square, then slides back beside its gable.
            into = f.width - POCKET_LEFT
            return Frame((-plane.uy * into, plane.ux * into, 0.0)).then(turn)
        return turn
    if f.kind in ("flap", "drop"):
        z = f.z + f.height if f.kind == "flap" else f.z
        return _turned_level(plane.y - plane.ux * t, z, 95.0 if f.kind == "flap" else -90.0)
    return None


def turned_upright(about: tuple[float, float, float], degrees: float) -> PartFrame:
    """A turn about an upright axis, counter-clockwise seen from above. `about`: mm. `degrees`: degrees."""
    a = math.radians(degrees)
    c, s = math.cos(a), math.sin(a)
    x, y, _ = about
    return Frame((x - c * x + s * y, y - s * x - c * y, 0.0), (c, s, 0.0), (-s, c, 0.0))


def _turned_level(y: float, z: float, degrees: float) -> PartFrame:
    """A turn about a level axis along x at (y, z); what hangs below it comes forward and up."""
    a = math.radians(-degrees)
    c, s = math.cos(a), math.sin(a)
    return Frame((0.0, y - c * y + s * z, z - s * y - c * z), (1.0, 0.0, 0.0), (0.0, c, s))
