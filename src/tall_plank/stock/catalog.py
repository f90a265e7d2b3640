"""The stock as one list to search: what each thing is, its sizes, its price and its supplier."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

import msgspec

from tall_plank.measure.remembered import remembered
from tall_plank.stock.library import Stock
from tall_plank.stock.models import Appliance, Board, Edging, Fitting, PriceBook, Profile

KIND_WORDS = {
    "handle": "Handles", "hinge": "Hinges", "plate": "Hinge plates", "runner": "Runners", "leg": "Legs",
    "stay": "Stays", "rail": "Rails", "rack": "Racks", "tray": "Trays", "basket": "Baskets", "shoes": "Shoe shelves",
    "bin": "Bins", "light": "Lights", "board": "Boards", "edging": "Edging", "profile": "Moldings",
    "appliance": "Appliances", "pullout": "Pull-outs", "drainer": "Drainers",
}  # fmt: skip
"""Headings of the kinds that are looked for by name; the rest are "Other fittings"."""

OTHER = "Other fittings"


class Entry(msgspec.Struct, frozen=True, cache_hash=True):
    """One thing of the stock as it stands in the list.

    Attributes
    ----------
    group : heading of its kind
    sizes : (word, mm), those that it is chosen by
    style : how a handle looks; empty for other things
    finish : its color as ``#RRGGBB`` or empty
    price, per : in the book's currency; None where the book has none
    """

    code: str
    name: str
    kind: str
    group: str
    sizes: tuple[tuple[str, float], ...]
    supplier: str
    style: str = ""
    finish: str = ""
    picture: str = ""
    price: Decimal | None = None
    per: str = ""

    @property
    def words(self) -> str:
        """All that it is found by, in small letters."""
        return f"{self.code} {self.name} {self.group} {self.supplier} {self.style}".lower()


@remembered(32)
def entries(stock: Stock, book: PriceBook) -> tuple[Entry, ...]:
    """Every thing that is bought, in the order of its headings, then of the stock."""
    prices = {row.code: row for row in book.rows}
    colors = {f.code: f.color for f in stock.finishes}
    things: tuple[Any, ...] = (*stock.fittings, *stock.boards, *stock.edgings, *stock.appliances, *stock.profiles)
    found = []
    for thing in things:
        row = prices.get(thing.code)
        kind, sizes = _kind_and_sizes(thing)
        color = thing.finish if isinstance(thing, Fitting) else colors.get(getattr(thing, "finish", ""), "")
        found.append(
            Entry(
                thing.code,
                thing.name,
                kind,
                KIND_WORDS.get(kind, OTHER),
                tuple((w, mm) for w, mm in sizes if mm),
                thing.supplier,
                thing.shape if kind == "handle" and isinstance(thing, Fitting) else "",
                color,
                getattr(thing, "picture", ""),
                row.price if row else None,
                row.per if row else "",
            )
        )
    order = [*KIND_WORDS.values(), OTHER]
    return tuple(sorted(found, key=lambda e: order.index(e.group)))


def _kind_and_sizes(thing: Fitting | Board | Edging | Appliance | Profile) -> tuple[str, tuple[tuple[str, float], ...]]:
    sizes: tuple[tuple[str, float], ...]
    if isinstance(thing, Fitting):
        if thing.kind == "handle":
            sizes = (("long", thing.length), ("centers", thing.centers), ("out", thing.projection))
        else:
            bar = max(thing.bars, default=0.0)
            sizes = (("bar", bar), ("long", thing.length), ("high", thing.height),
                     ("deep", thing.least_depth or thing.reach))  # fmt: skip
        # Profiles of glazing and sliding doors are fittings; moldings are what joiners call profiles.
        return ("profile fitting" if thing.kind == "profile" else thing.kind), sizes
    if isinstance(thing, Board):
        return "board", (("long", thing.length), ("wide", thing.width), ("thick", thing.thickness))
    if isinstance(thing, Edging):
        return "edging", (("strip", max(thing.strips, default=0.0)), ("wide", thing.width), ("thick", thing.thickness))
    if isinstance(thing, Appliance):
        return "appliance", (("wide", thing.width), ("high", thing.height), ("deep", thing.depth))
    bar = max((thing.length, *thing.lengths))
    return "profile", (("bar", bar), ("high", thing.height), ("deep", thing.depth))


def search(
    found: tuple[Entry, ...], text: str = "", group: str = "", only: frozenset[str] | None = None
) -> tuple[Entry, ...]:
    """Entries that hold every word of a text, of a heading where one is given, among some codes where these are."""
    words = text.lower().split()
    return tuple(
        e
        for e in found
        if (not group or e.group == group) and (only is None or e.code in only) and all(w in e.words for w in words)
    )
