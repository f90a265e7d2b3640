"""Cost of the job, line by line: boards by area with waste, edging by metre, fittings each, labor by minutes."""

from __future__ import annotations

from decimal import Decimal

import msgspec

from tall_plank.costing.money import cents, quantity
from tall_plank.job import Body, Job
from tall_plank.making import Groove, MadeJob, Part
from tall_plank.making.unit import MadeUnit
from tall_plank.measure.remembered import remembered
from tall_plank.stock import PriceBook, Stock

GROUPS = ("Boards", "Edging", "Lengths", "Fittings", "Appliances", "Labor", "Delivery")


class CostLine(msgspec.Struct, frozen=True):
    """One line: quantity x price = amount, in the book's currency."""

    group: str
    code: str
    label: str
    qty: Decimal
    per: str
    price: Decimal
    amount: Decimal


class Costs(msgspec.Struct, frozen=True):
    """All lines, what has no price, and what each unit costs by itself (unrounded shares of the same rules)."""

    lines: tuple[CostLine, ...]
    unpriced: tuple[str, ...]
    by_cell: tuple[tuple[str, Decimal], ...]
    by_others: tuple[str, ...]

    @property
    def total(self) -> Decimal:
        return sum((line.amount for line in self.lines), Decimal(0))

    def group(self, name: str) -> Decimal:
        return sum((line.amount for line in self.lines if line.group == name), Decimal(0))


class Quantities(msgspec.Struct, frozen=True, cache_hash=True):
    """What goes into something: areas m2 by board, metres by edging, pieces by item, and counts for labor."""

    areas: tuple[tuple[str, float], ...]
    edging: tuple[tuple[str, float], ...]
    items: tuple[tuple[str, int], ...]
    parts: int
    holes: int
    groove_m: float
    fronts: int
    carcasses: int
    installed: int
    lengths: tuple[tuple[str, float], ...] = ()
    """Metres of moldings by profile, and of fittings that are cut to length."""


def part_quantities(parts: tuple[Part, ...]) -> tuple[dict[str, float], dict[str, float], int, float]:
    """Board areas (cut size, m2), edging (m), holes and groove metres of some parts."""
    areas: dict[str, float] = {}
    edging: dict[str, float] = {}
    holes, grooves = 0, 0.0
    for p in parts:
        areas[p.board] = areas.get(p.board, 0.0) + p.cut_length * p.cut_width * 1e-6
        for _, code, length in p.banded:
            edging[code] = edging.get(code, 0.0) + length / 1000
        holes += p.holes
        grooves += sum(
            (abs(op.x2 - op.x1) + abs(op.y2 - op.y1)) / 1000 for op in p.operations if isinstance(op, Groove)
        )
    return areas, edging, holes, grooves


@remembered(1024)
def unit_quantities(made: MadeUnit) -> Quantities:
    """What goes into one unit."""
    areas, edging, holes, grooves = part_quantities(made.parts)
    items: dict[str, int] = {}
    lengths: dict[str, float] = {}
    for item in made.items:
        items[item.code] = items.get(item.code, 0) + item.qty
        if item.length:
            lengths[item.code] = lengths.get(item.code, 0.0) + item.length * item.qty / 1000
    built = bool(made.parts)
    return Quantities(
        areas=tuple(sorted(areas.items())),
        edging=tuple(sorted(edging.items())),
        items=tuple(sorted(items.items())),
        parts=len(made.parts),
        holes=holes,
        groove_m=grooves,
        fronts=len(made.fronts) if built else 0,
        carcasses=int(built and made.spec.body is Body.CARCASS),
        installed=int(built and made.spec.body is not Body.FILLER),
        lengths=tuple(sorted(lengths.items())),
    )


@remembered(64)
def _prices(book: PriceBook) -> dict[str, tuple[Decimal, str]]:
    return {row.code: (row.price, row.per) for row in book.rows}


@remembered(64)
def _minutes(book: PriceBook) -> dict[str, Decimal]:
    return {row.work: row.minutes for row in book.labor}


LABOR = (
    ("cut_part", "Cutting, each part"),
    ("band_metre", "Edge banding, metre"),
    ("drill_hole", "Drilling, each hole"),
    ("groove_metre", "Grooving, metre"),
    ("assemble_unit", "Assembly, each carcass"),
    ("fit_front", "Hanging a front"),
    ("install_unit", "Installing on site"),
)


