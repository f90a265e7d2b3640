"""Modules set out: a rectangle of four mitred pieces round a center, repeated over a zone from its middle or a corner,
cut or left bare at the edges."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

import msgspec

from tall_plank.measure import PlankError, told
from tall_plank.measure.paths import Path, path_of, shifted
from tall_plank.measure.regions import Region, box_path, within
from tall_plank.measure.units import TOLERANCE

ModulePiece = Literal["bottom", "right", "top", "left", "center"]
PIECES: tuple[ModulePiece, ...] = ("bottom", "right", "top", "left", "center")

MOST_MODULES = 2000


class ModuleShape(msgspec.Struct, frozen=True, cache_hash=True):
    """A module: its sizes, and the width of the pieces round its center; mm."""

    width: float
    height: float
    ring: float

    def pieces(self) -> tuple[tuple[ModulePiece, Path], ...]:
        """Its pieces from its lower left corner; the ring meets in mitres from corner to corner of the center.

        Raises
        ------
        PlankError where the ring leaves no center
        """
        w, h, r = self.width, self.height, self.ring
        if r <= 0.0:
            return (("center", box_path(0.0, 0.0, w, h)),)
        if 2 * r > min(w, h) - 1.0:
            raise PlankError(
                f"Pieces {told(r)} mm wide leave no center in a module of {told(w)} x {told(h)} mm.",
                "ring",
                f"Give less than {told(min(w, h) / 2)} mm.",
            )
        outer, inner = ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h)), ((r, r), (w - r, r), (w - r, h - r), (r, h - r))
        ring = tuple(
            (name, path_of((outer[i], outer[(i + 1) % 4], inner[(i + 1) % 4], inner[i])))
            for i, name in enumerate(PIECES[:4])
        )
        return (*ring, ("center", path_of(inner)))


class ModuleGrid(msgspec.Struct, frozen=True, cache_hash=True):
    """Where modules lie.

    Attributes
    ----------
    across, up : whole modules along and over one another
    x0, z0 : of the first whole one, mm
    margin_x, margin_z : what is left at the left and below, mm; `other_*`: at the right and above
    wider_x, wider_z : the margins that one module fewer would give; 0: there is none to spare
    """

    across: int
    up: int
    x0: float
    z0: float
    margin_x: float
    margin_z: float
    other_x: float
    other_z: float
    wider_x: float = 0.0
    wider_z: float = 0.0


def module_grid(
    box: tuple[float, float, float, float], shape: ModuleShape, gap: float, start: Literal["centered", "corner"]
) -> ModuleGrid:
    """Whole modules in a box (x0, z0, x1, z1), from its middle or its lower left corner; mm.

    Raises
    ------
    PlankError where not one module finds room, or there would be too many
    """
    x0, z0, x1, z1 = box
    across, left_x, wider_x = _along(x1 - x0, shape.width, gap)
    up, left_z, wider_z = _along(z1 - z0, shape.height, gap)
    if across < 1 or up < 1:
        raise PlankError(
            f"A module of {told(shape.width)} x {told(shape.height)} mm finds no room in {told(x1 - x0)} x "
            f"{told(z1 - z0)} mm.",
            "modules",
            "Make it smaller.",
        )
    if across * up > MOST_MODULES:
        raise PlankError(f"That would be more than {MOST_MODULES:,} modules.", "modules", "Make them larger.")
    share = 0.5 if start == "centered" else 0.0
    return ModuleGrid(
        across, up, x0 + left_x * share, z0 + left_z * share, left_x * share, left_z * share,
        left_x * (1 - share), left_z * (1 - share), wider_x * share, wider_z * share,
    )  # fmt: skip


def _along(total: float, size: float, gap: float) -> tuple[int, float, float]:
    """How many fit, what is left, and what one fewer would leave; mm."""
    count = math.floor((total + gap) / (size + gap) + 1e-9)
    left = total - count * size - max(0, count - 1) * gap
    return count, max(0.0, left), left + size + gap if count > 1 else 0.0


class ModuleCut(msgspec.Struct, frozen=True, cache_hash=True):
    """A piece that is cut at the edge of its zone."""

    piece: ModulePiece
    shape: Region


class ModulesLaid(msgspec.Struct, frozen=True, cache_hash=True):
    """Modules of a zone: lower left corners of whole ones from the left and from below, and the cut pieces."""

    shape: ModuleShape
    grid: ModuleGrid
    whole: tuple[tuple[float, float], ...]
    cut: tuple[ModuleCut, ...]


def lay_modules(
    regions: Sequence[Region],
    box: tuple[float, float, float, float],
    shape: ModuleShape,
    gap: float,
    start: Literal["centered", "corner"],
    *,
    cuts: bool,
    least: float,
) -> ModulesLaid:
    """Modules on some regions of a box.

    Parameters
    ----------
    cuts : whether the margins are covered with modules that are cut
    least : cut pieces that are narrower or lower are left out, mm

    Raises
    ------
    PlankError as `module_grid` and `ModuleShape.pieces`
    """
    grid = module_grid(box, shape, gap, start)
    pieces = shape.pieces()
    pitch_x, pitch_z = shape.width + gap, shape.height + gap
    before_x = math.ceil(max(0.0, grid.margin_x - gap) / pitch_x) if cuts else 0
    after_x = math.ceil(max(0.0, grid.other_x - gap) / pitch_x) if cuts else 0
    before_z = math.ceil(max(0.0, grid.margin_z - gap) / pitch_z) if cuts else 0
    after_z = math.ceil(max(0.0, grid.other_z - gap) / pitch_z) if cuts else 0
    plain = len(regions) == 1 and regions[0].is_box
    whole: list[tuple[float, float]] = []
    others: list[tuple[float, float]] = []
    for i in range(-before_x, grid.across + after_x):
        for k in range(-before_z, grid.up + after_z):
            at = (grid.x0 + i * pitch_x, grid.z0 + k * pitch_z)
            is_inner = 0 <= i < grid.across and 0 <= k < grid.up
            if is_inner and (plain or _lies_in(regions, at, shape)):
                whole.append(at)
            elif cuts:
                others.append(at)
    found: list[ModuleCut] = []
    if others:
        shapes = [shifted(path, *at) for at in others for _, path in pieces]
        names = [name for _ in others for name, _ in pieces]
        for region in regions:
            for name, inside in zip(names, within(region, shapes), strict=True):
                for piece in inside:
                    x0, z0, x1, z1 = piece.bounds
                    if x1 - x0 >= least - TOLERANCE and z1 - z0 >= least - TOLERANCE:
                        found.append(ModuleCut(name, piece))
    return ModulesLaid(shape, grid, tuple(whole), tuple(found))


def _lies_in(regions: Sequence[Region], at: tuple[float, float], shape: ModuleShape) -> bool:
    box = box_path(at[0], at[1], at[0] + shape.width, at[1] + shape.height)
    area = math.fsum(p.area for r in regions for p in within(r, [box])[0])
    return area > shape.width * shape.height - 0.5
