"""Choices of the shop drawn at random together: whatever stands beside whatever, counts agree and nothing is lost."""

from __future__ import annotations

from decimal import ROUND_HALF_UP, Decimal

import msgspec
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from conftest import with_run
from shop.machine_check import counted
from shop.test_machine import MACHINE
from tall_plank.edits import cutting, jobs, papers
from tall_plank.job import Job, Level
from tall_plank.job.papers import LABEL_SHEETS
from tall_plank.job.start import new_job
from tall_plank.measure import DisplayUnit
from tall_plank.papers import schedules
from tall_plank.papers.labels import labels_of
from tall_plank.papers.worksheets import work_sheets
from tall_plank.shop.sawsteps import packs_of
from tall_plank.workings import Workings

JOBS = (
    with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, door 450"),
    with_run(new_job(), "A", Level.BASE, "open 400, open 400, open 400, open 400, corner 900"),
    with_run(with_run(new_job(), "A", Level.BASE, "bow 600, pair 900"), "A", Level.HUNG, "pair 900, open 300"),
)

CHOSEN = st.fixed_dictionaries(
    {
        "mode": st.sampled_from(("saw", "router")), "sawn_on": st.sampled_from(("beam", "panel")),
        "first_cut": st.sampled_from(("either", "along", "across")), "turns": st.sampled_from(("0", "2", "3")),
        "pack": st.sampled_from(("0", "20", "60", "80")), "kerf": st.sampled_from(("0", "3.2", "6")),
        "gap": st.sampled_from(("0", "6", "12", "25")), "trim": st.sampled_from(("0", "10")),
    }
)  # fmt: skip
PRICED = st.fixed_dictionaries(
    {"boards": st.sampled_from(("area", "planned", "shares")), "packs": st.sampled_from(("no", "yes"))}
)
PAPER = st.fixed_dictionaries(
    {
        "lists": st.sampled_from(("A4", "Letter")), "drawings": st.sampled_from(("A3", "A4", "Tabloid", "Letter")),
        "csv": st.sampled_from(("plain", "spreadsheet")), "labels": st.sampled_from([s.name for s in LABEL_SHEETS]),
    }
)  # fmt: skip
ROUTER = st.fixed_dictionaries(
    {
        "zero": st.sampled_from(("front left", "back right", "middle")), "hold": st.sampled_from(("tabs", "skin")),
        "inner_corners": st.sampled_from(("round", "free")), "bed_length": st.sampled_from((3100.0, 700.0)),
        "long_side": st.sampled_from(("x", "y")),
    }
)  # fmt: skip


@settings(max_examples=25, phases=(Phase.explicit, Phase.generate))
@given(st.sampled_from(JOBS), CHOSEN, PRICED, PAPER, ROUTER, st.sampled_from(list(DisplayUnit)))
def test_any_mixture_of_choices_agrees(
    job: Job, chosen: dict[str, str], priced: dict[str, str], paper: dict[str, str], router: dict[str, object],
    unit: DisplayUnit,
) -> None:  # fmt: skip
    for key, text in chosen.items():
        job = cutting.set_cutting(job, key, text if key not in cutting.LENGTHS else f"{text}mm").job
    for key, text in priced.items():
        job = jobs.set_priced_by(job, key, text).job
    for key, text in paper.items():
        job = papers.set_papers(job, key, text).job
    w = Workings(jobs.set_display(job, unit).job, (msgspec.structs.replace(MACHINE, **router),))
    planned = {p.part for b in w.plan.boards for p in b.parts} | {i.number for i in w.blank_parts}
    parts = {i.number: i.part for i in w.made.parts() if i.number in planned}
    wanted, found = counted(w.machine_files, parts)
    assert wanted == found
    # Every board is in one pack, and has its sheet.
    packs = packs_of(w.plan, w.job.cutting, w.job.stock)
    assert sorted(n for p in packs for n in p.boards) == list(range(1, len(w.plan.boards) + 1))
    tables, pictures = work_sheets(w.plan, w.job.cutting, w.job.stock, unit)
    assert len(tables) == len(pictures) == len(packs)
    assert sorted(x.part for x in labels_of(w)) == sorted(n for row in w.cut_rows for n in row.numbers)
    # Money: lines multiply out and add up; what is bought is what the orders come to.
    for line in w.costs.lines:
        assert (line.qty * line.price).quantize(Decimal("0.01"), ROUND_HALF_UP) == line.amount
    assert w.costs.total == sum((c.amount for c in w.costs.lines), Decimal(0))
    assert w.bought.bought == sum((o.amount or Decimal(0) for o in w.orders), Decimal(0))
    assert schedules.price(w).totals[-1][-1] == w.bought.over
    assert all(s.what and s.remedy for s in w.snags)
