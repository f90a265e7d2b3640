"""Everything of one job in one go: schedules, drawings, cutting plans, offer, model."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.unit import unit_drawing
from tall_plank.files.dxf import write_dxf
from tall_plank.files.gltf import write_gltf
from tall_plank.files.svg import write_svg
from tall_plank.measure import PlankError
from tall_plank.papers import schedules
from tall_plank.papers.drawings import bar_sheets, job_sheets, room_drawings, sheet_of
from tall_plank.papers.labels import labels_of, write_label_sheets
from tall_plank.papers.machinesheets import hand_tables, setup_tables
from tall_plank.papers.offer import offer
from tall_plank.papers.partlists import unit_list, units_with_parts
from tall_plank.papers.tables import Column, Table
from tall_plank.papers.worksheets import work_sheets
from tall_plank.papers.write_csv import write_csv
from tall_plank.papers.write_pdf import write_sheets, write_tables
from tall_plank.papers.write_xlsx import write_xlsx
from tall_plank.scene import build_scene
from tall_plank.workings import Workings

Progress = Callable[[str], bool]
"""Told the name of each file; returning False stops the work."""


def head_of(w: Workings) -> str:
    """The line at the foot of every page."""
    return " · ".join(t for t in (w.job.name, w.job.number, w.job.client) if t)


def write_table(w: Workings, table: Table, path: Path) -> None:
    """Write one schedule by the ending of its path: .csv, .xlsx or .pdf.

    Raises
    ------
    PlankError for another ending, or where the file cannot be written
    """
    try:
        match path.suffix.lower():
            case ".csv":
                write_csv(table, path)
            case ".xlsx":
                write_xlsx([table], path, w.job.display)
            case ".pdf":
                write_tables([table], path, w.job.name, w.job.display, head_of(w))
            case other:
                raise PlankError(f"“{other}” is no kind of schedule.", path.name, "Use .csv, .xlsx or .pdf.")
    except OSError as error:
        raise PlankError(
            f"The file cannot be written ({error.strerror}).", path.name, "Choose another folder."
        ) from None


def write_drawing(w: Workings, drawing: Drawing, path: Path, date: str = "", *, shop: bool = False) -> None:
    """Write one drawing by the ending of its path: .pdf, .svg or .dxf; one for the shop says so on its sheet.

    Raises
    ------
    PlankError for another ending, or where the file cannot be written
    """
    sheet = sheet_of(w, drawing, 1, 1, date, shop=shop)
    try:
        match path.suffix.lower():
            case ".pdf":
                write_sheets([sheet], path, w.job.name)
            case ".svg":
                write_svg(sheet, path)
            case ".dxf":
                write_dxf(drawing, path, sheet.scale)
            case other:
                raise PlankError(f"“{other}” is no kind of drawing.", path.name, "Use .pdf, .svg or .dxf.")
    except OSError as error:
        raise PlankError(
            f"The file cannot be written ({error.strerror}).", path.name, "Choose another folder."
        ) from None


def write_model(w: Workings, room_id: str, path: Path) -> None:
    """Write a room's model as binary glTF.

    Raises
    ------
    PlankError “The file cannot be written (…).”
    """
    try:
        write_gltf(build_scene(w.job, w.layout, w.made, room_id), path)
    except OSError as error:
        raise PlankError(
            f"The file cannot be written ({error.strerror}).", path.name, "Choose another folder."
        ) from None


def write_package(w: Workings, folder: Path, progress: Progress = lambda name: True, date: str = "") -> list[Path]:
    """Write every paper and list of a job into a folder.

    Returns
    -------
    the files written; where progress stopped the work, those written so far

    Raises
    ------
    PlankError “The folder cannot be made (…).”, “The file cannot be written (…).”
    """
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise PlankError(f"The folder cannot be made ({error.strerror}).", str(folder), "Choose another.") from None
    done: list[Path] = []
    saw_sheets = work_sheets(w.plan, w.job.cutting, w.job.stock, w.job.display)
    steps: list[tuple[str, Callable[[Path], None]]] = []
    tables = {name: make(w) for name, make in schedules.ALL.items()}
    # Handwork is printed part by part, with its drawings.
    printed = [table for name, table in tables.items() if name != "handwork"]
    for name, table in tables.items():
        steps.append((f"{name}.csv", lambda path, t=table: write_csv(t, path)))  # type: ignore[misc]
    steps += [
        ("parts.csv", lambda path: write_csv(schedules.parts_rows(w), path)),
        ("parts-cut.csv", lambda path: write_csv(schedules.parts_rows(w, cut=True), path)),
        ("schedules.xlsx", lambda path: write_xlsx(tables.values(), path, w.job.display)),
        ("schedules.pdf", lambda path: write_tables(printed, path, w.job.name, w.job.display, head_of(w))),
        ("estimate.pdf", lambda path: write_tables([offer(w)], path, w.job.name, w.job.display, head_of(w))),
        ("drawings.pdf", lambda path: write_sheets(job_sheets(w, date), path, w.job.name)),
        ("shop-drawings.pdf", lambda path: write_sheets(job_sheets(w, date, shop=True), path, w.job.name)),
        (
            "cutting-plans.pdf",
            lambda path: write_tables(
                saw_sheets[0], path, w.job.name, w.job.display, head_of(w), saw_sheets[1], upright=True
            ),
        ),
    ]
    numbers = units_with_parts(w)
    drawn = {p.number: unit_drawing(p, u, w.job.stock, w.job.display) for p, u in w.made.units}
    pictures = [drawn.get(n) for n in numbers]
    steps.append(
        (
            "parts-by-unit.pdf",
            lambda path: write_tables(
                [unit_list(w, n) for n in numbers], path, w.job.name, w.job.display, head_of(w), pictures
            ),
        )
    )
    if w.bars.bars:
        steps.append(("bars.pdf", lambda path: write_sheets(bar_sheets(w, date), path, w.job.name)))
    for number, room in enumerate(w.layout.rooms, 1):
        prefix = f"room{number}-"
        for name, drawing in room_drawings(w, room.room.id):
            steps.append((f"{prefix}{name}.dxf", lambda path, d=drawing: write_drawing(w, d, path, date)))  # type: ignore[misc]
            steps.append((f"{prefix}{name}.svg", lambda path, d=drawing: write_drawing(w, d, path, date)))  # type: ignore[misc]
        steps.append((f"{prefix}model.glb", lambda path, r=room.room.id: write_model(w, r, path)))  # type: ignore[misc]
    files = w.machine_files
    for name, (sheets, drawn_as) in (
        ("setup.pdf", setup_tables((*files.programs, *files.second))),
        ("handwork.pdf", hand_tables({i.number: i.part for i in w.made.parts()}, files.left, w.job.display)),
    ):
        if sheets:
            steps.append(
                (
                    name,
                    lambda path, t=sheets, d=drawn_as: write_tables(  # type: ignore[misc]
                        t, path, w.job.name, w.job.display, head_of(w), d
                    ),
                )
            )
    steps.append(("labels.pdf", lambda path: write_label_sheets(labels_of(w), path)))
    steps += _machine_steps(w)
    names = [name for name, _ in steps]
    steps.insert(
        0, ("contents.pdf", lambda path: write_tables([contents(names)], path, w.job.name, w.job.display, head_of(w)))
    )
    for name, write in steps:
        if not progress(name):
            break
        try:
            (folder / name).parent.mkdir(exist_ok=True)
            write(folder / name)
        except OSError as error:
            raise PlankError(
                f"The file cannot be written ({error.strerror}).", name, "Choose another folder."
            ) from None
        done.append(folder / name)
    return done


WHAT = (
    ("labels.pdf", "a label for every part, in the order of the boards"),
    ("cutting-plans.pdf", "every board with its parts and offcuts"),
    ("parts-by-unit.pdf", "the parts of each unit under its picture"),
    ("bars.pdf", "every bar with the pieces cut from it"),
    ("setup.pdf", "how each program is set up: the part as it lies, tools, time"),
    ("handwork.pdf", "what no program does, part by part, with places and drawings"),
    ("drawings.pdf", "plans and elevations for the client"),
    (
        "shop-drawings.pdf",
        "the same with edging, hidden boards and joints; worktops as boards",
    ),
    ("estimate.pdf", "the client's paper"),
    ("schedules.pdf", "all schedules to print"),
    ("schedules.xlsx", "all schedules as a workbook"),
    ("parts-cut.csv", "every part on a line, in cut sizes: for the saw and for nest"),
    ("parts.csv", "every part on a line, in finished sizes"),
    ("machine/", "programs for the machine, each with the outlines that it leaves whole"),
    ("boards/", "every board with its parts, a layer for each operation and depth"),
    ("parts/", "every part, a file for each face that is worked, a layer for each operation and depth"),
    ("model.glb", "a room's model"),
    (".dxf", "a drawing for other programs"),
    (".svg", "a drawing as a picture"),
    (".csv", "a schedule as data"),
)
"""What each file of the package is, by a piece of its name; the first that fits."""


def contents(names: list[str]) -> Table:
    """The contents page of a package: programs and parts by their folder, the rest file by file."""
    rows: list[tuple[str | int, ...]] = []
    for folder in ("machine/", "boards/", "parts/"):
        count = sum(n.startswith(folder) for n in names)
        if count:
            rows.append((folder, next(what for key, what in WHAT if key == folder), count))
    for name in names:
        if "/" not in name:
            rows.append((name, next((what for key, what in WHAT if key in name), ""), 1))
    columns = (
        Column("file", "File", wide=1.6),
        Column("what", "What it is", wide=3.2),
        Column("count", "Files", "count"),
    )
    return Table("Contents", f"{len(names)} files", columns, tuple(rows))


def _machine_steps(w: Workings) -> list[tuple[str, Callable[[Path], None]]]:
    """Programs with their outlines, every board and every part as DXF, into folders of their own."""
    from tall_plank.files.machinefiles import write_board_dxf, write_part_dxf, write_program
    from tall_plank.job.cutting import LaidPart
    from tall_plank.shop.machine.work import sides_of

    files = w.machine_files
    steps: list[tuple[str, Callable[[Path], None]]] = []
    for program in (*files.programs, *files.second):
        steps.append((f"machine/{program.name}.ngc", lambda path, p=program: write_program(p, path)))  # type: ignore[misc]
    parts = {i.number: i.part for i in w.made.parts()}
    for number, cut in enumerate(w.plan.boards, 1):
        name = f"boards/board-{number:02d}.dxf"
        steps.append((name, lambda path, b=cut: write_board_dxf(parts, b, path)))  # type: ignore[misc]
    for item in w.made.parts():
        board = w.job.stock.board_by_code(item.part.board)
        if board is not None and not board.cut_to_size:
            alone = LaidPart(item.number, 0.0, 0.0, item.part.cut_length, item.part.cut_width, False)
            for side in sides_of(item.number, item.part, alone):
                name = f"parts/{item.number}-{side.up}.dxf"
                steps.append((name, lambda path, s=side: write_part_dxf([s], path)))  # type: ignore[misc]
    return steps
