"""A face frame before a carcass: stiles, rails and mullions, dowelled to one another; fronts are set into it."""

from __future__ import annotations

from tall_plank.making.bayset import BaySet, Rect
from tall_plank.making.builder import Builder
from tall_plank.making.parts import Draft
from tall_plank.measure import PlankError, told
from tall_plank.measure.frames import Vec


def frame_zone(b: Builder) -> Rect:
    """What fronts may cover: the opening inside the frame's outer members less the gap, or the whole where they lie
    over it.

    Raises
    ------
    PlankError where the frame leaves no opening
    """
    spec, made = b.spec, b.spec.made
    if made.overlay != "inset":
        return Rect(made.gap_side, made.gap_bottom, spec.width - made.gap_side, spec.height - made.gap_top)
    x0, z0, gap = made.face_stile, made.face_rail, made.gap_inset
    zone = Rect(x0 + gap, z0 + gap, spec.width - x0 - gap, spec.height - z0 - gap)
    if zone.width < 40.0 or zone.height < 40.0:
        raise PlankError(
            f"A face frame leaves {told(max(0.0, zone.width))} x {told(max(0.0, zone.height))} mm of opening.",
            "face_stile",
            "Make the unit larger, or its stiles and rails narrower.",
        )
    return zone


def make_face_frame(b: Builder, bays: BaySet) -> None:
    """Draft the frame: two stiles over the whole height, rails between them, mullions between rails.

    Raises
    ------
    PlankError where the unit's front is not straight
    """
    spec, made = b.spec, b.spec.made
    w, h, st, rl = spec.width, spec.height, made.face_stile, made.face_rail
    left = _upright(b, "left stile", Rect(0.0, 0.0, st, h))
    right = _upright(b, "right stile", Rect(w - st, 0.0, w, h))
    rails = [
        ("bottom rail", Rect(st, 0.0, w - st, rl)),
        ("top rail", Rect(st, h - rl, w - st, h)),
    ]
    # Between bays the members end at the frame's own edges; where fronts lie over it they reach into what is covered.
    inner = Rect(st, rl, w - st, h - rl)
    count = {"rail": 0, "mullion": 0}
    uprights: list[tuple[Draft, Rect]] = [(left, Rect(0.0, 0.0, st, h)), (right, Rect(w - st, 0.0, w, h))]
    lying: list[tuple[Draft, Rect]] = []
    for name, r in rails:
        lying.append((_lying(b, name, r), r))
    for kind, r in bays.members:
        count[kind] += 1
        name = f"{'middle rail' if kind == 'rail' else kind} {count[kind]}"
        r = Rect(max(r.x0, inner.x0), max(r.z0, inner.z0), min(r.x1, inner.x1), min(r.z1, inner.z1))
        if kind == "rail":
            lying.append((_lying(b, name, r), r))
        else:
            uprights.append((_upright(b, name, r), r))
    _joints(b, uprights, lying)
    b.fixed()


def _upright(b: Builder, name: str, r: Rect) -> Draft:
    made = b.spec.made
    frame = _plane(b, r.x0, r.z0, upright=True)
    return _glued(b.add(f"face {name}", b.spec.front, made.face_thickness, r.height, r.width, frame, "face frame"))


def _lying(b: Builder, name: str, r: Rect) -> Draft:
    made = b.spec.made
    frame = _plane(b, r.x0, r.z1, upright=False)
    return _glued(b.add(f"face {name}", b.spec.front, made.face_thickness, r.width, r.height, frame, "face frame"))


def _glued(member: Draft) -> Draft:
    member.fixed = "the frame is glued to the carcass's front edges"
    return member


def _plane(b: Builder, x: float, z: float, *, upright: bool):  # type: ignore[no-untyped-def]
    from tall_plank.making.faceplane import FacePlane

    plane = FacePlane(0.0, -b.spec.depth)
    return plane.frame(x, b.spec.made.face_thickness, z, upright=upright)


def _joints(b: Builder, uprights: list[tuple[Draft, Rect]], lying: list[tuple[Draft, Rect]]) -> None:
    """Two dowels where the end of a member meets the edge of another."""
    y = -b.spec.depth - b.spec.made.face_thickness / 2
    for rail, r in lying:
        for x in (r.x0, r.x1):
            for stile, s in uprights:
                if min(abs(s.x0 - x), abs(s.x1 - x)) < 0.01 and s.z0 - 0.01 <= r.z0 and r.z1 <= s.z1 + 0.01:
                    _dowels(b, stile, rail, [(x, y, z) for z in _two(r.z0, r.z1)])
    for stile, s in uprights[2:]:
        for z in (s.z0, s.z1):
            for rail, r in lying:
                if min(abs(r.z0 - z), abs(r.z1 - z)) < 0.01 and r.x0 - 0.01 <= s.x0 and s.x1 <= r.x1 + 0.01:
                    _dowels(b, rail, stile, [(x, y, z) for x in _two(s.x0, s.x1)])


def _two(low: float, high: float) -> tuple[float, ...]:
    """Two places a quarter in from the ends, or one where there is little room."""
    size = high - low
    return (low + size / 4, high - size / 4) if size >= 32.0 else ((low + high) / 2,)


def _dowels(b: Builder, edge_part: Draft, end_part: Draft, places: list[Vec]) -> None:
    made = b.spec.made
    for at in places:
        edge_part.bore(at, made.dowel_diameter, made.dowel_face_depth, "dowel")
        end_part.bore(at, made.dowel_diameter, b.dowel_end(made.dowel_face_depth), "dowel")
        b.fix(made.dowel, 1, "2 dowels at each joint of the face frame")
