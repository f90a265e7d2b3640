"""Shop standard 3 to 4: values of paneled walls."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import WALL_CHOICES, WALL_LENGTHS


def step(standard: Raw) -> None:
    lengths, choices = standard.get("lengths"), standard.get("choices")
    if not isinstance(lengths, dict) or not isinstance(choices, dict):  # no standard at all: the reader says what lacks
        return
    lengths.update({key: f"{mm:g}" for key, mm in WALL_LENGTHS.items() if key not in lengths})
    choices.update({key: choice for key, choice in WALL_CHOICES.items() if key not in choices})
