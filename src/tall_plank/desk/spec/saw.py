"""The spec sheet of the saw and the search for a cutting plan."""

from __future__ import annotations

from tall_plank.desk.look.texts import tr
from tall_plank.desk.model.document import Document
from tall_plank.desk.model.sheets import (
    Group,
    Row,
    Sheet,
    length_text,
)
from tall_plank.edits import cutting


def saw_sheet(doc: Document) -> Sheet:
    """How the boards of this job are cut, and what the plan on screen comes to."""
    saw, w = doc.job.cutting, doc.workings

    def row(key: str, label: str, text: str, source: str = "") -> Row:
        choices = tuple((code, tr(words)) for code, words in cutting.CHOICES.get(key, {}).items())
        return Row(
            key, label, text, source=source, choices=choices, apply=lambda job, t: cutting.set_cutting(job, key, t)
        )

    def chosen(key: str) -> str:
        return tr(cutting.CHOICES[key].get(str(getattr(saw, key)), str(getattr(saw, key))))

    pack = length_text(doc, saw.pack) if saw.pack else tr("one at a time")
    sawn = (
        row("turns", tr("Turns at most"), chosen("turns")),
        row("first_cut", tr("First cuts"), chosen("first_cut")),
        row("sawn_on", tr("Sawn on a"), chosen("sawn_on")),
        row("pack", tr("Pack height"), pack),
        row("opens", tr("The saw takes"), length_text(doc, saw.opens)),
    )
    by_mill = saw.gap == 0.0
    gap = row("gap", tr("Gap for the tool"), length_text(doc, w.kerf), tr("the mill's") if by_mill else "")
    cuts = (
        row("mode", tr("Cut by"), chosen("mode")),
        row("kerf", tr("Kerf"), length_text(doc, saw.kerf)) if saw.mode == "saw" else gap,
        row("trim", tr("Trimmed off each side"), length_text(doc, saw.trim)),
        *(sawn if saw.mode == "saw" else ()),
        row("matched", tr("Grain matched"), chosen("matched")),
    )
    keep = (
        row("keep_length", tr("As long as"), length_text(doc, saw.keep_length)),
        row("keep_width", tr("As wide as"), length_text(doc, saw.keep_width)),
    )
    search = (row("effort", tr("Effort"), chosen("effort")), row("seconds", tr("At most"), f"{saw.seconds:g} s"))
    by_name: dict[str, list[float]] = {}
    for board in w.plan.boards:
        by_name.setdefault(board.material, []).append(board.used)
    figures = tuple(
        Row(f"material{i}", name, f"{len(used)} · {100 * sum(used) / len(used):.0f} %")
        for i, (name, used) in enumerate(sorted(by_name.items()))
    )
    return Sheet(
        tr("The saw"), tr("how this job's boards are cut"),
        (Group(tr("Cuts"), cuts), Group(tr("Offcuts to keep"), keep), Group(tr("Search"), search),
         Group(tr("Boards, used"), figures)),
    )  # fmt: skip