def _lines(q: Quantities, book: PriceBook, stock: Stock) -> tuple[list[CostLine], list[str], list[str]]:
    prices, minutes = _prices(book), _minutes(book)
    lines: list[CostLine] = []
    unpriced: list[str] = []
    others: list[str] = []
    hundred = Decimal(100)

    def add(group: str, code: str, label: str, qty: Decimal, per: str, waste: Decimal = Decimal(0)) -> None:
        if code not in prices:
            unpriced.append(code)
            return
        price, unit = prices[code]
        if unit == "sheet":
            board = stock.board_by_code(code)
            assert board is not None
            price, unit = price / quantity(board.length * board.width * 1e-6, 6), "m2"
        qty = qty * (hundred + waste) / hundred
        lines.append(CostLine(group, code, label, qty, per, price, cents(qty * price)))

    for code, area in q.areas:
        board = stock.board_by_code(code)
        # What is bought cut to size leaves no waste here.
        waste = Decimal(0) if board is not None and board.cut_to_size else book.board_waste_percent
        add("Boards", code, board.name if board else code, quantity(area), "m2", waste)
    for code, metres in q.edging:
        edging = stock.edging_by_code(code)
        add("Edging", code, edging.name if edging else code, quantity(metres), "m", book.edging_waste_percent)
    cut = dict(q.lengths)
    for code, metres in q.lengths:
        if stock.fitting(code) is not None:
            continue
        profile = stock.profile(code)
        add("Lengths", code, profile.name if profile else code, quantity(metres), "m", book.edging_waste_percent)
    for code, count in q.items:
        fitting, appliance = stock.fitting(code), stock.appliance(code)
        if appliance is not None and code not in prices:
            others.append(code)
            continue
        name = fitting.name if fitting else appliance.name if appliance else code
        if code in cut and prices.get(code, (None, ""))[1] == "m":
            # Cut to length: with the offcuts of lengths from bars.
            add("Fittings", code, name, quantity(cut[code]), "m", book.edging_waste_percent)
        else:
            add("Appliances" if appliance else "Fittings", code, name, Decimal(count), "each")
    amounts = {
        "cut_part": Decimal(q.parts),
        "band_metre": quantity(sum(m for _, m in q.edging)),
        "drill_hole": Decimal(q.holes),
        "groove_metre": quantity(q.groove_m),
        "assemble_unit": Decimal(q.carcasses),
        "fit_front": Decimal(q.fronts),
        "install_unit": Decimal(q.installed),
    }
    for work, label in LABOR:
        qty = amounts[work]
        if qty and work in minutes:
            price = minutes[work] * book.labor_rate / 60
            lines.append(CostLine("Labor", work, label, qty, "times", price, cents(qty * price)))
    return lines, unpriced, others


@remembered(1024)
def unit_cost(q: Quantities, book: PriceBook, stock: Stock) -> Decimal:
    """Cost of one unit by itself."""
    return sum((line.amount for line in _lines(q, book, stock)[0]), Decimal(0))


def job_quantities(made: MadeJob) -> Quantities:
    """What goes into the whole job."""
    sums = [unit_quantities(unit) for _, unit in made.units]
    trims = tuple(t.part for t in made.trims if t.part is not None)
    areas, edging, holes, grooves = part_quantities(trims)
    items: dict[str, int] = {}
    lengths: dict[str, float] = {}
    for trim in made.trims:
        for item in trim.items:
            items[item.code] = items.get(item.code, 0) + item.qty
            if item.length:
                lengths[item.code] = lengths.get(item.code, 0.0) + item.length * item.qty / 1000
    for piece in made.lengths:
        if not piece.by_others:
            lengths[piece.profile] = lengths.get(piece.profile, 0.0) + piece.length / 1000
    for q in sums:
        for code, area in q.areas:
            areas[code] = areas.get(code, 0.0) + area
        for code, metres in q.edging:
            edging[code] = edging.get(code, 0.0) + metres
        for code, count in q.items:
            items[code] = items.get(code, 0) + count
        for code, metres in q.lengths:
            lengths[code] = lengths.get(code, 0.0) + metres
    return Quantities(
        areas=tuple(sorted(areas.items())),
        edging=tuple(sorted(edging.items())),
        items=tuple(sorted(items.items())),
        parts=sum(q.parts for q in sums) + len(trims),
        holes=sum(q.holes for q in sums) + holes,
        groove_m=sum(q.groove_m for q in sums) + grooves,
        fronts=sum(q.fronts for q in sums),
        carcasses=sum(q.carcasses for q in sums),
        installed=sum(q.installed for q in sums),
        lengths=tuple(sorted(lengths.items())),
    )


def job_costs(job: Job, made: MadeJob) -> Costs:
    """Every cost line of the job, sorted by group, with what has no price in the book."""
    book = job.price_book()
    lines, unpriced, others = _lines(job_quantities(made), book, job.stock)
    if lines and book.delivery:
        lines.append(CostLine("Delivery", "delivery", "Delivery", Decimal(1), "each", book.delivery, book.delivery))
    lines.sort(key=lambda line: GROUPS.index(line.group))
    by_cell = tuple((placed.cell, unit_cost(unit_quantities(unit), book, job.stock)) for placed, unit in made.units)
    return Costs(tuple(lines), tuple(unpriced), by_cell, tuple(others))
