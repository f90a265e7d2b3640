"""Worktops: outlines over runs and islands, corner joints, joints in length, cut-outs. In the line's plan:
x along the line, out from it into the room, mm."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Island, Job, Top
from tall_plank.job.inherit import construction_of, finish_of
from tall_plank.job.run import EdgeName
from tall_plank.job.scheme import Role
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Point, Points
from tall_plank.setout.corners import front_depth
from tall_plank.setout.rooms import Wall
from tall_plank.setout.runs import Placed, RunLayout
from tall_plank.setout.trims import at_line_end, carries_top, neighbour_at, stretches

SINK_EDGE = 20.0
"""mm that a set-in sink rests on the worktop at each side: its cut-out is smaller by this (common practice)."""

SINK_FROM_FRONT = 60.0
"""mm of worktop kept in front of a sink's cut-out (common practice: 50 to 70)."""

SQUARING = 20.0
"""mm left at each end of a board for squaring it (common practice)."""

JOINT_CLEAR = 150.0
"""mm between a joint in length and the edge of a cut-out or a dishwasher (common practice: 100 to 300)."""

MASONS = 30.0
"""mm that a mason's mitre is cut in from the front edges: as deep as the shaped edge is (common practice: 10 to 40)."""

BOLT_PITCH = 250.0
"""mm of joint for each bolt, two at least (common practice: three in a 600 deep top)."""


class Cutout(msgspec.Struct, frozen=True, cache_hash=True):
    """A hole right through a worktop: from the worktop's left end and its rear edge, mm."""

    x: float
    back: float
    width: float
    depth: float
    cell: str
    appliance: str


class Worktop(msgspec.Struct, frozen=True, cache_hash=True):
    """One piece of a worktop.

    Attributes
    ----------
    wall : the wall or island's face whose line it lies along
    run : the run that it covers; for an island the first one
    source : `run:n2` or `island:i4`
    x, length : along the line, mm
    depth : how far its front edge stands out from the line, mm
    rear : where its rear edge lies, mm out from the line (negative behind it)
    bottom, thickness : mm
    points : its outline (x, out), counter-clockwise seen from below (x to the right, out downwards on a plan)
    open_left, open_right, open_back : whether these edges are free, and so banded
    joints : kinds of the joints at its left and right end: butt, mitre, masons mitre, or empty
    bolts : joint bolts at its right end and at corners it is the second piece of
    dropped : decisions that no longer fit it
    profiles : (edge, profile) of edges that are worked to a profile
    """

    room: str
    wall: str
    run: str
    source: str
    cell: str
    x: float
    length: float
    depth: float
    bottom: float
    thickness: float
    finish: str
    open_left: bool
    open_right: bool
    cutouts: tuple[Cutout, ...] = ()
    rear: float = 0.0
    points: Points = ()
    open_back: bool = False
    joints: tuple[str, str] = ("", "")
    bolts: int = 0
    dropped: tuple[str, ...] = ()
    profiles: tuple[tuple[str, str], ...] = ()

    @property
    def is_plain(self) -> bool:
        """Whether its outline is a rectangle."""
        return len(self.points) == 4 and abs(abs(ol.area(self.points)) - self.length * (self.depth - self.rear)) < 1.0


def overhang(job: Job, top: Top, name: EdgeName, cell: Placed) -> float:
    """How far a worktop reaches past its units at an edge, mm: own, or the standard's."""
    own = top.edge(name).overhang
    if own is not None:
        return own.mm
    made = construction_of(job, job.unit(cell.unit))
    return {"front": made.worktop_front, "back": made.worktop_back}.get(name, made.worktop_side)


def top_thickness(job: Job, top: Top) -> float:
    return top.thickness.mm if top.thickness is not None else job.value("worktop")


def _front(job: Job, cells: Sequence[Placed]) -> float:
    """How far the faces of the deepest unit stand out, mm."""
    return max(front_depth(job, job.unit(p.unit)) for p in cells)


