"""Job 14 to 15: rooms may have wall fields, the job treatments for them; standards got values of paneled walls."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import WALL_CHOICES, WALL_LENGTHS


def step(job: Raw) -> None:
    for standard in job.get("standards", []):
        lengths, choices = standard.get("lengths", []), standard.get("choices", [])
        known = {row.get("key") for row in (*lengths, *choices)}
        new = [
            {"key": k, "length": {"text": f"{mm:g}mm", "mm": mm}} for k, mm in WALL_LENGTHS.items() if k not in known
        ]
        standard["lengths"] = [*lengths, *new]
        standard["choices"] = [*choices, *({"key": k, "choice": c} for k, c in WALL_CHOICES.items() if k not in known)]
