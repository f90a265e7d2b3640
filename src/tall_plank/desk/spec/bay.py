"""What the spec sheet says of one bay: its clear sizes, what closes it, what is in it, and ways to split it."""

from __future__ import annotations

from collections.abc import Callable

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.bays import typed_path
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import Group, Row, Sheet, length_text, listed, optional_row, setter, setting
from tall_plank.edits import Change, bays, fittings, inserts
from tall_plank.job import Job, Split
from tall_plank.job.bays import HINGED, PULLED
from tall_plank.job.inherit import construction_of
from tall_plank.job.standard import CHOICES
from tall_plank.making.bayset import BayBox

STARTS = (("low", "standing"), ("high", "hanging"), ("middle", "centered"))
"""How a fitting is placed: on the board below, under the board above, or between them."""


def _splitter(cell: str, path: tuple[int, ...], split: str, between: str) -> Callable[[Job, str], Change]:
    return lambda job, text: bays.split_bay(job, cell, path, text, split, between)


def _fitting_mover(cell: str, path: tuple[int, ...], i: int) -> Callable[[Job, str], Change]:
    """What choosing the place of a fitting does: it goes there, or out."""

    def move(job: Job, code: str) -> Change:
        if code == "out":
            return fittings.remove_fitting(job, cell, path, i)
        return fittings.set_fitting(job, cell, path, i, "start", code)

    return move


def bay_sheet(doc: Document) -> Sheet | None:
    """The sheet of the bay that is worked on, or None."""
    if doc.bay is None or len(doc.cells) != 1:
        return None
    box = doc.bay_box(doc.bay)
    if box is None:
        return None
    cell, path, bay = doc.cells[0], doc.bay, box.bay
    placed = doc.workings.layout.find(cell)
    number = placed.number if placed is not None else ""
    groups = [Group(tr("Clear size"), _sizes(doc, cell, box)), Group(tr("Closed by"), _front(doc, cell, box))]
    if not bay.children:
        groups.append(Group(tr("Inside"), _inside(doc, cell, box)))
        groups.append(Group(tr("Split"), _splits(cell, path)))
    else:
        word = tr("rows") if bay.split is Split.ROWS else tr("columns")
        rows = (
            Row("divided", tr("Split"), f"{len(bay.children)} {word}"),
            Row(
                "undivide",
                tr("Take the division out"),
                "",
                choices=(("yes", tr("take it all out")),),
                apply=lambda job, _: bays.join_bay(job, cell, path),
            ),
        )
        groups.append(Group(tr("Inside"), rows))
    kept = tuple((i.name, i.name) for i in doc.job.inserts)
    hint = tr("the inside of this bay, to be put into others")
    keeping = [
        Row(
            "keep",
            tr("Keep it as"),
            tr("a name"),
            "inherited",
            hint,
            apply=lambda job, t: inserts.save_insert(job, cell, path, t),
        )
    ]
    if kept:
        keeping.append(
            Row(
                "put_insert",
                tr("Put in"),
                tr("choose"),
                "inherited",
                choices=kept,
                apply=lambda job, t: inserts.put_insert(job, cell, path, t),
            )
        )
        keeping.append(
            Row(
                "forget",
                tr("Forget"),
                tr("choose"),
                "inherited",
                choices=kept,
                apply=lambda job, t: inserts.delete_insert(job, t),
            )
        )
    groups.append(Group(tr("Inserts"), tuple(keeping)))
    where = f"{tr('bay')} {'.'.join(str(i + 1) for i in path)}" if path else tr("all of its inside")
    return Sheet(f"{number} · {where}", tr("Esc: the bay around it"), tuple(groups))


def _sizes(doc: Document, cell: str, box: BayBox) -> tuple[Row, ...]:
    root = doc.job.unit(doc.job.find_cell(cell)[2].unit).bay
    rows = []
    for key, label, size, split in (
        ("bay_width", tr("Width"), box.clear.width, Split.COLUMNS),
        ("bay_height", tr("Height"), box.clear.height, Split.ROWS),
    ):
        path = typed_path(root, box.path, split)
        text = length_text(doc, size)
        if path is None:
            rows.append(Row(key, label, text))
            continue
        at = root.at(path)
        if root.at(path[:-1]).between == "nothing":
            found = doc.bay_box(path)
            zone = found.zone if found is not None else box.zone
            text = length_text(doc, zone.width if split is Split.COLUMNS else zone.height)
            label = f"{label}, {tr('of the front')}"
        rows.append(
            Row(
                key,
                label,
                text,
                "own" if at.size is not None else "inherited",
                "" if at.size is not None else tr("a share of what is left"),
                apply=setter(bays.set_size, cell, path),
                revert=setting(bays.set_size, cell, path, "") if at.size is not None else None,
            )
        )
    return tuple(rows)


