"""The spec sheet of units: their size, bays, fronts, finish, construction, place and what they are made of."""

from __future__ import annotations

from dataclasses import dataclass

from tall_plank.costing.money import shown
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    length_text,
    listed,
    setter,
    setting,
)
from tall_plank.desk.spec.held import place_group, underside_row
from tall_plank.desk.spec.own import finishes_for, handle_choices, label_words, own_row, same, style_choices
from tall_plank.desk.spec.run import standing_level
from tall_plank.edits import bays as bays_edits
from tall_plank.edits import runs, units
from tall_plank.job import Body, Cell, Job, Level, Role, Room, Run, Split, Template
from tall_plank.job.inherit import construction_of
from tall_plank.job.standard import CHOICES
from tall_plank.making import MadeUnit
from tall_plank.making.fixed import LEAST_HUNG
from tall_plank.measure import format_measure, told_in
from tall_plank.measure.shareout import Rule
from tall_plank.setout import Placed
from tall_plank.setout.corners import fronts_of


@dataclass(frozen=True)
class _Chosen:
    """The selected units: where they stand, what kinds they are, and the unit where it is only one."""

    doc: Document
    cells: tuple[str, ...]
    placed: list[Placed]
    found: list[tuple[Room, Run, Cell]]
    templates: list[Template]

    @property
    def bodies(self) -> set[Body]:
        return {t.body for t in self.templates}

    @property
    def unit(self) -> MadeUnit | None:
        return self.doc.workings.made.of(self.cells[0]) if len(self.cells) == 1 else None

    def those(self, which: list[bool]) -> tuple[str, ...]:
        """Some of the selected cells."""
        return tuple(cell for cell, on in zip(self.cells, which, strict=True) if on)

    @property
    def with_fronts(self) -> list[bool]:
        """Which of them are closed with a front somewhere."""
        bays = (self.doc.job.unit(cell.unit).bay for _, _, cell in self.found)
        built = (t.build is not None and bool(t.build.fronts) for t in self.templates)
        return [bool(fronts_of(bay)) or own for bay, own in zip(bays, built, strict=True)]

    @property
    def has_fronts(self) -> bool:
        return any(self.with_fronts)

    @property
    def with_boards(self) -> list[bool]:
        """Which of them are made of boards by a shop standard."""
        return [t.body in (Body.CARCASS, Body.PARTS) for t in self.templates]

    @property
    def are_low(self) -> bool:
        """Whether all are too low to be more than a board: nothing is put into them."""
        return all(p.height < LEAST_HUNG for p in self.placed)

    @property
    def is_carcasses(self) -> bool:
        return self.bodies == {Body.CARCASS}

    @property
    def has_boards(self) -> bool:
        return any(self.with_boards)


def cells_sheet(doc: Document) -> Sheet:
    """The sheet of the selected units."""
    job, cells = doc.job, doc.cells
    placed = [p for p in (doc.workings.layout.find(c) for c in cells) if p is not None]
    found = [job.find_cell(c) for c in cells]
    it = _Chosen(doc, cells, placed, found, [job.template_of(cell) for _, _, cell in found])
    title, subtitle = _titles(it)
    groups = [Group(tr("Size"), _size_rows(it)), *_parameter_group(it)]
    bays = _bay_rows(doc, cells) if it.is_carcasses and not it.are_low else ()
    if bays:
        groups.append(Group(tr("Bays"), bays))
    groups += _front_group(it)
    groups += _finish_group(it)
    groups += _foot_group(it)
    if it.has_boards:
        groups.append(_construction(it))
    groups.append(place_group(doc, cells))
    groups += _made_groups(it)
    return Sheet(title, subtitle, tuple(groups))


def _titles(it: _Chosen) -> tuple[str, str]:
    """Number and kind of one unit with its place; how many of several and which."""
    if len(it.cells) > 1:
        numbers = (p.number or t.name.lower() for p, t in zip(it.placed, it.templates, strict=True))
        return f"{len(it.cells)} {tr('units')}", ", ".join(numbers)
    p, template = it.placed[0], it.templates[0]
    linked = sum(c.unit == it.found[0][2].unit for c in it.doc.job.cells()) - 1
    link = f" · {tr('linked with')} {linked}" if linked else ""
    title = f"{p.number} · {template.name}" if p.number else template.name
    layout = it.doc.workings.layout.run(p.run)
    level = standing_level(it.doc, layout) if layout is not None else p.level
    free = layout is not None and layout.run.free
    where = tr("hangs by itself") if free else f"{tr(level.value)} {tr('run')}"
    return title, f"{where}, {tr(it.doc.room.wall(p.wall_id).title)}{link}"


