"""A tree of zones laid on the outline of a field: which part of the wall each cover takes, and how it is divided there.

Places are those of the wall: x from its left end, z up from the floor, mm.
"""

from __future__ import annotations

import dataclasses
import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import msgspec

from tall_plank.job.standard import Construction
from tall_plank.job.things.wall_field import WallField
from tall_plank.job.treatment import (
    Arched,
    Bands,
    Bare,
    Boards,
    Halves,
    Modules,
    Panels,
    Parted,
    Raked,
    Slats,
    Zone,
    ZonePath,
)
from tall_plank.measure import PlankError, told
from tall_plank.measure import paths as pa
from tall_plank.measure.arches import arch_rise, arched, bulge_of_rise
from tall_plank.measure.pathcuts import border
from tall_plank.measure.paths import Path
from tall_plank.measure.regions import Region, box_path, within, without
from tall_plank.measure.shareout import Member, Rule, share_out
from tall_plank.measure.units import TOLERANCE
from tall_plank.setout.frames import MoldingFrame
from tall_plank.setout.paneling.grid import (
    LEAST,
    Outlet,
    PanelSpec,
    panel_grid,
    stile_clashes,
)
from tall_plank.setout.paneling.laid import Fault, Stretch, ZoneLaid
from tall_plank.setout.paneling.marks import Box
from tall_plank.setout.paneling.mirrored import mirrored_rail, mirrored_region, mirrored_zone
from tall_plank.setout.paneling.modules import ModuleShape, lay_modules
from tall_plank.setout.paneling.raked import RakeLine, covered_spans, joined, rake_line
from tall_plank.setout.paneling.slats import (
    centered_strips,
    clipped_slats,
    fitted_strips,
    strips_from_left,
    turned_bounds,
)
from tall_plank.setout.paneling.values import PanelSizes, mm_of, panel_sizes, slat_steps

FAR = 100_000.0
"""mm; farther than any wall."""


