"""The job as meshes, one a material, for the model view and for glTF. Room frame, mm, z up."""

from __future__ import annotations

from tall_plank.job import Job
from tall_plank.job.choices import FrontsSeen
from tall_plank.making import MadeJob
from tall_plank.setout import Layout
from tall_plank.solids.room import solids_in
from tall_plank.solids.solids import Scene, meshes_of


def build_scene(
    job: Job,
    layout: Layout,
    made: MadeJob,
    room_id: str,
    *,
    hidden: bool = True,
    fronts: FrontsSeen = "closed",
    without: frozenset[str] = frozenset(),
) -> Scene:
    """Every part of a room with its floor and walls. Units hidden by the designer, and cells to do without, are left
    out."""
    room = layout.room(room_id)
    solids = solids_in(job, room, made, hidden=hidden, fronts=fronts, without=without)
    w, d = room.size
    return Scene(meshes_of(solids), (0.0, 0.0, 0.0), (w, d, room.room.height.mm))


def visible_scene(
    job: Job,
    layout: Layout,
    made: MadeJob,
    room_id: str,
    fronts: FrontsSeen = "closed",
    without: frozenset[str] = frozenset(),
) -> Scene:
    """What can be seen with the fronts as they are: the light scene of the model view."""
    return build_scene(job, layout, made, room_id, hidden=False, fronts=fronts, without=without)
