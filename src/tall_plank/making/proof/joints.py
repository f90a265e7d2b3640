"""Both halves of every joint meet, in place, axis and size, and what holds them has the right length."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence

from tall_plank.making.parts import Asked, Bore, Cutout, Groove, Operation, Part, Rebate
from tall_plank.making.proof.mouths import Mouth, apart, dot, mouths_of, place_on
from tall_plank.making.proof.work import Amiss
from tall_plank.measure import told
from tall_plank.measure.frames import Vec, cross

Lent = Sequence[tuple[str, Sequence[Asked]]]
"""Panel that the unit does not own -> what it asks of it, in the unit's frame."""

APART = 0.05
"""mm by which both halves of a joint may miss each other."""

ALIKE = ("dowel", "biscuit", "loose tenon")
"""Uses whose two halves have the same size."""

PAIRED = frozenset({*ALIKE, "cam dowel", "carcass screw", "pocket screw", "wood screw"})
"""Uses that need a half in each of two parts."""

AIR, LOOSE = 1.0, 8.0
"""mm that both holes of a dowel or tenon are deeper together than it is long, at least and at most (common practice:
glue needs room, and a dowel that lies loose holds one part only)."""

BITE = 15.0
"""mm that a screw goes into the part it holds to, at least (common practice: a chipboard screw needs 15 to 20)."""

WOOD_BITE = 10.0
"""mm that a wood screw goes into what holds it, at least (common practice)."""

REACH = 60.0
"""mm from the mouth of a pocket to the end that its screw comes out of, at most."""


def amiss_between(
    parts: Sequence[Part],
    lent: Lent = (),
    lengths: Mapping[str, float] | None = None,
    mouths: Sequence[Mouth] | None = None,
    met: list[tuple[int, int]] | None = None,
) -> Iterator[tuple[int, Amiss]]:
    """What is wrong with the joints of a unit: the part's place in the list, and what.

    Parameters
    ----------
    lengths : use -> mm of the dowel, screw or tenon that goes into it; none: not asked
    mouths : those of the parts, where they are known
    met : takes the pairs of parts of which a half of one meets a half of the other
    """
    halves = [m for m in (mouths if mouths is not None else mouths_of(parts, PAIRED)) if m.use in PAIRED]
    known = lengths or {}
    # Most halves meet the one that was seen before at their place; what is left over is looked at closely.
    waiting: dict[tuple[int, int, int], list[Mouth]] = {}
    for half in halves:
        x, y, z = half.at
        key = (round(x), round(y), round(z))
        here = waiting.get(key)
        mate = None
        if here is not None:
            mate = next((o for o in here if _faces(half, o)), None)
        if mate is None:
            waiting.setdefault(key, []).append(half)
            continue
        here.remove(mate)  # type: ignore[union-attr]
        if met is not None:
            met.append((mate.part, half.part))
        yield from _pair(parts, half, mate, known)
    left = [half for group in waiting.values() for half in group]
    if left:
        yield from _alone(parts, left, halves, lent, known, [] if met is None else met)


def _pair(parts: Sequence[Part], one: Mouth, other: Mouth, known: Mapping[str, float]) -> Iterator[tuple[int, Amiss]]:
    """What is wrong with two halves that meet, told at the first of their parts."""
    if one.part > other.part:
        one, other = other, one
    if one.use in ALIKE and not _alike(one, other):
        yield one.part, Amiss(f"a {one.use} hole is not as wide as its other half", place_on(parts, one))
    length = known.get(one.use, 0.0)
    if (length or one.use == "wood screw") and (word := _held(parts, one, other, length)):
        yield one.part, Amiss(word, place_on(parts, one))


def _alone(
    parts: Sequence[Part],
    left: list[Mouth],
    halves: Sequence[Mouth],
    lent: Lent,
    known: Mapping[str, float],
    pairs: list[tuple[int, int]],
) -> Iterator[tuple[int, Amiss]]:
    """Halves that met none at once: they meet one a hair away, lean to it, or have it in a panel; or have none."""
    asked = [(_mouth(work), work.use) for _, works in lent for work in works]
    slanted = [m for m in halves if _slants(m)]
    met: set[int] = set()
    for half in left:
        if id(half) in met:
            continue
        if _slants(half):
            on_panel = any(use == half.use and math.dist(at, half.at) < REACH for at, use in asked)
            if not on_panel and not any(_leads(half, other) for other in halves):
                yield half.part, Amiss(f"a {half.use} leads into nothing", place_on(parts, half))
            continue
        mate = next((o for o in left if id(o) not in met and _faces(half, o)), None)
        if mate is not None:
            met |= {id(half), id(mate)}
            pairs.append((mate.part, half.part))
            yield from _pair(parts, half, mate, known)
            continue
        on_panel = any(use == half.use and math.dist(at, half.at) < APART for at, use in asked)
        if not on_panel and not any(_leads(o, half) for o in slanted):
            yield half.part, Amiss(f"a {half.use} hole has no other half", place_on(parts, half))


def _mouth(work: Asked) -> Vec:
    """The middle of what is asked for, on the panel's face."""
    if work.to is None:
        return work.at
    (a, b, c), (d, e, f) = work.at, work.to
    return ((a + d) / 2, (b + e) / 2, (c + f) / 2)


