"""What may be chosen for a decision of a unit or a standard, and what the decision is called."""

from __future__ import annotations

from tall_plank.job import Job
from tall_plank.job.inherit import FINISH_KEYS, STANDARD_KEYS
from tall_plank.job.standard import CHOICES
from tall_plank.measure import PlankError

EDGING_FINISHES = ("edging_front_in", "edging_carcass_in", "edging_drawer_in")
"""Choices of an edging whose finish is not that of its board."""


WORDS = {
    "louvre_width": "louver width", "louvre_pitch": "louver pitch", "feet": "what it stands on",
    "leg_left": "seen legs, in from the left", "leg_right": "seen legs, in from the right",
    "leg_front": "seen legs, in from the front", "leg_back": "seen legs, in from the back",
    "leg_size": "seen legs, thickness", "leg_shape": "seen legs, section", "legs": "number of legs",
    "hinges": "number of hinges", "joint_count": "fixings a joint", "row_inset": "hole row, in from the edge",
    "row_pitch": "hole row, pitch", "row_margin": "hole row, clear of the ends", "cam_bore": "cam, bore for the bolt",
    "edging_front_in": "edging of fronts, finish", "edging_carcass_in": "edging of carcasses, finish",
    "edging_drawer_in": "edging of drawers, finish", "edging_ignored_below": "edging, left out below",
    "wall_hold": "paneled walls, held", "wall_stile": "paneled walls, stiles", "wall_rail": "paneled walls, rails",
    "wall_step": "paneled walls, sizes in steps of", "wall_board": "paneled walls, backing board",
    "wall_frame": "paneled walls, planted frames", "wall_slat": "slats, width", "wall_slat_gap": "slats, between",
    "wall_slat_depth": "slats, depth", "wall_gap": "shadow gaps", "wall_clear": "clear about outlets",
    "slide_into": "sliding doors, filling into the frame", "slide_line": "sliding doors, from line to line",
}  # fmt: skip
"""Decisions whose keys do not read as words."""


def label_of(key: str) -> str:
    """A decision's key in words."""
    return WORDS.get(key) or key.removeprefix("parameter.").removeprefix("finish_").replace("_", " ")


def check_choice(job: Job, key: str, code: str) -> None:
    """Raises PlankError where a choice is not among those of the stock."""
    known: set[str]
    if key in FINISH_KEYS:
        role = key.removeprefix("finish_")
        known = {f.code for f in job.stock.finishes if role in f.roles}
    elif key == "glass":
        known = {f.code for f in job.stock.finishes if "glass" in f.roles}
    elif key in CHOICES:
        known = set(CHOICES[key])
    elif key in STANDARD_KEYS:
        known = {s.code for s in job.standards}
    elif key in ("handle", "handle_drawer"):
        extra = "none" if key == "handle" else "same"
        known = {f.code for f in job.stock.fittings_of("handle")} | {"none", extra}
    elif key == "wall_fixing":
        known = {f.code for f in job.stock.fittings_of(key)} | {"none"}
    elif key == "runner":
        known = {f.code for f in job.stock.fittings_of(key)} | {"auto"}
    elif key in EDGING_FINISHES:
        known = {e.finish for e in job.stock.edgings} | {"same"}
    else:
        known = {f.code for f in job.stock.fittings_of(key)}
    if code not in known:
        raise PlankError(f"“{code}” is not offered here.", label_of(key), f"Known: {', '.join(sorted(known))}.")
