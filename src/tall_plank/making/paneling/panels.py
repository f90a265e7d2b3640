"""Equal panels as parts: boards behind, stiles and rails, panels, and the moldings in them.

End stiles run from floor to top, rails between them, other stiles between rails (common practice). A framed rail
includes its tongues: length = between stiles + 2 groove depths; a panel is its sight size + 2 (groove depth -
clearance).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from tall_plank.job.treatment import Panels
from tall_plank.making.paneling.places import Box, Places, finishes_of, places_of
from tall_plank.making.paneling.raked import make_raked
from tall_plank.making.paneling.shop import FieldShop
from tall_plank.making.paneling.splitting import joints_in, pieces_between
from tall_plank.making.parts import Draft, Face, Groove, PartRole, Rebate
from tall_plank.measure import PlankError, told
from tall_plank.measure.regions import Region, box_path, within
from tall_plank.setout.frames import MoldingFrame
from tall_plank.setout.paneling.laid import Stretch, ZoneLaid
from tall_plank.setout.paneling.raked import RakeLine
from tall_plank.setout.paneling.values import PanelSizes, panel_sizes
from tall_plank.stock import Board

MOVES = 0.0037
"""Change of width of solid timber for each percent of moisture, as a share of it: the greatest of the cabinet timbers
across their growth rings (after the Wood Handbook, table of dimension change coefficients; from memory)."""

MOISTURE = 4.0
"""Percent by which timber indoors gains and loses between winter and summer (common practice)."""


def make_panels(shop: FieldShop, zone: ZoneLaid, panels: Panels) -> list[MoldingFrame]:
    """Every piece of a zone of panels; the moldings in it.

    Raises
    ------
    PlankError where the stock has no board for it
    """
    sizes = panel_sizes(panels, shop.made)
    found: list[MoldingFrame] = []
    for s in zone.stretches:
        if s.grid is None:
            continue
        places = places_of(s, s.grid)
        if s.rake:
            face = make_raked(shop, panels, sizes, s, places)
        elif panels.style == "framed":
            _framed(shop, panels, sizes, places)
            face = shop.laid.fixing + (sizes.frame + shop.made.panel_thickness) / 2
        else:
            _planted(shop, panels, sizes, s, places)
            face = shop.laid.fixing + sizes.board
        for o, clash in ((c.outlet, c) for c in s.clashes):
            counts = " or ".join(str(n) for n in clash.counts)
            ways = [f"take {counts} panels"] if counts else []
            if clash.shift is not None:
                ways.append(f"shift all by {told(abs(clash.shift))} mm to the {'right' if clash.shift > 0 else 'left'}")
            shop.mind(f"The {o.name} stands on a stile.", f"{' or '.join(ways).capitalize() or 'Move it'}.")
        if panels.molding:
            found += _moldings(shop, panels, sizes, places, face, s.line)
    return found


# --- planted on a board


def _planted(shop: FieldShop, panels: Panels, sizes: PanelSizes, s: Stretch, places: Places) -> None:
    frame, inner = finishes_of(shop, panels)
    back = shop.laid.fixing
    hidden = (*places.lines,) if panels.style != "molded" else ()
    if sizes.board > 0:
        cover_board(shop, inner, sizes.board, (s.x0, s.z0, s.x1, s.z1), back, hidden, places.levels)
    if panels.style == "molded":
        return
    out = back + sizes.board
    if panels.style == "raised":
        board = shop.board(inner, sizes.frame, "panel", (_high(places.panels), _wide(places.panels)))
        if board.solid:
            shop.mind(
                "Solid panels that are glued down crack when they shrink.",
                "Take frame and panel, where they are free to move, or a board that does not move.",
            )
        for box in places.panels:
            draft = shop.piece(
                "panel", board, box, out, "wall panel", upright=True, edges=("left", "right", "bottom", "top")
            )
            draft.fixed = "glued to the board behind"
            shop.cut_outlets(draft, box, upright=True)
            shop.add(draft)
        return
    pieces: list[tuple[str, PartRole, Box, bool]] = [("stile", "wall stile", b, True) for b in places.stiles]
    pieces += [("rail", "wall rail", b, False) for b in places.rails]
    for name, role, box, upright in pieces:
        for one in _in_lengths(shop, frame, sizes.frame, name, box, places.lines, upright=upright):
            edges = ("left", "right") if upright else ("bottom", "top")
            board = shop.board(frame, sizes.frame, name, _size(one, upright=upright))
            draft = shop.piece(name, board, one, out, role, upright=upright, edges=edges)
            draft.fixed = "glued to the board behind"
            shop.add(draft)


def _size(box: Box, *, upright: bool) -> tuple[float, float]:
    x0, z0, x1, z1 = box
    return (z1 - z0, x1 - x0) if upright else (x1 - x0, z1 - z0)


def _high(boxes: Sequence[Box]) -> float:
    return max(b[3] - b[1] for b in boxes)


def _wide(boxes: Sequence[Box]) -> float:
    return max(b[2] - b[0] for b in boxes)


def _in_lengths(
    shop: FieldShop, finish: str, thickness: float, name: str, box: Box, lines: Sequence[float], *, upright: bool
) -> list[Box]:
    """The pieces of a stile or rail that is longer than its board: rails meet at the middle of a stile."""
    x0, z0, x1, z1 = box
    length, width = _size(box, upright=upright)
    board = shop.board(finish, thickness, name, (length, width))
    start = z0 if upright else x0
    cuts, hidden = joints_in(length, board.usable_length, () if upright else [line - x0 for line in lines])
    if cuts and (upright or not hidden or name == "rail"):
        shop.mind(
            f"A {name} of {told(length)} mm is longer than {board.name}: it is joined with a loose tongue.",
            "Add a longer board to the stock to have it in one piece.",
        )
    ends = pieces_between(start, start + length, cuts)
    return [(x0, a, x1, b) if upright else (a, z0, b, z1) for a, b in ends]


def cover_board(
    shop: FieldShop,
    finish: str,
    thickness: float,
    box: Box,
    back: float,
    lines: Sequence[float],
    levels: Sequence[float],
    *,
    regions: Sequence[Region] = (),
    role: PartRole = "wall board",
) -> None:
    """Boards that cover a rectangle, parted where joints are hidden.

    Parameters
    ----------
    lines, levels : places along the wall and above the floor where a joint is hidden, mm
    regions : what of the rectangle is covered; none: all of it

    Raises
    ------
    PlankError where the stock has no such board
    """
    x0, z0, x1, z1 = box
    wide, high = x1 - x0, z1 - z0
    board = shop.board(finish, thickness, "wall", (high, wide))
    upright = board.grain != "none" or high > board.width - 20.0
    most_high, most_wide = (board.usable_length, _usable_width(board))
    if not upright:
        most_high, most_wide = most_wide, most_high
    across, hidden_x = joints_in(wide, most_wide, [line - x0 for line in lines])
    up, hidden_z = joints_in(high, most_high, [z - z0 for z in levels])
    if not (hidden_x and hidden_z):
        shop.mind(
            f"Boards of {board.name} do not cover {told(wide)} x {told(high)} mm in one piece: they butt, with a loose "
            "tongue.",
            "Choose a larger board, or another number of panels, to hide the joint.",
        )
    for a, b in pieces_between(x0, x1, across):
        for c, d in pieces_between(z0, z1, up):
            part = box_path(a, c, b, d)
            shapes = [p for r in regions for p in within(r, [part])[0]] if regions else [Region(part)]
            for region in shapes:
                own = region.bounds
                draft = shop.piece("board", board, own, back, role, upright=upright)
                shop.shaped(draft, region, upright=upright)
                shop.cut_outlets(draft, own, upright=upright)
                shop.add(draft)


def _usable_width(board: Board) -> float:
    return board.width - 20.0


# --- frame and panel


def _framed(shop: FieldShop, panels: Panels, sizes: PanelSizes, places: Places) -> None:
    made = shop.made
    frame, inner = finishes_of(shop, panels)
    deep, play = made.frame_groove_depth, made.frame_panel_clearance
    thick, panel = sizes.frame, made.panel_thickness
    wide = panel + made.groove_width_play
    shoulder = (thick - wide) / 2
    if shoulder <= 1.0:
        raise PlankError(
            f"A {panel:g} mm panel leaves no cheeks in a {thick:g} mm frame.",
            "frame",
            "Choose a thinner panel or a thicker frame.",
        )
    back = shop.laid.fixing
    ends = places.stiles[:2]
    for box in places.stiles:
        end = box in ends
        own = box if end else (box[0], box[1] - deep, box[2], box[3] + deep)
        board = shop.board(frame, thick, "stile", _size(own, upright=True))
        draft = shop.piece("stile", board, own, back, "wall stile", upright=True)
        # L1 is its right edge, L2 its left one.
        inner_edges: tuple[Face, ...] = ("L1", "L2") if not end else ("L1",) if box == ends[0] else ("L2",)
        for edge in inner_edges:
            _groove(draft, edge, thick, wide, deep)
        if not end:
            _tongues(draft, deep, shoulder)
        shop.add(draft)
    rails = sorted(places.rails, key=lambda b: b[1])
    for i, box in enumerate(rails):
        whole = (box[0] - deep, box[1], box[2] + deep, box[3])
        for own in _in_lengths(shop, frame, thick, "rail", whole, places.lines, upright=False):
            board = shop.board(frame, thick, "rail", _size(own, upright=False))
            draft = shop.piece("rail", board, own, back, "wall rail", upright=False)
            for edge, is_open in (("L1", i > 0), ("L2", i + 1 < len(rails))):
                if is_open:
                    _groove(draft, edge, thick, wide, deep)
            true_ends: tuple[tuple[Edge, bool], ...] = (("W1", own[0] == whole[0]), ("W2", own[2] == whole[2]))
            ends_here = [end for end, is_end in true_ends if is_end]
            _tongues(draft, deep, shoulder, ends_here)
            if len(ends_here) < 2:
                draft.fixed = "butted to the next length, with a loose tongue"
            shop.add(draft)
    reach = deep - play
    board = shop.board(inner, panel, "panel", (_high(places.panels) + 2 * reach, _wide(places.panels) + 2 * reach))
    moves = _wide(places.panels) * MOVES * MOISTURE
    if board.solid and moves / 2 > play + 1e-9:
        shop.mind(
            f"Solid panels {told(_wide(places.panels))} mm wide move by {told(round(moves, 1))} mm; their grooves "
            f"leave {told(2 * play)} mm.",
            f"Give panels a clearance of {told(round(moves / 2 + 0.05, 1))} mm in the standard, or make them narrower.",
        )
    for box in places.panels:
        own = (box[0] - reach, box[1] - reach, box[2] + reach, box[3] + reach)
        draft = shop.piece("panel", board, own, back + (thick - panel) / 2, "wall panel", upright=True)
        draft.fixed = "loose in its grooves"
        shop.cut_outlets(draft, own, upright=True)
        shop.add(draft)


def _groove(draft: Draft, edge: Face, thick: float, wide: float, deep: float) -> None:
    draft.operations.append(Groove(edge, 0.0, thick / 2, draft.length, thick / 2, wide, deep, "panel"))


Edge = Literal["W1", "W2"]


def _tongues(draft: Draft, deep: float, shoulder: float, ends: Sequence[Edge] = ("W1", "W2")) -> None:
    for end in ends:
        for face in ("A", "B"):
            draft.operations.append(Rebate(face, end, deep, shoulder))


# --- moldings in panels


def _moldings(
    shop: FieldShop, panels: Panels, sizes: PanelSizes, places: Places, face: float, line: RakeLine
) -> list[MoldingFrame]:
    profile = shop.stock.profile(panels.molding)
    if profile is None:
        raise PlankError(f"The stock has no profile {panels.molding}.", "molding", "Choose another molding.")
    for box in places.panels:
        if min(box[2] - box[0], box[3] - box[1]) < 2 * profile.height + 10.0:
            raise PlankError(
                f"A molding {told(profile.height)} mm wide finds no room in panels of {told(box[2] - box[0])} x "
                f"{told(box[3] - box[1])} mm.",
                "molding",
                "Choose a narrower molding, or fewer panels.",
            )
    out = face + (sizes.frame if panels.style == "raised" else 0.0)
    rake = math.degrees(math.atan(line.slope))
    lifts = [line.at(box[0]) - line.z for box in places.panels]
    return [
        MoldingFrame(x0, z0 + up, x1, z1 + up, out, profile.code, rake=rake)
        for (x0, z0, x1, z1), up in zip(places.panels, lifts, strict=True)
    ]
