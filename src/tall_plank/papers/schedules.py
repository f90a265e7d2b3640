"""The shop's schedules as tables: cut list, hardware, edging, boards, price."""

from __future__ import annotations

import msgspec

from tall_plank.making import numbers_told
from tall_plank.measure import format_length
from tall_plank.measure.units import trimmed
from tall_plank.papers.partlists import areas, cut_list, frames, timber
from tall_plank.papers.shoplists import drawers, fronts, orders
from tall_plank.papers.tables import Column, Table
from tall_plank.papers.worksheets import saw_cuts_of
from tall_plank.shop.boards import Plan
from tall_plank.shop.edging import TRIM_ALLOWANCE
from tall_plank.shop.lengths import KERF, MITRE_ALLOWANCE, thing_of
from tall_plank.shop.miters import FlatCut, flat_cut
from tall_plank.workings import Workings


def hardware(w: Workings) -> Table:
    """What to order, by supplier, and why."""
    prices = {row.code: row.price for row in w.job.price_book().rows}
    per = {row.code: row.per for row in w.job.price_book().rows}
    columns = (
        Column("code", "Code", wide=1.1),
        Column("name", "Name", wide=1.9),
        Column("supplier", "Supplier", wide=1.1, groups=True),
        Column("qty", "Qty", "count", wide=0.5),
        Column("metres", "Cut", "number", "m", wide=0.6),
        Column("unit_price", "Price", "money", w.job.price_book().currency, wide=0.8),
        Column("per", "Per", wide=0.5),
        Column("units", "Units", wide=1.6),
        Column("why", "Why", wide=3.2),
    )
    rows = tuple(
        (
            r.code,
            r.name,
            r.supplier,
            r.qty,
            r.metres or None,
            prices.get(r.code),
            per.get(r.code, ""),
            ", ".join(r.units),
            "; ".join(r.why),
        )
        for r in w.hardware
    )
    return Table("Hardware schedule", f"{w.tally.fittings} fittings, consumables and appliances apart", columns, rows)


def glass(w: Workings) -> Table:
    """Glass and mirrors to order, cut to size."""
    columns = (
        Column("parts", "Parts", wide=2.2),
        Column("name", "Name", wide=1.9),
        Column("material", "Material", wide=1.7),
        Column("qty", "Qty", "count", wide=0.5),
        Column("length", "Height", "length", wide=0.9),
        Column("width", "Width", "length", wide=0.9),
        Column("thickness", "Thick", "length", wide=0.7),
        Column("area", "Area", "number", "m²", wide=0.8),
    )
    rows = tuple(
        (numbers_told(r.numbers), r.name, r.material, r.qty, r.length, r.width, r.thickness,
         round(r.qty * r.length * r.width * 1e-6, 3))
        for r in w.bought_rows
    )  # fmt: skip
    count = sum(r.qty for r in w.bought_rows)
    return Table("Glass", f"{count} panes, bought cut to size; edges ground", columns, rows)


def edging(w: Workings) -> Table:
    """Edging by material."""
    columns = (
        Column("code", "Code"),
        Column("name", "Name", wide=2.0),
        Column("supplier", "Supplier", wide=1.2),
        Column("thickness", "Thick", "length", wide=0.8),
        Column("width", "Width", "length", wide=0.8),
        Column("edges", "Edges", "count", wide=0.7),
        Column("net_m", "Net", "number", "m"),
        Column("order_m", "To order", "number", "m"),
    )
    rows = tuple((r.code, r.name, r.supplier, r.thickness, r.width, r.edges, r.net_m, r.order_m) for r in w.edging)
    totals = (
        (
            "",
            "Total",
            "",
            None,
            None,
            sum(r.edges for r in w.edging),
            sum(r.net_m for r in w.edging),
            sum(r.order_m for r in w.edging),
        ),
    )
    return Table("Edging", "To order: with 60 mm trim allowance an edge", columns, rows, totals if rows else ())


