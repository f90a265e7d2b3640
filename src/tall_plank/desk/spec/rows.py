"""What the spec sheet says of the selection, as plain rows. No widgets here."""

from __future__ import annotations

from collections.abc import Callable

from tall_plank.costing.money import shown
from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    listed,
    optional_row,
    setter,
    setting,
    yes_no,
    yes_no_choices,
)
from tall_plank.desk.spec.bay import bay_sheet
from tall_plank.desk.spec.room import room_sheet, wall_sheet
from tall_plank.desk.things.table import HANDLING
from tall_plank.desk.things.worktop import top_groups
from tall_plank.edits import Change, cutting, jobs, placing, runs, standards, units
from tall_plank.edits import bays as bays_edits
from tall_plank.job import Body, Job, Kind, Level, Role, Source, Split
from tall_plank.job.inherit import Sourced, construction_of, inherited_value, sourced
from tall_plank.job.standard import CHOICES
from tall_plank.making import MadeUnit
from tall_plank.measure import Length, format_length
from tall_plank.measure.shareout import Rule
from tall_plank.setout.trims import stretches


def sheet_for(doc: Document, stage: str) -> Sheet:
    """The sheet of the selection at a stage."""
    if stage not in ("shop", "offer"):
        if doc.cells:
            return bay_sheet(doc) or _cells_sheet(doc)
        if doc.ids(Kind.RUN):
            return _run_sheet(doc)
        if doc.ids(Kind.WALL):
            return wall_sheet(doc)
        for source in doc.selection:
            handling = HANDLING.get(source.kind)
            if handling is not None and handling.sheet is not None:
                return handling.sheet(doc, source.id)
    if stage == "finish":
        return _scheme_sheet(doc)
    if stage == "shop":
        return _saw_sheet(doc)
    if stage == "offer":
        return _price_sheet(doc)
    return room_sheet(doc)


def _length(doc: Document, mm: float) -> str:
    return format_length(mm, doc.job.display)


def _shown(doc: Document, found: Sourced, choices: tuple[tuple[str, str], ...]) -> str:
    if isinstance(found.value, Length):
        return _length(doc, found.value.mm)
    return dict(choices).get(found.value, found.value)


def _flag_setter(cells: tuple[str, ...], key: str) -> Callable[[Job, str], Change]:
    return lambda job, text: placing.set_flag(job, cells, key, text == "yes")


def _own_row(
    doc: Document,
    cells: tuple[str, ...],
    key: str,
    label: str,
    choices: tuple[tuple[str, str], ...] = (),
    stock: str = "",
) -> Row:
    """A value that is own or inherited, over one or many units."""
    job = doc.job
    found = [sourced(job, job.unit(job.find_cell(c)[2].unit), key) for c in cells]
    texts = [_shown(doc, f, choices) for f in found]
    same = len(set(texts)) == 1
    own = any(f.own for f in found)
    first = found[0]
    hint = (
        ""
        if not own
        else f"{tr('inherited would be')} "
        + _shown(doc, inherited_value(job, job.unit(job.find_cell(cells[0])[2].unit), key), choices)
    )
    return Row(
        key=key,
        label=label,
        text=texts[0] if same else tr("various"),
        origin="various" if not same else "own" if own else "inherited",
        source=hint if own else f"{tr('from')} {first.source}",
        choices=choices,
        stock=stock,
        apply=lambda job, text: units.set_own(job, cells, key, text),
        revert=(lambda job: units.inherit_again(job, cells, key)) if own else None,
    )


def _finishes(job: Job, role: Role) -> tuple[tuple[str, str], ...]:
    return tuple((f.code, f.name) for f in job.stock.finishes if role.value in f.roles)


def _handles(job: Job) -> tuple[tuple[str, str], ...]:
    return (*listed(job, "handle"), ("none", tr("no handle")))