def run_tops(job: Job, run: RunLayout, runs: Sequence[RunLayout]) -> tuple[Worktop, ...]:
    """The pieces of worktop over one run along a wall."""
    if not carries_top(job, run):
        return ()
    found: list[Worktop] = []
    for group in stretches(job, run):
        found += _stretch(job, run, group, runs)
    return tuple(found)


def _stretch(job: Job, run: RunLayout, group: tuple[Placed, ...], runs: Sequence[RunLayout]) -> list[Worktop]:
    top, wall = run.run.top, run.wall
    first, last = group[0], group[-1]
    depth = _front(job, group) + overhang(job, top, "front", first)
    rear = -overhang(job, top, "back", first)
    x0, x1 = first.x, last.right
    thickness = top_thickness(job, top)
    joints = ["", ""]
    # An open end gets its overhang; one at a wall or against a tall unit does not, nor past the wall's end.
    open_left = not at_line_end(wall, x0) and neighbour_at(run, x0, "left") is None
    open_right = not at_line_end(wall, x1) and neighbour_at(run, x1, "right") is None
    # A waterfall leg stands beside the units, with a filler between so that drawers clear it.
    leg = thickness + construction_of(job, job.unit(first.unit)).waterfall_filler
    left = leg if top.waterfall_left else overhang(job, top, "left", first)
    right = leg if top.waterfall_right else overhang(job, top, "right", last)
    left = min(left, x0) if open_left else 0.0
    right = min(right, wall.length - x1) if open_right else 0.0
    points: Points = ((x0 - left, rear), (x1 + right, rear), (x1 + right, depth), (x0 - left, depth))
    extra: list[Points] = []
    if first is run.cells[0]:
        points, joints[0], more = _into_corner(job, run, runs, points, "left", depth, rear)
        open_left = open_left and not joints[0] and not more
        extra += more
    if last is run.cells[-1]:
        points, joints[1], more = _into_corner(job, run, runs, points, "right", depth, rear)
        open_right = open_right and not joints[1] and not more
        extra += more
    points = _within_walls(points, wall)
    for p in group:
        points = _shaped(job, p, points, overhang(job, top, "front", first), first, last)
    dropped: list[str] = []
    if top.outline and group == next(iter(stretches(job, run))):
        points, note = _own_outline(top, points)
        dropped += note
    whole = _worktop(job, run, group, points, thickness, (open_left, open_right), (joints[0], joints[1]))
    if not whole.points:
        return []
    cuts, lost = _cutouts(job, top, group, whole)
    whole = msgspec.structs.replace(
        whole, cutouts=cuts, dropped=(*dropped, *lost), profiles=_profiles(top, whole, open_back=False)
    )
    pieces = _split(job, whole, top, group)
    for more_points in extra:
        piece = _worktop(job, run, group, more_points, thickness, (False, False), ("butt", ""))
        pieces.append(msgspec.structs.replace(piece, bolts=_bolts(depth - rear)))
    return pieces


def _profiles(top: Top, whole: Worktop, *, open_back: bool) -> tuple[tuple[str, str], ...]:
    """The profiles of edges that are free; one at a wall or a joint is not worked."""
    free = {"front": True, "left": whole.open_left, "right": whole.open_right, "back": open_back}
    return tuple((e.edge, e.profile) for e in top.edges if e.profile and free[e.edge])


def _worktop(
    job: Job,
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
        wall=run.wall.id,
        run=run.run.id,
        source=f"run:{run.run.id}",
        cell=group[0].cell,
        x=x0,
        length=x1 - x0,
        depth=depth,
        bottom=max(p.top for p in group),
        thickness=thickness,
        finish=finish_of(job, job.unit(group[0].unit), Role.WORKTOP),
        open_left=opened[0],
        open_right=opened[1],
        rear=rear,
        points=points,
        joints=joints,
        bolts=_bolts(depth - rear) if joints[0] else 0,
    )