@dataclass
class Laying:
    """A field while its zones are laid.

    Attributes
    ----------
    blocks : what stands before the wall and what opens it, with what is kept clear about them
    outlets : on the wall, from where to where
    profiles : code of a profile -> its height, mm
    datum : from where grooves in boards are measured along the wall, mm
    rails : moldings along raking bands
    boxes : the upright rectangle that every zone is laid in, of halves the left one
    """

    made: Construction
    field: WallField
    blocks: Sequence[Box]
    outlets: Sequence[Outlet] = ()
    profiles: Mapping[str, float] = dataclasses.field(default_factory=dict)
    datum: float = 0.0
    rails: list[MoldingFrame] = dataclasses.field(default_factory=list)
    zones: list[ZoneLaid] = dataclasses.field(default_factory=list)
    boxes: dict[ZonePath, Box] = dataclasses.field(default_factory=dict)
    faults: list[Fault] = dataclasses.field(default_factory=list)

    def lay(self, zone: Zone, path: ZonePath, box: Box, regions: Sequence[Region]) -> None:
        """Lay a zone that has a box, with what of it is free."""
        self.boxes[path] = box
        if isinstance(zone, Bare):
            return
        if not regions:
            self.faults.append(
                Fault(path, "There is no room left for this part of the wall field.", "Move its limits.")
            )
            return
        try:
            match zone:
                case Bands():
                    self._bands(zone, path, box, regions)
                case Arched():
                    self._arched(zone, path, box, regions)
                case Parted():
                    self._parted(zone, path, box, regions)
                case Raked():
                    self._raked(zone, path, box, regions)
                case Halves():
                    self._halves(zone, path, box, regions)
                case Panels():
                    self._panels(zone, path, box, regions)
                case Slats():
                    self.zones.append(self._slats(zone, path, regions))
                case Boards():
                    self.zones.append(ZoneLaid(path, zone, tuple(regions), datum=self.datum))
                case Modules():
                    shape = ModuleShape(zone.width.mm, zone.height.mm, zone.ring.mm)
                    gap = mm_of(zone.gap, self.made.wall_gap)
                    cuts, about = zone.edges == "cut", _box_about(regions)
                    laid = lay_modules(regions, about, shape, gap, zone.start, cuts=cuts, least=zone.least.mm)
                    self.zones.append(ZoneLaid(path, zone, tuple(regions), modules=laid))
        except PlankError as error:
            self.faults.append(Fault(path, error.what, error.remedy))

    # --- split

    def _bands(self, zone: Bands, path: ZonePath, box: Box, regions: Sequence[Region]) -> None:
        x0, z0, x1, z1 = box
        total = z1 - z0 if zone.way == "up" else x1 - x0
        at = z0 if zone.way == "up" else x0
        for i, (band, size) in enumerate(zip(zone.bands, band_sizes(zone, total), strict=True)):
            own = (x0, at, x1, at + size) if zone.way == "up" else (at, z0, at + size, z1)
            at += size
            self.lay(band.zone, (*path, i), own, _in_shape(regions, box_path(*own)))

    def _arched(self, zone: Arched, path: ZonePath, box: Box, regions: Sequence[Region]) -> None:
        shape = arch_path(zone, box)
        around = shape
        if zone.border.mm > TOLERANCE:
            around = border(shape, -zone.border.mm)
            rim = [piece for r in _in_shape(regions, around) for piece in without(r, [shape])]
            self.lay(zone.edge, (*path, 2), pa.bounds(around), rim)
        self.lay(zone.inner, (*path, 0), pa.bounds(shape), _in_shape(regions, shape))
        self.lay(zone.outer, (*path, 1), box, [piece for r in regions for piece in without(r, [around])])

    def _parted(self, zone: Parted, path: ZonePath, box: Box, regions: Sequence[Region]) -> None:
        left = parting_path(zone, box)
        one = _in_shape(regions, left)
        other = [piece for r in regions for piece in without(r, [left])]
        for i, (child, pieces) in enumerate(((zone.left, one), (zone.right, other))):
            self.lay(child, (*path, i), _box_about(pieces) if pieces else box, pieces)

    def _halves(self, zone: Halves, path: ZonePath, box: Box, regions: Sequence[Region]) -> None:
        """The left half, and the right one as its mirror image; what stands before the right one takes its own."""
        x0, z0, x1, z1 = box
        middle, about = (x0 + x1) / 2, x0 + x1
        left, right = (x0, z0, middle, z1), (middle, z0, x1, z1)
        self.lay(zone.half, (*path, 0), left, _in_shape(regions, box_path(*left)))
        blocks = [(about - b[2], b[1], about - b[0], b[3]) for b in self.blocks]
        outlets = [msgspec.structs.replace(o, low=about - o.high, high=about - o.low) for o in self.outlets]
        other = Laying(self.made, self.field, blocks, outlets, self.profiles, self.datum)
        turned = [mirrored_region(r, about) for r in _in_shape(regions, box_path(*right))]
        other.lay(zone.half, (*path, 0), left, turned)
        self.zones += [mirrored_zone(z, about) for z in other.zones]
        self.rails += [mirrored_rail(r, about) for r in other.rails]
        self.faults += [f for f in other.faults if f not in self.faults]

    def _raked(self, zone: Raked, path: ZonePath, box: Box, regions: Sequence[Region]) -> None:
        line = rake_line(box, zone.angle, zone.start.mm)
        x0, x1 = box[0], box[2]
        high = zone.height.mm
        band = line.band(x0, x1, 0.0, high)
        parts = (
            (zone.inner, _in_shape(regions, band)),
            (zone.below, _in_shape(regions, line.band(x0, x1, -FAR, 0.0))),
            (zone.above, _in_shape(regions, line.band(x0, x1, high, FAR))),
        )
        cosine = math.cos(math.radians(zone.angle))
        foot, cap = (self._profile(code) / cosine for code in (zone.foot, zone.cap))
        if foot + cap >= high - LEAST:
            raise PlankError("Foot and cap leave nothing of the raking band.", "height", "Make it higher.")
        inner = parts[0][1]
        for code, low, top, what in (
            (zone.foot, 0.0, foot, "raked skirting"), (zone.cap, high - cap, high, "raked rail"),
        ):  # fmt: skip
            for a, b in covered_spans(joined(inner), line.quad((x0, low, x1, top))) if code else ():
                self.rails.append(
                    MoldingFrame(a, line.at(a) + low, b, line.at(a) + top, 0.0, code, ("bottom",), zone.angle, what)
                )
        if foot or cap:
            inner = _in_shape(inner, line.band(x0, x1, foot, high - cap))
        self._in_band(zone.inner, (*path, 0), line.raised(foot), high - foot - cap, (x0, x1), inner)
        for i, (child, pieces) in enumerate(parts[1:], 1):
            if pieces or not isinstance(child, Bare):
                self.lay(child, (*path, i), _box_about(pieces) if pieces else box, pieces)

    def _profile(self, code: str) -> float:
        if code and code not in self.profiles:
            raise PlankError(f"The stock has no profile {code}.", "molding", "Choose another molding.")
        return self.profiles[code] if code else 0.0

    def _in_band(
        self, zone: Zone, path: ZonePath, line: RakeLine, high: float, ends: tuple[float, float],
        regions: Sequence[Region],
    ) -> None:  # fmt: skip
        """Lay a zone in a raking band: panels and bands rake with it, all else lies in it as it is."""
        if isinstance(zone, Bare):
            return
        x0, x1 = ends
        if isinstance(zone, Bands):
            total = high if zone.way == "up" else x1 - x0
            at = 0.0
            for i, (band, size) in enumerate(zip(zone.bands, band_sizes(zone, total), strict=True)):
                if zone.way == "up":
                    own, tall, place = line.raised(at), size, ends
                else:
                    own, tall, place = line, high, (x0 + at, x0 + at + size)
                at += size
                pieces = _in_shape(regions, own.band(*place, 0.0, tall))
                self._in_band(band.zone, (*path, i), own, tall, place, pieces)
        elif isinstance(zone, Panels):
            try:
                self._raked_panels(zone, path, line, high, ends, regions)
            except PlankError as error:
                self.faults.append(Fault(path, error.what, error.remedy))
        else:
            self.lay(zone, path, _box_about(regions) if regions else (x0, line.z, x1, line.z + high), regions)

    # --- covered

    def _raked_panels(
        self, panels: Panels, path: ZonePath, line: RakeLine, high: float, ends: tuple[float, float],
        regions: Sequence[Region],
    ) -> None:  # fmt: skip
        """Panels in every stretch of a raking band that is free from its lower to its upper line."""
        if panels.style == "framed":
            raise PlankError(
                "Frame and panel with tongues does not rake.", "style", "Plant the frame on a board instead."
            )
        sizes = panel_sizes(panels, self.made)
        cosine = 1.0 / math.hypot(1.0, line.slope)
        found: list[Stretch] = []
        for a, b in covered_spans(joined(regions), line.quad((ends[0], 0.0, ends[1], high))):
            if b - a < 2 * sizes.end_stile + LEAST:
                continue
            number, foot = len(found), line.at(a)
            own = self.field.count_of(path, number)
            spec = _spec(panels, sizes, (a, foot, b, foot + high), own, cosine)
            try:
                grid = panel_grid(spec)
            except PlankError as error:
                self.faults.append(Fault(path, error.what, error.remedy))
                found.append(Stretch(number, a, foot, b, foot + high, None, own > 0, rake=line.slope))
                continue
            here = [
                Outlet(o.name, o.low - a, o.high - a, o.bottom - rise, o.top - rise)
                for o in self.outlets
                for rise in (line.slope * ((o.low + o.high) / 2 - a),)
                if o.high > a and o.low < b and o.top - rise > foot and o.bottom - rise < foot + high
            ]
            clashes = tuple(stile_clashes(grid, here, self.made.wall_clear))
            found.append(Stretch(number, a, foot, b, foot + high, grid, own > 0, clashes, line.slope))
        if not found:
            raise PlankError(
                f"Panels find no room in the raking band: it is {told(high)} mm high.",
                "panels",
                "Lower the band, or move a limit, so that all of it lies on the wall.",
            )
        paths = [s.line.band(s.x0, s.x1, 0.0, s.z1 - s.z0) for s in found]
        self.zones.append(ZoneLaid(path, panels, tuple(Region(p) for p in paths), tuple(found)))

    def _panels(self, panels: Panels, path: ZonePath, box: Box, regions: Sequence[Region]) -> None:
        sizes = panel_sizes(panels, self.made)
        stretches: list[Stretch] = []
        rails = sizes.bottom_rail + sizes.top_rail + (panels.rows - 1) * sizes.mid_rail + panels.rows * LEAST
        free = free_boxes(box, self.blocks)
        whole = sum((b[2] - b[0]) * (b[3] - b[1]) for b in free)
        if abs(sum(r.area for r in regions) - whole) > 1.0:
            raise PlankError(
                "Panels need an upright rectangle, and this part of the wall is none.",
                "panels",
                "Set the limit lower, or cover it with boards or slats.",
            )
        for b in free:
            if b[3] - b[1] < rails - TOLERANCE or b[2] - b[0] < 2 * sizes.end_stile + LEAST:
                continue
            number = len(stretches)
            own = self.field.count_of(path, number)
            try:
                grid = panel_grid(_spec(panels, sizes, b, own))
            except PlankError as error:
                self.faults.append(Fault(path, error.what, error.remedy))
                stretches.append(Stretch(number, *b, None, own > 0))
                continue
            here = [
                Outlet(o.name, o.low - b[0], o.high - b[0], o.bottom, o.top)
                for o in self.outlets
                if o.top > b[1] and o.bottom < b[3] and o.high > b[0] and o.low < b[2]
            ]
            clashes = tuple(stile_clashes(grid, here, self.made.wall_clear))
            stretches.append(Stretch(number, *b, grid, own > 0, clashes))
        if not stretches:
            raise PlankError(
                f"Panels find no room in {told(box[2] - box[0])} x {told(box[3] - box[1])} mm.",
                "panels",
                "Make stiles and rails narrower, or move a limit.",
            )
        regions = [Region(box_path(s.x0, s.z0, s.x1, s.z1)) for s in stretches]
        self.zones.append(ZoneLaid(path, panels, tuple(regions), tuple(stretches)))

    def _slats(self, slats: Slats, path: ZonePath, regions: Sequence[Region]) -> ZoneLaid:
        x0, x1 = turned_bounds(regions, slats.angle)
        steps = slat_steps(slats, self.made)
        if slats.start == "fitted":
            least = slats.least_gap.mm if slats.least_gap is not None else None
            most = slats.most_gap.mm if slats.most_gap is not None else None
            strips = fitted_strips(x1 - x0, steps, least, most)
        elif slats.start == "centered":
            strips = centered_strips(x1 - x0, steps)
        else:
            strips = strips_from_left(x1 - x0, steps)
        found, dropped = clipped_slats(regions, strips.spans, x0, slats.angle, slats.least.mm)
        if not found:
            raise PlankError("No slat is left of this pattern.", "slats", "Make the least piece smaller.")
        return ZoneLaid(path, slats, tuple(regions), slats=tuple(found), fitted=strips.fitted, dropped=dropped)


