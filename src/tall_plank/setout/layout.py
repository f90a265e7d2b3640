"""The whole job set out: rooms with their walls and islands, runs, worktops, boards of trims, moldings."""

from __future__ import annotations

from functools import lru_cache

import msgspec

from tall_plank.job import Cell, Corner, Job, Room, Run, Soffit, Unit
from tall_plank.job.inherit import construction_of
from tall_plank.measure import Length
from tall_plank.setout.corners import CornerEnd, corners_of_room, front_depth
from tall_plank.setout.moldings import MoldingPiece, moldings_of
from tall_plank.setout.panels import (
    ceiling_fillers,
    corner_fillers,
    end_thickness,
    island_boards,
    run_waterfalls,
    upstands,
)
from tall_plank.setout.plinths import plinths_of
from tall_plank.setout.rooms import Wall, column_points, corners_of, faces_of, walls_of
from tall_plank.setout.runs import Find, Placed, RunLayout, Span, set_out_run
from tall_plank.setout.tops import island_tops, run_tops
from tall_plank.setout.trims import TrimBoard
from tall_plank.setout.worktop import Worktop


class RoomLayout(msgspec.Struct, frozen=True, cache_hash=True):
    """One room with everything in its place.

    Attributes
    ----------
    walls : clockwise
    faces : of its islands, in pairs
    points : corners of the floor, clockwise
    boards : fillers, panels, plinths and what else trims are made of
    placed : every cell of every run
    """

    room: Room
    walls: tuple[Wall, ...]
    runs: tuple[RunLayout, ...]
    worktops: tuple[Worktop, ...]
    boards: tuple[TrimBoard, ...]
    faces: tuple[Wall, ...] = ()
    points: tuple[tuple[float, float], ...] = ()
    moldings: tuple[MoldingPiece, ...] = ()
    placed: tuple[Placed, ...] = ()

    @property
    def lines(self) -> tuple[Wall, ...]:
        """Walls, then the faces of islands."""
        return self.walls + self.faces

    @property
    def plinths(self) -> tuple[TrimBoard, ...]:
        return tuple(b for b in self.boards if b.kind == "plinth")

    def wall(self, wall_id: str) -> Wall:
        """A wall or a face of an island."""
        return next(w for w in self.lines if w.id == wall_id)

    def has_line(self, wall_id: str) -> bool:
        return any(w.id == wall_id for w in self.lines)

    @property
    def size(self) -> tuple[float, float]:
        """Width and depth of the upright rectangle about the floor, mm."""
        return max(x for x, _ in self.points), max(y for _, y in self.points)


class Layout(msgspec.Struct, frozen=True, cache_hash=True):
    """Everything in its place."""

    rooms: tuple[RoomLayout, ...]

    @property
    def placed(self) -> tuple[Placed, ...]:
        return tuple(p for room in self.rooms for p in room.placed)

    def room(self, room_id: str) -> RoomLayout:
        return next(r for r in self.rooms if r.room.id == room_id)

    def find(self, cell_id: str) -> Placed | None:
        return next((p for room in self.rooms for p in room.placed if p.cell == cell_id), None)

    def run(self, run_id: str) -> RunLayout | None:
        return next((r for room in self.rooms for r in room.runs if r.run.id == run_id), None)


@lru_cache(maxsize=8)
def set_out(job: Job) -> Layout:
    """Set the job out; pure, and cached by the job's value and room by room."""
    return Layout(tuple(set_out_room(job, room) for room in job.rooms))


def set_out_room(job: Job, room: Room) -> RoomLayout:
    """One room set out; kept as long as nothing that it is made from changes."""
    used = {cell.unit for run in room.runs for cell in run.cells}
    narrow = msgspec.structs.replace(
        job,
        name="",
        number="",
        client="",
        site="",
        rooms=(room,),
        units=tuple(u for u in job.units if u.id in used),
        pricing=_NO_PRICING,
        labels=(),
        book="",
        next_id=0,
        pictures=(),
        inserts=(),
        shortlist=(),
        cutting=_NO_CUTTING,
        kept_plan=None,
    )
    return _room(narrow)


_NO_PRICING, _NO_CUTTING = Job(name="").pricing, Job(name="").cutting


