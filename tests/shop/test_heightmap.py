"""Programs beside what their parts ask for, by an independent height map."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest

from conftest import with_run
from shop.heightmap import differences, job_differences
from shop.test_machine import small
from tall_plank.edits import cutting
from tall_plank.job import Job, Level
from tall_plank.job.cutting import LaidPart
from tall_plank.job.start import new_job
from tall_plank.workings import Workings


def mixed() -> Job:
    job = with_run(new_job(), "A", Level.BASE, "corner 900, drawers 600, bow 600, slant right 300")
    return with_run(job, "A", Level.HUNG, "slant corner 600, pair 900")


@pytest.mark.parametrize("mode", ["saw", "router"])
@pytest.mark.parametrize("make", [small, mixed])
def test_programs_leave_what_the_parts_ask_for(make, mode: str) -> None:  # type: ignore[no-untyped-def]
    w = Workings(cutting.set_cutting(make(), "mode", mode).job)
    programs, points, wrong = job_differences(w)
    assert wrong == []
    assert programs > 10 and points > 100 * programs


@pytest.mark.parametrize(
    ("find", "put"),
    [
        (r"G1 Z(-?[\d.]+) F1800", lambda m: f"G1 Z{float(m[1]) + 0.05:g} F1800"),  # holes too shallow
        (r"^G0 X([\d.]+) ", lambda m: f"G0 X{float(m[1]) + 0.05:g} "),  # all of it shifted
        (r"T5 M6", lambda m: "T6 M6"),  # another drill
    ],
)
def test_a_spoiled_program_is_seen(find: str, put) -> None:  # type: ignore[no-untyped-def]
    w = Workings(small())
    parts = {i.number: i.part for i in w.made.parts()}
    seen = 0
    for program in w.machine_files.programs:
        text = re.sub(find, put, program.text, flags=re.MULTILINE)
        assert program.setup is not None
        if text == program.text or not any(x.holes for x in program.setup.works):
            continue
        places = {x.part: LaidPart(x.part, 0.0, 0.0, *program.size[:2]) for x in program.setup.works}
        _, wrong = differences(replace(program, text=text), parts, places, w.router, routed=False)
        assert wrong, program.name
        seen += 1
    assert seen > 0
