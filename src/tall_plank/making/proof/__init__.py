"""The proof that what is made can be put together: it knows parts and operations, not how units are built."""

from __future__ import annotations

from collections.abc import Sequence

from tall_plank.making.parts import Part, Problem
from tall_plank.making.proof.space import shared_space

MOST = 3
"""Faults of a unit that are told; the rest go with them."""


def faults_of(parts: Sequence[Part]) -> tuple[Problem, ...]:
    """Why the parts of a unit cannot be put together, each with the numbers of both parts and by how much."""
    found = []
    for s in shared_space(parts)[:MOST]:
        one, other = parts[s.one], parts[s.other]
        size = " x ".join(f"{mm:.1f}".removesuffix(".0") for mm in s.size)
        found.append(
            Problem(
                f"Part {s.one + 1}, {one.name}, and part {s.other + 1}, {other.name}, take the same space: {size} mm.",
                "Take one of them out, move it, or choose another way to build.",
            )
        )
    return tuple(found)
