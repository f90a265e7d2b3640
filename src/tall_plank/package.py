"""Everything of one job in one go: schedules, drawings, cutting plans, offer, model."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from pathlib import Path

from tall_plank.drawing.primitives import Drawing
from tall_plank.drawing.unit import unit_drawing
from tall_plank.files.dxf import write_dxf
from tall_plank.files.gltf import write_gltf
from tall_plank.files.machinefiles import write_part_text
from tall_plank.files.partworker import PartTexts
from tall_plank.files.record import earlier, recorded
from tall_plank.files.svg import write_svg
from tall_plank.job import Kind
from tall_plank.job.cutting import LaidPart
from tall_plank.job.sheetset import SetKind
from tall_plank.measure import PlankError
from tall_plank.measure.filenames import file_name, file_names
from tall_plank.papers import schedules
from tall_plank.papers.about import About
from tall_plank.papers.drawings import StoppedError, bar_sheets, job_sheets, room_drawings, sheet_of
from tall_plank.papers.issuing import with_revisions
from tall_plank.papers.labels import labels_of, write_label_sheets
from tall_plank.papers.machinesheets import hand_tables, setup_tables
from tall_plank.papers.offer import offer
from tall_plank.papers.partlists import unit_list, units_with_parts
from tall_plank.papers.sets import KINDS, set_sheets
from tall_plank.papers.tables import Column, Table
from tall_plank.papers.worksheets import work_sheets
from tall_plank.papers.write_csv import PLAIN, CsvStyle, spreadsheet_style, write_csv
from tall_plank.papers.write_pdf import write_sheets, write_tables
from tall_plank.papers.write_xlsx import write_xlsx
from tall_plank.scene import build_scene
from tall_plank.shop.machine.work import PartWork, sides_of
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
                write_csv(table, path, csv_style(w))
            case ".xlsx":
                write_xlsx([table], path, w.job.display)
            case ".pdf":
                _tables(w, About(w.title, w.job.papers.firm), [table], path)
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
                write_sheets([sheet], path, w.job.name, About(w.title, w.job.papers.firm, date))
            case ".svg":
                write_svg(sheet, path)
            case ".dxf":
                write_dxf(sheet, path)
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
        owners = {
            Kind.CELL.of(p.cell): f"{p.number} {w.job.template(p.template).name.lower()}" for p, _ in w.made.units
        }
        owners |= {Kind.RUN.of(run.id): f"run {i}" for i, run in enumerate(w.layout.room(room_id).room.runs, 1)}
        finishes = {f.color: f.name for f in reversed(w.job.stock.finishes)}
        write_gltf(build_scene(w.job, w.layout, w.made, room_id), path, owners, finishes)
    except OSError as error:
        raise PlankError(
            f"The file cannot be written ({error.strerror}).", path.name, "Choose another folder."
        ) from None


def write_shop_sheets(w: Workings, what: str, path: Path, date: str = "") -> None:
    """Write the work sheets of the saw ("saw"), the set-up sheets ("setup") or the handwork sheets ("handwork") as PDF.

    Raises
    ------
    PlankError where there is none, or the file cannot be written
    """
    files = w.machine_files
    tables: Sequence[Table]
    pictures: Sequence[Drawing | None]
    match what:
        case "saw":
            tables, pictures = work_sheets(w.plan, w.job.cutting, w.job.stock, w.job.display)
        case "setup":
            tables, pictures = setup_tables((*files.programs, *files.second))
        case _:
            tables, pictures = hand_tables({i.number: i.part for i in w.made.parts()}, files.left, w.job.display)
    if not tables:
        raise PlankError("There is nothing to be put on these sheets.", path.name, "Make some units first.")
    try:
        about = About(w.title, w.job.papers.firm, date)
        _tables(w, about, tables, path, pictures, upright=what == "saw")
    except OSError as error:
        raise PlankError(
            f"The file cannot be written ({error.strerror}).", path.name, "Choose another folder."
        ) from None


def write_package(w: Workings, folder: Path, progress: Progress = lambda name: True, date: str = "") -> list[Path]:
    """Write every paper and list of a job into a folder. What an earlier package wrote there and this one does not,
    such as programs of parts that are no more, is taken away, unless somebody has changed it.

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
    old = earlier(folder, w.title)
    sides = part_sides(w)
    with PartTexts(side for _, side in sides) as texts:
        steps = [(placed(name), write) for name, write in _steps(w, date, progress)]
        steps += [(name, lambda path, s=side: write_part_text(s, texts.text(s), path)) for name, side in sides]  # type: ignore[misc]
        names = [name for name, _ in steps]
        about = About(w.title, w.job.papers.firm, date)
        steps.insert(0, ("contents.pdf", lambda path: _tables(w, about, [contents(names)], path)))
        for name, write in steps:
            if not progress(name):
                break
            try:
                (folder / name).parent.mkdir(parents=True, exist_ok=True)
                write(folder / name)
            except StoppedError:
                break
            except OSError as error:
                raise PlankError(
                    f"The file cannot be written ({error.strerror}).", name, "Choose another folder."
                ) from None
            done.append(folder / name)
    recorded(folder, w.title, done, old, whole=len(done) == len(steps))
    return done


