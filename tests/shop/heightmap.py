"""An independent look at programs: what a program leaves at any point, to a few thousandths of a millimetre, beside what
the part's own operations ask for there.

It shares nothing with what writes programs or with the simulated machine: it reads the words of a program by itself,
sweeps each tool along its moves exactly, and takes what is wanted from the finished part.
"""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

import msgspec
import numpy as np
from numpy.typing import NDArray

from tall_plank.job.cutting import LaidPart
from tall_plank.making import Bore, Cutout, Groove, Part
from tall_plank.making.parts import Rebate
from tall_plank.shop.machine.model import Machine
from tall_plank.shop.machine.programs import Program
from tall_plank.workings import Workings

NEAR = 0.02
"""mm that a program may differ by."""

FLAT = 0.0005
"""mm that a chord may leave its arc by."""

Array = NDArray[np.float64]


# --- what is left


@dataclass
class Cuts:
    """Straight stretches of a tool's tip: (x0, y0, z0, x1, y1, z1), and its radius, as arrays."""

    moves: Array
    radius: Array

    def height(self, points: Array, thickness: float) -> Array:
        """What is left above the spoil board at some points, mm; the board's thickness where no tool was."""
        left = np.full(len(points), thickness)
        low = np.minimum(self.moves[:, 2], self.moves[:, 5])
        keep = low < thickness - 1e-9
        moves, radius = self.moves[keep], self.radius[keep]
        for start in range(0, len(points), 256):
            some = points[start : start + 256]
            (x0, y0), (x1, y1) = some.min(axis=0), some.max(axis=0)
            a, b = np.minimum(moves[:, 0], moves[:, 3]), np.maximum(moves[:, 0], moves[:, 3])
            c, d = np.minimum(moves[:, 1], moves[:, 4]), np.maximum(moves[:, 1], moves[:, 4])
            by = (a - radius <= x1) & (b + radius >= x0) & (c - radius <= y1) & (d + radius >= y0)
            m, r = moves[by], radius[by]
            if not len(m):
                continue
            dx, dy = m[:, 3] - m[:, 0], m[:, 4] - m[:, 1]
            long = dx * dx + dy * dy
            px, py = some[:, :1] - m[None, :, 0], some[:, 1:] - m[None, :, 1]
            with np.errstate(invalid="ignore", divide="ignore"):
                share = np.where(long > 1e-18, np.clip((px * dx + py * dy) / long, 0.0, 1.0), 0.0)
            away = np.hypot(px - share * dx, py - share * dy)
            # A tool that rises or falls on its way is lowest where it still covers the point.
            reach = np.sqrt(np.maximum(0.0, r * r - away * away)) / np.sqrt(np.maximum(long, 1e-18))
            ends = np.where(m[:, 5] < m[:, 2], np.minimum(1.0, share + reach), np.maximum(0.0, share - reach))
            tip = np.where(long > 1e-18, m[:, 2] + ends * (m[:, 5] - m[:, 2]), np.minimum(m[:, 2], m[:, 5]))
            found = np.where(away <= r, tip, np.inf).min(axis=1)
            left[start : start + 256] = np.minimum(left[start : start + 256], found)
        return left


WORD = re.compile(r"([A-Z])\s*([-+]?\d*\.?\d+)")


