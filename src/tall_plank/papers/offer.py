"""The client's paper in a first form: what is supplied, and the price; no cost, no margin."""

from __future__ import annotations

from tall_plank.job import Body
from tall_plank.measure import format_length
from tall_plank.papers.tables import Column, Table
from tall_plank.workings import Workings


def offer(w: Workings) -> Table:
    """Units by room with their sizes, then the price before and with tax."""
    job = w.job
    currency = job.price_book().currency
    columns = (
        Column("unit", "Unit", wide=0.6),
        Column("what", "What", wide=3.4),
        Column("size", "Width × height × depth", wide=2.2),
        Column("amount", currency, "money", wide=1.2),
    )
    rows: list[tuple[str, str, str, None]] = []
    for room in w.layout.rooms:
        for p, unit in w.made.units:
            if p.room != room.room.id or not p.is_solid:
                continue
            finish = job.stock.finish(unit.spec.front)
            what = f"{room.room.name}: {job.template(p.template).name.lower()}"
            if unit.fronts and finish:
                what += f", {finish.name}" if p.body is Body.FILLER else f", fronts in {finish.name}"
            size = " × ".join(format_length(v, job.display) for v in (p.width, p.height, p.depth))
            rows.append((p.number, what, f"{size} {job.display.head}", None))
        for top in room.worktops:
            finish = job.stock.finish(top.finish)
            size = " × ".join(format_length(v, job.display) for v in (top.length, top.depth, top.thickness))
            what = f"{room.room.name}: worktop, {finish.name if finish else top.finish}"
            rows.append((f"{top.wall_id}W", what, f"{size} {job.display.head}", None))
        for thing in (t for made in w.made.rooms if made.room == room.room.id for t in made.offered):
            size = " × ".join(format_length(v, job.display) for v in thing.sizes)
            rows.append((thing.number, f"{room.room.name}: {thing.what}", f"{size} {job.display.head}", None))
    price = w.price
    totals = (
        ("", "Price before tax", "", price.net),
        ("", f"Tax {job.pricing.tax} %", "", price.tax),
        ("", "Price with tax", "", price.gross),
    )
    note = (
        "By others: " + ", ".join(a.name for code in w.costs.by_others if (a := job.stock.appliance(code)))
        if w.costs.by_others
        else ""
    )
    who = f"For {job.client}" if job.client else "Estimate"
    return Table(f"Estimate {job.number} · {job.name}".replace("  ", " "), who, columns, tuple(rows), totals, note)
