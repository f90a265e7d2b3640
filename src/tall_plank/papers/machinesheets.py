"""Sheets for who runs the machine: how each program is set up; what is left for edges and the hand, part by part."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from tall_plank.drawing.part import part_drawing
from tall_plank.drawing.primitives import Drawing
from tall_plank.making import Part, numbers_told
from tall_plank.measure import DisplayUnit
from tall_plank.papers.setupdrawing import setup_drawing
from tall_plank.papers.tables import Column, Table, Value
from tall_plank.shop.cutlist import natural
from tall_plank.shop.machine.job import REASONS
from tall_plank.shop.machine.programs import Program
from tall_plank.shop.machine.work import Left

STOPS = "drawn as seen from in front of the machine"

PLACES = (
    "Places on the finished part, from the corner where L1 and W1 meet; in edges, along the edge and up from face B."
)


def setup_tables(programs: Sequence[Program]) -> tuple[list[Table], list[Drawing]]:
    """A page for each program: how the part or board lies, which tools, how long."""
    columns = (Column("what", "Set-up", wide=0.8), Column("how", "", wide=3.2))
    tables, pictures = [], []
    for program in programs:
        setup = program.setup
        if setup is None:
            continue
        long, wide, thick = setup.size
        rows: list[tuple[Value, ...]] = [
            ("Job", setup.job or "–"),
            ("Work", setup.what),
            ("Material", setup.material),
            ("Machine", setup.machine.name),
            ("Size", f"{long:.1f} × {wide:.1f} × {thick:g} mm, {setup.banding}"),
            ("Up", setup.face),
            ("At X0", setup.at_x0),
            ("At Y0", setup.at_y0),
        ]
        rows += [("Before", setup.before)] if setup.before else []
        rows += [("After", setup.after)] if setup.after else []
        rows += [
            (f"T{t.number}", f"{t.name}, cuts {t.length:g} mm deep, {t.speed:g} turns a minute") for t in setup.tools
        ]
        rows.append(("Time", f"about {setup.seconds / 60:.1f} min"))
        tables.append(Table(f"{program.name}.ngc", STOPS, columns, tuple(rows)))
        pictures.append(setup_drawing(setup))
    return tables, pictures


def hand_tables(
    parts: Mapping[str, Part], left: Sequence[Left], display: DisplayUnit
) -> tuple[list[Table], list[Drawing]]:
    """A page for each part with work that no program does, parts alike on one: its drawing, and every piece of work
    with its place."""
    by_part: dict[str, list[tuple[str, str, str]]] = {}
    for x in left:
        by_part.setdefault(x.part, []).append((x.face, x.what, REASONS.get(x.why, x.why)))
    groups: dict[tuple[object, ...], list[str]] = {}
    for number, rows in by_part.items():
        part = parts.get(number)
        if part is not None:
            key = (part.board, part.length, part.width, part.outline, part.operations, tuple(rows))
            groups.setdefault(key, []).append(number)
    columns = (
        Column("face", "Face", wide=0.5),
        Column("what", "Work, mm", wide=3.0),
        Column("why", "Why by hand", wide=1.5),
    )
    tables, pictures = [], []
    for numbers in sorted(groups.values(), key=lambda found: natural(found[0])):
        part = parts[numbers[0]]
        title = f"{numbers[0]} {part.name}" + (f" and {len(numbers) - 1} more" if len(numbers) > 1 else "")
        work: tuple[tuple[Value, ...], ...] = tuple(by_part[numbers[0]])
        told = f"{numbers_told(numbers)} · {part.material}"
        tables.append(Table(title, told, columns, work, note=PLACES))
        pictures.append(part_drawing(numbers[0], part, display, legend=False))
    return tables, pictures
