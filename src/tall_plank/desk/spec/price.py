"""The spec sheet of the price."""

from __future__ import annotations

from tall_plank.costing.money import shown
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    setter,
)
from tall_plank.edits import jobs


def price_sheet(doc: Document) -> Sheet:
    w, job = doc.workings, doc.job
    p = w.price
    currency = job.price_book().currency
    rates = tuple(
        Row(key, label, f"{getattr(job.pricing, key)} %",
            apply=setter(jobs.set_percent, key))
        for key, label in (("overhead", tr("Overhead on cost")), ("margin", tr("Margin in price")),
                           ("discount", tr("Discount")), ("tax", tr("Tax")))
    )  # fmt: skip
    by = tuple(
        Row(key, label, tr(jobs.PRICED_BY[key][now]), choices=tuple((c, tr(t)) for c, t in jobs.PRICED_BY[key].items()),
            apply=setter(jobs.set_priced_by, key))
        for key, label, now in (
            ("boards", tr("Boards"), job.pricing.boards),
            ("packs", tr("Fittings, edging"), "yes" if job.pricing.packs else "no"),
        )
    )  # fmt: skip
    bought = (
        Row("bought", tr("What is bought"), shown(w.bought.bought)),
        Row("over", tr("More than is priced"), shown(w.bought.over)),
        Row("kept", tr("Left of the profit"), shown(w.bought.kept)),
        Row("bought_over", tr("Told from"), f"{job.pricing.bought_over} %", source=tr("of the profit"),
            apply=setter(jobs.set_percent, "bought_over")),
    )  # fmt: skip
    steps = tuple(
        Row(key, label, shown(value))
        for key, label, value in (
            ("cost", tr("Cost"), p.cost),
            ("o", tr("Overhead"), p.overhead),
            ("profit", tr("Profit"), p.profit),
            ("d", tr("Discount"), -p.discount),
            ("net", tr("Before tax"), p.net),
            ("t", tr("Tax"), p.tax),
            ("gross", tr("With tax"), p.gross),
        )
    )
    return Sheet(
        f"{shown(p.net)} {currency}",
        tr("before tax"),
        (
            Group(tr("From cost to price"), rates),
            Group(tr("Priced by"), by),
            Group(currency, steps),
            Group(tr("Beside it"), bought),
        ),
    )
