"""What is longer than its stock and made in pieces: the length asked for beside those that are made (MK7)."""

from __future__ import annotations

from tall_plank.job import Source
from tall_plank.setout.layout import RoomLayout

NEAR = 0.5
"""mm; boards nearer end to end than this are pieces of one length."""


def in_pieces(room: RoomLayout, source: Source) -> tuple[tuple[str, float, tuple[float, ...]], ...]:
    """Worktops and plinths of a run or an island that are made in several pieces.

    Returns
    -------
    (word, length asked for, lengths of the pieces), mm, from left to right on each wall
    """
    found: list[tuple[str, float, tuple[float, ...]]] = []
    spans: dict[tuple[str, str, float], list[tuple[float, float]]] = {}
    for top in room.worktops:
        if top.source == source:
            spans.setdefault(("worktop", top.wall_id, top.depth), []).append((top.x, top.length))
    for board in room.boards:
        if board.source == source and board.kind == "plinth" and abs(board.frame.x[0]) > 0.99:
            x, y, _ = board.frame.origin
            left = x if board.frame.x[0] > 0 else x - board.length
            spans.setdefault(("plinth", board.wall_id, round(y, 1)), []).append((left, board.length))
    for (word, _, _), pieces in spans.items():
        row: list[tuple[float, float]] = []
        for x, length in sorted(pieces):
            if row and abs(row[-1][0] + row[-1][1] - x) > NEAR:
                found += _joined(word, row)
                row = []
            row.append((x, length))
        found += _joined(word, row)
    return tuple(found)


def _joined(word: str, row: list[tuple[float, float]]) -> list[tuple[str, float, tuple[float, ...]]]:
    if len(row) < 2:
        return []
    return [(word, row[-1][0] + row[-1][1] - row[0][0], tuple(length for _, length in row))]