def lengths(w: Workings) -> Table:
    """Moldings piece by piece: length at the long points, and how the saw is set for each end with the molding flat on
    its back."""
    columns = (
        Column("number", "Piece", wide=0.8),
        Column("room", "Room"),
        Column("kind", "Molding"),
        Column("profile", "Profile", wide=1.6),
        Column("length", "Long points", "length"),
        Column("left", "Left", "number", "°", wide=0.65),
        Column("left_miter", "Miter", "number", "°", wide=0.65),
        Column("left_bevel", "Bevel", "number", "°", wide=0.65),
        Column("right", "Right", "number", "°", wide=0.65),
        Column("right_miter", "Miter", "number", "°", wide=0.65),
        Column("right_bevel", "Bevel", "number", "°", wide=0.65),
        Column("longer", "Longer", wide=1.3),
        Column("by_others", "By others", wide=0.8),
    )
    names = {room.id: room.name for room in w.job.rooms}
    rows = []
    for m in w.made.lengths:
        profile = w.job.stock.profile(m.profile)
        name = profile.name if profile else m.profile
        others = "yes" if m.by_others else ""
        left, right = flat_cut(m.left, m.spring), flat_cut(m.right, m.spring)
        at_left = (m.left, round(left.miter, 2), round(left.bevel, 2))
        at_right = (m.right, round(right.miter, 2), round(right.bevel, 2))
        rows.append(
            (m.number, names[m.room], m.what, name, m.length, *at_left, *at_right, _longer(left, right), others)
        )
    note = (
        "Left, right: the corner's angle from square, above 0 an inner corner. Miter and bevel: table and blade with "
        "the molding flat on its back, a sprung one too. Longer: the edge with the long point at the left, right end"
    )
    return Table("Moldings", note, columns, tuple(rows))


def _longer(left: FlatCut, right: FlatCut) -> str:
    """The edge of a piece with its long point, and at which end where they differ."""
    if left.long == right.long:
        return left.long
    ends = (("left", left.long), ("right", right.long))
    return ", ".join(f"{end} {edge}" for end, edge in ends if edge)


def bars(w: Workings) -> Table:
    """Bars of everything that is cut from them, with the pieces of each; pieces have an allowance for each mitre."""
    plan = w.bars
    columns = (
        Column("bar", "Bar", "count", wide=0.5),
        Column("profile", "Of", wide=1.6, groups=True),
        Column("length", "Length", "length"),
        Column("pieces", "Pieces", wide=3.0),
        Column("left", "Left", "length"),
    )
    rows = tuple(
        (i, thing_of(w.job.stock, b.profile, w.job.cutting).name, b.length,
         ", ".join(f"{name} {format_length(mm, w.job.display)}" for name, mm in b.pieces), b.left)
        for i, b in enumerate(plan.bars, 1)
    )  # fmt: skip
    currency = w.job.price_book().currency
    least = f"for {plan.cost:,.2f} {currency}"
    told = f"{least}, proven the least" if plan.proven else f"{least}; no plan costs less than {plan.bound:,.2f}"
    if not plan.settled:
        told = f"{least}, a first plan: the least is looked for"
    what = f"{len(rows)} bars {told}" if rows else "nothing is cut from bars: what there is, is by others"
    note = (
        f"Kerf {KERF:g} mm, for worktops {plan_kerf(w)}; {MITRE_ALLOWANCE:g} mm more for each mitred end, cut to the "
        f"angle afterwards; {TRIM_ALLOWANCE:g} mm more for an edging strip. Pieces a, b are joined to one length: "
        "moldings by a scarf at 45°, strips butted."
    )
    lost = "; ".join(f"{u.piece}: {u.why}" for u in plan.unplaced)
    return Table("Bars", what, columns, rows, note=f"{note} Not cut: {lost}." if lost else note)


def plan_kerf(w: Workings) -> str:
    """The board saw's cut and end trim in words."""
    return f"{w.job.cutting.kerf:g} mm and {w.job.cutting.trim:g} mm off both ends"


def _boards_said(plan: Plan) -> str:
    old = len(plan.boards) - plan.new
    return f"{plan.new} boards" + (f" and {old} offcuts" if old else "")


def boards(w: Workings) -> Table:
    """Boards of the cutting plan."""
    return boards_of(w.plan)


