"""Shop standard 2 to 3: the one inset of legs became one a side, and legs got a size and a section."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import OLD_INSET, SIDES


def step(standard: Raw) -> None:
    lengths, choices = standard.get("lengths"), standard.get("choices")
    if not isinstance(lengths, dict) or not isinstance(choices, dict):  # no standard at all: the reader says what lacks
        return
    inset = lengths.pop(OLD_INSET, None)
    if inset is not None:
        lengths.update(dict.fromkeys(SIDES, inset))
    lengths["leg_size"], choices["leg_shape"] = "40", "square"
