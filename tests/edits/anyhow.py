"""Any edit with any arguments: what commands give it, and what they never should. Used by tests and by the bench."""

from __future__ import annotations

import importlib
import inspect
import math
import pkgutil
import random
from collections.abc import Callable
from typing import Any, get_args, get_type_hints

import tall_plank.edits as edits
from tall_plank.edits.change import Change
from tall_plank.edits.things.common import Spot
from tall_plank.edits.things.table import ADDED
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.job import Job, Kind, Source
from tall_plank.job.bays import Front, FrontKind
from tall_plank.job.inherit import FINISH_KEYS, OWN_LENGTH_KEYS
from tall_plank.job.sheetset import PageView
from tall_plank.job.standard import CHOICE_KEYS, CHOICES, LENGTH_KEYS
from tall_plank.job.things.sliding import BayRef, Replaced
from tall_plank.job.things.table import all_things
from tall_plank.job.treatment import zones_of
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.measure.limits import LIMITS
from tall_plank.stock import Profile
from tall_plank.workings import Workings

TEXTS = (
    "", " ", "0", "1", "18", "600", "720", "450.5", "1 1/2\"", "2' 7 1/2\"", "60cm", "base_height", "worktop + 2*18", "share",
    "rest", "yes", "no", "left", "right", "3", "2 share", "300, share", "300; 300", "0 0; 2400 0; 2400 600; 0 600", "none",
    "door 600, drawers 900", "3 x door share", "clear 600", "300-900", "A", "B", "25", "90", "270", "top", "bottom",
    "-5", "1e9", "99999999", "nan", "inf", "-inf", "1/0", "((((", "\ud800", "\x00", "a\x0bb", "x" * 5000, "9" * 400, "=1+1",
    "min(600,500)", "min(600;500)", "1 2 3", "../../x", "☃", "600mm", "0.0001", "rest, rest", "share, share, share", "50 x door",
)  # fmt: skip
KEYS = tuple(
    dict.fromkeys(
        [
            *OWN_LENGTH_KEYS, *FINISH_KEYS, *CHOICE_KEYS, *LENGTH_KEYS, *(k for rows in LIMITS.values() for k in rows),
            "wall", "hand", "kind", "name", "number", "client", "site", "angle", "corners", "edge", "profile", "left", "right",
            "back", "spine", "leaves", "overlap", "labels", "firm", "machine", "mode", "matched", "style", "handle", "joint",
            "outline", "left_out", "waterfall_left", "upstand_back", "overhang_front", "profile_front", "standard",
            "standard.joints", "parameter.x", "hinge_rules", "leg_rules", "swing", "turn", "shown", "by_others", "walls",
            "columns", "rows", "boards", "packs", "bottom", "start", "code", "finish", "nonsense", "",
        ]
    )
)  # fmt: skip
NUMBERS = (0.0, 1.0, -1.0, 50.0, 333.3, 1200.0, 2400.0, -700.0, 1e5, 1e9, -1e12, math.nan, math.inf, -math.inf, 0.001)
COUNTS = (0, 1, 2, 3, -1, 5, 50, 1_000_000)
WORDS = (
    *get_args(FrontKind), "rows", "columns", "shelf", "divider", "nothing", "x", "y", "z", "locked", "hidden", "door", "window",
    "arch", "niche", "column", "chimney breast", "water", "power", "skirting", "cornice", "left", "right", "centre", "span",
    "up", "along", "line", "panels", "slats", "boards", "bare", "planted", "framed", "raised", "molded", "battens", "split",
    "glue", "screws", "fitted", "centered", "ends", "evenly", "30 gap 15", "900 share", "1:2",
    "low", "high", "kitchen", "wardrobe", "plinth", "legs", "none", "front", "rear", "open", "panel", "dado rail",
)  # fmt: skip


def every_edit() -> dict[str, Callable[..., Change]]:
    """Name -> each function that makes a change of a job."""
    found = {}
    for info in pkgutil.walk_packages(edits.__path__, "tall_plank.edits."):
        module = importlib.import_module(info.name)
        for name, function in inspect.getmembers(module, inspect.isfunction):
            own = function.__module__ == module.__name__ and not name.startswith("_")
            if (
                own
                and get_type_hints(function).get("return") is Change
                and "job" in inspect.signature(function).parameters
            ):
                found[f"{info.name.removeprefix('tall_plank.edits.')}.{name}"] = function
    return found