def boards_of(plan: Plan) -> Table:
    """Boards of a plan."""
    columns = (
        Column("board", "Board", wide=0.8),
        Column("code", "Code", wide=0.8),
        Column("name", "Material", wide=2.0, groups=True),
        Column("length", "Length", "length"),
        Column("width", "Width", "length"),
        Column("parts", "Parts", "count", wide=0.7, sums=True),
        Column("used", "Used", "percent", wide=0.7),
    )
    rows = tuple(
        (str(i), b.board, b.title, b.length, b.width, len(b.parts), b.used * 100) for i, b in enumerate(plan.boards, 1)
    )
    note = f"Not placed: {', '.join(plan.unplaced)}." if plan.unplaced else ""
    return Table(
        "Cutting plans",
        f"{_boards_said(plan)}, {plan.used * 100:.0f} % used; kerf {plan.kerf:g} mm, edge trim {plan.trim:g} mm",
        columns,
        rows,
        note=note,
    )


def saw_cuts(w: Workings) -> Table:
    """The cuts of every layout in their order, as they are set."""
    return saw_cuts_of(w.plan, w.job.cutting, w.job.stock, w.job.display)


def by_hand(w: Workings) -> Table:
    """What no program does from above: holes in edges, slanted ones, profiles, what no tool reaches. In finished
    coordinates of each part, so that they are measured on the finished piece."""
    from tall_plank.shop.machine.job import REASONS

    files = w.machine_files
    names = {i.number: i.part.name for i in w.made.parts()}
    columns = (
        Column("part", "Part", wide=0.8),
        Column("name", "Name", wide=1.4),
        Column("face", "Face", wide=0.6, groups=True),
        Column("what", "Work, mm", wide=3.4),
        Column("why", "Why by hand", wide=1.6, groups=True),
    )
    rows = tuple((x.part, names.get(x.part, ""), x.face, x.what, REASONS.get(x.why, x.why)) for x in files.left)
    told = f"{len(files.programs)} programs, {len(files.second)} of second sides, {len(rows)} things left for the hand"
    note = "Places from the corner where L1 and W1 meet; in edges, along the edge and up from face B."
    note += " Drawn part by part in handwork.pdf of the package."
    return Table("Edges and handwork", told, columns, rows, note=note)


BOARDS_BY = {
    "area": "Boards are priced by cut area with waste.",
    "planned": "Boards are priced as they are planned, whole.",
    "shares": "Boards are priced as they are planned, less what goes to the rack.",
}
"""What boards cost, in words."""


def price(w: Workings) -> Table:
    """Every cost line, then the steps to the price."""
    currency = w.job.price_book().currency
    columns = (
        Column("group", "Group", wide=1.0),
        Column("label", "Item", wide=2.6),
        Column("qty", "Quantity", "measure", wide=0.9),
        Column("per", "Per", wide=0.6),
        Column("price", "Price", "money", currency, wide=0.9),
        Column("amount", "Amount", "money", currency, wide=1.0),
    )
    rows = tuple((c.group, c.label, c.qty, c.per.replace("m2", "m²"), c.price, c.amount) for c in w.costs.lines)
    p, rates = w.price, w.job.pricing
    totals = [
        ("", "Cost", None, "", None, p.cost),
        ("", f"Overhead {rates.overhead} % of cost", None, "", None, p.overhead),
        ("", f"Profit, margin {rates.margin} % of price", None, "", None, p.profit),
    ]
    if p.discount:
        totals.append(("", f"Discount {rates.discount} %", None, "", None, -p.discount))
    totals += [
        ("", "Price before tax", None, "", None, p.net),
        ("", f"Tax {rates.tax} %", None, "", None, p.tax),
        ("", "Price with tax", None, "", None, p.gross),
    ]
    totals += [
        ("", "Bought for this job (see the orders)", None, "", None, w.bought.bought),
        ("", "More than is priced", None, "", None, w.bought.over),
    ]
    note = f"Each amount is rounded half up to the cent, once; totals are their sums. {BOARDS_BY[rates.boards]}"
    note += " Whole packs are priced." if rates.packs else ""
    if w.costs.by_others:
        names = [a.name for code in w.costs.by_others if (a := w.job.stock.appliance(code))]
        note += f" By others: {', '.join(names)}."
    if w.costs.unpriced:
        note += f" Without a price: {', '.join(w.costs.unpriced)}."
    return Table("Price", w.job.price_book().name, columns, rows, tuple(totals), note)