def _styles() -> tuple[tuple[str, str], ...]:
    return tuple((code, tr(name)) for code, name in CHOICES["front_style"].items())


def _same(values: list[str]) -> tuple[str, str]:
    """Text and origin of a plain value over many."""
    return (values[0], "plain") if len(set(values)) == 1 else (tr("various"), "various")


def _cells_sheet(doc: Document) -> Sheet:
    job, cells = doc.job, doc.cells
    layout, made = doc.workings.layout, doc.workings.made
    placed = [p for p in (layout.find(c) for c in cells) if p is not None]
    found = [job.find_cell(c) for c in cells]
    templates = [job.template_of(cell) for _, _, cell in found]
    bodies = {t.body for t in templates}
    one = len(cells) == 1
    level = placed[0].level
    if one:
        p = placed[0]
        title = f"{p.number} · {templates[0].name}" if p.number else templates[0].name
        linked = sum(c.unit == found[0][2].unit for c in job.cells()) - 1
        link = f" · {tr('linked with')} {linked}" if linked else ""
        subtitle = f"{tr(level.value)} {tr('run')}, {tr(doc.room.wall(p.wall).title)}{link}"
    else:
        title = f"{len(cells)} {tr('units')}"
        subtitle = ", ".join(p.number or templates[i].name.lower() for i, p in enumerate(placed))
    groups: list[Group] = []
    width, origin = _same([_length(doc, p.width) for p in placed])
    rules = {cell.width.rule for _, _, cell in found}
    rule = next(iter(rules)) if len(rules) == 1 else None
    size = [
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
                job, cells, f"{placed[0].width}mm" if text == "fixed" else text, name="Set a width rule"
            ),
        ),
    ]
    unit = made.of(cells[0]) if one else None
    if unit is not None and bodies == {Body.CARCASS} and templates[0].gables:
        rule_now = found[0][2].width
        inside = placed[0].width - 2 * unit.spec.made.carcass_thickness
        size.append(
            Row(
                "clear",
                tr("Clear width"),
                _length(doc, inside),
                "own" if rule_now.clear else "inherited",
                "" if rule_now.clear else tr("the width less both gables"),
                apply=lambda job, t: runs.set_width(job, cells, f"clear {t}"),
            )
        )
    if Body.GAP not in bodies:
        size += [_own_row(doc, cells, "height", tr("Height")), _own_row(doc, cells, "depth", tr("Depth"))]
    if all(t.corner in ("l", "diagonal") for t in templates):
        size.append(_own_row(doc, cells, "corner_leg", tr("Other leg")))
    run_levels = {run.level for _, run, _ in found}
    if len(run_levels) == 1:
        (run_level,) = run_levels
        allowed = (Level.BASE, Level.TALL) if run_level is Level.BASE else (run_level,)
        kinds = tuple((t.code, t.name) for t in job.templates if t.level in allowed)
        kind, kind_origin = _same([t.name for t in templates])
        size.insert(
            0,
            Row(
                "kind",
                tr("Kind"),
                kind,
                kind_origin,
                choices=kinds,
                apply=lambda job, code: units.set_kind(job, cells, code),
            ),
        )
    groups.append(Group(tr("Size"), tuple(size)))
    shared = [p for p in templates[0].parameters if all(t.parameter(p.name) for t in templates)]
    if shared:
        label = {p.name: p.label or label_words(p.name) for p in shared}
        rows = tuple(_own_row(doc, cells, f"parameter.{p.name}", tr(label[p.name])) for p in shared)
        groups.append(Group(tr("Its own values"), rows))
    bays = _bay_rows(doc, cells) if bodies == {Body.CARCASS} else ()
    if bays:
        groups.append(Group(tr("Bays"), bays))
    if bodies <= {Body.CARCASS, Body.APPLIANCE, Body.PARTS}:
        fronts = [
            _own_row(doc, cells, "front_style", tr("Style"), _styles()),
            _own_row(doc, cells, "handle", tr("Handle"), _handles(job), "Handles"),
            _own_row(doc, cells, "gap_between", tr("Gap between")),
        ]
        hand = _hand_row(doc, cells)
        groups.append(Group(tr("Fronts"), (*([hand] if hand else []), *fronts)))
    if Body.GAP not in bodies:
        finish = [_own_row(doc, cells, "finish_front", tr("Front"), _finishes(job, Role.FRONT))]
        if bodies <= {Body.CARCASS, Body.PARTS}:
            finish.append(_own_row(doc, cells, "finish_carcass", tr("Carcass"), _finishes(job, Role.CARCASS)))
        groups.append(Group(tr("Finish"), tuple(finish)))
    if bodies <= {Body.CARCASS, Body.PARTS}:
        groups.append(_construction(doc, cells))
    groups.append(_place_group(doc, cells))
    if one and placed[0].is_solid:
        cost = dict(doc.workings.costs.by_cell).get(cells[0])
        if unit is not None:
            figures = [
                Row("parts", tr("Parts"), str(len(unit.parts))),
                Row("fittings", tr("Fittings"), str(sum(i.qty for i in unit.items if not _small(job, i.code)))),
                Row("weight", tr("Weight"), f"{unit.weight:.1f} kg"),
            ]
            if cost is not None:
                figures.append(Row("cost", tr("Cost"), shown(cost)))
            groups.append(Group(tr("Made of"), tuple(figures)))
            groups += _forced_group(doc, unit)
            if unit.problems:
                rows = tuple(Row(f"problem{i}", p.what, "") for i, p in enumerate(unit.problems))
                groups.append(Group(tr("Snags"), rows))
    return Sheet(title, subtitle, tuple(groups))


