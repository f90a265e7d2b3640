"""Halves that mirror one another: in every cover and split, about what stands before the wall."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon
from shapely.ops import unary_union

from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.things.opening import add_opening, set_opening
from tall_plank.edits.things.wall_field import add_field, set_field
from tall_plank.edits.treatments import cover_zone, join_zone, set_zone, split_zone
from tall_plank.job import Job
from tall_plank.job.start import new_job
from tall_plank.job.treatment import Halves, Panels
from tall_plank.making.parts import Groove
from tall_plank.measure import PlankError
from tall_plank.measure.paths import chords
from tall_plank.measure.regions import Region
from tall_plank.setout import set_out
from tall_plank.setout.paneling.fields import FieldLaid
from tall_plank.workings import Workings

COVERS = ("panels", "slats", "boards", "modules")
SPLITS = ("", "up", "along", "arch", "line", "rake")


def halved(width: float = 4000.0, cover: str = "panels") -> tuple[Job, str]:
    job = set_room_length(new_job("Halves"), "r1", "width", f"{width:g}mm").job
    job = add_field(job, "r1", "A", "equal panels").job
    treatment = job.treatments[0].id
    job = cover_zone(job, treatment, (), cover).job
    return split_zone(job, treatment, (), "halves").job, treatment


def laid(job: Job) -> FieldLaid:
    return set_out(job).rooms[0].fields[0]


def polygon(region: Region) -> Polygon:
    return Polygon(chords(region.outer), [chords(h) for h in region.holes])


def turned(shape: Polygon, about: float) -> Polygon:
    return Polygon(
        [(about - x, z) for x, z in shape.exterior.coords],
        [[(about - x, z) for x, z in hole.coords] for hole in shape.interiors],
    )


def pieces(field: FieldLaid) -> list[Polygon]:
    """All that is laid: slats, cut and whole modules, panels, else what a cover takes."""
    found: list[Polygon] = []
    for z in field.zones:
        found += [polygon(s.shape) for s in z.slats] or [polygon(r) for r in z.regions]
        if z.modules is not None:
            found += [polygon(c.shape) for c in z.modules.cut]
            shape = z.modules.shape
            found += [
                Polygon([(x, y), (x + shape.width, y), (x + shape.width, y + shape.height), (x, y + shape.height)])
                for x, y in z.modules.whole
            ]
        for s in z.stretches:
            if s.grid is not None and not s.rake:
                for left, wide in zip(s.grid.left_edges, s.grid.panels, strict=True):
                    for low in s.grid.bottom_edges:
                        a, high = s.x0 + left, s.grid.height
                        found.append(Polygon([(a, low), (a + wide, low), (a + wide, low + high), (a, low + high)]))
    return found


@settings(max_examples=60)
@given(
    st.sampled_from(COVERS), st.sampled_from(SPLITS), st.sampled_from(COVERS), st.integers(1700, 5200), st.booleans(),
)  # fmt: skip
def test_the_right_half_mirrors_the_left_one(cover: str, how: str, inner: str, width: int, whole_turned: bool) -> None:
    job, treatment = halved(width, cover)
    try:
        if how:
            job = split_zone(job, treatment, (0,), how).job
            job = cover_zone(job, treatment, (0, 0), inner).job
        if how == "line":
            for key, text in (("y1", "0.2"), ("y2", "0.7")):
                job = set_zone(job, treatment, (0,), key, text).job
        if how == "arch":
            job = set_zone(job, treatment, (0,), "width", "600mm").job
        if whole_turned:
            job = set_field(job, job.rooms[0].fields[0].id, "mirrored", "yes").job
    except PlankError:
        return
    field = laid(job)
    about = field.x0 + field.x1
    found = pieces(field)
    left_out = list(found)
    for shape in found:
        twin = turned(shape, about)
        mate = next((s for s in left_out if s.symmetric_difference(twin).area < 0.5), None)
        assert mate is not None, shape.bounds
        left_out.remove(mate)
    for a, b in itertools.combinations([polygon(r) for z in field.zones for r in z.regions], 2):
        assert a.intersection(b).area < 0.5
    if not how:
        covered = unary_union([polygon(r) for z in field.zones for r in z.regions])
        assert covered.area == pytest.approx(field.width * field.height, abs=2.0)


def test_grooves_of_boards_mirror_too() -> None:
    job, treatment = halved(3710.0, "boards")
    for key, text in (("groove", "7mm"), ("groove_pitch", "53mm"), ("groove_depth", "4mm")):
        job = set_zone(job, treatment, (0,), key, text).job
    grooves = sorted(
        t.part.frame.at(op.x1, op.y1, 0.0)[0]
        for t in Workings(job).made.trims
        if t.part is not None
        for op in t.part.operations
        if isinstance(op, Groove)
    )
    assert len(grooves) > 60
    middle = [(a + b) / 2 for a, b in zip(grooves, reversed(grooves), strict=True)]
    assert middle == pytest.approx([3710.0 / 2] * len(grooves), abs=1e-6)


def test_a_door_in_one_half_takes_its_own_of_it_and_leaves_the_other_as_it_was() -> None:
    job, _ = halved(4000.0)
    plain = laid(job)
    job = add_opening(job, "r1", "A", "door").job
    job = set_opening(job, job.rooms[0].openings[0].id, "x", "2600mm").job
    field = laid(job)
    assert field.zones[0] == plain.zones[0], "the left half has no door"
    assert field.area < plain.area
    assert all(s.x0 >= 2000.0 - 1e-6 for s in field.zones[1].stretches)
    assert max(s.x1 for s in field.zones[1].stretches) == pytest.approx(4000.0)
    assert not any(s.x0 < 3000 < s.x1 and s.z0 < 100.0 for s in field.zones[1].stretches)


def test_it_is_made_counted_and_joined_again() -> None:
    job, treatment = halved(4000.0)
    made = Workings(job).made
    names = [t.part.name for t in made.trims if t.part is not None]
    assert names.count("board") == 2 and names.count("stile") % 2 == 0
    assert [t.problem for t in made.trims if t.problem] == []
    # Alike pieces of both halves share a number.
    numbers = {t.number.partition("-")[0] for t in made.trims if t.part is not None and t.part.name == "stile"}
    assert len(numbers) <= 2
    assert isinstance(job.treatments[0].zone, Halves)
    assert isinstance(join_zone(job, treatment, ()).job.treatments[0].zone, Panels)
    with pytest.raises(PlankError, match="does not split"):
        split_zone(job, treatment, (0,), "quarters")
    assert math.isclose(laid(job).zones[0].area, laid(job).zones[1].area, abs_tol=1e-3)


def test_grooves_of_a_mirrored_field_begin_at_its_right_end() -> None:
    job = set_room_length(new_job("Turned"), "r1", "width", "3700mm").job
    job = add_field(job, "r1", "A", "flat boards").job
    for key, text in (("groove", "7mm"), ("groove_pitch", "53mm"), ("groove_depth", "4mm")):
        job = set_zone(job, job.treatments[0].id, (), key, text).job

    def grooves(job: Job) -> list[float]:
        return sorted(
            t.part.frame.at(op.x1, op.y1, 0.0)[0]
            for t in Workings(job).made.trims
            if t.part is not None
            for op in t.part.operations
            if isinstance(op, Groove)
        )

    plain = grooves(job)
    mirrored = grooves(set_field(job, job.rooms[0].fields[0].id, "mirrored", "yes").job)
    assert mirrored == pytest.approx(sorted(3700.0 - x for x in plain), abs=1e-6) and mirrored != plain
