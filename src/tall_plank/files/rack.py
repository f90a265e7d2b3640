"""The shop's rack: offcuts and whole boards in one SQLite file, with what was booked, used and made, and its history.

Two programs may work on it at once: every act takes the file's write lock first, reads, then writes, all or nothing.
Lengths are mm. Times are UTC, to the second.
"""

from __future__ import annotations

import json
import logging
import sqlite3
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, Literal

import msgspec

from tall_plank.files.aside import said
from tall_plank.formats.envelope import number_of
from tall_plank.formats.table import RACK
from tall_plank.measure import PlankError

log = logging.getLogger("tall_plank")

State = Literal["free", "booked", "used", "thrown away"]

SCHEMA = """
CREATE TABLE IF NOT EXISTS piece(
  id INTEGER PRIMARY KEY AUTOINCREMENT, board TEXT NOT NULL, length REAL NOT NULL, width REAL NOT NULL,
  state TEXT NOT NULL, job TEXT NOT NULL DEFAULT '', made_by TEXT NOT NULL DEFAULT '', since TEXT NOT NULL);
CREATE TABLE IF NOT EXISTS whole(board TEXT PRIMARY KEY, count INTEGER NOT NULL CHECK(count >= 0));
CREATE TABLE IF NOT EXISTS plan_cut(made_from TEXT PRIMARY KEY, act INTEGER NOT NULL);
CREATE TABLE IF NOT EXISTS act(
  id INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, what TEXT NOT NULL, before TEXT NOT NULL,
  undone INTEGER NOT NULL DEFAULT 0);
"""

WAIT = 5.0  # s that another program may hold the file
SHORT = 0.2  # s that a window waits for it
LONGEST = 6000.0  # mm
MOST = 10_000  # boards of a kind


@dataclass(frozen=True)
class RackPiece:
    """An offcut. `board` is the code of the board in stock that it was cut from; `job` who booked or used it."""

    id: int
    board: str
    length: float
    width: float
    state: State
    job: str
    made_by: str
    since: str


@dataclass(frozen=True)
class Act:
    """One step of the rack's history."""

    id: int
    at: str
    what: str
    undone: bool


