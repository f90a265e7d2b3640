"""Edits of sets of drawings: pages composed by hand, the order of sheets, what is left out, what views show."""

from __future__ import annotations

from collections.abc import Sequence
from typing import get_args

import msgspec

from tall_plank.drawing.sheets import SCALES
from tall_plank.edits.change import Change, new_ids
from tall_plank.edits.pictures import with_picture, without_unused
from tall_plank.job import Job
from tall_plank.job.sheetset import OwnPage, PageView, SetKind, SheetSet, Showing
from tall_plank.measure import PlankError

MOST_PAGES, MOST_VIEWS = 60, 30
"""Own pages of a set, and views of a page, at the most."""

LONGEST = 800
"""Letters of a note on a page."""

REACH = 1300.0
"""mm of paper; nothing lies further from a sheet's corner."""


def _changed(job: Job, new: SheetSet, words: str) -> Change:
    if new.kind not in get_args(SetKind):
        raise PlankError(f"There is no set “{str(new.kind)[:20]}”.", "set", f"Known: {', '.join(get_args(SetKind))}.")
    others = tuple(s for s in job.sheet_sets if s.kind != new.kind)
    kept = () if new == SheetSet(new.kind) else (new,)
    return Change(without_unused(msgspec.structs.replace(job, sheet_sets=(*others, *kept))), words)


def _page(job: Job, kind: SetKind, page_id: str) -> tuple[SheetSet, OwnPage]:
    own = job.sheet_set(kind)
    page = own.page(page_id)
    if page is None:
        raise PlankError("The page is no longer there.", page_id, "Choose another sheet.")
    return own, page


def _with_page(own: SheetSet, page: OwnPage) -> SheetSet:
    return msgspec.structs.replace(own, pages=tuple(page if p.id == page.id else p for p in own.pages))


def new_page(job: Job, kind: SetKind, views: Sequence[PageView] = (), *, upright: bool = False) -> Change:
    """Begin a page of one's own, empty or with the views of a sheet that was laid out by itself.

    Raises
    ------
    PlankError where there are too many
    """
    own = job.sheet_set(kind)
    if len(own.pages) >= MOST_PAGES:
        raise PlankError(f"A set has no more than {MOST_PAGES} pages of its own.", "pages", "Use one that is there.")
    job, (page_id,) = new_ids(job, "g")
    number = max((p.number for p in own.pages), default=0) + 1
    page = OwnPage(page_id, number, "", upright, tuple(_checked(v) for v in views))
    return _changed(job, msgspec.structs.replace(own, pages=(*own.pages, page)), "Begin a page")


def delete_page(job: Job, kind: SetKind, page_id: str) -> Change:
    """Take a page of one's own out of its set: what stands on it is laid out by itself again."""
    own, _ = _page(job, kind, page_id)
    new = msgspec.structs.replace(own, pages=tuple(p for p in own.pages if p.id != page_id))
    return _changed(job, new, "Give up a page")


def set_page(job: Job, kind: SetKind, page_id: str, key: str, text: str) -> Change:
    """Set a page's title, or which way up it is (way: lying, upright).

    Raises
    ------
    PlankError where the text is none of these
    """
    own, page = _page(job, kind, page_id)
    if key == "title":
        page = msgspec.structs.replace(page, title=" ".join(text.split())[:120])
    elif key == "way" and text in ("lying", "upright"):
        page = msgspec.structs.replace(page, upright=text == "upright")
    else:
        raise PlankError(f"A page has no {key[:20]} “{text[:20]}”.", key, "Choose title, or way: lying or upright.")
    return _changed(job, _with_page(own, page), "Set a page")


def put_on_page(
    job: Job, kind: SetKind, page_id: str, view: PageView, picture: tuple[int, int, bytes] | None = None
) -> Change:
    """Put a view, a note or a picture on a page. `picture`: pixels wide and high, and the bytes of a PNG or JPEG file.

    Raises
    ------
    PlankError where there are too many, or it lies far off the paper
    """
    own, page = _page(job, kind, page_id)
    if len(page.views) >= MOST_VIEWS:
        raise PlankError(f"A page holds no more than {MOST_VIEWS} views.", "views", "Begin another page.")
    if picture is not None:
        job, name = with_picture(job, *picture)
        view = msgspec.structs.replace(view, what=f"picture:{name}")
    page = msgspec.structs.replace(page, views=(*page.views, _checked(view)))
    return _changed(job, _with_page(own, page), "Put something on a page")


def take_off_page(job: Job, kind: SetKind, page_id: str, at: int) -> Change:
    """Take a view off a page: it is laid out by itself again."""
    own, page = _page(job, kind, page_id)
    _view(page, at)
    page = msgspec.structs.replace(page, views=tuple(v for i, v in enumerate(page.views) if i != at))
    return _changed(job, _with_page(own, page), "Take something off a page")


def move_view(job: Job, kind: SetKind, page_id: str, at: int, x: float, y: float) -> Change:
    """Move a view on its page. `x`, `y`: mm of paper from the sheet's lower left corner to the view's."""
    own, page = _page(job, kind, page_id)
    view = msgspec.structs.replace(_view(page, at), x=round(x, 2), y=round(y, 2))
    return _changed(job, _with_page(own, _with_view(page, at, view)), "Move a view")


