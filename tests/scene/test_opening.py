"""Fronts opened or taken off, sliding leaves, fittings and machining in the room."""

from __future__ import annotations

import numpy as np
import pytest

from conftest import cell_of, with_run
from tall_plank.edits import bays
from tall_plank.edits.things.sliding import add_sliding
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.job.things.sliding import BayRef
from tall_plank.scene import Scene, build_scene, visible_scene
from tall_plank.scene.unitscene import machined_in_room
from tall_plank.solids.opening import opened
from tall_plank.workings import Workings


def scene(job: Job, fronts: str = "closed") -> Scene:
    w = Workings(job)
    return visible_scene(job, w.layout, w.made, "r1", fronts)


def points(found: Scene, word: str) -> np.ndarray:  # type: ignore[type-arg]
    """Corners of everything whose name holds a word."""
    rows = [
        mesh.points[mesh.point_owner == i] for mesh in found.meshes for i, name in enumerate(mesh.names) if word in name
    ]
    return np.concatenate(rows) if rows else np.zeros((0, 3))


@pytest.mark.parametrize("hand", ["left", "right"])
def test_an_open_door_keeps_its_hinged_edge_in_place(hand: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 450")
    job = bays.set_front_value(job, ((cell_of(job, "A1"), ()),), "hand", hand).job
    closed, wide = points(scene(job), "door 1"), points(scene(job, "open"), "door 1")
    edge = closed[:, 0].min() if hand == "left" else closed[:, 0].max()
    near = wide[np.abs(wide[:, 0] - edge) < 25]
    assert len(near) >= 4
    # The free edge has come about a door's width into the room, which lies south of wall A.
    assert closed[:, 1].min() - wide[:, 1].min() == pytest.approx(447, abs=30)
    # On its own side of the unit's middle.
    assert (wide[:, 0].mean() < closed[:, 0].mean()) == (hand == "left")


def test_pulled_drawers_take_their_boxes_along() -> None:
    job = with_run(new_job(), "A", Level.BASE, "drawers 600")
    moves = opened(Workings(job).made.units[0][1])
    assert {"drawer 1", "drawer 2", "drawer 3"} <= set(moves)
    closed, pulled = points(scene(job), "drawer front"), points(scene(job, "open"), "drawer front")
    assert closed[:, 1].min() - pulled[:, 1].min() == pytest.approx(560 * 0.7)
    assert len(points(scene(job), "drawer 1 left side")) == 0
    assert len(points(scene(job, "open"), "drawer 1 left side")) == 8


def test_an_open_flap_stands_up_over_its_hinges() -> None:
    job = with_run(new_job(), "A", Level.HUNG, "flap 800")
    closed, up = points(scene(job), "flap"), points(scene(job, "open"), "flap")
    assert up[:, 2].min() > closed[:, 2].max() - 60
    assert up[:, 1].min() < closed[:, 1].min() - 200


def test_without_fronts_the_inside_and_its_fittings_are_there() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000")
    assert len(points(scene(job), "rail")) == 0
    off = scene(job, "off")
    assert len(points(off, "door")) == 0 and len(points(off, "handle")) == 0
    assert len(points(off, "rail")) > 0


def test_sliding_leaves_stand_before_the_carcass_and_go() -> None:
    job = with_run(new_job(), "A", Level.BASE, "wardrobe 1000, wardrobe 1000")
    a, b = cell_of(job, "A1"), cell_of(job, "A2")
    job = add_sliding(job, BayRef(a), BayRef(b)).job
    leaves, gable = points(scene(job), "leaf"), points(scene(job), "left gable")
    assert leaves[:, 1].max() < gable[:, 1].min()
    assert len(points(scene(job, "off"), "leaf")) == 0
    slid = points(scene(job, "open"), "leaf")
    assert slid[:, 0].max() < leaves[:, 0].max() - 500


def test_machining_in_the_room_lies_where_the_unit_stands() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 450, drawers 600")
    w = Workings(job)
    placed = w.layout.placed[1]
    unit = w.made.of(placed.cell)
    assert unit is not None
    meshes = machined_in_room(unit, placed, job.stock)
    found = np.concatenate([m.points for m in meshes])
    plain = build_scene(job, w.layout, w.made, "r1")
    whole = points(plain, "A2 left gable")
    assert found[:, 0].min() == pytest.approx(whole[:, 0].min(), abs=0.01)
    assert found[:, 2].max() == pytest.approx(whole[:, 2].max(), abs=0.01)
    # Holes give many more faces than boxes have.
    assert sum(len(m.quads) for m in meshes) > 40 * len(unit.parts)
    assert all(set(m.sources) == {Kind.CELL.of(placed.cell)} for m in meshes)
    left_out = build_scene(job, w.layout, w.made, "r1", without=frozenset({placed.cell}))
    assert len(points(left_out, "A2 ")) == 0
