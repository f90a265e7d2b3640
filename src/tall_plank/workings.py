"""Everything that follows from a job, each worked out when first asked for. Views, papers and verbs share it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from decimal import Decimal
from functools import cached_property
from typing import TYPE_CHECKING, Any

from tall_plank.costing import Costs, Price, job_costs, job_price
from tall_plank.costing.cost import MATERIALS, BoardsBought, job_quantities
from tall_plank.costing.orders import Bought, OrderLine, order_lines, total_of
from tall_plank.costing.planned import planned_boards
from tall_plank.job import Body, Job, Snag
from tall_plank.making import MadeJob, NumberedPart, make_job
from tall_plank.setout import Layout, set_out
from tall_plank.shop.boards import Plan, cut_plan, plan_kept
from tall_plank.shop.cutlist import CutRow, rows_of
from tall_plank.shop.edging import EdgingRow, edging_rows
from tall_plank.shop.hardware import HardwareRow, fitting_count, hardware_rows
from tall_plank.shop.lengths import bar_plan, blank_parts
from tall_plank.shop.nesting.job import request_of
from tall_plank.shop.nesting.kept import rules_of, still_fits
from tall_plank.shop.sawsteps import packs_of
from tall_plank.snags.check import all_snags
from tall_plank.snags.checked import Checked

if TYPE_CHECKING:
    from tall_plank.shop.bars import BarPlan
    from tall_plank.shop.machine.job import MachineFiles
    from tall_plank.shop.machine.model import Machine


@dataclass(frozen=True)
class Tally:
    """The running figures of a job. `boards` are whole; `price` is net before tax."""

    units: int
    parts: int
    boards: int
    used: float
    edging_m: float
    fittings: int
    price: Price
    currency: str
    snags: int

    def as_dict(self) -> dict[str, Any]:
        """The figures as the headless verb prints them."""
        return {
            "units": self.units,
            "parts": self.parts,
            "boards": self.boards,
            "edging_m": round(self.edging_m, 3),
            "fittings": self.fittings,
            "price": str(self.price.net),
            "currency": self.currency,
            "snags": self.snags,
        }


class Workings:
    """What follows from one job, on one of the shop's machines; on the shipped one where none is given.

    `waits`: whether what takes seconds is waited for. A window does not: it shows what is known at once.
    """

    def __init__(self, job: Job, machines: tuple[Machine, ...] = (), *, waits: bool = True) -> None:
        self.job, self.machines, self.waits = job, machines, waits

    @cached_property
    def router(self) -> Machine:
        """The machine that its programs are written for: the one that it names, else the shop's first."""
        from tall_plank.shop.machine.model import shipped_machine

        named = (m for m in self.machines if m.name == self.job.cutting.machine)
        return next(named, None) or next(iter(self.machines), None) or shipped_machine()

    @cached_property
    def kerf(self) -> float:
        """Between parts on a board, mm: the saw's cut, or the way of the router's mill."""
        saw = self.job.cutting
        return saw.kerf if saw.mode == "saw" else saw.gap or self._mill

    @property
    def _mill(self) -> float:
        """Diameter of the widest mill that cuts outlines of this job's boards, mm."""
        used = {i.part.board for i in self.made.parts()}
        thick = {b.thickness for b in self.job.stock.boards if b.code in used and b.planned}
        mills = [mill.diameter for t in sorted(thick) if (mill := self.router.outliner(t)) is not None]
        return max(mills, default=self.job.cutting.kerf)

    @cached_property
    def layout(self) -> Layout:
        return set_out(self.job)

    @cached_property
    def made(self) -> MadeJob:
        return make_job(self.job, self.layout)

    @cached_property
    def cut_rows(self) -> tuple[CutRow, ...]:
        """What the shop cuts; glass and the like are bought cut to size."""
        bought = self._bought
        return rows_of(i for i in self.made.parts() if i.part.board not in bought)

    @cached_property
    def bought_rows(self) -> tuple[CutRow, ...]:
        """What is bought cut to size: glass and mirrors."""
        bought = self._bought
        return rows_of(i for i in self.made.parts() if i.part.board in bought)

    @property
    def _bought(self) -> set[str]:
        return {board.code for board in self.job.stock.boards if board.cut_to_size}

    @cached_property
    def hardware(self) -> tuple[HardwareRow, ...]:
        return hardware_rows(self.made, self.job.stock)

    @property
    def title(self) -> str:
        """The job's name with its number."""
        return f"{self.job.name} {self.job.number}".strip()

    @cached_property
    def edging(self) -> tuple[EdgingRow, ...]:
        return edging_rows(self.made, self.job.stock)

    @cached_property
    def plan_is_kept(self) -> bool:
        """Whether a plan is kept in the job that still fits it."""
        kept = self.job.kept_plan
        if kept is None:
            return False
        rules = rules_of(self.job.cutting, self.kerf)
        matched = self.job.cutting.matched
        asked = request_of(self.made, self.job.stock, self.job.price_book(), rules, matched=matched)
        return still_fits(kept, asked)

    @cached_property
    def plan(self) -> Plan:
        """The cutting plan that was kept, where it still fits the job; else a first one, made at once."""
        saw = self.job.cutting
        if self.job.kept_plan is not None and self.plan_is_kept:
            return plan_kept(self.job.kept_plan, self.job.stock, self.kerf, saw.trim)
        return cut_plan(self.made, self.job.stock, self.kerf, saw.trim)

    @cached_property
    def bars(self) -> BarPlan:
        """What is cut from bars: moldings, rails, tracks, edging strips, worktops from their blanks."""
        return bar_plan(self.made, self.job.stock, self.job.price_book(), self.job.cutting, wait=self.waits)

    @property
    def blank_parts(self) -> tuple[NumberedPart, ...]:
        """Parts that are cut from worktop blanks, and so lie on no board."""
        return tuple(blank_parts(self.made, self.job.stock))

    @cached_property
    def machine_files(self) -> MachineFiles:
        """Programs for the router, and what they leave for edges and the hand."""
        from tall_plank.shop.machine.job import machine_files

        routed = self.job.cutting.mode == "router"
        alone = tuple(i.number for i in self.blank_parts)
        parts = {i.number: i.part for i in self.made.parts()}
        return machine_files(parts, self.job.stock, self.plan, self.router, routed=routed, alone=alone, job=self.title)

    @cached_property
    def costs(self) -> Costs:
        return job_costs(self.job, self.made, self._planned(), self._cut_at_once())

    def _cut_at_once(self) -> int:
        """Parts that are cut with others of their pack."""
        if self.job.cutting.pack <= 0:
            return 0
        packs = packs_of(self.plan, self.job.cutting, self.job.stock)
        return sum((len(p.boards) - p.packs) * len(self.plan.boards[p.boards[0] - 1].parts) for p in packs)

    def _planned(self) -> dict[str, BoardsBought] | None:
        """What boards cost as they are planned; None where they are priced by their area."""
        job, by = self.job, self.job.pricing.boards
        if by == "area":
            return None
        codes = [code for code, _ in job_quantities(self.made).areas]
        book = job.price_book()
        return planned_boards(codes, self.plan, self.bars, job.stock, book, job.cutting, shares=by == "shares")

    @cached_property
    def orders(self) -> tuple[OrderLine, ...]:
        """What the job has to buy."""
        job = self.job
        return order_lines(
            self.plan, self.bought_rows, self.edging, self.bars, self.hardware, job.stock, job.price_book(), job.cutting
        )

    @cached_property
    def bought(self) -> Bought:
        """What is bought for the job beside what its price holds for that."""
        materials = sum((self.costs.group(g) for g in MATERIALS), Decimal(0))
        return Bought(total_of(self.orders), materials, self.price.profit - self.price.discount)

    @cached_property
    def price(self) -> Price:
        return job_price(self.costs.total, self.job.pricing)

    @cached_property
    def snags(self) -> tuple[Snag, ...]:
        return all_snags(Checked(self.job, self.layout, self.made, self.costs, self.router, self.kerf, self.bought))

    @cached_property
    def quick(self) -> Tally:
        """The tally without what takes longest: boards, edging, fittings and snags are 0 here."""
        return Tally(
            units=sum(p.is_solid and p.body not in (Body.FILLER, Body.PANEL) for p in self.layout.placed),
            parts=sum(len(unit.parts) for _, unit in self.made.units)
            + sum(t.part is not None for t in self.made.trims),
            boards=0,
            used=0.0,
            edging_m=0.0,
            fittings=0,
            price=self.price,
            currency=self.job.price_book().currency,
            snags=0,
        )

    @cached_property
    def tally(self) -> Tally:
        return replace(
            self.quick,
            boards=self.plan.new,
            used=self.plan.used,
            edging_m=sum(row.net_m for row in self.edging),
            fittings=fitting_count(self.hardware),
            snags=len(self.snags),
        )
