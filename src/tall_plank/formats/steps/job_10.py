"""Job 10 to 11: units may hang at heights of their own and stand on feet of their own; the one inset of legs became one
a side, and legs got a size and a section."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw
from tall_plank.formats.steps.common import OLD_INSET, SIDES, part_insets


def step(job: Raw) -> None:
    for standard in job.get("standards", []):
        lengths: list[Raw] = standard.get("lengths", [])
        for row in [row for row in lengths if row.get("key") == OLD_INSET]:
            lengths = [r for r in lengths if r is not row] + [{**row, "key": side} for side in SIDES]
        standard["lengths"] = [*lengths, {"key": "leg_size", "length": {"text": "40mm", "mm": 40.0}}]
        standard["choices"] = [*standard.get("choices", []), {"key": "leg_shape", "choice": "square"}]
    for holder in (*job.get("units", []), *job.get("templates", [])):
        part_insets(holder)
