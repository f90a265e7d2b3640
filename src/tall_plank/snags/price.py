"""Things that the price book has no price for; what is bought beyond what is priced."""

from __future__ import annotations

from tall_plank.costing.money import shown
from tall_plank.job import Snag, Where
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    book = checked.job.price_book()
    found = [
        Snag("price", f"{code} has no price in {book.name}.", "Add a row to the price book.", Where(label=code), "mind")
        for code in checked.costs.unpriced
    ]
    b, most = checked.bought, checked.job.pricing.bought_over
    if b is not None and b.profit > 0 and b.over > b.profit * most / 100:
        what = f"What is bought costs {shown(b.over)} {book.currency} more than is priced: "
        what += f"of a profit of {shown(b.profit)} {shown(b.kept)} stay."
        remedy = "Price boards as they are planned, plan them better, or raise the waste."
        found.append(Snag("bought", what, remedy, Where(label=book.name), "mind"))
    return found
