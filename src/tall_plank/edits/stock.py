"""Edits of the job's copy of the stock."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change
from tall_plank.job import Job
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
