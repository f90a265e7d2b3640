"""Worktops and plinths as parts. Their frame's origin is the wall's; x along the wall, y into it, z up."""

from __future__ import annotations

import math

from tall_plank.job import Construction
from tall_plank.making.parts import Cutout, Draft, Part
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_X, X, Y, Z
from tall_plank.setout import Plinth, Worktop
from tall_plank.stock import Board, Stock

SQUARING = 20.0
"""mm left at each end of a board for squaring it (common practice)."""

SINK_RADIUS = 15.0
"""mm; corner of a sink's cut-out (common practice: the radius of the router's tool or more)."""


def _board(stock: Stock, finish: str, thickness: float, use: str) -> Board:
    board = stock.board(finish, thickness)
    if board is None:
        raise PlankError(
            f"No {thickness:g} mm board in {finish} for the {use}.", use, "Choose another finish or thickness."
        )
    return board


def worktop_part(top: Worktop, made: Construction, stock: Stock) -> Part:
    """A worktop: face A is its upper side, L1 its front edge.

    Raises
    ------
    PlankError where the stock has no board or edging for it
    """
    board = _board(stock, top.finish, top.thickness, "worktop")
    frame = Frame((top.x, -top.depth, top.bottom), X, Y)
    draft = Draft("worktop", board, (top.length, top.depth), frame, "worktop")
    ends = [name for name, is_open in (("W1", top.open_left), ("W2", top.open_right)) if is_open]
    draft.band(stock, made.edging_worktop, "L1", *ends)
    for cut in top.cutouts:
        # cut.back is measured from the rear edge; y of the part from its front edge.
        draft.operations.append(Cutout(cut.x, top.depth - cut.back - cut.depth, cut.width, cut.depth, SINK_RADIUS))
    return draft.done(stock, made.premilling, made.edging_ignored_below)


def plinth_parts(plinth: Plinth, made: Construction, stock: Stock) -> tuple[Part, ...]:
    """Plinth boards: face A looks back, L1 is the lower edge. One longer than its board comes in equal pieces,
    butted.

    Raises
    ------
    PlankError where the stock has no board for it
    """
    board = _board(stock, plinth.finish, plinth.thickness, "plinth")
    count = max(1, math.ceil(plinth.length / (board.length - 2 * SQUARING)))
    length = plinth.length / count
    parts = []
    for i in range(count):
        frame = Frame((plinth.x + length * (i + 1), -plinth.front, 0.0), NEG_X, Z)
        draft = Draft("plinth", board, (length, plinth.height), frame, "plinth")
        parts.append(draft.done(stock, made.premilling, made.edging_ignored_below))
    return tuple(parts)
