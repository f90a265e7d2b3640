"""Every length that was typed as a rule, evaluated again."""

from __future__ import annotations

from typing import Any

import msgspec

from tall_plank.job.job import Job
from tall_plank.measure import Length
from tall_plank.measure.lengths import evaluate_text
from tall_plank.measure.named import evaluate_named
from tall_plank.measure.remembered import remembered

Known = tuple[tuple[str, float], ...]
"""Named values in their order, mm."""


def reevaluated(job: Job) -> Job:
    """The job with its named values and all rules evaluated again; what does not change is shared.

    Raises
    ------
    PlankError naming a circle or an unknown name
    """
    done = evaluate_named({v.name: v.length.text for v in job.values})
    known = tuple(done.items())
    values = tuple(msgspec.structs.replace(v, length=Length(v.length.text, done[v.name])) for v in job.values)
    return msgspec.structs.replace(
        job,
        values=values,
        rooms=_walk(job.rooms, known),
        units=_walk(job.units, known),
        treatments=_walk(job.treatments, known),
    )


def _walk(value: Any, known: Known) -> Any:
    if isinstance(value, Length):
        return _length(value, known) if value.is_rule else value
    if isinstance(value, msgspec.Struct):
        return _again(value, known)
    if isinstance(value, tuple):
        items = tuple(_walk(item, known) for item in value)
        return value if all(a is b for a, b in zip(items, value, strict=True)) else items
    return value


def _length(value: Length, known: Known) -> Length:
    mm = evaluate_text(value.text, dict(known))
    return value if mm == value.mm else Length(value.text, mm)


@remembered(16384)
def _again(value: msgspec.Struct, known: Known) -> Any:
    changed = {}
    for name in value.__struct_fields__:
        old = getattr(value, name)
        new = _walk(old, known)
        if new is not old:
            changed[name] = new
    return msgspec.structs.replace(value, **changed) if changed else value
