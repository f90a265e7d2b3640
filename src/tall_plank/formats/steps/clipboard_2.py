"""Clipboard 2 to 3: the one inset of legs became one a side."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import part_insets


def step(clip: Raw) -> None:
    for copied in clip["units"]:
        part_insets(copied["unit"])
        part_insets(copied["template"])
