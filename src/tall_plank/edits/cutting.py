"""Edits of how the job is cut: the saw's values, and the plan that is kept."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change
from tall_plank.edits.rooms import read
from tall_plank.job import Job
from tall_plank.job.cutting import KeptPlan
from tall_plank.measure import PlankError

LENGTHS = {
    "kerf": (0.0, 40.0), "gap": (0.0, 60.0), "trim": (0.0, 200.0), "keep_length": (50.0, 3000.0),
    "keep_width": (30.0, 2000.0), "pack": (0.0, 250.0), "opens": (10.0, 250.0),
}  # fmt: skip
"""mm that make sense for each. A gap or a pack of 0: as the mill is wide; one board at a time."""

SINGLE = ("one at a time", "none", "")
"""What is typed for no packs."""

CHOICES = {
    "mode": {"saw": "saw, edge to edge", "router": "router"},
    "sawn_on": {"beam": "beam saw", "panel": "panel saw"},
    "first_cut": {"either": "either way", "along": "along the board", "across": "across it (head cuts)"},
    "turns": {"0": "as many as it takes", "2": "2", "3": "3", "4": "4", "5": "5"},
    "matched": {"no": "no", "unit": "within a unit", "run": "along the run"},
    "effort": {"1": "a quick look", "3": "short", "5": "usual", "7": "long", "9": "the utmost"},
}


def set_cutting(job: Job, key: str, text: str) -> Change:
    """Set one value of the saw: a length, a choice, or the seconds that a search may take.

    Raises
    ------
    PlankError for an unknown value or one out of range
    """
    value: object
    if key in LENGTHS:
        least, most = LENGTHS[key]
        single = key == "pack" and text.strip().lower() in SINGLE
        value = 0.0 if single else read(job, text, least=least, most=most).mm
        _opens_wide_enough(job, key, value)
    elif key in CHOICES:
        if text not in CHOICES[key]:
            raise PlankError(f"“{text}” is not offered here.", key, f"Known: {', '.join(CHOICES[key])}.")
        value = int(text) if key in ("turns", "effort") else text
    elif key == "machine":
        value = text.strip()
    elif key == "seconds":
        try:
            value = float(text.strip().removesuffix("s").strip().replace(",", "."))
        except ValueError:
            raise PlankError(f"“{text}” is no number.", key, "Type seconds such as 20.") from None
        if not 1.0 <= value <= 3600.0:
            raise PlankError(f"{text} s is out of range.", key, "Type 1 to 3600.")
    else:
        raise PlankError(f"The saw has no {key}.", "cutting", "Choose a known value.")
    cutting = msgspec.structs.replace(job.cutting, **{key: value})
    return Change(msgspec.structs.replace(job, cutting=cutting), f"Set the {key.replace('_', ' ')}")


def _opens_wide_enough(job: Job, key: str, mm: float) -> None:
    """Refuse a pack that the saw does not take."""
    pack = mm if key == "pack" else job.cutting.pack
    opens = mm if key == "opens" else job.cutting.opens
    if key in ("pack", "opens") and pack > opens + 1e-6:
        raise PlankError(
            f"A pack of {pack:g} mm is higher than the saw takes, {opens:g} mm.", key,
            f"Give a pack of {opens:g} mm at most, or say how much the saw takes." if key == "pack"
            else "Lower the pack first, or give its height at least.",
        )  # fmt: skip


def keep_plan(job: Job, plan: KeptPlan) -> Change:
    """Keep a cutting plan in the job: lists, labels and programs follow it until something it was made from changes."""
    return Change(msgspec.structs.replace(job, kept_plan=plan), "Keep the cutting plan")


def drop_plan(job: Job) -> Change:
    """Give the kept plan up.

    Raises
    ------
    PlankError where there is none
    """
    if job.kept_plan is None:
        raise PlankError("No plan is kept.", "cutting plans", "Keep one first.")
    return Change(msgspec.structs.replace(job, kept_plan=None), "Give the cutting plan up")