def _slants(mouth: Mouth) -> bool:
    return type(mouth.op) is Bore and mouth.op.slant != 0.0


def _size(mouth: Mouth) -> tuple[float, float]:
    match mouth.op:
        case Bore(diameter=wide):
            return wide, wide
        case Groove() as op:
            return op.width, math.hypot(op.x2 - op.x1, op.y2 - op.y1)
    return 0.0, 0.0


def _alike(one: Mouth, other: Mouth) -> bool:
    if type(one.op) is Bore and type(other.op) is Bore:
        return abs(one.op.diameter - other.op.diameter) <= APART
    (a, b), (c, d) = _size(one), _size(other)
    return abs(a - c) <= APART and abs(b - d) <= APART


def _faces(one: Mouth, other: Mouth) -> bool:
    """Whether two holes of a use look at each other from the same place."""
    (a, b, c), (d, e, f) = one.at, other.at
    if not (abs(a - d) < APART and abs(b - e) < APART and abs(c - f) < APART):
        return False
    if one.part == other.part or one.use != other.use or _slants(one) or _slants(other):
        return False
    (g, h, i), (k, m, n) = one.way, other.way
    return g * k + h * m + i * n < -0.999


def _leads(slanted: Mouth, pilot: Mouth) -> bool:
    """Whether a slanted hole leads to a pilot: along the joint they are at the same place."""
    if pilot.use != slanted.use or pilot.part == slanted.part or _slants(pilot):
        return False
    d = apart(slanted, pilot)
    return math.hypot(*d) < REACH and abs(dot(d, cross(slanted.way, pilot.way))) < APART


def _held(parts: Sequence[Part], one: Mouth, other: Mouth, length: float) -> str | None:
    """What is wrong with what holds a joint, by its length (mm)."""
    if one.use in ("carcass screw", "wood screw"):
        through = next((m for m in (one, other) if getattr(m.op, "through", False)), None)
        if through is not None and not _under_head(parts[through.part], through):
            return f"the head of a {one.use} finds no whole wood under it in {parts[through.part].name}"
    if one.use == "carcass screw":
        face, end = (one, other) if getattr(one.op, "through", False) else (other, one)
        bite = length - parts[face.part].thickness
        if bite < BITE:
            return f"a screw {length:g} mm long bites {told(max(bite, 0.0))} mm; {BITE:g} mm is the least"
        if bite > _deep(parts[end.part], end.way) - 2.0:
            return f"a screw {length:g} mm long comes out on the other side"
        return None
    if one.use == "wood screw" and one.op is not None and other.op is not None:
        pilot = min(m.depth for m in (one.op, other.op) if not getattr(m, "through", False))
        if pilot < WOOD_BITE - APART:
            return f"a wood screw bites {pilot:g} mm; {WOOD_BITE:g} mm is the least"
        return None
    if one.use in ("dowel", "loose tenon") and one.op is not None and other.op is not None:
        both = one.op.depth + other.op.depth
        if both - length < AIR - APART:
            return f"both {one.use} holes are {both:g} mm deep together: {length:g} mm do not go in"
        if both - length > LOOSE + APART:
            return f"both {one.use} holes are {both:g} mm deep together: {length:g} mm lie loose"
    return None


HEAD = 0.9
"""Radius of a screw's head, by the diameter of the hole that the screw goes through (common practice: a head is twice
as wide as its thread)."""


def _under_head(part: Part, mouth: Mouth) -> bool:
    """Whether a screw's head lies on whole wood: on the face away from what it holds to, clear of edges and of what
    else is cut there."""
    op = mouth.op
    if not isinstance(op, Bore) or op.face not in ("A", "B"):
        return True
    r, u, v = op.diameter * HEAD, op.x, op.y
    if not (r <= u + APART and u <= part.length - r + APART and r <= v + APART and v <= part.width - r + APART):
        return False
    outer = "B" if op.face == "A" else "A"
    return not any(cut is not op and _opens(part, cut, outer, u, v, r) for cut in part.operations)


def _opens(part: Part, cut: Operation, face: str, u: float, v: float, r: float) -> bool:
    """Whether something is cut into a face within r of a place. All in mm."""
    match cut:
        case Bore():
            there = cut.face == face or (cut.through and cut.face in ("A", "B"))
            return there and math.hypot(cut.x - u, cut.y - v) < r + cut.diameter / 2 - APART
        case Groove() if cut.face == face:
            x0, x1 = sorted((cut.x1, cut.x2))
            y0, y1 = sorted((cut.y1, cut.y2))
            beside = math.hypot(max(x0 - u, 0.0, u - x1), max(y0 - v, 0.0, v - y1))
            return beside < r + cut.width / 2 - APART
        case Rebate() if cut.face == face:
            near = {"L1": v, "L2": part.width - v, "W1": u, "W2": part.length - u}[cut.edge]
            return near < r + cut.width - APART
        case Cutout():
            beside = math.hypot(max(cut.x - u, 0.0, u - cut.x - cut.length), max(cut.y - v, 0.0, v - cut.y - cut.width))
            return beside < r - APART
    return False


def _deep(part: Part, way: Vec) -> float:
    """mm of a part along a direction of the unit."""
    f = part.frame
    return max(
        abs(dot(way, axis)) * size for axis, size in ((f.x, part.length), (f.y, part.width), (f.z, part.thickness))
    )
