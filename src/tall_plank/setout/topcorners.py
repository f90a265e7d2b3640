"""Worktops round corners: which one goes through, and how the other is cut: butted, mitred, with a mason's mitre."""

from __future__ import annotations

import math
from collections.abc import Sequence

from tall_plank.job import Basis
from tall_plank.job.choices import Side
from tall_plank.job.inherit import construction_of
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point, Points
from tall_plank.setout.corners import CornerEnd
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.trims import carries_top, stretches
from tall_plank.setout.worktop import faces_out, overhang

MASONS = 30.0
"""mm that a mason's mitre is cut in from the front edges: as deep as the shaped edge is (common practice: 10 to 40)."""


def into_corner(
    basis: Basis, run: RunLayout, runs: Sequence[RunLayout], points: Points, side: Side, depth: float, rear: float
) -> tuple[Points, str, list[Points]]:
    """The outline led into the corner at one end, the kind of joint there, and further pieces. `points`, `depth`,
    `rear`: mm.

    The run that takes the corner goes through to the wall; the other one butts against its front edge. With a mitre
    both are cut along the line from the wall's corner to where their front edges meet. With a mason's mitre only the
    front edges are: the one that goes through is cut back a little over the joint, and the other one reaches in."""
    end = run.start_corner if side == "left" else run.end_corner
    length = run.wall.length
    outer = run.cells[0] if side == "left" else run.cells[-1]
    fills = outer.corner == side and outer.leg > 0
    if end is None and not fills:
        return points, "", []
    mate = next((r for r in runs if end is not None and r.run.id == end.other), None)
    has_mate = mate is not None and carries_top(basis, mate)

    def mirrored(shape: Points) -> Points:
        return shape if side == "right" else tuple((length - x, out) for x, out in reversed(shape))

    # Worked out for the right end; the left one is its mirror image.
    near = min(p[0] for p in mirrored(points))
    if fills and outer.leg > depth - 0.5:
        if basis.template(outer.template).corner == "diagonal":
            return mirrored(_over_diagonal(basis, run, outer, (near, rear), depth)), "", []
        if not has_mate:
            # The other leg of the corner unit has a top of its own.
            plain: Points = ((near, rear), (length, rear), (length, depth), (near, depth))
            leg = ((length - depth, depth), (length, depth), (length, outer.leg), (length - depth, outer.leg))
            return mirrored(plain), "", [mirrored(leg)]
    assert end is not None
    if mate is None or not has_mate or not any(stretches(basis, mate)):
        return points, "", []
    far: Side = "left" if side == "right" else "right"
    mate_depth = _mate_depth(basis, mate, far)
    if mate_depth is None:
        return points, "", []
    shape, joint = _against(
        end, run.run.top.joint if end.holds else mate.run.top.joint, (near, rear), depth, length, outer.leg, mate_depth,
        _diagonal_leg(basis, mate, far),
    )  # fmt: skip
    return mirrored(shape), joint, []


def _over_diagonal(basis: Basis, run: RunLayout, outer: Placed, start: Point, depth: float) -> Points:
    """The top of a diagonal corner unit at the right end: its slanted edge moved out by the overhang, between both
    front edges; along the next wall it reaches to where that edge meets the other top's. `start`: where the top begins
    at the wall; mm."""
    near, rear = start
    length = run.wall.length
    (px, _), (_, q) = _slant(basis, run, outer, depth)
    reach = max(outer.leg, q)
    shape: Points = (
        (near, rear), (length, rear), (length, reach), (length - depth, reach), (length - depth, max(q, depth)),
        (min(px, length - depth), depth), (near, depth),
    )  # fmt: skip
    return ol.cleaned(shape)


def _slant(basis: Basis, run: RunLayout, outer: Placed, depth: float) -> tuple[Point, Point]:
    """Where the front edge of a diagonal corner unit's top, at the right end, meets that of its own run and that of the
    next wall's, mm."""
    length, leg, body = run.wall.length, outer.leg, outer.depth
    a, b = (length - leg, body), (length - body, leg)
    way = (b[0] - a[0], b[1] - a[1])
    size = math.hypot(*way)
    by = overhang(basis, run.run.top, "front", outer) + construction_of(basis, basis.unit(outer.unit)).reach
    n = (-way[1] / size * by, way[0] / size * by)
    n = n if n[1] > 0 else (-n[0], -n[1])
    p = ol.meet((a[0] + n[0], a[1] + n[1]), way, (0.0, depth), (1.0, 0.0))
    q = ol.meet((a[0] + n[0], a[1] + n[1]), way, (length - depth, 0.0), (0.0, 1.0))
    assert p is not None and q is not None
    return p, q


