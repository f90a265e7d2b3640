"""Working in the bays of a unit by hand, the same in the strip and in the model: what lies at a place of its front,
sliding boards, and going from bay to bay."""

from __future__ import annotations

from tall_plank.desk.model.document import Document
from tall_plank.edits import bays
from tall_plank.job import Split
from tall_plank.making import MadeUnit
from tall_plank.making.bayset import BayBox, Board, Rect
from tall_plank.making.fixed import LEAST_HUNG
from tall_plank.measure import format_length
from tall_plank.setout import Placed

Path = tuple[int, ...]


def one_unit(doc: Document) -> tuple[Placed, MadeUnit] | None:
    """The one selected unit with its bays, or None: what is no higher than a board has none to work in."""
    if len(doc.cells) != 1:
        return None
    placed, made = doc.workings.layout.find(doc.cells[0]), doc.workings.made.of(doc.cells[0])
    if placed is None or made is None or made.set is None or placed.room != doc.room_id or placed.height < LEAST_HUNG:
        return None
    return placed, made


def bay_at(made: MadeUnit, x: float, z: float) -> Path:
    """The innermost bay at a place of the unit's front, mm; on a board or a gable, the nearest one."""
    assert made.set is not None

    def away(box: BayBox) -> float:
        r = box.clear
        dx, dz = max(r.x0 - x, x - r.x1, 0.0), max(r.z0 - z, z - r.z1, 0.0)
        return dx * dx + dz * dz

    return min(made.set.leaves, key=away).path


def board_at(made: MadeUnit, x: float, z: float, reach: float) -> Board | None:
    """The shelf or divider within reach (mm) of a place of the unit's front."""
    assert made.set is not None
    for board in made.set.boards:
        r = board.clear
        grow_x, grow_z = (0.0, reach) if board.kind == "shelf" else (reach, 0.0)
        if r.x0 - grow_x <= x <= r.x1 + grow_x and r.z0 - grow_z <= z <= r.z1 + grow_z:
            return board
    return None


class Slide:
    """A board being slid: where it was taken, and where it goes."""

    def __init__(self, doc: Document, cell: str, board: Board, x: float, z: float) -> None:
        self.doc, self.cell, self.board = doc, cell, board
        r = board.clear
        self.off = (r.z1 + r.z0) / 2 - z if board.kind == "shelf" else (r.x1 + r.x0) / 2 - x

    def to(self, x: float, z: float) -> None:
        """Bring the board to a place of the unit's front, in whole mm of the clear size before it; part of a drag."""
        made = self.doc.workings.made.of(self.cell)
        if made is None or made.set is None:
            return
        before = self.first(made)
        half = (self.board.clear.height if self.board.kind == "shelf" else self.board.clear.width) / 2
        if self.board.kind == "shelf":
            clear = before.z1 - (z + self.off) - half
        else:
            clear = x + self.off - half - before.x0
        parent, index, cell = self.board.parent, self.board.index, self.cell
        self.doc.drag(lambda job: bays.slide_board(job, cell, parent, index, float(round(clear))))

    def first(self, made: MadeUnit) -> Rect:
        """The bay before the board."""
        assert made.set is not None
        path = (*self.board.parent, self.board.index)
        return next(b.clear for b in made.set.boxes if b.path == path)

    def words(self) -> str:
        """The clear sizes on both sides, for the eye while it slides."""
        made = self.doc.workings.made.of(self.cell)
        if made is None or made.set is None:
            return ""
        found = []
        for index in (self.board.index, self.board.index + 1):
            path = (*self.board.parent, index)
            r = next((b.clear for b in made.set.boxes if b.path == path), None)
            if r is not None:
                size = r.height if self.board.kind == "shelf" else r.width
                found.append(format_length(size, self.doc.job.display))
        return " | ".join(found)


def next_bay(made: MadeUnit, path: Path, dx: int, dz: int) -> Path | None:
    """The innermost bay beside another: to the right (dx 1), left, above (dz 1) or below; None at the end."""
    assert made.set is not None
    here = next(b.clear for b in made.set.boxes if b.path == path)
    cx, cz = (here.x0 + here.x1) / 2, (here.z0 + here.z1) / 2
    best: tuple[float, Path] | None = None
    for box in made.set.leaves:
        r = box.clear
        x, z = (r.x0 + r.x1) / 2, (r.z0 + r.z1) / 2
        ahead = (r.x0 - here.x1 if dx > 0 else here.x0 - r.x1) if dx else (r.z0 - here.z1 if dz > 0 else here.z0 - r.z1)
        if ahead < -1.0 or box.path == path:
            continue
        aside = abs(z - cz) if dx else abs(x - cx)
        overlap = (min(r.z1, here.z1) - max(r.z0, here.z0)) if dx else (min(r.x1, here.x1) - max(r.x0, here.x0))
        score = ahead + aside * 0.3 + (0.0 if overlap > 0 else 1e5)
        if best is None or score < best[0]:
            best = (score, box.path)
    return best[1] if best else None


def typed_path(root, path: Path, split: Split) -> Path | None:  # type: ignore[no-untyped-def]
    """The bay at or around a path whose size is typed in rows (its height) or in columns (its width)."""
    for depth in range(len(path), 0, -1):
        if root.at(path[: depth - 1]).split is split:
            return path[:depth]
    return None
