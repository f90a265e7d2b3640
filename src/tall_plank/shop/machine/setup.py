"""How a board or a part is set up on the machine: which face looks up, which edges lie at the stops, how it is turned
over for its second side, with which tools and how long. Each program says it, and so does its sheet."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from tall_plank.making import Part
from tall_plank.shop.machine.frame import Edge, Frame
from tall_plank.shop.machine.model import Machine, Tool
from tall_plank.shop.machine.work import PartWork, Side

TURNED = "turned over about its length"
"""How a part comes to lie for its second side."""


class SetUp(msgspec.Struct, frozen=True):
    """How the work of a program is set up.

    Attributes
    ----------
    program : name of its file, without ending
    what : the board, or the part's number and name
    works : what is done, part by part
    size : length, width, thickness as it lies there, mm
    at_x0, at_y0 : what lies at the stops
    after : what follows, in words: the second side
    tools, seconds : of the program
    """

    program: str
    job: str
    machine: Machine
    what: str
    material: str
    works: tuple[PartWork, ...]
    size: tuple[float, float, float]
    face: str
    at_x0: str
    at_y0: str
    banding: str
    before: str = ""
    after: str = ""
    tools: tuple[Tool, ...] = ()
    seconds: float = 0.0

    @property
    def lines(self) -> tuple[str, ...]:
        """What it says, a line a fact: as comments of the program and on its sheet."""
        long, wide, thick = self.size
        found = [
            f"Job {self.job}" if self.job else "",
            f"{self.what}, {self.material}",
            f"Machine {self.machine.name}",
            f"{long:.1f} x {wide:.1f} x {thick:g} mm, {self.banding}",
            self.before,
            f"{self.face}; {self.at_x0} at X0, {self.at_y0} at Y0",
            f"Z0 at the {'top' if self.machine.z_zero == 'top' else 'spoil board'}",
            self.after,
        ]
        return tuple(line for line in found if line)


def edge_of(edge: Edge | None, up: Side, *, turned: bool = False) -> str:
    """The name of an edge of a part that lies by itself with a face up, turned over about its length for B. `turned`:
    it lies across, a quarter to the left."""
    if edge is None:
        return ""
    along, across = ("W1", "W2"), ("L1", "L2") if up == "A" else ("L2", "L1")
    ends = (across[::-1] if turned else along) if edge[0] == "u" else (along if turned else across)
    return ends[0] if edge[1] == "least" else ends[1]


def stop_edges(machine: Machine, up: Side, *, turned: bool = False) -> tuple[str, str]:
    """Edges of a part that lie at X0 and at Y0, none where its middle does."""
    x, y = Frame(machine, (1.0, 1.0, 1.0)).stops
    return edge_of(x, up, turned=turned), edge_of(y, up, turned=turned)


def lies_across(machine: Machine, part: Part) -> bool:
    """Whether a part is too long for the bed and lies across it."""

    def fits(long: float, wide: float) -> bool:
        return max(long - machine.bed_length, wide - machine.bed_width) <= machine.margin

    return not fits(part.cut_length, part.cut_width) and fits(part.cut_width, part.cut_length)


def _edge_words(name: str) -> str:
    return f"{'end' if name.startswith('W') else 'edge'} {name}" if name else "its middle"


def size_alone(machine: Machine, part: Part) -> tuple[float, float, float]:
    """A part as it lies by itself: along the bed, across it, thickness; mm."""
    long, wide = part.cut_length, part.cut_width
    return (wide, long, part.thickness) if lies_across(machine, part) else (long, wide, part.thickness)


def part_setup(program: str, job: str, machine: Machine, part: Part, work: PartWork, *, second: str = "") -> SetUp:
    """A part by itself, its corner at X0 Y0.

    Parameters
    ----------
    second : name of the program of its other side; of the second one itself none
    """
    other: Side = "A" if work.up == "B" else "B"
    across = lies_across(machine, part)
    is_second = program.endswith(SECOND)
    at_x0, at_y0 = (_edge_words(x) for x in stop_edges(machine, work.up, turned=across))
    over_x0, over_y0 = (_edge_words(x) for x in stop_edges(machine, other, turned=across))
    return SetUp(
        program=program,
        job=job,
        machine=machine,
        what=f"{work.part} {part.name}",
        material=part.material,
        works=(work,),
        size=size_alone(machine, part),
        face=f"face {work.up} up" + (", its length across the bed" if across else ""),
        at_x0=at_x0,
        at_y0=at_y0,
        banding="cut size, before banding" if _edged(part) else "no edge is banded",
        before=f"Second side: {TURNED}" if is_second else "",
        after=f"Then {TURNED}: program {second}, {over_x0} at X0, {over_y0} at Y0" if second else "",
    )


SECOND = "-second"
"""How names of programs for second sides end."""


def board_setup(
    program: str, job: str, machine: Machine, material: str, works: Sequence[PartWork], size: tuple[float, float, float]
) -> SetUp:
    """A whole board, its length along X, its corner at X0 Y0."""
    x, y = Frame(machine, size).stops
    faces = {side: sum(w.up == side for w in works) for side in ("A", "B")}
    return SetUp(
        program=program,
        job=job,
        machine=machine,
        what=f"Board {program.rsplit('-', 1)[-1]} with {len(works)} parts",
        material=material,
        works=tuple(works),
        size=size,
        face=f"face A up of {faces['A']} parts, face B of {faces['B']}",
        at_x0=_side_words(x),
        at_y0=_side_words(y),
        banding=f"untrimmed; its length and grain along {machine.long_side.upper()}",
    )


def _side_words(edge: Edge | None) -> str:
    return "its middle" if edge is None else "an end" if edge[0] == "u" else "a long edge"


def _edged(part: Part) -> bool:
    return any(part.edges) or bool(part.outline_edges)
