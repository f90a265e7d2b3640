"""Labels of units: text with live fields in braces that follow every change (RN9)."""

from __future__ import annotations

import re
from collections.abc import Callable

from tall_plank.job import Cell, Job, Room
from tall_plank.measure import PlankError, format_length
from tall_plank.setout import Placed

FIELD = re.compile(r"\{([^{}]*)\}")

FIELDS: dict[str, Callable[[Job, Room, Placed], str]] = {
    "number": lambda job, room, p: p.number,
    "width": lambda job, room, p: format_length(p.width, job.display),
    "height": lambda job, room, p: format_length(p.height, job.display),
    "depth": lambda job, room, p: format_length(p.depth, job.display),
    "kind": lambda job, room, p: job.template(p.template).name,
    "room": lambda job, room, p: room.name,
    "wall": lambda job, room, p: p.wall_id,
    "level": lambda job, room, p: p.level.value,
}
"""What may stand in braces in a label."""


def check_label(text: str) -> str:
    """The text of a label where every field is known.

    Raises
    ------
    PlankError naming the unknown field, or a brace without its mate
    """
    for name in FIELD.findall(text):
        if name.strip() not in FIELDS:
            known = ", ".join("{" + f + "}" for f in FIELDS)
            raise PlankError(f"“{{{name}}}” is no field.", "label", f"Known: {known}.")
    if "{" in FIELD.sub("", text) or "}" in FIELD.sub("", text):
        raise PlankError("A brace stands alone.", "label", "Write fields as {width}.")
    return text[:60]


def label_rule(job: Job, cell: Cell) -> str:
    """The text of a cell's label before its fields are filled: own, of its kind, or for all; else its number."""
    if cell.label:
        return cell.label
    kind = job.unit(cell.unit).template
    rules = {rule.kind: rule.text for rule in job.labels}
    return rules.get(kind) or rules.get("*") or "{number}"


def label_of(job: Job, room: Room, placed: Placed) -> str:
    """The label of a placed unit, its fields filled."""
    cell = next((c for run in room.runs if run.id == placed.run for c in run.cells if c.id == placed.cell), None)
    if cell is None or (not job.labels and not cell.label):
        return placed.number

    return filled(label_rule(job, cell), job, room, placed)


def filled(text: str, job: Job, room: Room, placed: Placed) -> str:
    """A text about a placed unit, its fields filled; what is no field stays."""

    def fill(match: re.Match[str]) -> str:
        field = FIELDS.get(match[1].strip())
        return field(job, room, placed) if field is not None else match[0]

    return FIELD.sub(fill, text)
