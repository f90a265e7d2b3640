"""Job 6 to 7: fittings that making needs without being asked say which role they fill; their codes were written into
making before."""

from __future__ import annotations

from tall_plank.formats.envelope import Raw

ROLES = {
    "RS-25": "rail socket",
    "RB-25": "rail bracket",
    "BF-SET": "bifold set",
    "PK-SET": "pocket set",
    "GB-5": "glazing bead",
    "VG-400": "grille",
}


def step(job: Raw) -> None:
    for row in job.get("stock", {}).get("fittings", []):
        if row.get("code") in ROLES:
            row.setdefault("role", ROLES[row["code"]])
