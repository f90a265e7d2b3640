"""The whole job set out: rooms with their walls, runs, worktops and plinths."""

from __future__ import annotations

from functools import lru_cache

import msgspec

from tall_plank.job import Job, Room
from tall_plank.setout.rooms import Wall, walls_of
from tall_plank.setout.runs import Placed, RunLayout, set_out_run
from tall_plank.setout.trims import Plinth, Worktop, trims_of


class RoomLayout(msgspec.Struct, frozen=True, cache_hash=True):
    """One room with everything in its place."""

    room: Room
    walls: tuple[Wall, ...]
    runs: tuple[RunLayout, ...]
    worktops: tuple[Worktop, ...]
    plinths: tuple[Plinth, ...]

    @property
    def placed(self) -> tuple[Placed, ...]:
        return tuple(p for run in self.runs for p in run.cells)

    def wall(self, wall_id: str) -> Wall:
        return next(w for w in self.walls if w.id == wall_id)


class Layout(msgspec.Struct, frozen=True, cache_hash=True):
    """Everything in its place."""

    rooms: tuple[RoomLayout, ...]

    @property
    def placed(self) -> tuple[Placed, ...]:
        return tuple(p for room in self.rooms for p in room.placed)

    def room(self, room_id: str) -> RoomLayout:
        return next(r for r in self.rooms if r.room.id == room_id)

    def find(self, cell_id: str) -> Placed | None:
        return next((p for p in self.placed if p.cell == cell_id), None)

    def run(self, run_id: str) -> RunLayout | None:
        return next((r for room in self.rooms for r in room.runs if r.run.id == run_id), None)


@lru_cache(maxsize=8)
def set_out(job: Job) -> Layout:
    """Set the job out; pure, and cached by the job's value."""
    rooms = []
    for room in job.rooms:
        walls = walls_of(room)
        by_id = {wall.id: wall for wall in walls}
        runs = tuple(set_out_run(job, room, by_id[run.wall], run) for run in room.runs)
        trims = [trims_of(job, run) for run in runs]
        rooms.append(
            RoomLayout(
                room=room,
                walls=walls,
                runs=runs,
                worktops=tuple(w for worktops, _ in trims for w in worktops),
                plinths=tuple(p for _, plinths in trims for p in plinths),
            )
        )
    return Layout(tuple(rooms))