def cuts_of(text: str, machine: Machine) -> Cuts:
    """The moves of a program of the shipped kind: millimetres, the board's corner at X0 Y0, Z0 below it."""
    sizes = {t.number: t.diameter / 2 for t in machine.tools}
    x = y = 0.0
    z = machine.travel
    motion, radius, next_tool = "", 0.0, 0
    moves: list[tuple[float, ...]] = []
    radii: list[float] = []
    for line in text.splitlines():
        plain = re.sub(r"\(.*?\)|;.*", "", line).strip()
        if not plain or plain == "%":
            continue
        words = [(a, float(b)) for a, b in WORD.findall(plain)]
        values = {a: b for a, b in words if a not in "GM"}
        for a, b in words:
            if a == "G" and b in (0, 1, 2, 3):
                motion = f"G{b:g}"
            if a == "G" and b in (20, 91, 18, 19):
                raise ValueError(f"{line}: not of the shipped kind")
        next_tool = int(values.get("T", next_tool))
        if any(a == "M" and b == 6 for a, b in words):
            radius = sizes[next_tool]
        if not {"X", "Y", "Z"} & set(values):
            continue
        end = (values.get("X", x), values.get("Y", y), values.get("Z", z))
        way = [(x, y, z), end]
        if motion in ("G2", "G3"):
            way = list(_arc((x, y, z), end, values["I"], values["J"], clockwise=motion == "G2"))
        for p, q in zip(way, way[1:], strict=False):
            moves.append((*p, *q))
            radii.append(radius)
        x, y, z = end
    return Cuts(np.array(moves, float).reshape(-1, 6), np.array(radii))


def _arc(
    start: tuple[float, float, float], end: tuple[float, float, float], i: float, j: float, *, clockwise: bool
) -> Iterator[tuple[float, float, float]]:
    cx, cy = start[0] + i, start[1] + j
    r = math.hypot(i, j)
    assert abs(math.hypot(end[0] - cx, end[1] - cy) - r) < 0.002, "the two radii of an arc"
    a = math.atan2(-j, -i)
    b = math.atan2(end[1] - cy, end[0] - cx)
    turn = (a - b) % (2 * math.pi) if clockwise else (b - a) % (2 * math.pi)
    turn = turn or 2 * math.pi
    count = max(2, math.ceil(turn / (2 * math.acos(max(0.0, 1 - FLAT / r)))))
    yield start
    for k in range(1, count):
        t = a + (-turn if clockwise else turn) * k / count
        yield (cx + r * math.cos(t), cy + r * math.sin(t), start[2] + (end[2] - start[2]) * k / count)
    yield end


# --- what is wanted


@dataclass
class Wanted:
    """Regions of a part as it lies, with what shall be left in each; (signed distance to its edge, bottom)."""

    part: Part
    place: LaidPart
    up: str
    thickness: float
    spoil: float
    regions: list[tuple[object, float]] = field(default_factory=list)

    def out(self, x: float, y: float) -> tuple[float, float]:
        """A place of the finished part where it lies: its cut corner moved to the origin, turned over, turned, laid."""
        p = self.part
        u, v = x - p.cut_origin[0], y - p.cut_origin[1]
        long, wide = p.cut_length, p.cut_width
        if self.up == "B":
            v = wide - v
        quarter = round((self.place.angle or (90.0 if self.place.turned else 0.0)) / 90) % 4
        for _ in range(quarter):
            u, v, long, wide = wide - v, u, wide, long
        return self.place.x + u, self.place.y + v


