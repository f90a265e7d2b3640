"""Widths of cells as text: read, held against the kind, and written again. The one rule for a run's text and for a
width that is typed over a unit."""

from __future__ import annotations

from tall_plank.job import Basis, Body, Job, Template, Unit
from tall_plank.job.inherit import construction_of
from tall_plank.job.run import REST, SHARE, WidthRule
from tall_plank.measure import LengthError, format_length, parse_length
from tall_plank.measure.lengths import exact_text
from tall_plank.measure.shareout import Rule
from tall_plank.measure.units import TOLERANCE

MOST_SHARE = 1200.0
"""mm; a share whose range was typed may grow to this."""


def can_grow(template: Template) -> bool:
    """Whether units of a kind may be let grow beyond its range: those that house nothing and stand in no corner."""
    return template.body is Body.CARCASS and not (template.appliance or template.sink or template.corner)


def read_width(job: Job, text: str) -> WidthRule:
    """How a width is found, from text: a length, `clear` and a length, a range `300 to 600`, `share`, or `rest`.

    Raises
    ------
    LengthError with the position in the text
    """
    word = text.strip().lower()
    if word in ("rest", "share"):
        return REST if word == "rest" else SHARE
    named = job.named_values()
    if word.startswith("clear") and not word[5:6].isalnum():
        return WidthRule(Rule.FIXED, parse_length(text.strip()[5:], job.display, named, least=1.0), clear=True)
    low, to, high = text.partition(" to ")
    if to:
        least = parse_length(low, job.display, named, least=1.0)
        most = parse_length(high, job.display, named, least=1.0)
        if most.mm < least.mm:
            raise LengthError("The range ends below its start.", len(low) + 4, "Type the smaller width first.")
        return WidthRule(Rule.SHARE, least=least, most=most)
    return WidthRule.fixed(parse_length(text, job.display, named))


def check_width(job: Job, unit: Unit, rule: WidthRule) -> None:
    """Hold a width against the range of a unit's kind, gables included where the clear width was typed.

    Raises
    ------
    LengthError naming the width that the kind misses, and its range
    """
    template = job.template(unit.template)
    # A range of its own may let a share grow beyond its kind; what houses something stays as wide as that.
    grows = rule.most is not None and can_grow(template)
    widest = max(MOST_SHARE, template.most) if grows else template.most
    for mm in _outer(job, unit, rule):
        if not template.least - TOLERANCE <= mm <= widest + TOLERANCE:
            low, high = (format_length(v, job.display, mark=True) for v in (template.least, widest))
            word, limit = ("small", f"least {low}") if mm < template.least else ("large", f"most {high}")
            shown = format_length(mm, job.display, mark=True)
            raise LengthError(
                f"{shown} is too {word}: a {template.name.lower()} is at {limit} wide.",
                0,
                f"Type a width from {low} to {high}.",
            )


def _outer(basis: Basis, unit: Unit, rule: WidthRule) -> tuple[float, ...]:
    """The outer widths, mm, that a rule names: one, both ends of a range, or none."""
    if rule.least is not None and rule.most is not None:
        return rule.least.mm, rule.most.mm
    if rule.length is None:
        return ()
    mm = rule.length.mm
    if rule.clear and basis.template(unit.template).body is Body.CARCASS:
        mm += 2 * construction_of(basis, unit).carcass_thickness
    return (mm,)


def width_text(job: Job, rule: WidthRule) -> str:
    """A width rule as the text that makes it again."""
    if rule.rule is Rule.FIXED:
        assert rule.length is not None
        return ("clear " if rule.clear else "") + exact_text(rule.length, job.display)
    if rule.least is not None and rule.most is not None:
        return f"{exact_text(rule.least, job.display)} to {exact_text(rule.most, job.display)}"
    return rule.rule.value