class Rack:
    """The rack in one file; made with its folder where it is missing."""

    def __init__(self, path: Path, wait: float = WAIT) -> None:
        """
        Parameters
        ----------
        wait : s that another program may hold the file; after that an act is refused, and can be made again
        """
        self.path, self.wait = path, wait

    # --- reading

    def pieces(self, *, gone: bool = False) -> tuple[RackPiece, ...]:
        """What is on the rack, by board and size; with `gone` also what was used or thrown away.

        Raises
        ------
        PlankError where the file cannot be read
        """
        where = "" if gone else "WHERE state IN ('free', 'booked')"
        columns = "id, board, length, width, state, job, made_by, since"
        with self._open() as db:
            rows = db.execute(f"SELECT {columns} FROM piece {where} ORDER BY board, length DESC, width DESC, id")
            return tuple(_piece(row) for row in rows)

    def wholes(self) -> dict[str, int]:
        """Code of a board -> how many whole ones there are."""
        with self._open() as db:
            rows = db.execute("SELECT board, count FROM whole WHERE count > 0 ORDER BY board").fetchall()
        return {str(board): min(int(count), MOST) for board, count in rows if isinstance(count, int)}

    def free_for(self, job: str) -> tuple[RackPiece, ...]:
        """Offcuts that a job may use: those that are free, and those that it has booked itself."""
        return tuple(p for p in self.pieces() if p.state == "free" or p.job == job)

    def history(self, most: int = 200) -> tuple[Act, ...]:
        """The latest acts, newest first."""
        with self._open() as db:
            rows = db.execute("SELECT id, at, what, undone FROM act ORDER BY id DESC LIMIT ?", (most,))
            return tuple(Act(i, str(at), str(what), bool(undone)) for i, at, what, undone in rows)

    # --- acts

    def add(self, board: str, length: float, width: float, count: int = 1) -> tuple[int, ...]:
        """Put offcuts on the rack; returns their numbers.

        Raises
        ------
        PlankError for sizes or counts that make no sense
        """
        for key, mm in (("length", length), ("width", width)):
            if not 10.0 <= mm <= LONGEST:
                raise PlankError(f"{mm:g} mm is out of range.", key, f"Type 10 to {LONGEST:g} mm.")
        _count(count, 1)
        with self._act(f"Put {count} x {board}, {length:g} x {width:g} on the rack") as act:
            return tuple(act.make(board, length, width, "") for _ in range(count))

    def set_whole(self, board: str, count: int) -> None:
        """Say how many whole boards there are.

        Raises
        ------
        PlankError for a count that makes no sense
        """
        _count(count, 0)
        with self._act(f"Count {count} whole {board}") as act:
            act.whole(board, count)

    def throw_away(self, ids: Sequence[int]) -> None:
        """Take free offcuts off the rack.

        Raises
        ------
        PlankError where one is booked or gone; then none is taken
        """
        with self._act(f"Throw away {_said(ids)}") as act:
            for i in ids:
                if act.row(i)["state"] != "free":
                    raise PlankError(f"Offcut {i} is {act.row(i)['state']}.", "rack", "Release it first.")
                act.put(i, state="thrown away")

    def book(self, job: str, ids: Sequence[int]) -> None:
        """Book offcuts for a job in place of what it had booked before.

        Raises
        ------
        PlankError where another job has booked or used one meanwhile; then nothing is booked
        """
        with self._act(f"Book {_said(ids)} for {job}" if ids else f"Release what {job} had booked") as act:
            for i in act.ids("state = 'booked' AND job = ?", job):
                if i not in ids:
                    act.put(i, state="free", job="")
            for i in ids:
                row = act.row(i)
                if row["state"] == "free":
                    act.put(i, state="booked", job=job)
                elif row["job"] != job or row["state"] != "booked":
                    by = f" by {row['job']}" if row["job"] else ""
                    raise PlankError(f"Offcut {i} is {row['state']}{by}.", "rack", "Plan the boards again.")

    def release(self, ids: Sequence[int]) -> None:
        """Free what is booked, whoever booked it."""
        with self._act(f"Release {_said(ids)}") as act:
            for i in ids:
                if act.row(i)["state"] == "booked":
                    act.put(i, state="free", job="")

    def cut(
        self,
        job: str,
        made_from: str,
        used: Sequence[int],
        wholes: dict[str, int],
        left: Sequence[tuple[str, float, float]],
    ) -> tuple[int, ...]:
        """A job's plan was cut: its offcuts are used, whole boards taken from stock as far as there are any, what is
        left goes on the rack.

        Parameters
        ----------
        made_from : hash of the plan; the same plan is not cut twice
        left : board, length, width of each new offcut

        Returns
        -------
        numbers of the new offcuts

        Raises
        ------
        PlankError where the plan was cut before, or an offcut is not to be had; then nothing changes
        """
        with self._act(f"Cut {job}: {sum(wholes.values())} boards, {len(used)} offcuts used, {len(left)} left") as act:
            if act.db.execute("SELECT 1 FROM plan_cut WHERE made_from = ?", (made_from,)).fetchone():
                raise PlankError("This plan was cut already.", "rack", "Undo that on the rack where it was a mistake.")
            for i in used:
                row = act.row(i)
                if row["state"] not in ("free", "booked") or (row["state"] == "booked" and row["job"] != job):
                    raise PlankError(f"Offcut {i} is not to be had: {row['state']}.", "rack", "Plan the boards again.")
                act.put(i, state="used", job=job)
            there = dict(act.db.execute("SELECT board, count FROM whole"))
            for board, count in wholes.items():
                if there.get(board):
                    act.whole(board, max(0, there[board] - count))
            act.db.execute("INSERT INTO plan_cut VALUES (?, ?)", (made_from, act.id))
            return tuple(act.make(board, length, width, job) for board, length, width in left)

    def undo(self) -> str:
        """Take the latest act back; returns what it was.

        Raises
        ------
        PlankError where there is none
        """
        with self._open() as db:
            db.execute("BEGIN IMMEDIATE")
            found = db.execute("SELECT id, what, before FROM act WHERE undone = 0 ORDER BY id DESC LIMIT 1").fetchone()
            if found is None:
                db.execute("ROLLBACK")
                raise PlankError("There is nothing to take back.", "rack", "")
            number, what, before = found
            try:
                told = msgspec.json.decode(before, type=_Before)
            except (msgspec.MsgspecError, TypeError, ValueError):
                db.execute("UPDATE act SET undone = 1 WHERE id = ?", (number,))
                db.execute("COMMIT")
                what = f"“{str(what)[:60]}” cannot be taken back: what is kept of it is damaged."
                raise PlankError(what, "rack", "It is left out; the step before it is next.") from None
            for row in reversed(told.pieces):
                db.execute("UPDATE piece SET state = ?, job = ? WHERE id = ?", (row.state, row.job, row.id))
            for i in told.made:
                db.execute("DELETE FROM piece WHERE id = ?", (i,))
            for board, count in told.wholes.items():
                db.execute("INSERT OR REPLACE INTO whole VALUES (?, ?)", (board, count))
            db.execute("DELETE FROM plan_cut WHERE act = ?", (number,))
            db.execute("UPDATE act SET undone = 1 WHERE id = ?", (number,))
            db.execute("COMMIT")
            return str(what)

    # --- the file

    @contextmanager
    def _open(self) -> Iterator[sqlite3.Connection]:
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True)
            db = sqlite3.connect(self.path, timeout=self.wait, isolation_level=None)
        except (OSError, sqlite3.Error) as error:
            raise self._unread(error) from error
        try:
            (number,) = db.execute("PRAGMA user_version").fetchone()
            # Racks of the first program have no number: they are of number 1.
            number_of({"format": number or 1}, RACK, self.path.name)
            if not number:
                db.executescript(SCHEMA)
                db.execute(f"PRAGMA user_version = {RACK.number}")
            yield db
        except sqlite3.OperationalError as error:
            if "no such" not in str(error):  # a table or column that is gone is damage, the rest is not
                raise self._unread(error) from error
            damaged: Exception | None = error
        except (sqlite3.DatabaseError, UnicodeDecodeError, _DamagedError) as error:
            damaged = error
        else:
            damaged = None
        finally:
            db.close()
        if damaged is not None:
            log.warning("the rack is set aside", exc_info=damaged)
            raise PlankError(said("offcut rack", self.path), self.path.name, "Do that again.")

    @contextmanager
    def _act(self, what: str) -> Iterator[_Writing]:
        with self._open() as db:
            db.execute("BEGIN IMMEDIATE")
            act = _Writing(db, what)
            try:
                yield act
            except BaseException:
                db.execute("ROLLBACK")
                raise
            act.close()
            db.execute("COMMIT")

    def _unread(self, error: Exception) -> PlankError:
        if "locked" in str(error):
            what, remedy = "Another program works on the offcut rack.", "Try again in a moment."
            return PlankError(what, self.path.name, remedy)
        remedy = "Plans go on without it. Check the folder and its rights."
        return PlankError(f"The offcut rack cannot be used: {error}.", self.path.name, remedy)