def _against(
    end: CornerEnd,
    joint: str,
    start: Point,
    depth: float,
    length: float,
    own_leg: float,
    mate_depth: float,
    mate_leg: float,
) -> tuple[Points, str]:
    """The outline at the right end where the other run has a top too, and the kind of joint there.

    Parameters
    ----------
    start : where the top begins at the wall, mm
    depth, mate_depth : of both tops, mm
    length : of the wall, mm
    own_leg, mate_leg : how far a corner unit of this run, a diagonal one of the other, reaches; 0: none
    """
    near, rear = start
    turn = math.radians(end.angle)
    # Reach over the corner: far enough for any angle, and cut back below.
    reach = depth + own_leg + (depth / abs(math.tan(turn)) if abs(end.angle - 90) > 0.01 else 0.0)
    # The other wall from the corner: away from it along (-cos a, sin a) in this line's plan (x, out).
    along = (-math.cos(turn), math.sin(turn))
    inward = (-math.sin(turn), -math.cos(turn))
    corner = (length, 0.0)
    shape: Points = ((near, rear), (length + reach, rear), (length + reach, depth), (near, depth))
    shape = ol.cut_away(shape, corner, (corner[0] + along[0], corner[1] + along[1]))
    front = (corner[0] + inward[0] * mate_depth, corner[1] + inward[1] * mate_depth)
    # A diagonal corner unit's worktop reaches along this wall as far as its leg, whatever the joint elsewhere.
    if mate_leg and not end.holds:
        return ol.cut_away(shape, (length - mate_leg, 0.0), (length - mate_leg, 1.0)), "butt"
    if joint == "mitre":
        inner = ol.meet((0.0, depth), (1.0, 0.0), front, along)
        assert inner is not None
        return ol.cut_away(shape, corner, inner), "" if end.holds else "mitre"
    if joint == "masons mitre":
        shape = _masons(shape, (near, rear), depth, front, along, corner, through=end.holds)
        return ol.cleaned(shape), "" if end.holds else joint
    if end.holds:
        return shape, ""
    return ol.cut_away(shape, front, (front[0] + along[0], front[1] + along[1])), joint


def _masons(
    shape: Points, start: Point, depth: float, front: Point, along: Point, corner: Point, *, through: bool
) -> Points:
    """An outline at its right end cut for a mason's mitre.

    Parameters
    ----------
    shape : the outline, led through to the other wall, mm
    start : its left rear corner
    front, along : a point on the other top's front edge, and that edge's direction away from the corner
    corner : where the walls meet
    through : whether this is the top that goes through to the other wall
    """
    inner = ol.meet((0.0, depth), (1.0, 0.0), front, along)
    assert inner is not None
    # Into both tops, halfway between their front edges.
    bx, by = 1.0 - along[0], -along[1]
    size = math.hypot(bx, by)
    turn = (bx / size, by / size)
    deep = (inner[0] - turn[0] * MASONS / turn[1], depth - MASONS)
    if not through:
        by_wall = (front[0] + (deep[0] - inner[0]), front[1] + (deep[1] - inner[1]))
        shape = ol.cut_away(shape, by_wall, (by_wall[0] + along[0], by_wall[1] + along[1]))
        return ol.cut_away(shape, deep, inner)
    near, rear = start
    reach = max(x for x, _ in shape) + depth
    body: Points = ((near, rear), (reach, rear), (reach, deep[1]), (near, deep[1]))
    body = ol.cut_away(body, corner, (corner[0] + along[0], corner[1] + along[1]))
    kept = [p for p in body if p != (near, deep[1])]
    first = next(i for i, p in enumerate(kept) if p == (near, rear))
    return (*kept[first:], *kept[:first], deep, inner, (near, depth))


def _mate_depth(basis: Basis, mate: RunLayout, side: Side) -> float | None:
    """How far the worktop of the run round the corner stands out there, mm; None where it ends before."""
    groups = list(stretches(basis, mate))
    if not groups:
        return None
    group = groups[0] if side == "left" else groups[-1]
    outer = mate.cells[0] if side == "left" else mate.cells[-1]
    if outer not in group:
        return None
    return faces_out(basis, group) + overhang(basis, mate.run.top, "front", group[0])


def _diagonal_leg(basis: Basis, mate: RunLayout, side: Side) -> float:
    """How far the top of the other run's diagonal corner unit reaches along this wall, mm; 0 where it has none."""
    outer = mate.cells[0] if side == "left" else mate.cells[-1]
    depth = _mate_depth(basis, mate, side)
    if basis.template(outer.template).corner != "diagonal" or outer.corner != side or depth is None:
        return 0.0
    return max(outer.leg, _slant(basis, mate, outer, depth)[1][1])