def _bolts(length: float) -> int:
    return max(2, math.ceil(length / BOLT_PITCH))


def _into_corner(
    job: Job, run: RunLayout, runs: Sequence[RunLayout], points: Points, side: str, depth: float, rear: float
) -> tuple[Points, str, list[Points]]:
    """The outline led into the corner at one end, the kind of joint there, and further pieces.

    The run that takes the corner goes through to the wall; the other one butts against its front edge. With a mitre
    both are cut along the line from the wall's corner to where their front edges meet. With a mason's mitre only the
    front edges are: the one that goes through is cut back a little over the joint, and the other one reaches in.
    """
    end = run.start_corner if side == "left" else run.end_corner
    wall = run.wall
    outer = run.cells[0] if side == "left" else run.cells[-1]
    fills = outer.corner == side and outer.leg > 0
    if end is None and not fills:
        return points, "", []
    # Reach over the corner: far enough for any angle, and cut back below.
    angle = end.angle if end is not None else 90.0
    reach = depth + outer.leg + (depth / abs(math.tan(math.radians(angle))) if abs(angle - 90) > 0.01 else 0.0)
    mate = next((r for r in runs if end is not None and r.run.id == end.other), None)
    extra: list[Points] = []

    def mirrored(shape: Points) -> Points:
        return shape if side == "right" else tuple((wall.length - x, out) for x, out in reversed(shape))

    length = wall.length
    # Worked out for the right end; the left one is its mirror image.
    near = min(p[0] for p in mirrored(points))
    if fills and outer.leg > depth - 0.5:
        leg = outer.leg
        kind = job.template(outer.template).corner
        if kind == "diagonal":
            over = overhang(job, run.run.top, "front", outer)
            body = outer.depth
            # The slanted edge moved out by the overhang, between both front edges.
            a, b = (length - leg, body), (length - body, leg)
            way = (b[0] - a[0], b[1] - a[1])
            size = math.hypot(*way)
            made = construction_of(job, job.unit(outer.unit))
            by = over + made.reach
            n = (-way[1] / size * by, way[0] / size * by)
            n = n if n[1] > 0 else (-n[0], -n[1])
            p = ol.meet((a[0] + n[0], a[1] + n[1]), way, (0.0, depth), (1.0, 0.0))
            q = ol.meet((a[0] + n[0], a[1] + n[1]), way, (length - depth, 0.0), (0.0, 1.0))
            assert p is not None and q is not None
            shape: Points = (
                (near, rear), (length, rear), (length, leg), (length - depth, leg), (length - depth, max(q[1], depth)),
                (min(p[0], length - depth), depth), (near, depth),
            )  # fmt: skip
            return mirrored(ol.cleaned(shape)), "", []
        if end is None or mate is None or not carries_top(job, mate):
            shape = ((near, rear), (length, rear), (length, depth), (near, depth))
            extra.append(mirrored(((length - depth, depth), (length, depth), (length, leg), (length - depth, leg))))
            return mirrored(shape), "", extra
    assert end is not None
    if mate is None or not carries_top(job, mate):
        return points, "", []
    if not any(stretches(job, mate)):
        return points, "", []
    mate_depth = _mate_depth(job, mate, "left" if side == "right" else "right")
    if mate_depth is None:
        return points, "", []
    turn = math.radians(angle)
    # The other wall from the corner: away from it along (-cos a, sin a) in this line's plan (x, out).
    along = (-math.cos(turn), math.sin(turn))
    inward = (-math.sin(turn), -math.cos(turn))
    corner = (length, 0.0)
    shape = ((near, rear), (length + reach, rear), (length + reach, depth), (near, depth))
    shape = ol.cut_away(shape, corner, (corner[0] + along[0], corner[1] + along[1]))
    front = (corner[0] + inward[0] * mate_depth, corner[1] + inward[1] * mate_depth)
    joint = run.run.top.joint if end.holds else mate.run.top.joint
    if joint == "mitre":
        inner = ol.meet((0.0, depth), (1.0, 0.0), front, along)
        assert inner is not None
        shape = ol.cut_away(shape, corner, inner)
        return mirrored(shape), "mitre" if not end.holds else "", []
    if joint == "masons mitre" and not _diagonal_leg(job, mate, "left" if side == "right" else "right"):
        shape = _masons(shape, (near, rear), depth, front, along, corner, through=end.holds)
        return mirrored(ol.cleaned(shape)), "" if end.holds else joint, []
    if end.holds:
        return mirrored(shape), "", []
    # A diagonal corner unit's worktop reaches along this wall as far as its leg.
    if mate_fills := _diagonal_leg(job, mate, "left" if side == "right" else "right"):
        shape = ol.cut_away(shape, (length - mate_fills, 0.0), (length - mate_fills, 1.0))
        return mirrored(shape), joint, []
    shape = ol.cut_away(shape, front, (front[0] + along[0], front[1] + along[1]))
    return mirrored(shape), joint, []


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


