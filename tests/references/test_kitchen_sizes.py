"""Sizes of the shipped kinds against EN 1116 and ISO 3055 (from memory; editable starting values, not a claim)."""

from __future__ import annotations

from tall_plank.edits import runs
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.setout import set_out


def test_base_widths_step_by_50_with_a_module_of_100() -> None:
    for template in shipped_templates():
        if template.body == "carcass":
            assert template.width % 50 == 0, template.code


def test_the_worktop_stands_between_850_and_900_high_and_about_600_deep() -> None:
    job = runs.insert_unit(new_job(), "r1", "A", "pair").job
    top = set_out(job).rooms[0].worktops[0]
    assert 850 <= top.bottom + top.thickness <= 900
    assert abs(top.depth - 600) <= 5


def test_the_plinth_is_at_least_100_high_and_set_back_at_least_50() -> None:
    job = runs.insert_unit(new_job(), "r1", "A", "pair").job
    room = set_out(job).rooms[0]
    plinth = room.plinths[0]
    assert plinth.width >= 100
    front = room.placed[0].depth + 19
    face = -plinth.box()[0][1]
    assert front - face >= 50


def test_hung_units_are_at_most_350_deep_and_leave_about_500_over_the_worktop() -> None:
    """Common practice: 450 to 600 clear over the worktop."""
    job = new_job()
    assert job.value("hung_depth") <= 350
    clear = job.value("hung_bottom") - job.value("plinth") - job.value("base_height") - job.value("worktop")
    assert 450 <= clear <= 600