def set_view(job: Job, kind: SetKind, page_id: str, at: int, key: str, text: str) -> Change:
    """Set a view's place (x, y; mm of paper), its scale (1:20), or the words of a note.

    Raises
    ------
    PlankError where the text is none of these
    """
    own, page = _page(job, kind, page_id)
    view = _view(page, at)
    if key == "text":
        view = msgspec.structs.replace(view, text=text)
    elif key in ("x", "y", "scale"):
        typed = text.strip().removesuffix("mm").strip()
        if key == "scale":
            typed = typed.removeprefix("1:").strip()
        try:
            value = float(typed.replace(",", "."))
        except ValueError:
            what = "a scale, such as 1:20" if key == "scale" else "mm of paper, such as 40"
            raise PlankError(f"“{text[:20]}” is not {what}.", key, f"Type {what}.") from None
        if key == "scale" and not view.what.startswith("picture:") and value not in SCALES:
            known = ", ".join(f"1:{s:g}" for s in SCALES)
            raise PlankError(f"1:{value:g} is no standard scale.", key, f"Choose {known}.")
        view = msgspec.structs.replace(view, **{key: value})
    else:
        raise PlankError(f"A view has no {key[:20]}.", "view", "Choose x, y, scale or text.")
    return _changed(job, _with_page(own, _with_view(page, at, _checked(view))), "Set a view")


def size_picture(job: Job, kind: SetKind, page_id: str, at: int, text: str, real: float = 0.0) -> Change:
    """Say how wide a picture is on its page, mm of paper. `real`: mm that a drawn one is wide; 0: it is an image.

    Raises
    ------
    PlankError where the text is no width of a picture
    """
    own, page = _page(job, kind, page_id)
    view = _view(page, at)
    try:
        wide = float(text.strip().removesuffix("mm").strip().replace(",", "."))
    except ValueError:
        raise PlankError(f"“{text[:20]}” is not mm of paper.", "width", "Type mm of paper, such as 120.") from None
    if not 5.0 <= wide <= REACH:
        raise PlankError(f"A picture is not {wide:g} mm wide.", "width", f"Type 5 to {REACH:g} mm of paper.")
    scale = real / wide if real else wide
    view = msgspec.structs.replace(view, scale=round(scale, 4))
    return _changed(job, _with_page(own, _with_view(page, at, view)), "Size a picture")


def _view(page: OwnPage, at: int) -> PageView:
    if not 0 <= at < len(page.views):
        raise PlankError("The view is no longer there.", "view", "Choose another one.")
    return page.views[at]


def _with_view(page: OwnPage, at: int, view: PageView) -> OwnPage:
    return msgspec.structs.replace(
        page, views=tuple(_checked(view) if i == at else v for i, v in enumerate(page.views))
    )


def _checked(view: PageView) -> PageView:
    """A view that can be drawn.

    Raises
    ------
    PlankError where it lies far off the paper, is a note without words, or of no scale
    """
    for key, mm in (("x", view.x), ("y", view.y)):
        if not -REACH <= mm <= REACH:
            raise PlankError(f"{mm:g} mm is far off the paper.", key, f"Type up to {REACH:g}.")
    if not 0.1 <= view.scale <= 2000.0:
        raise PlankError(f"{view.scale:g} is out of range.", "scale", "Choose a standard scale, such as 1:20.")
    if view.what == "note":
        words = view.text.strip()[:LONGEST]
        if not words:
            raise PlankError("A note needs words.", "text", "Type some, or take the note off the page.")
        return msgspec.structs.replace(view, text=words)
    return view


def order_sheets(job: Job, kind: SetKind, keys: Sequence[str]) -> Change:
    """Put the sheets of a set into an order; without keys into the one that it has by itself."""
    own = job.sheet_set(kind)
    return _changed(job, msgspec.structs.replace(own, order=tuple(dict.fromkeys(keys))), "Order the sheets")


def leave_out(job: Job, kind: SetKind, keys: Sequence[str], *, out: bool) -> Change:
    """Leave sheets out of a set, or take them in again."""
    own = job.sheet_set(kind)
    kept = tuple(k for k in own.without if k not in keys)
    without = (*kept, *keys) if out else kept
    words = "Leave a sheet out" if out else "Take a sheet in"
    return _changed(job, msgspec.structs.replace(own, without=without), words)


def usual_showing(job: Job, kind: SetKind) -> Change:
    """Draw the views of a set as is usual for its kind."""
    own = job.sheet_set(kind)
    return _changed(job, msgspec.structs.replace(own, shows=()), f"Draw the {kind} set as usual")


def set_showing(job: Job, kind: SetKind, what: str, on: bool) -> Change:
    """Draw the views of a set with something or without it.

    Raises
    ------
    PlankError where it is nothing that views are drawn with or without
    """
    known = get_args(Showing)
    if what not in known:
        raise PlankError(f"Views have no “{what[:20]}”.", "shows", f"Choose {', '.join(known)}.")
    own = job.sheet_set(kind)
    others = tuple((k, v) for k, v in own.shows if k != what)
    words = f"Draw the {kind} set {'with' if on else 'without'} {what}"
    return _changed(job, msgspec.structs.replace(own, shows=(*others, (what, on))), words)
