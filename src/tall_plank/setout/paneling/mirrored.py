"""What is laid on a wall turned about an upright line. `about`: twice where that line stands along the wall, mm."""

from __future__ import annotations

import math

import msgspec

from tall_plank.measure import paths as pa
from tall_plank.measure.paths import Path
from tall_plank.measure.regions import Region
from tall_plank.setout.frames import MoldingFrame
from tall_plank.setout.paneling.grid import PanelGrid, StileClash
from tall_plank.setout.paneling.laid import Stretch, ZoneLaid
from tall_plank.setout.paneling.modules import ModulePiece, ModulesLaid


def mirrored_region(region: Region, about: float) -> Region:
    """A region turned about the upright line at half of `about`, mm."""

    def turn(path: Path) -> Path:
        return pa.mirrored(path, about / 2)

    return Region(turn(region.outer), tuple(turn(h) for h in region.holes))


def mirrored_zone(zone: ZoneLaid, about: float) -> ZoneLaid:
    """A zone turned about the upright line at half of `about`, mm."""
    return msgspec.structs.replace(
        zone,
        datum=about - zone.datum,
        regions=tuple(mirrored_region(r, about) for r in zone.regions),
        stretches=tuple(_mirrored_stretch(s, about) for s in zone.stretches),
        modules=_mirrored_modules(zone.modules, about) if zone.modules is not None else None,
        slats=tuple(msgspec.structs.replace(s, shape=mirrored_region(s.shape, about)) for s in reversed(zone.slats)),
    )


TURNED: dict[ModulePiece, ModulePiece] = {"left": "right", "right": "left"}


def _mirrored_modules(laid: ModulesLaid, about: float) -> ModulesLaid:
    """Whole modules are symmetric: only their places turn."""
    g = laid.grid
    grid = msgspec.structs.replace(
        g, margin_x=g.other_x, other_x=g.margin_x, x0=about - g.x0 - g.across * laid.shape.width
    )
    whole = tuple((about - x - laid.shape.width, z) for x, z in laid.whole)
    cut = tuple(
        msgspec.structs.replace(c, piece=TURNED.get(c.piece, c.piece), shape=mirrored_region(c.shape, about))
        for c in laid.cut
    )
    return msgspec.structs.replace(laid, grid=grid, whole=whole, cut=cut)


def _mirrored_stretch(s: Stretch, about: float) -> Stretch:
    grid, up = s.grid, s.rake * (s.x1 - s.x0)
    if grid is not None:
        width = s.x1 - s.x0
        lefts = tuple(width - x - w for x, w in zip(grid.left_edges, grid.panels, strict=True))
        grid = PanelGrid(
            grid.spec, grid.stiles[::-1], grid.panels[::-1], grid.height, grid.bottom_rail, lefts[::-1],
            tuple(z + up for z in grid.bottom_edges), grid.rounded, grid.rounded_up,
        )  # fmt: skip
    clashes = tuple(
        StileClash(
            c.outlet,
            (grid.count if grid is not None else 0) - c.stile,
            c.counts,
            -c.shift if c.shift is not None else None,
        )
        for c in s.clashes
    )
    return msgspec.structs.replace(
        s, x0=about - s.x1, x1=about - s.x0, z0=s.z0 + up, z1=s.z1 + up, grid=grid, clashes=clashes, rake=-s.rake
    )


def mirrored_rail(rail: MoldingFrame, about: float) -> MoldingFrame:
    """A molding turned about the upright line at half of `about`, mm."""
    up = math.tan(math.radians(rail.rake)) * rail.width
    return msgspec.structs.replace(
        rail, x0=about - rail.x1, x1=about - rail.x0, z0=rail.z0 + up, z1=rail.z1 + up, rake=-rail.rake
    )
