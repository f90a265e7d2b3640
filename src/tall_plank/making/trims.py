"""Worktops, moldings and the boards of trims as parts. Their frame is the line's: x along it, y into it, z up."""

from __future__ import annotations

from tall_plank.job import Construction
from tall_plank.job.choices import LEFT, RIGHT
from tall_plank.making.parts import EDGE_NAMES, Asked, Bevel, Cutout, Draft, Part, ShapedEdge, side_of
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import X, Y
from tall_plank.measure.remembered import KeptBy, of_same, remembered
from tall_plank.setout import TrimBoard, Worktop
from tall_plank.setout.panels import MITRE
from tall_plank.stock import Board, Stock

SINK_RADIUS = 15.0
"""mm; corner of a sink's cut-out (common practice: the radius of the router's tool or more)."""


def board_for(stock: Stock, finish: str, thickness: float, use: str, size: tuple[float, float] = (0.0, 0.0)) -> Board:
    """The smallest board of a finish and thickness that a piece of a size (mm) fits on, else the largest.

    Raises
    ------
    PlankError where none is stocked
    """
    found = _by_size(stock, finish, thickness)
    if not found:
        name = stock.finish(finish)
        raise PlankError(
            f"No {thickness:g} mm board in {name.name if name else finish} for the {use}.",
            use,
            "Choose another finish or thickness, or add the board to the stock.",
        )
    length, width = size
    for board in found:
        if length <= board.length and width <= board.width:
            return board
        if board.grain == "none" and width <= board.length and length <= board.width:
            return board
    return found[-1]


_sizes: KeptBy[int, tuple[object, dict[tuple[str, float], list[Board]]]] = KeptBy("making.trims.sizes", 64)


def _by_size(stock: Stock, finish: str, thickness: float) -> list[Board]:
    """The boards of a finish and thickness (mm), the smallest first; found once for a stock."""
    known = of_same(_sizes, stock.boards, dict[tuple[str, float], list[Board]])
    key = (finish, thickness)
    if key not in known:
        known[key] = sorted(
            (b for b in stock.boards if b.finish == finish and abs(b.thickness - thickness) < 0.001),
            key=lambda b: b.length * b.width,
        )
    return known[key]


@remembered(1024)
def worktop_part(top: Worktop, made: Construction, stock: Stock) -> Part:
    """A worktop: face A is its upper side, L1 its front edge.

    Raises
    ------
    PlankError where the stock has no board or edging for it
    """
    width = top.depth - top.rear
    board = board_for(stock, top.finish, top.thickness, "worktop", (top.length, width))
    frame = Frame((top.x, -top.depth, top.bottom), X, Y)
    draft = Draft("worktop", board, (top.length, width), frame, "worktop")
    free = _banded(top)
    if top.is_plain or not top.points:
        if free:
            draft.edge_lengths = _by_side(top, free)
            opened = [name for name, mm in zip(EDGE_NAMES, draft.edge_lengths, strict=True) if mm > 0.5]
        else:
            ends = (("W1", top.open_left, LEFT), ("W2", top.open_right, RIGHT))
            opened = ["L1", *(name for name, is_open, side in ends if is_open and side not in top.legs)]
            opened += ["L2"] if top.open_back else []
        draft.band(stock, made.edging_worktop, *opened)
    else:
        # y of the part runs from its front edge; out of the line's plan the other way.
        outline = tuple((x - top.x, top.depth - out) for x, out in top.points)
        draft.edge_outline(stock, outline, free, made.edging_worktop)
    for side in top.legs:
        draft.operations.append(Bevel("W1" if side == LEFT else "W2", "A", MITRE))
    for edge, profile in top.profiles:
        name = {"front": "L1", "left": "W1", "right": "W2", "back": "L2"}[edge]
        draft.operations.append(ShapedEdge(name, profile))  # type: ignore[arg-type]
    for cut in top.cutouts:
        # cut.back is measured from the rear edge; y of the part from its front edge.
        draft.operations.append(Cutout(cut.x, width - cut.back - cut.depth, cut.width, cut.depth, SINK_RADIUS))
    return draft.done(stock, made.premilling, made.edging_ignored_below)


def _banded(top: Worktop) -> tuple[float, ...]:
    """For every edge of its outline, mm that are banded: they are free, and no end is mitred to a leg."""
    if not top.free:
        return ()
    mitred = [top.x if side == LEFT else top.x + top.length for side in top.legs]
    ends = zip(top.points, (*top.points[1:], *top.points[:1]), strict=True)
    return tuple(
        0.0 if any(abs(p[0] - x) < 0.05 and abs(q[0] - x) < 0.05 for x in mitred) else free
        for free, (p, q) in zip(top.free, ends, strict=True)
    )


def _by_side(top: Worktop, free: tuple[float, ...]) -> tuple[float, float, float, float]:
    """mm that are banded of L1 (front), L2 (rear), W1 (left) and W2 (right) of a rectangle."""
    found = {"L1": 0.0, "L2": 0.0, "W1": 0.0, "W2": 0.0}
    for (p, q), mm in zip(zip(top.points, (*top.points[1:], *top.points[:1]), strict=True), free, strict=True):
        a, b = ((x - top.x, top.depth - out) for x, out in (p, q))
        found[side_of(a, b, top.length, top.depth - top.rear)] = mm
    return found["L1"], found["L2"], found["W1"], found["W2"]


@remembered(1024)
def trim_part(board: TrimBoard, made: Construction, stock: Stock, lent: tuple[Asked, ...] = ()) -> Part:
    """A board of a trim, with what units without gables ask of it (in the line's frame).

    Raises
    ------
    PlankError where the stock has no board or edging for it
    """
    sheet = board_for(stock, board.finish, board.thickness, board.kind, (board.length, board.width))
    draft = Draft(board.kind, sheet, (board.length, board.width), board.frame, board.kind)
    thickness = {"front": made.edging_front, "worktop": made.edging_worktop, "plinth": 0.0}[board.role]
    draft.band(stock, thickness, *board.banded)
    draft.operations += [Bevel(*cut) for cut in board.bevels]
    if board.outline:
        draft.shape(board.outline)
    for work in lent:
        if lies_on(draft, work.at):
            if work.to is None:
                draft.bore(work.at, work.size, work.depth, work.use)
            else:
                draft.groove(work.at, work.to, work.size, work.depth, work.use)
    return draft.done(stock, made.premilling, made.edging_ignored_below)


def lies_on(draft: Draft, point: tuple[float, float, float]) -> bool:
    """Whether a point of the line's frame lies on face A or B of a part. `point`: mm."""
    x, y, z = draft.frame.into(point)
    on_face = abs(z) < 0.01 or abs(z - draft.thickness) < 0.01
    return on_face and 0 <= x <= draft.length and 0 <= y <= draft.width