def _mate_depth(job: Job, mate: RunLayout, side: str) -> float | None:
    """How far the worktop of the run round the corner stands out there, mm; None where it ends before."""
    groups = list(stretches(job, mate))
    if not groups:
        return None
    group = groups[0] if side == "left" else groups[-1]
    outer = mate.cells[0] if side == "left" else mate.cells[-1]
    if outer not in group:
        return None
    return _front(job, group) + overhang(job, mate.run.top, "front", group[0])


def _diagonal_leg(job: Job, mate: RunLayout, side: str) -> float:
    outer = mate.cells[0] if side == "left" else mate.cells[-1]
    return outer.leg if job.template(outer.template).corner == "diagonal" and outer.corner == side else 0.0


def _shaped(job: Job, p: Placed, points: Points, over: float, first: Placed, last: Placed) -> Points:
    """The outline cut along the slanted front of an end unit."""
    shape = job.template(p.template).shape
    made = construction_of(job, job.unit(p.unit))
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


def _own_outline(top: Top, points: Points) -> tuple[Points, list[str]]:
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


def arc_points(p: Point, q: Point, bulge: float, step: float = 5.0) -> list[Point]:
    """Points of an arc between p and q without its ends, at most `step` degrees apart.

    Parameters
    ----------
    bulge : tangent of a quarter of the arc's angle, positive where it lies to the right of the way p to q
    """
    if abs(bulge) < 1e-6:
        return []
    angle = 4.0 * math.atan(bulge)
    chord = math.dist(p, q)
    radius = chord / (2.0 * math.sin(abs(angle) / 2.0))
    mx, my = (p[0] + q[0]) / 2, (p[1] + q[1]) / 2
    ux, uy = (q[0] - p[0]) / chord, (q[1] - p[1]) / chord
    away = radius * math.cos(angle / 2.0) * (1.0 if bulge > 0 else -1.0)
    cx, cy = mx - uy * away, my + ux * away
    start = math.atan2(p[1] - cy, p[0] - cx)
    count = max(2, math.ceil(abs(math.degrees(angle)) / step))
    return [
        (cx + radius * math.cos(start + angle * i / count), cy + radius * math.sin(start + angle * i / count))
        for i in range(1, count)
    ]


