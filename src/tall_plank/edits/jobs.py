"""Edits of the job as a whole: name, client, display unit, pricing."""

from __future__ import annotations

from decimal import Decimal, InvalidOperation

import msgspec

from tall_plank.edits.change import Change
from tall_plank.job import Job
from tall_plank.measure import DisplayUnit, PlankError
from tall_plank.measure.limits import LIMITS

TEXT_KEYS = ("name", "number", "client", "site")


def set_text(job: Job, key: str, text: str) -> Change:
    """Set the job's name, number, client or site; the name may not be empty.

    Raises
    ------
    PlankError “A job has no ….”, “A job needs a name.”
    """
    if key not in TEXT_KEYS:
        raise PlankError(f"A job has no {key}.", "job", "Choose name, number, client or site.")
    if key == "name" and not text.strip():
        raise PlankError("A job needs a name.", "job", "Type one.")
    return Change(msgspec.structs.replace(job, **{key: text.strip()[:120]}), f"Set the job's {key}")


def set_display(job: Job, unit: DisplayUnit) -> Change:
    """Switch what lengths are shown in; no size changes (M2)."""
    return Change(msgspec.structs.replace(job, display=unit), f"Show lengths in {unit.value}")


PRICED_BY = {
    "boards": {
        "area": "by area with waste",
        "planned": "as planned, whole boards",
        "shares": "as planned, less offcuts",
    },
    "packs": {"no": "what is used", "yes": "whole packs"},
}
"""How things may be priced."""


def set_priced_by(job: Job, key: str, text: str) -> Change:
    """Say how boards are priced, or whether packs are.

    Raises
    ------
    PlankError where that is not offered
    """
    if text not in PRICED_BY.get(key, {}):
        raise PlankError(f"“{text}” is not offered here.", key, f"Known: {', '.join(PRICED_BY.get(key, {}))}.")
    value = text == "yes" if key == "packs" else text
    pricing = msgspec.structs.replace(job.pricing, **{key: value})
    return Change(msgspec.structs.replace(job, pricing=pricing), f"Price {key} otherwise")


def set_percent(job: Job, key: str, text: str) -> Change:
    """Set overhead, margin, discount, tax, or the share of profit that what is bought may cost more, in percent.

    Raises
    ------
    PlankError where the text is no number in the range; a margin of 95 % or more has no price
    """
    span = LIMITS["Pricing"].get(key)
    if span is None:
        raise PlankError(f"There is no {key}.", "pricing", "Choose overhead, margin, discount, tax or what is bought.")
    try:
        value = Decimal(text.strip().rstrip("%").strip().replace(",", "."))
    except InvalidOperation:
        raise PlankError(f"“{text}” is no number.", key, "Type a percentage such as 25.") from None
    if not value.is_finite() or not span.holds(value):
        raise PlankError(f"{text} % is out of range.", key, f"Type {span}.")
    pricing = msgspec.structs.replace(job.pricing, **{key: value})
    return Change(msgspec.structs.replace(job, pricing=pricing), f"Set the {key}")