def _front(doc: Document, cell: str, box: BayBox) -> tuple[Row, ...]:
    where = ((cell, box.path),)
    front = box.bay.front
    kind = front.kind if front is not None else "none"
    allowed = [k for k in bays.FRONTS if not (box.bay.children and k in PULLED)]
    kinds = tuple((k, tr(bays.FRONTS[k])) for k in allowed)
    rows = [
        Row(
            "front",
            tr("Front"),
            tr(bays.FRONTS[kind]),
            choices=kinds,
            apply=lambda job, code: bays.set_front(job, where, code),
        )
    ]
    if front is None or kind == "inner":
        return tuple(rows)
    if kind in HINGED:
        rows.append(
            Row(
                "bay_hand",
                tr("Hinges"),
                tr(front.hand),
                choices=(("left", tr("left")), ("right", tr("right"))),
                apply=lambda job, code: bays.set_front_value(job, where, "hand", code),
            )
        )
    styles = tuple((code, tr(word)) for code, word in CHOICES["front_style"].items())
    handles = (*listed(doc.job, "handle"), ("none", tr("no handle")))
    for key, label, choices in (("style", tr("Style"), styles), ("handle", tr("Handle"), handles)):
        value = getattr(front, key)
        rows.append(
            Row(
                f"bay_{key}",
                label,
                dict(choices).get(value, tr("as its unit")),
                "own" if value else "inherited",
                "" if value else tr("from the unit"),
                choices=choices,
                stock="Handles" if key == "handle" else "",
                apply=setter(bays.set_front_value, where, key),
                revert=setting(bays.set_front_value, where, key, "") if value else None,
            )
        )
    standard = construction_of(doc.job, doc.job.unit(doc.job.find_cell(cell)[2].unit))
    for key, label, by_rule in (
        ("from_edge", tr("Handle from the edge"), standard.handle_from_edge),
        ("from_end", tr("Handle from the end"), standard.handle_from_end),
    ):
        if key == "from_edge" and kind not in ("door", "pair", "bifold", "pocket"):
            continue
        length = getattr(front, key)
        rows.append(
            optional_row(
                doc,
                f"bay_{key}",
                label,
                length,
                length_text(doc, by_rule),
                tr("from the standard"),
                setter(bays.set_front_value, where, key),
            )
        )
    return tuple(rows)


def _inside(doc: Document, cell: str, box: BayBox) -> tuple[Row, ...]:
    path, stock = box.path, doc.job.stock
    rows = [
        Row(
            "bay_shelves",
            tr("Loose shelves"),
            str(box.bay.shelves),
            apply=lambda job, t: bays.set_shelves(job, cell, path, t),
        )
    ]
    for i, fitted in enumerate(box.bay.fittings):
        thing = stock.fitting(fitted.code)
        name = thing.name.split(",")[0] if thing is not None else fitted.code
        start = fitted.start or (thing.start if thing is not None else "low")
        starts = tuple((code, tr(word)) for code, word in STARTS)
        rows.append(
            Row(
                f"fitting{i}",
                name,
                dict(starts)[start],
                choices=(*starts, ("out", tr("take it out"))),
                apply=_fitting_mover(cell, path, i),
            )
        )
        at = fitted.at.mm if fitted.at is not None else (thing.gap if thing is not None else 0.0)
        rows.append(
            Row(
                f"fitting_at{i}",
                tr("at a distance of"),
                length_text(doc, at),
                "own" if fitted.at is not None else "inherited",
                "" if fitted.at is not None else tr("its own"),
                apply=setter(fittings.set_fitting, cell, path, i, "at"),
                revert=setting(fittings.set_fitting, cell, path, i, "at", "") if fitted.at is not None else None,
            )
        )
    built = (("", tr("none")), *((a.code, a.name) for a in stock.appliances))
    rows.append(
        Row(
            "bay_appliance",
            tr("Appliance"),
            dict(built).get(box.bay.appliance, box.bay.appliance),
            choices=built,
            apply=lambda job, code: bays.set_appliance(job, cell, path, code),
        )
    )
    offered = tuple((f.code, f.name) for f in stock.fittings if f.is_inside)
    rows.append(
        Row(
            "put_in",
            tr("Put in"),
            tr("choose"),
            "inherited",
            choices=offered,
            apply=lambda job, code: fittings.add_fitting(job, cell, path, code),
        )
    )
    return tuple(rows)


def _splits(cell: str, path: tuple[int, ...]) -> tuple[Row, ...]:
    found = []
    for key, label, split, between in (
        ("split_shelf", tr("By shelves"), "rows", "shelf"), ("split_divider", tr("By dividers"), "columns", "divider"),
        ("split_rows", tr("Rows, nothing between"), "rows", "nothing"),
        ("split_columns", tr("Columns, nothing between"), "columns", "nothing"),
    ):  # fmt: skip
        found.append(
            Row(
                key,
                label,
                "3 or 1:2",
                "inherited",
                tr("3: equal bays · 1:2: proportions · 300 share 450: sizes"),
                apply=_splitter(cell, path, split, between),
            )
        )
    return tuple(found)