def _cutouts(job: Job, top: Top, group: Sequence[Placed], whole: Worktop) -> tuple[tuple[Cutout, ...], tuple[str, ...]]:
    """Cut-outs of sinks, taps and hobs in their units, and those put in by hand that still fit."""
    found: list[Cutout] = []
    for p in group:
        template = job.template(p.template)
        thing = job.stock.appliance(template.appliance) if template.appliance else None
        if thing is None or thing.kind not in ("sink", "hob"):
            continue
        if thing.cut_width:
            width, deep = thing.cut_width, thing.cut_depth
        else:
            width, deep = thing.width - 2 * SINK_EDGE, thing.depth - 2 * SINK_EDGE
        x = p.x + p.width / 2 - whole.x - width / 2
        # Seen from the rear edge; on the far face of an island the same way round.
        found.append(Cutout(x, whole.depth - whole.rear - SINK_FROM_FRONT - deep, width, deep, p.cell, thing.code))
    lost: list[str] = []
    for cut in top.cuts:
        x, back = cut.x.mm - cut.width.mm / 2, cut.back.mm - cut.depth.mm / 2
        corners = [
            (x, back),
            (x + cut.width.mm, back),
            (x + cut.width.mm, back + cut.depth.mm),
            (x, back + cut.depth.mm),
        ]
        if all(ol.inside(whole.points, whole.x + u, whole.rear + v) for u, v in corners):
            found.append(Cutout(x, back, cut.width.mm, cut.depth.mm, "", f"cut:{cut.id}"))
        else:
            lost.append(f"the cut-out at {cut.x.mm:g} mm lies off the worktop")
    return tuple(found), tuple(lost)


def _split(job: Job, whole: Worktop, top: Top, group: Sequence[Placed]) -> list[Worktop]:
    """The pieces between joints: own joints first, then where the stock is too short."""
    lost: list[str] = []
    joints: list[float] = []
    for own in sorted(j.mm for j in top.joints):
        if SQUARING < own < whole.length - SQUARING:
            joints.append(whole.x + own)
        else:
            lost.append(f"the joint at {own:g} mm lies off the worktop")
    longest = max(
        (b.length for b in job.stock.boards if b.finish == whole.finish and abs(b.thickness - whole.thickness) < 0.01),
        default=math.inf,
    )
    most = longest - 2 * SQUARING
    barred = [(whole.x + c.x - JOINT_CLEAR, whole.x + c.x + c.width + JOINT_CLEAR) for c in whole.cutouts]
    for p in group:
        thing = job.stock.appliance(job.template(p.template).appliance)
        if thing is not None and thing.kind == "dishwasher":
            barred.append((p.x - 1.0, p.right + 1.0))
    marks = [whole.x, *joints, whole.x + whole.length]
    placed: list[float] = []
    for low, high in itertools.pairwise(marks):
        at = low
        while high - at > most + 0.01:
            pieces = math.ceil((high - at) / most)
            wanted = at + (high - at) / pieces
            cut = _free_place(wanted, at + SQUARING, at + most, barred)
            if cut is None:
                lost.append("no place for a joint clear of sink, hob and dishwasher")
                cut = at + most
            placed.append(cut)
            at = cut
    cuts = sorted({*joints, *placed})
    if not cuts:
        return [msgspec.structs.replace(whole, dropped=(*whole.dropped, *lost))]
    found = []
    edges = [whole.x - 1e6, *cuts, whole.x + whole.length + 1e6]
    for i, (low, high) in enumerate(itertools.pairwise(edges)):
        points = ol.cut_away(ol.cut_away(whole.points, (low, 1.0), (low, 0.0)), (high, 0.0), (high, 1.0))
        if not points:
            continue
        x0, _, x1, _ = ol.bounds(points)
        last = i == len(edges) - 2
        found.append(
            msgspec.structs.replace(
                whole,
                x=x0,
                length=x1 - x0,
                points=points,
                cutouts=tuple(
                    msgspec.structs.replace(c, x=c.x + whole.x - x0)
                    for c in whole.cutouts
                    if x0 - 0.5 <= c.x + whole.x and c.x + whole.x + c.width <= x1 + 0.5
                ),
                profiles=tuple(
                    (e, p) for e, p in whole.profiles if not ((e == "left" and i) or (e == "right" and not last))
                ),
                open_left=whole.open_left if i == 0 else False,
                open_right=whole.open_right if last else False,
                joints=(whole.joints[0] if i == 0 else "butt", whole.joints[1] if last else "butt"),
                bolts=(whole.bolts if i == 0 else 0) + (0 if last else _bolts(whole.depth - whole.rear)),
                dropped=(*whole.dropped, *lost) if i == 0 else (),
            )
        )
    return found


