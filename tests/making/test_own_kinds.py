"""Kinds of one's own: read from text files, made by rules, checked like built-in ones; nothing in a file is run."""

from __future__ import annotations

import re
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, with_run
from making.test_standards import overlaps, places
from tall_plank.edits import units
from tall_plank.edits.stock import add_kinds
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Job, Level
from tall_plank.job.shipped import shipped_standards
from tall_plank.job.start import new_job
from tall_plank.job.template import load_template
from tall_plank.making import MadeUnit
from tall_plank.measure import PlankError
from tall_plank.workings import Workings

EXAMPLES = Path(__file__).parents[2] / "docs" / "examples"


def job_with(text: str, level: Level, standard: str = "quay-dowelled") -> Job:
    kinds = tuple(load_template(path) for path in sorted(EXAMPLES.glob("*.toml")))
    job = add_kinds(msgspec.structs.replace(new_job(), standard=standard), kinds).job
    return with_run(job, "A", level, text)


def rack(standard: str = "quay-dowelled") -> Job:
    return job_with("rack 600", Level.HUNG, standard)


def bench(standard: str = "quay-dowelled") -> Job:
    return job_with("boot bench 1000", Level.BASE, standard)


def made(job: Job) -> MadeUnit:
    found = Workings(job).made.of(cell_of(job, "A1"))
    assert found is not None
    return found


@pytest.mark.parametrize("standard", [s.code for s in shipped_standards()])
def test_the_worked_examples_go_together_by_every_standard(standard: str) -> None:
    for job in (rack(standard), bench(standard)):
        unit = made(job)
        assert unit.problems == () and unit.parts
        assert overlaps(unit.parts) == []


def test_slats_part_the_plates_evenly() -> None:
    unit = made(rack())
    slats = sorted((p for p in unit.parts if p.name.startswith("slat")), key=lambda p: p.frame.origin[0])
    assert len(slats) == 9
    edges = [18.0]
    for p in slats:
        edges += [p.frame.origin[0], p.frame.origin[0] + p.width]
    edges.append(600 - 18.0)
    gaps = [b - a for a, b in zip(edges[::2], edges[1::2], strict=True)]
    assert gaps == pytest.approx([gaps[0]] * 10)
    assert sum(gaps) + 9 * 40 == pytest.approx(600 - 36)


def test_both_halves_of_its_joints_meet() -> None:
    unit = made(bench())
    dowels = [p for part in unit.parts if not part.role.startswith("drawer") for p in places(part, "dowel")]
    for point in dowels:
        near = [q for q in dowels if max(abs(a - b) for a, b in zip(point, q, strict=True)) < 0.01]
        assert len(near) == 2, point


def test_its_drawers_follow_the_runner_rules() -> None:
    unit = made(bench())
    fronts = [f for f in unit.fronts if f.kind == "drawer"]
    assert len(fronts) == 2
    assert sum(p.role == "drawer bottom" for p in unit.parts) == 2
    assert fronts[0].width == pytest.approx((1000 - 3 - 3) / 2)


def test_a_parameter_is_changed_on_one_unit_saved_and_given_back() -> None:
    job = rack()
    cell = cell_of(job, "A1")
    job = units.set_own(job, (cell,), "parameter.plates", "6").job
    job = units.set_own(job, (cell,), "parameter.slat", "60").job
    job = job_from_bytes(job_bytes(job), "test")
    slats = [p for p in made(job).parts if p.name.startswith("slat")]
    assert len(slats) == 5 and slats[0].width == pytest.approx(60)
    job = units.inherit_again(job, (cell,), "parameter.plates").job
    assert len([p for p in made(job).parts if p.name.startswith("slat")]) == 9
    for key, text in (("parameter.plates", "99"), ("parameter.plates", "many"), ("parameter.slat", "9000"),
                      ("parameter.colour", "3")):  # fmt: skip
        with pytest.raises(PlankError):
            units.set_own(job, (cell,), key, text)


def test_what_cannot_be_made_stays_off_every_list() -> None:
    job = rack()
    cell = cell_of(job, "A1")
    job = units.set_own(job, (cell,), "parameter.plates", "40").job
    job = units.set_own(job, (cell,), "parameter.slat", "100").job
    unit = made(job)
    assert unit.problems == () or (unit.parts == () and unit.items == ())
    narrow = units.set_own(bench(), (cell_of(bench(), "A1"),), "parameter.drawer_height", "100").job
    assert made(narrow).problems == () or made(narrow).parts == ()


