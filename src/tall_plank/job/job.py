"""The job: everything decided for one client, as one frozen value, whole in itself."""

from __future__ import annotations

from decimal import Decimal
from typing import Any, TypeVar

import msgspec

from tall_plank.job.bays import Insert
from tall_plank.job.cutting import Cutting, KeptPlan
from tall_plank.job.room import Room
from tall_plank.job.run import Cell, Run
from tall_plank.job.scheme import Scheme
from tall_plank.job.standard import Standard
from tall_plank.job.template import Template
from tall_plank.job.unit import Unit
from tall_plank.measure import DisplayUnit, Length, PlankError
from tall_plank.stock import PriceBook, Stock

T = TypeVar("T")


class NamedValue(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A named job value that may stand in any length (M5)."""

    name: str
    length: Length
    note: str = ""


class LabelRule(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """The text of labels, with live fields in braces, for one kind of unit (its template's code) or for all (``*``)."""

    kind: str
    text: str


class Picture(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """An image that belongs to the job: a PNG or JPEG file, its size in pixels."""

    name: str
    wide: int
    high: int
    data: bytes


class Pricing(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """From cost to price, all in percent.

    `overhead` is added on cost. `margin` is the share of the net price that is profit (not a markup on cost).
    `discount` is taken off the net price before tax; `tax` is added at the end.
    """

    overhead: Decimal = Decimal("12")
    margin: Decimal = Decimal("25")
    discount: Decimal = Decimal("0")
    tax: Decimal = Decimal("20")


class Job(msgspec.Struct, frozen=True, cache_hash=True, kw_only=True, forbid_unknown_fields=True):
    """One job. An edit makes a new one that shares everything unchanged with the old.

    Attributes
    ----------
    values : named job values
    standards, templates, stock : copies of what the job uses, so that it says the same on another machine
    pictures : images that its rooms use
    inserts : insides of bays kept under a name
    shortlist : codes of stock that this job chooses from first
    cutting : decisions on the saw
    kept_plan : the cutting plan that was accepted
    standard, scheme, book : codes of the ones in force
    next_id : number of the next id; ids are never used twice
    """

    name: str
    number: str = ""
    client: str = ""
    site: str = ""
    display: DisplayUnit = DisplayUnit.MM
    values: tuple[NamedValue, ...] = ()
    rooms: tuple[Room, ...] = ()
    units: tuple[Unit, ...] = ()
    schemes: tuple[Scheme, ...] = ()
    scheme: str = ""
    standards: tuple[Standard, ...] = ()
    standard: str = ""
    templates: tuple[Template, ...] = ()
    stock: Stock = Stock()
    book: str = ""
    pricing: Pricing = Pricing()
    labels: tuple[LabelRule, ...] = ()
    pictures: tuple[Picture, ...] = ()
    inserts: tuple[Insert, ...] = ()
    shortlist: tuple[str, ...] = ()
    cutting: Cutting = Cutting()
    kept_plan: KeptPlan | None = None
    next_id: int = 1

    def room(self, room_id: str) -> Room:
        return _one(self.rooms, room_id, "room")

    def unit(self, unit_id: str) -> Unit:
        return _one(self.units, unit_id, "unit")

    def template(self, code: str) -> Template:
        return _one(self.templates, code, "template")

    def template_of(self, cell: Cell) -> Template:
        return self.template(self.unit(cell.unit).template)

    def named_values(self) -> dict[str, float]:
        """Name -> mm."""
        return {v.name: v.length.mm for v in self.values}

    def value(self, name: str) -> float:
        """A named value in mm."""
        return _one(self.values, name, "named value").length.mm

    def active_standard(self) -> Standard:
        return _one(self.standards, self.standard, "shop standard")

    def standard_by(self, code: str) -> Standard:
        return _one(self.standards, code, "shop standard")

    def active_scheme(self) -> Scheme:
        return _one(self.schemes, self.scheme, "scheme")

    def price_book(self) -> PriceBook:
        return _one(self.stock.prices, self.book, "price book")

    def runs(self) -> tuple[tuple[Room, Run], ...]:
        """Every run with its room."""
        return tuple((room, run) for room in self.rooms for run in room.runs)

    def find_run(self, run_id: str) -> tuple[Room, Run]:
        for room, run in self.runs():
            if run.id == run_id:
                return room, run
        raise PlankError("The run is no longer there.", run_id, "Select another one.")

    def find_cell(self, cell_id: str) -> tuple[Room, Run, Cell]:
        for room, run in self.runs():
            for cell in run.cells:
                if cell.id == cell_id:
                    return room, run, cell
        raise PlankError("The unit is no longer there.", cell_id, "Select another one.")

    def cells(self) -> tuple[Cell, ...]:
        return tuple(cell for _, run in self.runs() for cell in run.cells)


_indexes: dict[int, tuple[tuple[Any, ...], dict[str, Any]]] = {}
"""By the identity of the rows, which are kept so that no other takes it: hashing long rows takes longer than a look."""


def _index(rows: tuple[Any, ...]) -> dict[str, Any]:
    if len(_indexes) >= 1024:
        _indexes.clear()
    made = {_key(row): row for row in rows}
    _indexes[id(rows)] = (rows, made)
    return made


def _key(row: Any) -> str:
    for name in ("id", "code", "name"):
        if hasattr(row, name):
            return str(getattr(row, name))
    raise TypeError(type(row))


def _one(rows: tuple[T, ...], key: str, kind: str) -> T:
    kept = _indexes.get(id(rows))
    # This is asked thousands of times a second while something is dragged.
    found = (kept[1] if kept is not None and kept[0] is rows else _index(rows)).get(key)
    if found is None:
        raise PlankError(f"The job has no {kind} “{key}”.", "job", f"Choose another {kind}.")
    return found  # type: ignore[no-any-return]
