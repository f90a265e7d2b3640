"""What a program does, step by step, in the board's own frame and mm: before any machine's words for it."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import msgspec

from tall_plank.measure.outlines import Point
from tall_plank.shop.machine.frame import Frame
from tall_plank.shop.machine.model import Machine, Tool

ABOVE = 2.0
"""mm above the board at which a plunge begins."""


class Go(msgspec.Struct, frozen=True):
    """A straight move to a place; None: that stays. `feed` in mm/min, 0: as fast as it goes; `said`: a feed already
    in force need not be said again."""

    x: float | None = None
    y: float | None = None
    z: float | None = None
    feed: float = 0.0
    said: bool = False


class Turn(msgspec.Struct, frozen=True):
    """An arc about a middle on the level, counter-clockwise or the other way."""

    x: float
    y: float
    middle_x: float
    middle_y: float
    counter: bool
    feed: float


class Take(msgspec.Struct, frozen=True):
    """A tool is changed in and started."""

    tool: Tool


class Leg(msgspec.Struct, frozen=True):
    """A stretch of a path, from the last one's end: straight, or about a middle."""

    x: float
    y: float
    middle: Point | None = None
    counter: bool = False


Step = Go | Turn | Take


@dataclass
class Steps:
    """The steps of one board as they grow."""

    machine: Machine
    size: tuple[float, float, float]
    steps: list[Step] = field(default_factory=list)
    tool: Tool | None = None

    def __post_init__(self) -> None:
        self.frame = Frame(self.machine, self.size)
        self.thickness = self.size[2]

    @property
    def safe(self) -> float:
        return self.thickness + self.machine.safe_height

    def take(self, tool: Tool) -> None:
        if self.tool != tool:
            self.tool = tool
            self.steps += [Take(tool), Go(z=self.safe)]

    def over(self, x: float, y: float) -> None:
        """Above the board to a place, then down to just above the wood."""
        self.steps += [Go(x, y), Go(z=self.thickness + ABOVE)]

    def up(self) -> None:
        self.steps.append(Go(z=self.safe))

    def passes(self, bottom: float) -> list[float]:
        """Heights of passes from the top of the board down to a bottom, in equal steps; mm."""
        whole = self.thickness - bottom
        count = max(1, math.ceil(whole / self.machine.step_down - 1e-9))
        return [self.thickness - whole * (i + 1) / count for i in range(count)]

    def plunge(self, z: float) -> None:
        assert self.tool is not None
        self.steps.append(Go(z=z, feed=self.tool.plunge))

    def cut(self, points: Sequence[Point], z: float | None = None) -> None:
        assert self.tool is not None
        for i, (x, y) in enumerate(points):
            self.steps.append(Go(x, y, z if i == 0 else None, self.tool.feed, said=i > 0))

    def follow(self, start: Point, legs: Sequence[Leg]) -> None:
        """Along a path, arcs as arcs where the machine takes them. `start`: where it stands."""
        assert self.tool is not None
        feed, at = self.tool.feed, start
        for i, leg in enumerate(legs):
            if leg.middle is None:
                self.steps.append(Go(leg.x, leg.y, feed=feed, said=i > 0))
            else:
                self.arc(at, (leg.x, leg.y), leg.middle, counter=leg.counter)
            at = (leg.x, leg.y)

    def arc(self, start: Point, end: Point, middle: Point, *, counter: bool) -> None:
        """An arc to a place, or chords that leave it by no more than the machine's measure."""
        assert self.tool is not None
        if self.machine.arcs == "arcs":
            self.steps.append(Turn(*end, *middle, counter, self.tool.feed))
            return
        for i, (x, y) in enumerate(chords(start, end, middle, counter=counter, off=self.machine.chord)):
            self.steps.append(Go(x, y, feed=self.tool.feed, said=i > 0))

    def lifted(self, path: Sequence[tuple[float, float, float]]) -> None:
        """Along straight stretches that rise and fall."""
        assert self.tool is not None
        self.steps += [Go(x, y, z, self.tool.feed, said=i > 0) for i, (x, y, z) in enumerate(path)]


