"""A run as text: `filler 50, drawers 600, sink 900, dishwasher 600, door rest`."""

from __future__ import annotations

import re
from dataclasses import dataclass
from difflib import SequenceMatcher

import msgspec

from tall_plank.edits.change import Change, new_cell, with_cells
from tall_plank.job import Cell, Job, Level, Run, Template
from tall_plank.job.run import REST, SHARE, WidthRule
from tall_plank.measure import Length, LengthError, PlankError, format_length, parse_length
from tall_plank.measure.shareout import Rule

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


def words_for(job: Job, level: Level) -> dict[str, Template]:
    """Word -> template for a level."""
    return {word: t for t in job.templates if t.level is level for word in t.words}


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


_PIECE = re.compile(r"\s*(?:(?P<times>\d{1,3})\s*[x×]\s+)?(?P<word>[^\W\d_]+)\s*(?P<width>.*)", re.DOTALL)


def read_run_text(job: Job, level: Level, text: str) -> list[Piece]:
    """Read a run's text. A piece is `[3 x] kind [width]`; the width is a length, `share` or `rest`; without
    one the kind's starting width stands.

    Raises
    ------
    RunTextError with the position, what is wrong, and the known kinds
    """
    words = words_for(job, level)
    pieces: list[Piece] = []
    if not text.strip():
        return pieces
    for piece, at in _split(text):
        if not piece.strip():
            raise RunTextError("There is nothing between two commas.", at, "Take one comma out.")
        match = _PIECE.match(piece)
        kinds = ", ".join(sorted({t.words[0] for t in words.values()}))
        if match is None or match["word"].lower() not in words:
            raise RunTextError(
                f"“{piece.strip()}” does not start with a kind of {level} unit.", at, f"Known kinds: {kinds}."
            )
        template = words[match["word"].lower()]
        width_text = match["width"].strip()
        rule: WidthRule
        if not width_text:
            rule = WidthRule.fixed(Length.of(template.width))
        elif width_text.lower() in ("rest", "share"):
            rule = REST if width_text.lower() == "rest" else SHARE
        else:
            try:
                length = parse_length(
                    width_text, job.display, job.named_values(), least=template.least, most=template.most
                )
            except LengthError as error:
                place = at + match.start("width") + error.position
                raise RunTextError(f"{template.name}: {error.what}", place, error.remedy) from None
            rule = WidthRule.fixed(length)
        pieces += [Piece(template, rule)] * int(match["times"] or 1)
    if len(pieces) > MAX_CELLS:
        raise RunTextError(f"A run takes at most {MAX_CELLS} units.", 0, "Divide it.")
    return pieces


def run_text(job: Job, run: Run) -> str:
    """A run as the text that makes it again."""
    words = []
    for cell in run.cells:
        template = job.template_of(cell)
        match cell.width.rule:
            case Rule.FIXED:
                assert cell.width.length is not None
                length = cell.width.length
                shown = format_length(length.mm, job.display).lstrip("~")
                # A rounded figure would change the width when it is read again.
                exact = abs(parse_length(shown, job.display).mm - length.mm) < 1e-9
                width = shown if exact and not length.is_rule else length.text
            case rule:
                width = rule.value
        words.append(f"{template.words[0]} {width}")
    return ", ".join(words)


def type_run(job: Job, run_id: str, text: str) -> Change:
    """Set a whole run by text. Units that stay in the same order keep their numbers and own values.

    Raises
    ------
    RunTextError; the job is untouched
    """
    room, run = job.find_run(run_id)
    pieces = read_run_text(job, run.level, text)
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
