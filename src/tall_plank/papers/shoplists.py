"""Lists for ordering and for the bench: orders by supplier, fronts, drawer boxes."""

from __future__ import annotations

from decimal import Decimal

from tall_plank.papers.tables import Column, Table, Value
from tall_plank.workings import Workings


def orders(w: Workings) -> Table:
    """What to buy, supplier by supplier, with a total for each."""
    book = w.job.price_book()
    lines = w.orders
    columns = (
        Column("supplier", "Supplier", wide=1.2, groups=True),
        Column("group", "Group", wide=0.8, groups=True),
        Column("code", "Code", wide=1.0),
        Column("name", "Item", wide=2.2),
        Column("qty", "Quantity", "number", wide=0.8),
        Column("per", "Per", wide=0.6),
        Column("price", "Price", "money", book.currency, wide=0.8),
        Column("amount", "Amount", "money", book.currency, wide=0.9, sums=True),
    )
    rows = tuple(
        (o.supplier, o.group, o.code, o.name, o.qty, o.per.replace("m2", "m²"), o.price, o.amount) for o in lines
    )
    sums: dict[str, Decimal] = {}
    for o in lines:
        sums[o.supplier] = sums.get(o.supplier, Decimal(0)) + (o.amount or Decimal(0))
    totals: list[tuple[Value, ...]] = [(s, "", "", "Total", None, "", None, a) for s, a in sums.items()]
    if len(sums) > 1:
        totals.append(("All", "", "", "Total", None, "", None, sum(sums.values(), Decimal(0))))
    note = "Whole boards of the cutting plan, whole bars, whole meters of edging, whole packs; before tax."
    if w.plan.unplaced:
        note += f" On no board, so not ordered: {', '.join(w.plan.unplaced)}."
    if w.bars.unplaced:
        note += f" On no bar, so not ordered: {', '.join(u.piece for u in w.bars.unplaced)}."
    missing = [o.code for o in lines if o.price is None]
    if missing:
        note += f" Without a price: {', '.join(missing)}."
    return Table("Orders", f"{len(rows)} things from {len(sums)} suppliers", columns, rows, tuple(totals), note)


def fronts(w: Workings) -> Table:
    """Every front that the shop makes, finished size, with its style, handing and handle."""
    columns = (
        Column("unit", "Unit", wide=0.6, groups=True),
        Column("front", "Front", wide=1.6),
        Column("width", "Width", "length"),
        Column("height", "Height", "length"),
        Column("style", "Style", wide=1.3, groups=True),
        Column("frame", "Frame", "length", wide=0.8),
        Column("hand", "Hand", wide=0.7),
        Column("handle", "Handle", wide=1.8, groups=True),
        Column("weight", "Weight", "number", "kg", wide=0.8),
    )
    rows, keys = [], []
    for placed, unit in w.made.units:
        for f in unit.fronts:
            own = [p for p in unit.parts if f.owns(p.name)]
            if not own:
                continue  # a machine's own front, or a gap that is seen
            pull = w.job.stock.fitting(f.pull)
            weight = sum(p.weight for p in own)
            rows.append((placed.number, f.name, f.width, f.height, f.style, f.frame or None, f.hand,
                         pull.name if pull else "", round(weight, 2)))  # fmt: skip
            keys.append(placed.cell)
    return Table("Fronts", f"{len(rows)} fronts", columns, tuple(rows), keys=tuple(keys))


def drawers(w: Workings) -> Table:
    """Every drawer box, outer sizes, with its runners and the load that they were chosen for."""
    columns = (
        Column("unit", "Unit", wide=0.6, groups=True),
        Column("drawer", "Drawer", wide=1.2),
        Column("width", "Width", "length"),
        Column("depth", "Depth", "length"),
        Column("height", "Height", "length"),
        Column("side", "Sides", "length", wide=0.7),
        Column("runner", "Runners", wide=2.0, groups=True),
        Column("load", "Load", "number", "kg", wide=0.7),
    )
    rows, keys = [], []
    for placed, unit in w.made.units:
        parts = {p.name: p for p in unit.parts}
        for box in unit.drawers:
            side, back = parts.get(f"{box.name} left side"), parts.get(f"{box.name} back")
            if side is None or back is None:
                continue  # a box of another make has no parts of ours
            runner = w.job.stock.fitting(box.runner)
            width = back.length + 2 * side.thickness
            rows.append((placed.number, box.name, width, side.length, side.width, side.thickness,
                         runner.name if runner else box.runner, round(box.load, 1)))  # fmt: skip
            keys.append(placed.cell)
    return Table("Drawer boxes", f"{len(rows)} boxes", columns, tuple(rows), keys=tuple(keys))
