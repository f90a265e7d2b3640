"""Sets of sheets. A set is laid out by itself, anew whenever the job changes; its sheets keep their numbers. What was
decided about it by hand holds: the order of its sheets, what is left out, pages of one's own."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

import msgspec

from tall_plank.drawing.primitives import Drawing, Item, Text
from tall_plank.drawing.sheets import Sheet, in_black, share
from tall_plank.drawing.tabledrawing import in_pieces, table_drawing
from tall_plank.job import Kind
from tall_plank.job.sheetset import SetKind, SheetSet
from tall_plank.measure.remembered import remembered
from tall_plank.papers.drawings import Tell, block_of, notes_of, quietly, with_logo
from tall_plank.papers.ownpages import page_sheet
from tall_plank.papers.setcontent import Content, set_content, shows_of
from tall_plank.workings import Workings

KINDS: dict[SetKind, str] = {
    "client": "Client drawing", "site": "Site drawing", "shop": "Shop drawing", "installer": "Installer's drawing",
}  # fmt: skip
"""Sets, and what the block of their sheets says."""

LETTERS: dict[SetKind, str] = {"client": "C", "site": "S", "shop": "W", "installer": "I"}
"""What the numbers of a set's sheets begin with (W: the workshop)."""

ROWS = 34
"""Rows of a table on one sheet."""


class Laid(NamedTuple):
    """A sheet of a set: what it is called where it is put into order, its number, and itself without its block."""

    key: str
    number: str
    sheet: Sheet

    @property
    def title(self) -> str:
        return _title(self.sheet)

    def keys(self, own: SheetSet) -> tuple[str, ...]:
        """What is left out with it: all that stands on it; a page of one's own as such."""
        drawings = tuple(v.drawing.key for v in self.sheet.views if v.drawing.key)
        return drawings if drawings and own.page(self.key) is None else (self.key,)


def set_sheets(w: Workings, kind: SetKind, date: str = "", tell: Tell = quietly) -> list[Sheet]:
    """Every sheet of a set, its index first.

    Raises
    ------
    KeyError for another kind of set, StoppedError where `tell` says so
    """
    return finished(w, kind, laid_out(w, kind, set_content(w, kind, tell)), date)


def laid_out(w: Workings, kind: SetKind, content: Content, *, everything: bool = False) -> list[Laid]:
    """The sheets of a set in their order, without index and blocks; with what is left out where everything is asked
    for."""
    own = w.job.sheet_set(kind)
    drawings = {d.key: d for group in content if not isinstance(group, Sheet) for d in group}
    placed = {view.what for page in own.pages for view in page.views}
    found: list[tuple[str, Sheet]] = [(page.id, page_sheet(w, page, drawings)) for page in own.pages]
    for group in content:
        if isinstance(group, Sheet):
            found.append((_own_mark(group), group))
        else:
            kept = tuple(d for d in group if d.key not in placed)
            # What is left out stands alone, so that it takes nothing else with it.
            out = [d for d in kept if d.key in own.without]
            found += [(s.views[0].drawing.key, s) for s in _shared(tuple(d for d in kept if d not in out), w)]
            found += [(d.key, s) for d in out for s in _shared((d,), w)]
    numbers = _numbers([sheet for _, sheet in found], own, kind)
    laid = [Laid(key, number, sheet) for (key, sheet), number in zip(found, numbers, strict=True)]
    given = [s for s in laid if s.key not in own.without]
    sheets = {v.drawing.key: s.number for s in given for v in s.sheet.views}
    return in_order(_with_numbers(laid if everything else given, sheets), own.order)


MARKS = (Kind.SECTION, Kind.DETAIL)
"""Things whose marks say on which sheet they are drawn."""


def _with_numbers(laid: Sequence[Laid], sheets: Mapping[str, str]) -> list[Laid]:
    """Sheets whose marks of sections and details say on which sheet of the set those are drawn, or nothing where they
    are on none.

    Parameters
    ----------
    sheets : key of a drawing -> number of its sheet
    """

    def told(drawing: Drawing) -> Drawing:
        room = drawing.key.partition(":")[0]
        items = [_told(item, room, sheets) for item in drawing.items]
        kept = tuple(item for item in items if item is not None)
        return drawing if kept == drawing.items else msgspec.structs.replace(drawing, items=kept)

    found = []
    for one in laid:
        views = tuple(msgspec.structs.replace(v, drawing=told(v.drawing)) for v in one.sheet.views)
        found.append(one._replace(sheet=msgspec.structs.replace(one.sheet, views=views)))
    return found