Step = tuple[str, Callable[[Path], object]]


def _tables(
    w: Workings,
    about: About,
    tables: Sequence[Table],
    path: Path,
    pictures: Sequence[Drawing | None] = (),
    *,
    upright: bool = False,
) -> None:
    """Tables of a job as PDF, on its paper, with its foot."""
    job = w.job
    write_tables(
        tables, path, job.name, job.display, head_of(w), pictures, upright=upright, about=about, paper=job.papers.lists
    )


def csv_style(w: Workings) -> CsvStyle:
    """How the job's lists are written as data."""
    return spreadsheet_style() if w.job.papers.csv == "spreadsheet" else PLAIN


def _steps(w: Workings, date: str, progress: Progress) -> Iterator[Step]:
    """Every file of the package by its name, with what writes it; long ones tell how far they are."""
    about = About(w.title, w.job.papers.firm, date)
    style = csv_style(w)
    tables = {name: make(w) for name, make in schedules.ALL.items()}
    # Handwork is printed part by part, with its drawings.
    printed = [table for name, table in tables.items() if name != "handwork"]
    saw = work_sheets(w.plan, w.job.cutting, w.job.stock, w.job.display)
    yield "estimate.pdf", lambda path: _tables(w, about, [offer(w)], path)
    yield "drawings.pdf", lambda path: write_sheets(job_sheets(w, date), path, w.job.name, about)
    yield "shop-drawings.pdf", lambda path: write_sheets(job_sheets(w, date, shop=True), path, w.job.name, about)
    for kind in KINDS:
        yield f"{kind}-set.pdf", lambda path, k=kind: _set(w, k, date, path, about, progress)  # type: ignore[misc]
    numbers = units_with_parts(w)
    drawn = {p.number: unit_drawing(p, u, w.job.stock, w.job.display) for p, u in w.made.units}
    lists, pictures = [unit_list(w, n) for n in numbers], [drawn.get(n) for n in numbers]
    yield "parts-by-unit.pdf", lambda path: _tables(w, about, lists, path, pictures)
    yield "labels.pdf", lambda path: write_label_sheets(labels_of(w), path, w.job.papers.labels, about=about)
    yield "cutting-plans.pdf", lambda path: _tables(w, about, saw[0], path, saw[1], upright=True)
    if w.bars.bars:
        yield "bars.pdf", lambda path: write_sheets(bar_sheets(w, date), path, w.job.name, about)
    files = w.machine_files
    sheets, lying = setup_tables((*files.programs, *files.second))
    if sheets:
        yield "setup.pdf", lambda path: _tables(w, about, sheets, path, lying)
    by_hand, shown = hand_tables({i.number: i.part for i in w.made.parts()}, files.left, w.job.display)
    if by_hand:
        yield "handwork.pdf", lambda path: _tables(w, about, by_hand, path, shown)
    yield "schedules.pdf", lambda path: _tables(w, about, printed, path)
    yield "schedules.xlsx", lambda path: write_xlsx(tables.values(), path, w.job.display)
    for name, table in tables.items():
        yield f"{name}.csv", lambda path, t=table: write_csv(t, path, style)  # type: ignore[misc]
    yield "parts.csv", lambda path: write_csv(schedules.parts_rows(w), path, style)
    yield "parts-cut.csv", lambda path: write_csv(schedules.parts_rows(w, cut=True), path, style)
    for number, room in enumerate(w.layout.rooms, 1):
        for name, drawing in room_drawings(w, room.room.id):
            plain = f"room{number}-{file_name(name)}"
            for ending in ("dxf", "svg"):
                yield f"{plain}.{ending}", lambda path, d=drawing: write_drawing(w, d, path, date)  # type: ignore[misc]
        yield f"room{number}-model.glb", lambda path, r=room.room.id: write_model(w, r, path)  # type: ignore[misc]
    yield from _machine_steps(w)


def _set(w: Workings, kind: SetKind, date: str, path: Path, about: About, progress: Progress) -> None:
    """A set of drawings; what is drawn is told, and may stop it."""
    sheets = set_sheets(w, kind, date, lambda name: progress(f"{path.name}: {name}"))
    write_sheets(with_revisions(w.job, kind, sheets), path, w.job.name, about)


