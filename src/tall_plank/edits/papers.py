"""Edits of how the job is put on paper."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import Change
from tall_plank.edits.pictures import with_picture, without_unused
from tall_plank.edits.rooms import read
from tall_plank.job import Job
from tall_plank.job.papers import LABEL_SHEETS, OWN, LabelSheet
from tall_plank.measure import PlankError

CHOICES = {
    "lists": {"A4": "A4", "Letter": "Letter"},
    "drawings": {
        "A3": "A3",
        "A4": "A4",
        "A2": "A2",
        "A1": "A1",
        "Tabloid": "Tabloid",
        "Letter": "Letter",
        "Broadsheet": "Broadsheet",
    },
    "chains": {"carcass": "the carcasses", "fronts": "the fronts", "worktops": "the worktops' edges"},
    "ink": {"color": "in color", "black": "in black only"},
    "csv": {"plain": "for programs", "spreadsheet": "for a spreadsheet"},
    "labels": {sheet.name: sheet.name for sheet in LABEL_SHEETS},
}

SIZES = {
    "paper_width": "paper", "paper_height": "paper", "width": "size", "height": "size", "across": "pitch",
    "down": "pitch", "left": "", "top": "",
}  # fmt: skip
"""Sizes of an own sheet of labels: the value that each is a part of."""

NAMES = ("firm", "creator", "approver")
"""What is a name, and typed."""

LEAST = (25.0, 12.0)
"""mm; a smaller label holds no number that can be read."""


def set_papers(job: Job, key: str, text: str) -> Change:
    """Say whose papers they are, on which paper, on which labels.

    Raises
    ------
    PlankError where that is not offered
    """
    value: object = text.strip()[:120]
    if key not in NAMES:
        if text not in CHOICES.get(key, {}):
            raise PlankError(f"“{text}” is not offered here.", key, f"Known: {', '.join(CHOICES.get(key, {}))}.")
        if key == "labels":
            value = next(sheet for sheet in LABEL_SHEETS if sheet.name == text)
    return _changed(job, {key: value}, f"Set the papers' {key}")


def set_logo(job: Job, wide: int, high: int, data: bytes) -> Change:
    """Give the papers the shop's mark: an image, its pixels and its file."""
    job, name = with_picture(job, wide, high, data)
    change = _changed(job, {"logo": name}, "Set the shop's mark")
    return Change(without_unused(change.job), change.name)


def drop_logo(job: Job) -> Change:
    """Take the shop's mark off the papers."""
    change = _changed(job, {"logo": ""}, "Take the shop's mark off")
    return Change(without_unused(change.job), change.name)


def set_label_size(job: Job, key: str, text: str) -> Change:
    """Give the sheet of labels an own size: of its paper, of a label, its place, how many stand there.

    Raises
    ------
    PlankError where the text is no such size, or the labels then leave their paper or one another
    """
    old = job.papers.labels
    if key in ("columns", "rows"):
        try:
            count = int(text.strip())
        except ValueError:
            raise PlankError(f"“{text}” is no number.", key, "Type how many labels stand there.") from None
        if not 1 <= count <= 40:
            raise PlankError(f"{text} is out of range.", key, "Type 1 to 40.")
        new = msgspec.structs.replace(old, **{"across" if key == "columns" else "down": count})
    elif key not in SIZES:
        raise PlankError(f"A label has no {key[:20]}.", "labels", f"Choose {', '.join(SIZES)}.")
    else:
        mm = read(job, text, least=0.0, most=1200.0).mm
        whole = SIZES[key]
        if whole:
            a, b = getattr(old, whole)
            pair = (mm, b) if key in ("paper_width", "width", "across") else (a, mm)
            new = msgspec.structs.replace(old, **{whole: pair})
        else:
            new = msgspec.structs.replace(old, **{key: mm})
    new = msgspec.structs.replace(new, name=OWN)
    _fits(new, key)
    return _changed(job, {"labels": new}, "Set a size of the labels")


def _fits(sheet: LabelSheet, key: str) -> None:
    for i, (size, least) in enumerate(zip(sheet.size, LEAST, strict=True)):
        if size < least:
            what = f"A label {size:g} mm {('wide', 'high')[i]} holds no number."
            raise PlankError(what, key, f"Give at least {least:g} mm.")
    for i, (count, first) in enumerate(((sheet.across, sheet.left), (sheet.down, sheet.top))):
        way = ("across", "down")[i]
        if count > 1 and sheet.pitch[i] < sheet.size[i] - 1e-6:
            what = f"Labels {sheet.size[i]:g} mm {('wide', 'high')[i]} do not stand {sheet.pitch[i]:g} mm apart {way}."
            raise PlankError(what, key, f"Give {sheet.size[i]:g} mm or more from one to the next.")
        end = first + (count - 1) * sheet.pitch[i] + sheet.size[i]
        if end > sheet.paper[i] + 0.05:
            what = f"{count} labels {way} end at {end:g} mm; the paper is {sheet.paper[i]:g} mm."
            raise PlankError(what, key, "Fewer labels, smaller ones, or a larger paper.")


def _changed(job: Job, values: dict[str, object], words: str) -> Change:
    return Change(msgspec.structs.replace(job, papers=msgspec.structs.replace(job.papers, **values)), words)
