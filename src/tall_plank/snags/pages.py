"""Pages of drawings that show what is no longer there, and a shop's mark that is missing."""

from __future__ import annotations

from tall_plank.job import Job, Snag, Where
from tall_plank.job.sheetset import PICTURE, WALL, OwnPage, PageView
from tall_plank.snags.checked import Checked


def find(checked: Checked) -> list[Snag]:
    job = checked.job
    found = [
        Snag("page", _lost(page, view), "Take it off the page, or put something else there.", Where(), "mind")
        for sheets in job.sheet_sets
        for page in sheets.pages
        for view in page.views
        if not _there(job, view)
    ]
    if job.papers.logo and job.papers.logo not in {p.name for p in job.pictures}:
        what = "The shop's mark is missing from this job: its sheets are printed without it."
        found.append(Snag("logo", what, "Choose its file again, under Papers.", Where(), "mind"))
    return found


def _lost(page: OwnPage, view: PageView) -> str:
    name = page.title or f"G{page.number}"
    return f"Page {name} shows something that is no longer there: {view.text or view.what}."


def _there(job: Job, view: PageView) -> bool:
    """Whether what a view shows is in the job: its room, wall, section or detail."""
    if view.what.startswith(PICTURE):
        return view.what.removeprefix(PICTURE) in {p.name for p in job.pictures}
    room_id, parted, mark = view.what.partition(":")
    if not parted:
        return True
    room = next((r for r in job.rooms if r.id == room_id), None)
    if room is None:
        return False
    if mark.startswith("q"):
        return any(s.id == mark for s in room.sections)
    if mark.startswith(WALL):
        return mark.removeprefix(WALL) in (*room.line_ids(), *(f.wall for f in room.fields))
    if mark.startswith("y"):
        return any(d.id == mark for d in room.details)
    return True