def _construction(doc: Document, cells: tuple[str, ...]) -> Group:
    """By which standard units are made, and the decisions that joiners make anew most."""
    names = tuple((s.code, s.name) for s in doc.job.standards)
    rows = [_own_row(doc, cells, "standard", tr("Standard"), names)]
    keys = ["joint", "joint_count", "top_fit", "bottom_fit", "back_fit", "gable_foot", "overlay", "face_frame"]
    if any(construction_of(doc.job, doc.job.unit(doc.job.find_cell(c)[2].unit)).joint == "cam" for c in cells):
        keys.insert(2, "cam_face")
    for key in keys:
        named = {"joint_count": tr("Fixings a joint"), "gable_foot": tr("Gables"), "overlay": tr("Fronts")}
        words = named.get(key, tr(label_words(key)))
        rows.append(_own_row(doc, cells, key, words, tuple((c, tr(w)) for c, w in CHOICES[key].items())))
    made = [doc.workings.made.of(c) for c in cells]
    if any(unit is not None and unit.drawers for unit in made):
        runners = (("auto", tr("by depth and load")), *listed(doc.job, "runner"))
        rows.append(_own_row(doc, cells, "runner", tr("Runners"), runners, "Runners"))
    return Group(tr("Construction"), tuple(rows))


def _forced_group(doc: Document, unit: MadeUnit) -> tuple[Group, ...]:
    """Sizes that a step or a stock size changed: what was asked for, and what is made (MK7)."""
    rows = tuple(
        Row(
            f"forced{i}",
            tr(f.what.capitalize()),
            f"{_length(doc, f.asked)} → {_length(doc, f.made)}",
            "inherited",
            f"{tr('asked for, and made')}: {f.why}",
        )
        for i, f in enumerate(unit.forced)
    )
    return (Group(tr("Asked and made"), rows),) if rows else ()


def label_words(key: str) -> str:
    return key.replace("_fit", "").replace("_", " ").capitalize()


def _hold(job: Job, cell: str, code: str) -> Change:
    """Hold a unit as a choice says: `at|source`, such as `centre|opening:o1`; nothing lets it go."""
    at, _, to = code.partition("|")
    return placing.hold(job, cell, at, Source.parse(to)) if code else placing.let_go(job, (cell,))


