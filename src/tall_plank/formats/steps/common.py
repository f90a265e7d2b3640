"""What several steps do alike."""

from __future__ import annotations

import json
from pathlib import Path

from tall_plank.formats.envelope import Raw
from tall_plank.measure.remembered import lasting

DATA = Path(__file__).parent.parent / "data"


@lasting
def _text(name: str) -> str:
    return (DATA / f"{name}.json").read_text(encoding="utf-8")


def frozen(name: str) -> Raw:
    """Data that a step adds, as it was when the step was made; a copy, to be put into a file."""
    found: Raw = json.loads(_text(name))
    return found


def complete_standards(job: Raw, added: Raw) -> None:
    """Give shop standards the values that they lack: they make what an older job made."""
    for standard in job.get("standards", []):
        for table in ("lengths", "choices"):
            rows = standard.get(table, [])
            known = {row["key"] for row in rows}
            standard[table] = [*rows, *(row for row in added[table] if row["key"] not in known)]


def place_fittings(bay: Raw) -> None:
    """Fittings of a bay were codes; they became things with a place."""
    bay["fittings"] = [{"code": code} if isinstance(code, str) else code for code in bay.get("fittings", [])]
    for child in bay.get("children", []):
        place_fittings(child)


OLD_INSET = "leg_inset"
SIDES = ("leg_left", "leg_right", "leg_front", "leg_back")


def part_insets(holder: Raw) -> None:
    """The own inset of legs of a unit or a kind was one; it became one for each side."""
    own = holder.get("own", [])
    for row in [row for row in own if row.get("key") == OLD_INSET]:
        own = [r for r in own if r is not row] + [{**row, "key": side} for side in SIDES]
        holder["own"] = sorted(own, key=lambda r: str(r["key"]))


WALL_LENGTHS = {
    "wall_stile": 80.0, "wall_rail": 80.0, "wall_step": 0.5, "wall_board": 9.0,
    "wall_frame": 9.0, "wall_slat": 30.0, "wall_slat_gap": 15.0,
    "wall_slat_depth": 18.0, "wall_gap": 5.0, "wall_clear": 3.0,
    "batten_width": 45.0, "batten_thickness": 18.0, "batten_pitch": 600.0,
}  # fmt: skip
"""mm; values of paneled walls when they came into shop standards."""

WALL_CHOICES = {"wall_hold": "battens"}
