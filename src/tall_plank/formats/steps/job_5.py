"""Job 5 to 6: the stock may say what is sold in bars, strips and blanks, and which timber is solid. What an older job
has stays on boards and rolls, so that it makes what it made."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw


def step(job: Raw) -> None:
    """Nothing is added."""