def _free_place(wanted: float, low: float, high: float, barred: Sequence[tuple[float, float]]) -> float | None:
    """The place nearest to the wanted one that no barred stretch covers."""
    tries = [wanted, *(edge for pair in barred for edge in pair)]
    free = [t for t in tries if low <= t <= high and not any(a + 1e-6 < t < b - 1e-6 for a, b in barred)]
    return min(free, key=lambda t: abs(t - wanted), default=None)


def island_tops(
    job: Job, island: Island, line: Wall, faces: Sequence[RunLayout], back_panel: float, spine: float
) -> tuple[Worktop, ...]:
    """The worktop over both faces of an island.

    Parameters
    ----------
    line : its first face
    faces : the base runs on its faces
    back_panel : thickness of the panel on a face without units, mm
    spine : thickness of the dividing panel, mm
    """
    runs = [r for r in faces if carries_top(job, r)]
    groups = [(r, list(stretches(job, r))) for r in runs]
    cells = [p for _, gs in groups for g in gs for p in g]
    if not cells or island.top.left_out:
        return ()
    top = island.top
    first = cells[0]
    over_front = overhang(job, top, "front", first)
    gap = island.gap.mm + (spine if island.spine else 0.0)
    ones = [p for p in cells if p.wall.endswith("1")]
    twos = [p for p in cells if p.wall.endswith("2")]
    own_back = top.edge("back").overhang
    front = _front(job, ones) + over_front if ones else back_panel + island.seating.mm + over_front
    if twos:
        rear = -(gap + _front(job, twos) + (own_back.mm if own_back is not None else over_front) + island.seating.mm)
    else:
        reach = own_back.mm if own_back is not None else overhang(job, top, "back", first)
        rear = -(gap + back_panel + max(island.seating.mm, reach))
    left = 0.0 if island.left == "waterfall" or island.wall else overhang(job, top, "left", first)
    right = 0.0 if island.right == "waterfall" else overhang(job, top, "right", first)
    x0, x1 = -left, line.length + right
    points: Points = ((x0, rear), (x1, rear), (x1, front), (x0, front))
    dropped: list[str] = []
    if top.outline:
        points, dropped = _own_outline(top, points)
    x0, rear, x1, front = ol.bounds(points)
    whole = Worktop(
        room=first.room,
        wall=line.id,
        run=runs[0].run.id,
        source=f"island:{island.id}",
        cell=first.cell,
        x=x0,
        length=x1 - x0,
        depth=front,
        bottom=max(p.top for p in cells),
        thickness=top_thickness(job, top),
        finish=finish_of(job, job.unit(first.unit), Role.WORKTOP),
        open_left=not island.wall,
        open_right=True,
        rear=rear,
        points=points,
        open_back=True,
        joints=("mitre" if island.left == "waterfall" else "", "mitre" if island.right == "waterfall" else ""),
        dropped=tuple(dropped),
    )
    cuts, lost = _cutouts(job, top, ones, whole)
    far = []
    for cut in _cutouts(job, Top(), twos, whole)[0]:
        # Measured on the second face: its x runs the other way, and its front is this top's rear.
        x = line.length - (cut.x + whole.x) - cut.width - whole.x
        far.append(msgspec.structs.replace(cut, x=x, back=SINK_FROM_FRONT))
    whole = msgspec.structs.replace(
        whole, cutouts=(*cuts, *far), dropped=(*dropped, *lost), profiles=_profiles(top, whole, open_back=True)
    )
    return tuple(_split(job, whole, top, ones or twos))
