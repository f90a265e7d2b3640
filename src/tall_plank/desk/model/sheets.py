"""The rows, groups and sheets that the spec sheet is made of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.edits import Change
from tall_plank.job import Job
from tall_plank.measure import Length, format_length

Apply = Callable[[Job, str], Change]


@dataclass(frozen=True)
class Row:
    """One decision or figure.

    Attributes
    ----------
    key : stable within its sheet, so that a widget can be kept
    origin : own, inherited, various or plain
    source : who gave an inherited value
    choices : (code, label) where the value is picked from a list
    stock : heading of the stock page that shows the choices with their pictures
    apply : makes the change from typed text or a chosen code; None where it is a figure only
    revert : gives up an own value
    """

    key: str
    label: str
    text: str
    origin: str = "plain"
    source: str = ""
    choices: tuple[tuple[str, str], ...] = ()
    stock: str = ""
    apply: Apply | None = field(default=None, compare=False)
    revert: Callable[[Job], Change] | None = field(default=None, compare=False)


@dataclass(frozen=True)
class Group:
    """Rows under a heading."""

    name: str
    rows: tuple[Row, ...]


@dataclass(frozen=True)
class Sheet:
    """The whole spec sheet."""

    title: str
    subtitle: str
    groups: tuple[Group, ...]


YES_NO = (("yes", "yes"), ("no", "no"))


def yes_no(value: bool) -> str:
    return tr("yes") if value else tr("no")


def yes_no_choices() -> tuple[tuple[str, str], ...]:
    return tuple((code, tr(label)) for code, label in YES_NO)


def length_text(doc: Document, mm: float) -> str:
    """A length as the job shows it."""
    return format_length(mm, doc.job.display)


def length_row(doc: Document, key: str, label: str, length: Length, apply: Apply) -> Row:
    """A typed length; a rule with a named value shows in italics with its text."""
    origin = "inherited" if length.is_rule else "plain"
    source = length.text if length.is_rule else ""
    return Row(key, label, length_text(doc, length.mm), origin, source, apply=apply)


def setter(edit: Callable[..., Change], *args: object) -> Callable[[Job, str], Change]:
    """What a row does with its text: an edit that takes the job, what is decided on, and the text as its last."""
    return lambda job, text: edit(job, *args, text)


def setting(edit: Callable[..., Change], *args: object) -> Callable[[Job], Change]:
    """An edit of the job with everything that it takes."""
    return lambda job: edit(job, *args)


def listed(job: Job, kind: str) -> tuple[tuple[str, str], ...]:
    """Codes and names of the fittings of a kind, those on the job's shortlist first."""
    found = sorted(job.stock.fittings_of(kind), key=lambda f: f.code not in job.shortlist)
    return tuple((f.code, f.name) for f in found)


def optional_row(
    doc: Document, key: str, label: str, length: Length | None, inherited: str, source: str, apply: Apply
) -> Row:
    """A length that may be inherited: shown in italics then, and given up by its button."""
    return Row(
        key,
        label,
        length_text(doc, length.mm) if length is not None else inherited,
        "own" if length is not None else "inherited",
        "" if length is not None else source,
        apply=apply,
        revert=(lambda job: apply(job, "")) if length is not None else None,
    )
