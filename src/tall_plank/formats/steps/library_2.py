"""Library entry 2 to 3: the one inset of legs became one a side."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import part_insets


def step(saved: Raw) -> None:
    for holder in (*(unit for kept in saved["runs"] for unit in kept["units"]), *saved["templates"]):
        part_insets(holder)
