"""The headless verbs, and the door to the window. Exit codes: 0 fine, 1 something in the job is wrong, 2 wrong use, 3 a
fault of the program itself: its trace is in the log."""

from __future__ import annotations

import json
import logging
import os
import sys
from collections.abc import Callable
from decimal import Decimal
from pathlib import Path
from typing import Any

import click

from tall_plank import __version__
from tall_plank.measure import DisplayUnit, PlankError, format_length, parse_length
from tall_plank.measure.units import FACTORS
from tall_plank.verbs.common import Number, fail, says_errors
from tall_plank.verbs.panels import panels

log = logging.getLogger("tall_plank")

VERBS_FIRST = "tall-plank [FILE] opens the window; the verbs below work without it."


SEED = click.IntRange(0, 2**31 - 1)


class FileOrVerb(click.Group):
    """A first word that is no verb is a file to open."""

    def resolve_command(self, ctx: click.Context, args: list[str]) -> Any:
        if args and args[0] not in self.commands and (args[0].endswith(".plank") or Path(args[0]).exists()):
            return "open", self.commands["open"], args
        return super().resolve_command(ctx, args)


@click.group(cls=FileOrVerb, invoke_without_command=True, help=VERBS_FIRST)
@click.version_option(__version__, prog_name="Tall Plank")
@click.pass_context
def main(ctx: click.Context) -> None:
    if ctx.invoked_subcommand is None:
        _window(None)


