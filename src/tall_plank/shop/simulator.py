"""A simulated machine: reads a finished program on its own, runs it on a board, and tells what would go wrong.

The language is RS-274/NGC (Kramer, Proctor, Messina: NIST IR 6556, 2000), as far as programs of a three-axis router use
it; anything else is told and stops the program. Nothing here is shared with what writes programs.

The board is a field of cells; every move takes off what its tool passes over. Known are the machine, its tools and
clamps, and the outlines of the parts that shall be left whole.
"""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from tall_plank.shop.machine.model import Machine, Tool

CELL = 1.0
"""mm; side of a cell."""

NEAR = 0.06
"""mm that a depth may differ by."""

REACH = 100_000.0
"""mm that a place may be from X0 Y0 at most."""

LONGEST_ARC = 100_000.0
"""mm along an arc."""

MOST_MOVES = 1_000_000
"""Straight moves of a program that are looked at, arcs counted by their pieces."""

GROUPS = {
    **dict.fromkeys(("G0", "G1", "G2", "G3", "G80"), "motion"), **dict.fromkeys(("G17", "G18", "G19"), "plane"),
    **dict.fromkeys(("G90", "G91"), "distance"), **dict.fromkeys(("G93", "G94"), "feed"),
    **dict.fromkeys(("G20", "G21"), "units"), **dict.fromkeys(("G40",), "compensation"),
    **dict.fromkeys(("G43", "G49"), "tool length"), **dict.fromkeys(("G54",), "coordinates"),
    **dict.fromkeys(("G61", "G64"), "path"), **dict.fromkeys(("M0", "M1", "M2", "M30"), "stopping"),
    "M6": "tool change", **dict.fromkeys(("M3", "M4", "M5"), "spindle"), **dict.fromkeys(("M7", "M8", "M9"), "coolant"),
    "G4": "dwell", "G53": "machine coordinates",
}  # fmt: skip
"""Words with their modal groups: two of one group on a line are an error."""


@dataclass(frozen=True)
class Fault:
    """What went wrong, and at which line of the program."""

    line: int
    kind: str
    what: str


@dataclass(frozen=True)
class Move:
    """A straight move of the tool's tip, mm; arcs are many of them."""

    line: int
    rapid: bool
    start: tuple[float, float, float]
    end: tuple[float, float, float]
    feed: float
    tool: Tool | None
    turning: bool

    @property
    def length(self) -> float:
        return math.dist(self.start, self.end)


@dataclass
class Run:
    """What a program did.

    Attributes
    ----------
    seconds : time on the machine, tool changes counted
    heights : (x, y) array of cells: mm of wood above the spoil board that are left; below 0 cut into it
    """

    faults: list[Fault] = field(default_factory=list)
    moves: list[Move] = field(default_factory=list)
    seconds: float = 0.0
    heights: NDArray[np.float32] = field(default_factory=lambda: np.zeros((0, 0), np.float32))

    def tell(self, line: int, kind: str, what: str) -> None:
        """Note a fault; one kind is told once a line, and no more than a hundred in all."""
        if len(self.faults) < 100 and not any(f.line == line and f.kind == kind for f in self.faults):
            self.faults.append(Fault(line, kind, what))


# --- the language

WORD = re.compile(r"([A-Z])([+-]?(?:\d+\.?\d*|\.\d+))")


def words_of(text: str) -> list[tuple[str, float]]:
    """The words of a line, blanks and comments left out.

    Raises
    ------
    ValueError where the line is none of the language
    """
    if len(text) > 256:
        raise ValueError("the line is longer than 256 characters")
    plain = re.sub(r"\([^()]*\)", "", text).split(";")[0]
    if "(" in plain or ")" in plain:
        raise ValueError("a comment is not closed, or stands in another")
    plain = re.sub(r"\s", "", plain).upper()
    found, at = [], 0
    while at < len(plain):
        match = WORD.match(plain, at)
        if match is None:
            raise ValueError(f"“{plain[at : at + 12]}” is no word")
        found.append((match[1], float(match[2])))
        at = match.end()
    return found