def _place_group(doc: Document, cells: tuple[str, ...]) -> Group:
    """What holds the units, their label, and whether they are locked or hidden."""
    found = [doc.job.find_cell(c)[2] for c in cells]
    rows = []
    if len(cells) == 1:
        anchor = found[0].anchor
        choices = _anchors(doc, cells[0])
        code = f"{anchor.at}|{anchor.to}" if anchor is not None else ""
        text = dict(choices).get(code, tr("from the left end"))
        rows.append(
            Row(
                "anchor",
                tr("Held"),
                text,
                "own" if code else "plain",
                choices=choices,
                apply=setter(_hold, cells[0]),
            )
        )
    label, origin = _same([c.label for c in found])
    rows.append(
        Row(
            "label",
            tr("Label"),
            label,
            "own" if label and origin == "plain" else origin,
            tr("text with fields such as {width} or {room}; empty: as the job says"),
            apply=lambda job, t: placing.set_label(job, cells, t),
        )
    )
    for key, name in (("locked", tr("Locked")), ("hidden", tr("Hidden"))):
        text, origin = _same([yes_no(getattr(c, key)) for c in found])
        rows.append(
            Row(
                key,
                name,
                text,
                origin,
                choices=yes_no_choices(),
                apply=_flag_setter(cells, key),
            )
        )
    return Group(tr("Place"), tuple(rows))


def _anchors(doc: Document, cell: str) -> tuple[tuple[str, str], ...]:
    """What may hold a cell on its line: nothing, openings, columns, service points, units of other runs."""
    room, run, _ = doc.job.find_cell(cell)
    found = [("", tr("by its order"))]
    for o in room.openings:
        if o.wall == run.wall:
            found.append((f"centre|opening:{o.id}", f"{tr('centred on the')} {tr(o.kind)}"))
    for c in room.columns:
        if c.wall == run.wall:
            found.append((f"span|column:{c.id}", f"{tr('on the')} {tr(c.kind)}"))
            found.append((f"centre|column:{c.id}", f"{tr('centred on the')} {tr(c.kind)}"))
    for s in room.services:
        if s.wall == run.wall:
            found.append((f"centre|service:{s.id}", f"{tr('centred on')} {tr(s.kind)}"))
    for g in room.guides:
        if g.wall == run.wall:
            for at, word in (
                ("left", tr("left side on")),
                ("right", tr("right side on")),
                ("centre", tr("centred on")),
            ):
                found.append((f"{at}|guide:{g.id}", f"{word} {tr('the guide line')}"))
    for p in doc.room.placed:
        if p.wall == run.wall and p.run != run.id and p.is_solid and p.number:
            for at, word in (("span", tr("lined up with")), ("centre", tr("centred on"))):
                found.append((f"{at}|cell:{p.cell}", f"{word} {p.number}"))
    return tuple(found)


def _small(job: Job, code: str) -> bool:
    fitting = job.stock.fitting(code)
    return fitting is None or fitting.consumable


def _hand_row(doc: Document, cells: tuple[str, ...]) -> Row | None:
    fronts = [doc.job.unit(doc.job.find_cell(c)[2].unit).bay.front for c in cells]
    doors = [f for f in fronts if f is not None and f.kind == "door"]
    if not doors:
        return None
    text, origin = _same([tr(f.hand) for f in doors])
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
        count, origin = _same([str(len(b.children)) for b in bays])
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
                        _length(doc, mm),
                        "own" if child.size else "inherited",
                        "" if child.size else tr("an equal share"),
                        apply=setter(bays_edits.set_size, cells[0], (i,)),
                        revert=setting(bays_edits.set_size, cells[0], (i,), "") if child.size else None,
                    )
                )
        return tuple(rows)
    if not stacks:
        count, origin = _same([str(b.shelves) for b in bays])
        return (Row("shelves", tr("Shelves"), count, origin, apply=lambda job, t: units.set_shelves(job, cells, t)),)
    return ()


