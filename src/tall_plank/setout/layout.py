"""The whole job set out: rooms with their walls and islands, runs, worktops, boards of trims, moldings."""

from __future__ import annotations

import msgspec

from tall_plank.job import Basis, Job, Kind, Room, Run, Source, Unit, basis_of
from tall_plank.job.choices import LEFT, RIGHT, Side
from tall_plank.job.treatment import Treatment
from tall_plank.measure.frames import FloorPoints
from tall_plank.measure.remembered import remembered
from tall_plank.setout.columnfaces import covered_faces
from tall_plank.setout.corners import CornerEnd, corners_of_room
from tall_plank.setout.frames import Casing, casings_of
from tall_plank.setout.paneling.fields import FieldLaid, fields_of
from tall_plank.setout.panels import ceiling_fillers, corner_fillers, run_waterfalls, upstands
from tall_plank.setout.plinths import plinths_of
from tall_plank.setout.rooms import corners_of, walls_of
from tall_plank.setout.runs import Find, Placed, RunLayout, set_out_run
from tall_plank.setout.things.island import IslandLines, dressed_island, lines_of
from tall_plank.setout.things.molding import MoldingPiece, moldings_of
from tall_plank.setout.things.soffit import with_standing_soffits
from tall_plank.setout.things.table import span_of
from tall_plank.setout.topedges import with_free_edges
from tall_plank.setout.tops import run_tops
from tall_plank.setout.trims import TrimBoard
from tall_plank.setout.unitmoldings import unit_moldings
from tall_plank.setout.wall import Span, Wall
from tall_plank.setout.worktop import Worktop


class RoomLayout(msgspec.Struct, frozen=True, cache_hash=True):
    """One room with everything in its place.

    Attributes
    ----------
    walls : clockwise
    faces : of its islands, in pairs
    sides : of its columns, those that a wall field lies on
    points : corners of the floor, clockwise
    boards : fillers, panels, plinths and what else trims are made of
    placed : every cell of every run
    fields : of its walls
    casings : round its openings
    moldings : along its walls
    unit_moldings : along its units
    """

    room: Room
    walls: tuple[Wall, ...]
    runs: tuple[RunLayout, ...]
    worktops: tuple[Worktop, ...]
    boards: tuple[TrimBoard, ...]
    faces: tuple[Wall, ...] = ()
    sides: tuple[Wall, ...] = ()
    points: FloorPoints = ()
    moldings: tuple[MoldingPiece, ...] = ()
    placed: tuple[Placed, ...] = ()
    fields: tuple[FieldLaid, ...] = ()
    casings: tuple[Casing, ...] = ()
    unit_moldings: tuple[MoldingPiece, ...] = ()

    @property
    def all_moldings(self) -> tuple[MoldingPiece, ...]:
        """Along walls, then along units."""
        return self.moldings + self.unit_moldings

    @property
    def lines(self) -> tuple[Wall, ...]:
        """Walls, then the faces of islands, then those of columns that are covered."""
        return self.walls + self.faces + self.sides

    @property
    def plinths(self) -> tuple[TrimBoard, ...]:
        return tuple(b for b in self.boards if b.kind == "plinth")

    def wall(self, wall_id: str) -> Wall:
        """A wall, or a face of an island or a column."""
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


def neighbours(room: RoomLayout, wall: Wall) -> list[tuple[Side, Wall]]:
    """The walls that meet this one at its left and right end."""
    if wall.is_face:
        return []
    i = room.walls.index(wall)
    return [(LEFT, room.walls[i - 1]), (RIGHT, room.walls[(i + 1) % len(room.walls)])]


@remembered(8)
def set_out(job: Job) -> Layout:
    """Set the job out; pure, and cached by the job's value and room by room."""
    return Layout(tuple(set_out_room(job, room) for room in job.rooms))


def set_out_room(job: Job, room: Room) -> RoomLayout:
    """One room set out; kept as long as nothing that it is made from changes."""
    used = {cell.unit for run in room.runs for cell in run.cells}
    covers = {f.treatment for f in room.fields}
    treatments = tuple(t for t in job.treatments if t.id in covers)
    return _room(basis_of(job, tuple(u for u in job.units if u.id in used)), room, treatments)


def _room(basis: Basis, room: Room, treatments: tuple[Treatment, ...]) -> RoomLayout:
    """A room set out, with its wall fields.

    Parameters
    ----------
    basis : with the units that stand in the room
    """
    plain = _plain_room(basis, msgspec.structs.replace(room, fields=()) if room.fields else room)
    return _with_fields(basis_of(basis), plain, room, treatments) if room.fields else plain


@remembered(64)
def _with_fields(basis: Basis, plain: RoomLayout, room: Room, treatments: tuple[Treatment, ...]) -> RoomLayout:
    """A room with its wall fields; kept while nothing of it changes."""
    fields = fields_of(
        basis, room, treatments, plain.walls, plain.lines, plain.moldings, plain.unit_moldings, plain.placed,
        plain.worktops, plain.boards, tuple(r.run for r in plain.runs), plain.casings,
    )  # fmt: skip
    whole = msgspec.structs.replace(plain.room, fields=room.fields)
    return msgspec.structs.replace(plain, room=whole, fields=fields, sides=covered_faces(whole))


