"""Everything that the program makes of two jobs, a line a thing with a checksum of all its figures.

    python tests/kept/results.py            says what differs from tests/kept/results.txt
    python tests/kept/results.py --write    writes tests/kept/results.txt anew
    python tests/kept/results.py --whole F  writes all figures into the folder F, to be compared with another commit's

It says that something has changed, never that it is right: for that there are the other tests.
"""

from __future__ import annotations

import hashlib
import json
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import msgspec

from tall_plank.demo import demo_job
from tall_plank.drawing.handles import handle_drawing
from tall_plank.drawing.part import part_drawing
from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.unit import unit_drawing
from tall_plank.edits import outline, rooms, runs, runtext, units
from tall_plank.edits.change import Change
from tall_plank.edits.choices import CHOICES
from tall_plank.edits.fittings import add_fitting
from tall_plank.edits.jobs import set_display
from tall_plank.edits.things.column import add_column
from tall_plank.edits.things.guide import add_guide
from tall_plank.edits.things.island import add_island, set_island
from tall_plank.edits.things.molding import add_molding
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.sliding import add_sliding
from tall_plank.edits.things.soffit import add_soffit
from tall_plank.files.dxf import write_dxf
from tall_plank.files.svg import write_svg
from tall_plank.job import Body, Job, Level, Template
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.job.things.sliding import BayRef
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.papers import schedules
from tall_plank.papers.drawings import bar_sheets, job_sheets, room_drawings
from tall_plank.papers.labels import labels_of
from tall_plank.papers.machinesheets import setup_tables
from tall_plank.papers.offer import offer
from tall_plank.papers.partlists import unit_list, units_with_parts
from tall_plank.papers.worksheets import work_sheets
from tall_plank.papers.write_csv import write_csv
from tall_plank.scene import build_scene, visible_scene
from tall_plank.workings import Workings

FILE = Path(__file__).parent / "results.txt"


class Bench:
    """A job as it grows."""

    def __init__(self) -> None:
        self.job = new_job("All kinds")

    def do(self, change: Change) -> str:
        self.job = change.job
        return change.made[0] if change.made else ""


def every_kind() -> Job:
    """Rooms with every kind of unit in each front style in turn, every inside fitting, every thing of a room."""
    b = Bench()
    styles = list(CHOICES["front_style"])
    b.do(rooms.set_room_length(b.job, "r1", "height", "2600mm"))
    b.do(outline.type_outline(b.job, "r1", "30000mm, 9000mm, 30000mm corner 100, rest, rest"))
    for level, wall in ((Level.BASE, "A"), (Level.TALL, "C"), (Level.HUNG, "A")):
        codes = [t for t in shipped_templates() if t.level is level and not t.corner and t.body is not Body.GAP]
        if not codes:
            continue
        run = b.do(runs.add_run(b.job, "r1", wall, Level.BASE if level is Level.TALL else level))
        words = ", ".join(_in_run(t) for t in codes)
        b.do(runtext.type_run(b.job, run, words))
    cells = [c.id for c in b.job.cells()]
    for i, cell in enumerate(cells):
        try:
            b.do(units.set_own(b.job, (cell,), "front_style", styles[i % len(styles)]))
        except PlankError:
            continue
    insides = [f.code for f in b.job.stock.fittings if f.is_inside]
    room = b.do(outline.add_room(b.job))
    b.do(rooms.set_room_length(b.job, room, "width", "25000mm"))
    run = b.do(runs.add_run(b.job, room, "A", Level.BASE))
    b.do(runtext.type_run(b.job, run, ", ".join(["wardrobe 800mm"] * len(insides))))
    for cell, code in zip(b.job.find_run(run)[1].cells, insides, strict=True):
        try:
            b.do(add_fitting(b.job, cell.id, (), code))
        except PlankError:
            continue
    _things(b)
    return b.job


def _in_run(kind: Template) -> str:
    """A kind in a run's text: what has no gables between panels, a slanted end with room at its shallow side."""
    if not kind.gables:
        return f"panel, {kind.words[0]} 600mm, panel"
    words = f"{kind.words[0]} {round(kind.width) if kind.width else 600}mm"
    return {"angled right": f"{words}, gap 100mm", "angled left": f"gap 100mm, {words}"}.get(kind.shape, words)


