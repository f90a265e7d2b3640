"""Edits of the job's copy of the stock."""

from __future__ import annotations

from dataclasses import dataclass

import msgspec

from tall_plank.edits.change import Change
from tall_plank.job import Job, Template
from tall_plank.job.inherit import FINISH_KEYS
from tall_plank.measure import PlankError
from tall_plank.stock import Stock


def replace_stock(job: Job, stock: Stock) -> Change:
    """Put another stock in place of the job's copy.

    The price book in force stays where the new stock has one of its code, else its first one takes over. What the
    job uses and the new stock lacks is named in `skipped`; the units concerned become snags until it is chosen anew.

    Raises
    ------
    PlankError where the stock has no price book or no finish at all
    """
    if not stock.prices:
        raise PlankError("The folder has no price book.", "stock", "Put one into its prices folder.")
    if not stock.finishes or not stock.boards:
        raise PlankError("The folder has no finishes or no boards.", "stock", "See docs/stock-files.md.")
    book = job.book if any(b.code == job.book for b in stock.prices) else stock.prices[0].code
    used = {choice.finish for choice in job.active_scheme().choices}
    used |= {o.value for u in job.units for o in u.own if o.key in FINISH_KEYS and isinstance(o.value, str)}
    missing = sorted(code for code in used if stock.finish(code) is None)
    new = msgspec.structs.replace(job, stock=stock, book=book)
    return Change(new, "Read stock files", tuple(f"no finish “{code}” in the new stock" for code in missing))


@dataclass(frozen=True)
class Offered:
    """What the program ships and a job has no copy of: codes of kinds of units, and of stock of any sort."""

    kinds: tuple[str, ...]
    stock: tuple[str, ...]

    def __bool__(self) -> bool:
        return bool(self.kinds or self.stock)


STOCK_ROWS = ("boards", "edgings", "fittings", "finishes", "appliances", "profiles")


def offered(job: Job, templates: tuple[Template, ...], stock: Stock) -> Offered:
    """What a job made with an older library lacks."""
    kinds = {t.code for t in job.templates}
    rows = []
    for name in STOCK_ROWS:
        known = {row.code for row in getattr(job.stock, name)}
        rows += [row.code for row in getattr(stock, name) if row.code not in known]
    return Offered(tuple(t.code for t in templates if t.code not in kinds), tuple(rows))


def take_offered(job: Job, templates: tuple[Template, ...], stock: Stock) -> Change:
    """Copy kinds and stock that the job lacks into it, with the prices of what is new. What it has stays as it is.

    Raises
    ------
    PlankError where nothing is missing
    """
    lacking = offered(job, templates, stock)
    if not lacking:
        raise PlankError("The job has all that the library holds.", "library", "There is nothing to take.")
    rows = {
        name: (
            *getattr(job.stock, name),
            *(row for row in getattr(stock, name) if row.code in lacking.stock),
        )
        for name in STOCK_ROWS
    }
    books = {book.code: book for book in stock.prices}
    prices = []
    for book in job.stock.prices:
        shipped = books.get(book.code)
        priced = {row.code for row in book.rows}
        new = tuple(r for r in shipped.rows if r.code in lacking.stock and r.code not in priced) if shipped else ()
        prices.append(msgspec.structs.replace(book, rows=(*book.rows, *new)))
    merged = msgspec.structs.replace(job.stock, prices=tuple(prices), **rows)
    kinds = (*job.templates, *(t for t in templates if t.code in lacking.kinds))
    count = len(lacking.kinds)
    name = f"Take {count} new kind{'s' if count != 1 else ''} from the library" if count else "Take new stock"
    return Change(msgspec.structs.replace(job, templates=kinds, stock=merged), name)


def add_kinds(job: Job, templates: tuple[Template, ...]) -> Change:
    """Put kinds that were read from files into the job; one of the same code is replaced, and its units are made anew.

    Raises
    ------
    PlankError where a word stands for another kind of the same level already
    """
    codes = {t.code for t in templates}
    kept = tuple(t for t in job.templates if t.code not in codes)
    taken = {(t.level, word): t for t in kept for word in t.words}
    for template in templates:
        for word in template.words:
            other = taken.get((template.level, word))
            if other is not None:
                raise PlankError(
                    f"The word “{word}” stands for {other.name.lower()} already.",
                    template.name,
                    "Give it another word.",
                )
    names = ", ".join(t.name for t in templates)
    return Change(msgspec.structs.replace(job, templates=(*kept, *templates)), f"Take {names}")