def samples(w: Wanted, *, second: bool, outline: bool) -> Iterator[tuple[tuple[float, float], float, str]]:
    """Points about every operation's edges with what shall be left there, and what they belong to."""
    t = w.thickness
    rounds: list[tuple[float, float, float, float]] = []
    boxes: list[tuple[float, float, float, float, float]] = []
    p = w.part
    for op in p.operations:
        match op:
            case Bore() if op.face in ("A", "B") and not op.slant and ((not second) if op.through else op.face == w.up):
                bottom = -w.spoil if op.through else t - op.depth
                rounds.append((*w.out(op.x, op.y), op.diameter / 2, bottom))
            case Groove() if op.face == w.up and (abs(op.x1 - op.x2) < 1e-9 or abs(op.y1 - op.y2) < 1e-9):
                half = op.width / 2
                along_x = abs(op.y1 - op.y2) < 1e-9
                (x0, x1), (y0, y1) = sorted((op.x1, op.x2)), sorted((op.y1, op.y2))
                box = (x0, y0 - half, x1, y1 + half) if along_x else (x0 - half, y0, x1 + half, y1)
                boxes.append((*_box(w, box), t - op.depth))
            case Rebate() if op.face == w.up:
                long, wide = p.length, p.width
                box = {
                    "L1": (-1.0, -1.0, long + 1, op.width), "L2": (-1.0, wide - op.width, long + 1, wide + 1),
                    "W1": (-1.0, -1.0, op.width, wide + 1), "W2": (long - op.width, -1.0, long + 1, wide + 1),
                }[op.edge]  # fmt: skip
                boxes.append((*_box(w, box), t - op.depth))
            case Cutout() if not second:
                boxes.append((*_box(w, (op.x, op.y, op.x + op.length, op.y + op.width)), -w.spoil))
            case _:
                pass
    corners = [w.out(x, y) for x, y in (p.cut_outline or p.outline or _rectangle(p))]

    def wanted(x: float, y: float) -> float | None:
        """What shall be left; None where a point lies too near to an edge to say."""
        edge = _to_outline(corners, x, y)
        if abs(edge) < NEAR - 1e-6:
            return None
        if edge > 0:
            return -w.spoil if outline and edge < 5.0 else None  # further out lies waste
        left = t
        for cx, cy, r, bottom in rounds:
            away = math.hypot(x - cx, y - cy) - r
            if abs(away) < NEAR - 1e-6:
                return None
            left = min(left, bottom) if away < 0 else left
        for x0, y0, x1, y1, bottom in boxes:
            away = max(x0 - x, x - x1, y0 - y, y - y1)
            if abs(away) < NEAR - 1e-6:
                return None
            if away < -5.0 and bottom < 0:
                return None  # what falls out of an opening is waste
            # Inner corners of a box are as round as the mill: nothing is said of them.
            if away < 0 and min(x - x0, x1 - x) < 70.0 and min(y - y0, y1 - y) < 70.0 and bottom < 0:
                return None
            left = min(left, bottom) if away < 0 else left
        return left

    def tell(x: float, y: float, what: str) -> Iterator[tuple[tuple[float, float], float, str]]:
        value = wanted(x, y)
        if value is not None:
            yield (x, y), value, what

    for cx, cy, r, _ in rounds:
        for k in range(8):
            a = 2 * math.pi * k / 8
            for radius in (r - NEAR, r + NEAR, r / 2):
                yield from tell(cx + radius * math.cos(a), cy + radius * math.sin(a), f"hole of {2 * r:g}")
    for x0, y0, x1, y1, bottom in boxes:
        mx, my = (x0 + x1) / 2, (y0 + y1) / 2
        for s in (-NEAR, NEAR):
            for x, y in ((x0 + s, my), (x1 + s, my), (mx, y0 + s), (mx, y1 + s)):
                yield from tell(x, y, f"box {x1 - x0:.1f} x {y1 - y0:.1f}")
        if bottom > 0:  # what falls out of an opening is waste, whatever is left of it
            yield from tell(mx, my, "middle of a box")
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    for i in range(7):
        for k in range(5):
            # All over its face: nothing else is cut there.
            x = min(xs) + (max(xs) - min(xs)) * (i + 0.37) / 7
            y = min(ys) + (max(ys) - min(ys)) * (k + 0.61) / 5
            if _to_outline(corners, x, y) < 0:
                yield from tell(x, y, "face")
    for (ax, ay), (bx, by) in zip(corners, corners[1:] + corners[:1], strict=True):
        length = math.hypot(bx - ax, by - ay)
        if length < 1.0:
            continue
        nx, ny = (by - ay) / length, -(bx - ax) / length
        for share in (0.1, 0.5, 0.9):
            x, y = ax + (bx - ax) * share, ay + (by - ay) * share
            for s in (-NEAR, NEAR):
                yield from tell(x + nx * s, y + ny * s, "outline")


def _rectangle(p: Part) -> list[tuple[float, float]]:
    x, y = p.cut_origin
    return [(x, y), (x + p.cut_length, y), (x + p.cut_length, y + p.cut_width), (x, y + p.cut_width)]


