"""A machine and its tools as data, from a text file that the shop edits."""

from __future__ import annotations

from pathlib import Path
from typing import Literal

import msgspec

from tall_plank.formats.door import read_toml
from tall_plank.formats.envelope import brought_up
from tall_plank.formats.table import MACHINE
from tall_plank.measure import PlankError
from tall_plank.measure.remembered import lasting
from tall_plank.stock.library import convert, plain

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


Corner = Literal["front left", "front right", "back left", "back right", "middle"]
"""Where X0 Y0 lies on the work, as who stands before the machine sees it."""


class Machine(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A three-axis machine. Lengths are mm whatever its programs are written in.

    Attributes
    ----------
    bed_length, bed_width : mm; boards lie with their length along `bed_length`
    lead : radius of the arc on which a mill swings into an outline, plunged in the waste beside it, mm; 0: it goes down
        on the outline by a ramp, as it does where there is no room for the arc
    units : of the numbers in its programs
    long_side : the axis along which the bed is long, and boards lie
    zero, z_zero : where X0 Y0 and Z0 are
    x_to, y_to : where X and Y grow to, as who stands before the machine sees it
    length_offsets : whether each tool's length is taken from the machine's table (G43 H with the tool's number)
    spindle_wait : seconds that are waited for after the spindle is started
    header, footer : lines of the machine's own, written after the first comment and before the end
    arcs : as G2 and G3, or as straight moves off them by at most `chord`, mm
    comments : how what is said to people is written
    hold : how small parts are held until the end: by tabs, or by a skin of `skin` mm that is cut through last
    inner_corners : left round by the mill, or cut free by a run of the mill into the corner
    outline_tool : number of the mill that cuts outlines; 0: the widest that reaches through
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
    units: Literal["mm", "inch"] = "mm"
    long_side: Literal["x", "y"] = "x"
    zero: Corner = "front left"
    z_zero: Literal["spoil board", "top"] = "spoil board"
    x_to: Literal["right", "left"] = "right"
    y_to: Literal["back", "front"] = "back"
    length_offsets: bool = False
    spindle_wait: float = 0.0
    header: tuple[str, ...] = ()
    footer: tuple[str, ...] = ()
    arcs: Literal["arcs", "chords"] = "arcs"
    chord: float = 0.01
    comments: Literal["brackets", "semicolon", "none"] = "brackets"
    hold: Literal["tabs", "skin"] = "tabs"
    skin: float = 0.4
    inner_corners: Literal["round", "free"] = "round"
    outline_tool: int = 0

    def drill(self, diameter: float, depth: float) -> Tool | None:
        """The drill of a diameter that reaches so deep. `diameter`, `depth`: mm."""
        fits = (t for t in self.tools if t.kind == "drill" and abs(t.diameter - diameter) < 0.05 and t.length >= depth)
        return next(fits, None)

    def mill(self, width: float, depth: float) -> Tool | None:
        """The widest mill that fits into a width and reaches so deep. `width`, `depth`: mm."""
        fits = [t for t in self.tools if t.kind == "mill" and t.diameter <= width + 0.01 and t.length >= depth]
        return max(fits, key=lambda t: t.diameter, default=None)

    def outliner(self, thickness: float) -> Tool | None:
        """The mill that cuts outlines out of a board. `thickness`: mm."""
        deep = thickness + self.into_spoil
        fits = [t for t in self.tools if t.kind == "mill" and t.length >= deep and t.diameter >= LEAST_OUTLINER]
        own = next((t for t in fits if t.number == self.outline_tool), None)
        return own or max(fits, key=lambda t: t.diameter, default=None)


LEAST_OUTLINER = 6.0
"""mm; thinner mills cut no outlines: they break (common practice)."""


def load_machine(path: Path) -> Machine:
    """Read a machine from TOML.

    Raises
    ------
    PlankError naming the file and the value: missing, unknown or impossible ones
    """
    found = convert(brought_up(plain(read_toml(path)), MACHINE, path.name), Machine, path.name)
    if not found.tools:
        raise PlankError("The machine has no tools.", path.name, "List them under tools.")
    numbers = [t.number for t in found.tools]
    for tool in found.tools:
        where = f"{path.name}, tool {tool.number}"
        if numbers.count(tool.number) > 1:
            raise PlankError("Two tools have one number.", where, "Give each its own.")
    _agrees(found, path.name)
    return found


def _agrees(m: Machine, where: str) -> None:
    """Refuse what contradicts itself, naming the value."""
    numbers = {t.number: t for t in m.tools}
    own = numbers.get(m.outline_tool)
    wrong = (
        (m.outline_tool != 0 and own is None, "outline_tool", f"there is no tool {m.outline_tool}", "Name a mill."),
        (own is not None and own.kind != "mill", "outline_tool", f"tool {m.outline_tool} is a drill", "Name a mill."),
        (
            own is not None and own.kind == "mill" and own.diameter < LEAST_OUTLINER, "outline_tool",
            f"tool {m.outline_tool} is thinner than {LEAST_OUTLINER:g} mm", "Name a stronger one.",
        ),
        (m.safe_height >= m.travel, "safe_height", "it is above the travel", "Give less than travel."),
        (
            m.hold == "skin" and m.skin >= m.step_down, "skin", "it is as thick as a pass", "Give less than step_down.",
        ),
    )  # fmt: skip
    for fails, key, what, remedy in wrong:
        if fails:
            raise PlankError(f"{key}: {what}.", where, remedy)
    for name, lines in (("header", m.header), ("footer", m.footer)):
        for line in lines:
            if not line.isascii() or "\n" in line or len(line) > 200:
                raise PlankError(f"{name}: “{line[:20]}” cannot be sent to a machine.", where, "Use plain letters.")


@lasting
def shipped_machine() -> Machine:
    return load_machine(SHIPPED)
