"""Cost of the job, line by line: boards by area with waste or as they are planned, edging by metre, fittings each,
labor by minutes.

A line's quantity and its price stand as they are multiplied: a quantity has four places at most, a price two. The
amount is rounded once, to the cent; totals are sums of amounts.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

import msgspec

from tall_plank.costing.money import cents, quantity
from tall_plank.job import Body, Job
from tall_plank.making import Bore, Cutout, Groove, Item, MadeJob, Part
from tall_plank.making.parts import EDGE_NAMES, Bevel, Rebate, ShapedEdge
from tall_plank.making.unit import MadeUnit
from tall_plank.measure.remembered import remembered
from tall_plank.stock import PriceBook, PriceRow, Stock
from tall_plank.stock.models import Work

MATERIALS = ("Boards", "Edging", "Lengths", "Fittings", "Appliances")
"""Groups of what is bought."""

GROUPS = ("Boards", "Edging", "Lengths", "Fittings", "Appliances", "Labor", "Delivery")


class CostLine(msgspec.Struct, frozen=True):
    """One line: quantity x price = amount, in the book's currency.

    Attributes
    ----------
    times : how often a piece of work is done; `qty` then is its hours
    """

    group: str
    code: str
    label: str
    qty: Decimal
    per: str
    price: Decimal
    amount: Decimal
    times: Decimal = Decimal(0)


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
    """What goes into something: areas m2 by board, metres by edging, pieces by item, and what work is done how often.

    Attributes
    ----------
    lengths : metres of moldings by profile, and of fittings that are cut to length
    """

    areas: tuple[tuple[str, float], ...]
    edging: tuple[tuple[str, float], ...]
    items: tuple[tuple[str, int], ...]
    work: tuple[tuple[Work, float], ...]
    lengths: tuple[tuple[str, float], ...] = ()

    def done(self, work: Work) -> float:
        """How often, or over how many metres or square metres, some work is done."""
        return dict(self.work).get(work, 0.0)


class _Sums:
    """Quantities as they are added up."""

    def __init__(self) -> None:
        self.areas: dict[str, float] = {}
        self.edging: dict[str, float] = {}
        self.items: dict[str, int] = {}
        self.work: dict[Work, float] = {}
        self.lengths: dict[str, float] = {}

    def do(self, work: Work, qty: float) -> None:
        if qty:
            self.work[work] = self.work.get(work, 0.0) + qty

    def part(self, p: Part) -> None:
        """A part in its cut size, its edging, the work on it."""
        _add(self.areas, p.board, p.cut_length * p.cut_width * 1e-6)
        for _, code, length in p.banded:
            _add(self.edging, code, length / 1000)
            self.do("band_metre", length / 1000)
        self.do("cut_part", 1)
        self.do("drill_hole", p.holes)
        for op in p.operations:
            match op:
                case Bore():  # most of them, counted above
                    pass
                case Groove():
                    self.do("groove_metre", (abs(op.x2 - op.x1) + abs(op.y2 - op.y1)) / 1000)
                case Rebate():
                    self.do("rebate_metre", _side(p, op.edge) / 1000)
                case Cutout():
                    self.do("cut_out", 1)
                case ShapedEdge() | Bevel():
                    self.do("shape_metre", _side(p, op.edge) / 1000)
                case _:
                    pass
        if p.outline:
            shaped = sum(math.dist(a, b) for name, a, b in p.named_edges() if name not in EDGE_NAMES)
            self.do("shape_metre", shaped / 1000)
        if p.bend:
            self.do("bend_part", 1)
            self.do("veneer_m2", 2 * p.length * p.width * 1e-6)  # both faces of what is glued up in layers

    def item(self, item: Item) -> None:
        self.items[item.code] = self.items.get(item.code, 0) + item.qty
        if item.length:
            _add(self.lengths, item.code, item.length * item.qty / 1000)

    def more(self, q: Quantities) -> None:
        for sums, rows in ((self.areas, q.areas), (self.edging, q.edging), (self.lengths, q.lengths)):
            for code, mm in rows:
                _add(sums, code, mm)
        for code, count in q.items:
            self.items[code] = self.items.get(code, 0) + count
        for work, qty in q.work:
            self.do(work, qty)

    def total(self) -> Quantities:
        return Quantities(
            areas=tuple(sorted(self.areas.items())),
            edging=tuple(sorted(self.edging.items())),
            items=tuple(sorted(self.items.items())),
            work=tuple(sorted(self.work.items())),
            lengths=tuple(sorted(self.lengths.items())),
        )


def _add(sums: dict[str, float], code: str, qty: float) -> None:
    sums[code] = sums.get(code, 0.0) + qty


def _side(p: Part, edge: str) -> float:
    """Length of a side, mm."""
    return p.length if edge.startswith("L") else p.width


@remembered(1024)
def unit_quantities(made: MadeUnit) -> Quantities:
    """What goes into one unit."""
    sums = _Sums()
    for part in made.parts:
        sums.part(part)
    for item in made.items:
        sums.item(item)
    if made.parts:
        sums.do("fit_front", len(made.fronts))
        sums.do("assemble_unit", int(made.spec.body is Body.CARCASS))
        sums.do("install_unit", int(made.spec.body is not Body.FILLER))
    return sums.total()


@remembered(64)
def _prices(book: PriceBook) -> dict[str, PriceRow]:
    return {row.code: row for row in book.rows}


@remembered(64)
def _minutes(book: PriceBook) -> dict[str, Decimal]:
    return {row.work: row.minutes for row in book.labor}


LABOR: tuple[tuple[Work, str], ...] = (
    ("cut_part", "Cutting, each part"),
    ("band_metre", "Edge banding, meter"),
    ("drill_hole", "Drilling, each hole"),
    ("groove_metre", "Grooving, meter"),
    ("rebate_metre", "Rebating, meter"),
    ("cut_out", "Cut-outs, each"),
    ("shape_metre", "Shaping edges, meter"),
    ("bend_part", "Bending, each part"),
    ("veneer_m2", "Veneering, square meter"),
    ("worktop_joint", "Worktop joints, each"),
    ("assemble_unit", "Assembly, each carcass"),
    ("fit_front", "Hanging a front"),
    ("install_unit", "Installing on site"),
)


@dataclass(frozen=True)
class BoardsBought:
    """What the boards of one kind cost as they are planned, instead of by their area.

    Attributes
    ----------
    rows : (label, quantity, per, price) of each line
    """

    rows: tuple[tuple[str, Decimal, str, Decimal], ...]


def _lines(
    q: Quantities,
    book: PriceBook,
    stock: Stock,
    planned: Mapping[str, BoardsBought] | None = None,
    *,
    packs: bool = False,
    cut_at_once: int = 0,
) -> tuple[list[CostLine], list[str], list[str]]:
    prices, minutes = _prices(book), _minutes(book)
    lines: list[CostLine] = []
    unpriced: list[str] = []
    others: list[str] = []
    hundred = Decimal(100)

    def put(
        group: str, code: str, label: str, qty: Decimal, per: str, price: Decimal, times: int | Decimal = 0
    ) -> None:
        qty = qty.quantize(FOURTH, rounding=ROUND_HALF_UP).normalize()
        qty = qty.quantize(Decimal(1)) if qty == qty.to_integral_value() else qty
        lines.append(CostLine(group, code, label, qty, per, price, cents(qty * price), Decimal(times)))

    def add(group: str, code: str, label: str, qty: Decimal, per: str, waste: Decimal = Decimal(0)) -> None:
        row = prices.get(code)
        if row is None:
            unpriced.append(code)
            return
        price = row.price
        if row.per == "sheet":
            board = stock.board_by_code(code)
            assert board is not None
            price = cents(price / quantity(board.length * board.width * 1e-6, 6))
        qty = qty * (hundred + waste) / hundred
        put(group, code, label, row.bought(qty) if packs and group != "Boards" else qty, per, price)

    for code, area in q.areas:
        board = stock.board_by_code(code)
        if planned is not None and code in planned and code in prices:
            for label, qty, per, price in planned[code].rows:
                put("Boards", code, label, qty, per, price)
            continue
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
        if code in cut and code in prices and prices[code].per == "m":
            # Cut to length: with the offcuts of lengths from bars.
            add("Fittings", code, name, quantity(cut[code]), "m", book.edging_waste_percent)
        else:
            add("Appliances" if appliance else "Fittings", code, name, Decimal(count), "each")
    for work, label in LABOR:
        times = quantity(q.done(work) - (cut_at_once if work == "cut_part" else 0))
        if times and work in minutes:
            hours = times * minutes[work] / 60
            told = f"{label}: {times.normalize():f} of {minutes[work].normalize():f} min"
            put("Labor", work, told, hours, "hour", book.labor_rate, times)
    return lines, unpriced, others


FOURTH = Decimal("0.0001")
"""The finest that a quantity is told."""


@remembered(1024)
def unit_cost(q: Quantities, book: PriceBook, stock: Stock) -> Decimal:
    """Cost of one unit by itself."""
    return sum((line.amount for line in _lines(q, book, stock)[0]), Decimal(0))


def job_quantities(made: MadeJob) -> Quantities:
    """What goes into the whole job."""
    sums = _Sums()
    for _, unit in made.units:
        sums.more(unit_quantities(unit))
    for trim in made.trims:
        if trim.part is not None:
            sums.part(trim.part)
        for item in trim.items:
            sums.item(item)
        sums.do("worktop_joint", int(trim.part is not None and trim.part.role == "worktop" and bool(trim.items)))
    for piece in made.lengths:
        if not piece.by_others:
            _add(sums.lengths, piece.profile, piece.length / 1000)
    return sums.total()


def job_costs(
    job: Job, made: MadeJob, planned: Mapping[str, BoardsBought] | None = None, cut_at_once: int = 0
) -> Costs:
    """Every cost line of the job, sorted by group, with what has no price in the book.

    Parameters
    ----------
    planned : what boards cost by their code, where they are not priced by their area
    cut_at_once : parts that are cut with others of their pack, and cost no cut of their own
    """
    book = job.price_book()
    lines, unpriced, others = _lines(
        job_quantities(made), book, job.stock, planned, packs=job.pricing.packs, cut_at_once=cut_at_once
    )
    if lines and book.delivery:
        lines.append(CostLine("Delivery", "delivery", "Delivery", Decimal(1), "each", book.delivery, book.delivery))
    lines.sort(key=lambda line: GROUPS.index(line.group))
    by_cell = tuple((placed.cell, unit_cost(unit_quantities(unit), book, job.stock)) for placed, unit in made.units)
    return Costs(tuple(lines), tuple(unpriced), by_cell, tuple(others))
