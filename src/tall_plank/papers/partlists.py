"""Lists of parts: the cut list, frames, solid timber, areas and weights, and the list of one unit."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

from tall_plank.making import Edges, NumberedPart, numbers_told
from tall_plank.measure import DisplayUnit, format_length, format_measure
from tall_plank.papers.tables import Column, Table, Value
from tall_plank.shop.areas import area_rows
from tall_plank.shop.cutlist import CutRow, natural, rows_of
from tall_plank.workings import Workings

ROUGH_LENGTH, ROUGH_WIDTH, ROUGH_THICKNESS = 30.0, 6.0, 6.0
"""mm that sawn timber is longer, wider and thicker than the planed part (common practice)."""

FRAME_ROLES = ("front frame", "front panel", "front bar", "face frame")
"""Roles of the members of a frame and of what it holds."""


Shapes = Sequence[tuple[str, str, float]]
"""Banded edges that are neither L nor W: name, code of the edging, mm."""


def edge_marks(edges: Edges, shapes: Shapes = (), display: DisplayUnit | None = None) -> str:
    """Banded edges in words that survive a black-and-white print: `L1 L2 W1 W2`, a dot for a raw edge, then those of an
    outline, with their lengths where a unit is given."""
    words = [name if code else "·" for name, code in zip(("L1", "L2", "W1", "W2"), edges, strict=True)]
    words += [name if display is None else f"{name} {format_length(mm, display)}" for name, _, mm in shapes]
    return " ".join(words)


def edge_codes(edges: Edges, shapes: Shapes = (), display: DisplayUnit = DisplayUnit.MM) -> str:
    """The edging of a part: one code where all its banded edges have the same, else edge by edge; then what is banded
    of an outline, with its length."""
    banded = [(name, code) for name, code in zip(("L1", "L2", "W1", "W2"), edges, strict=True) if code]
    codes = list(dict.fromkeys(code for _, code in banded))
    found = ["".join(codes)] if len(codes) < 2 else []
    if len(codes) > 1:
        found = [f"{' '.join(n for n, c in banded if c == code)} {code}" for code in codes]
    found += [f"{name} {code} {format_length(mm, display)}" for name, code, mm in shapes]
    return ", ".join(word for word in found if word)


CUT_NOTE = (
    "Cut size = finished size less edging plus pre-milling, at each banded edge. "
    "L1 L2 are the long edges, W1 W2 the ends, S1 S2 and so on those of an outline, with their lengths."
)

_SIZES = (
    Column("qty", "Qty", "count", wide=0.5, sums=True),
    Column("length", "Length", "length", wide=0.8),
    Column("width", "Width", "length", wide=0.8),
    Column("cut_length", "Cut length", "length", wide=1.0),
    Column("cut_width", "Cut width", "length", wide=1.0),
    Column("grain", "Grain", wide=0.7, groups=True),
    Column("edges", "Edges", "edges", wide=1.0),
    Column("edging", "Edging", wide=0.9, groups=True),
    Column("area", "Area", "number", "m²", wide=0.7, sums=True),
    Column("weight", "Weight", "number", "kg", wide=0.8, sums=True),
)


def _sizes(r: CutRow, display: DisplayUnit) -> tuple[Value, ...]:
    return (
        r.qty, r.length, r.width, r.cut_length, r.cut_width, "along" if r.grain == "length" else "none",
        edge_marks(r.edges, r.shapes), edge_codes(r.edges, r.shapes, display), round(r.area, 3), round(r.weight, 2),
    )  # fmt: skip


def _total(columns: tuple[Column, ...], rows: Iterable[tuple[Value, ...]]) -> tuple[Value, ...]:
    """A closing row with the sums of a list."""
    lines = list(rows)
    found: list[Value] = []
    for i, c in enumerate(columns):
        numbers = [row[i] for row in lines if isinstance(row[i], int | float)]
        found.append(sum(numbers) if c.sums and numbers else None)  # type: ignore[arg-type]
    found[0] = "Total"
    return tuple(found)


def cut_list(w: Workings) -> Table:
    """Alike parts together, with finished and cut sizes, by material."""
    columns = (
        Column("parts", "Parts", wide=2.0),
        Column("name", "Name", wide=1.7, groups=True),
        Column("material", "Material", wide=1.5, groups=True),
        *_SIZES,
    )
    rows = tuple((numbers_told(r.numbers), r.name, r.material, *_sizes(r, w.job.display)) for r in w.cut_rows)
    count = sum(r.qty for r in w.cut_rows)
    cells = {p.number: p.cell for p in w.layout.placed if p.number}
    return Table(
        "Cut list",
        f"{count} parts in {len(rows)} sizes; length runs with the grain",
        columns,
        rows,
        (_total(columns, rows),) if rows else (),
        CUT_NOTE,
        tuple(cells.get(r.numbers[0].split(".")[0], "") for r in w.cut_rows),
        "material",
    )


def unit_list(w: Workings, number: str) -> Table:
    """Every part of one unit, or of the trims that belong to none (an empty number), and what is bought for it."""
    items: list[NumberedPart] = [i for i in w.made.parts() if (i.unit if i.cell else "") == number]
    # Areas are for the whole job; here names come first.
    at = [i for i, c in enumerate(_SIZES) if c.key != "area"]
    columns = (
        Column("parts", "Parts", wide=1.2), Column("name", "Name", wide=1.7), Column("material", "Material", wide=1.5),
        *(_SIZES[i] for i in at),
    )  # fmt: skip
    rows = tuple(
        (numbers_told(r.numbers), r.name, r.material, *(_sizes(r, w.job.display)[i] for i in at))
        for r in sorted(rows_of(items), key=lambda r: natural(r.numbers[0]))
    )
    found = next(((p, u) for p, u in w.made.units if number and p.number == number), None)
    if found is None:
        return Table("Worktops, plinths and panels", f"{len(items)} parts of no unit", columns, rows, note=CUT_NOTE)
    placed, unit = found
    bought: dict[str, int] = {}
    for item in unit.items:
        bought[item.code] = bought.get(item.code, 0) + item.qty
    fittings = (w.job.stock.fitting(code) or w.job.stock.appliance(code) for code in bought)
    told = ", ".join(f"{n} {thing.name}" for n, thing in zip(bought.values(), fittings, strict=True) if thing)
    name = w.job.template(placed.template).name
    return Table(
        f"{number} · {name}",
        f"{len(items)} parts, {format_measure(unit.weight, 'kg', w.job.display)}",
        columns,
        rows,
        (_total(columns, rows),) if rows else (),
        f"For it: {told}." if told else "",
    )


def units_with_parts(w: Workings) -> tuple[str, ...]:
    """Numbers of the units that have parts, in the job's order; an empty one at the end for parts of no unit."""
    numbers = list(dict.fromkeys(i.unit if i.cell else "" for i in w.made.parts()))
    return (*(n for n in numbers if n), *(n for n in numbers if not n))


