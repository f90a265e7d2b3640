"""Worktops over runs and islands: their outlines. Round corners: topcorners.py; cut-outs and joints in length:
topcuts.py. In the line's plan: x along the line, out from it into the room, mm."""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Basis, Kind, Top
from tall_plank.job.choices import LEFT, RIGHT
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.scheme import Role
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point, Points
from tall_plank.measure.paths import CHORD, arc_chords
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.topcorners import into_corner
from tall_plank.setout.topcuts import cutouts_of, in_lengths
from tall_plank.setout.trims import at_line_end, carries_top, neighbour_at, stretches
from tall_plank.setout.wall import Wall
from tall_plank.setout.worktop import Worktop, faces_out, joint_bolts, overhang, top_thickness


def run_tops(basis: Basis, run: RunLayout, runs: Sequence[RunLayout]) -> tuple[Worktop, ...]:
    """The pieces of worktop over one run along a wall."""
    if not carries_top(basis, run):
        return ()
    found: list[Worktop] = []
    for group in stretches(basis, run):
        found += _stretch(basis, run, group, runs)
    return tuple(found)


def _stretch(basis: Basis, run: RunLayout, group: tuple[Placed, ...], runs: Sequence[RunLayout]) -> list[Worktop]:
    top, wall = run.run.top, run.wall
    first, last = group[0], group[-1]
    depth = faces_out(basis, group) + overhang(basis, top, "front", first)
    rear = -overhang(basis, top, "back", first)
    x0, x1 = first.x, last.right
    thickness = top_thickness(basis, top)
    joints = ["", ""]
    # An open end gets its overhang; one at a wall or against a tall unit does not, nor past the wall's end.
    open_left = not at_line_end(wall, x0) and neighbour_at(run, x0, "left") is None
    open_right = not at_line_end(wall, x1) and neighbour_at(run, x1, "right") is None
    # A waterfall leg stands beside the units, with a filler between so that drawers clear it.
    leg = thickness + construction_of(basis, basis.unit(first.unit)).waterfall_filler
    left = leg if top.waterfall_left else overhang(basis, top, "left", first)
    right = leg if top.waterfall_right else overhang(basis, top, "right", last)
    left = min(left, x0) if open_left else 0.0
    right = min(right, wall.length - x1) if open_right else 0.0
    points: Points = ((x0 - left, rear), (x1 + right, rear), (x1 + right, depth), (x0 - left, depth))
    extra: list[Points] = []
    if first is run.cells[0]:
        points, joints[0], more = into_corner(basis, run, runs, points, "left", depth, rear)
        open_left = open_left and not joints[0] and not more
        extra += more
    if last is run.cells[-1]:
        points, joints[1], more = into_corner(basis, run, runs, points, "right", depth, rear)
        open_right = open_right and not joints[1] and not more
        extra += more
    points = _within_walls(points, wall)
    for p in group:
        points = _shaped(basis, p, points, overhang(basis, top, "front", first), first, last)
    dropped: list[str] = []
    if top.outline and group == next(iter(stretches(basis, run))):
        points, note = own_outline(top, points)
        dropped += note
    whole = _worktop(basis, run, group, points, thickness, (open_left, open_right), (joints[0], joints[1]))
    if not whole.points:
        return []
    cuts, lost = cutouts_of(basis, top, group, whole)
    # A leg stands where its end is open.
    legs = ((LEFT, top.waterfall_left and whole.open_left), (RIGHT, top.waterfall_right and whole.open_right))
    whole = msgspec.structs.replace(
        whole, cutouts=cuts, dropped=(*dropped, *lost), legs=tuple(side for side, stands in legs if stands)
    )
    whole = msgspec.structs.replace(whole, profiles=edge_profiles(top, whole, open_back=False))
    pieces = in_lengths(basis, whole, top, group)
    for more_points in extra:
        piece = _worktop(basis, run, group, more_points, thickness, (False, False), ("butt", ""))
        pieces.append(msgspec.structs.replace(piece, bolts=joint_bolts(depth - rear)))
    return pieces


