"""A width is read by one rule, whether it stands in a run's text or is typed over a unit."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.edits import rooms, runs, runtext
from tall_plank.edits.widths import MOST_SHARE, can_grow
from tall_plank.job import Body, Job, Level, Template
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.measure import PlankError
from tall_plank.setout import set_out

KINDS = [t for t in shipped_templates() if t.body is not Body.GAP and t.level in (Level.BASE, Level.HUNG)]


def typed_over(job: Job, template: Template, text: str) -> Job:
    change = runs.insert_unit(job, "r1", "A", template.code)
    return runs.set_width(change.job, change.made, text).job


def in_a_run(job: Job, template: Template, text: str) -> Job:
    change = runs.add_run(job, "r1", "A", template.level)
    return runtext.type_run(change.job, change.made[0], f"{template.words[0]} {text}").job


def wide_room() -> Job:
    return rooms.set_room_length(new_job("Wide"), "r1", "width", "9000mm").job


@given(
    template=st.sampled_from(KINDS),
    head=st.sampled_from(["", "clear ", "range"]),
    mm=st.integers(1, 3000),
    more=st.integers(0, 3000),
)
def test_both_ways_take_and_refuse_the_same_widths(template: Template, head: str, mm: int, more: int) -> None:
    text = f"{mm} to {mm + more}" if head == "range" else f"{head}{mm}"
    found = []
    for way in (typed_over, in_a_run):
        try:
            job = way(wide_room(), template, text)
        except PlankError as error:
            found.append((None, type(error.remedy)))
        else:
            cells = [c for r in job.rooms[0].runs for c in r.cells]
            found.append((cells[0].width, str))
            placed = set_out(job).find(cells[0].id)
            assert placed is not None
            most = max(MOST_SHARE, template.most) if head == "range" and can_grow(template) else template.most
            assert template.least - 1e-6 <= placed.width <= most + 1e-6, "wider or narrower than its kind"
    assert found[0] == found[1]


@pytest.mark.parametrize(
    ("kind", "text", "says"),
    [
        ("oven-housing", "300 to 5000", "596"),
        ("oven-housing", "clear 700", "620"),
        ("oven-housing", "621", "620"),
    ],
)
def test_a_housing_is_no_wider_than_what_it_houses(kind: str, text: str, says: str) -> None:
    template = next(t for t in shipped_templates() if t.code == kind)
    assert (template.least, template.most) == (596.0, 620.0)
    for way in (typed_over, in_a_run):
        with pytest.raises(PlankError) as refused:
            way(wide_room(), template, text)
        assert says in str(refused.value)


def test_a_range_that_ends_below_its_start_is_refused_where_it_ends() -> None:
    template = next(t for t in shipped_templates() if t.code == "door")
    for way in (typed_over, in_a_run):
        with pytest.raises(PlankError, match="ends below its start"):
            way(wide_room(), template, "600 to 400")