SERIOUS = {"wrong": "serious", "mind": "mind"}
"""How serious a snag is: it stops the shop, or is worth a look."""


def snags(w: Workings) -> Table:
    """What is wrong or forgotten."""
    columns = (
        Column("where", "Where", wide=1.0),
        Column("what", "What", wide=3.0),
        Column("remedy", "What to do", wide=3.0),
        Column("weight", "How serious", wide=0.7),
    )
    rows = tuple((s.where.label, s.what, s.remedy, SERIOUS[s.weight]) for s in w.snags)
    head = f"{len(rows)} to look at" if rows else "Nothing is wrong or forgotten"
    return Table("Snags", head, columns, rows, keys=tuple(s.where.cell for s in w.snags))


def units(w: Workings) -> Table:
    """Every unit with its size, weight and cost."""
    cost = dict(w.costs.by_cell)
    columns = (
        Column("number", "Unit", wide=0.7),
        Column("kind", "Kind", wide=1.6, groups=True),
        Column("wall", "Wall", wide=0.6, groups=True),
        Column("width", "Width", "length"),
        Column("height", "Height", "length"),
        Column("depth", "Depth", "length"),
        Column("parts", "Parts", "count", wide=0.7, sums=True),
        Column("weight", "Weight", "number", "kg", sums=True),
        Column("cost", "Cost", "money", w.job.price_book().currency, sums=True),
    )
    rows, keys = [], []
    for p, unit in w.made.units:
        if p.is_solid:
            name = w.job.template(p.template).name
            rows.append(
                (p.number, name, p.wall_id, p.width, p.height, p.depth, len(unit.parts), unit.weight, cost[p.cell])
            )
            keys.append(p.cell)
    return Table("Units", f"{len(rows)} units", columns, tuple(rows), keys=tuple(keys))


ALL = {
    "cut-list": cut_list,
    "fronts": fronts,
    "drawers": drawers,
    "frames": frames,
    "timber": timber,
    "glass": glass,
    "hardware": hardware,
    "orders": orders,
    "edging": edging,
    "areas": areas,
    "lengths": lengths,
    "bars": bars,
    "boards": boards,
    "saw-cuts": saw_cuts,
    "handwork": by_hand,
    "units": units,
    "price": price,
    "snags": snags,
}
"""Every schedule by the name of its file."""


def parts_rows(w: Workings, *, cut: bool = False) -> Table:
    """Every part on a line of its own, as the headless verb writes it; lengths in mm."""
    names = (
        "part",
        "name",
        "unit",
        "material",
        "thickness_mm",
        "length_mm",
        "width_mm",
        "qty",
        "grain",
        "edge_L1",
        "edge_L2",
        "edge_W1",
        "edge_W2",
        "edges_of_outline",
        "sizes",
    )
    rows = []
    for item in w.made.parts():
        p = item.part
        length, width = (p.cut_length, p.cut_width) if cut else (p.length, p.width)
        rows.append(
            (
                item.number,
                p.name,
                item.unit,
                p.material,
                trimmed(p.thickness, 3),
                trimmed(length, 3),
                trimmed(width, 3),
                1,
                p.grain,
                *p.edges,
                "; ".join(f"{name} {code} {trimmed(mm, 1)}" for name, code, mm in p.banded_shapes),
                "cut" if cut else "finished",
            )
        )
    return Table("Parts", "", tuple(Column(n, n) for n in names), tuple(rows))


def hardware_csv(w: Workings) -> Table:
    """The hardware schedule as the headless verb writes it."""
    table = hardware(w)
    order = ("code", "name", "qty", "unit_price", "supplier", "units")
    places = [next(i for i, c in enumerate(table.columns) if c.key == key) for key in order]
    rows = tuple(tuple(row[i] for i in places) for row in table.rows)
    return msgspec.structs.replace(table, columns=tuple(table.columns[i] for i in places), rows=rows)