@lru_cache(maxsize=64)
def _room(job: Job) -> RoomLayout:
    room = job.rooms[0]
    walls = walls_of(room)
    placed_at: dict[str, tuple[str, Span]] = {}
    island_first = {
        i.id: next((c for r in room.runs if room.island_of(r.wall) is i for c in r.cells), None) for i in room.islands
    }
    faces: list[Wall] = []
    keeps: dict[str, Span] = {}
    for island in room.islands:
        cell = island_first[island.id]
        spine = _thickness(job, cell) if island.spine else 0.0
        pair = faces_of(room, island, spine)
        faces += pair
        left, right = (end_thickness(job, island, side, _unit_of(job, cell)) for side in ("left", "right"))
        keeps[pair[0].id], keeps[pair[1].id] = (left, right), (right, left)
    lines = {w.id: w for w in (*walls, *faces)}
    corners = corners_of_room(job, room, walls)

    def finder(run: Run) -> Find:
        line = lines[run.wall]

        def find(source: str) -> Span | None:
            kind, _, name = source.partition(":")
            if kind == "cell":
                there = placed_at.get(name)
                return there[1] if there is not None and there[0] == run.wall else None
            if kind == "opening":
                o = next((o for o in room.openings if o.id == name and o.wall == run.wall), None)
                return (o.x.mm, o.x.mm + o.width.mm) if o is not None else None
            if kind == "service":
                s = next((s for s in room.services if s.id == name and s.wall == run.wall), None)
                return (s.x.mm, s.x.mm) if s is not None else None
            if kind == "guide":
                g = next((g for g in room.guides if g.id == name and g.wall == run.wall), None)
                return (g.at.mm, g.at.mm) if g is not None else None
            if kind == "column":
                c = next((c for c in room.columns if c.id == name), None)
                if c is None:
                    return None
                xs = [line.frame.into((x, y, 0.0))[0] for x, y in column_points(room, c)]
                return (min(xs), max(xs))
            return None

        return find

    basis = msgspec.structs.replace(job, rooms=(), units=())
    done: dict[str, RunLayout] = {}
    todo = [r for r in room.runs if r.wall in lines]
    while todo:
        # Runs whose cells are held by cells of others wait for those; in a circle the first goes on without.
        ready = [r for r in todo if not _waits(r, todo)] or todo[:1]
        for run in ready:
            line, keep = lines[run.wall], keeps.get(run.wall, (0.0, 0.0))
            ends = (corners.get((run.id, "left")), corners.get((run.id, "right")))
            if any(c.anchor is not None for c in run.cells):
                layout = set_out_run(job, room.id, line, run, ends, finder(run), keep)
            else:
                layout = _free_run(basis, _units_of(job, (run,)), room.id, line, run, ends, keep)
            done[run.id] = layout
            for p in layout.cells:
                placed_at[p.cell] = (p.wall, (p.x, p.right))
        todo = [r for r in todo if r.id not in done]
    runs = tuple(done[r.id] for r in room.runs if r.id in done)
    if any(s.over for s in room.soffits):
        room = msgspec.structs.replace(
            room, soffits=tuple(p for s in room.soffits for p in _standing(job, room, s, runs))
        )
    tops: list[Worktop] = []
    boards: list[TrimBoard] = []
    on_walls = [r for r in runs if not r.wall.island]
    bare = msgspec.structs.replace(room, runs=())
    for laid in on_walls:
        round_corner = {end.other for end in (laid.start_corner, laid.end_corner) if end is not None}
        mates = tuple(r for r in on_walls if r is not laid and r.run.id in round_corner)
        units = _units_of(job, (laid.run, *(m.run for m in mates)))
        pieces, trims = _dressed(basis, units, bare, laid, mates)
        tops += pieces
        boards += trims
    for island, line in zip(room.islands, faces[::2], strict=True):
        mine = [r for r in runs if r.wall.island == island.id]
        cell = island_first[island.id]
        if cell is None:
            continue
        made = construction_of(job, job.unit(cell.unit))
        two_faced = len({r.wall.id for r in mine if r.cells}) == 2
        back = made.front_thickness if island.back and not two_faced else 0.0
        pieces = island_tops(job, island, line, mine, back, made.carcass_thickness)
        tops += pieces
        for laid in mine:
            boards += plinths_of(job, laid, mine)
        boards += island_boards(job, island, line, mine, pieces)
    return RoomLayout(
        room=room,
        walls=walls,
        runs=runs,
        worktops=tuple(tops),
        boards=tuple(boards),
        faces=tuple(faces),
        points=corners_of(room.outline),
        moldings=moldings_of(room, job.stock.profiles) if room.moldings else (),
        placed=tuple(p for run in runs for p in run.cells),
    )


