"""What is decided about a set of drawings: the order of its sheets, what is left out, pages composed by hand, and what
its views show."""

from __future__ import annotations

from typing import Literal

import msgspec

SetKind = Literal["client", "site", "shop", "installer"]

Showing = Literal["color", "fronts", "worktops", "edging", "joints", "dimensions", "labels"]
"""What views are drawn with or without."""


NOTE, PICTURE = "note", "picture:"
"""What a view may be besides a drawing of its set: words, or an image by its name."""


WALL = "wall "
"""What the key of an elevation has before the letter of its wall."""


class PageView(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A view on a page.

    Attributes
    ----------
    what : key of a drawing of the set, ``note``, or ``picture:`` and the name of an image of the job
    x, y : mm of paper from the sheet's lower left corner to that of the view with its figures
    scale : real mm per mm of paper; of a picture, mm of paper that it is wide
    text : of a note
    """

    what: str
    x: float
    y: float
    scale: float = 1.0
    text: str = ""


class OwnPage(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A page composed by hand.

    Attributes
    ----------
    number : of own pages of its set; it stays
    title : empty: made of those of its views
    """

    id: str
    number: int
    title: str = ""
    upright: bool = False
    views: tuple[PageView, ...] = ()


class SheetSet(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """What was decided about a set of sheets; all else it does by itself.

    Attributes
    ----------
    order : keys of sheets in the order that they were put into; others follow the sheet that they come after by
        themselves
    without : keys of sheets that are left out
    shows : what views are drawn with or without, other than is usual for the kind of set
    """

    kind: SetKind
    order: tuple[str, ...] = ()
    without: tuple[str, ...] = ()
    pages: tuple[OwnPage, ...] = ()
    shows: tuple[tuple[Showing, bool], ...] = ()

    def page(self, page_id: str) -> OwnPage | None:
        return next((p for p in self.pages if p.id == page_id), None)
