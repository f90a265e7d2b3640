"""Job 8 to 9: the gap between parts on the router is a value of its own, no longer the saw's kerf. A job for the router
keeps a gap that was set wide enough for a mill; a saw's kerf there left no room, so the mill decides."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw

NARROWEST = 6.0  # mm: no thinner mill cuts outlines


def step(job: Raw) -> None:
    cutting = job.get("cutting", {})
    kerf = cutting.get("kerf", 3.2)
    if cutting.get("mode") == "router" and isinstance(kerf, int | float) and kerf >= NARROWEST:
        cutting["gap"] = kerf
        cutting["kerf"] = 3.2
