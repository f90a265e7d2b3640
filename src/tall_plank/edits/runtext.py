"""A run as text: `filler 50, drawers 600, sink 900, dishwasher 600, door rest`."""

from __future__ import annotations

import re
from dataclasses import dataclass
from difflib import SequenceMatcher

import msgspec

from tall_plank.edits.change import Change, new_cell, unit_from, with_cells
from tall_plank.edits.widths import MOST_SHARE, can_grow, check_width, read_width, width_text
from tall_plank.job import Cell, Job, Level, Run, Template
from tall_plank.job.run import WidthRule, levels_of
from tall_plank.measure import Length, LengthError, PlankError
from tall_plank.measure.shareout import Rule
from tall_plank.setout.runs import RunLayout, member_of

MAX_CELLS = 100


class RunTextError(PlankError):
    """A run's text that cannot be read; `position` is the index of the piece that does not fit."""

    def __init__(self, what: str, position: int, remedy: str) -> None:
        super().__init__(what, "run", remedy)
        self.position = position


@dataclass(frozen=True)
class Piece:
    """One read piece: its template and how its width is found."""

    template: Template
    width: WidthRule


def words_for(job: Job, level: Level, *, free: bool = False) -> dict[str, Template]:
    """Word -> template for a run of a level: the short words of a kind, and its name as the shelf has it."""
    levels = levels_of(level, free=free)
    names: dict[str, Template] = {}
    short: dict[str, Template] = {}
    for at in levels:
        here = [t for t in job.templates if t.level is at]
        names |= {shelf_name(t): t for t in here}
        short |= {word: t for t in here for word in t.words}
    return {**names, **short}


def shelf_name(template: Template) -> str:
    """A kind's name as it is typed in a run's text: without commas, which part the units."""
    return template.name.lower().replace(",", "")


@dataclass(frozen=True)
class Stopped:
    """A kind whose shares end at their limit, mm, though the run has more to give; whether a range may lift it."""

    template: Template
    most: float
    lifts: bool


def stopped_shares(job: Job, layout: RunLayout) -> tuple[Stopped, ...]:
    """Kinds whose shares are at their most while something of the run is left; each kind once."""
    if layout.left < 0.5:
        return ()
    found: dict[str, Stopped] = {}
    for placed, cell in zip(layout.cells, layout.run.cells, strict=True):
        most = member_of(job, cell).most
        if cell.width.rule is not Rule.FIXED and placed.width >= most - 0.5:
            template = job.template_of(cell)
            found.setdefault(template.code, Stopped(template, most, can_grow(template) and most < MOST_SHARE))
    return tuple(found.values())


def _split(text: str) -> list[tuple[str, int]]:
    """Pieces parted by commas outside brackets, with their positions."""
    pieces, start, depth = [], 0, 0
    for i, char in enumerate(text + ","):
        if char == "(":
            depth += 1
        elif char == ")":
            depth -= 1
        elif char == "," and (depth <= 0 or i == len(text)):
            pieces.append((text[start:i], start))
            start = i + 1
    return pieces


_PIECE = re.compile(r"\s*(?:(?P<times>\d{1,3})\s*[x×]\s+)?(?P<rest>[^\W\d_].*)", re.DOTALL)


def _kind(text: str, words: dict[str, Template]) -> tuple[str, int] | None:
    """The longest kind that a text starts with, and where its width begins."""
    low = text.lower()
    for word in sorted(words, key=len, reverse=True):
        if low.startswith(word) and not low[len(word) : len(word) + 1].isalpha():
            return word, len(word) + len(text[len(word) :]) - len(text[len(word) :].lstrip())
    return None


def read_run_text(job: Job, level: Level, text: str, room_use: str = "", *, free: bool = False) -> list[Piece]:
    """Read a run's text. A piece is `[3 x] kind [width]`; the width is a length, `share` or `rest`; without
    one the kind's starting width stands.

    Raises
    ------
    RunTextError with the position, what is wrong, and the known kinds
    """
    words = words_for(job, level, free=free)
    pieces: list[Piece] = []
    if not text.strip():
        return pieces
    for piece, at in _split(text):
        if not piece.strip():
            raise RunTextError("There is nothing between two commas.", at, "Take one comma out.")
        match = _PIECE.match(piece)
        kinds = ", ".join(sorted({t.words[0] for t in words.values()}))
        found = _kind(match["rest"], words) if match is not None else None
        if match is None or found is None:
            raise RunTextError(
                f"“{piece.strip()}” does not start with a kind of {level} unit.", at, f"Known kinds: {kinds}."
            )
        template = words[found[0]]
        written = match["rest"][found[1] :].strip()
        try:
            rule = read_width(job, written) if written else WidthRule.fixed(Length.of(template.width))
            check_width(job, unit_from(template, room_use), rule)
        except LengthError as error:
            place = at + match.start("rest") + found[1] + error.position
            raise RunTextError(f"{template.name}: {error.what}", place, error.remedy) from None
        pieces += [Piece(template, rule)] * int(match["times"] or 1)
    if len(pieces) > MAX_CELLS:
        raise RunTextError(f"A run takes at most {MAX_CELLS} units.", 0, "Divide it.")
    return pieces


def run_text(job: Job, run: Run) -> str:
    """A run as the text that makes it again."""
    words = []
    for cell in run.cells:
        template = job.template_of(cell)
        width = width_text(job, cell.width)
        words.append(f"{template.words[0]} {width}")
    return ", ".join(words)


def type_run(job: Job, run_id: str, text: str) -> Change:
    """Set a whole run by text. Units that stay in the same order keep their numbers and own values.

    Raises
    ------
    RunTextError; the job is untouched
    """
    room, run = job.find_run(run_id)
    pieces = read_run_text(job, run.level, text, room.use, free=run.free)
    if run.free and any(piece.width.rule is not Rule.FIXED for piece in pieces):
        raise RunTextError("What hangs by itself has nothing to share out.", 0, "Give every unit a width.")
    old = [job.template_of(cell).code for cell in run.cells]
    new = [piece.template.code for piece in pieces]
    kept: dict[int, Cell] = {}
    for block in SequenceMatcher(None, old, new, autojunk=False).get_matching_blocks():
        for i in range(block.size):
            kept[block.b + i] = run.cells[block.a + i]
    cells: list[Cell] = []
    made: list[str] = []
    for i, piece in enumerate(pieces):
        if i in kept:
            cells.append(msgspec.structs.replace(kept[i], width=piece.width))
            continue
        job, cell = new_cell(job, room, run, piece.template.code, piece.width)
        # The number counts cells of the job, so the cell joins it before the next one is numbered.
        cells.append(cell)
        made.append(cell.id)
        job = _with_pending(job, run_id, cell)
    _, run = job.find_run(run_id)
    return Change(with_cells(job, run, tuple(cells)), "Type a run", made=tuple(made))


def _with_pending(job: Job, run_id: str, cell: Cell) -> Job:
    _, run = job.find_run(run_id)
    return with_cells(job, run, (*run.cells, cell))
