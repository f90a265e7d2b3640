"""Named values that may use one another: their order and their circles."""

from __future__ import annotations

import re
from collections.abc import Mapping

from tall_plank.measure.errors import PlankError
from tall_plank.measure.lengths import evaluate_text, names_in

NAME = re.compile(r"[a-z_][a-z_0-9]*\Z")
RESERVED = frozenset({"mm", "cm", "m", "in", "inch", "inches", "ft", "foot", "feet", "min", "max"})


def check_name(name: str) -> None:
    """Raises PlankError where a name cannot stand in a length."""
    if not NAME.match(name) or name in RESERVED:
        raise PlankError(
            f"“{name}” cannot name a value.", "Named values", "Use small letters, digits and _, and no unit's name."
        )


def evaluate_named(texts: Mapping[str, str]) -> dict[str, float]:
    """Evaluate named values, each of which may use the others.

    Parameters
    ----------
    texts : name -> text as kept by `parse_length`

    Returns
    -------
    name -> float, mm

    Raises
    ------
    PlankError naming the circle, where values use one another in a ring
    LengthError where a text cannot be read or names an unknown value
    """
    done: dict[str, float] = {}
    path: list[str] = []

    def visit(name: str) -> None:
        if name in done:
            return
        if name in path:
            ring = " → ".join([*path[path.index(name) :], name])
            raise PlankError(
                f"These values use one another in a circle: {ring}.", "Named values", "Give one of them a plain length."
            )
        path.append(name)
        for used in sorted(names_in(texts[name]) & texts.keys()):
            visit(used)
        path.pop()
        done[name] = evaluate_text(texts[name], done)

    for name in texts:
        visit(name)
    return done
