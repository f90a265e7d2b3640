"""The job file: NAME.plank, a ZIP that holds the whole job. See docs/file-format.md.

Written to a temporary file beside it, flushed, renamed; the previous one is kept as NAME.plank.bak. Read with
limits on sizes, counts and names before anything is unpacked.
"""

from __future__ import annotations

import hashlib
import inspect
import io
import re
import zipfile
from pathlib import Path
from typing import Any

import msgspec

from tall_plank.edits.pictures import used_pictures
from tall_plank.edits.whole import check_whole
from tall_plank.formats.door import bytes_of, check_archive, json_of, through
from tall_plank.formats.envelope import brought_up, marked
from tall_plank.formats.table import JOB
from tall_plank.formats.writing import write_atomic
from tall_plank.job import Job, Picture
from tall_plank.job.issue import Issue, signature_of
from tall_plank.job.papers import Papers
from tall_plank.measure import PlankError

MIMETYPE = "application/vnd.tallplank.job+zip"
MAX_JSON = 32 * 1024 * 1024
MAX_PACKED = 512 * 1024 * 1024


class Envelope(msgspec.Struct, frozen=True):
    """What job.json holds: its kind and the number of its format, the program's version, the job."""

    kind: str
    format: int
    program: str
    job: Job


def job_bytes(job: Job) -> bytes:
    """job.json: UTF-8, sorted keys."""
    from tall_plank import __version__

    return msgspec.json.encode(Envelope(JOB.kind, JOB.number, __version__, job), order="sorted")


def job_from_bytes(data: bytes, where: str) -> Job:
    """Read job.json.

    Raises
    ------
    PlankError for text that is no job, a newer format, or a value out of place (naming it)
    """
    with through(where, "job inside", JOB.remedy):
        return _job_of(json_of(data, where, "job inside", JOB.remedy), where)


def _job_of(raw: Any, where: str) -> Job:
    if not isinstance(raw, dict) or "format" not in raw:
        raise PlankError("The job inside has no format number.", where, JOB.remedy)
    content = marked(brought_up(raw, JOB, where, "job"), JOB)
    try:
        job = msgspec.convert(content, Envelope, strict=False).job
    except msgspec.ValidationError as error:
        raise PlankError(f"The job inside is damaged: {error}.", where, "Open its .bak file.") from None
    try:
        check_whole(job)
    except PlankError as error:
        raise PlankError(error.what, f"{where}, {error.where}", error.remedy or "Open its .bak file.") from None
    return job


def write_plank(job: Job, path: Path, preview: bytes = b"") -> None:
    """Write a job file so that a crash leaves the old one or the new one, never a half.

    Raises
    ------
    PlankError where the folder cannot be written; the old file is untouched
    """
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        stamp = (1980, 1, 1, 0, 0, 0)  # no clock: the same job gives the same file
        archive.writestr(zipfile.ZipInfo("mimetype", stamp), MIMETYPE, zipfile.ZIP_STORED)
        info = zipfile.ZipInfo("job.json", stamp)
        bare = tuple(msgspec.structs.replace(p, data=b"") for p in job.pictures)
        issues = tuple(msgspec.structs.replace(i, data=b"") for i in job.issues)
        lean = msgspec.structs.replace(job, pictures=bare, issues=issues)
        archive.writestr(info, job_bytes(lean), zipfile.ZIP_DEFLATED)
        for issue in job.issues:
            archive.writestr(zipfile.ZipInfo(f"issued/{issue.name}", stamp), issue.data, zipfile.ZIP_STORED)
        for picture in job.pictures:
            archive.writestr(zipfile.ZipInfo(f"assets/{picture.name}", stamp), picture.data, zipfile.ZIP_STORED)
        if preview:
            archive.writestr(zipfile.ZipInfo("preview.png", stamp), preview, zipfile.ZIP_STORED)
    write_atomic(path, buffer.getvalue(), backup=True)


