"""Things that the price book has no price for."""

from __future__ import annotations

from tall_plank.job import Snag, Where
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    book = checked.job.price_book().name
    return [
        Snag("price", f"{code} has no price in {book}.", "Add a row to the price book.", Where(label=code), "mind")
        for code in checked.costs.unpriced
    ]
