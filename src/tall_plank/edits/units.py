"""Edits of units: own values, kinds, bays, finishes, mirroring; one or many at once."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change, change_units, with_unit
from tall_plank.edits.choices import check_choice, label_of
from tall_plank.edits.rooms import read
from tall_plank.job import Body, Job, Role, Run, Split, Template, Unit
from tall_plank.job.bays import Bay, Front, mirrored
from tall_plank.job.inherit import FINISH_KEYS, OWN_LENGTH_KEYS, STANDARD_KEYS
from tall_plank.job.standard import CHOICE_KEYS
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import CONSTRUCTION, SIZES


def set_own(job: Job, cells: tuple[str, ...], key: str, text: str) -> Change:
    """Give units an own value for a key: a length by text, a choice by code. Gaps are skipped and named.

    Raises
    ------
    PlankError for an unknown key or a value that does not fit
    """
    value: Length | str
    if key.startswith("parameter."):
        return _set_parameter(job, cells, key, text)
    if key in OWN_LENGTH_KEYS:
        span = SIZES.get(key, CONSTRUCTION)
        value = read(job, text, least=span.least, most=span.most)
    elif key in FINISH_KEYS or key in CHOICE_KEYS or key in STANDARD_KEYS or key == "feet":
        check_choice(job, key, text)
        value = text
    else:
        raise PlankError(f"There is no decision called “{key}”.", "unit", "Choose a known one.")
    fits, skipped = _that_take(job, cells)
    new = change_units(job, fits, lambda unit: unit.with_own(key, value))
    return Change(new, f"Set the {label_of(key)}", skipped)


def _set_parameter(job: Job, cells: tuple[str, ...], key: str, text: str) -> Change:
    """Set a parameter of units of a kind of their own; units whose kind lacks it are skipped and named."""
    name = key.removeprefix("parameter.")
    skipped = []
    for cell_id in cells:
        _, _, cell = job.find_cell(cell_id)
        parameter = job.template_of(cell).parameter(name)
        if parameter is None:
            skipped.append(f"{cell.number}: its kind has no {name}")
            continue
        value: Length | str
        if parameter.kind == "length":
            value = read(job, text, least=parameter.least, most=parameter.most)
        else:
            try:
                number = float(text.strip().replace(",", "."))
            except ValueError:
                raise PlankError(f"“{text}” is no number.", name, "Type a plain number.") from None
            if not parameter.least <= number <= parameter.most:
                span = f"{parameter.least:g} to {parameter.most:g}"
                raise PlankError(f"{number:g} is out of range.", name, f"Type a number from {span}.")
            value = f"{number:g}"
        job = with_unit(job, job.unit(cell.unit).with_own(key, value))
    if skipped and len(skipped) == len(cells):
        raise PlankError(skipped[0] + ".", name, "Choose units of that kind.")
    return Change(job, f"Set the {name.replace('_', ' ')}", tuple(skipped))


def _that_take(job: Job, cells: tuple[str, ...]) -> tuple[tuple[str, ...], tuple[str, ...]]:
    fits, skipped = [], []
    for cell_id in cells:
        _, _, cell = job.find_cell(cell_id)
        if job.template_of(cell).body is Body.GAP:
            skipped.append("a gap has nothing to set")
        else:
            fits.append(cell_id)
    return tuple(fits), tuple(skipped)


def inherit_again(job: Job, cells: tuple[str, ...], key: str) -> Change:
    """Give up an own value; the inherited one holds again."""
    return Change(change_units(job, cells, lambda unit: unit.with_own(key, None)), f"Inherit the {label_of(key)}")


def set_kind(job: Job, cells: tuple[str, ...], template_code: str) -> Change:
    """Replace the kind of units; place, number, label and own values stay (RN3). Own values that only came from the
    old kind give way to those of the new one. Kinds that do not go into their run are skipped and named."""
    template = job.template(template_code)
    skipped: list[str] = []
    for cell_id in cells:
        _, run, cell = job.find_cell(cell_id)
        if cell.locked or not goes_into(run, template):
            why = "it is locked" if cell.locked else f"{template.name.lower()} is no {run.level} unit"
            skipped.append(f"{cell.number}: {why}")
            continue
        unit = job.unit(cell.unit)
        came = set(job.template(unit.template).own)
        kept = tuple(own for own in unit.own if own not in came)
        keys = {own.key for own in kept}
        own = tuple(sorted((*kept, *(o for o in template.own if o.key not in keys)), key=lambda o: o.key))
        job = with_unit(job, msgspec.structs.replace(unit, template=template.code, bay=template.bay, own=own))
    return Change(job, f"Change to {template.name.lower()}", tuple(skipped))


def goes_into(run: Run, template: Template) -> bool:
    """Whether units of a kind may be in a run: what fills a corner, or needs panels beside it, does not hang free."""
    return template.level in run.levels and not (run.free and (template.corner or not template.gables))


def mirror(job: Job, cells: tuple[str, ...]) -> Change:
    """Mirror units in their place: columns turn round and hands swap (RN7)."""
    return Change(change_units(job, cells, _mirror), "Mirror")


def _mirror(unit: Unit) -> Unit:
    return msgspec.structs.replace(unit, bay=mirrored(unit.bay))


def set_hand(job: Job, cells: tuple[str, ...], hand: str) -> Change:
    """Set the hinge side of single doors, of all that stand one above another; units without one are skipped and
    named."""
    skipped: list[str] = []
    for cell_id in cells:
        _, _, cell = job.find_cell(cell_id)
        unit = job.unit(cell.unit)
        bay = unit.bay
        for path, front in single_doors(unit.bay):
            new = msgspec.structs.replace(front, hand="left" if hand == "left" else "right")
            bay = bay.replaced(path, msgspec.structs.replace(bay.at(path), front=new))
        if not single_doors(unit.bay):
            skipped.append(f"{cell.number}: it has no single door")
            continue
        job = with_unit(job, msgspec.structs.replace(unit, bay=bay))
    return Change(job, "Set the hinge side", tuple(skipped))


def single_doors(bay: Bay, start: tuple[int, ...] = ()) -> tuple[tuple[tuple[int, ...], Front], ...]:
    """The doors of a unit that stand one above another, none beside another: path of the bay and front."""
    found = ((start, bay.front),) if bay.front is not None and bay.front.kind == "door" else ()
    if bay.split is Split.COLUMNS:
        return found
    return found + tuple(row for i, child in enumerate(bay.children) for row in single_doors(child, (*start, i)))


def set_shelves(job: Job, cells: tuple[str, ...], text: str) -> Change:
    """Set the number of adjustable shelves of undivided units.

    Raises
    ------
    PlankError where the text is no number from 0 to 20
    """
    try:
        count = int(text.strip())
    except ValueError:
        raise PlankError(f"“{text}” is no whole number.", "shelves", "Type a number from 0 to 20.") from None
    if not 0 <= count <= 20:
        raise PlankError(f"{count} shelves are not possible.", "shelves", "Type a number from 0 to 20.")
    skipped: list[str] = []
    for cell_id in cells:
        _, _, cell = job.find_cell(cell_id)
        unit = job.unit(cell.unit)
        if unit.bay.children or job.template_of(cell).body is not Body.CARCASS:
            skipped.append(f"{cell.number}: it takes no shelves")
            continue
        job = with_unit(job, msgspec.structs.replace(unit, bay=msgspec.structs.replace(unit.bay, shelves=count)))
    return Change(job, "Set the shelves", tuple(skipped))


def set_drawers(job: Job, cells: tuple[str, ...], text: str) -> Change:
    """Set the number of drawers of drawer stacks; all heights become equal shares.

    Raises
    ------
    PlankError “… is no number of drawers.”
    """
    if not text.strip().isdigit() or not 1 <= int(text) <= 8:
        raise PlankError(f"“{text}” is no number of drawers.", "drawers", "Type a number from 1 to 8.")
    skipped: list[str] = []
    for cell_id in cells:
        _, _, cell = job.find_cell(cell_id)
        unit = job.unit(cell.unit)
        if unit.bay.split is not Split.ROWS:
            skipped.append(f"{cell.number}: it is no drawer stack")
            continue
        child = msgspec.structs.replace(unit.bay.children[-1], size=None)
        bay = msgspec.structs.replace(unit.bay, children=(child,) * int(text))
        job = with_unit(job, msgspec.structs.replace(unit, bay=bay))
    return Change(job, "Set the drawers", tuple(skipped))


def set_scheme_finish(job: Job, role: Role, finish: str) -> Change:
    """Change the finish of a role for the whole job; units with an own finish keep it."""
    check_choice(job, f"finish_{role.value}", finish)
    scheme = job.active_scheme().with_finish(role, finish)
    schemes = tuple(scheme if s.code == scheme.code else s for s in job.schemes)
    return Change(msgspec.structs.replace(job, schemes=schemes), f"Set the {role} finish")
