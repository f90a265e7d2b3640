"""How a board or a part is set up on the machine: which face looks up, which edges lie at the stops, how it is turned
over for its second side, with which tools and how long. Each program says it, and so does its sheet."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence

import msgspec

from tall_plank.making import Part
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
    machine: str
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
            f"Machine {self.machine}",
            f"{long:.1f} x {wide:.1f} x {thick:g} mm, {self.banding}",
            self.before,
            f"{self.face}; {self.at_x0} at X0, {self.at_y0} at Y0",
            self.after,
        ]
        return tuple(line for line in found if line)


def at_y0(up: Side) -> str:
    """The long edge that lies at Y0: a part is turned over about its length."""
    return "L1" if up == "A" else "L2"


def part_setup(program: str, job: str, machine: Machine, part: Part, work: PartWork, *, second: str = "") -> SetUp:
    """A part by itself, its corner at X0 Y0.

    Parameters
    ----------
    second : name of the program of its other side; of the second one itself none
    """
    other: Side = "A" if work.up == "B" else "B"
    is_second = program.endswith(SECOND)
    return SetUp(
        program=program,
        job=job,
        machine=machine.name,
        what=f"{work.part} {part.name}",
        material=part.material,
        works=(work,),
        size=(part.cut_length, part.cut_width, part.thickness),
        face=f"face {work.up} up",
        at_x0="end W1",
        at_y0=f"edge {at_y0(work.up)}",
        banding="cut size, before banding" if _edged(part) else "no edge is banded",
        before=f"Second side: {TURNED}" if is_second else "",
        after=f"Then {TURNED}: program {second}, edge {at_y0(other)} at Y0" if second else "",
    )


SECOND = "-second"
"""How names of programs for second sides end."""


def board_setup(
    program: str, job: str, machine: Machine, material: str, works: Sequence[PartWork], size: tuple[float, float, float]
) -> SetUp:
    """A whole board, its length along X, its corner at X0 Y0."""
    faces = {side: sum(w.up == side for w in works) for side in ("A", "B")}
    return SetUp(
        program=program,
        job=job,
        machine=machine.name,
        what=f"Board {program.rsplit('-', 1)[-1]} with {len(works)} parts",
        material=material,
        works=tuple(works),
        size=size,
        face=f"face A up of {faces['A']} parts, face B of {faces['B']}",
        at_x0="an end",
        at_y0="a long edge",
        banding="untrimmed; its length and grain along X",
    )


def _edged(part: Part) -> bool:
    return any(part.edges) or bool(part.outline_edges)


_MOVE = re.compile(r"([GXYZIJF])(-?\d+\.?\d*)")


def seconds_of(lines: Sequence[str], machine: Machine) -> float:
    """How long a program takes: the length of every move over its feed, and a time for each change of tools."""
    at = {"X": 0.0, "Y": 0.0, "Z": machine.travel}
    feed, minutes, changes = 1000.0, 0.0, 0
    for line in lines:
        if line.startswith("T"):
            changes += 1
        if not line.startswith("G") or line.startswith("G21") or line.startswith("G20"):
            continue
        words = dict(_MOVE.findall(line))
        code = words.pop("G", "")
        feed = float(words.get("F", feed))
        to = {k: float(words.get(k, v)) for k, v in at.items()}
        length = math.dist(tuple(at.values()), tuple(to.values()))
        if code in ("2", "3"):
            radius = math.hypot(float(words.get("I", 0.0)), float(words.get("J", 0.0)))
            length = _arc(at, to, words, radius, clockwise=code == "2")
        minutes += length / (machine.rapid if code == "0" else feed)
        at = to
    return minutes * 60.0 + changes * machine.tool_change_seconds


def _arc(at: dict[str, float], to: dict[str, float], words: dict[str, str], radius: float, *, clockwise: bool) -> float:
    cx, cy = at["X"] + float(words.get("I", 0.0)), at["Y"] + float(words.get("J", 0.0))
    a = math.atan2(at["Y"] - cy, at["X"] - cx)
    b = math.atan2(to["Y"] - cy, to["X"] - cx)
    turn = (a - b if clockwise else b - a) % (2 * math.pi)
    return radius * (turn if turn > 1e-9 else 2 * math.pi)