FOLDERS = (
    ("client/", ("estimate.pdf", "drawings.pdf", "client-set.pdf")),
    ("site/", ("site-set.pdf", "installer-set.pdf")),
    ("shop/", ("shop-drawings.pdf", "shop-set.pdf", "parts-by-unit.pdf", "labels.pdf")),
    (
        "saw/",
        ("cutting-plans.pdf", "bars.pdf", "parts-cut.csv", "boards.csv", "saw-cuts.csv", "cut-list.csv", "bars.csv"),
    ),
    ("router/", ("setup.pdf", "handwork.pdf", "handwork.csv")),
)
"""Folder of the package -> its files; further ones go by their ending."""

ENDINGS = ((".glb", "models/"), (".dxf", "drawings/"), (".svg", "drawings/"), ("", "lists/"))


def placed(name: str) -> str:
    """A file of the package with its folder: for the client, the shop, the saw, the router; else by its kind."""
    if "/" in name:
        return name
    own = next((folder for folder, names in FOLDERS if name in names), "")
    return (own or next(folder for ending, folder in ENDINGS if name.endswith(ending))) + name


WHAT = (
    ("labels.pdf", "a label for every part, in the order of the boards"),
    ("cutting-plans.pdf", "every board with its parts and offcuts"),
    ("client-set.pdf", "what the client signs: plans, elevations, finishes, worktops"),
    ("site-set.pdf", "setting out, services, levels and what hangs, with room for what was measured"),
    ("installer-set.pdf", "numbered plans, heights, the order of units"),
    ("shop-set.pdf", "plans, elevations, sections, units, assembly, every part with all that is machined into it"),
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
    ("router/programs/", "programs for the machine, each with the outlines that it leaves whole"),
    ("saw/boards/", "every board with its parts, a layer for each operation and depth"),
    ("router/parts/", "every part, a file for each face that is worked, a layer for each operation and depth"),
    ("model.glb", "a room's model"),
    (".dxf", "a drawing for other programs"),
    (".svg", "a drawing as a picture"),
    (".csv", "a schedule as data"),
)
"""What each file of the package is, by a piece of its name; the first that fits."""


MANY = ("router/programs/", "router/parts/", "saw/boards/")
"""Folders that are told as one."""


def contents(names: list[str]) -> Table:
    """The contents page of a package, each file with a link to it: programs, parts and boards by their folder, the rest
    file by file, folder by folder."""
    rows: list[tuple[str | int, ...]] = []
    single = [n for n in names if not n.startswith(MANY)]
    for folder in dict.fromkeys(n.rsplit("/", 1)[0] + "/" for n in single):
        for name in (n for n in single if n.rsplit("/", 1)[0] + "/" == folder):
            rows.append((name, next((what for key, what in WHAT if key in name), ""), 1))
        for many in (m for m in MANY if m.startswith(folder)):
            count = sum(n.startswith(many) for n in names)
            if count:
                rows.append((many, next(what for key, what in WHAT if key == many), count))
    columns = (
        Column("file", "File", wide=1.6),
        Column("what", "What it is", wide=3.2),
        Column("count", "Files", "count"),
    )
    return Table("Contents", f"{len(names)} files", columns, tuple(rows), links=frozenset(str(r[0]) for r in rows))


def _machine_steps(w: Workings) -> list[tuple[str, Callable[[Path], None]]]:
    """Programs with their outlines and every board as DXF, into folders of their own."""
    from tall_plank.files.machinefiles import write_board_dxf, write_program

    files = w.machine_files
    steps: list[tuple[str, Callable[[Path], None]]] = []
    for program in (*files.programs, *files.second):
        steps.append((f"router/programs/{program.name}.ngc", lambda path, p=program: write_program(p, path)))  # type: ignore[misc]
    parts = {i.number: i.part for i in w.made.parts()}
    for number, cut in enumerate(w.plan.boards, 1):
        name = f"saw/boards/board-{number:02d}.dxf"
        steps.append((name, lambda path, b=cut: write_board_dxf(parts, b, path)))  # type: ignore[misc]
    return steps


def part_sides(w: Workings) -> list[tuple[str, PartWork]]:
    """Every face of every part that is worked, by the name of its file."""
    found = []
    names = file_names(i.number for i in w.made.parts())
    for item in w.made.parts():
        board = w.job.stock.board_by_code(item.part.board)
        if board is not None and not board.cut_to_size:
            alone = LaidPart(item.number, 0.0, 0.0, item.part.cut_length, item.part.cut_width, False)
            found += [
                (f"router/parts/{names[item.number]}-{side.up}.dxf", side)
                for side in sides_of(item.number, item.part, alone)
            ]
    return found
