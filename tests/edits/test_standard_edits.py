"""Shop standards: put in force, applied whole or in part, edited, copied, written and read."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from conftest import cell_of
from tall_plank.edits import standards, units
from tall_plank.edits.choices import label_of
from tall_plank.files.standards import read_standard, standard_toml, write_standard
from tall_plank.job import Job
from tall_plank.job.inherit import construction_of, sourced
from tall_plank.job.standard import LENGTH_KEYS
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def made(job: Job, number: str):  # type: ignore[no-untyped-def]
    cell = cell_of(job, number)
    return construction_of(job, job.unit(job.find_cell(cell)[2].unit))


def test_a_standard_in_force_changes_every_unit_but_those_with_their_own(job: Job) -> None:
    job = standards.apply_standard(job, (cell_of(job, "A2"),), "slip-cam").job
    job = standards.use_standard(job, "chandler-frame").job
    assert made(job, "A1").face_frame == "frame"
    assert made(job, "A2").joint == "cam"


def test_only_the_joints_of_another_standard(job: Job) -> None:
    cell = cell_of(job, "A2")
    before = made(job, "A2")
    job = standards.apply_standard(job, (cell,), "staithe-ply", "joints").job
    after = made(job, "A2")
    assert after.joint == "groove" and before.joint == "dowel"
    assert after.back_fit == before.back_fit and after.edging_front == before.edging_front
    unit = job.unit(job.find_cell(cell)[2].unit)
    assert "Staithe" in sourced(job, unit, "joint").source
    assert "Staithe" not in sourced(job, unit, "back_fit").source


def test_following_the_job_again_keeps_single_own_values(job: Job) -> None:
    cell = cell_of(job, "A2")
    start = made(job, "A2")
    job = standards.apply_standard(job, (cell,), "slip-cam").job
    job = standards.apply_standard(job, (cell,), "chandler-frame", "edging").job
    job = units.set_own(job, (cell,), "gap_side", "2").job
    job = standards.follow_job(job, (cell,)).job
    assert made(job, "A2").gap_side == pytest.approx(2.0)
    assert made(job, "A2").joint == start.joint


def test_five_units_under_another_standard_are_remade_and_others_stay(job: Job) -> None:
    cells = tuple(cell_of(job, f"A{i}") for i in range(1, 6))
    before = Workings(job)
    after = Workings(standards.apply_standard(job, cells, "slip-cam").job)
    for cell in cells[:4]:
        old, new = before.made.of(cell), after.made.of(cell)
        assert old is not None and new is not None
        if old.parts and any(i.code.startswith("DW") for i in old.items):
            assert [p.operations for p in old.parts] != [p.operations for p in new.parts]
    last = cell_of(job, "A6")
    assert before.made.of(last) == after.made.of(last)


@pytest.mark.parametrize(
    ("key", "text", "told"),
    [
        ("back_groove_depth", "17", "leaves less than 2 mm"),
        ("carcass_thickness", "0", "has to be 1 mm"),
        ("drawer_groove_depth", "14", "leaves less than 2 mm"),
        ("frame_panel_clearance", "20", "falls out of its groove"),
        ("dowel_diameter", "16", "splits a board"),
        ("pin_depth", "40", "leaves less than 2 mm"),
        ("frame_groove_depth", "65", "60 mm is the nearest"),
        ("front_thickness", "12", "14.5 mm is the nearest"),
        ("cup_from_edge", "18", "20.5 mm is the nearest"),
        ("dowel_end_depth", "40", "26 mm is the nearest"),
        ("gap_side", "wide", ""),
        ("gap_side", "-3", ""),
        ("joint", "nails", "not offered"),
        ("hinge_rules", "900", "is no rule"),
        ("hinge_rules", "", "one rule at least"),
        ("leg_rules", "900: many", "is no rule"),
        ("colour", "3", "has no"),
    ],
)
def test_impossible_values_are_refused_by_name(job: Job, key: str, text: str, told: str) -> None:
    with pytest.raises(PlankError) as caught:
        standards.set_value(job, job.standard, key, text)
    assert told in f"{caught.value.what} {caught.value.remedy}" and caught.value.remedy


@settings(max_examples=150)
@given(st.sampled_from(sorted(LENGTH_KEYS)), st.floats(0.0, 80.0).map(lambda mm: round(mm, 1)))
def test_the_nearest_value_that_works_works(key: str, mm: float) -> None:
    """What a refusal names is taken when it is typed."""
    job = new_job()
    try:
        standards.set_value(job, job.standard, key, f"{mm:g}")
    except PlankError as error:
        nearest = re.match(r"~?([\d.]+) mm is the nearest (.*) that works", error.remedy)
        if error.what.endswith("too large.") or ("at least" in error.what and nearest is None):
            return  # no length at all
        assert nearest is not None and nearest[2] == label_of(key), error.remedy
        assert abs(float(nearest[1]) - mm) > 0.0
        standards.set_value(job, job.standard, key, nearest[1])


def test_a_stile_has_to_hold_its_hinges_cup(job: Job) -> None:
    """In stiles of 45 the cup stood 5 mm in the panel's groove, and only some units showed it."""
    framed = standards.set_value(job, job.standard, "front_style", "framed").job
    with pytest.raises(PlankError, match="panel's groove") as told:
        standards.set_value(framed, framed.standard, "frame_stile", "45")
    assert told.value.remedy == "51 mm is the nearest frame stile that works."
    standards.set_value(framed, framed.standard, "frame_stile", "51")
    # With butt hinges there is no cup.
    butts = standards.set_value(framed, framed.standard, "hinge", "HB-64").job
    standards.set_value(butts, butts.standard, "frame_stile", "45")