def band_sizes(zone: Bands, total: float) -> tuple[float, ...]:
    """The sizes of bands that take all of a height or width, mm.

    Raises
    ------
    PlankError where they need more than there is, or leave some of it
    """
    members = [
        Member(Rule.FIXED, size=b.size.mm) if b.size is not None else Member(Rule.SHARE, weight=b.share, least=LEAST)
        for b in zone.bands
    ]
    shares = share_out(total, members)
    word = "height" if zone.way == "up" else "width"
    if shares.short > TOLERANCE:
        raise PlankError(
            f"The bands need {told(shares.short)} mm more {word} than there is.", "bands", "Make one smaller."
        )
    if shares.left > TOLERANCE:
        raise PlankError(
            f"The bands leave {told(shares.left)} mm of {word} bare.", "bands", "Let one take what is left."
        )
    return tuple(shares.sizes)


def _spec(panels: Panels, sizes: PanelSizes, box: Box, count: int, cosine: float = 1.0) -> PanelSpec:
    """What equal panels are asked for in a box, mm; where they rake, `cosine` is that of the angle."""
    return PanelSpec(
        width=box[2] - box[0],
        count=count,
        target=panels.target.mm,
        stile=sizes.stile,
        end_stile=sizes.end_stile,
        bottom=box[1],
        top=box[3],
        rows=panels.rows,
        bottom_rail=sizes.bottom_rail / cosine,
        top_rail=sizes.top_rail / cosine,
        mid_rail=sizes.mid_rail / cosine,
        step=sizes.step,
        rest=panels.rest,
    )


