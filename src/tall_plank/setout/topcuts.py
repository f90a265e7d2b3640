"""What is cut out of a worktop, and where it is jointed in length because no board is as long."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import msgspec

from tall_plank.job import Basis, Construction, Template, Top
from tall_plank.job.inherit import construction_of
from tall_plank.measure import outlines as ol
from tall_plank.measure.outlines import Points
from tall_plank.setout.runs import Placed
from tall_plank.setout.worktop import Cutout, Worktop, joint_bolts
from tall_plank.stock import Appliance, Stock

SINK_EDGE = 20.0
"""mm that a set-in sink rests on the worktop at each side: its cut-out is smaller by this (common practice)."""


SINK_FROM_FRONT = 60.0
"""mm of worktop kept in front of a sink's cut-out (common practice: 50 to 70)."""


SQUARING = 20.0
"""mm left at each end of a board for squaring it (common practice)."""


JOINT_CLEAR = 150.0
"""mm between a joint in length and the edge of a cut-out or a dishwasher (common practice: 100 to 300)."""


LET_IN = ("sink", "hob")
"""Kinds of appliances that are let into a worktop and hang between the gables below."""


def cut_size(thing: Appliance) -> tuple[float, float]:
    """Width and depth of the cut-out that a sink or a hob needs, mm."""
    if thing.cut_width:
        return thing.cut_width, thing.cut_depth
    return thing.width - 2 * SINK_EDGE, thing.depth - 2 * SINK_EDGE


def appliance_of(stock: Stock, template: Template, clear: float) -> Appliance | None:
    """The appliance that stands in a kind of unit or is let into the top over it: its own, or where that is too wide to
    go between the gables the widest of its sort that does; the narrowest where none does. `clear`: mm between the
    gables."""
    own = stock.appliance(template.appliance) if template.appliance else None
    if own is None or own.kind not in LET_IN or cut_size(own)[0] <= clear + 1e-6:
        return own
    sort = sorted((a for a in stock.appliances if a.kind == own.kind), key=lambda a: cut_size(a)[0])
    return next((a for a in reversed(sort) if cut_size(a)[0] <= clear + 1e-6), sort[0])


def between_gables(template: Template, made: Construction, width: float) -> float:
    """Clear width between the gables of a unit of a kind, mm. `width`: of the unit, mm."""
    return width - 2 * made.carcass_thickness if template.gables else width


def cutouts_of(
    basis: Basis, top: Top, group: Sequence[Placed], whole: Worktop
) -> tuple[tuple[Cutout, ...], tuple[str, ...]]:
    """Cut-outs of sinks, taps and hobs in their units, and those put in by hand that still fit."""
    found: list[Cutout] = []
    for p in group:
        template = basis.template(p.template)
        clear = between_gables(template, construction_of(basis, basis.unit(p.unit)), p.width)
        thing = appliance_of(basis.stock, template, clear)
        if thing is None or thing.kind not in LET_IN:
            continue
        width, deep = cut_size(thing)
        if width > clear + 1e-6:  # its unit is refused, and says so
            continue
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


def in_lengths(basis: Basis, whole: Worktop, top: Top, group: Sequence[Placed]) -> list[Worktop]:
    """The pieces between joints: own joints first, then where the stock is too short."""
    cuts, lost = _joints_of(basis, whole, top, group)
    if not cuts:
        return [msgspec.structs.replace(whole, dropped=(*whole.dropped, *lost))]
    found = []
    edges = [whole.x - 1e6, *cuts, whole.x + whole.length + 1e6]
    for i, (low, high) in enumerate(itertools.pairwise(edges)):
        points = ol.cut_away(ol.cut_away(whole.points, (low, 1.0), (low, 0.0)), (high, 0.0), (high, 1.0))
        if points:
            piece = _piece(whole, points, first=i == 0, last=i == len(edges) - 2)
            found.append(msgspec.structs.replace(piece, dropped=(*whole.dropped, *lost) if i == 0 else ()))
    return found


def _joints_of(basis: Basis, whole: Worktop, top: Top, group: Sequence[Placed]) -> tuple[list[float], list[str]]:
    """Where a worktop is joined, mm along its line, and what could not be done."""
    lost: list[str] = []
    joints: list[float] = []
    for own in sorted(j.mm for j in top.joints):
        if SQUARING < own < whole.length - SQUARING:
            joints.append(whole.x + own)
        else:
            lost.append(f"the joint at {own:g} mm lies off the worktop")
    longest = max(
        (
            b.length
            for b in basis.stock.boards
            if b.finish == whole.finish and abs(b.thickness - whole.thickness) < 0.01
        ),
        default=math.inf,
    )
    most = longest - 2 * SQUARING
    barred = [(whole.x + c.x - JOINT_CLEAR, whole.x + c.x + c.width + JOINT_CLEAR) for c in whole.cutouts]
    for p in group:
        thing = basis.stock.appliance(basis.template(p.template).appliance)
        if thing is not None and thing.kind == "dishwasher":
            barred.append((p.x - JOINT_CLEAR, p.right + JOINT_CLEAR))
    placed: list[float] = []
    for low, high in itertools.pairwise([whole.x, *joints, whole.x + whole.length]):
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
    return sorted({*joints, *placed}), lost


def _piece(whole: Worktop, points: Points, *, first: bool, last: bool) -> Worktop:
    """A piece of a worktop with what of its cut-outs and shaped edges lies on it, jointed to its neighbours."""
    x0, rear, x1, depth = ol.bounds(points)
    return msgspec.structs.replace(
        whole,
        x=x0,
        length=x1 - x0,
        rear=rear,
        depth=depth,
        points=points,
        cutouts=tuple(
            msgspec.structs.replace(c, x=c.x + whole.x - x0, back=c.back + whole.rear - rear)
            for c in whole.cutouts
            if x0 - 0.5 <= c.x + whole.x and c.x + whole.x + c.width <= x1 + 0.5
        ),
        profiles=tuple(
            (e, p) for e, p in whole.profiles if not ((e == "left" and not first) or (e == "right" and not last))
        ),
        open_left=whole.open_left if first else False,
        open_right=whole.open_right if last else False,
        joints=(whole.joints[0] if first else "butt", whole.joints[1] if last else "butt"),
        legs=tuple(side for side in whole.legs if (first if side == "left" else last)),
        bolts=(whole.bolts if first else 0) + (0 if last else joint_bolts(_across(points, x1))),
    )


def _across(points: Points, x: float) -> float:
    """mm of a piece's edge at its end at x."""
    outs = [out for at, out in points if abs(at - x) < 0.05]
    return max(outs) - min(outs) if outs else 0.0


def _free_place(wanted: float, low: float, high: float, barred: Sequence[tuple[float, float]]) -> float | None:
    """The place nearest to the wanted one that no barred stretch covers."""
    tries = [wanted, *(edge for pair in barred for edge in pair)]
    free = [t for t in tries if low <= t <= high and not any(a + 1e-6 < t < b - 1e-6 for a, b in barred)]
    return min(free, key=lambda t: abs(t - wanted), default=None)