def _box(w: Wanted, box: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    (ax, ay), (bx, by) = w.out(box[0], box[1]), w.out(box[2], box[3])
    return min(ax, bx), min(ay, by), max(ax, bx), max(ay, by)


def _to_outline(corners: list[tuple[float, float]], x: float, y: float) -> float:
    """Distance to an outline, below 0 within it."""
    inside, least = False, math.inf
    for (ax, ay), (bx, by) in zip(corners, corners[1:] + corners[:1], strict=True):
        if (ay > y) != (by > y) and x < (bx - ax) * (y - ay) / (by - ay) + ax:
            inside = not inside
        dx, dy = bx - ax, by - ay
        long = dx * dx + dy * dy
        s = max(0.0, min(1.0, ((x - ax) * dx + (y - ay) * dy) / long)) if long > 0 else 0.0
        least = min(least, math.hypot(x - ax - s * dx, y - ay - s * dy))
    return -least if inside else least


# --- beside one another


def _refused(op: object, said: list[str]) -> bool:
    """Whether an operation is among what a program tells that it does not do."""
    match op:
        case Bore() | Cutout():
            place = f"{op.x:.1f}, {op.y:.1f}"
            return any(x.endswith(place) for x in said)
        case Groove():
            return any(x.endswith(f"{op.x1:.1f}, {op.y1:.1f} to {op.x2:.1f}, {op.y2:.1f}") for x in said)
        case Rebate():
            return any(x.endswith(f"along {op.edge}") for x in said)
    return False


def differences(
    program: Program, parts: Mapping[str, Part], places: Mapping[str, LaidPart], machine: Machine, *, routed: bool
) -> tuple[int, list[str]]:
    """How many points of a program were looked at, and where it leaves something else than the parts ask for.

    Parameters
    ----------
    places : of the parts as they lie
    routed : whether the parts are cut out
    """
    assert program.setup is not None
    cuts = cuts_of(program.text, machine)
    thick = program.size[2]
    second = program.name.endswith("-second")
    points: list[tuple[float, float]] = []
    wanted: list[float] = []
    said: list[str] = []
    for work in program.setup.works:
        part = parts[work.part]
        left = [x for x in program.refused if x.part == work.part and x.why != "corner"]
        whole = any(x.what.startswith("its outline") for x in left)
        told = [x.what for x in left]
        kept = tuple(op for op in part.operations if not _refused(op, told))
        w = Wanted(
            msgspec.structs.replace(part, operations=kept), places[work.part], work.up, thick, machine.into_spoil
        )
        for point, value, what in samples(w, second=second, outline=routed and not second and not whole):
            points.append(point)
            wanted.append(value)
            said.append(f"{work.part} {part.name}: {what}")
    if not points:
        return 0, []
    found = cuts.height(np.array(points), thick)
    faults = []
    for (x, y), value, height, what in zip(points, wanted, found, said, strict=True):
        # Around a small part tabs are left; nothing else is wanted through there.
        tab = value < 0 and abs(height - machine.tab_height) <= NEAR
        if abs(height - value) > NEAR and not tab:
            faults.append(f"{program.name}, {what} at {x:.2f}, {y:.2f}: {height:.3f} instead of {value:.3f}")
    return len(points), faults


def job_differences(w: Workings) -> tuple[int, int, list[str]]:
    """Programs and points of a job that were looked at, and what differs."""
    files, parts = w.machine_files, {i.number: i.part for i in w.made.parts()}
    routed = w.job.cutting.mode == "router"
    boards = {f"board-{i:02d}": {p.part: p for p in b.parts} for i, b in enumerate(w.plan.boards, 1)}
    points, faults = 0, []
    for program in (*files.programs, *files.second):
        assert program.setup is not None
        own = boards.get(program.name) if routed else None
        places = own or {
            x.part: LaidPart(x.part, 0.0, 0.0, program.size[0], program.size[1], "across" in program.setup.face)
            for x in program.setup.works
        }
        count, wrong = differences(program, parts, places, w.router, routed=routed and own is not None)
        points += count
        faults += wrong
    return len(files.programs) + len(files.second), points, faults
