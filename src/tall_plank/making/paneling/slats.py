"""Slats and flat boards as parts: ripped from boards of their finish, on a board behind or on the battens."""

from __future__ import annotations

import math

from tall_plank.job.treatment import Boards, Slats
from tall_plank.making.paneling.panels import cover_board
from tall_plank.making.paneling.shop import FieldShop
from tall_plank.making.paneling.splitting import LEAST_PIECE, joints_in, pieces_between
from tall_plank.making.parts import Draft, Groove
from tall_plank.measure import Frame, PlankError, told
from tall_plank.measure.frames import Vec
from tall_plank.measure.paths import fitting_chords, rotated
from tall_plank.measure.regions import Region, box_path, within, without
from tall_plank.setout.paneling.laid import ZoneLaid
from tall_plank.setout.paneling.slats import Slat
from tall_plank.setout.paneling.values import board_thickness, mm_of, slat_board, slat_depth
from tall_plank.stock import Board


def make_slats(shop: FieldShop, zone: ZoneLaid, slats: Slats) -> None:
    """Every slat of a zone, and the board behind.

    Raises
    ------
    PlankError where the stock has no board for it
    """
    made, laid = shop.made, shop.laid
    depth, board = slat_depth(slats, made), slat_board(slats, made)
    finish = slats.finish or shop.finish
    if board > 0:
        # Joints of the board lie behind the middle of a slat.
        lines = sorted({round((s.shape.bounds[0] + s.shape.bounds[2]) / 2, 3) for s in zone.slats if s.whole})
        for region in zone.regions:
            cover_board(
                shop, slats.board_finish or finish, board, region.bounds, laid.fixing, lines, (), regions=(region,)
            )
    back = laid.fixing + board
    if zone.dropped:
        shop.mind(
            f"{_pieces(zone.dropped)} left out: narrower or shorter than {told(slats.least.mm)} mm.",
            "Change the gaps, or the least piece, to have them made.",
        )
    holes = [box_path(*shop.around(o)) for o in laid.outlets]
    for slat in zone.slats:
        pieces = [slat.shape]
        for hole in holes:
            pieces = [p for one in pieces for p in without(one, [hole])]
        for piece in pieces:
            _slat(shop, piece, slat, slats.angle, finish, depth, back)


def _pieces(count: int) -> str:
    return "1 piece of a slat is" if count == 1 else f"{count} pieces of slats are"


def _slat(shop: FieldShop, shape: Region, slat: Slat, angle: float, finish: str, depth: float, back: float) -> None:
    """A slat, in lengths of its board."""
    if angle:
        _leaning(shop, shape, angle, finish, depth, back)
        return
    x0, z0, x1, z1 = bounds = shape.bounds
    board = shop.board(finish, depth, "slats", (z1 - z0, x1 - x0))
    if z1 - z0 <= board.usable_length:
        draft = shop.piece("slat", board, bounds, back, "slat", upright=True, edges=_bare_edges(shop, board.solid))
        if not slat.whole:
            shop.shaped(draft, shape, upright=True)
        draft.fixed = "glued to what is behind"
        shop.add(draft)
        return
    cuts, _ = joints_in(z1 - z0, board.usable_length)
    if cuts:
        _tell_joined(shop, z1 - z0, board)
        # Joints of neighbours lie apart: every second slat is parted elsewhere.
        if slat.strip % 2 and len(cuts) == 1:
            cuts = (min(board.usable_length, z1 - z0 - LEAST_PIECE),)
    for a, b in pieces_between(z0, z1, cuts):
        for part in within(shape, [box_path(x0, a, x1, b)])[0] if cuts else [shape]:
            draft = shop.piece(
                "slat", board, part.bounds, back, "slat", upright=True, edges=_bare_edges(shop, board.solid)
            )
            shop.shaped(draft, part, upright=True)
            draft.fixed = "glued to what is behind"
            shop.add(draft)


def _tell_joined(shop: FieldShop, length: float, board: Board) -> None:
    shop.mind(
        f"Slats of {told(length)} mm are longer than {board.name}: they are joined in turns.",
        "Add a longer board to the stock to have them in one piece.",
    )


def _bare_edges(shop: FieldShop, solid: bool) -> tuple[str, ...]:
    return () if solid else ("left", "right")


def _leaning(shop: FieldShop, shape: Region, angle: float, finish: str, depth: float, back: float) -> None:
    """A slat that leans: its length runs along it."""
    x0, z0, x1, z1 = shape.bounds
    about = ((x0 + x1) / 2, (z0 + z1) / 2)
    flat = Region(rotated(shape.outer, angle, about))
    a, c, b, d = flat.bounds
    board = shop.board(finish, depth, "slats", (d - c, b - a))
    cuts, _ = joints_in(d - c, board.usable_length)
    if cuts:
        _tell_joined(shop, d - c, board)
        for low, high in pieces_between(c, d, cuts):
            for part in within(flat, [box_path(a - 1.0, low, b + 1.0, high)])[0]:
                _leaning_piece(shop, part, board, angle, about, back)
        return
    _leaning_piece(shop, flat, board, angle, about, back)


