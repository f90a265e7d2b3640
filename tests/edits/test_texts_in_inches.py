"""Texts that make something again keep true lengths in every display, also where what is shown is rounded."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import with_run
from tall_plank.edits import outline, rooms, standards, tops
from tall_plank.edits.jobs import set_display
from tall_plank.edits.runtext import run_text, type_run
from tall_plank.edits.things.common import Spot
from tall_plank.edits.things.soffit import corners_text, set_soffit
from tall_plank.edits.things.table import add_thing
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit, Length
from tall_plank.measure.lengths import exact_text, parse_length
from tall_plank.setout import set_out

UNITS = st.sampled_from(list(DisplayUnit))


@given(st.floats(0.5, 20_000), UNITS, st.booleans())
def test_an_exact_text_is_read_back_as_it_was(mm: float, unit: DisplayUnit, spaces: bool) -> None:
    length = Length.of(round(mm, 6))
    text = exact_text(length, unit, spaces=spaces)
    assert parse_length(text, unit).mm == pytest.approx(length.mm, abs=1e-6)
    assert spaces or " " not in text


@given(UNITS, st.floats(300, 2500), st.floats(300, 800))
def test_corners_of_worktop_and_soffit_are_typed_back_unmoved(unit: DisplayUnit, long: float, deep: float) -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900")
    run = Kind.RUN.of(job.rooms[0].runs[0].id)
    corners = f"0mm 0mm; {long:.4f}mm 0mm; {long:.4f}mm {deep:.4f}mm; 0mm {deep:.4f}mm"
    job = set_display(tops.set_outline(job, run, corners).job, unit).job
    again = tops.set_outline(job, run, tops.outline_text(job, run)).job
    for one, other in zip(tops.top_of(job, run).outline, tops.top_of(again, run).outline, strict=True):
        assert (other.x.mm, other.out.mm) == pytest.approx((one.x.mm, one.out.mm), abs=1e-6)
    job = add_thing(job, "soffit", Spot("r1", "A")).job
    soffit = job.rooms[0].soffits[0]
    job = set_soffit(job, soffit.id, "corners", corners).job
    soffit = job.rooms[0].soffits[0]
    after = set_soffit(job, soffit.id, "corners", corners_text(job, soffit)).job.rooms[0].soffits[0]
    for corner, now in zip(soffit.corners, after.corners, strict=True):
        assert (now.x.mm, now.y.mm) == pytest.approx((corner.x.mm, corner.y.mm), abs=1e-6)


@pytest.mark.parametrize("unit", list(DisplayUnit))
def test_rules_of_hinges_and_legs_are_typed_back_unmoved(unit: DisplayUnit) -> None:
    job = set_display(new_job(), unit).job
    for key in standards.RULES:
        text = standards.rules_text(job, job.active_standard(), key)
        again = standards.set_in_force(job, key, text).job
        assert getattr(again.active_standard(), key) == pytest.approx(getattr(job.active_standard(), key)) or [
            tuple(getattr(r, f) for f in r.__struct_fields__) for r in getattr(again.active_standard(), key)
        ] == [
            pytest.approx(tuple(getattr(r, f) for f in r.__struct_fields__))
            for r in getattr(job.active_standard(), key)
        ]


def inches(mm: str = "4200") -> Job:
    job = rooms.set_room_length(new_job(), "r1", "width", mm).job
    return set_display(job, DisplayUnit("in/16")).job


def test_walls_say_that_they_are_rounded_and_keep_what_they_are() -> None:
    job = inches("3600.4")
    room = job.rooms[0]
    text = outline.outline_text(job, room)
    assert text.split(", ")[0] == "~141 3/4"
    after = outline.type_outline(job, "r1", text.replace(", ", ", ", 1)).job
    assert set_out(after).rooms[0].walls[0].length == pytest.approx(3600.4)
    # Another wall typed over, or this one's corner alone: the length stays the true one.
    other = outline.type_outline(job, "r1", text.replace("94 1/2", "100") if "94 1/2" in text else text).job
    assert set_out(other).rooms[0].walls[0].length == pytest.approx(3600.4)
    turned = outline.type_outline(job, "r1", "~141 3/4 corner 100, ~94 1/2, rest, rest").job
    assert set_out(turned).rooms[0].walls[0].length == pytest.approx(3600.4)
    typed = outline.type_outline(job, "r1", "~150 1/2, ~94 1/2, rest, rest").job
    assert set_out(typed).rooms[0].walls[0].length == pytest.approx(150.5 * 25.4)


@given(st.lists(st.floats(400, 800), min_size=1, max_size=4), UNITS)
def test_a_run_is_typed_back_unmoved(widths: list[float], unit: DisplayUnit) -> None:
    job = with_run(new_job(), "A", Level.BASE, ", ".join(f"pair {w:.3f}mm" for w in widths))
    job = set_display(job, unit).job
    run = job.rooms[0].runs[0]
    again = type_run(job, run.id, run_text(job, run)).job
    assert [p.width for p in set_out(again).placed] == pytest.approx([p.width for p in set_out(job).placed], abs=1e-6)
