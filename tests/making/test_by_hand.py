"""What is bought is drilled for, or the schedule says that it is fixed by hand, and how."""

from __future__ import annotations

from collections import Counter

import msgspec
import pytest

from conftest import made_alone, with_run
from tall_plank.edits import runs, units
from tall_plank.edits.choices import CHOICES
from tall_plank.job import Body, Job, Level
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.making import MadeUnit
from tall_plank.making.byhand import BY_HAND
from tall_plank.making.parts import Bore, Groove
from tall_plank.workings import Workings

# How many holes or slots each piece needs, counted by hand from what it is: two halves of a joint, both sides of a
# drawer, two screws of a plate.
EACH = {
    "dowel": ("dowel", 2), "biscuit": ("biscuit", 2), "tenon": ("loose tenon", 2), "pocket_screw": ("pocket screw", 2),
    "cam": ("cam", 1), "plate": ("hinge plate", 2), "runner": ("runner", 6), "shelf_pin": ("shelf", 1),
    "leg": ("leg plate", 4), "hanger": ("hanger", 2), "stay": ("stay", 2),
}  # fmt: skip


def drilled(made: MadeUnit) -> Counter[str]:
    found: Counter[str] = Counter()
    for part in made.parts:
        for op in part.operations:
            if isinstance(op, Bore) and not (part.role == "packer" and op.through):
                found[op.use] += 1
            elif isinstance(op, Groove):
                found[op.over] += 1
    for _, works in made.lent:
        found.update(work.use for work in works)
    return found


@pytest.mark.parametrize("standard", [s.code for s in new_job().standards])
@pytest.mark.parametrize("joint", sorted(CHOICES["joint"]))
def test_what_is_bought_is_drilled_or_fixed_by_hand(standard: str, joint: str) -> None:
    base = msgspec.structs.replace(new_job(), standard=standard)
    for kind in (t for t in shipped_templates() if t.body is Body.CARCASS):
        job = runs.insert_unit(base, "r1", "A", kind.code).job
        cell = job.cells()[-1].id
        made = made_alone(units.set_own(job, (cell,), "joint", joint).job, cell)
        holes = drilled(made)
        bought: Counter[str] = Counter()
        by_hand: set[str] = set()
        for item in made.items:
            fitting = job.stock.fitting(item.code)
            if fitting is None:
                continue
            if any(how in item.why for how in BY_HAND.values()):
                by_hand.add(fitting.kind)
            bought[fitting.kind] += item.qty
        for what, (use, each) in EACH.items():
            if what not in by_hand:
                assert holes[use] == each * bought[what], (kind.code, what, holes[use], bought[what])
        # Nothing of a kind that is never drilled stands there without a word.
        for what in ("fold_hinge", "wall_fixing", "pullout", "bifold", "pocket", "joint_bolt"):
            assert not bought[what] or what in by_hand, (kind.code, what)


def why_of(job: Job, code: str) -> str:
    return " ".join(i.why for _, m in Workings(job).made.units for i in m.items if i.code == code)


def test_the_schedule_says_how() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, corner 900")
    assert "by hand, to the maker's template" in why_of(job, "HF-135")
    narrow = with_run(new_job(), "A", Level.BASE, "door 200")
    assert "by hand where its bottom has room" in why_of(narrow, "LG-100")
    wide = with_run(new_job(), "A", Level.BASE, "door 600")
    assert "by hand" not in why_of(wide, "LG-100")
    jointed = with_run(
        with_run(new_job(), "A", Level.BASE, "drawers 600, pair rest, corner 900"), "B", Level.BASE, "pair 800"
    )
    bolts = [i for t in Workings(jointed).made.trims for i in t.items]
    assert bolts and all("let in by hand from below" in i.why for i in bolts)
