"""One open job in the window: its history, file, selection, and what follows from it."""

from __future__ import annotations

import logging
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from tall_plank.desk.look.texts import tr
from tall_plank.drawing.shows import Shows
from tall_plank.edits import Change
from tall_plank.files.machines import add_machine, remove_machine, shop_machines
from tall_plank.files.plankfile import read_plank, write_plank
from tall_plank.files.userdata import Lock, UserFolders
from tall_plank.job import History, Job, Kind, Source
from tall_plank.job.choices import FrontsSeen
from tall_plank.job.things.sliding import BayRef
from tall_plank.job.things.table import all_things, wall_of
from tall_plank.making.bayset import BayBox
from tall_plank.measure import PlankError, told_in
from tall_plank.setout import RoomLayout
from tall_plank.shop.machine.model import Machine
from tall_plank.workings import Workings

Edit = Callable[[Job], Change]
PREFIXES = {"u": Kind.CELL, "n": Kind.RUN, "r": Kind.ROOM}
"""First letter of an id -> kind, of what is no placed thing."""

log = logging.getLogger("tall_plank")


class ChangedElsewhereError(PlankError):
    """Another program has changed the file since it was opened."""

    def __init__(self, path: Path) -> None:
        what = tr("Another program has changed this file since it was opened here.")
        super().__init__(what, path.name, tr("Save beside it, or open theirs."))
        self.path = path


def seen(path: Path | None) -> tuple[int, int, int] | None:
    """What tells one state of a file from another: its number, size and time; None where there is none."""
    try:
        found = path.stat() if path is not None else None
    except OSError:
        return None
    return (found.st_ino, found.st_size, found.st_mtime_ns) if found is not None else None


