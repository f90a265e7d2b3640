"""Clipboard 1 to 2: fittings of a bay gained places."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import place_fittings


def step(clip: Raw) -> None:
    for copied in clip["units"]:
        place_fittings(copied["unit"]["bay"])
        place_fittings(copied["template"]["bay"])