def _run_sheet(doc: Document) -> Sheet:
    run_id = doc.ids(Kind.RUN)[0]
    layout = doc.workings.layout.run(run_id)
    assert layout is not None
    run = layout.run
    inherited = tr("the end of the wall, or what stands in the corner")
    rows = [
        optional_row(
            doc,
            key,
            label,
            getattr(run, key),
            _length(doc, mm),
            inherited,
            setter(runs.set_run_length, run_id, key),
        )
        for key, label, mm in (
            ("start", tr("Free at the left"), layout.x),
            ("end", tr("Free at the right"), layout.wall.length - layout.end),
        )
    ]
    from tall_plank.setout.runs import bottom_of

    name = "hung_bottom" if run.level == "hung" else "plinth"
    rows.append(
        optional_row(
            doc,
            "bottom",
            tr("Underside"),
            run.bottom,
            _length(doc, bottom_of(doc.job, run)),
            f"{tr('from')} {tr('job value')} {name}",
            lambda job, t: runs.set_run_length(job, run_id, "bottom", t),
        )
    )
    rows.append(
        Row(
            "to_ceiling",
            tr("Closed to the ceiling"),
            yes_no(run.to_ceiling),
            choices=yes_no_choices(),
            apply=lambda job, t: runs.set_run_choice(job, run_id, "to_ceiling", t),
        )
    )
    total = sum(p.width for p in layout.cells)
    figures = (
        Row("length", tr("Length"), _length(doc, layout.total)),
        Row("taken", tr("Taken"), _length(doc, total)),
        Row("left", tr("Short") if layout.short > 0.001 else tr("Left"),
            _length(doc, layout.short if layout.short > 0.001 else layout.left)),
        Row("count", tr("Units"), str(sum(p.is_solid for p in layout.cells))),
    )  # fmt: skip
    groups = [Group(tr("Place"), tuple(rows)), Group(tr("Sum"), figures)]
    if run.level != "hung":
        feet = tuple((k, tr(v)) for k, v in runs.FEET.items())
        stand = [
            Row(
                "feet",
                tr("Stands on"),
                tr(runs.FEET[run.feet]),
                choices=feet,
                apply=lambda job, t: runs.set_run_choice(job, run_id, "feet", t),
            ),
        ]
        if run.feet == "plinth":
            stand.append(
                Row(
                    "plinth_returns",
                    tr("Plinth returned"),
                    yes_no(run.plinth_returns),
                    choices=yes_no_choices(),
                    apply=lambda job, t: runs.set_run_choice(job, run_id, "plinth_returns", t),
                )
            )
        groups.append(Group(tr("Foot"), tuple(stand)))
        if not layout.wall.island and (run.top.left_out or any(stretches(doc.job, layout))):
            groups += top_groups(doc, Kind.RUN.of(run_id))
    title = f"{tr(run.level.value.capitalize())} {tr('run')}"
    where = tr(layout.wall.title)
    return Sheet(title, where, tuple(groups))


def _scheme_sheet(doc: Document) -> Sheet:
    job = doc.job
    scheme = job.active_scheme()
    rows = []
    for role in Role:
        code = scheme.finish(role) or ""
        finish = job.stock.finish(code)
        rows.append(
            Row(
                role.value,
                tr(role.value.capitalize()),
                finish.name if finish else code,
                choices=_finishes(job, role),
                apply=setter(units.set_scheme_finish, role),
            )
        )
    standard = job.active_standard().values()
    style = str(standard["front_style"])
    fronts = (
        Row(
            "front_style",
            tr("Style"),
            dict(_styles())[style],
            choices=_styles(),
            apply=lambda job, t: standards.set_in_force(job, "front_style", t),
        ),
        Row(
            "handle",
            tr("Handle"),
            dict(_handles(job)).get(str(standard["handle"]), ""),
            choices=_handles(job),
            stock="Handles",
            apply=lambda job, t: standards.set_in_force(job, "handle", t),
        ),
        Row(
            "front_grain",
            tr("Grain"),
            tr(CHOICES["front_grain"][str(standard["front_grain"])]),
            choices=tuple((k, tr(v)) for k, v in CHOICES["front_grain"].items()),
            apply=lambda job, t: standards.set_in_force(job, "front_grain", t),
        ),
    )
    return Sheet(
        scheme.name, tr("finishes of the whole job"), (Group(tr("Finish"), tuple(rows)), Group(tr("Fronts"), fronts))
    )


