"""What two whole jobs come to, thing by thing, is what it was."""

from __future__ import annotations

from pathlib import Path

from kept.results import FILE, lines


def test_nothing_has_changed_that_nobody_meant_to_change(tmp_path: Path) -> None:
    """See tests/kept/results.py for how to see what changed, and how to keep it where it was meant."""
    found, kept = lines(tmp_path), FILE.read_text().splitlines()
    there, before = set(found), set(kept)
    changed = [*(f"- {x}" for x in kept if x not in there), *(f"+ {x}" for x in found if x not in before)]
    assert not changed, f"{len(changed)} lines differ:\n" + "\n".join(changed[:60])
    assert found == kept


def test_the_kept_job_has_every_kind_of_unit_and_of_thing() -> None:
    from kept.results import every_kind
    from tall_plank.job import Body
    from tall_plank.job.things.table import all_things
    from tall_plank.workings import Workings

    w = Workings(every_kind())
    assert not [u.problems for _, u in w.made.units if u.problems and not u.parts]
    there = {p.template for room in w.layout.rooms for p in room.placed}
    wanted = {t.code for t in w.job.templates if not t.corner and t.body is not Body.GAP}
    assert wanted <= there
    assert sum(bool(u.fitted) for _, u in w.made.units) >= len([f for f in w.job.stock.fittings if f.is_inside])
    kinds = {source.kind for room in w.job.rooms for source, _ in all_things(room)}
    assert len(kinds) >= 8