class Document(QObject):
    """The model behind every view. Views listen and pull; edits go through `do` or a drag."""

    changed = pyqtSignal()
    selected = pyqtSignal()
    told = pyqtSignal(str, str)
    """A message and its level: "note" or "wrong"."""
    filed = pyqtSignal()
    """The file, the saved state or the read-only state changed."""

    def __init__(self, job: Job, folders: UserFolders) -> None:
        super().__init__()
        self.folders = folders
        self.path: Path | None = None
        self.read_only = False
        self.selection: tuple[Source, ...] = ()
        self.room_id = job.rooms[0].id
        self.bay: tuple[int, ...] | None = None
        """The bay that is worked on, in the one selected unit."""
        self.chosen: tuple[BayRef, ...] = ()
        """Bays of several units that the next step is about."""
        self.fronts: FrontsSeen = "closed"
        """How fronts are looked at: closed, open, or off. Of the view, not of the job."""
        self.shop = False
        """Whether drawings are for the shop, with edging and joints, or for the client. Of the view too."""
        self.worked_on: dict[str, str] = {}
        """Room -> the wall or face in it that was worked on last. Of the view too."""
        self._lock: Lock | None = None
        self._seen: tuple[int, int, int] | None = None
        """The file as it was when it was opened or saved."""
        self.machines: tuple[Machine, ...] = ()
        """The shop's machines, its own first."""
        self.machine_fault = ""
        """Why a machine file of the shop's cannot be used."""
        self._read_machines()
        self._start(job)

    def _start(self, job: Job) -> None:
        self.history = History(job)
        self.workings = Workings(job, self.machines, waits=False)
        self.drag_from: Job | None = None
        self._refused = ""

    def patient(self) -> Workings:
        """What follows from the job, as papers have it: worked out in full, however long that takes."""
        return Workings(self.job, self.machines)

    @property
    def job(self) -> Job:
        return self.history.job

    @property
    def room(self) -> RoomLayout:
        return self.workings.layout.room(self.room_id)

    # --- files

    def load(self, job: Job, path: Path | None, *, saved: bool = True) -> None:
        """Put another job in place of this one."""
        self.release()
        self.path = path
        self.read_only = False
        self._seen = seen(path)
        if path is not None:
            self._lock = Lock(self.folders, path)
            self.read_only = not self._lock.take()
        self.room_id = job.rooms[0].id
        self.selection, self.bay, self.chosen = (), None, ()
        # How a job was looked at is not how the next one is.
        self.fronts, self.shop = "closed", False
        self.worked_on.clear()
        self._start(job)
        if not saved:
            self.history.mark_unsaved()
        self.changed.emit()
        self.selected.emit()
        self.filed.emit()
        if self.read_only:
            who = self._lock.holder() if self._lock is not None else ""
            told = tr("It is read-only here; save it under another name to change it.")
            self.told.emit(f"{tr('This job is open in another window')}{f' ({who})' if who else ''}. {told}", "note")

    def open(self, path: Path) -> None:
        """Open a job file; raises PlankError and leaves this job in place where it cannot be read."""
        self.load(read_plank(path), path)

    def save(self, path: Path, preview: bytes = b"", *, over_theirs: bool = False) -> bool:
        """Save to a file; raises PlankError and leaves file and job as they were where that fails. True where the file
        had been moved, renamed or deleted since it was opened: then it was written anew.

        Parameters
        ----------
        over_theirs : whether a file that another program has changed since is overwritten

        Raises
        ------
        ChangedElsewhereError where it has been, and is not to be
        """
        gone = False
        if path != self.path:
            lock = Lock(self.folders, path)
            if not lock.take():
                raise PlankError(
                    tr("That job is open in another window."), path.name, tr("Choose another name or close it there.")
                )
            try:
                write_plank(self.job, path, preview)
            except PlankError:
                lock.release()
                raise
            self.release()
            self._lock = lock
            self.path, self.read_only = path, False
        else:
            if self.read_only:
                raise PlankError(tr("This job is read-only here."), path.name, tr("Save it under another name."))
            now = seen(path)
            if now is not None and now != self._seen and not over_theirs:
                raise ChangedElsewhereError(path)
            gone = now is None and self._seen is not None
            write_plank(self.job, path, preview)
        self._seen = seen(path)
        self.history.mark_saved()
        self.filed.emit()
        return gone

    def release(self) -> None:
        """Let go of the file."""
        if self._lock is not None:
            self._lock.release()
            self._lock = None

    # --- edits

    def do(self, edit: Edit, *, select_new: bool = True, at_place: bool = False) -> PlankError | None:
        """Make one step. An error leaves the job untouched and is given back; it is told in the message line too,
        unless the caller shows it at its place."""
        try:
            change = edit(self.job)
            workings = Workings(change.job, self.machines, waits=False)
            _ = workings.made  # what cannot be worked out must not become the job
        except PlankError as error:
            self._tell_in_its_unit(error)
            self.told.emit("" if at_place else str(error), "wrong")
            return error
        except Exception as error:  # a defect: the job stays as it was, and the log holds the trace
            log.exception("an edit failed")
            self.told.emit(tr("That step failed and was not made. The job is as it was."), "wrong")
            return PlankError(str(error), "", "")
        if not self.history.do(change.name, change.job):
            return None
        new_rooms = [made for made in change.made if made[0] == "r"]
        new = tuple(self._source(made) for made in change.made) if select_new and not new_rooms else ()
        self._show(workings, new)
        if new_rooms:
            self.show_room(new_rooms[-1])
            if select_new:
                self.select(tuple(self._source(made) for made in change.made))
        self.told.emit(
            tr("Skipped") + ": " + "; ".join(change.skipped) + "." if change.skipped else change.told,
            "note",
        )
        return None

    def _tell_in_its_unit(self, error: PlankError) -> None:
        """Let an error say its lengths in the unit that the job is shown in."""
        unit = self.job.display
        error.what, error.remedy = told_in(error.what, unit), told_in(error.remedy, unit)

    def _source(self, made: str) -> Source:
        """What a new id belongs to; a slope is looked at with its wall."""
        for room in self.job.rooms:
            for source, _ in all_things(room):
                if source.id == made:
                    return Kind.WALL.of(wall_of(room, source)) if source.kind is Kind.SLOPE else source
        return PREFIXES[made[0]].of(made)

    def _show(self, workings: Workings, new: tuple[Source, ...] = ()) -> None:
        """Let the views follow. `new`: what is selected from now on; nothing: what was."""
        self.workings = workings
        if new and new != self.selection:
            # Before the views pull the job, so that none of them shows the new job with what was selected before.
            self.selection, self.bay = new, None
        else:
            new = ()
            self._prune_selection()
        self.changed.emit()
        self.filed.emit()
        if new:
            self.selected.emit()

    def _read_machines(self) -> None:
        self.machines, faults = shop_machines(self.folders)
        self.machine_fault = " ".join(faults)

    def add_machine(self, path: Path) -> Machine:
        """Keep the machine of a file as one of the shop's.

        Raises
        ------
        PlankError where the file is no machine; then nothing changes
        """
        machine = add_machine(self.folders, path)
        self._read_machines()
        self._show(Workings(self.job, self.machines, waits=False))
        return machine

    def remove_machine(self, name: str) -> bool:
        """Give one of the shop's own machines up; whether there was one."""
        found = remove_machine(self.folders, name)
        self._read_machines()
        self._show(Workings(self.job, self.machines, waits=False))
        return found

    def begin_drag(self, name: str) -> None:
        """Start a drag: every change until `end_drag` counts as one step, each made from the job at its start."""
        self.drag_from = self.history.begin(name)
        self._refused = ""

    def drag(self, edit: Edit) -> None:
        """Show the job as the drag would leave it; what does not fit keeps the last state that did, and says why."""
        if self.drag_from is None:
            return
        try:
            change = edit(self.drag_from)
            workings = Workings(change.job, self.machines, waits=False)
            _ = workings.made  # what cannot be worked out must not become the job
        except PlankError as error:
            self._tell_in_its_unit(error)
            self._refuse(str(error))
            return
        self._refuse("")
        if change.job != self.history.job:
            self.history.do(change.name, change.job)
            self._show(workings)

    def _refuse(self, why: str) -> None:
        """Tell why a step of a drag is not made, once; what is made again takes the message away."""
        if why != self._refused:
            self._refused = why
            self.told.emit(why, "wrong" if why else "note")

    def end_drag(self, *, keep: bool = True) -> None:
        if self.drag_from is None:
            return
        self.drag_from = None
        self.history.end(keep=keep)
        if self.workings.job is not self.job:
            self._show(Workings(self.job, self.machines, waits=False))
        self.filed.emit()

    def undo(self) -> None:
        name = self.history.undo()
        if name:
            self._show(Workings(self.job, self.machines, waits=False))
            self.told.emit(f"{tr('Undone')}: {tr(name)}", "note")

    def redo(self) -> None:
        name = self.history.redo()
        if name:
            self._show(Workings(self.job, self.machines, waits=False))
            self.told.emit(f"{tr('Done again')}: {tr(name)}", "note")

    # --- selection

    def show_room(self, room_id: str) -> None:
        """Work in another room."""
        if room_id != self.room_id and any(r.id == room_id for r in self.job.rooms):
            self.room_id = room_id
            self.selection, self.bay, self.chosen = (), None, ()
            self.changed.emit()
            self.selected.emit()

    def select(self, sources: tuple[Source, ...], *, add: bool = False) -> None:
        """Select things; adding toggles."""
        if add:
            kept = [s for s in self.selection if s not in sources]
            kept += [s for s in sources if s not in self.selection]
            kinds = {s.kind for s in sources}
            # Things of different kinds have nothing in common to change.
            sources = tuple(s for s in kept if s.kind in kinds)
        sources = tuple(dict.fromkeys(sources))
        if sources != self.selection:
            self.selection = sources
            self.bay = None
            self.selected.emit()

    def select_bay(self, path: tuple[int, ...] | None) -> None:
        """Work on a bay of the selected unit, or on the whole unit again."""
        if path is not None and self.bay_box(path) is None:
            path = None
        if path != self.bay:
            self.bay = path
            self.selected.emit()

    def choose_bay(self, ref: BayRef) -> None:
        """Choose a bay besides those that are chosen, or let go of it; with the first one the bay that is worked on is
        chosen too."""
        if not self.chosen and self.bay is not None and len(self.cells) == 1:
            self.chosen = (BayRef(self.cells[0], self.bay),)
            if ref in self.chosen:
                self.selected.emit()
                return
        self.chosen = tuple(r for r in self.chosen if r != ref) if ref in self.chosen else (*self.chosen, ref)
        self.selected.emit()

    def let_go_of_bays(self) -> None:
        """Choose no bays any more."""
        if self.chosen:
            self.chosen = ()
            self.selected.emit()

    def box_of(self, ref: BayRef) -> BayBox | None:
        """A bay of any unit as it is set out, or None."""
        made = self.workings.made.of(ref.cell)
        if made is None or made.set is None:
            return None
        return next((box for box in made.set.boxes if box.path == ref.path), None)

    def bay_box(self, path: tuple[int, ...]) -> BayBox | None:
        """A bay of the one selected unit as it is set out, or None."""
        return self.box_of(BayRef(self.cells[0], path)) if len(self.cells) == 1 else None

    def show_fronts(self, how: FrontsSeen) -> None:
        """Look at the job with its fronts closed, open or off."""
        if how != self.fronts:
            self.fronts = how
            self.changed.emit()

    def show_for_shop(self, on: bool) -> None:
        """Draw for the shop, with edging and joints and the selected units' machining, or for the client."""
        if on != self.shop:
            self.shop = on
            self.changed.emit()

    def shows(self, *, dims: bool = True, fronts: bool | None = None) -> Shows:
        """What views are drawn with; fronts as the designer looks at them where nothing else is asked for."""
        closed = self.fronts == "closed" if fronts is None else fronts
        return Shows(dims=dims, fronts=closed, edging=self.shop, joints=self.shop)

    def ids(self, kind: Kind) -> tuple[str, ...]:
        """Ids of the selected things of a kind."""
        return tuple(s.id for s in self.selection if s.kind is kind)

    @property
    def cells(self) -> tuple[str, ...]:
        return self.ids(Kind.CELL)

    def _prune_selection(self) -> None:
        job = self.job
        if self.room_id not in {r.id for r in job.rooms}:
            self.room_id = job.rooms[0].id
        there = {Kind.CELL.of(c.id) for c in job.cells()}
        there |= {Kind.RUN.of(run.id) for _, run in job.runs()} | {Kind.ROOM.of(r.id) for r in job.rooms}
        there |= {source for room in job.rooms for source, _ in all_things(room)}
        kept = tuple(s for s in self.selection if s in there or s.kind is Kind.WALL)
        self.chosen = tuple(ref for ref in self.chosen if Kind.CELL.of(ref.cell) in there and self.box_of(ref))
        if self.bay is not None and (kept != self.selection or self.bay_box(self.bay) is None):
            self.bay = None
            self.selection = kept
            self.selected.emit()
        elif kept != self.selection:
            self.selection = kept
            self.selected.emit()