def _code(letter: str, number: float) -> str:
    return f"{letter}{number:g}"


@dataclass(frozen=True)
class Place:
    """Where a board lies, in the numbers of the machine: a turn or a mirroring, and where X0 Y0 Z0 is.

    Attributes
    ----------
    along_x, along_y : what X and Y grow by along the board's length
    across_x, across_y : the same along its width
    x0, y0, z0 : the machine's numbers at the board's corner, on the spoil board, mm
    """

    along_x: float
    along_y: float
    across_x: float
    across_y: float
    x0: float
    y0: float
    z0: float

    def on_board(self, x: float, y: float, z: float) -> tuple[float, float, float]:
        """A place in the board's own frame, mm."""
        dx, dy = x - self.x0, y - self.y0
        return dx * self.along_x + dy * self.along_y, dx * self.across_x + dy * self.across_y, z - self.z0


def place_of(machine: Machine, board: tuple[float, float, float]) -> Place:
    """A board on a machine, from what its file says of its axes: X to the right and Y to the back unless it says
    otherwise, the board's length along X or, where the bed is long along Y, along Y with its width to the left."""
    long, wide, thick = board
    right = -1.0 if machine.x_to == "left" else 1.0
    back = -1.0 if machine.y_to == "front" else 1.0
    tall = machine.long_side == "y"
    # The board's corner, its length and its width as seen from the front: (to the right, to the back).
    corner, along, across = ((wide, 0.0), (0.0, 1.0), (-1.0, 0.0)) if tall else ((0.0, 0.0), (1.0, 0.0), (0.0, 1.0))
    size = (wide, long) if tall else (long, wide)
    zero = {
        "front left": (0.0, 0.0), "front right": (size[0], 0.0), "back left": (0.0, size[1]), "back right": size,
        "middle": (size[0] / 2, size[1] / 2),
    }[machine.zero]  # fmt: skip
    return Place(
        along[0] * right, along[1] * back, across[0] * right, across[1] * back,
        (corner[0] - zero[0]) * right, (corner[1] - zero[1]) * back,
        -thick if machine.z_zero == "top" else 0.0,
    )  # fmt: skip


@dataclass
class _State:
    """The machine between two lines."""

    at: tuple[float, float, float]
    motion: str = ""
    scale: float = 1.0
    absolute: bool = True
    feed: float = 0.0
    speed: float = 0.0
    turning: bool = False
    chosen: int = 0
    tool: Tool | None = None
    place: Place = field(default_factory=lambda: Place(1.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0))
    offset: int = 0


def read_moves(text: str, machine: Machine, run: Run, place: Place) -> Iterator[Move]:
    """The moves of a program in the board's frame, one after another; what is wrong with its words is told and ends
    it."""
    tools = {t.number: t for t in machine.tools}
    state = _State((0.0, 0.0, machine.travel), place=place)
    ended = False
    enclosed = text.lstrip().startswith("%")
    for number, line in enumerate(text.splitlines(), 1):
        if line.strip() == "%" or not line.strip():
            continue
        if ended:
            break
        try:
            words = words_of(line)
            yield from _line(number, words, state, tools, machine, run)
        except ValueError as error:
            run.tell(number, "language", str(error))
            return
        ended = any(letter == "M" and value in (2.0, 30.0) for letter, value in words)
    if not ended and not enclosed:
        run.tell(len(text.splitlines()), "language", "the program does not end with M2 or M30")


def _line(
    number: int, words: list[tuple[str, float]], state: _State, tools: dict[int, Tool], machine: Machine, run: Run
) -> Iterator[Move]:
    """What a line of a program does: first what it sets, then its moves."""
    groups, values = _understood(words)
    _set(number, groups, values, state, tools, machine, run)
    if not any(axis in values for axis in "XYZ") and not (state.motion in ("G2", "G3") and {"I", "J"} & set(values)):
        return
    if "dwell" in groups:
        return
    if not state.motion or state.motion == "G80":
        raise ValueError("axes without a motion")
    x, y, z = (
        values[axis] * state.scale + (0.0 if state.absolute else state.at[i]) if axis in values else state.at[i]
        for i, axis in enumerate("XYZ")
    )
    if state.motion != "G0" and state.feed <= 0:
        raise ValueError("a cut without a feed")
    if not all(abs(v) <= REACH for v in (x, y, z)):
        raise ValueError("it leads out of reach of every machine")
    points = [(x, y, z)] if state.motion in ("G0", "G1") else _arc(state, (x, y, z), values)
    for point in points:
        start, end = state.place.on_board(*state.at), state.place.on_board(*point)
        yield Move(number, state.motion == "G0", start, end, state.feed, state.tool, state.turning)
        state.at = point


