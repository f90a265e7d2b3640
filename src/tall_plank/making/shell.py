"""The measures of a carcass that all its makers ask: its gables' names, clear sizes, the plan of its front."""

from __future__ import annotations

import itertools
import math

from tall_plank.making.bayset import Rect
from tall_plank.making.builder import Builder
from tall_plank.making.parts import Draft
from tall_plank.measure import PlankError
from tall_plank.measure.outlines import Point, Points
from tall_plank.measure.paths import arc_chords, bulge_through
from tall_plank.setout.tops import slant_depth

GABLE_LEFT, GABLE_RIGHT = "left gable", "right gable"


BOW = 0.12
"""Rise of a bowed or hollowed front, as a share of the unit's width."""


def rear_cut(b: Builder) -> float:
    """How far lying boards end before the carcass's rear: the back lies behind them, unless it stands in a groove."""
    made = b.spec.made
    return made.back_thickness if b.spec.back and made.back_fit != "groove" else 0.0


def gable_cut(b: Builder) -> float:
    """How far gables end before the carcass's rear, mm: only where the back is planted on."""
    return rear_cut(b) if b.spec.made.back_fit == "on" else 0.0


def is_over(b: Builder) -> bool:
    """Whether a whole top lies on the gables."""
    return b.spec.gables and b.spec.top == "full" and b.spec.made.top_fit == "over"


def is_under(b: Builder) -> bool:
    """Whether the bottom lies under the gables."""
    return b.spec.gables and b.spec.bottom and b.spec.made.bottom_fit == "under"


def clear_depth(b: Builder) -> float:
    """mm from the carcass's front edge to the front of the back (or of the air kept behind what stands in it)."""
    made = b.spec.made
    if not b.spec.back:
        return b.spec.depth - b.spec.vent
    if made.back_fit != "groove":
        return b.spec.depth - made.back_thickness - b.spec.vent
    return b.spec.depth - made.back_inset - made.back_thickness - made.groove_width_play - b.spec.vent


def side_thickness(b: Builder) -> float:
    """Thickness of the unit's own gables, mm; 0 where it hangs between the panels of an island."""
    return b.spec.made.carcass_thickness if b.spec.gables else 0.0


def clear_of_carcass(b: Builder) -> Rect:
    """The clear space between gables, bottom and top (or the underside of the rails)."""
    spec, t, s = b.spec, b.spec.made.carcass_thickness, side_thickness(b)
    top = spec.height if spec.lets_in or spec.top == "none" else spec.height - t
    return Rect(s, t if spec.bottom else 0.0, spec.width - s, top)


def front_edge(b: Builder, x: float) -> float:
    """y of the carcass's front edge at x: -depth where the front is straight. `x`: mm."""
    spec = b.spec
    shallow = slant_depth(spec.width, spec.depth)
    match spec.shape:
        case "angled right":
            return -spec.depth + (spec.depth - shallow) * x / spec.width
        case "angled left":
            return -shallow - (spec.depth - shallow) * x / spec.width
        case "bow" | "hollow":
            rise = BOW * spec.width
            # A circle's segment over the width: sagitta and chord give the radius (geometry).
            radius = (spec.width**2 / 4 + rise**2) / (2 * rise)
            away = abs(x - spec.width / 2)
            sag = math.sqrt(max(0.0, radius**2 - away**2)) - (radius - rise)
            return -spec.depth + (rise - sag) if spec.shape == "bow" else -spec.depth + sag
        case "rounded":
            radius = min(spec.width / 2, spec.depth)
            away = max(0.0, abs(x - spec.width / 2) - (spec.width / 2 - radius))
            return -spec.depth + radius - math.sqrt(max(0.0, radius**2 - away**2))
    return -spec.depth


def front_curve(b: Builder, x0: float, x1: float) -> list[Point]:
    """The carcass's front edge from x0 to x1 in the unit's frame: straight where it is, arcs by their chords; mm."""
    spec = b.spec
    radius = min(spec.width / 2, spec.depth) if spec.shape == "rounded" else 0.0
    turns = (x for x in (radius, spec.width - radius) if radius and x0 + 0.01 < x < x1 - 0.01)
    marks = sorted({x0, *turns, x1})
    found: list[Point] = [(x0, front_edge(b, x0))]
    for p, q in itertools.pairwise(marks):
        start, end = (p, front_edge(b, p)), (q, front_edge(b, q))
        # On one circle or line between two marks: any place between says which.
        middle = ((p + q) / 2, front_edge(b, (p + q) / 2))
        found += [*arc_chords(start, end, bulge_through(start, middle, end)), end]
    return found


def shaped_board(b: Builder, draft: Draft, setback: float = 0.0, edging: float | None = None) -> Draft:
    """Cut the front edge of a lying board (frame X, Y or -X, Y) to the plan of the unit's front. `setback`,
    `edging`: mm."""
    if b.spec.shape == "straight":
        return draft
    ox, oy = draft.frame.origin[0], draft.frame.origin[1]
    way = draft.frame.x[0]
    curve = front_curve(b, *sorted((ox, ox + way * draft.length)))
    edge = [((x - ox) * way, y + setback - oy) for x, y in (curve if way > 0 else reversed(curve))]
    points: Points = (*edge, (draft.length, draft.width), (0.0, draft.width))
    free = [*(math.dist(p, q) for p, q in itertools.pairwise(edge)), 0.0, 0.0, 0.0]
    thick = b.spec.made.edging_carcass if edging is None else edging
    return draft.edge_outline(b.stock, points, free, thick)


def band_front(b: Builder, draft: Draft, thickness: float) -> None:
    """Edging along the front edge; a shaped edge gets its own. `thickness`: mm."""
    if b.spec.shape == "straight":
        draft.band(b.stock, thickness, "L1")


def floor_drop(b: Builder) -> float:
    """mm by which the gables run down past the bottom, to the floor; 0 on legs.

    Raises
    ------
    PlankError where the bottom lies under the gables
    """
    spec = b.spec
    if spec.off_floor <= 0 or spec.level == "hung" or not spec.gables or spec.shape != "straight":
        return 0.0
    if is_under(b):
        raise PlankError(
            "Gables that run down to the floor need the bottom between them.", "gable_foot", "Change one of the two."
        )
    return spec.off_floor