def frames(w: Workings) -> Table:
    """The members of framed fronts and face frames, with what they hold."""
    columns = (
        Column("part", "Part", wide=0.8),
        Column("unit", "Unit", wide=0.6, groups=True),
        Column("frame", "Frame", wide=1.4, groups=True),
        Column("member", "Member", wide=1.2, groups=True),
        Column("material", "Material", wide=1.5, groups=True),
        Column("qty", "Qty", "count", wide=0.5, sums=True),
        Column("length", "Length", "length"),
        Column("width", "Width", "length"),
        Column("cut_length", "Cut length", "length"),
        Column("cut_width", "Cut width", "length"),
    )
    fronts = {p.number: [f.name for f in unit.fronts] for p, unit in w.made.units}
    rows, keys = [], []
    for item in w.made.parts():
        p = item.part
        if p.role in FRAME_ROLES:
            owner = max((n for n in fronts.get(item.unit, []) if p.name.startswith(f"{n} ")), key=len, default="")
            if not owner:
                owner = "face" if p.name.startswith("face ") else p.name
            member = p.name.removeprefix(owner).strip() or p.name
            sizes = (p.length, p.width, p.cut_length, p.cut_width)
            rows.append((item.number, item.unit, f"{item.unit} {owner}".strip(), member, p.material, 1, *sizes))
            keys.append(item.cell)
    count = len({row[2] for row in rows})
    told = f"{len(rows)} pieces of {count} frames" if rows else "no front has a frame"
    return Table("Frames", told, columns, tuple(rows), keys=tuple(keys), group="frame")


def timber(w: Workings) -> Table:
    """Parts of solid timber, with the rough sizes to saw them from; worktops from blanks left out."""
    columns = (
        Column("parts", "Parts", wide=1.8),
        Column("name", "Name", wide=1.6, groups=True),
        Column("material", "Timber", wide=1.4, groups=True),
        Column("qty", "Qty", "count", wide=0.5, sums=True),
        Column("length", "Length", "length"),
        Column("width", "Width", "length"),
        Column("thickness", "Thick", "length", wide=0.8),
        Column("rough_length", "Rough length", "length", wide=1.1),
        Column("rough_width", "Rough width", "length", wide=1.1),
        Column("rough_thickness", "Rough thick", "length", wide=1.0),
        Column("volume", "Volume", "number", "dm³", wide=0.9, sums=True),
    )
    solid = {b.code for b in w.job.stock.boards if b.solid and b.planned}
    rows = []
    for r in w.cut_rows:
        if r.board in solid:
            rough = (r.length + ROUGH_LENGTH, r.width + ROUGH_WIDTH, r.thickness + ROUGH_THICKNESS)
            volume = round(r.qty * math.prod(rough) * 1e-6, 2)
            own = (numbers_told(r.numbers), r.name, r.material, r.qty, r.length, r.width, r.thickness)
            rows.append((*own, *rough, volume))
    told = f"{sum(int(row[3]) for row in rows)} parts" if rows else "no part is of solid timber"
    note = f"Rough: {ROUGH_LENGTH:g} mm longer, {ROUGH_WIDTH:g} wider, {ROUGH_THICKNESS:g} thicker than planed."
    totals = (_total(columns, rows),) if rows else ()
    return Table("Solid timber", told, columns, tuple(rows), totals, note, group="material" if rows else "")


def areas(w: Workings) -> Table:
    """Areas and weights of every material, by colour or veneer."""
    columns = (
        Column("finish", "Color or veneer", wide=1.6, groups=True),
        Column("material", "Material", wide=1.6),
        Column("thickness", "Thick", "length", wide=0.7, groups=True),
        Column("parts", "Parts", "count", wide=0.6, sums=True),
        Column("area", "One face", "number", "m²", sums=True),
        Column("faces", "Both faces", "number", "m²", sums=True),
        Column("raw_m", "Raw edges", "number", "m", sums=True),
        Column("raw", "Raw edges", "number", "m²", sums=True),
        Column("weight", "Weight", "number", "kg", sums=True),
    )
    rows = tuple(
        (r.finish, r.material, r.thickness, r.parts, round(r.area, 3), round(r.faces, 3), round(r.raw_m, 2),
         round(r.raw, 3), round(r.weight, 2))
        for r in area_rows(w.made, w.job.stock)
    )  # fmt: skip
    note = "Finished sizes. Painted all round: both faces and raw edges. Openings are left out, and their edges."
    totals = (_total(columns, rows),) if rows else ()
    return Table("Areas and weights", f"{len(rows)} materials", columns, rows, totals, note, group="finish")
