"""From a layout to the cuts of a saw: edge-to-edge cuts with their turns, in their order, and what is left."""

from __future__ import annotations

from dataclasses import dataclass

from tall_plank.measure.remembered import remembered

Box = tuple[float, float, float, float]
"""x0, y0, x1, y1, mm."""

NEAR = 1e-3
"""mm; edges nearer than this are one."""


@dataclass(frozen=True)
class Cut:
    """One cut, from edge to edge of the piece in hand.

    Attributes
    ----------
    turn : 1 for the first cuts, 2 once the piece is turned, and so on
    along : whether it runs along the board's length
    size : mm of the slice that it cuts off
    at : mm of that slice's far edge, along y where the cut runs along, else along x; the kerf lies behind it
    piece : the box that is cut
    """

    turn: int
    along: bool
    size: float
    at: float
    piece: Box


@dataclass(frozen=True)
class Sawn:
    """How a board is sawn: cuts in their order, boxes left over, turns needed."""

    cuts: tuple[Cut, ...]
    left: tuple[Box, ...]
    turns: int


@dataclass(frozen=True)
class _Piece:
    """A piece of board cut into slices in one direction, and the turns from here on."""

    box: Box
    along: bool
    slices: tuple[tuple[Box, _Piece | None, bool], ...]
    """box, how it is cut on (None: it is not), whether it is waste."""
    turns: int


@remembered(4096)
def sawn(boxes: tuple[Box, ...], area: Box, kerf: float, first: str = "either", turns: int = 0) -> Sawn | None:
    """The cuts that part some boxes on a trimmed board; None where edge-to-edge cuts do not part them. Of two
    ways, the one that leaves the larger piece. `kerf`: mm.

    Parameters
    ----------
    boxes : of the parts, at least one kerf apart
    area : the trimmed board
    first : direction of the first cuts: along, across or either
    turns : turns at most, where there is a way with so few; 0: any number
    """
    if not boxes:
        return Sawn((), (area,), 0)
    if len(boxes) == 1 and _same(boxes[0], area):
        return Sawn((), (), 0)
    everything = tuple(range(len(boxes)))
    tries = [
        _cut(boxes, kerf, area, everything, along)
        for along in (True, False)
        if first == "either" or (first == "along") is along
    ]
    found = [t for t in tries if t is not None]
    if not found and first != "either":
        # Nothing to cut in that direction: its turn is empty.
        found = [t for t in [_cut(boxes, kerf, area, everything, first != "along")] if t is not None]
    if not found:
        return None
    ways = []
    for piece in found:
        cuts: list[Cut] = []
        left: list[Box] = []
        _write(piece, 1, cuts, left)
        ways.append(Sawn(tuple(cuts), tuple(left), piece.turns))
    few = min(w.turns for w in ways)
    ways = [w for w in ways if not turns or w.turns <= max(turns, few)]
    return max(ways, key=lambda w: (_largest(w) // ALIKE, -w.turns, -len(w.cuts), _largest(w)))


ALIKE = 20_000.0
"""mm2; a piece left that is larger by less is not worth a turn or a cut more."""


def _largest(w: Sawn) -> float:
    return max(((x1 - x0) * (y1 - y0) for x0, y0, x1, y1 in w.left), default=0.0)


def _cut(boxes: tuple[Box, ...], kerf: float, box: Box, parts: tuple[int, ...], along: bool) -> _Piece | None:
    """A piece sliced by every cut that parts it in a direction, each slice cut on across. None where nothing can be cut
    in it, or a slice cannot be cut on."""
    low, high = (1, 3) if along else (0, 2)
    groups: list[list[int]] = []
    reach = 0.0
    for i in sorted(parts, key=lambda i: boxes[i][low]):
        if groups and boxes[i][low] < reach + kerf - NEAR:
            groups[-1].append(i)
            reach = max(reach, boxes[i][high])
        else:
            groups.append([i])
            reach = boxes[i][high]
    spans = [(min(boxes[i][low] for i in g), max(boxes[i][high] for i in g)) for g in groups]
    if len(groups) == 1 and spans[0][0] - box[low] < NEAR and box[high] - spans[0][1] < NEAR:
        return None
    slices: list[tuple[Box, _Piece | None, bool]] = []
    at, turns = box[low], 0
    for group, (start, end) in zip(groups, spans, strict=True):
        if start - at > NEAR:
            slices.append((_slice(box, along, at, max(at, start - kerf)), None, True))
        slab = _slice(box, along, start, end)
        inner = None
        if not (len(group) == 1 and _same(boxes[group[0]], slab)):
            inner = _cut(boxes, kerf, slab, tuple(group), not along)
            if inner is None:
                return None
            turns = max(turns, inner.turns)
        slices.append((slab, inner, False))
        at = min(end + kerf, box[high])
    if box[high] - at > NEAR:
        slices.append((_slice(box, along, at, box[high]), None, True))
    return _Piece(box, along, tuple(slices), turns + 1)


def _slice(box: Box, along: bool, low: float, high: float) -> Box:
    return (box[0], low, box[2], high) if along else (low, box[1], high, box[3])


def _same(a: Box, b: Box) -> bool:
    return all(abs(p - q) < NEAR for p, q in zip(a, b, strict=True))


def _write(piece: _Piece, turn: int, cuts: list[Cut], left: list[Box]) -> None:
    """The cuts of a piece in their order, then those of its slices."""
    low, high = (1, 3) if piece.along else (0, 2)
    for box, _, _ in piece.slices:
        if piece.box[high] - box[high] > NEAR:
            cuts.append(Cut(turn, piece.along, box[high] - box[low], box[high], piece.box))
    for box, inner, waste in piece.slices:
        if waste and box[high] - box[low] > NEAR:
            left.append(box)
        elif inner is not None:
            _write(inner, turn + 1, cuts, left)
