"""Several jobs cut from the same boards: one question, one plan, its papers, each part under its own job's number."""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING, TypeVar

import msgspec

from tall_plank.files.cutcsv import nest_document
from tall_plank.files.machinefiles import write_board_dxf, write_program
from tall_plank.files.plankfile import read_plank
from tall_plank.files.record import earlier, recorded
from tall_plank.formats.writing import write_atomic
from tall_plank.job.cutting import Cutting
from tall_plank.making import NumberedPart
from tall_plank.measure import PlankError
from tall_plank.papers.labels import Label, fallen, label_on, write_label_sheets
from tall_plank.papers.schedules import boards_of
from tall_plank.papers.write_csv import write_csv
from tall_plank.papers.write_pdf import write_tables
from tall_plank.shop.boards import Plan, plan_from
from tall_plank.shop.nesting import NestBoard, NestPlan, Request
from tall_plank.shop.nesting.job import joined, request_of
from tall_plank.shop.nesting.kept import rules_of
from tall_plank.stock import Stock
from tall_plank.workings import Workings

if TYPE_CHECKING:
    from tall_plank.shop.machine.job import MachineFiles

T = TypeVar("T")


class Together:
    """Some jobs, the first of which says how is cut. A job's parts are named `14/A2.3`, by its number where all have
    their own, else by number and name."""

    def __init__(self, jobs: Sequence[Workings]) -> None:
        self.jobs = tuple(jobs)
        numbers = [w.job.number.strip() for w in jobs]
        own = all(numbers) and len(set(numbers)) == len(numbers)
        self.names = tuple(n if own else f"{n} {w.job.name}".strip() for n, w in zip(numbers, jobs, strict=True))

    @property
    def title(self) -> str:
        """The jobs in words, as they book and as papers are headed."""
        return " + ".join(self.names)

    @property
    def saw(self) -> Cutting:
        return self.jobs[0].job.cutting

    @property
    def kerf(self) -> float:
        """Between parts, mm: the first job's, or the widest mill that any of the jobs needs."""
        return self.saw.kerf if self.saw.mode == "saw" else max(self._routed(w).kerf for w in self.jobs)

    def _routed(self, w: Workings) -> Workings:
        """A job as it is when it is cut by the first one's rules."""
        return Workings(msgspec.structs.replace(w.job, cutting=self.saw), self.jobs[0].machines)

    @cached_property
    def parts(self) -> dict[str, tuple[Workings, NumberedPart]]:
        """Every part by its name in the plan."""
        named = zip(self.names, self.jobs, strict=True)
        return {f"{name}/{i.number}": (w, i) for name, w in named for i in w.made.parts()}

    @cached_property
    def stock(self) -> Stock:
        """Boards and edging of all jobs; the first job's where two have a code."""
        first = self.jobs[0].job.stock
        return msgspec.structs.replace(
            first,
            boards=_by_code([b for w in self.jobs for b in w.job.stock.boards]),
            edgings=_by_code([e for w in self.jobs for e in w.job.stock.edgings]),
            finishes=_by_code([f for w in self.jobs for f in w.job.stock.finishes]),
        )

    def request(self, offcuts: tuple[NestBoard, ...] = ()) -> Request:
        """What the jobs ask of the saw.

        Raises
        ------
        PlankError where two jobs have one name, or a board differs between them
        """
        rules = rules_of(self.saw, self.kerf)
        asked = []
        for name, w in zip(self.names, self.jobs, strict=True):
            own = request_of(w.made, w.job.stock, w.job.price_book(), rules, matched=w.job.cutting.matched)
            asked.append((name, own))
        request = joined(asked)
        makes = {b.material for b in request.boards}
        return msgspec.structs.replace(request, boards=(*request.boards, *(o for o in offcuts if o.material in makes)))

    def plan(self, found: NestPlan) -> Plan:
        return plan_from(found, self.stock, self.kerf, self.saw.trim)

    def labels(self, plan: Plan) -> tuple[Label, ...]:
        """A label for every part of a plan, in the order in which they fall."""
        return tuple(label_on(*self.parts[name], plan, number, i) for name, number, i in fallen(plan, self.saw))

    def programs(self, plan: Plan) -> MachineFiles:
        """Programs for the boards of a plan, for the first job's machine. Worktops from blanks are each job's own."""
        from tall_plank.shop.machine.job import machine_files

        parts = {name: item.part for name, (_, item) in self.parts.items()}
        routed = self.saw.mode == "router"
        return machine_files(parts, self.stock, plan, self.jobs[0].router, routed=routed, job=self.title)

    def write(
        self,
        found: NestPlan,
        folder: Path,
        progress: Callable[[str], bool] = lambda name: True,
        date: str = "",
    ) -> list[Path]:
        """Write the papers of a plan into a folder: boards with their cuts and as DXF, lists, labels, the plan as JSON,
        programs with their set-up, handwork.

        Returns
        -------
        the files written; where progress stopped the work, those written so far

        Raises
        ------
        PlankError where a file cannot be written
        """
        from tall_plank.papers.machinesheets import hand_tables, setup_tables
        from tall_plank.papers.worksheets import saw_cuts_of, work_sheets

        plan, title = self.plan(found), self.title
        display = self.jobs[0].job.display
        tables = [boards_of(plan), saw_cuts_of(plan, self.saw, self.stock, display)]
        saw_sheets = work_sheets(plan, self.saw, self.stock, display)
        steps: list[tuple[str, Callable[[Path], object]]] = [
            (
                "cutting-plans.pdf",
                lambda p: write_tables(saw_sheets[0], p, title, display, title, saw_sheets[1], upright=True),
            ),
            ("cutting-lists.pdf", lambda p: write_tables(tables, p, title, display, title)),
            ("boards.csv", lambda p: write_csv(tables[0], p)),
            ("saw-cuts.csv", lambda p: write_csv(tables[1], p)),
            ("labels.pdf", lambda p: write_label_sheets(self.labels(plan), p)),
            ("plan.json", lambda p: write_atomic(p, json.dumps(nest_document(found), indent=1).encode())),
        ]
        parts = {name: item.part for name, (_, item) in self.parts.items()}
        for number, board in enumerate(plan.boards, 1):
            steps.append(
                (
                    f"boards/board-{number:02d}.dxf",
                    lambda p, b=board: write_board_dxf(parts, b, p),  # type: ignore[misc]
                )
            )
        files = self.programs(plan)
        programs = (*files.programs, *files.second)
        for program in programs:
            steps.append((f"machine/{program.name}.ngc", lambda p, x=program: write_program(x, p)))  # type: ignore[misc]
        for name, (sheets, pictures) in (
            ("setup.pdf", setup_tables(programs)),
            ("handwork.pdf", hand_tables(parts, files.left, display)),
        ):
            if sheets:
                steps.append(
                    (name, lambda p, t=sheets, d=pictures: write_tables(t, p, title, display, title, d))  # type: ignore[misc]
                )
        done: list[Path] = []
        old = earlier(folder, title)
        try:
            folder.mkdir(parents=True, exist_ok=True)
            for name, write in steps:
                if not progress(name):
                    break
                (folder / name).parent.mkdir(exist_ok=True)
                write(folder / name)
                done.append(folder / name)
        except OSError as error:
            raise PlankError(
                f"The file cannot be written ({error.strerror}).", folder.name, "Choose another folder."
            ) from None
        recorded(folder, title, done, old, whole=len(done) == len(steps))
        return done


def read_jobs(paths: Sequence[Path]) -> list[Workings]:
    """Jobs from their files.

    Raises
    ------
    PlankError naming a file that is not there or cannot be read
    """
    return [Workings(read_plank(path)) for path in paths]


def _by_code(things: list[T]) -> tuple[T, ...]:
    found: dict[str, T] = {}
    for thing in things:
        found.setdefault(thing.code, thing)  # type: ignore[attr-defined]
    return tuple(found.values())
