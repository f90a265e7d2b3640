"""What moves hangs on something: every cup has its plate, every hinge both its halves, every runner two sides."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from tall_plank.making.parts import Bore, Part
from tall_plank.making.proof.joints import Lent
from tall_plank.making.proof.mouths import Mouth, apart, dot, mouths_of, place_on
from tall_plank.making.proof.work import Amiss
from tall_plank.measure import told
from tall_plank.measure.frames import NEG_X, X

CUP = 20.0
"""mm; a hinge's hole at least as wide is its cup."""

LINE, LINE_OFF = 37.0, 1.5
"""mm from the back of a front to the line of its hinges' plates, and by how much it may be off (common practice: cup
hinges of all makers are made for 37)."""

NEAR, FAR = -1.0, 30.0
"""mm from the face of the upright to the middle of the cup, across: from a front that covers the whole edge to one that
is set in (common practice: 21.5 from the front's edge)."""

ASKEW = 100.0
"""mm from a cup to its plate at most, where the front stands at a slant or lies over a frame."""

HANGS = frozenset({"hinge", "hinge plate", "frame hinge", "butt hinge", "runner", "stay"})
"""Uses of the holes of what moves."""


def amiss_hanging(
    parts: Sequence[Part], lent: Lent = (), mouths: Sequence[Mouth] | None = None
) -> Iterator[tuple[int, Amiss]]:
    """Which front or drawer hangs on nothing: the part's place in the list, and what is wrong."""
    cups: list[Mouth] = []
    by_use: dict[str, list[Mouth]] = {use: [] for use in HANGS}
    for mouth in mouths if mouths is not None else mouths_of(parts, HANGS):
        if mouth.use == "hinge":
            if isinstance(mouth.op, Bore) and mouth.op.diameter >= CUP:
                cups.append(mouth)
        elif mouth.use in by_use:
            by_use[mouth.use].append(mouth)
    for gable, works in lent:
        # Panels beside the unit stand upright: the left one is drilled from its right, the right one from its left.
        way = NEG_X if "left" in gable else X
        for work in works:
            if work.use in by_use:
                by_use[work.use].append(Mouth(-1, work.use, work.at, way))
    plates = by_use["hinge plate"] + by_use["frame hinge"]
    for cup in cups:
        # What says how it is fixed brings its own plates: the carrier of a door that slides in.
        if parts[cup.part].fixed:
            continue
        if (word := _on_plate(cup, plates, bent=bool(parts[cup.part].bend))) is not None:
            yield cup.part, Amiss(word, place_on(parts, cup))
    butts = by_use["butt hinge"]
    for butt in butts:
        if butt.part >= 0 and not any(_opposite(butt, other) for other in butts):
            yield butt.part, Amiss("a butt hinge has no other half", place_on(parts, butt))
    for use, thing in (("runner", "its drawer"), ("stay", "its front")):
        yield from _one_sided(parts, by_use[use], f"a {use} has none on the other side of {thing}")


def _one_sided(parts: Sequence[Part], mouths: Sequence[Mouth], word: str) -> Iterator[tuple[int, Amiss]]:
    """Holes that have no counterpart as high and as far behind the front on the other side, with what is said of
    them."""
    rows: dict[tuple[int, int], list[Mouth]] = {}
    for mouth in mouths:
        _, y, z = mouth.at
        rows.setdefault((round(y), round(z)), []).append(mouth)
    for mouth in mouths:
        _, y, z = mouth.at
        if mouth.part >= 0 and not any(_level(mouth, o) for o in (*rows[(round(y), round(z))], *mouths)):
            yield mouth.part, Amiss(word, place_on(parts, mouth))


def _on_plate(cup: Mouth, plates: Sequence[Mouth], *, bent: bool) -> str | None:
    """What is wrong with the plate of a cup; None where it is where the cup asks for it.

    Parameters
    ----------
    bent : whether its front is: where it stands, its frame does not say; its hinges are held to their height only
    """
    level = [p for p in plates if p.part != cup.part and abs(p.at[2] - cup.at[2]) < 40.0]
    near = level if bent else [p for p in level if _beside(cup, p)]
    if not near:
        return "a hinge's cup has no plate beside it"
    by_part: dict[int, list[Mouth]] = {}
    for p in near:
        by_part.setdefault(p.part, []).append(p)
    for holes in by_part.values():
        if abs(sum(p.at[2] for p in holes) / len(holes) - cup.at[2]) < 0.05:
            line = -dot(apart(cup, holes[0]), cup.way)
            # A front at a slant to its upright, or over a frame, has a hinge of its own.
            plain = _square(cup, holes[0]) and holes[0].use == "hinge plate" and not bent
            if plain and abs(line - LINE) > LINE_OFF:
                return f"a hinge's plate stands {told(line)} mm behind its front; {LINE:g} mm are needed"
            return None
    return "a hinge's plate is not as high as its cup"


def _square(cup: Mouth, plate: Mouth) -> bool:
    return abs(dot(cup.way, plate.way)) < 0.01


def _beside(cup: Mouth, plate: Mouth) -> bool:
    """Whether a plate stands at the front's own hinge edge."""
    if plate.use == "hinge plate" and _square(cup, plate):
        return NEAR < -dot(apart(plate, cup), plate.way) < FAR
    return math.dist(plate.at, cup.at) < ASKEW


def _opposite(one: Mouth, other: Mouth) -> bool:
    """Whether two halves of a butt hinge look at each other across the gap."""
    d = apart(one, other)
    across = -dot(d, one.way)
    beside = max(0.0, d[0] ** 2 + d[1] ** 2 + d[2] ** 2 - across**2) ** 0.5
    return other.part != one.part and 0.0 <= across < 12.0 and beside < 12.0 and dot(one.way, other.way) < -0.99


def _level(one: Mouth, other: Mouth) -> bool:
    """Whether a runner's hole has its counterpart on the other side: as high, as far behind the front."""
    d = apart(one, other)
    level = other.part != one.part and abs(d[1]) < 0.05 and abs(d[2]) < 0.05
    return level and dot(one.way, other.way) < -0.99 and dot(d, one.way) < 0.0
