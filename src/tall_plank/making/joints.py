"""Joints between two boards: every kind with both halves' operations, at places that follow from the joint's length.

The end of one part meets the face of another along a line. Sizes are the shop standard's; the ways of joining are
common practice.
"""

from __future__ import annotations

import math

from tall_plank.job import Construction
from tall_plank.job.choices import CamFace
from tall_plank.making.builder import Builder
from tall_plank.making.dowels import REAR_CLEAR, dowel_places
from tall_plank.making.parts import Bore, Draft, Face, Lent
from tall_plank.measure.frames import Vec

WOOD_BETWEEN = 2.0
"""mm of wood that stay between holes from both faces of a board."""

BESIDE_CAM = 32.0
"""mm from a cam to the dowel that keeps the board from turning (common practice)."""

STAGGERS = (16.0, -16.0, 32.0, -32.0, 48.0, -48.0)
"""mm that a hole moves along its joint where one from the other face is in its way, nearest first."""


def tongue(b: Builder) -> float:
    """How far a board enters the face that it meets, mm: something only where it is grooved and glued."""
    made = b.spec.made
    return made.dado_depth - made.groove_bottom_play if made.joint == "groove" else 0.0


def slot_length(made: Construction) -> float:
    """mm along the joint that its slots take; 0 where it has round holes."""
    return {"biscuit": made.biscuit_length, "tenon": made.tenon_length}.get(made.joint, 0.0)


def places_of(length: float, rear: float, b: Builder) -> tuple[float, ...]:
    """Distances of fixings along a joint: by its length, or as many as were asked for, spread between the same
    ends. `length`, `rear`: mm."""
    made = b.spec.made
    half = slot_length(made) / 2
    # A slot reaches further than a dowel: it keeps its own length clear of the front and of what lies at the rear.
    clear = max(REAR_CLEAR, half + WOOD_BETWEEN)
    places = dowel_places(length, max(made.dowel_from_edge, half + WOOD_BETWEEN), made.dowel_spacing, rear, clear)
    if made.joint_count == "auto" or len(places) < 2:
        return places
    count = int(made.joint_count)
    return tuple(places[0] + (places[-1] - places[0]) * i / (count - 1) for i in range(count))


def join(b: Builder, face_part: Draft, end_part: Draft, start: Vec, end: Vec, rear: float = 0.0) -> None:
    """Join the end of one part to the face of another along the line from start to end (the unit's frame, mm).

    Parameters
    ----------
    rear : mm kept free at the line's end (a groove)
    """
    made = b.spec.made
    length = math.dist(start, end)
    if length < 1.0:
        return
    way: Vec = tuple((q - p) / length for p, q in zip(start, end, strict=True))  # type: ignore[assignment]
    if made.joint == "groove":
        wide = end_part.thickness + made.groove_width_play
        face_part.groove(start, end, wide, made.dado_depth, end_part.name)
        return
    places = places_of(length, rear, b)
    if made.joint == "cam":
        _cams(b, face_part, end_part, start, way, places)
        return
    for place in places:
        at = _free(b, face_part, start, way, place, length)
        match made.joint:
            case "screw":
                face_part.bore(at, made.screw_clear, 0.0, "carcass screw")
                end_part.bore(at, made.screw_pilot, made.screw_depth, "carcass screw")
                b.fix(made.screw, 1, "carcass screws")
            case "biscuit":
                _slot(
                    face_part,
                    end_part,
                    at,
                    way,
                    made.biscuit_length,
                    made.biscuit_thickness,
                    (made.biscuit_depth, made.biscuit_depth),
                    "biscuit",
                )
                b.fix(made.biscuit, 1, "biscuits")
            case "tenon":
                _slot(
                    face_part,
                    end_part,
                    at,
                    way,
                    made.tenon_length,
                    made.tenon_thickness,
                    (made.dowel_face_depth, b.tenon_end(made.dowel_face_depth)),
                    "loose tenon",
                )
                b.fix(made.tenon, 1, "loose tenons")
            case "pocket":
                _pocket(b, face_part, end_part, at)
            case _:
                _dowel(b, face_part, end_part, at)


