"""The proof that what is made can be put together: it knows parts and operations, not how units are built.

- `space`: no two parts take the same space,
- `work`: every operation lies in its part, leaves wood, and meets no other,
- `joints`: both halves of every joint meet, and what holds them has the right length,
- `hanging`: what moves hangs on something,
- `taken`: nothing stands where something bought does,
- `paths`: what opens has its way free,
- `held`: no part floats.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from tall_plank.making.parts import Part, Problem
from tall_plank.making.proof.hanging import HANGS, amiss_hanging
from tall_plank.making.proof.held import HOLDS, floating
from tall_plank.making.proof.joints import PAIRED, Lent, amiss_between
from tall_plank.making.proof.mouths import mouths_of
from tall_plank.making.proof.paths import Drawn, Shut, barred_ways, kept_shut
from tall_plank.making.proof.space import Shared, bounds_of, boxes_of, shared_space
from tall_plank.making.proof.taken import Taken, standing_in
from tall_plank.making.proof.work import Amiss, amiss_in
from tall_plank.making.ways import Way
from tall_plank.measure import told

ASKED = HANGS | PAIRED | HOLDS
"""Uses of the holes and slots that are asked for their other half."""

MOST = 3
"""Faults of a unit that are told; the rest go with them."""


def faults_of(
    parts: Sequence[Part],
    lent: Lent = (),
    lengths: Mapping[str, float] | None = None,
    drawn: Sequence[Drawn] = (),
    ways: Sequence[Way] = (),
    taken: Sequence[Taken] = (),
) -> tuple[Problem, ...]:
    """Why the parts of a unit cannot be put together, each with the numbers of the parts and by how much.

    Parameters
    ----------
    lent : what the unit asks of panels that it does not own
    lengths : use of a hole -> mm of the dowel, screw or tenon that goes into it
    drawn : what is pulled out of the unit
    ways : how its fronts open
    taken : room of what is bought
    """
    boxes = boxes_of(parts)
    entered: list[tuple[int, int]] = []
    found = [_shared(parts, s) for s in shared_space(parts, entered, boxes)]
    found += _told(parts, ((i, amiss) for i, part in enumerate(parts) for amiss in amiss_in(part)))
    mouths = mouths_of(parts, ASKED)
    found += _told(parts, amiss_between(parts, lent, lengths, mouths, entered))
    found += _told(parts, amiss_hanging(parts, lent, mouths))
    found += [_barred(parts, s) for s in barred_ways(parts, drawn, boxes)]
    found += [_standing_in(parts, taken, s) for s in standing_in(parts, taken, boxes)]
    found += [_kept_shut(parts, s) for s in kept_shut(parts, ways, boxes)]
    if len(parts) > 1:
        found += [_loose(parts, i) for i in floating(parts, mouths, entered, lent, drawn, boxes)]
    return tuple(dict.fromkeys(found))[:MOST]


def faults_in(part: Part) -> tuple[Problem, ...]:
    """Why a board that stands by itself cannot be worked: a worktop, a panel, a leaf. Its joints are asked of the units
    that they belong to."""
    return tuple(
        Problem(f"{part.name.capitalize()}: {amiss.what}.", "Choose another size, or move what is cut into it.")
        for amiss in amiss_in(part)
    )[:MOST]


def _size(shared: Shared) -> str:
    return " x ".join(told(mm) for mm in shared.size)


def _shared(parts: Sequence[Part], s: Shared) -> Problem:
    one, other = parts[s.one], parts[s.other]
    return Problem(
        f"Part {s.one + 1}, {one.name}, and part {s.other + 1}, {other.name}, take the same space: {_size(s)} mm.",
        "Take one of them out, move it, or choose another way to build.",
        place=(s.low, s.high),
        parts=(s.one + 1, s.other + 1),
    )


def _barred(parts: Sequence[Part], s: Shared) -> Problem:
    one, other = parts[s.one], parts[s.other]
    return Problem(
        f"Part {s.one + 1}, {one.name}, cannot be pulled out past part {s.other + 1}, {other.name}: {_size(s)} mm.",
        "Make it narrower or lower, or take what bars its way out.",
        place=(s.low, s.high),
        parts=(s.one + 1, s.other + 1),
    )


def _standing_in(parts: Sequence[Part], taken: Sequence[Taken], s: Shared) -> Problem:
    one, what = parts[s.one], taken[s.other].what
    return Problem(
        f"Part {s.one + 1}, {one.name}, stands in {what}: {_size(s)} mm.",
        "Move one of them, or take one out.",
        place=(s.low, s.high),
        parts=(s.one + 1,),
    )


def _kept_shut(parts: Sequence[Part], s: Shut) -> Problem:
    hit = parts[s.part]
    by = "its handle meets" if s.handle else "it meets"
    own = next((i for i, part in enumerate(parts) if s.way.owns(part.name)), s.part)
    return Problem(
        f"Part {own + 1}, {parts[own].name}, opens {s.degrees:.0f}° only: {by} part {s.part + 1}, {hit.name}.",
        "Hinge it at the other side, choose another handle, or move what stands out.",
        place=bounds_of(hit),
        parts=(own + 1, s.part + 1),
    )


def _loose(parts: Sequence[Part], i: int) -> Problem:
    return Problem(
        f"Part {i + 1}, {parts[i].name}, is held by nothing.",
        "Choose another way to join, or put something beside it that holds it.",
        place=bounds_of(parts[i]),
        parts=(i + 1,),
    )


AROUND = 10.0
"""mm each way of the box that shows where the work on a part is wrong."""


def _told(parts: Sequence[Part], rows: Iterable[tuple[int, Amiss]]) -> list[Problem]:
    """What is wrong with the work on parts, once for each part and word."""
    found: dict[tuple[int, str], Problem] = {}
    for i, amiss in rows:
        if (i, amiss.what) not in found:
            x, y, z = parts[i].frame.at(*amiss.at)
            found[(i, amiss.what)] = Problem(
                f"Part {i + 1}, {parts[i].name}: {amiss.what}.",
                "Choose another size, fitting or way to join.",
                place=((x - AROUND, y - AROUND, z - AROUND), (x + AROUND, y + AROUND, z + AROUND)),
                parts=(i + 1,),
            )
    return list(found.values())