def test_rules_are_typed_as_text_and_read_back(job: Job) -> None:
    job = standards.set_value(job, job.standard, "hinge_rules", "2000 18kg: 4; 900 7kg: 2").job
    assert standards.rules_text(job, job.active_standard(), "hinge_rules") == "900 7kg: 2; 2000 18kg: 4"
    job = standards.set_value(job, job.standard, "leg_rules", "700: 4; 1600: 6").job
    assert [r.count for r in job.active_standard().leg_rules] == [4, 6]


def test_a_copy_is_edited_by_itself_and_deleted(job: Job) -> None:
    job = standards.copy_standard(job, job.standard, "Own way").job
    job = standards.set_value(job, "own-way", "gap_between", "4").job
    assert "gap_between" in standards.differing((job.active_standard(), job.standard_by("own-way")))
    used = standards.apply_standard(job, (cell_of(job, "A2"),), "own-way").job
    with pytest.raises(PlankError, match="A2"):
        standards.delete_standard(used, "own-way")
    assert len(standards.delete_standard(job, "own-way").job.standards) == len(job.standards) - 1
    for name in ("", "  ", "Own WAY"):
        with pytest.raises(PlankError):
            standards.copy_standard(job, job.standard, name)


def test_a_standard_survives_its_file(job: Job, tmp_path: Path) -> None:
    for standard in job.standards:
        path = tmp_path / f"{standard.code}.toml"
        write_standard(standard, path)
        assert standard_toml(read_standard(path)) == standard_toml(standard)


@pytest.mark.parametrize(
    ("old", "new", "told"),
    [
        ('joint = "dowel"', 'joint = "glue"', "glue"),
        ("carcass_thickness", "carcass_thikness", "missing"),
        ("[lengths]", "[lenghts]", "lenghts"),
        ("[lengths]", "[lengths", "line"),
    ],
)
def test_a_wrong_file_is_told_by_name(job: Job, tmp_path: Path, old: str, new: str, told: str) -> None:
    path = tmp_path / "s.toml"
    text = standard_toml(job.standard_by("quay-dowelled"))
    assert old in text
    path.write_text(text.replace(old, new))
    with pytest.raises(PlankError) as caught:
        read_standard(path)
    assert told in str(caught.value)