def _leaning_piece(
    shop: FieldShop, flat: Region, board: Board, angle: float, about: tuple[float, float], back: float
) -> None:
    """A piece of a leaning slat, turned upright about a point."""
    a, c, b, d = flat.bounds
    turn = math.radians(angle)
    along: Vec = (math.sin(turn), 0.0, math.cos(turn))
    across: Vec = (-math.cos(turn), 0.0, math.sin(turn))
    # The corner at the right end of its foot, turned back to the wall.
    dx, dz = b - about[0], c - about[1]
    foot = (
        about[0] + dx * math.cos(turn) + dz * math.sin(turn), -back,
        about[1] - dx * math.sin(turn) + dz * math.cos(turn),
    )  # fmt: skip
    draft = Draft("slat", board, (d - c, b - a), Frame(foot, along, across), "slat")
    if not flat.is_box:
        draft.shape(tuple((z - c, b - x) for x, z in fitting_chords(flat.outer)))
    draft.fixed = "glued to what is behind"
    shop.add(draft)


def make_boards(shop: FieldShop, zone: ZoneLaid, boards: Boards) -> None:
    """Flat boards with gaps between them, and their grooves.

    Raises
    ------
    PlankError where the stock has no board for it
    """
    made, laid = shop.made, shop.laid
    finish, thick = boards.finish or shop.finish, board_thickness(boards, made)
    gap = mm_of(boards.gap, made.wall_gap)
    for region in zone.regions:
        x0, z0, x1, z1 = region.bounds
        wide, high = x1 - x0, z1 - z0
        board = shop.board(finish, thick, "boards", (high, wide))
        most = board.width - 20.0
        count = boards.count or max(1, math.ceil((wide + gap) / (most + gap) - 1e-9))
        own = (wide - (count - 1) * gap) / count
        if own < 20.0:
            raise PlankError(f"{count} boards find no room in {told(wide)} mm.", "count", "Take fewer boards.")
        cuts, _ = joints_in(high, board.usable_length)
        for i in range(count):
            a = x0 + i * (own + gap)
            ends = [
                (s + (gap / 2 if s > z0 + 1.0 else 0.0), e - (gap / 2 if e < z1 - 1.0 else 0.0))
                for s, e in pieces_between(z0, z1, cuts)
            ]
            for c, d in ends:
                for piece in within(region, [box_path(a, c, a + own, d)])[0]:
                    box = piece.bounds
                    draft = shop.piece(
                        "board",
                        board,
                        box,
                        laid.fixing,
                        "wall board",
                        upright=True,
                        edges=("left", "right", "bottom", "top"),
                    )
                    shop.shaped(draft, piece, upright=True)
                    shop.cut_outlets(draft, box, upright=True)
                    if boards.groove.mm > 0:
                        _grooves(draft, boards, piece, zone.datum)
                    shop.add(draft)


def _grooves(draft: Draft, boards: Boards, piece: Region, start: float) -> None:
    """Upright grooves in a board's face at a pitch about a datum (mm along the wall), as long as the board is there."""
    wide, pitch = boards.groove.mm, boards.groove_pitch.mm
    if wide > pitch - 1.0:
        raise PlankError(
            f"Grooves {told(wide)} mm wide leave no wood at a pitch of {told(pitch)} mm.",
            "groove",
            "Make the pitch larger.",
        )
    if boards.groove_depth.mm > draft.thickness - 2.0:
        raise PlankError(
            f"Grooves {told(boards.groove_depth.mm)} mm deep leave less than 2 mm of a board of "
            f"{told(draft.thickness)} mm.",
            "groove",
            "Make them shallower.",
        )
    x0, z0, x1, z1 = piece.bounds
    first = math.ceil((x0 + wide / 2 + 1.0 - start) / pitch)
    i = first
    while (x := start + i * pitch) < x1 - wide / 2 - 1.0:
        for strip in within(piece, [box_path(x - wide / 2, z0 - 1.0, x + wide / 2, z1 + 1.0)])[0]:
            low, high = (
                strip.bounds[1],
                min(z for _, z, _ in strip.outer if z > (strip.bounds[1] + strip.bounds[3]) / 2),
            )
            draft.operations.append(
                Groove("A", low - z0, x1 - x, high - z0, x1 - x, wide, boards.groove_depth.mm, "face")
            )
        i += 1
