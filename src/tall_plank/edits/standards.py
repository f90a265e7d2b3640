"""Edits of the job's shop standards: put in force, applied to units, edited, copied, read (MK1)."""

from __future__ import annotations

import math
import re

import msgspec

from tall_plank.edits.change import Change, change_units
from tall_plank.edits.choices import check_choice, label_of
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.units import set_own
from tall_plank.job import Job, Standard
from tall_plank.job.standard import (
    CHOICE_KEYS,
    LENGTH_KEYS,
    PARTS,
    HingeRule,
    LegRule,
    LengthValue,
    construction_from,
    impossible,
    unfitting,
)
from tall_plank.measure import Length, PlankError, format_length
from tall_plank.measure.lengths import exact_text

RULES = ("hinge_rules", "leg_rules")


def use_standard(job: Job, code: str) -> Change:
    """Put a standard in force for the whole job; units with one of their own keep it."""
    standard = job.standard_by(code)
    return Change(msgspec.structs.replace(job, standard=code), f"Use {standard.name}")


def apply_standard(job: Job, cells: tuple[str, ...], code: str, part: str = "") -> Change:
    """Give units a standard of their own, or one part of it (only joints, only edging). Gaps are skipped and named.

    Raises
    ------
    PlankError “A standard has no part ….”
    """
    if part and part not in PARTS:
        raise PlankError(f"A standard has no part “{part}”.", "standard", f"Known: {', '.join(PARTS)}.")
    standard = job.standard_by(code)
    change = set_own(job, cells, f"standard.{part}" if part else "standard", code)
    name = f"Apply {standard.name}" if not part else f"Apply the {part} of {standard.name}"
    return Change(change.job, name, change.skipped)


def follow_job(job: Job, cells: tuple[str, ...]) -> Change:
    """Let units follow the job's standard again, whole and in every part. Own single values stay."""

    def plain(unit):  # type: ignore[no-untyped-def]
        own = tuple(o for o in unit.own if o.key != "standard" and not o.key.startswith("standard."))
        return msgspec.structs.replace(unit, own=own)

    return Change(change_units(job, cells, plain), "Follow the job's standard")


def _replaced(job: Job, standard: Standard, name: str) -> Change:
    standards = tuple(standard if s.code == standard.code else s for s in job.standards)
    return Change(msgspec.structs.replace(job, standards=standards), name)


def set_value(job: Job, code: str, key: str, text: str) -> Change:
    """Set one value, or one table of rules, of a standard.

    Raises
    ------
    PlankError for an unknown key, a text that is no length, or a choice that there is not
    """
    standard = job.standard_by(code)
    if key in LENGTH_KEYS:
        new = standard.with_length(key, read_in(job, text, LengthValue, "length"))
    elif key in CHOICE_KEYS:
        check_choice(job, key, text)
        new = standard.with_choice(key, text)
    elif key == "hinge_rules":
        rows = tuple(HingeRule(a, b, int(n)) for a, b, n in _rows(job, text, 2))
        new = msgspec.structs.replace(standard, hinge_rules=tuple(sorted(rows, key=lambda r: (r.height, r.weight))))
    elif key == "leg_rules":
        legs = tuple(LegRule(a, int(n)) for a, n in _rows(job, text, 1))
        new = msgspec.structs.replace(standard, leg_rules=tuple(sorted(legs, key=lambda r: r.width)))
    else:
        raise PlankError(f"The standard has no “{key}”.", "standard", "Choose a known value.")
    for wrong, what, remedy in _newly_wrong(job, standard, new):
        nearest = _nearest(job, standard, key, new) if key in LENGTH_KEYS else None
        if nearest is not None:
            shown = format_length(nearest, job.display, mark=True)
            remedy = f"{shown} is the nearest {label_of(key)} that works."
        raise PlankError(what, label_of(wrong), remedy)
    return _replaced(job, new, f"Set the standard's {label_of(key)}")


def _newly_wrong(job: Job, old: Standard, new: Standard) -> list[tuple[str, str, str]]:
    """Values of a changed standard that cannot stand together, and could before: key, what is wrong, remedy."""
    before, after = construction_from(old), construction_from(new)
    known = {k for k, *_ in (*impossible(before), *unfitting(before, job.stock))}
    return [row for row in (*impossible(after), *unfitting(after, job.stock)) if row[0] not in known]


STEP = 0.1
"""mm; the nearest value that works is told on this step."""