def arch_path(zone: Arched, box: Box) -> Path:
    """The outline of an arched zone in the box of the zone around it.

    Raises
    ------
    PlankError where it leaves the box, or has a rise that such an arch cannot have
    """
    x0, z0, x1, z1 = box
    width, height = zone.width.mm, zone.height.mm
    left = x0 + zone.left.mm if zone.left is not None else (x0 + x1 - width) / 2
    low = z0 + zone.bottom.mm
    over = max(x0 - left, left + width - x1, low + height - z1)
    if over > TOLERANCE:
        raise PlankError(f"The arch reaches {told(over)} mm out of its zone.", "arch", "Make it smaller, or move it.")
    given = zone.rise.mm if zone.rise is not None else width / 4
    rise = arch_rise(zone.kind, width, given)
    return arched(zone.kind, left, low, left + width, low + height, rise)


def parting_path(zone: Parted, box: Box) -> Path:
    """What lies at the left of the line or arc that parts a zone, far beyond its box.

    Raises
    ------
    PlankError where the ends are one point, or the arc turns by more than half a circle
    """
    x0, z0, x1, z1 = box
    a = (x0 + zone.x1 * (x1 - x0), z0 + zone.y1 * (z1 - z0))
    b = (x0 + zone.x2 * (x1 - x0), z0 + zone.y2 * (z1 - z0))
    size = math.dist(a, b)
    if size < 1.0:
        raise PlankError("The line that parts it has no length.", "line", "Move one of its ends.")
    ux, uz = (b[0] - a[0]) / size, (b[1] - a[1]) / size
    far = [
        (b[0] + ux * FAR, b[1] + uz * FAR), (b[0] + (ux - uz) * FAR, b[1] + (uz + ux) * FAR),
        (a[0] - (ux + uz) * FAR, a[1] - (uz - ux) * FAR), (a[0] - ux * FAR, a[1] - uz * FAR),
    ]  # fmt: skip
    if abs(zone.rise.mm) > size / 2 + TOLERANCE:
        raise PlankError(
            f"The arc rises by {told(abs(zone.rise.mm))} mm, more than half of {told(size)} mm.",
            "rise",
            f"Give up to {told(size / 2)} mm.",
        )
    # An arc that stands off to the left of its way bends clockwise.
    bulge = -bulge_of_rise(size, zone.rise.mm)
    return ((*a, bulge), (*b, 0.0), *((x, z, 0.0) for x, z in far))


