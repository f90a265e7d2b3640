"""Named job values, and the re-evaluation of every length that uses them (M5)."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import msgspec

from tall_plank.edits.change import Change
from tall_plank.job import Job, NamedValue
from tall_plank.job.rules import reevaluated
from tall_plank.measure import Length, PlankError, parse_length
from tall_plank.measure.lengths import names_in
from tall_plank.measure.limits import limits_of
from tall_plank.measure.named import check_name


def lengths_in(value: Any) -> Iterator[Length]:
    """Every Length inside a value."""
    if isinstance(value, Length):
        yield value
    elif isinstance(value, msgspec.Struct):
        for name in value.__struct_fields__:
            yield from lengths_in(getattr(value, name))
    elif isinstance(value, tuple):
        for item in value:
            yield from lengths_in(item)


def set_value(job: Job, name: str, text: str, note: str | None = None) -> Change:
    """Set a named value, or add it.

    Raises
    ------
    PlankError for a name that cannot stand, a circle, or a text that is no length
    """
    check_name(name)
    others = {k: v for k, v in job.named_values().items() if k != name}
    known = any(v.name == name for v in job.values)
    if name in names_in(text) and known:
        raise PlankError(f"“{name}” uses itself.", "Named values", "Give it a plain length or another value's name.")
    span = limits_of(NamedValue, "length")
    length = parse_length(text, job.display, others, least=span.least, most=span.most)
    if known:
        values = tuple(
            NamedValue(v.name, length, v.note if note is None else note) if v.name == name else v for v in job.values
        )
    else:
        values = (*job.values, NamedValue(name, length, note or ""))
    return Change(reevaluated(msgspec.structs.replace(job, values=values)), f"Set {name}")


def delete_value(job: Job, name: str) -> Change:
    """Take a named value away.

    Raises
    ------
    PlankError where something still uses it
    """
    users = [v.name for v in job.values if v.name != name and name in names_in(v.length.text)]
    if any(name in names_in(length.text) for length in lengths_in((job.rooms, job.units, job.treatments))):
        users.append("a length in a room, a unit or a treatment")
    users += [t.name for t in job.templates if name in names_in(t.height) | names_in(t.depth)]
    if users:
        raise PlankError(f"“{name}” is used by {users[0]}.", "Named values", "Change that first.")
    values = tuple(v for v in job.values if v.name != name)
    return Change(msgspec.structs.replace(job, values=values), f"Delete {name}")
