"""Notes on leaders: words about things with live fields, put aside by hand and kept; told where the thing is gone."""

from __future__ import annotations

from pathlib import Path

import pytest

from conftest import cell_of, with_run
from tall_plank.drawing.elevation import elevation
from tall_plank.drawing.primitives import Drawing, Line, Text
from tall_plank.drawing.shown import shown
from tall_plank.edits import runs
from tall_plank.edits.things.note import add_note, delete_note, move_note, set_note
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError
from tall_plank.workings import Workings


def noted(text: str = "") -> Job:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900")
    return add_note(job, "r1", "A", Kind.CELL.of(cell_of(job, "A2")), text).job


def drawn(job: Job) -> Drawing:
    w = Workings(job)
    room = w.layout.rooms[0]
    return elevation(job, room, room.wall("A"), w.made)


def words(job: Job) -> Text:
    source = Kind.NOTE.of(job.rooms[0].notes[0].id)
    (found,) = [i for i in drawn(job).items if isinstance(i, Text) and i.source == source]
    return found


def test_its_fields_follow_every_change() -> None:
    job = noted()
    assert words(job).text == "Pair of doors, 900"
    job = runs.set_width(job, (cell_of(job, "A2"),), "800").job
    assert words(job).text == "Pair of doors, 800"
    job = set_note(job, job.rooms[0].notes[0].id, "text", "{number}: soft close").job
    assert words(job).text == "A2: soft close"


@pytest.mark.parametrize("scale", [10.0, 20.0, 50.0])
def test_it_stands_where_it_was_put_at_any_scale_on_its_leader(scale: float) -> None:
    job = move_note(noted(), noted().rooms[0].notes[0].id, -31.0, 22.3).job
    text = words(job)
    seen = shown(drawn(job), scale)
    (put,) = [t for t in seen.texts if t.text == text.text]
    assert ((put.x - text.x) / scale, (put.y - text.y) / scale) == pytest.approx((-31.0, 22.5))
    leaders = [i for i in seen.words if isinstance(i, Line) and i.source == text.source]
    assert len(leaders) == 1 and (leaders[0].x1, leaders[0].y1) == (text.x, text.y)
    # Other words give way to it.
    assert len(seen.texts) >= len([i for i in drawn(job).items if isinstance(i, Text)])


def test_it_is_told_as_gone_and_never_dropped() -> None:
    job = noted("keep this")
    job = runs.delete_cells(job, (cell_of(job, "A2"),)).job
    assert "gone: keep this" in words(job).text
    assert [s.rule for s in Workings(job).snags if s.rule == "note"] == ["note"]
    assert delete_note(job, job.rooms[0].notes[0].id).job.rooms[0].notes == ()


def test_it_survives_save_and_open(tmp_path: Path) -> None:
    job = noted("{width} wide")
    write_plank(job, tmp_path / "n.plank")
    assert read_plank(tmp_path / "n.plank") == job


@pytest.mark.parametrize(
    ("key", "text"),
    [("text", ""), ("text", "{wide}"), ("text", "{width"), ("right", "far"), ("up", "1e9"), ("up", "nan"), ("x", "1")],
)
def test_what_is_wrong_is_told(key: str, text: str) -> None:
    job = noted()
    with pytest.raises(PlankError):
        set_note(job, job.rooms[0].notes[0].id, key, text)
    with pytest.raises(PlankError, match="not seen"):
        add_note(job, "r1", "B", Kind.CELL.of(cell_of(job, "A2")))