def _nearest(job: Job, standard: Standard, key: str, refused: Standard) -> float | None:
    """The value of a length nearest to a refused one with which nothing new is wrong, mm: halving between the one that
    stood before and the refused one."""
    works: float = getattr(construction_from(standard), key)
    fails: float = getattr(construction_from(refused), key)

    def fits(mm: float) -> bool:
        return not _newly_wrong(job, standard, standard.with_length(key, Length(f"{mm:g}mm", mm)))

    for _ in range(24):
        middle = (works + fails) / 2
        works, fails = (middle, fails) if fits(middle) else (works, middle)
    # On a whole step, on the side that works.
    tries = sorted((math.floor(works / STEP) * STEP, math.ceil(works / STEP) * STEP), key=lambda mm: abs(mm - fails))
    return next((round(mm, 6) for mm in tries if fits(round(mm, 6))), None)


def set_in_force(job: Job, key: str, text: str) -> Change:
    """Change one value of the shop standard in force."""
    return set_value(job, job.standard, key, text)


def _rows(job: Job, text: str, limits: int) -> list[tuple[float, ...]]:
    """Rows such as `900 6kg: 2; 1600 12kg: 3` (height, weight: number) or `900: 4` (width: number)."""
    found: list[tuple[float, ...]] = []
    for i, row in enumerate((r for r in text.split(";") if r.strip()), 1):
        head, sign, count = row.partition(":")
        words = head.replace("kg", "").split()
        if not sign or len(words) != limits or not count.strip().isdigit() or not 1 <= int(count) <= 20:
            example = "900 6kg: 2; 1600 12kg: 3" if limits == 2 else "900: 4; 1800: 6"
            raise PlankError(f"“{row.strip()}” is no rule.", f"rule {i}", f"Write {example}.")
        first = read(job, words[0], least=1.0, most=5000.0).mm
        try:
            rest = [float(w.replace(",", ".")) for w in words[1:]]
        except ValueError:
            raise PlankError(f"“{words[1]}” is no weight.", f"rule {i}", "Write kilograms: 900 6kg: 2.") from None
        found.append((first, *rest, float(int(count))))
    if not found:
        raise PlankError("There has to be one rule at least.", "rules", "Write one.")
    return found


def rules_text(job: Job, standard: Standard, key: str) -> str:
    """A table of rules as the text that makes it again."""

    def length(mm: float) -> str:
        return exact_text(Length.of(mm), job.display, spaces=False)

    if key == "hinge_rules":
        return "; ".join(f"{length(r.height)} {r.weight:g}kg: {r.count}" for r in standard.hinge_rules)
    return "; ".join(f"{length(r.width)}: {r.count}" for r in standard.leg_rules)


def copy_standard(job: Job, code: str, name: str) -> Change:
    """A standard of one's own that starts as a copy of another.

    Raises
    ------
    PlankError where the name is empty or taken
    """
    name = name.strip()[:60]
    if not name or any(s.name.lower() == name.lower() for s in job.standards):
        raise PlankError(f"The name “{name}” is empty or taken.", "standard", "Type another one.")
    slug = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or "standard"
    taken = {s.code for s in job.standards}
    new_code = next(c for c in (slug, *(f"{slug}-{i}" for i in range(2, 999))) if c not in taken)
    new = msgspec.structs.replace(job.standard_by(code), code=new_code, name=name)
    return Change(msgspec.structs.replace(job, standards=(*job.standards, new)), f"Copy to {name}")


def delete_standard(job: Job, code: str) -> Change:
    """Take a standard out of the job.

    Raises
    ------
    PlankError where it is in force or a unit uses it
    """
    standard = job.standard_by(code)
    if job.standard == code:
        raise PlankError(f"{standard.name} is in force.", "standard", "Put another one in force first.")
    users = [c.number for c in job.cells() if any(o.value == code for o in job.unit(c.unit).own)]
    if users:
        raise PlankError(f"{users[0]} is made by {standard.name}.", "standard", "Give it another one first.")
    rest = tuple(s for s in job.standards if s.code != code)
    return Change(msgspec.structs.replace(job, standards=rest), f"Delete {standard.name}")


def add_standard(job: Job, standard: Standard) -> Change:
    """Put a standard that was read from a file into the job; one of its code is replaced."""
    if any(s.code == standard.code for s in job.standards):
        return _replaced(job, standard, f"Replace {standard.name}")
    return Change(msgspec.structs.replace(job, standards=(*job.standards, standard)), f"Add {standard.name}")


def value_text(job: Job, standard: Standard, key: str) -> str:
    """A value of a standard as it is shown and typed."""
    if key in RULES:
        return rules_text(job, standard, key)
    value = standard.values()[key]
    return format_length(value.mm, job.display) if isinstance(value, Length) else value


def differing(standards: tuple[Standard, ...]) -> set[str]:
    """Keys whose values are not the same in all standards."""
    tables = [s.values() for s in standards]
    found = set()
    for key in (*LENGTH_KEYS, *CHOICE_KEYS):
        values = {v.mm if isinstance(v, Length) else v for v in (t[key] for t in tables)}
        if len(values) > 1:
            found.add(key)
    for key in RULES:
        if len({getattr(s, key) for s in standards}) > 1:
            found.add(key)
    return found