def _saw_sheet(doc: Document) -> Sheet:
    """How the boards of this job are cut, and what the plan on screen comes to."""
    saw, w = doc.job.cutting, doc.workings

    def row(key: str, label: str, text: str, source: str = "") -> Row:
        choices = tuple((code, tr(words)) for code, words in cutting.CHOICES.get(key, {}).items())
        return Row(
            key, label, text, source=source, choices=choices, apply=lambda job, t: cutting.set_cutting(job, key, t)
        )

    def chosen(key: str) -> str:
        return tr(cutting.CHOICES[key].get(str(getattr(saw, key)), str(getattr(saw, key))))

    cuts = (
        row("mode", tr("Cut by"), chosen("mode")),
        row("kerf", tr("Kerf") if saw.mode == "saw" else tr("Gap for the tool"), _length(doc, saw.kerf)),
        row("trim", tr("Trimmed off each side"), _length(doc, saw.trim)),
        row("turns", tr("Turns at most"), chosen("turns")),
        row("first_cut", tr("First cuts"), chosen("first_cut")),
        row("matched", tr("Grain matched"), chosen("matched")),
    )
    keep = (
        row("keep_length", tr("As long as"), _length(doc, saw.keep_length)),
        row("keep_width", tr("As wide as"), _length(doc, saw.keep_width)),
    )
    search = (row("effort", tr("Effort"), chosen("effort")), row("seconds", tr("At most"), f"{saw.seconds:g} s"))
    by_name: dict[str, list[float]] = {}
    for board in w.plan.boards:
        by_name.setdefault(board.name, []).append(board.used)
    figures = tuple(
        Row(f"material{i}", name, f"{len(used)} · {100 * sum(used) / len(used):.0f} %")
        for i, (name, used) in enumerate(sorted(by_name.items()))
    )
    return Sheet(
        tr("The saw"), tr("how this job's boards are cut"),
        (Group(tr("Cuts"), cuts), Group(tr("Offcuts to keep"), keep), Group(tr("Search"), search),
         Group(tr("Boards, used"), figures)),
    )  # fmt: skip


def _price_sheet(doc: Document) -> Sheet:
    w, job = doc.workings, doc.job
    p = w.price
    currency = job.price_book().currency
    rates = tuple(
        Row(key, label, f"{getattr(job.pricing, key)} %",
            apply=setter(jobs.set_percent, key))
        for key, label in (("overhead", tr("Overhead on cost")), ("margin", tr("Margin in price")),
                           ("discount", tr("Discount")), ("tax", tr("Tax")))
    )  # fmt: skip
    steps = tuple(
        Row(key, label, shown(value))
        for key, label, value in (
            ("cost", tr("Cost"), p.cost),
            ("o", tr("Overhead"), p.overhead),
            ("profit", tr("Profit"), p.profit),
            ("d", tr("Discount"), -p.discount),
            ("net", tr("Before tax"), p.net),
            ("t", tr("Tax"), p.tax),
            ("gross", tr("With tax"), p.gross),
        )
    )
    return Sheet(
        f"{shown(p.net)} {currency}", tr("before tax"), (Group(tr("From cost to price"), rates), Group(currency, steps))
    )