EDITS = every_edit()
PASSED_IN = (
    "with_bay",
    "replaced",
    "added",
    "keep_plan",
    "replace_stock",
    "take_offered",
    "add_kinds",
    "take_list",
    "add_standard",
    "still_made",
    "deleted",
)
"""Edits whose arguments are whole values that other code has made."""

NAMES = tuple(n for n in EDITS if n.split(".")[-1] not in PASSED_IN)


class Chance:
    """Arguments by chance for a job. `wild`: how often one makes no sense."""

    def __init__(self, r: random.Random, job: Job, wild: float = 0.15) -> None:
        self.r, self.job, self.wild = r, job, wild

    def one(self, *of: Any) -> Any:
        return self.r.choice(of) if of else ""

    def cell(self) -> str:
        return self.one(*(c.id for c in self.job.cells())) if self.job.cells() else "u0"

    def thing(self, kind: Kind | None = None) -> str:
        ids = [s.id for room in self.job.rooms for s, _ in all_things(room) if kind is None or s.kind is kind]
        return self.one(*ids) if ids else "x0"

    def path(self, cell_id: str) -> tuple[int, ...]:
        cell = next((c for c in self.job.cells() if c.id == cell_id), None)
        paths = self.job.unit(cell.unit).bay.paths() if cell is not None else ((),)
        return (
            self.one(*paths) if self.r.random() > self.wild else self.one((), (0,), (1, 0), (9,), (-1,), (0, 0, 0, 0))
        )

    def codes(self) -> tuple[str, ...]:
        stock = self.job.stock
        return (
            *(f.code for f in stock.fittings), *(f.code for f in stock.finishes), *(t.code for t in self.job.templates),
            *(s.code for s in self.job.standards), *(p.code for p in stock.profiles), *(a.code for a in stock.appliances),
        )  # fmt: skip

    def text(self) -> str:
        pick = self.r.random()
        if pick < 0.6:
            return self.one(*TEXTS)
        if pick < 0.75:
            return self.one(*self.codes())
        if pick < 0.9:
            return self.one(*(c for choices in CHOICES.values() for c in choices), *WORDS)
        return f"{self.r.uniform(-50, 3000):.{self.r.randint(0, 3)}f}"

    def source(self) -> Source | None:
        cells = [Kind.CELL.of(c.id) for c in self.job.cells()]
        runs = [Kind.RUN.of(run.id) for _, run in self.job.runs()]
        things = [s for room in self.job.rooms for s, _ in all_things(room)]
        return self.one(*(cells + runs + things), Kind.RUN.of("n0"), None)

    def arguments(self, function: Callable[..., Change]) -> dict[str, Any]:
        """Values for the parameters of an edit."""
        hints = get_type_hints(function)
        kind = next((k for k in Kind if k.value.replace(" ", "_") == function.__module__.rsplit(".", 1)[-1]), None)
        found: dict[str, Any] = {}
        for name, parameter in inspect.signature(function).parameters.items():
            if parameter.default is not inspect.Parameter.empty and self.r.random() < 0.5:
                continue
            found[name] = self.job if name == "job" else self._value(name, hints[name], kind, found)
        return found

    def _value(self, name: str, hint: Any, kind: Kind | None, so_far: dict[str, Any]) -> Any:
        r, wild = self.r, self.r.random() < self.wild
        told = str(hint)
        if hint is DisplayUnit:
            return self.one(*DisplayUnit)
        if "Role" in told or "Level" in told:
            return self.one(*hint)
        if "Replaced" in told or "tuple[tall_plank.job.things.sliding.BayRef" in told:
            refs = [BayRef(c, self.path(c)) for c in (self.cell() for _ in range(r.randint(0, 3)))]
            return tuple(Replaced(ref.cell, ref.path, Front("door")) for ref in refs) if "Repl" in told else tuple(refs)
        if "BayRef" in told:
            cell = self.cell()
            return BayRef(cell, self.path(cell))
        if "Profile" in told:
            points = tuple(
                tuple(self.one(*NUMBERS) for _ in range(self.one(2, 2, 3, 1)))
                if wild
                else (r.uniform(0, 90), r.uniform(0, 90))
                for _ in range(r.randint(0, 6))
            )
            use = self.one("cornice", "light rail", "hat")
            return Profile(
                self.text(),
                self.text(),
                (use,),
                points,
                self.one(2400.0, *NUMBERS),
                spring=self.one(0.0, 45.0, *NUMBERS),
            )
        if "Spot" in told:
            room = self.one(*self.job.rooms)
            walls = (*room.wall_ids(), *(f"{i.letter}1" for i in room.islands))
            at = (self.one(*NUMBERS), self.one(*NUMBERS)) if r.random() < 0.3 else None
            return Spot("r0" if wild else room.id, self.one(*walls), self.one(None, *NUMBERS), at, (self.cell(),))
        if "Source" in told:
            source = self.source()
            return source if source is not None or "None" in told else Kind.RUN.of("n0")
        if name == "cells" and "tuple[tuple" in told:
            return tuple((c, self.path(c)) for c in (self.cell() for _ in range(r.randint(0, 3))))
        if name == "cells":
            return tuple(self.cell() for _ in range(r.randint(0, 3)))
        if "PageView" in told:
            views = [PageView(self.text(), self.one(*NUMBERS), self.one(*NUMBERS), self.one(*NUMBERS)) for _ in "12"]
            return tuple(views) if "Sequence" in told else views[0]
        if "tuple[int, int, bytes]" in told:
            return (60, 40, b"\xff\xd8\xff" + bytes(20)) if r.random() < 0.7 else None
        if name == "kind" and "Literal" in told:
            return self.one("client", "site", "shop", "installer", *(("nobody",) if wild else ()))
        if name == "page_id":
            return self.one("g0", *(p.id for s in self.job.sheet_sets for p in s.pages))
        if "bytes" in told:
            return b"\xff\xd8\xff" + bytes(r.randrange(256) for _ in range(20))
        if "tuple[tuple[float, float], ...]" in told:
            return tuple((self.one(*NUMBERS), self.one(*NUMBERS)) for _ in range(r.randint(0, 6)))
        if "tuple[float, float]" in told:
            return (self.one(*NUMBERS), self.one(*NUMBERS))
        if "path" in name and "tuple" in told and "treatment_id" in so_far:
            found = [t for t in self.job.treatments if t.id == so_far["treatment_id"]]
            paths = [p for p, _ in zones_of(found[0].zone)] if found else [()]
            return self.one(*paths) if r.random() > self.wild else self.one((9,), (0, 0), (-1,))
        if "path" in name and "tuple" in told:
            return self.path(so_far.get("cell_id", ""))
        if "tuple[str" in told:
            return tuple(self.one(*self.codes()) for _ in range(r.randint(0, 3)))
        if hint is bool:
            return r.random() < 0.5
        if hint is int or told == "int | None":
            return self.one(*COUNTS)
        if hint is float or told == "float | None":
            return self.one(*NUMBERS)
        return self._word(name, kind, wild)

    def _word(self, name: str, kind: Kind | None, wild: bool) -> str:
        if wild:
            return self.one(*TEXTS)
        rooms = self.job.rooms
        if name == "room_id":
            return self.one(*(room.id for room in rooms))
        if name == "wall_id":
            return self.one(*(w for room in rooms for w in (*room.wall_ids(), *(f"{i.letter}1" for i in room.islands))))
        if name in ("cell_id", "after"):
            return self.cell()
        if name == "run_id":
            return self.one(*(run.id for _, run in self.job.runs())) if self.job.runs() else "n0"
        if name == "doors_id":
            return self.thing(Kind.SLIDING)
        if name == "treatment_id":
            return self.one(*(t.id for t in self.job.treatments)) if self.job.treatments else "t0"
        if name.endswith("_id"):
            return self.thing(kind)
        if name == "key":
            return self.one(*KEYS)
        if name == "name":
            return self.one(*ADDED, *(i.name for i in self.job.inserts), "a name", *(v.name for v in self.job.values))
        if name in ("code", "template_code", "finish"):
            return self.one(*self.codes())
        if name in ("kind", "hand", "axis", "side", "split", "between", "flag", "at", "line", "use", "start"):
            return self.one(*WORDS)
        return self.text()


def one_edit(
    r: random.Random, job: Job, wild: float = 0.15
) -> tuple[str, dict[str, Any], Job | None, PlankError | None]:
    """An edit by chance: its name, what it was given, the job that came of it, or why it was refused.

    Raises
    ------
    whatever an edit should not raise
    """
    name = r.choice(NAMES)
    given = Chance(r, job, wild).arguments(EDITS[name])
    try:
        return name, given, EDITS[name](**given).job, None
    except PlankError as error:
        return name, given, None, error


def keeps(job: Job) -> str:
    """What is wrong with a job after it was saved and read again, and computed; empty: nothing."""
    again = job_from_bytes(job_bytes(job), "job")
    if job_bytes(again) != job_bytes(job):
        return "it is another one after saving and reading"
    w = Workings(again)
    if not w.tally.price.net.is_finite():
        return "its price is no number"
    return ""
