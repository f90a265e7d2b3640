"""A wall field while it is made: pieces put on the wall, their boards, what cannot be made."""

from __future__ import annotations

from dataclasses import dataclass, field

import msgspec

from tall_plank.job.standard import Construction
from tall_plank.making.parts import Cutout, Draft, Item, Part, PartRole, Problem
from tall_plank.making.trims import board_for
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_X, X, Z
from tall_plank.measure.outlines import Points
from tall_plank.measure.paths import fitting_chords
from tall_plank.measure.regions import Region, box_path, within
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.setout.paneling.grid import Outlet
from tall_plank.stock import Board, Stock

OUTLET_RADIUS = 3.0
"""mm; corners of a cut-out for a power point (the radius of a small mill)."""

SCREW_PITCH = 400.0
"""mm between screws along a batten or an edge (common practice)."""


@dataclass
class FieldShop:
    """A field while it is made.

    Attributes
    ----------
    finish : of fronts in the scheme, for what has none of its own
    carcass : finish of what nobody sees: battens
    """

    laid: FieldLaid
    stock: Stock
    finish: str
    carcass: str
    pieces: list[Part] = field(default_factory=list)
    items: list[Item] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)
    alike: dict[tuple[object, ...], Part] = field(default_factory=dict)
    """The first of pieces that differ in their place only."""

    @property
    def made(self) -> Construction:
        return self.laid.made

    def board(self, finish: str, thickness: float, use: str, size: tuple[float, float] = (0.0, 0.0)) -> Board:
        """The board for a piece of a size (mm).

        Raises
        ------
        PlankError where none is stocked
        """
        return board_for(self.stock, finish, thickness, use, size)

    def piece(
        self,
        name: str,
        board: Board,
        box: tuple[float, float, float, float],
        back: float,
        role: PartRole,
        *,
        upright: bool,
        edges: tuple[str, ...] = (),
    ) -> Draft:
        """A piece flat on the wall, its face A to the room; its grain runs up, or along.

        Parameters
        ----------
        box : x0, z0, x1, z1 on the wall, mm
        back : mm from the wall to its face B
        edges : of those that are seen, banded where the board needs it: left, right, bottom, top
        """
        x0, z0, x1, z1 = box
        # Alike pieces are alike to the last digit, wherever they lie.
        wide, high = round(x1 - x0, 6), round(z1 - z0, 6)
        if upright:
            draft = Draft(name, board, (high, wide), Frame((x1, -back, z0), Z, NEG_X), role)
            sides = {"bottom": "W1", "top": "W2", "right": "L1", "left": "L2"}
        else:
            draft = Draft(name, board, (wide, high), Frame((x0, -back, z0), X, Z), role)
            sides = {"left": "W1", "right": "W2", "bottom": "L1", "top": "L2"}
        laid = self.laid
        for side, at, end, mm in (
            ("left", x0, laid.x0, laid.scribes[0]),
            ("right", x1, laid.x1, laid.scribes[1]),
            ("bottom", z0, laid.z0, laid.scribes[2]),
            ("top", z1, laid.z1, laid.scribes[3]),
        ):
            if mm > 0 and abs(at - end) < 0.01:
                draft.scribes[sides[side]] = mm
        if not board.coated:
            try:
                draft.band(self.stock, self.made.edging_front, *(sides[e] for e in edges))
            except PlankError as error:
                self.mind(error.what, error.remedy)
        return draft

    def shaped(self, draft: Draft, region: Region, *, upright: bool) -> None:
        """Give a piece the outline of a region, and a cut-out for every upright rectangular hole in it.

        Raises
        ------
        PlankError where a hole is no rectangle
        """
        x0, z0, x1, _ = region.bounds

        def turned(points: Points) -> Points:
            placed = ((z - z0, x1 - x) if upright else (x - x0, z - z0) for x, z in points)
            return tuple((round(u, 6) + 0.0, round(v, 6) + 0.0) for u, v in placed)

        if not Region(region.outer).is_box:
            draft.shape(turned(fitting_chords(region.outer)))
        for hole in region.holes:
            if not Region(hole).is_box:
                raise PlankError(
                    "A board has a hole that is no rectangle.",
                    "hole",
                    "Part the field there, so that pieces meet at it.",
                )
            a0, b0, a1, b1 = Region(hole).bounds
            (u0, v0), (u1, v1) = turned(((a0, b0), (a1, b1)))
            u, v = min(u0, u1), min(v0, v1)
            draft.operations.append(Cutout(u, v, abs(u1 - u0), abs(v1 - v0), OUTLET_RADIUS))

    def cut_outlets(
        self, draft: Draft, box: tuple[float, float, float, float], *, upright: bool, inside: Region | None = None
    ) -> None:
        """Cut out what power points need of a piece that has them wholly inside; one on its edge is told.

        Parameters
        ----------
        box : of the piece, mm
        inside : what of its box it takes, where that is not all
        """
        x0, z0, x1, z1 = box
        for o in self.laid.outlets:
            a0, b0, a1, b1 = self.around(o)
            if a0 >= x1 or a1 <= x0 or b0 >= z1 or b1 <= z0:
                continue
            if inside is not None:
                whole = (a1 - a0) * (b1 - b0)
                cut = sum(r.area for r in within(Region(box_path(a0, b0, a1, b1)), [inside.outer])[0])
                if cut < 0.01:
                    continue
                over = cut < whole - 0.01
            else:
                over = a0 < x0 or a1 > x1 or b0 < z0 or b1 > z1
            if over:
                self.mind(
                    f"The {o.name} lies on the edge of the {draft.name}.",
                    "Move it, or change the number of panels, so that it lies within one piece.",
                )
                continue
            u, v = (b0 - z0, x1 - a1) if upright else (a0 - x0, b0 - z0)
            size = (b1 - b0, a1 - a0) if upright else (a1 - a0, b1 - b0)
            draft.operations.append(Cutout(u, v, *size, OUTLET_RADIUS))

    def around(self, o: Outlet) -> tuple[float, float, float, float]:
        """What is cut out for an outlet: x0, z0, x1, z1 with its clearance, mm."""
        clear = self.made.wall_clear
        return (o.low - clear, o.bottom - clear, o.high + clear, o.top + clear)

    def add(self, draft: Draft) -> None:
        """A piece is done. Rectangles that differ in their place only are worked out once."""
        plain = not draft.operations and not draft.outline and not draft.bend
        key = (
            draft.name, draft.board.code, draft.length, draft.width, draft.role, draft.fixed, draft.frame.x,
            draft.frame.y, tuple(draft.edging.items()), tuple(draft.scribes.items()),
        )  # fmt: skip
        first = self.alike.get(key) if plain else None
        if first is not None:
            self.pieces.append(msgspec.structs.replace(first, frame=draft.frame))
            return
        part = draft.done(self.stock, self.made.premilling, self.made.edging_ignored_below)
        if plain:
            self.alike[key] = part
        self.pieces.append(part)

    def mind(self, what: str, remedy: str) -> None:
        """Something to mind, told once."""
        problem = Problem(what, remedy, "mind")
        if problem not in self.problems:
            self.problems.append(problem)

    def wrong(self, error: PlankError) -> None:
        """Something that cannot be made, told once."""
        problem = Problem(error.what, error.remedy)
        if problem not in self.problems:
            self.problems.append(problem)