def _size_rows(it: _Chosen) -> tuple[Row, ...]:
    """Kind, width and its rule, clear width, height, depth, the other leg of a corner unit."""
    doc, cells = it.doc, it.cells
    rows = [*_kind_row(it), *_width_rows(it)]
    unit = it.unit
    if unit is not None and it.is_carcasses and it.templates[0].gables and not it.are_low:
        rule_now = it.found[0][2].width
        rows.append(
            Row(
                "clear",
                tr("Clear width"),
                length_text(doc, it.placed[0].width - 2 * unit.spec.made.carcass_thickness),
                "own" if rule_now.clear else "inherited",
                "" if rule_now.clear else tr("the width less both gables"),
                apply=lambda job, t: runs.set_width(job, cells, f"clear {t}"),
            )
        )
    solid = it.those([t.body is not Body.GAP for t in it.templates])
    if solid:
        rows += [own_row(doc, solid, "height", tr("Height")), own_row(doc, solid, "depth", tr("Depth"))]
    if all(t.corner in ("l", "diagonal") for t in it.templates):
        rows.append(own_row(doc, cells, "corner_leg", tr("Other leg")))
    return tuple(rows)


def _kind_row(it: _Chosen) -> tuple[Row, ...]:
    """The kind of unit, where all stand in runs of one level."""
    cells, runs_of = it.cells, {run.levels: run for _, run, _ in it.found}
    if len(runs_of) != 1:
        return ()
    (run,) = runs_of.values()
    choices = tuple((t.code, t.name) for t in it.doc.job.templates if units.goes_into(run, t))
    kind, origin = same([t.name for t in it.templates])
    return (Row("kind", tr("Kind"), kind, origin, choices=choices, apply=lambda job, c: units.set_kind(job, cells, c)),)


def _width_rows(it: _Chosen) -> tuple[Row, Row]:
    cells, first = it.cells, it.placed[0]
    width, origin = same([length_text(it.doc, p.width) for p in it.placed])
    rules = {cell.width.rule for _, _, cell in it.found}
    rule = next(iter(rules)) if len(rules) == 1 else None
    return (
        Row(
            "width",
            tr("Width"),
            width,
            "own" if rule is Rule.FIXED and origin == "plain" else origin,
            apply=lambda job, text: runs.set_width(job, cells, text),
        ),
        Row(
            "rule",
            tr("Width rule"),
            tr(rule.value) if rule else tr("various"),
            "plain" if rule else "various",
            choices=(("fixed", tr("fixed")), ("share", tr("share")), ("rest", tr("rest"))),
            apply=lambda job, text: runs.set_width(
                job, cells, f"{first.width}mm" if text == "fixed" else text, name="Set a width rule"
            ),
        ),
    )


def _foot_group(it: _Chosen) -> tuple[Group, ...]:
    """What standing units stand on: a plinth, seen legs or nothing, and where their legs stand."""
    doc, cells = it.doc, it.cells
    stand = all(p.level is not Level.HUNG for p in it.placed) and it.is_carcasses
    if not stand or not all(t.gables for t in it.templates):
        return ()
    words = tuple((code, tr(word)) for code, word in CHOICES["feet"].items())
    own = [doc.job.unit(cell.unit).own_value("feet") for _, _, cell in it.found]
    text, origin = same([dict(words)[p.feet] for p in it.placed])
    if origin == "plain":
        origin = "own" if any(own) else "inherited"
    rows = [
        Row(
            "feet",
            tr("Stands on"),
            text,
            origin,
            "" if any(own) else tr("from its run"),
            choices=words,
            apply=lambda job, code: units.set_own(job, cells, "feet", code),
            revert=(lambda job: units.inherit_again(job, cells, "feet")) if any(own) else None,
        )
    ]
    feet = {p.feet for p in it.placed}
    if feet != {"none"}:
        rows.append(underside_row(doc, cells, tr("Height of its foot")))
        legs = tuple((code, tr(word)) for code, word in CHOICES["legs"].items())
        rows.append(own_row(doc, cells, "legs", tr("Legs"), legs))
    if feet == {"plinth"}:
        rows.append(own_row(doc, cells, "plinth_setback", tr("Plinth set back")))
    if feet == {"legs"}:
        shapes = tuple((code, tr(word)) for code, word in CHOICES["leg_shape"].items())
        rows += [
            own_row(doc, cells, "leg_shape", tr("Section"), shapes),
            own_row(doc, cells, "leg_size", tr("Thickness")),
            own_row(doc, cells, "leg_left", tr("In from the left")),
            own_row(doc, cells, "leg_right", tr("In from the right")),
            own_row(doc, cells, "leg_front", tr("In from the front")),
            own_row(doc, cells, "leg_back", tr("In from the back")),
        ]
    return (Group(tr("Foot"), tuple(rows)),)


