"""Job 9 to 10: a part on a board may say the area of its shape; none of an older plan does."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw


def step(job: Raw) -> None:
    """Nothing changes."""