def _in_shape(regions: Sequence[Region], shape: Path) -> list[Region]:
    return [piece for r in regions for piece in within(r, [shape])[0]]


def _box_about(regions: Sequence[Region]) -> Box:
    boxes = [r.bounds for r in regions]
    return (min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes))


def free_boxes(box: Box, blocks: Sequence[Box]) -> list[Box]:
    """The upright rectangles that are free of blocks, from left to right and from below: as wide as what is free above
    one another stays the same, and as high as can be; mm."""
    x0, z0, x1, z1 = box
    near = [
        b
        for b in blocks
        if b[0] < x1 - TOLERANCE and b[2] > x0 + TOLERANCE and b[1] < z1 - TOLERANCE and b[3] > z0 + TOLERANCE
    ]
    marks = sorted({x0, x1, *(min(max(m, x0), x1) for b in near for m in (b[0], b[2]))})
    columns: list[tuple[float, float, tuple[tuple[float, float], ...]]] = []
    for a, b in itertools.pairwise(marks):
        if b - a < TOLERANCE:
            continue
        middle = (a + b) / 2
        spans = [(z0, z1)]
        for block in near:
            if block[0] < middle < block[2]:
                spans = [
                    p
                    for s, e in spans
                    for p in ((s, min(e, block[1])), (max(s, block[3]), e))
                    if p[1] - p[0] > TOLERANCE
                ]
        here = tuple(sorted(spans))
        if columns and columns[-1][2] == here:
            columns[-1] = (columns[-1][0], b, here)
        else:
            columns.append((a, b, here))
    return [(a, s, b, e) for a, b, spans in columns for s, e in spans]