def chords(start: Point, end: Point, middle: Point, *, counter: bool, off: float) -> list[Point]:
    """Ends of chords along an arc that leave it by no more than `off`, mm; a whole circle where it ends where it
    starts."""
    radius = math.dist(start, middle)
    a = math.atan2(start[1] - middle[1], start[0] - middle[0])
    sweep = swept(start, end, middle, counter=counter)
    most = 2.0 * math.acos(max(0.0, 1.0 - off / radius)) if radius > off else math.pi / 2
    count = max(1, math.ceil(sweep / most))
    turn = sweep if counter else -sweep
    found = [
        (middle[0] + radius * math.cos(a + turn * i / count), middle[1] + radius * math.sin(a + turn * i / count))
        for i in range(1, count)
    ]
    return [*found, end]


def swept(start: Point, end: Point, middle: Point, *, counter: bool) -> float:
    """Angle of an arc in radians; a whole turn where it ends where it starts."""
    a = math.atan2(start[1] - middle[1], start[0] - middle[0])
    b = math.atan2(end[1] - middle[1], end[0] - middle[0])
    found = (b - a if counter else a - b) % (2 * math.pi)
    return found if 1e-9 < found < 2 * math.pi - 1e-9 else 2 * math.pi


def seconds_of(steps: Sequence[Step], machine: Machine) -> float:
    """How long they take: every move's length over its feed, and a time for each change of tools."""
    at = (0.0, 0.0, machine.travel)
    seconds = 0.0
    for step in steps:
        if isinstance(step, Take):
            seconds += machine.tool_change_seconds + machine.spindle_wait
            continue
        z = at[2] if isinstance(step, Turn) or step.z is None else step.z
        to = (at[0] if step.x is None else step.x, at[1] if step.y is None else step.y, z)
        if isinstance(step, Turn):
            middle = (step.middle_x, step.middle_y)
            length = math.dist(at[:2], middle) * swept(at[:2], to[:2], middle, counter=step.counter)
        else:
            length = math.dist(at, to)
        seconds += length / (step.feed or machine.rapid) * 60.0
        at = to
    return seconds


def points_of(start: Point, legs: Sequence[Leg], off: float) -> list[Point]:
    """A path as points from its start, arcs as chords."""
    found = [start]
    for leg in legs:
        end = (leg.x, leg.y)
        if leg.middle is None:
            found.append(end)
        else:
            found += chords(found[-1], end, leg.middle, counter=leg.counter, off=off)
    return [p for i, p in enumerate(found) if i == 0 or math.dist(p, found[i - 1]) > 1e-9]


def legs_of(points: Sequence[Point], middles: Sequence[Point], radius: float, *, counter: bool) -> list[Leg]:
    """A path through points whose stretches about one of some middles are arcs.

    Parameters
    ----------
    points : of a closed path, its first one last again
    middles : about which it may turn at a radius, mm
    counter : which way the arcs go
    """
    about = [_middle(p, q, middles, radius) for p, q in itertools.pairwise(points)]
    found: list[Leg] = []
    for middle, group in itertools.groupby(range(len(about)), key=about.__getitem__):
        runs = list(group)
        if middle is None or len(runs) < 3:
            found += [Leg(*points[i + 1]) for i in runs]
        else:
            found.append(Leg(*points[runs[-1] + 1], middle, counter))
    return found


def _middle(p: Point, q: Point, middles: Sequence[Point], radius: float) -> Point | None:
    for m in middles:
        if abs(m[0] - p[0]) > radius + 1 or abs(m[1] - p[1]) > radius + 1:
            continue
        if abs(math.dist(m, p) - radius) < 1e-6 and abs(math.dist(m, q) - radius) < 1e-6:
            return m
    return None