def _units_of(job: Job, runs: tuple[Run, ...]) -> tuple[Unit, ...]:
    """The units that stand in some runs."""
    return tuple(job.unit(cell.unit) for run in runs for cell in run.cells)


@lru_cache(maxsize=256)
def _free_run(
    basis: Job,
    units: tuple[Unit, ...],
    room_id: str,
    line: Wall,
    run: Run,
    ends: tuple[CornerEnd | None, CornerEnd | None],
    keep: Span,
) -> RunLayout:
    """A run that nothing beside it holds, set out; kept while nothing that it is made from changes.

    Parameters
    ----------
    basis : the job without rooms and units
    units : those of the run
    """
    return set_out_run(msgspec.structs.replace(basis, units=units), room_id, line, run, ends, keep=keep)


@lru_cache(maxsize=256)
def _dressed(
    basis: Job, units: tuple[Unit, ...], room: Room, laid: RunLayout, mates: tuple[RunLayout, ...]
) -> tuple[tuple[Worktop, ...], tuple[TrimBoard, ...]]:
    """Worktops and boards of a run along a wall; kept while nothing that they are made from changes.

    Parameters
    ----------
    basis : the job without rooms and units
    units : those of the run and of its mates
    room : without its runs
    mates : the runs round its corners
    """
    job = msgspec.structs.replace(basis, units=units)
    together = (laid, *mates)
    pieces = run_tops(job, laid, together)
    boards = (
        *plinths_of(job, laid, together), *corner_fillers(job, laid), *ceiling_fillers(job, room, laid),
        *upstands(job, room, laid, pieces), *run_waterfalls(job, laid, pieces),
    )  # fmt: skip
    return pieces, boards


def _standing(job: Job, room: Room, soffit: Soffit, runs: tuple[RunLayout, ...]) -> list[Soffit]:
    """The pieces of a soffit that stands on a run: one over each stretch of neighbouring units of one height. What is
    taller than the least of them breaks it, so that it is notched round tall units."""
    run = next((r for r in runs if r.run.id == soffit.over), None)
    if run is None:
        return [soffit]
    solid = [p for p in run.cells if p.is_solid and p.width > 0]
    if not solid:
        return []
    top = min(p.top for p in solid)
    drop = room.height.mm - top
    if drop <= 1.0:
        return []
    groups: list[list[Placed]] = []
    for p in run.cells:
        fits = p.is_solid and p.top <= top + 0.5
        if fits and groups and abs(groups[-1][-1].right - p.x) < 0.5:
            groups[-1].append(p)
        elif fits:
            groups.append([p])
    found = []
    for group in groups:
        out = max(front_depth(job, job.unit(p.unit)) for p in group) - soffit.reveal.mm
        x0, x1 = group[0].x, group[-1].right
        places = [run.wall.frame.out((x, y, 0.0)) for x, y in ((x0, 0.0), (x1, 0.0), (x1, -out), (x0, -out))]
        corners = tuple(Corner(Length.of(round(x, 6)), Length.of(round(y, 6))) for x, y, _ in places)
        found.append(msgspec.structs.replace(soffit, corners=corners, drop=Length.of(round(drop, 6))))
    return found


def _waits(run: Run, todo: list[Run]) -> bool:
    others = {c.id for r in todo if r is not run for c in r.cells}
    return any(
        c.anchor is not None and c.anchor.to.startswith("cell:") and c.anchor.to[5:] in others for c in run.cells
    )


def _thickness(job: Job, cell: Cell | None) -> float:
    if cell is None:
        return job.active_standard().values()["carcass_thickness"].mm  # type: ignore[union-attr]
    return construction_of(job, job.unit(cell.unit)).carcass_thickness


def _unit_of(job: Job, cell: Cell | None) -> Placed | None:
    """Stands for the unit whose construction an island's panels follow."""
    if cell is None:
        return None
    from tall_plank.job import Body, Level
    from tall_plank.measure import Frame

    return Placed("", cell.unit, "", "", "", "", Level.BASE, "", Body.CARCASS, 0.0, 0.0, 0.0, 0.0, 0.0, Frame())
