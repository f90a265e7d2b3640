"""Library entry 1 to 2: fittings of a bay gained places."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import place_fittings


def step(saved: Raw) -> None:
    for kept in saved["runs"]:
        for unit in kept["units"]:
            place_fittings(unit["bay"])
    for template in saved["templates"]:
        place_fittings(template["bay"])
