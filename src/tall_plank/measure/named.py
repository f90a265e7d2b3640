"""Named values that may use one another: their order and their circles."""

from __future__ import annotations

import re
from collections.abc import Mapping

from tall_plank.measure.errors import PlankError
from tall_plank.measure.lengths import evaluate_text, names_in

NAME = re.compile(r"[a-z_][a-z_0-9]*\Z")
RESERVED = frozenset({"mm", "cm", "m", "in", "inch", "inches", "ft", "foot", "feet", "min", "max"})


MOST_SHOWN = 12
"""Names of a circle that are told."""


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
    uses = {name: tuple(sorted(names_in(text) & texts.keys())) for name, text in texts.items()}
    done: dict[str, float] = {}
    for start in texts:
        # A chain of any length, each name with those of its values that are still to be evaluated.
        path: dict[str, list[str]] = {start: list(uses[start])} if start not in done else {}
        while path:
            name, todo = next(reversed(path.items()))
            if todo:
                used = todo.pop(0)
                if used in path:
                    names = list(path)
                    ring = " → ".join([*names[names.index(used) :], used][-MOST_SHOWN:])
                    raise PlankError(
                        f"These values use one another in a circle: {ring}.",
                        "Named values",
                        "Give one of them a plain length.",
                    )
                if used not in done:
                    path[used] = list(uses[used])
            else:
                done[name] = evaluate_text(texts[name], done)
                del path[name]
    return done
