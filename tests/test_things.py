"""Every layer has a line for every kind of placed thing, and what the shelf offers can be put in and taken out."""

from __future__ import annotations

import importlib
from pathlib import Path

import pytest

import tall_plank
from conftest import with_run
from tall_plank.edits.things.common import Spot
from tall_plank.edits.things.slope import add_slope
from tall_plank.edits.things.table import ADDED, EDITS, add_thing, delete_thing
from tall_plank.job import Job, Kind, Level, Source
from tall_plank.job.start import new_job
from tall_plank.job.things.molding import ALONG_UNITS
from tall_plank.job.things.table import THINGS, all_things, find_thing, wall_of
from tall_plank.setout import set_out
from tall_plank.workings import Workings

TABLES = {
    "job": "THINGS",
    "setout": "SET_OUT",
    "making": "MAKING",
    "drawing": "DRAWN",
    "solids": "SOLIDS",
    "edits": "EDITS",
    "desk": "HANDLING",
}
"""Layer -> the table of its folder `things`."""

STRUCTURE = {
    Kind.ROOM, Kind.WALL, Kind.RUN, Kind.CELL, Kind.BAY, Kind.PART,
}  # fmt: skip
"""Kinds that are no placed things."""


def table_of(layer: str) -> dict[Kind, object]:
    module = importlib.import_module(f"tall_plank.{layer}.things.table")
    return getattr(module, TABLES[layer])  # type: ignore[no-any-return]


@pytest.mark.parametrize("layer", TABLES)
def test_no_layer_forgets_a_kind(layer: str) -> None:
    assert list(table_of(layer)) == list(THINGS), "the same kinds in the same order"
    assert set(THINGS) == set(Kind) - STRUCTURE


@pytest.mark.parametrize("layer", TABLES)
def test_each_file_is_named_by_its_kind(layer: str) -> None:
    folder = Path(tall_plank.__file__).parent / layer / "things"
    known = {kind.value.replace(" ", "_") for kind in THINGS}
    helpers = {"__init__", "table", "common", "noun", "handling", "dragging", "worktop", "zones"}
    assert {p.stem for p in folder.glob("*.py")} <= known | helpers


def sloped() -> Job:
    return add_slope(new_job("Things"), "r1", "C").job


def ready_for(name: str) -> Job:
    """A job in which a thing has what it lies on: a slope for a roof window, hung units for moldings along them."""
    job = sloped() if name != "slope" else new_job("Things")
    return with_run(job, "A", Level.HUNG, "door 600, door 600") if name in ALONG_UNITS else job


@pytest.mark.parametrize("name", ADDED)
def test_what_is_offered_is_put_in_found_and_taken_out(name: str) -> None:
    job = ready_for(name)
    wall = "C" if name in ("roof window", "slope") else "A"
    change = add_thing(job, name, Spot("r1", wall))
    new = [s for s, _ in all_things(change.job.rooms[0]) if s.id in change.made]
    assert len(new) == 1, "one thing, under one kind"
    (source,) = new
    room, thing = find_thing(change.job, source.kind, source.id)
    assert thing.id.startswith(THINGS[source.kind].prefix)
    if THINGS[source.kind].extent is not None:
        assert wall_of(room, source) == wall
    assert Workings(change.job).layout.rooms[0].room is not None
    gone = delete_thing(change.job, source).job
    assert [s for s, _ in all_things(gone.rooms[0])] == [s for s, _ in all_things(job.rooms[0])]
    assert set_out(gone) == set_out(job)


@pytest.mark.parametrize("kind", [kind for kind, edits in EDITS.items() if edits.slide is not None])
def test_what_slides_stays_on_its_wall(kind: Kind) -> None:
    """Dragged far past both ends it stops there."""
    edits, noun = EDITS[kind], THINGS[kind]
    name = next(iter(edits.add))
    wall = "C" if kind is Kind.ROOF_WINDOW else "A"
    change = add_thing(sloped(), name, Spot("r1", wall))
    (thing_id,) = change.made
    assert edits.slide is not None
    length = set_out(change.job).rooms[0].wall(wall).length
    for to, at_end in ((-5000.0, False), (99000.0, True)):
        job = edits.slide(change.job, thing_id, to).job
        _, thing = find_thing(job, kind, thing_id)
        x, width = noun.extent(thing) if noun.extent is not None else (thing.at.mm, 0.0)
        assert (x + width if at_end else x) == pytest.approx(length if at_end else 0.0)


def test_a_source_is_read_from_its_text() -> None:
    for kind in Kind:
        assert Source.parse(str(kind.of("x1"))) == kind.of("x1")
    assert Source.parse("line") is None and Source.parse("boat:b1") is None


def test_a_thing_that_is_gone_is_named_by_its_word(job: Job) -> None:
    for kind, noun in THINGS.items():
        with pytest.raises(tall_plank.measure.PlankError, match=noun.word):
            find_thing(job, kind, "zz9")
