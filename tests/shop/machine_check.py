"""Counts the work of a job and where it went: every operation of every part is in one place."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping

from tall_plank.making import Part
from tall_plank.shop.machine.job import MachineFiles
from tall_plank.shop.machine.programs import Program
from tall_plank.shop.machine.work import Left


def counted(files: MachineFiles, parts: Mapping[str, Part]) -> tuple[Counter[str], Counter[str]]:
    """How many operations each part has; how many of them programs do, from both sides, or are left for the hand."""
    wanted = Counter({number: len(part.operations) for number, part in parts.items()})
    found: Counter[str] = Counter()
    for program in (*files.programs, *files.second):
        assert program.setup is not None
        for work in program.setup.works:
            found[work.part] += sum(len(x) for x in (work.holes, work.slots, work.pockets, work.openings))
        found -= Counter(x.part for x in program.refused if not _no_work(x))
    found += Counter(x.part for x in files.left if not _no_work(x))
    return +wanted, +found


def _no_work(x: Left) -> bool:
    """Outlines, and corners that keep the mill's radius: no operations."""
    return _outline(x.what) or x.why == "corner"


def _outline(what: str) -> bool:
    return what.startswith("its outline")


def outlines(files: MachineFiles, parts: Mapping[str, Part], *, routed: bool) -> tuple[set[str], set[str]]:
    """Parts that must be cut to an outline; those that a program cuts or that are told for the hand. `parts`: those of
    boards, all of them where boards are `routed`."""
    wanted = {number for number, part in parts.items() if part.outline or routed}
    told = {x.part for x in files.left if _outline(x.what)}
    cut = {part for program in files.programs for part in _cut_out(program)} if routed else set()
    assert not told & cut
    return wanted, told | cut


def _cut_out(program: Program) -> set[str]:
    return {name for name, _, _ in program.parts} - {x.part for x in program.refused if _outline(x.what)}