def edge_profiles(top: Top, whole: Worktop, *, open_back: bool) -> tuple[tuple[str, str], ...]:
    """The profiles of edges that are free; one at a wall or a joint is not worked."""
    free = {
        "front": True,
        "left": whole.open_left and "left" not in whole.legs,
        "right": whole.open_right and "right" not in whole.legs,
        "back": open_back,
    }
    return tuple((e.edge, e.profile) for e in top.edges if e.profile and free[e.edge])


def _worktop(
    basis: Basis,
    run: RunLayout,
    group: Sequence[Placed],
    points: Points,
    thickness: float,
    opened: tuple[bool, bool],
    joints: tuple[str, str],
) -> Worktop:
    points = ol.cleaned(points)
    x0, rear, x1, depth = ol.bounds(points) if points else (0.0, 0.0, 0.0, 0.0)
    return Worktop(
        room=group[0].room,
        wall_id=run.wall.id,
        run=run.run.id,
        source=Kind.RUN.of(run.run.id),
        cell=group[0].cell,
        x=x0,
        length=x1 - x0,
        depth=depth,
        bottom=max(p.top for p in group),
        thickness=thickness,
        finish=finish_of(basis, basis.unit(group[0].unit), Role.WORKTOP),
        open_left=opened[0],
        open_right=opened[1],
        rear=rear,
        points=points,
        joints=joints,
        bolts=joint_bolts(depth - rear) if joints[0] else 0,
    )


def _within_walls(points: Points, wall: Wall) -> Points:
    """The outline without what would stand in the walls that meet this one in a sharp corner."""
    for angle, at_right in ((wall.before, False), (wall.after, True)):
        if angle >= 90.0 - 1e-6:
            continue
        turn = math.radians(angle)
        if at_right:
            a, b = (wall.length, 0.0), (wall.length - math.cos(turn), math.sin(turn))
        else:
            a, b = (math.cos(turn), math.sin(turn)), (0.0, 0.0)
        points = ol.cut_away(points, a, b)
    return points


def _shaped(basis: Basis, p: Placed, points: Points, over: float, first: Placed, last: Placed) -> Points:
    """The outline cut along the slanted front of an end unit."""
    shape = basis.template(p.template).shape
    made = construction_of(basis, basis.unit(p.unit))
    by = over + made.reach
    if shape == "angled right" and p is last:
        a, b = (p.x, p.depth), (p.right, slant_depth(p.width, p.depth))
    elif shape == "angled left" and p is first:
        a, b = (p.x, slant_depth(p.width, p.depth)), (p.right, p.depth)
    else:
        return points
    way = (b[0] - a[0], b[1] - a[1])
    size = math.hypot(*way)
    n = (-way[1] / size * by, way[0] / size * by)
    return ol.cut_away(points, (b[0] + n[0], b[1] + n[1]), (a[0] + n[0], a[1] + n[1]))


def slant_depth(width: float, depth: float) -> float:
    """Depth of an angled end unit at its shallow side: it loses as much as it is wide, down to a third, mm."""
    return max(depth / 3, depth - width)


def own_outline(top: Top, points: Points) -> tuple[Points, list[str]]:
    """The outline typed for this worktop, arcs as short straight pieces; one that crosses itself is left aside."""
    own: list[Point] = []
    n = len(top.outline)
    for i, corner in enumerate(top.outline):
        p, q = (corner.x.mm, corner.out.mm), (top.outline[(i + 1) % n].x.mm, top.outline[(i + 1) % n].out.mm)
        own.append(p)
        own += arc_points(p, q, corner.bulge)
    if len(own) < 3 or ol.crossing(own) is not None:
        return points, ["the worktop's own outline crosses itself"]
    return (tuple(own) if ol.area(own) > 0 else tuple(reversed(own))), []


def arc_points(p: Point, q: Point, bulge: float, within: float = CHORD) -> list[Point]:
    """Points of an arc between p and q without its ends, near enough to one another that chords keep to it.

    Parameters
    ----------
    bulge : tangent of a quarter of the arc's angle, positive where it lies to the right of the way p to q
    within : mm that chords leave the arc by at the most
    """
    if abs(bulge) < 1e-6:
        return []
    # To the right of the way is counter-clockwise.
    return arc_chords(p, q, bulge, within)