def _parameter_group(it: _Chosen) -> tuple[Group, ...]:
    """Values of kinds of one's own that all the selected kinds have."""
    shared = [p for p in it.templates[0].parameters if all(t.parameter(p.name) for t in it.templates)]
    label = {p.name: p.label or label_words(p.name) for p in shared}
    rows = tuple(own_row(it.doc, it.cells, f"parameter.{p.name}", tr(label[p.name])) for p in shared)
    return (Group(tr("Its own values"), rows),) if rows else ()


def _front_group(it: _Chosen) -> tuple[Group, ...]:
    """The fronts of those units that have any."""
    doc, cells = it.doc, it.those(it.with_fronts)
    if not cells:
        return ()
    rows = [
        own_row(doc, cells, "front_style", tr("Style"), style_choices()),
        own_row(doc, cells, "handle", tr("Handle"), handle_choices(doc.job), "Handles"),
        own_row(doc, cells, "gap_between", tr("Gap between")),
    ]
    hand = _hand_row(doc, cells)
    return (Group(tr("Fronts"), (*([hand] if hand else []), *rows)),)


def _finish_group(it: _Chosen) -> tuple[Group, ...]:
    """Finishes of those units that are something, and of the carcasses of those that have one."""
    doc, cells = it.doc, it.those([t.body is not Body.GAP for t in it.templates])
    if not cells:
        return ()
    rows = [own_row(doc, cells, "finish_front", tr("Front"), finishes_for(doc.job, Role.FRONT))]
    boards = it.those(it.with_boards)
    if boards:
        rows.append(own_row(doc, boards, "finish_carcass", tr("Carcass"), finishes_for(doc.job, Role.CARCASS)))
    return (Group(tr("Finish"), tuple(rows)),)


def _made_groups(it: _Chosen) -> tuple[Group, ...]:
    """What one unit is made of, what was made otherwise than it was asked for, and its snags."""
    unit, doc = it.unit, it.doc
    if unit is None or not it.placed[0].is_solid:
        return ()
    figures = [
        Row("parts", tr("Parts"), str(len(unit.parts))),
        Row("fittings", tr("Fittings"), str(sum(i.qty for i in unit.items if not _small(doc.job, i.code)))),
        Row("weight", tr("Weight"), format_measure(unit.weight, "kg", doc.job.display)),
    ]
    cost = dict(doc.workings.costs.by_cell).get(it.cells[0])
    if cost is not None:
        figures.append(Row("cost", tr("Cost"), shown(cost)))
    groups = (Group(tr("Made of"), tuple(figures)), *_forced_group(doc, unit))
    if not unit.problems:
        return groups
    return (
        *groups,
        Group(
            tr("Snags"),
            tuple(Row(f"problem{i}", told_in(p.what, doc.job.display), "") for i, p in enumerate(unit.problems)),
        ),
    )