def _window(path: Path | None, *, demo: bool = False) -> None:
    shown = any(os.environ.get(key) for key in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"))
    if sys.platform.startswith("linux") and not shown:
        fail(PlankError("There is no display for a window.", "", "The verbs work without one: tall-plank --help."))
    from tall_plank.desk.app.application import run

    sys.exit(run(path, demo=demo))


def load(path: Path) -> Any:
    """The workings of a job file, on the shop's machines."""
    from tall_plank.files.machines import shop_machines
    from tall_plank.files.plankfile import read_plank
    from tall_plank.files.userdata import default_folders
    from tall_plank.workings import Workings

    machines, faults = shop_machines(default_folders())
    for fault in faults:
        click.echo(fault, err=True)
    return Workings(read_plank(path), machines)


FILE = click.argument("file", type=click.Path(path_type=Path))
OUT = click.option("--out", type=click.Path(path_type=Path), required=True, help="File to write.")


@main.command("open", hidden=True)
@FILE
def open_file(file: Path) -> None:
    _window(file)


@main.command()
@click.option("--out", type=click.Path(path_type=Path), help="Only write the demo job.")
@click.option("--pictures", type=click.Path(path_type=Path), help="Write the main views as PNG and end.")
@says_errors
def demo(out: Path | None, pictures: Path | None) -> None:
    """Open the window with the demo job."""
    from tall_plank.demo import demo_job

    if out is not None:
        from tall_plank.files.plankfile import write_plank

        write_plank(demo_job(), out)
        click.echo(str(out))
    elif pictures is not None:
        from tall_plank.desk.app.shots import take_shots

        for path in take_shots(pictures):
            click.echo(str(path))
    else:
        _window(None, demo=True)


@main.command()
@click.argument("expression")
@click.option("--to", "unit", type=click.Choice(["mm", "cm", "in", "ft"]), default="mm")
@says_errors
def measure(expression: str, unit: str) -> None:
    """Evaluate a length; bare numbers are mm."""
    length = parse_length(expression)
    click.echo(f"{length.mm:.6f}".rstrip("0").rstrip(".") + " mm")
    if unit != "mm":
        click.echo(f"{length.mm / FACTORS[unit]:.6f}".rstrip("0").rstrip(".") + f" {unit}")
    if unit == "in":
        click.echo(format_length(length.mm, DisplayUnit.FRACTION_16, mark=True))


@main.command()
@click.argument("files", nargs=-1, required=True, type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True)
@says_errors
def tally(files: tuple[Path, ...], as_json: bool) -> None:
    """The running figures of one or several jobs."""
    jobs = [load(path).tally.as_dict() for path in files]
    if len(jobs) == 1:
        document: dict[str, Any] = jobs[0]
    else:
        keys = ("units", "parts", "boards", "edging_m", "fittings", "snags")
        total: dict[str, Any] = {k: sum(j[k] for j in jobs) for k in keys}
        currencies = {j["currency"] for j in jobs}
        if len(currencies) == 1:
            total |= {"price": str(sum(Decimal(j["price"]) for j in jobs)), "currency": currencies.pop()}
        document = {"jobs": jobs, "total": total}
    if as_json:
        click.echo(json.dumps(document))
        return
    for path, job in zip(files, jobs, strict=True):
        click.echo(
            f"{path.name}: {job['units']} units, {job['parts']} parts, {job['boards']} boards, "
            f"{job['edging_m']:.1f} m edging, {job['fittings']} fittings, "
            f"{job['price']} {job['currency']} before tax, {job['snags']} snags"
        )


@main.command()
@FILE
@OUT
@click.option("--cut", is_flag=True, help="Cut sizes instead of finished ones.")
@says_errors
def parts(file: Path, out: Path, cut: bool) -> None:
    """Every part on a line: as CSV, XLSX or PDF, by the ending."""
    from tall_plank.papers.schedules import parts_rows

    _listed(out, file, lambda w: parts_rows(w, cut=cut))


@main.command()
@FILE
@OUT
@says_errors
def hardware(file: Path, out: Path) -> None:
    """The hardware schedule: as CSV, XLSX or PDF, by the ending."""
    from tall_plank.papers.schedules import hardware_csv

    _listed(out, file, hardware_csv)


main.add_command(panels)


@main.command()
@FILE
@click.option("--json", "as_json", is_flag=True)
@says_errors
def snags(file: Path, as_json: bool) -> None:
    """What is wrong or forgotten."""
    import msgspec

    found = load(file).snags
    if as_json:
        click.echo(json.dumps([msgspec.to_builtins(s) for s in found]))
    for snag in () if as_json else found:
        click.echo(f"{snag.where.label}: {snag.what} {snag.remedy}")
    if any(s.weight == "wrong" for s in found):
        click.echo("The job has snags that stop the shop.", err=True)
        sys.exit(1)


@main.command()
@FILE
@OUT
@says_errors
def offer(file: Path, out: Path) -> None:
    """The client's paper as PDF."""
    from tall_plank.package import write_table
    from tall_plank.papers.offer import offer as make

    w = load(file)
    write_table(w, make(w), out)
    click.echo(str(out))


@main.command()
@FILE
@click.option("--dir", "folder", type=click.Path(path_type=Path), required=True, help="Folder to write into.")
@says_errors
def package(file: Path, folder: Path) -> None:
    """Every paper and list of the job."""
    from tall_plank.files.record import of_others
    from tall_plank.package import write_package

    w = load(file)
    for path in write_package(w, folder):
        click.echo(str(path))
    if others := of_others(folder, w.title):
        click.echo(others, err=True)


EXISTING = click.Path(path_type=Path)


@main.command()
@click.argument("files", nargs=-1, type=EXISTING)
@click.option("--parts", "parts_file", type=EXISTING, help="Parts as CSV, instead of a job.")
@click.option("--boards", "boards_file", type=EXISTING, help="Boards as CSV, instead of the job's stock.")
@click.option("--kerf", type=Number(0, 100), help="Between parts: 3.2 for the saw, as wide as the mill for the router.")
@click.option("--trim", type=Number(0, 1000), default=10.0, show_default=True)
@click.option("--mode", type=click.Choice(["saw", "router"]), default="saw", show_default=True)
@click.option("--turns", type=click.IntRange(0, 9), default=0, show_default=True, help="0: as many as it takes.")
@click.option("--first-cut", type=click.Choice(["either", "along", "across"]), default="either", show_default=True)
@click.option("--effort", type=click.IntRange(1, 9), default=5, show_default=True)
@click.option("--seconds", type=Number(0, 3600), default=10.0, show_default=True)
@click.option("--seed", type=SEED, default=1, show_default=True)
@OUT
@says_errors
def nest(files: tuple[Path, ...], parts_file: Path | None, boards_file: Path | None, out: Path, **rules: Any) -> None:
    """Cutting plans of one job, of several together, or of any lists of parts and boards, as JSON."""
    import msgspec

    from tall_plank.files import cutcsv
    from tall_plank.shop.machine.model import shipped_machine
    from tall_plank.shop.nesting import NestRules, Request
    from tall_plank.shop.nesting.job import joined, request_of
    from tall_plank.shop.nesting.nest import nest as make

    kerf = rules.pop("kerf")
    asked = NestRules(**rules, kerf=3.2 if kerf is None else kerf)
    faults: tuple[str, ...] = ()
    request: Request | None = None
    if files:
        named = []
        jobs = [load(path) for path in files]
        if kerf is None and asked.mode == "router":
            routed = [_routed(w) for w in jobs]
            asked = msgspec.structs.replace(asked, kerf=max(w.kerf for w in routed))
        for w in jobs:
            own = request_of(w.made, w.job.stock, w.job.price_book(), asked, matched=w.job.cutting.matched)
            named.append((f"{w.job.number} {w.job.name}".strip(), own))
        request = named[0][1] if len(named) == 1 else joined(named)
    elif parts_file is None or boards_file is None:
        raise click.UsageError("Give a job file, or both --parts and --boards.")
    if parts_file is not None:
        found, wrong = cutcsv.read_parts(parts_file)
        said, edged = cutcsv.sizes_said(parts_file)
        click.echo(f"{parts_file.name}: {said or 'not said whether cut or finished'} sizes")
        if edged and said != "cut":
            click.echo(
                f"{parts_file.name}: {edged} rows have edging, which is not taken off their sizes. Lists for the saw "
                "hold cut sizes: write them with --cut.",
                err=True,
            )
        request = Request(found, request.boards if request else (), asked)
        faults += wrong
    if boards_file is not None:
        boards, wrong = cutcsv.read_boards(boards_file)
        request = Request(request.parts if request else (), boards, asked)
        faults += wrong
    if kerf is None and asked.mode == "router" and not files:
        mill = shipped_machine().outliner(0.0)
        request = msgspec.structs.replace(
            request or Request((), (), asked),
            rules=msgspec.structs.replace(asked, kerf=mill.diameter if mill else 12.0),
        )
    assert request is not None
    plan = make(request)
    cutcsv.write_document(cutcsv.nest_document(plan), out)
    click.echo(f"{out}: {len(plan.boards)} boards, yield {plan.used * 100:.1f} %, no plan needs less than {plan.bound}")
    _end_with([*faults, *(f"{u.part} ({u.qty}): {u.why}" for u in plan.unplaced)])


@main.command()
@click.argument("file", required=False, type=EXISTING)
@click.option("--pieces", "pieces_file", type=EXISTING, help="Pieces as CSV, instead of a job.")
@click.option("--stock", "stock_file", type=EXISTING, help="Bars as CSV, instead of the job's stock.")
@click.option("--kerf", type=Number(0, 100), default=3.0, show_default=True)
@click.option("--trim", type=Number(0, 1000), default=0.0, show_default=True)
@OUT
@says_errors
def bars(
    file: Path | None, pieces_file: Path | None, stock_file: Path | None, kerf: float, trim: float, out: Path
) -> None:
    """Lengths of a job, or of any lists of pieces and bars, cut from bars; as JSON."""
    from tall_plank.files import cutcsv
    from tall_plank.shop.bars import BarPiece, BarStock, cut_bars
    from tall_plank.shop.lengths import bar_plan, bars_of, pieces_of

    faults: tuple[str, ...] = ()
    pieces: tuple[BarPiece, ...] = ()
    stock: tuple[BarStock, ...] = ()
    if file is not None:
        w = load(file)
        pieces, stock = pieces_of(w.made, w.job.stock), bars_of(w.job.stock, w.job.price_book())
    elif pieces_file is None or stock_file is None:
        raise click.UsageError("Give a job file, or both --pieces and --stock.")
    if pieces_file is not None:
        pieces, wrong = cutcsv.read_pieces(pieces_file)
        faults += wrong
    if stock_file is not None:
        stock, wrong = cutcsv.read_bar_stock(stock_file)
        faults += wrong
    if file is not None and pieces_file is None and stock_file is None:
        plan = bar_plan(w.made, w.job.stock, w.job.price_book(), w.job.cutting, kerf, trim)
    else:
        plan = cut_bars(pieces, stock, kerf, trim)
    cutcsv.write_document(cutcsv.bars_document(plan), out)
    click.echo(f"{out}: {len(plan.bars)} bars, {'proven best' if plan.proven else 'not proven best'}")
    _end_with([*faults, *(f"{u.piece} ({u.qty}): {u.why}" for u in plan.unplaced)])


@main.command("check-program")
@click.argument("file", type=EXISTING)
@click.option("--parts", "parts_file", type=EXISTING, help="Outlines that have to stay whole, as JSON.")
@click.option("--machine", "machine_file", type=EXISTING, help="The machine as TOML; the shop's first one if left out.")
@click.option("--on", "machine_name", default="", help="Name of one of the shop's machines.")
@click.option("--board", required=True, help="Length, width, thickness of the board: 2800,2070,19.")
@click.option("--json", "as_json", is_flag=True)
@says_errors
def check_program(
    file: Path, parts_file: Path | None, machine_file: Path | None, machine_name: str, board: str, as_json: bool
) -> None:
    """Run a program on the simulated machine and tell what goes wrong."""
    from tall_plank.files.machinefiles import read_outlines, read_program
    from tall_plank.measure.limits import limits_of
    from tall_plank.shop.machine.model import load_machine
    from tall_plank.shop.simulator import run_program
    from tall_plank.stock import Board

    try:
        size = tuple(float(x) for x in board.split(","))
    except ValueError:
        size = ()
    spans = (limits_of(Board, "length"), limits_of(Board, "width"), limits_of(Board, "thickness"))
    if len(size) != 3 or not all(span.holds(x) for span, x in zip(spans, size, strict=True)):
        raise click.UsageError("Give the board as length,width,thickness in mm, such as 2800,2070,19.")
    machine = load_machine(machine_file) if machine_file is not None else _shop_machine(machine_name)
    parts = read_outlines(parts_file) if parts_file is not None else []
    text = read_program(file)
    run = run_program(text, machine, (size[0], size[1], size[2]), parts)
    if as_json:
        faults = [{"line": f.line, "kind": f.kind, "what": f.what} for f in run.faults]
        click.echo(json.dumps({"faults": faults, "seconds": round(run.seconds, 1), "moves": len(run.moves)}))
    else:
        click.echo(f"{len(run.moves)} moves, {run.seconds / 60:.1f} minutes, {len(run.faults)} faults")
    _end_with([f"line {f.line}: {f.kind}: {f.what}" for f in run.faults])


def _shop_machine(name: str) -> Any:
    """One of the shop's machines; without a name the first.

    Raises
    ------
    PlankError where there is none of that name
    """
    from tall_plank.files.machines import shop_machines
    from tall_plank.files.userdata import default_folders

    machines, _ = shop_machines(default_folders())
    found = next((m for m in machines if not name or m.name == name), None)
    if found is None:
        known = ", ".join(m.name for m in machines)
        raise PlankError(f"The shop has no machine “{name}”.", "--on", f"Known: {known}.")
    return found


def _routed(w: Any) -> Any:
    """A job as it is when its boards are routed."""
    import msgspec

    from tall_plank.workings import Workings

    cutting = msgspec.structs.replace(w.job.cutting, mode="router")
    return Workings(msgspec.structs.replace(w.job, cutting=cutting), w.machines)


def _end_with(wrong: list[str]) -> None:
    """Name what was wrong on standard error and end with 1; nothing wrong: go on."""
    for line in wrong[:200]:
        click.echo(line, err=True)
    if len(wrong) > 200:
        click.echo(f"... and {len(wrong) - 200} more", err=True)
    if wrong:
        sys.exit(1)


@main.command()
@says_errors
def install() -> None:
    """Put the program into the menus of your desktop, and open jobs by a double click. For you alone."""
    from tall_plank.install import default_places, started_by
    from tall_plank.install import install as put_there

    for path in put_there(main, default_places(), started_by()):
        click.echo(str(path))
    where = default_places().programs
    if str(where) not in os.environ.get("PATH", "").split(os.pathsep):
        click.echo(f"{where} is not in your PATH: the shell finds tall-plank there only by its whole name.", err=True)


@main.command()
@says_errors
def uninstall() -> None:
    """Take away what install put there. Jobs and settings stay."""
    from tall_plank.install import default_places
    from tall_plank.install import uninstall as take_away

    gone = take_away(default_places())
    for path in gone:
        click.echo(str(path))
    if not gone:
        click.echo("Nothing was installed.", err=True)


def _listed(out: Path, file: Path, make: Callable[[Any], Any]) -> None:
    """Write a table of a job as its ending says."""
    from tall_plank.package import write_table

    w = load(file)
    write_table(w, make(w), out)
    click.echo(str(out))


if __name__ == "__main__":
    main()