@remembered(64)
def _plain_room(basis: Basis, room: Room) -> RoomLayout:
    """A room set out without wall fields.

    Parameters
    ----------
    basis : with the units that stand in the room
    """
    walls = walls_of(room)
    islands = {i.id: lines_of(basis, room, i) for i in room.islands}
    faces = tuple(face for lines in islands.values() for face in (lines.first, lines.second))
    laid = _runs(basis, room, walls, islands)
    room = with_standing_soffits(basis, room, laid)
    bare = msgspec.structs.replace(room, runs=())
    outfit = basis_of(basis)
    tops: list[Worktop] = []
    boards: list[TrimBoard] = []
    on_walls = [r for r in laid if not r.wall.island]
    for one in on_walls:
        round_corner = {end.other for end in (one.start_corner, one.end_corner) if end is not None}
        mates = tuple(r for r in on_walls if r is not one and r.run.id in round_corner)
        units = _units_of(basis, (one.run, *(m.run for m in mates)))
        pieces, trims = _dressed(outfit, units, bare, one, mates)
        tops += pieces
        boards += trims
    for island in room.islands:
        mine = [r for r in laid if r.wall.island == island.id]
        pieces, trims_of_it = dressed_island(basis, room, island, islands[island.id].first, mine)
        tops += pieces
        boards += trims_of_it
    placed = tuple(p for run in laid for p in run.cells)
    return RoomLayout(
        room=room,
        walls=walls,
        runs=laid,
        worktops=with_free_edges(tops, (*walls, *faces), placed),
        boards=tuple(boards),
        faces=faces,
        points=corners_of(room.outline),
        moldings=moldings_of(room, basis.stock.profiles) if room.moldings else (),
        placed=placed,
        casings=casings_of(room, basis.stock.profiles),
        unit_moldings=unit_moldings(room, basis.stock.profiles, (*walls, *faces), placed, tuple(boards)),
    )


def _runs(basis: Basis, room: Room, walls: tuple[Wall, ...], islands: dict[str, IslandLines]) -> tuple[RunLayout, ...]:
    """Every run of a room set out, those first whose cells hold cells of others."""
    lines = {w.id: w for w in walls}
    keeps: dict[str, Span] = {}
    for island in islands.values():
        for face in (island.first, island.second):
            lines[face.id], keeps[face.id] = face, island.keep_of(face)
    corners = corners_of_room(basis, room, walls)
    outfit = basis_of(basis)
    done: dict[str, RunLayout] = {}
    todo = [r for r in room.runs if r.wall in lines]
    while todo:
        # Runs whose cells are held by cells of others wait for those; in a circle the first goes on without.
        ready = [r for r in todo if not _waits(r, todo)] or todo[:1]
        for run in ready:
            line, keep = lines[run.wall], keeps.get(run.wall, (0.0, 0.0))
            ends = (corners.get((run.id, "left")), corners.get((run.id, "right")))
            if any(c.anchor is not None for c in run.cells):
                found = set_out_run(basis, room.id, line, run, ends, _finder(room, line, tuple(done.values())), keep)
            else:
                found = _free_run(outfit, _units_of(basis, (run,)), room.id, line, run, ends, keep)
            done[run.id] = found
        todo = [r for r in todo if r.id not in done]
    return tuple(done[r.id] for r in room.runs if r.id in done)


def _finder(room: Room, line: Wall, done: tuple[RunLayout, ...]) -> Find:
    """Where what holds a cell lies along a line: units of runs that are set out already, or placed things."""

    def find(source: Source) -> Span | None:
        if source.kind is Kind.CELL:
            there = (p for laid in done for p in laid.cells if p.cell == source.id and p.wall_id == line.id)
            return next(((p.x, p.right) for p in there), None)
        return span_of(room, line, source)

    return find


def _units_of(basis: Basis, runs: tuple[Run, ...]) -> tuple[Unit, ...]:
    """The units that stand in some runs."""
    return tuple(basis.unit(cell.unit) for run in runs for cell in run.cells)


@remembered(256)
def _free_run(
    basis: Basis,
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
    basis : without units
    units : those of the run
    """
    return set_out_run(basis_of(basis, units), room_id, line, run, ends, keep=keep)


@remembered(256)
def _dressed(
    basis: Basis, units: tuple[Unit, ...], room: Room, laid: RunLayout, mates: tuple[RunLayout, ...]
) -> tuple[tuple[Worktop, ...], tuple[TrimBoard, ...]]:
    """Worktops and boards of a run along a wall; kept while nothing that they are made from changes.

    Parameters
    ----------
    basis : without units
    units : those of the run and of its mates
    room : without its runs
    mates : the runs round its corners
    """
    job = basis_of(basis, units)
    together = (laid, *mates)
    pieces = run_tops(job, laid, together)
    boards = (
        *plinths_of(job, laid, together), *corner_fillers(job, laid), *ceiling_fillers(job, room, laid),
        *upstands(job, room, laid, pieces), *run_waterfalls(job, laid, pieces),
    )  # fmt: skip
    return pieces, boards


def _waits(run: Run, todo: list[Run]) -> bool:
    others = {c.id for r in todo if r is not run for c in r.cells}
    held_by = (c.anchor.source for c in run.cells if c.anchor is not None)
    return any(source is not None and source.kind is Kind.CELL and source.id in others for source in held_by)
