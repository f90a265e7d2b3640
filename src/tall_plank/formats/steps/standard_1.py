"""Shop standard 1 to 2: a file that was written before it said its number lacks the values that standards gained since.
They are those of the dowelled standard that shipped when files got their numbers."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import frozen


def step(standard: Raw) -> None:
    for table, rows in frozen("standard_1").items():
        own = standard.get(table)
        if not isinstance(own, dict):  # no standard at all: the reader says what is missing
            continue
        standard[table] = {**own, **{key: text for key, text in rows.items() if key not in own}}
