"""The shop standards that ship with the program."""

from __future__ import annotations

from pathlib import Path

from tall_plank.job.standard import Standard, load_standard
from tall_plank.measure.remembered import lasting

DATA = Path(__file__).parent / "data"


@lasting
def shipped_standards() -> tuple[Standard, ...]:
    """The shop standards that a new job carries; the first one is in force."""
    first = shipped_standard()
    others = (load_standard(path) for path in sorted((DATA / "standards").glob("*.toml")))
    return (first, *(s for s in others if s.code != first.code))


@lasting
def shipped_standard() -> Standard:
    return load_standard(DATA / "standards" / "quay-dowelled.toml")
