"""Where the stiles, rails and panels of a stretch lie."""

from __future__ import annotations

import msgspec

from tall_plank.job.treatment import Panels
from tall_plank.making.paneling.shop import FieldShop
from tall_plank.setout.paneling.grid import PanelGrid
from tall_plank.setout.paneling.laid import Stretch

Box = tuple[float, float, float, float]


class Places(msgspec.Struct, frozen=True):
    """Where everything of a stretch lies, mm; where it rakes, heights are those at its left end."""

    stiles: tuple[Box, ...]
    rails: tuple[Box, ...]
    panels: tuple[Box, ...]
    lines: tuple[float, ...]
    """Middles of its inner stiles."""
    levels: tuple[float, ...]
    """Middles of its inner rails."""


def places_of(s: Stretch, grid: PanelGrid) -> Places:
    """Stiles from the left, rails and panels from below: both end stiles first, at full height."""
    lefts = [s.x0 + x for x in grid.left_edges]
    rights = [x + w for x, w in zip(lefts, grid.panels, strict=True)]
    inner_left, inner_right = lefts[0], rights[-1]
    bottoms = list(grid.bottom_edges)
    tops = [z + grid.height for z in bottoms]
    levels = [(s.z0, bottoms[0]), *zip(tops[:-1], bottoms[1:], strict=True), (tops[-1], s.z1)]
    rails = tuple((inner_left, a, inner_right, b) for a, b in levels if b - a > 0.05)
    ends = [(s.x0, s.z0, inner_left, s.z1), (inner_right, s.z0, s.x1, s.z1)]
    between = [(a, b) for a, b in zip(rights[:-1], lefts[1:], strict=True) if b - a > 0.05]
    middle = [(a, z, b, t) for z, t in zip(bottoms, tops, strict=True) for a, b in between]
    panels = tuple((a, z, b, t) for z, t in zip(bottoms, tops, strict=True) for a, b in zip(lefts, rights, strict=True))
    return Places(
        (*(e for e in ends if e[2] - e[0] > 0.05), *middle),
        rails,
        panels,
        tuple((a + b) / 2 for a, b in between),
        tuple((a + b) / 2 for a, b in levels[1:-1]),
    )


def finishes_of(shop: FieldShop, panels: Panels) -> tuple[str, str]:
    """Codes of the finish of its frame and of its panels."""
    frame = panels.finish or shop.finish
    return frame, panels.panel_finish or frame