def read_plank(path: Path) -> Job:
    """Read a job file.

    Raises
    ------
    PlankError for a file that is missing, foreign, damaged, hostile or newer; nothing is half read
    """
    name = path.name
    packed = bytes_of(path, MAX_PACKED, "job")
    if not zipfile.is_zipfile(io.BytesIO(packed)):
        raise PlankError("This is not a Tall Plank job, or it is damaged.", name, "Open its .bak file.")
    check_archive(packed, name, "job")
    with through(name, "job", "Open its .bak file."), zipfile.ZipFile(io.BytesIO(packed)) as archive:
        infos = archive.infolist()
        if not infos or infos[0].filename != "mimetype" or archive.read(infos[0])[:200] != MIMETYPE.encode():
            raise PlankError("This is not a Tall Plank job.", name, "Choose a .plank file.")
        if "job.json" not in archive.namelist():
            raise PlankError("There is no job inside.", name, "Open its .bak file or a saved copy.")
        with archive.open("job.json") as file:
            data = file.read(MAX_JSON + 1)
        if len(data) > MAX_JSON:
            raise PlankError("The job inside is too large.", name, "Ask where the file comes from.")
        assets = {i.filename: archive.read(i) for i in infos if i.filename.startswith(("assets/", "issued/"))}
    job = job_from_bytes(data, name)
    pictures = tuple(_filled(p, assets, name) for p in job.pictures if not _lost_logo(job, p, assets))
    return msgspec.structs.replace(job, pictures=pictures, issues=tuple(_issued(i, assets, name) for i in job.issues))


def _issued(issue: Issue, assets: dict[str, bytes], where: str) -> Issue:
    """An issue with its file out of the archive: what was given out, or it is told that it is not."""
    data = issue.data or assets.get(f"issued/{issue.name}", b"")
    if hashlib.sha256(data).hexdigest() != issue.seal:
        what = f"The issued set {issue.letter[:4]} for the {issue.kind[:12]} is missing or was changed."
        raise PlankError(what, where, "Open its .bak file.")
    if issue.signed_by and issue.signature != signature_of(issue.seal, issue.signed_by, issue.signed_on):
        what = f"The signature under the set {issue.letter[:4]} for the {issue.kind[:12]} does not belong to it."
        raise PlankError(what, where, "Open its .bak file.")
    return msgspec.structs.replace(issue, data=data)


def _lost_logo(job: Job, picture: Picture, assets: dict[str, bytes]) -> bool:
    """Whether a picture is the shop's mark alone and its file is gone: the job is whole without it, and says so."""
    if picture.name != job.papers.logo or picture.data or f"assets/{picture.name}" in assets:
        return False
    return picture.name not in used_pictures(msgspec.structs.replace(job, papers=Papers()))


def _filled(picture: Picture, assets: dict[str, bytes], where: str) -> Picture:
    """A picture with its file out of the archive."""
    data = picture.data or assets.get(f"assets/{picture.name}", b"")
    if not re.fullmatch(r"[a-z0-9]{1,40}\.(jpg|png)", picture.name) or picture.wide < 2 or picture.high < 2:
        raise PlankError("A picture of the job has a bad name or size.", where, "Open its .bak file.")
    if not data.startswith((b"\xff\xd8\xff", b"\x89PNG\r\n")):
        raise PlankError(f"The picture {picture.name[:40]} is missing or no image.", where, "Open its .bak file.")
    return msgspec.structs.replace(picture, data=data)


def json_schema() -> bytes:
    """The JSON Schema of job.json, for docs/."""
    schema = _plain_texts(msgspec.json.schema(Envelope))
    return msgspec.json.format(msgspec.json.encode(schema, order="sorted"), indent=1)


def _plain_texts(value: Any) -> Any:
    """A schema whose texts have no indent: Python 3.13 takes it off docstrings, those before leave it."""
    if isinstance(value, dict):
        return {
            key: inspect.cleandoc(inner) if key == "description" and isinstance(inner, str) else _plain_texts(inner)
            for key, inner in value.items()
        }
    return [_plain_texts(inner) for inner in value] if isinstance(value, list) else value
