"""All programs of a job: a board at a time where the router cuts the parts out, else a part at a time, as it comes from
the saw; second sides by themselves; and what is left for edges and the hand."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from tall_plank.job.cutting import LaidPart
from tall_plank.making import Part
from tall_plank.measure.filenames import file_names
from tall_plank.shop.boards import Plan
from tall_plank.shop.machine.model import Machine
from tall_plank.shop.machine.programs import Program, program_of
from tall_plank.shop.machine.setup import SECOND, board_setup, lies_across, part_setup, size_alone
from tall_plank.shop.machine.work import Left, PartWork, work_on
from tall_plank.stock import Stock

REASONS = {
    "outline": "comes from the saw as a rectangle", "edge": "in an edge", "other face": "on the other face",
    "corner": "the mill's radius", "slanted": "slanted", "profile": "an edge to a profile",
}  # fmt: skip


@dataclass(frozen=True)
class MachineFiles:
    """Programs with what they leave.

    Attributes
    ----------
    programs : of boards, or of parts from the saw
    second : of other faces, each part by itself, turned over about its length
    left : what neither of them does, with the reason
    """

    programs: tuple[Program, ...]
    second: tuple[Program, ...]
    left: tuple[Left, ...]


def machine_files(
    parts: Mapping[str, Part],
    stock: Stock,
    plan: Plan,
    machine: Machine,
    *,
    routed: bool,
    alone: tuple[str, ...] = (),
    job: str = "",
) -> MachineFiles:
    """Programs for every part of a plan.

    Parameters
    ----------
    parts : by their numbers, as the plan names them
    routed : whether the machine cuts the parts out of whole boards
    alone : numbers of parts that come to it in their size whatever the plan: worktops from their blanks
    job : its name and number, for who sets the machine up
    """
    names = file_names(parts)
    programs: list[Program] = []
    works: list[PartWork] = []
    shaped: list[Left] = []
    for number, board in enumerate(plan.boards, 1):
        found = [work_on(p.part, parts[p.part], p) for p in board.parts]
        if routed:
            thick = _thickness(stock, board.board)
            name = f"board-{number:02d}"
            size = (board.length, board.width, thick)
            setup = board_setup(name, job, machine, board.material, found, size)
            programs.append(program_of(name, size, found, machine, setup=setup))
            works += found
        else:
            alone += tuple(p.part for p in board.parts)
    for name in alone:
        part = parts[name]
        work = work_on(name, part, _alone(machine, part, name))
        works.append(work)
        if part.outline:
            shaped.append(Left(name, work.up, "its outline, as drawn", "outline"))
        if work.holes or work.slots or work.pockets or work.openings:
            size = size_alone(machine, part)
            file = names[name]
            turned = f"{file}{SECOND}" if any(x.why == "other face" for x in work.left) else ""
            setup = part_setup(file, job, machine, part, work, second=turned)
            programs.append(program_of(file, size, [work], machine, outlines=False, setup=setup))
    second: list[Program] = []
    left: list[Left] = list(shaped)
    for work in works:
        part = parts[work.part]
        others = [x for x in work.left if x.why == "other face"]
        left += [x for x in work.left if x.why != "other face"]
        if others:
            over = work_on(work.part, part, _alone(machine, part, work.part), second=True)
            size = size_alone(machine, part)
            name = f"{names[work.part]}{SECOND}"
            setup = part_setup(name, job, machine, part, over)
            program = program_of(name, size, [over], machine, outlines=False, setup=setup)
            second.append(program)
    for program in (*programs, *second):
        left += program.refused
    # A program that does nothing is none: what it should do is told.
    return MachineFiles(tuple(p for p in programs if p.does), tuple(p for p in second if p.does), tuple(left))


def _thickness(stock: Stock, code: str) -> float:
    board = stock.board_by_code(code)
    return board.thickness if board is not None else 18.0


def _alone(machine: Machine, part: Part, number: str) -> LaidPart:
    """A part by itself with its corner at X0 Y0."""
    long, wide, _ = size_alone(machine, part)
    return LaidPart(number, 0.0, 0.0, long, wide, lies_across(machine, part))
