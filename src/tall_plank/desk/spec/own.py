"""Rows of values that are own or inherited, over one or many units."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Row,
    length_text,
    listed,
)
from tall_plank.edits import units
from tall_plank.job import Job, Role
from tall_plank.job.inherit import Sourced, inherited_value, sourced
from tall_plank.job.standard import CHOICES
from tall_plank.measure import Length


def _shown(doc: Document, found: Sourced, choices: tuple[tuple[str, str], ...]) -> str:
    if isinstance(found.value, Length):
        return length_text(doc, found.value.mm)
    return dict(choices).get(found.value, found.value)


def own_row(
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


def finishes_for(job: Job, role: Role) -> tuple[tuple[str, str], ...]:
    return tuple((f.code, f.name) for f in job.stock.finishes if role.value in f.roles)


def handle_choices(job: Job) -> tuple[tuple[str, str], ...]:
    return (*listed(job, "handle"), ("none", tr("no handle")))


def style_choices() -> tuple[tuple[str, str], ...]:
    return tuple((code, tr(name)) for code, name in CHOICES["front_style"].items())


def same(values: list[str]) -> tuple[str, str]:
    """Text and origin of a plain value over many."""
    return (values[0], "plain") if len(set(values)) == 1 else (tr("various"), "various")


def label_words(key: str) -> str:
    return key.replace("_fit", "").replace("_", " ").capitalize()