def _understood(words: list[tuple[str, float]]) -> tuple[dict[str, str], dict[str, float]]:
    """Codes by their groups and values by their letters; ValueError where the language does not allow them. More than
    four M words cannot be: they have four groups."""
    codes = [_code(letter, value) for letter, value in words if letter in "GM"]
    groups: dict[str, str] = {}
    for code in codes:
        group = GROUPS.get(code)
        if group is None:
            raise ValueError(f"{code} is not known here")
        if group in groups:
            raise ValueError(f"{groups[group]} and {code} are of one group")
        groups[group] = code
    values: dict[str, float] = {}
    for letter, value in words:
        if letter in "GMN":
            continue
        if letter not in "FSTXYZIJKRPH":
            raise ValueError(f"the letter {letter} is not known here")
        if letter in values:
            raise ValueError(f"there are two {letter} words")
        values[letter] = value
    if groups.get("plane", "G17") != "G17" or groups.get("feed", "G94") != "G94":
        raise ValueError("only G17 and G94 are understood")
    if groups.get("spindle") == "M4":
        raise ValueError("the spindle would turn backwards")
    return groups, values


def _set(
    number: int,
    groups: dict[str, str],
    values: dict[str, float],
    state: _State,
    tools: dict[int, Tool],
    machine: Machine,
    run: Run,
) -> None:
    """Units, feed, speed, tool, spindle, distance and motion that a line sets before it moves."""
    if "units" in groups:
        state.scale = 25.4 if groups["units"] == "G20" else 1.0
    state.feed = values["F"] * state.scale if "F" in values else state.feed
    state.speed = values.get("S", state.speed)
    if "T" in values:
        if values["T"] < 0 or not values["T"].is_integer():
            raise ValueError("T takes a whole number")
        state.chosen = int(values["T"])
    if "tool change" in groups:
        state.tool = tools.get(state.chosen)
        state.turning = False
        run.seconds += machine.tool_change_seconds
        if state.tool is None:
            run.tell(number, "tool", f"there is no tool {state.chosen}")
        state.offset = 0
    if "tool length" in groups:
        state.offset = int(values.get("H", state.chosen)) if groups["tool length"] == "G43" else 0
        if state.offset and (state.tool is None or state.offset != state.tool.number):
            run.tell(number, "tool", f"the length of tool {state.offset} is taken for another tool")
    if "spindle" in groups:
        state.turning = groups["spindle"] == "M3"
        if state.turning and state.speed <= 0:
            run.tell(number, "spindle", "the spindle is started without a speed")
    if "dwell" in groups:
        run.seconds += values.get("P", 0.0)
    if "distance" in groups:
        state.absolute = groups["distance"] == "G90"
    state.motion = groups.get("motion", state.motion)