def _told(item: Item, room: str, sheets: Mapping[str, str]) -> Item | None:
    """The number of a sheet beside a mark put right; None where there is none."""
    if not isinstance(item, Text) or not item.quiet or item.source is None or item.source.kind not in MARKS:
        return item
    number = sheets.get(f"{room}:{item.source.id}")
    if number is None:
        return None
    blank = item.text[: len(item.text) - len(item.text.lstrip())]
    return msgspec.structs.replace(item, text=blank + number)


def in_order(sheets: Sequence[Laid], order: Sequence[str]) -> list[Laid]:
    """Sheets as they were put into order; a new one behind the one that it comes after by itself."""
    if not order:
        return list(sheets)
    place = {key: float(i) for i, key in enumerate(order)}
    last, found = -1.0, []
    for n, sheet in enumerate(sheets):
        last = place.get(sheet.key, last)
        found.append((last, sheet.key not in place, n, sheet))
    return [sheet for *_, sheet in sorted(found, key=lambda f: f[:3])]


def _shared(drawings: tuple[Drawing, ...], w: Workings) -> tuple[Sheet, ...]:
    return _share(drawings, w.job.papers.drawings)


@remembered(64)
def _share(drawings: tuple[Drawing, ...], paper: str) -> tuple[Sheet, ...]:
    return tuple(share(drawings, paper))


def finished(w: Workings, kind: SetKind, bare: Sequence[Laid], date: str = "") -> list[Sheet]:
    """Sheets of a set with their blocks and notes, behind their index."""
    rows = [[s.number, s.title, s.sheet.scales or "–"] for s in bare]
    heads = ("Number", "Title", "Scale")
    index = [table_drawing(f"Index, {KINDS[kind].lower()}s", heads, piece, "0") for piece in in_pieces(rows, ROWS)]
    front = share(index, w.job.papers.drawings)
    found = [*front, *(s.sheet for s in bare)]
    marks = [*(f"{LETTERS[kind]}0.{i}" for i in range(len(front))), *(s.number for s in bare)]
    shows, color = shows_of(w.job, kind)
    made = []
    for i, (sheet, mark) in enumerate(zip(found, marks, strict=True), 1):
        title = sheet.title if sheet.block.owner else _title(sheet)
        block = block_of(w, title, mark, number=i, of=len(found), date=date)
        block = msgspec.structs.replace(block, kind=KINDS[kind], units=sheet.block.units or block.units)
        notes = sheet.notes
        if not notes and not all(v.drawing.is_words for v in sheet.views):
            notes = notes_of([v.drawing for v in sheet.views], w.job.display, shop=shows.making)
        whole = with_logo(w, msgspec.structs.replace(sheet, block=block, notes=notes))
        made.append(whole if color else in_black(whole))
    return made


def _own_mark(sheet: Sheet) -> str:
    """What the number of a finished sheet ends with."""
    return sheet.block.number.split("-")[-1].lstrip("S")


def _numbers(sheets: Sequence[Sheet], own: SheetSet, kind: SetKind) -> list[str]:
    """A number for each sheet that follows from what is on it, not from its place."""
    seen: dict[str, int] = {}
    found = []
    for n, sheet in enumerate(sheets):
        if n < len(own.pages):
            found.append(f"{LETTERS[kind]}G{own.pages[n].number}")
            continue
        mark = (_own_mark(sheet) if sheet.block.owner or sheet.block.number else "") or sheet.views[0].drawing.mark
        seen[mark] = seen.get(mark, 0) + 1
        found.append(f"{LETTERS[kind]}{mark}" + (f".{seen[mark]}" if seen[mark] > 1 else ""))
    return found


def _title(sheet: Sheet) -> str:
    if sheet.block.title:
        return sheet.block.title
    titles = [v.drawing.title for v in sheet.views if not v.drawing.is_words]
    titles = titles or [v.drawing.title for v in sheet.views] or ["Empty page"]
    first = titles[0]
    place = first.split(", ")[0] + ", "
    return ", ".join(dict.fromkeys([first, *(t.removeprefix(place) for t in titles[1:] if t != first)]))
