"""Images that belong to a job: taken in when something uses them, let go when nothing does any more."""

from __future__ import annotations

import msgspec

from tall_plank.edits.change import new_ids
from tall_plank.job import Job
from tall_plank.job.job import Picture
from tall_plank.job.sheetset import PICTURE


def with_picture(job: Job, wide: int, high: int, data: bytes, prefix: str = "p") -> tuple[Job, str]:
    """The job with one more image (its pixels, its file), and what it is called there."""
    job, (new_id,) = new_ids(job, prefix)
    picture = Picture(f"{new_id}.jpg", wide, high, data)
    return msgspec.structs.replace(job, pictures=(*job.pictures, picture)), picture.name


def used_pictures(job: Job) -> set[str]:
    """Names of the images that plans, stock, papers and pages show."""
    found = {u.image for room in job.rooms for u in room.underlays} | job.stock.pictures()
    views = (v for s in job.sheet_sets for page in s.pages for v in page.views)
    found |= {v.what.removeprefix(PICTURE) for v in views if v.what.startswith(PICTURE)}
    return found | {job.papers.logo} - {""}


def without_unused(job: Job) -> Job:
    """The job without images that nothing shows."""
    used = used_pictures(job)
    kept = tuple(p for p in job.pictures if p.name in used)
    return job if len(kept) == len(job.pictures) else msgspec.structs.replace(job, pictures=kept)
