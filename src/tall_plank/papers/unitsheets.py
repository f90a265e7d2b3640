"""Unit sheets for the shop: front, inside, sections and fittings of every unit; units that are made alike once."""

from __future__ import annotations

import msgspec

from tall_plank.drawing.hatching import WORDS
from tall_plank.drawing.primitives import Drawing, Shape
from tall_plank.drawing.sheets import Sheet, together
from tall_plank.drawing.shopmarks import NOTE, NOTE_COUNTS
from tall_plank.drawing.unitsheet import unit_views
from tall_plank.making import MadeUnit
from tall_plank.papers.drawings import SHOP, Tell, block_of, go_on, notes_of, quietly
from tall_plank.setout import Placed
from tall_plank.workings import Workings


def alike_units(w: Workings) -> list[tuple[list[str], Placed, MadeUnit]]:
    """Units with parts, those that are made alike together: their numbers, and the first of them."""
    groups: dict[MadeUnit, tuple[list[str], Placed]] = {}
    for p, unit in w.made.units:
        if unit.shown:
            groups.setdefault(unit, ([], p))[0].append(p.number)
    return [(numbers, p, unit) for unit, (numbers, p) in groups.items()]


def unit_sheets(w: Workings, date: str = "", tell: Tell = quietly) -> list[Sheet]:
    """Every kind of unit on a sheet of its own, or on two where its views do not share one."""
    found: list[tuple[list[str], Placed, int, Sheet]] = []
    for numbers, p, unit in alike_units(w):
        go_on(tell, numbers[0])
        views = unit_views(p, unit, w.job.stock, w.job.display)
        sheets = together([(v, v.scale) for v in views], w.job.papers.drawings)
        found += [(numbers, p, i, sheet) for i, sheet in enumerate(sheets, 1)]
    made = []
    for n, (numbers, p, i, sheet) in enumerate(found, 1):
        name = w.job.template(p.template).name
        more = f", the same as {', '.join(numbers[1:])}" if len(numbers) > 1 else ""
        title = f"{numbers[0]} {name}{more}"
        mark = numbers[0] if i == 1 else f"{numbers[0]}.{i}"
        block = block_of(w, title, f"U{mark}", kind=SHOP, number=n, of=len(found), date=date)
        drawings = [v.drawing for v in sheet.views]
        notes = (*notes_of(drawings, w.job.display), f"{NOTE} {NOTE_COUNTS}", *hatch_note(drawings))
        made.append(msgspec.structs.replace(sheet, block=block, notes=notes))
    return made


def hatch_note(drawings: list[Drawing]) -> tuple[str, ...]:
    """What is cut, in words."""
    there = {i.hatch for d in drawings for i in d.items if isinstance(i, Shape) and i.hatch}
    return (f"Cut: {', '.join(words for hatch, words in WORDS.items() if hatch in there)}.",) if there else ()
