"""A machine and its tools as data, from a text file that the shop edits."""

from __future__ import annotations

from pathlib import Path
from typing import Literal

import msgspec

from tall_plank.formats.envelope import brought_up
from tall_plank.formats.table import MACHINE
from tall_plank.measure import PlankError
from tall_plank.measure.remembered import lasting
from tall_plank.stock.library import convert, plain, read_toml

SHIPPED = Path(__file__).parent.parent / "data" / "machine.toml"


class Tool(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A tool in its place. Lengths mm, feeds mm/min, speed turns a minute; `length` is what it can cut deep."""

    number: int
    name: str
    kind: Literal["drill", "mill"]
    diameter: float
    length: float
    feed: float
    plunge: float
    speed: float


class Clamp(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Something that stands on the bed: x, y of its least corner, its size, its height above the spoil board, mm."""

    x: float
    y: float
    length: float
    width: float
    height: float


class Machine(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A three-axis machine. X0 Y0 is the corner of the board, Z0 the top of the spoil board. Lengths mm.

    `lead`: radius of the arc on which a mill swings into an outline, plunged in the waste beside it; 0: it goes down on
    the outline by a ramp, as it does where there is no room for the arc.
    """

    name: str
    bed_length: float
    bed_width: float
    travel: float
    safe_height: float
    into_spoil: float
    rapid: float
    step_down: float
    tools: tuple[Tool, ...]
    margin: float = 0.0
    tool_change_seconds: float = 10.0
    tab_width: float = 8.0
    tab_height: float = 3.0
    tabs_below: float = 0.0
    lead: float = 0.0
    ending: Literal["M2", "M30"] = "M2"
    percent: bool = False
    clamps: tuple[Clamp, ...] = ()

    def drill(self, diameter: float, depth: float) -> Tool | None:
        """The drill of a diameter that reaches so deep. `diameter`, `depth`: mm."""
        fits = (t for t in self.tools if t.kind == "drill" and abs(t.diameter - diameter) < 0.05 and t.length >= depth)
        return next(fits, None)

    def mill(self, width: float, depth: float) -> Tool | None:
        """The widest mill that fits into a width and reaches so deep. `width`, `depth`: mm."""
        fits = [t for t in self.tools if t.kind == "mill" and t.diameter <= width + 0.01 and t.length >= depth]
        return max(fits, key=lambda t: t.diameter, default=None)


def load_machine(path: Path) -> Machine:
    """Read a machine from TOML.

    Raises
    ------
    PlankError naming the file and the value: missing, unknown or impossible ones
    """
    found = convert(brought_up(plain(read_toml(path)), MACHINE, path.name), Machine, path.name)
    if min(found.bed_length, found.bed_width, found.travel, found.rapid, found.step_down) <= 0:
        raise PlankError("A size, feed or step is not above zero.", path.name, "Give it a real one.")
    if not found.tools:
        raise PlankError("The machine has no tools.", path.name, "List them under tools.")
    numbers = [t.number for t in found.tools]
    for tool in found.tools:
        where = f"{path.name}, tool {tool.number}"
        if numbers.count(tool.number) > 1:
            raise PlankError("Two tools have one number.", where, "Give each its own.")
        if min(tool.diameter, tool.length, tool.feed, tool.plunge, tool.speed) <= 0:
            raise PlankError("A size, feed or speed is not above zero.", where, "Give it a real one.")
    if found.safe_height <= 0 or found.into_spoil < 0 or found.tab_height < 0 or found.lead < 0:
        raise PlankError("A height is below zero.", path.name, "Give it a real one.")
    return found


@lasting
def shipped_machine() -> Machine:
    return load_machine(SHIPPED)