def _arc(state: _State, end: tuple[float, float, float], values: dict[str, float]) -> list[tuple[float, float, float]]:
    """An arc in the plane as short straight moves. R above 0 is the arc of at most 180 degrees, below 0 the other."""
    x0, y0, z0 = state.at
    x1, y1, z1 = end
    clockwise = state.motion == "G2"
    if "R" in values:
        radius = values["R"] * state.scale
        chord = math.dist((x0, y0), (x1, y1))
        if chord < 1e-9:
            raise ValueError("an arc by its radius ends where it starts")
        if chord > 2 * abs(radius) + 0.002:
            raise ValueError("an arc's radius does not reach its end")
        rise = math.sqrt(max(0.0, radius * radius - chord * chord / 4))
        side = 1.0 if clockwise != (radius > 0) else -1.0
        cx = (x0 + x1) / 2 - side * rise * (y1 - y0) / chord
        cy = (y0 + y1) / 2 + side * rise * (x1 - x0) / chord
    elif "I" in values or "J" in values:
        cx, cy = x0 + values.get("I", 0.0) * state.scale, y0 + values.get("J", 0.0) * state.scale
        if abs(math.dist((cx, cy), (x0, y0)) - math.dist((cx, cy), (x1, y1))) > 0.002:
            raise ValueError("the two radii of an arc differ by more than 0.002 mm")
    else:
        raise ValueError("an arc has neither I, J nor R")
    radius = math.dist((cx, cy), (x0, y0))
    if radius < 1e-9:
        raise ValueError("an arc has no radius")
    a0, a1 = math.atan2(y0 - cy, x0 - cx), math.atan2(y1 - cy, x1 - cx)
    sweep = (a0 - a1) % (2 * math.pi) if clockwise else (a1 - a0) % (2 * math.pi)
    if sweep < 1e-9:
        sweep = 2 * math.pi
    if sweep * radius > LONGEST_ARC:
        raise ValueError(f"an arc is {sweep * radius / 1000:,.0f} m long")
    count = max(8, math.ceil(sweep * radius / 1.0))
    points = []
    for i in range(1, count + 1):
        a = a0 + (-sweep if clockwise else sweep) * i / count
        points.append((cx + radius * math.cos(a), cy + radius * math.sin(a), z0 + (z1 - z0) * i / count))
    points[-1] = end
    return points


# --- the run


def run_program(
    text: str,
    machine: Machine,
    board: tuple[float, float, float],
    parts: Sequence[tuple[str, Any, Sequence[Any]]] = (),
    cell: float = CELL,
) -> Run:
    """Run a program on a board.

    Parameters
    ----------
    board : length, width, thickness, mm; its corner at X0 Y0, its underside at Z0
    parts : (name, outline, openings): what has to stay whole, points in mm
    cell : mm; side of a cell
    """
    run = Run()
    nx, ny = max(1, math.ceil(board[0] / cell)), max(1, math.ceil(board[1] / cell))
    if nx * ny > 80_000_000:
        run.tell(0, "board", "the board is too large to be looked at")
        return run
    run.heights = np.full((nx, ny), board[2], np.float32)
    names, owner = _owners(parts, (nx, ny), cell)
    place = place_of(machine, board)
    bed = _bed(machine, board)
    for move in read_moves(text, machine, run, place):
        if len(run.moves) >= MOST_MOVES:
            run.tell(move.line, "length", f"only the first {MOST_MOVES:,} moves were looked at")
            break
        run.moves.append(move)
        run.seconds += move.length / (machine.rapid if move.rapid else move.feed) * 60.0
        _travel(move, machine, run, bed)
        _clamps(move, machine, run, place)
        if min(move.start[2], move.end[2]) < board[2] - 1e-6:
            _cut(move, machine, board, run, names, owner, cell)
    return run


def _owners(parts: Sequence[tuple[str, Any, Sequence[Any]]], size: tuple[int, int], cell: float):  # type: ignore[no-untyped-def]
    """Which part each cell lies in, a cell's width within its outline; -1 none."""
    import shapely

    owner = np.full(size, -1, np.int32)
    names = []
    for number, (name, outline, openings) in enumerate(parts):
        names.append(name)
        shape = shapely.Polygon(outline, openings).buffer(-cell)
        if shape.is_empty:
            continue
        x0, y0, x1, y1 = (v / cell for v in shape.bounds)
        a, b = max(0, int(x0)), min(size[0], int(x1) + 1)
        c, d = max(0, int(y0)), min(size[1], int(y1) + 1)
        xs, ys = np.meshgrid((np.arange(a, b) + 0.5) * cell, (np.arange(c, d) + 0.5) * cell, indexing="ij")
        owner[a:b, c:d][shapely.contains_xy(shape, xs, ys)] = number
    return names, owner


