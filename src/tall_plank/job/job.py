"""The job: everything decided for one client, as one frozen value, whole in itself."""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

import msgspec

from tall_plank.job.basis import Basis, row_of
from tall_plank.job.bays import Insert
from tall_plank.job.cutting import Cutting, KeptPlan
from tall_plank.job.issue import Issue
from tall_plank.job.papers import Papers
from tall_plank.job.room import Room
from tall_plank.job.run import Cell, Run
from tall_plank.job.sheetset import SetKind, SheetSet
from tall_plank.job.treatment import Treatment
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.stock import PriceBook


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

    Attributes
    ----------
    boards : what boards cost: their area with waste, the whole boards of the cutting plan, or shares of those: what is
        left of a board and goes to the rack is taken off
    packs : whether whole packs and least quantities are priced, as they are bought
    bought_over : share of the profit that what is bought may cost more than what is priced before it is told, percent
    """

    overhead: Decimal = Decimal("12")
    margin: Decimal = Decimal("25")
    discount: Decimal = Decimal("0")
    tax: Decimal = Decimal("20")
    boards: Literal["area", "planned", "shares"] = "area"
    packs: bool = False
    bought_over: Decimal = Decimal("50")


class Job(Basis, frozen=True, cache_hash=True, kw_only=True, forbid_unknown_fields=True):
    """One job. An edit makes a new one that shares everything unchanged with the old.

    Attributes
    ----------
    pictures : images that its rooms use
    inserts : insides of bays kept under a name
    shortlist : codes of stock that this job chooses from first
    cutting : decisions on the saw
    kept_plan : the cutting plan that was accepted
    papers : how it is put on paper
    sheet_sets : what was decided about sets of drawings: order, own pages, what they show
    issues : sets of drawings that were given out, frozen
    treatments : how walls are covered
    book : code of the price book in force
    next_id : number of the next id; ids are never used twice
    """

    name: str
    number: str = ""
    client: str = ""
    site: str = ""
    display: DisplayUnit = DisplayUnit.MM
    rooms: tuple[Room, ...] = ()
    book: str = ""
    pricing: Pricing = Pricing()
    labels: tuple[LabelRule, ...] = ()
    pictures: tuple[Picture, ...] = ()
    inserts: tuple[Insert, ...] = ()
    shortlist: tuple[str, ...] = ()
    cutting: Cutting = Cutting()
    kept_plan: KeptPlan | None = None
    papers: Papers = Papers()
    sheet_sets: tuple[SheetSet, ...] = ()
    issues: tuple[Issue, ...] = ()
    treatments: tuple[Treatment, ...] = ()
    next_id: int = 1

    def room(self, room_id: str) -> Room:
        return row_of(self.rooms, room_id, "room")

    def sheet_set(self, kind: SetKind) -> SheetSet:
        """What was decided about a kind of set."""
        return next((s for s in self.sheet_sets if s.kind == kind), SheetSet(kind))

    def treatment(self, treatment_id: str) -> Treatment:
        return row_of(self.treatments, treatment_id, "treatment")

    def price_book(self) -> PriceBook:
        return row_of(self.stock.prices, self.book, "price book")

    def runs(self) -> tuple[tuple[Room, Run], ...]:
        """Every run with its room."""
        return tuple((room, run) for room in self.rooms for run in room.runs)

    def find_run(self, run_id: str) -> tuple[Room, Run]:
        """A run with its room.

        Raises
        ------
        PlankError where it is no longer there
        """
        for room, run in self.runs():
            if run.id == run_id:
                return room, run
        raise PlankError("The run is no longer there.", run_id, "Select another one.")

    def find_cell(self, cell_id: str) -> tuple[Room, Run, Cell]:
        """A cell with its room and run.

        Raises
        ------
        PlankError where it is no longer there
        """
        for room, run in self.runs():
            for cell in run.cells:
                if cell.id == cell_id:
                    return room, run, cell
        raise PlankError("The unit is no longer there.", cell_id, "Select another one.")

    def cells(self) -> tuple[Cell, ...]:
        return tuple(cell for _, run in self.runs() for cell in run.cells)