def _dowel(b: Builder, face_part: Draft, end_part: Draft, at: Vec) -> None:
    made = b.spec.made
    face_part.bore(at, made.dowel_diameter, made.dowel_face_depth, "dowel")
    end_part.bore(at, made.dowel_diameter, b.dowel_end(made.dowel_face_depth), "dowel")
    b.fix(made.dowel, 1, f"dowel joints every {made.dowel_spacing:g} mm at most")


def _cams(b: Builder, face_part: Draft, end_part: Draft, start: Vec, way: Vec, places: tuple[float, ...]) -> None:
    """A cam at each end of the joint, a dowel beside it and dowels between."""
    made = b.spec.made
    cams = {places[0], places[-1]}
    dowels = [p for p in places if p not in cams]
    if places[-1] - places[0] >= 3 * BESIDE_CAM:
        dowels += [places[0] + BESIDE_CAM, places[-1] - BESIDE_CAM]
    for place in sorted(cams):
        at = _point(start, way, place)
        face_part.bore(at, made.cam_bolt, made.cam_bolt_depth, "cam dowel")
        end_part.bore(at, made.cam_bore, made.cam_from_edge, "cam dowel")
        _into(end_part, at, made.cam_from_edge, made.cam_diameter, made.cam_depth, "cam", b.spec.made.cam_face)
        b.fix(made.cam, 1, "a cam at each end of a joint")
        b.fix(made.cam_dowel, 1, "one for each cam")
    for place in sorted(dowels):
        _dowel(b, face_part, end_part, _point(start, way, place))


def _into(part: Draft, at: Vec, deep: float, diameter: float, depth: float, use: str, side: CamFace) -> None:
    """A hole in a face of a part, so far in from the end that the point lies on. Face A looks at the bay."""
    if isinstance(part, Lent):
        return
    face, u, _ = part.first_face(at)
    x, y = {
        "W1": (deep, u), "W2": (part.length - deep, u), "L1": (u, deep), "L2": (u, part.width - deep),
    }[face]  # fmt: skip
    on: Face = "A" if side == "in" else "B"
    part.operations.append(Bore(on, x, y, diameter, depth, use))


def _pocket(b: Builder, face_part: Draft, end_part: Draft, at: Vec) -> None:
    """A slanted hole from the hidden side to the end, and a small pilot in the face that the screw runs into."""
    made = b.spec.made
    face_part.bore(at, 3.0, min(10.0, face_part.thickness - WOOD_BETWEEN) or 10.0, "pocket screw")
    if not isinstance(end_part, Lent):
        face, u, _ = end_part.first_face(at)
        deep = made.pocket_from_edge
        x, y = {
            "W1": (deep, u), "W2": (end_part.length - deep, u), "L1": (u, deep), "L2": (u, end_part.width - deep),
        }[face]  # fmt: skip
        depth = end_part.thickness * 0.6
        end_part.operations.append(Bore("B", x, y, made.pocket_diameter, depth, "pocket screw", slant=15.0))
    b.fix(made.pocket_screw, 1, "pocket screws")


def _slot(
    face_part: Draft,
    end_part: Draft,
    at: Vec,
    way: Vec,
    length: float,
    thick: float,
    deep: tuple[float, float],
    use: str,
) -> None:
    """A slot of a length along the joint in both halves."""
    half = (length - thick) / 2
    a, c = _point(at, way, -half), _point(at, way, half)
    face_part.groove(a, c, thick, deep[0], use)
    end_part.groove(a, c, thick, deep[1], use)


def _point(start: Vec, way: Vec, at: float) -> Vec:
    return (start[0] + way[0] * at, start[1] + way[1] * at, start[2] + way[2] * at)


def _free(b: Builder, face_part: Draft, start: Vec, way: Vec, place: float, length: float) -> Vec:
    """A place on the joint whose hole in the face meets none from its other side, moved by rule where it must be."""
    made = b.spec.made
    diameter, depth = made.dowel_diameter, made.dowel_face_depth
    at = _point(start, way, place)
    if made.joint not in ("dowel", "tenon", "biscuit") or face_part.spare(at, diameter, depth) >= WOOD_BETWEEN:
        return at
    for shift in STAGGERS:
        if 12.0 <= place + shift <= length - 12.0:
            moved = _point(start, way, place + shift)
            if face_part.spare(moved, diameter, depth) >= WOOD_BETWEEN:
                return moved
    return at
