"""Equal panels that rise along a stair as parts: plumb stiles with slanted ends, rails along the rake with plumb cuts,
panels that are parallelograms (common practice)."""

from __future__ import annotations

import math

from tall_plank.job.treatment import Panels
from tall_plank.making.paneling.places import Box, Places, finishes_of
from tall_plank.making.paneling.shop import FieldShop
from tall_plank.making.paneling.splitting import joints_in, pieces_between
from tall_plank.making.parts import Draft, PartRole
from tall_plank.measure import Frame, PlankError, told
from tall_plank.measure.paths import path_of
from tall_plank.measure.regions import Region
from tall_plank.setout.paneling.laid import Stretch
from tall_plank.setout.paneling.raked import RakeLine
from tall_plank.setout.paneling.values import PanelSizes
from tall_plank.stock import Board

EDGE_TRIM = 20.0
"""mm of a board's width that saws take off its edges."""


def make_raked(shop: FieldShop, panels: Panels, sizes: PanelSizes, s: Stretch, places: Places) -> float:
    """Every piece of a raking stretch; mm from the wall to the face of its panels.

    Raises
    ------
    PlankError where the stock has no board for it
    """
    frame, inner = finishes_of(shop, panels)
    back = shop.laid.fixing
    out = back + sizes.board
    if sizes.board > 0:
        _boards(shop, inner, sizes.board, s, places, back)
    if panels.style == "molded":
        return out
    if panels.style == "raised":
        for box in places.panels:
            _plumb(shop, inner, sizes.frame, "panel", "wall panel", s.line, box, out)
        return out
    for box in places.stiles:
        _plumb(shop, frame, sizes.frame, "stile", "wall stile", s.line, box, out)
    for box in places.rails:
        _rail(shop, frame, sizes.frame, s.line, box, places, out)
    return out


def _quad(line: RakeLine, box: Box) -> Region:
    """A box whose heights are those at the left end of its stretch, where it lies on the wall."""
    x0, z0, x1, z1 = box
    return Region(path_of(line.quad((x0, z0 - line.z, x1, z1 - line.z))))


def _plumb(
    shop: FieldShop, finish: str, thickness: float, name: str, role: PartRole, line: RakeLine, box: Box, back: float
) -> None:
    """A piece whose sides are plumb and whose ends rake."""
    region = _quad(line, box)
    x0, z0, x1, z1 = region.bounds
    board = shop.board(finish, thickness, name, (z1 - z0, x1 - x0))
    edges = ("left", "right") if role == "wall stile" else ("left", "right", "bottom", "top")
    draft = shop.piece(name, board, (x0, z0, x1, z1), back, role, upright=True, edges=edges)
    shop.shaped(draft, region, upright=True)
    draft.fixed = "glued to the board behind"
    if role == "wall panel":
        shop.cut_outlets(draft, (x0, z0, x1, z1), upright=True, inside=region)
    shop.add(draft)


def _rail(
    shop: FieldShop, finish: str, thickness: float, line: RakeLine, box: Box, places: Places, back: float
) -> None:
    """A rail along the rake in lengths that meet behind stiles, its ends cut plumb."""
    x0, z0, x1, z1 = box
    long = math.hypot(1.0, line.slope)
    width = (z1 - z0) / long
    lean = width * abs(line.slope)
    board = shop.board(finish, thickness, "rail", ((x1 - x0) * long + lean, width))
    most = (board.usable_length - lean) / long
    cuts, hidden = joints_in(x1 - x0, most, [x - x0 for x in places.lines])
    if cuts and not hidden:
        whole = told((x1 - x0) * long + lean)
        shop.mind(
            f"A rail of {whole} mm is longer than {board.name}: it is joined with a loose tongue.",
            "Add a longer board to the stock to have it in one piece.",
        )
    for a, b in pieces_between(x0, x1, cuts):
        shop.add(_rail_piece(shop, finish, thickness, line, (a, z0, b, z1), back))


def _rail_piece(shop: FieldShop, finish: str, thickness: float, line: RakeLine, box: Box, back: float) -> Draft:
    """A rail: its length is that between its long points, its grain runs along the rake."""
    x0, z0, x1, z1 = box
    long = math.hypot(1.0, line.slope)
    width, run = (z1 - z0) / long, (x1 - x0) * long
    c, s = 1.0 / long, line.slope / long
    lean = width * line.slope
    # Its lower edge starts at the rectangle's corner where it rises, its upper one where it falls.
    first = min(0.0, lean)
    foot = line.at(x0) - line.z + z0
    origin = (x0 + first * c, -back, foot + first * s)
    run, lean, width = (round(mm, 6) for mm in (run, lean, width))
    first, length = min(0.0, lean), run + abs(lean)
    board = shop.board(finish, thickness, "rail", (length, width))
    draft = Draft("rail", board, (length, width), Frame(origin, (c, 0.0, s), (-s, 0.0, c)), "wall rail")
    low, high = abs(first), lean - first
    draft.shape(((low, 0.0), (low + run, 0.0), (high + run, width), (high, width)))
    if not board.coated:
        try:
            draft.band(shop.stock, shop.made.edging_front, "L1", "L2")
        except PlankError as error:
            shop.mind(error.what, error.remedy)
    draft.fixed = "glued to the board behind"
    return draft


def _boards(shop: FieldShop, finish: str, thickness: float, s: Stretch, places: Places, back: float) -> None:
    """The boards behind, parted behind stiles so that each comes out of one board."""
    high = s.z1 - s.z0
    line = s.line
    board = shop.board(finish, thickness, "wall", (high + abs(line.slope) * (s.x1 - s.x0), s.x1 - s.x0))
    most = min(board.width - EDGE_TRIM, _reach(board, high, line.slope))
    if most <= 1.0:
        raise PlankError(
            f"A raking band {told(high)} mm high does not come out of {board.name}.",
            "height",
            "Choose a larger board, or a lower band.",
        )
    cuts, hidden = joints_in(s.x1 - s.x0, most, [x - s.x0 for x in places.lines])
    if not hidden:
        shop.mind(
            f"Boards of {board.name} do not cover a raking band of {told(s.x1 - s.x0)} mm in one piece: they butt, "
            "with a loose tongue.",
            "Choose a larger board, or another number of panels, to hide the joint.",
        )
    for a, b in pieces_between(s.x0, s.x1, cuts):
        region = _quad(line, (a, s.z0, b, s.z1))
        draft = shop.piece("board", board, region.bounds, back, "wall board", upright=True)
        shop.shaped(draft, region, upright=True)
        shop.cut_outlets(draft, region.bounds, upright=True, inside=region)
        shop.add(draft)


def _reach(board: Board, high: float, slope: float) -> float:
    """mm along that a raking piece may have so that its upright rectangle comes out of a board."""
    return (board.usable_length - high) / abs(slope) if slope else board.usable_length
