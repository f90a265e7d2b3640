"""Sliding doors before carcasses: leaves on two lines in tracks, each framed and filled in bands.

leaf width = (opening + (leaves - 1) x overlap) / leaves; leaf height = opening less what the tracks take above and
below (common practice). Coordinates are those of the line: x along it, y into the wall, z up, mm.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import msgspec

from tall_plank.job import Construction, Kind, Run, SlidingDoors, Source
from tall_plank.job.things.sliding import LEAF
from tall_plank.making.bayset import Rect
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.parts import Draft, Item, Part, Problem
from tall_plank.making.proof.space import bounds_of
from tall_plank.making.trims import board_for
from tall_plank.making.unit import MadeUnit
from tall_plank.measure import Frame, PlankError, told
from tall_plank.measure.frames import X, Y
from tall_plank.measure.shareout import Member, Rule, share_out
from tall_plank.setout import Placed
from tall_plank.stock import Stock

LEG_STEP = 700.0
"""mm between the legs under the sill that carries the lower track (common practice)."""

LEAST_LEAF, MOST_LEAF = 300.0, 1500.0
"""mm of width that a leaf on rollers may have (common practice)."""


class BandBox(msgspec.Struct, frozen=True, cache_hash=True):
    """A band of a leaf as it is seen: z and height within its frame, and its finish."""

    z: float
    height: float
    finish: str


class LeafBox(msgspec.Struct, frozen=True, cache_hash=True):
    """A leaf: its left side, its line (0: in front, 1: behind) and its bands from the top down."""

    x: float
    width: float
    line: int
    bands: tuple[BandBox, ...]
    weight: float = 0.0


class MadeSliding(msgspec.Struct, frozen=True, cache_hash=True):
    """A set of sliding doors made.

    Attributes
    ----------
    source : the set that was decided
    x, z, width, height : of the opening, on the line
    out : mm from the wall to the outer faces of the leaves in front
    leaf_z, leaf_height : of every leaf
    frame : mm of the frame that is seen
    pitch : mm from the line of the leaves in front to the one behind
    parts : the bands with the leaf that each belongs to, and with -1 the boards that carry the tracks
    """

    source: Source
    room: str
    run: str
    wall_id: str
    cell: str
    x: float
    z: float
    width: float
    height: float
    out: float
    leaf_z: float
    leaf_height: float
    frame: float
    pitch: float
    leaves: tuple[LeafBox, ...] = ()
    parts: tuple[tuple[int, Part], ...] = ()
    items: tuple[Item, ...] = ()
    problems: tuple[Problem, ...] = ()


Units = tuple[tuple[Placed, MadeUnit], ...]


@dataclass(frozen=True)
class _Span:
    """What a set stands before: the opening from its first bay to its last one, mm along the wall and above the
    floor."""

    x0: float
    x1: float
    z0: float
    z1: float
    depth: float
    """mm; the deepest unit between."""
    first: Placed
    finish: str
    behind: Units
    """What stands behind the leaves."""

    @property
    def width(self) -> float:
        return self.x1 - self.x0


def _span_of(doors: SlidingDoors, units: dict[str, tuple[Placed, MadeUnit]]) -> _Span | None:
    """None where a unit that they stand before is gone or cannot be made."""
    ends: list[tuple[Placed, MadeUnit, Rect]] = []
    for ref in doors.bays:
        placed, unit = units.get(ref.cell, (None, None))
        boxes = unit.set.boxes if unit is not None and unit.set is not None else ()
        zone = next((b.zone for b in boxes if b.path == ref.path), None)
        if placed is None or unit is None or zone is None:
            return None
        ends.append((placed, unit, zone))
    x0, x1 = min(p.x + z.x0 for p, _, z in ends), max(p.x + z.x1 for p, _, z in ends)
    z0, z1 = min(p.bottom + z.z0 for p, _, z in ends), max(p.bottom + z.z1 for p, _, z in ends)
    first, unit, _ = ends[0]
    behind = tuple(
        (p, made)
        for p, made in units.values()
        if p.wall_id == first.wall_id and p.is_solid and overlaps(p, x0, x1, z0, z1)
    )
    return _Span(x0, x1, z0, z1, max(p.depth for p, _ in behind), first, unit.spec.front, behind)


def overlaps(p: Placed, x0: float, x1: float, z0: float, z1: float) -> bool:
    """Whether a unit stands behind an opening of its wall, mm."""
    return p.x < x1 - 1.0 and p.right > x0 + 1.0 and p.bottom < z1 - 1.0 and p.top > z0 + 1.0


def make_sliding(
    doors: SlidingDoors, run: Run, units: dict[str, tuple[Placed, MadeUnit]], made: Construction, stock: Stock
) -> MadeSliding | None:
    """One set; None where a unit that it stands before is gone or cannot be made."""
    span = _span_of(doors, units)
    if span is None:
        return None
    height = span.z1 - span.z0
    overlap = doors.overlap.mm if doors.overlap is not None else made.slide_overlap
    count = len(doors.leaves)
    leaf_w = (span.width + (count - 1) * overlap) / count
    # The boards that carry the tracks stand in the opening, so that fronts above and below it clear them.
    board = made.front_thickness
    leaf_z, leaf_h = span.z0 + board + made.slide_below, height - 2 * board - made.slide_above - made.slide_below
    base = MadeSliding(
        Kind.SLIDING.of(doors.id),
        span.first.room,
        run.id,
        span.first.wall_id,
        span.first.cell,
        span.x0,
        span.z0,
        span.width,
        height,
        span.depth + made.slide_standoff + made.slide_line + LEAF,
        leaf_z,
        leaf_h,
        made.slide_frame,
        made.slide_line,
    )
    problems = _checked(doors, leaf_w, leaf_h, span)
    leaves: list[LeafBox] = []
    parts: list[tuple[int, Part]] = []
    try:
        for i in range(count):
            at = span.x0 + i * (leaf_w - overlap)
            leaf, own = _leaf(doors, i, base, at, leaf_w, span.depth, made, stock)
            leaves.append(leaf)
            parts += own
        for word, z in (("track sill", span.z0), ("track head", span.z1 - board)):
            own_boards = _track_boards(stock, made, word, span.finish, span.x0, span.width, span.depth, base.out, z)
            parts += [(-1, p) for p in own_boards]
        problems += _too_heavy(leaves, made, stock)
        problems += _never_free(leaves, span)
    except PlankError as error:
        problems += [*_too_heavy(leaves, made, stock), Problem(error.what, error.remedy)]
    if any(p.weight == "wrong" for p in problems):
        return msgspec.structs.replace(base, problems=tuple(problems))
    items = _bought(doors, base, leaves, made)
    return msgspec.structs.replace(
        base, leaves=tuple(leaves), parts=tuple(parts), items=tuple(items), problems=tuple(problems)
    )


def _leaf(
    doors: SlidingDoors,
    i: int,
    base: MadeSliding,
    x: float,
    width: float,
    depth: float,
    made: Construction,
    stock: Stock,
) -> tuple[LeafBox, list[tuple[int, Part]]]:
    """A leaf with its bands.

    Raises
    ------
    PlankError where the stock has no board for a band
    """
    line = doors.line_of(i)
    face = depth + made.slide_standoff + (made.slide_line if line == 0 else 0.0)
    boxes = _bands(doors, i, base.leaf_z, base.leaf_height, made)
    parts = [(i, _band(stock, made, i, k, box, x, width, face)) for k, box in enumerate(boxes, 1)]
    return LeafBox(x, width, line, boxes, sum(p.weight for _, p in parts)), parts


def frees(leaves: Sequence[LeafBox], x0: float, x1: float, low: float, high: float) -> bool:
    """Whether leaves can be pushed so that nothing stands before a stretch of their opening.

    Parameters
    ----------
    x0, x1 : the opening, mm
    low, high : the stretch, mm

    On each line leaves keep their order: some of them go to the left of it, the others to its right.
    """
    for line in {leaf.line for leaf in leaves}:
        widths = [leaf.width for leaf in leaves if leaf.line == line]
        if not any(
            sum(widths[:k]) <= low - x0 + 0.5 and sum(widths[k:]) <= x1 - high + 0.5 for k in range(len(widths) + 1)
        ):
            return False
    return True


def _never_free(leaves: Sequence[LeafBox], span: _Span) -> Iterator[Problem]:
    """Drawers that a leaf stands before, however the leaves are pushed."""
    for placed, unit in span.behind:
        for drawer in unit.drawers:
            boxes = [bounds_of(p) for p in unit.parts if p.name.startswith(f"{drawer.name} ") and p.role == "drawer"]
            if not boxes or placed.bottom + max(b[1][2] for b in boxes) < span.z0:
                continue
            if placed.bottom + min(b[0][2] for b in boxes) > span.z1:
                continue
            low, high = placed.x + min(b[0][0] for b in boxes), placed.x + max(b[1][0] for b in boxes)
            if not frees(leaves, span.x0, span.x1, low, high):
                what = (
                    f"{placed.number}, {drawer.name}, cannot be pulled: however they are pushed, a leaf is before it."
                )
                yield Problem(what, "Divide the bays where the leaves overlap, or take another number of leaves.")
                break


def _too_heavy(leaves: list[LeafBox], made: Construction, stock: Stock) -> list[Problem]:
    """Leaves that weigh more than their rollers carry."""
    roller = stock.fitting(made.slide_roller)
    return [
        Problem(
            f"Leaf {i + 1} weighs {leaf.weight:.1f} kg; its rollers carry {roller.capacity:g} kg.",
            "Take more leaves or a lighter filling.",
        )
        for i, leaf in enumerate(leaves)
        if roller is not None and leaf.weight > roller.capacity
    ]


def _bought(doors: SlidingDoors, base: MadeSliding, leaves: list[LeafBox], made: Construction) -> list[Item]:
    """Tracks and profiles cut to length, legs under the sill, rollers."""
    cuts: list[tuple[str, float, str]] = [
        (made.slide_top, base.width, f"top track of an opening {told(base.width)} mm wide"),
        (made.slide_bottom, base.width, f"bottom track of an opening {told(base.width)} mm wide"),
    ]
    for leaf, box in zip(doors.leaves, leaves, strict=True):
        why = f"frame of a leaf {told(box.width)} x {told(base.leaf_height)} mm"
        cuts += [(made.slide_profile, base.leaf_height, why)] * 2
        cuts += [(made.slide_profile, box.width - 2 * made.slide_frame, why)] * (len(leaf.bands) + 1)
    items = [Item(code, 1, f"{why}: cut to {told(mm)} mm", mm) for code, mm, why in cuts]
    if base.z > 20.0:
        legs = int(base.width // LEG_STEP) + 2
        items.append(Item(made.leg, legs, f"legs under the sill of the track, every {LEG_STEP:g} mm at most"))
    why = f"{len(leaves)} leaves on rollers, the heaviest {_heaviest(leaves):.1f} kg"
    items.append(Item(made.slide_roller, len(leaves), why))
    return items


def _track_boards(
    stock: Stock, made: Construction, word: str, finish: str, x: float, width: float, depth: float, out: float, z: float
) -> list[Part]:
    """The board before the carcasses that a track is screwed to, below on legs and above; in equal pieces where it is
    longer than its board, which the track holds together.

    Raises
    ------
    PlankError where the stock has no such board
    """
    deep, thick = out - depth, made.front_thickness
    board = board_for(stock, finish, thick, word, (width, deep))
    count = max(1, math.ceil(width / board.usable_length))
    length = width / count
    found = []
    for i in range(count):
        name = word if count == 1 else f"{word} {i + 1}"
        draft = Draft(name, board, (length, deep), Frame((x + i * length, -out, z), X, Y), "sliding leaf")
        draft.band(stock, made.edging_front, "L1")
        found.append(draft.done(stock, made.premilling, made.edging_ignored_below))
    return found


def _heaviest(leaves: list[LeafBox]) -> float:
    return max(leaf.weight for leaf in leaves)


def _checked(doors: SlidingDoors, leaf_w: float, leaf_h: float, span: _Span) -> list[Problem]:
    """What stops the set: leaves too wide or too narrow, no height, doors behind them."""
    found = []
    x0, x1, z0, z1 = span.x0, span.x1, span.z0, span.z1
    lines = [doors.line_of(i) for i in range(len(doors.leaves))]
    for i, (a, c) in enumerate(itertools.pairwise(lines), 1):
        if a == c:
            found.append(Problem(f"Leaves {i} and {i + 1} run on the same line.", "Let one of them run on the other."))
    if not LEAST_LEAF <= leaf_w <= MOST_LEAF:
        word = "more" if leaf_w > MOST_LEAF else "fewer"
        found.append(
            Problem(
                f"A leaf would be {told(leaf_w)} mm wide; from {LEAST_LEAF:g} to {MOST_LEAF:g} mm run well.",
                f"Take {word} leaves.",
            )
        )
    if leaf_h < 300.0:
        found.append(Problem(f"The leaves would be {told(leaf_h)} mm high.", "Choose a higher opening."))
    for placed, unit in span.behind:
        if any(part.role == "face frame" for part in unit.shown):
            found.append(
                Problem(
                    f"{placed.number} has a face frame: the track's boards would run through its stiles.",
                    "Choose a standard without a face frame for what stands behind sliding doors.",
                )
            )
            continue
        for front in unit.fronts:
            low, high = placed.bottom + front.z, placed.bottom + front.z + front.height
            inside = placed.x + front.x + front.width > x0 + 1 and placed.x + front.x < x1 - 1
            if front.kind not in ("machine", "filler") and inside and high > z0 + 1 and low < z1 - 1:
                found.append(
                    Problem(
                        f"{placed.number} has a {front.kind} front behind the sliding doors.",
                        "Leave its bays open, or take inner drawers.",
                    )
                )
                break
    return found


def _bands(doors: SlidingDoors, index: int, leaf_z: float, leaf_h: float, made: Construction) -> tuple[BandBox, ...]:
    """The bands of a leaf, from the top down, with a rail between two.

    Raises
    ------
    PlankError where typed heights do not leave room
    """
    leaf = doors.leaves[index]
    frame = made.slide_frame
    members = [
        Member(Rule.FIXED, size=band.size.mm) if band.size is not None else Member(Rule.SHARE, least=60.0)
        for band in leaf.bands
    ]
    shares = share_out(leaf_h - 2 * frame, members, gap=frame)
    if not shares.fits or shares.left > 0.01:
        off = f"{told(shares.short)} mm short of" if shares.short else f"{told(-shares.left)} mm off"
        raise PlankError(
            f"The bands of leaf {index + 1} are {off} their sizes.", "bands", "Let one band take what is left."
        )
    found = []
    top = leaf_z + leaf_h - frame
    for band, size in zip(leaf.bands, shares.sizes, strict=True):
        found.append(BandBox(top - size, size, band.finish))
        top -= size + frame
    return tuple(found)


def _band(
    stock: Stock, made: Construction, leaf: int, number: int, box: BandBox, x: float, width: float, face: float
) -> Part:
    """The filling of a band: its sight and what enters the frame, in the middle of the leaf's thickness.

    Raises
    ------
    PlankError where the stock has no such board
    """
    finish = stock.finish(box.finish)
    glass = finish is not None and "glass" in finish.roles
    thick = made.glass_thickness if glass else made.panel_thickness
    into = made.slide_into
    wide, high = width - 2 * made.slide_frame + 2 * into, box.height + 2 * into
    board = board_for(stock, box.finish, thick, "sliding doors", (max(wide, high), min(wide, high)))
    plane = FacePlane(0.0, -face)
    upright = made.front_grain == "vertical" or glass
    x0, z0 = x + made.slide_frame - into, box.z - into
    frame = plane.frame(x0, LEAF / 2 + thick / 2, z0 if upright else z0 + high, upright=upright)
    size = (high, wide) if upright else (wide, high)
    draft = Draft(f"leaf {leaf + 1} band {number}", board, size, frame, "sliding leaf")
    return draft.done(stock, made.premilling, made.edging_ignored_below)