def _construction(it: _Chosen) -> Group:
    """By which standard units are made, and those decisions that joiners make anew most and that apply to them."""
    doc, cells = it.doc, it.cells
    names = tuple((s.code, s.name) for s in doc.job.standards)
    rows = [own_row(doc, cells, "standard", tr("Standard"), names)]
    applies = {
        "top_fit": any(t.top == "full" for t in it.templates),
        "bottom_fit": any(t.bottom for t in it.templates),
        "back_fit": any(t.back for t in it.templates),
        "gable_foot": any(p.level is not Level.HUNG and t.gables for p, t in zip(it.placed, it.templates, strict=True)),
        "overlay": it.has_fronts,
        "face_frame": not it.are_low,
    }
    keys = ["joint", "joint_count", *(key for key, does in applies.items() if does or Body.PARTS in it.bodies)]
    if any(construction_of(doc.job, doc.job.unit(doc.job.find_cell(c)[2].unit)).joint == "cam" for c in cells):
        keys.insert(2, "cam_face")
    for key in keys:
        named = {"joint_count": tr("Fixings a joint"), "gable_foot": tr("Gables"), "overlay": tr("Fronts")}
        words = named.get(key, tr(label_words(key)))
        rows.append(own_row(doc, cells, key, words, tuple((c, tr(w)) for c, w in CHOICES[key].items())))
    made = [doc.workings.made.of(c) for c in cells]
    if any(unit is not None and unit.drawers for unit in made):
        runners = (("auto", tr("by depth and load")), *listed(doc.job, "runner"))
        rows.append(own_row(doc, cells, "runner", tr("Runners"), runners, "Runners"))
    return Group(tr("Construction"), tuple(rows))


def _forced_group(doc: Document, unit: MadeUnit) -> tuple[Group, ...]:
    """Sizes that a step or a stock size changed: what was asked for, and what is made (MK7)."""
    rows = tuple(
        Row(
            f"forced{i}",
            tr(f.what.capitalize()),
            f"{length_text(doc, f.asked)} → {length_text(doc, f.made)}",
            "inherited",
            f"{tr('asked for, and made')}: {f.why}",
        )
        for i, f in enumerate(unit.forced)
    )
    return (Group(tr("Asked and made"), rows),) if rows else ()


def _small(job: Job, code: str) -> bool:
    fitting = job.stock.fitting(code)
    return fitting is None or fitting.consumable


def _hand_row(doc: Document, cells: tuple[str, ...]) -> Row | None:
    doors = [f for c in cells for _, f in units.single_doors(doc.job.unit(doc.job.find_cell(c)[2].unit).bay)]
    if not doors:
        return None
    text, origin = same([tr(f.hand) for f in doors])
    return Row(
        "hand",
        tr("Hinges"),
        text,
        origin,
        choices=(("left", tr("left")), ("right", tr("right"))),
        apply=lambda job, code: units.set_hand(job, cells, code),
    )


def _bay_rows(doc: Document, cells: tuple[str, ...]) -> tuple[Row, ...]:
    job = doc.job
    bays = [job.unit(job.find_cell(c)[2].unit).bay for c in cells]
    divided = [b for b in bays if b.children]
    stacks = [b for b in divided if b.split is Split.ROWS and b.between == "nothing"]
    if divided and len(stacks) < len(divided):
        if len(cells) == 1:
            leaves = sum(not bays[0].at(path).children for path in bays[0].paths())
            return (Row("bays", tr("Divided into"), f"{leaves} {tr('bays')}", source=tr("Q: work in them")),)
        return ()
    if len(stacks) == len(bays):
        count, origin = same([str(len(b.children)) for b in bays])
        rows = [Row("drawers", tr("Drawers"), count, origin, apply=lambda job, t: units.set_drawers(job, cells, t))]
        if len(cells) == 1:
            unit = doc.workings.made.of(cells[0])
            heights = {f.path: f.height for f in unit.fronts} if unit else {}
            for i, child in enumerate(bays[0].children):
                mm = heights.get((i,), child.size.mm if child.size else 0.0)
                rows.append(
                    Row(
                        f"bay{i}",
                        f"{tr('Front')} {i + 1}",
                        length_text(doc, mm),
                        "own" if child.size else "inherited",
                        "" if child.size else tr("an equal share"),
                        apply=setter(bays_edits.set_size, cells[0], (i,)),
                        revert=setting(bays_edits.set_size, cells[0], (i,), "") if child.size else None,
                    )
                )
        return tuple(rows)
    if not stacks:
        count, origin = same([str(b.shelves) for b in bays])
        return (Row("shelves", tr("Shelves"), count, origin, apply=lambda job, t: units.set_shelves(job, cells, t)),)
    return ()