@pytest.mark.parametrize(
    ("old", "new", "told"),
    [
        ('length = "height"', 'length = "heigth"', "heigth"),
        ('count = "2"\nx = "i', 'count = "2 boards"\nx = "i', "boards"),
        ('lies = "side"', 'lies = "leaning"', "leaning"),
        ('ends = "slat"', 'ends = "spindle"', "spindle"),
        ('name = "plates"', 'name = "width"', "cannot be a name"),
        ('width = "slat"', 'width = "slat * slat"', "area"),
        ('code = "WH-60"', 'kode = "WH-60"', "kode"),
        ('value = "40mm"', 'value = "4000mm"', "not between"),
        ('[[part]]\nname = "side"', '[[part]\nname = "side"', "line"),
        ('length = "height"', 'length = "__import__(1)"', ""),
        ('length = "height"', 'length = "height.x"', ""),
        ('length = "height"', 'length = "1/0"', ""),
        ("width = 600", 'width = "six"', ""),
    ],
)
def test_an_error_in_a_file_shows_its_line_and_the_reason(tmp_path: Path, old: str, new: str, told: str) -> None:
    text = (EXAMPLES / "plate-rack.toml").read_text(encoding="utf-8")
    assert old in text
    path = tmp_path / "rack.toml"
    text = text.replace(old, new, 1)
    path.write_text(text, encoding="utf-8")
    with pytest.raises(PlankError) as caught:
        load_template(path)
    assert told in str(caught.value)
    # The line itself, or the head of its table where the whole of it is meant.
    line = text[: text.index(new)].count("\n") + 1
    found = re.search(r"line (\d+)", str(caught.value))
    assert found is not None and line - 3 <= int(found.group(1)) <= line + 1, str(caught.value)


def test_a_kind_whose_word_is_taken_is_refused(tmp_path: Path) -> None:
    text = (EXAMPLES / "plate-rack.toml").read_text(encoding="utf-8").replace('"rack"]', '"pair"]')
    path = tmp_path / "rack.toml"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(PlankError, match="stands for"):
        add_kinds(new_job(), (load_template(path),))


@given(st.text(max_size=60))
def test_no_text_in_a_rule_does_anything_but_count_or_complain(text: str) -> None:
    from tall_plank.job.build import Values

    try:
        assert isinstance(Values({"width": 600.0}, {"i": 2.0}).length(text, "here"), float)
    except PlankError as error:
        assert error.what


@given(st.integers(300, 1200), st.integers(2, 20), st.floats(20, 60))
def test_a_rack_of_any_size_goes_together_or_says_why(width: int, plates: int, slat: float) -> None:
    job = job_with(f"rack {width}", Level.HUNG)
    cell = cell_of(job, "A1")
    job = units.set_own(job, (cell,), "parameter.plates", str(plates)).job
    job = units.set_own(job, (cell,), "parameter.slat", f"{slat:.1f}").job
    unit = made(job)
    if plates * 1.0 + (plates - 1) * slat > width - 40:
        return
    assert unit.problems == () and overlaps(unit.parts) == []


def test_a_joint_reaches_only_as_far_as_both_parts_do(tmp_path: Path) -> None:
    """A shelf 400 deep that ends on an upright 200 deep is dowelled within those 200."""
    path = tmp_path / "bracket.toml"
    path.write_text(
        'name = "Bracket"\ngroup = "Furniture"\nlevel = "base"\nwords = ["bracket"]\nwidth = 600\n'
        'height = "300mm"\ndepth = "400mm"\nmost = 1200\ntrims = false\n'
        '[[part]]\nname = "upright"\nlies = "side"\nlength = "height"\nwidth = "200mm"\n'
        '[[part]]\nname = "board"\nlength = "width - carcass_thickness"\nwidth = "depth"\n'
        'x = "carcass_thickness"\nz = "100mm"\n'
        '[[joint]]\nends = "board"\nto = "upright"\n',
        encoding="utf-8",
    )
    job = with_run(add_kinds(new_job(), (load_template(path),)).job, "A", Level.BASE, "bracket 600")
    unit = made(job)
    assert unit.problems == ()
    board = next(p for p in unit.parts if p.name == "board")
    ys = [board.frame.at(0.0, op.x, op.y)[1] for op in board.operations if getattr(op, "face", "") == "W1"]
    assert len(ys) >= 2 and all(-400 < y < -200 for y in ys)