def _bed(machine: Machine, board: tuple[float, float, float]) -> tuple[float, float, float, float]:
    """The bed in the board's frame: least and greatest place along and across, mm. The board lies in its corner."""
    tall = machine.long_side == "y"
    spare = (machine.bed_length - board[0], machine.bed_width - board[1])
    words = machine.zero.split()
    if machine.zero == "middle":
        before = (spare[0] / 2, spare[1] / 2)
    else:
        at_back, at_right = words[0] == "back", words[1] == "right"
        # Its width runs to the left where its length runs to the back.
        before = (
            spare[0] if (at_back if tall else at_right) else 0.0,
            spare[1] if (not at_right if tall else at_back) else 0.0,
        )
    return -before[0], -before[1], board[0] + spare[0] - before[0], board[1] + spare[1] - before[1]


def _travel(move: Move, machine: Machine, run: Run, bed: tuple[float, float, float, float]) -> None:
    x, y, z = move.end
    over = machine.margin + 1e-4
    if not (bed[0] - over <= x <= bed[2] + over and bed[1] - over <= y <= bed[3] + over):
        run.tell(move.line, "travel", f"X{x:.1f} Y{y:.1f} is beyond the bed")
    if z > machine.travel + 1e-4:
        run.tell(move.line, "travel", f"Z{z:.1f} is above the travel of {machine.travel:g}")


def _clamps(move: Move, machine: Machine, run: Run, place: Place) -> None:
    if not machine.clamps:
        return
    from shapely import LineString, Point, box

    low = min(move.start[2], move.end[2])
    radius = move.tool.diameter / 2 if move.tool is not None else 0.0
    path = LineString([move.start[:2], move.end[:2]]) if move.start[:2] != move.end[:2] else Point(move.start[:2])
    for clamp in machine.clamps:
        if low < clamp.height:
            one = place.on_board(clamp.x, clamp.y, 0.0)
            other = place.on_board(clamp.x + clamp.length, clamp.y + clamp.width, 0.0)
            shape = box(*(min(one[i], other[i]) for i in (0, 1)), *(max(one[i], other[i]) for i in (0, 1)))
            if path.distance(shape) < radius + 1e-6:
                run.tell(move.line, "clamp", f"the tool meets the clamp at {clamp.x:g}, {clamp.y:g}")


def _cut(
    move: Move,
    machine: Machine,
    board: tuple[float, float, float],
    run: Run,
    names: list[str],
    owner: NDArray[np.int32],
    cell: float,
) -> None:
    """Take off what the tool passes over, and look at what it meets."""
    x1, y1, z1 = move.end
    low = min(move.start[2], z1)
    radius = move.tool.diameter / 2 if move.tool is not None else 1.0
    if low < -machine.into_spoil - NEAR:
        run.tell(move.line, "depth", f"Z{low:.2f} goes deeper into the spoil board than {machine.into_spoil:g}")
    # With it comes the compiler, which the window starts without.
    from tall_plank.shop.simcut import take_off

    meets, hit = take_off(run.heights, owner, cell, move.start, move.end, radius, move.rapid, NEAR)
    if meets:
        if move.rapid:
            run.tell(move.line, "rapid", f"a rapid move through wood at X{x1:.1f} Y{y1:.1f}")
        elif move.tool is None:
            run.tell(move.line, "tool", "a cut without a tool")
        elif not move.turning:
            run.tell(move.line, "spindle", "a cut with the spindle standing")
        elif move.tool.kind == "drill" and math.dist(move.start[:2], move.end[:2]) > 1e-3:
            run.tell(move.line, "tool", f"{move.tool.name} cuts sideways")
        if move.tool is not None and board[2] - low > move.tool.length + NEAR:
            what = f"{move.tool.name} cuts {move.tool.length:g} deep; here are {board[2] - low:.1f}"
            run.tell(move.line, "depth", what)
    if move.tool is not None and move.tool.kind == "mill" and hit >= 0:
        run.tell(move.line, "part", f"cuts into the finished part {names[hit]}")