def _things(b: Bench) -> None:
    room = b.do(outline.add_room(b.job))
    b.do(rooms.set_room_length(b.job, room, "width", "6000mm"))
    b.do(rooms.set_room_length(b.job, room, "depth", "5000mm"))
    for i, kind in enumerate(("window", "door", "arch", "niche")):
        b.do(add_opening(b.job, room, "BC"[i % 2], kind, 500.0 + 1600.0 * (i // 2)))
    for kind in ("column", "chimney breast"):
        b.do(add_column(b.job, room, "D", kind, 600.0 if kind == "column" else 2200.0))
    b.do(add_soffit(b.job, room, "C", 500.0, 300.0))
    for kind in ("skirting", "cornice", "dado rail", "picture rail"):
        try:
            b.do(add_molding(b.job, room, kind))
        except PlankError:
            continue
    for i, kind in enumerate(("water", "waste", "power", "gas", "vent")):
        try:
            b.do(add_service(b.job, room, "A", kind, 400.0 * (i + 1)))
        except PlankError:
            continue
    b.do(add_guide(b.job, room, "x", "A", 1234.0))
    island = b.do(add_island(b.job, room))
    for key, text in (("length", "2400mm"), ("seating", "300mm"), ("left", "panel"), ("right", "waterfall")):
        try:
            b.do(set_island(b.job, island, key, text))
        except PlankError:
            continue
    face = b.do(runs.add_run(b.job, room, f"{b.job.room(room).islands[0].letter}1", Level.BASE))
    b.do(runtext.type_run(b.job, face, "drawers 600mm, hob rest"))
    run = b.do(runs.add_run(b.job, room, "A", Level.BASE))
    b.do(runtext.type_run(b.job, run, "wardrobe 1200mm, wardrobe 1200mm, blind 1100mm, drawers rest"))
    cells = [c.id for c in b.job.find_run(run)[1].cells]
    b.do(add_sliding(b.job, BayRef(cells[0]), BayRef(cells[1]), 3))


def rounded(value: Any) -> Any:
    """A value with lengths to a thousandth of a millimetre, so that the last bits of a sine say nothing."""
    if isinstance(value, float):
        return round(value, 3) + 0.0
    if isinstance(value, dict):
        return {k: rounded(v) for k, v in value.items()}
    if isinstance(value, list | tuple):
        return [rounded(v) for v in value]
    return value


def told(thing: Any) -> str:
    return json.dumps(rounded(msgspec.to_builtins(thing, enc_hook=str)), sort_keys=True, ensure_ascii=False)


def _drawing(name: str, drawing: Drawing) -> tuple[str, str]:
    frame = told([drawing.title, drawing.x0, drawing.y0, drawing.width, drawing.height])
    return name, "\n".join([frame, *(type(i).__name__ + told(i) for i in drawing.items)])


def _files(name: str, drawing: Drawing, folder: Path) -> Iterator[tuple[str, str]]:
    """A drawing as files of other programs: entities of DXF, all of SVG."""
    import ezdxf

    from tall_plank.drawing.sheets import lay_out

    sheet = lay_out(drawing)
    write_svg(sheet, folder / "d.svg")
    yield f"{name}.svg", (folder / "d.svg").read_text()
    write_dxf(sheet, folder / "d.dxf")
    entities = []
    for e in ezdxf.readfile(folder / "d.dxf").modelspace():
        points = [tuple(p) for p in e.get_points()] if e.dxftype() == "LWPOLYLINE" else []
        said = {
            k: str(v) if not isinstance(v, float) else v
            for k, v in e.dxfattribs().items()
            if k not in ("handle", "owner")
        }
        entities.append(e.dxftype() + json.dumps(rounded([said, points]), sort_keys=True, default=str))
    yield f"{name}.dxf", "\n".join(entities)


def results(w: Workings, name: str, folder: Path) -> Iterator[tuple[str, str]]:
    """(what it is, all its figures) of a job."""
    for room in w.layout.rooms:
        for p in room.placed:
            yield f"{name} placed {room.room.id} {p.number or p.cell}", told(p)
        for kind, things in (("worktop", room.worktops), ("board", room.boards), ("molding", room.all_moldings)):
            for i, thing in enumerate(things):
                yield f"{name} {kind} {room.room.id} {i}", told(thing)
        for hidden in (False, True):
            for shown in ("closed", "open", "off"):
                scene = build_scene(w.job, w.layout, w.made, room.room.id, hidden=hidden, fronts=shown)  # type: ignore[arg-type]
                yield (
                    f"{name} model {room.room.id} {shown} {hidden}",
                    "\n".join(
                        f"{m.color} {told(m.names)} {told(m.points.tolist())} {m.quads.tolist()} {m.lines.tolist()}"
                        for m in scene.meshes
                    ),
                )
        seen = visible_scene(w.job, w.layout, w.made, room.room.id)
        yield f"{name} model {room.room.id} seen", told([[m.color, m.points.tolist()] for m in seen.meshes])
        for title, drawing in room_drawings(w, room.room.id):
            yield _drawing(f"{name} drawing {room.room.id} {title}", drawing)
            yield from _files(f"{name} file {room.room.id} {title}", drawing, folder)
    for placed, unit in w.made.units:
        where = f"{placed.room} {placed.number or placed.cell}"
        yield (
            f"{name} unit {where}",
            told([unit.items, unit.fronts, unit.problems, unit.fitted, unit.forced, unit.drawers]),
        )
        yield _drawing(f"{name} unit drawing {where}", unit_drawing(placed, unit, w.job.stock, w.job.display))
    for item in w.made.parts():
        yield f"{name} part {item.unit} {item.number} {item.part.name}", told(item)
        yield _drawing(f"{name} part drawing {item.number}", part_drawing(item.number, item.part, w.job.display))
    yield f"{name} snags", "\n".join(map(told, w.snags))
    yield f"{name} costs", "\n".join([*map(told, w.costs.lines), told(w.price)])
    for title, make in (*schedules.ALL.items(), ("parts", schedules.parts_rows), ("offer", offer)):
        write_csv(make(w), folder / "t.csv")
        yield f"{name} table {title}", (folder / "t.csv").read_text()
    for number in units_with_parts(w):
        yield f"{name} unit list {number}", told(unit_list(w, number))
    for title, sheets in (
        ("drawings", job_sheets(w, "2026-01-01")), ("shop drawings", job_sheets(w, "2026-01-01", shop=True)),
        ("bars", bar_sheets(w, "2026-01-01")),
    ):  # fmt: skip
        for i, sheet in enumerate(sheets):
            yield f"{name} sheet {title} {i}", told(sheet)
    for table, picture in zip(*work_sheets(w.plan, w.job.cutting, w.job.stock, w.job.display), strict=True):
        yield f"{name} work sheet {table.title}", f"{told(table)}\n{told(picture)}"
    for table, picture in zip(*setup_tables(w.machine_files.programs), strict=True):
        yield f"{name} set-up {table.title}", f"{told(table)}\n{told(picture)}"
    yield f"{name} labels", "\n".join(map(told, labels_of(w)))
    for program in w.machine_files.programs:
        yield f"{name} program {program.name}", program.text


def all_results(folder: Path) -> Iterator[tuple[str, str]]:
    """(what it is, all its figures) of the demo and of the job of every kind; of the stock."""
    inches = set_display(every_kind(), DisplayUnit.INCH).job
    for name, job in (("demo", demo_job()), ("kinds", inches)):
        yield from results(Workings(job), name, folder)
    routed = msgspec.structs.replace(demo_job().cutting, mode="router")
    w = Workings(msgspec.structs.replace(demo_job(), cutting=routed))
    for program in w.machine_files.programs:
        yield f"routed program {program.name}", program.text
    stock = new_job().stock
    for fitting in stock.fittings_of("handle"):
        yield _drawing(f"handle {fitting.code}", handle_drawing(fitting))


def lines(folder: Path) -> list[str]:
    """A line for each result: what it is, how long, a checksum."""
    return [
        f"{what} · {len(text.splitlines())} · {hashlib.sha256(text.encode()).hexdigest()[:12]}"
        for what, text in all_results(folder)
    ]


def main() -> int:
    import tempfile

    with tempfile.TemporaryDirectory() as place:
        if "--whole" in sys.argv:
            out = Path(sys.argv[sys.argv.index("--whole") + 1])
            out.mkdir(parents=True, exist_ok=True)
            for what, text in all_results(Path(place)):
                (out / (what.replace("/", "_") + ".txt")).write_text(text)
            return 0
        found = lines(Path(place))
    if "--write" in sys.argv:
        FILE.write_text("\n".join(found) + "\n")
        return 0
    kept = FILE.read_text().splitlines()
    changed = [*(f"- {x}" for x in kept if x not in set(found)), *(f"+ {x}" for x in found if x not in set(kept))]
    print("\n".join(changed) or "nothing has changed")
    return 1 if changed else 0


if __name__ == "__main__":
    sys.exit(main())