class _DamagedError(Exception):
    """What the file holds makes no sense."""


class _Was(msgspec.Struct):
    """A piece as it was before an act."""

    id: int
    state: State
    job: str


class _Before(msgspec.Struct):
    """What an act changed, as it was."""

    pieces: list[_Was]
    made: list[int]
    wholes: dict[str, int]


def _piece(row: tuple[Any, ...]) -> RackPiece:
    """A row of the file as an offcut.

    Raises
    ------
    _DamagedError where it is none
    """
    piece = RackPiece(*row)
    texts = (piece.board, piece.state, piece.job, piece.made_by, piece.since)
    sizes = all(isinstance(mm, float | int) and 1.0 <= mm <= LONGEST for mm in (piece.length, piece.width))
    if not sizes or not all(isinstance(t, str) for t in texts):
        raise _DamagedError(f"offcut {piece.id} makes no sense")
    return piece


class _Writing:
    """An act that is under way: what it changes is kept as it was before."""

    def __init__(self, db: sqlite3.Connection, what: str) -> None:
        self.db, self.what = db, what
        self.id = db.execute("INSERT INTO act(at, what, before) VALUES (?, ?, '')", (_now(), what)).lastrowid
        self.before: dict[str, Any] = {"pieces": [], "made": [], "wholes": {}}

    def ids(self, where: str, *values: object) -> tuple[int, ...]:
        return tuple(i for (i,) in self.db.execute(f"SELECT id FROM piece WHERE {where} ORDER BY id", values))

    def row(self, number: int) -> dict[str, Any]:
        found = self.db.execute("SELECT id, state, job FROM piece WHERE id = ?", (number,)).fetchone()
        if found is None:
            raise PlankError(f"There is no offcut {number}.", "rack", "Look at the rack again.")
        return {"id": found[0], "state": found[1], "job": found[2]}

    def put(self, number: int, **values: str) -> None:
        self.before["pieces"].append(self.row(number))
        for key, value in values.items():
            self.db.execute(f"UPDATE piece SET {key} = ? WHERE id = ?", (value, number))

    def make(self, board: str, length: float, width: float, job: str) -> int:
        made = self.db.execute(
            "INSERT INTO piece(board, length, width, state, made_by, since) VALUES (?, ?, ?, 'free', ?, ?)",
            (board, length, width, job, _now()),
        ).lastrowid
        assert made is not None
        self.before["made"].append(made)
        return made

    def whole(self, board: str, count: int) -> None:
        there = self.db.execute("SELECT count FROM whole WHERE board = ?", (board,)).fetchone()
        self.before["wholes"].setdefault(board, there[0] if there else 0)
        self.db.execute("INSERT OR REPLACE INTO whole VALUES (?, ?)", (board, count))

    def close(self) -> None:
        """Write the history; an act that changed nothing leaves none."""
        if not any(self.before.values()):
            self.db.execute("DELETE FROM act WHERE id = ?", (self.id,))
            return
        self.db.execute("UPDATE act SET before = ? WHERE id = ?", (json.dumps(self.before), self.id))


def _count(count: int, least: int) -> None:
    if not least <= count <= MOST:
        raise PlankError(f"{count} is out of range.", "count", f"Type {least} to {MOST}.")


def _said(ids: Sequence[int]) -> str:
    return f"offcut {', '.join(map(str, ids))}"


def _now() -> str:
    return datetime.now(UTC).strftime("%Y-%m-%d %H:%M:%S")
