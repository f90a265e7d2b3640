"""The desktop's own validators and published rules against what is installed and written.

- Desktop Entry Specification 1.5 and `desktop-file-validate` (desktop-file-utils), AppStream 1.0 and `appstreamcli`
  (appstream), Shared MIME-info Specification 0.22 and `update-mime-database`: run where they are installed.
- OCF, EPUB 3.3 section 4.2.2 (W3C), the same rule as ISO/IEC 26300 (ODF 1.2 part 3, 3.3): the first entry of the
  archive is `mimetype`, stored, so that the name stands at byte 30 and the type at byte 38.
- Zip: overlapping entries (D. Fifield, “A better zip bomb”, USENIX WOOT 2019); the figures of ratios from there.
"""

from __future__ import annotations

import io
import shutil
import struct
import subprocess
import xml.etree.ElementTree as ET
import zipfile
import zlib
from pathlib import Path

import pytest

from tall_plank.cli import main
from tall_plank.files.plankfile import MIMETYPE, read_plank, write_plank
from tall_plank.formats.door import check_archive
from tall_plank.install import DESKTOP, Places, install, started_by
from tall_plank.job.start import new_job
from tall_plank.measure import PlankError


def needs(program: str):  # type: ignore[no-untyped-def]
    return pytest.mark.skipif(shutil.which(program) is None, reason=f"{program} is not installed")


@pytest.fixture(scope="module")
def data(tmp_path_factory: pytest.TempPathFactory) -> Path:
    root = tmp_path_factory.mktemp("a desk")
    install(main, Places(root / "data", root / "bin", root / "config"), started_by())
    return root / "data"


@needs("desktop-file-validate")
def test_the_entry_is_valid(data: Path) -> None:
    told = subprocess.run(
        ["desktop-file-validate", data / "applications/tall-plank.desktop"], capture_output=True, text=True, check=False
    )
    assert (told.returncode, told.stdout + told.stderr) == (0, "")


@needs("appstreamcli")
def test_the_metainfo_is_valid(data: Path) -> None:
    (path,) = (data / "metainfo").iterdir()
    told = subprocess.run(
        ["appstreamcli", "validate", "--no-net", "--pedantic", path], capture_output=True, text=True, check=False
    )
    assert told.returncode == 0 and "Validation was successful." in told.stdout, told.stdout


@needs("update-mime-database")
def test_the_kind_of_file_is_taken_by_the_database(data: Path) -> None:
    subprocess.run(["update-mime-database", data / "mime"], check=True, capture_output=True)
    assert f"{MIMETYPE}:*.plank" in (data / "mime/globs").read_text()
    assert MIMETYPE.encode() in (data / "mime/magic").read_bytes()


def test_a_job_is_told_by_its_first_bytes(tmp_path: Path) -> None:
    write_plank(new_job(), tmp_path / "a.plank")
    head = (tmp_path / "a.plank").read_bytes()[:200]
    assert head[:4] == b"PK\x03\x04" and head[30:38] == b"mimetype"
    assert head[38 : 38 + len(MIMETYPE)] == MIMETYPE.encode()
    assert struct.unpack("<H", head[8:10]) == (0,)  # stored
    match = ET.parse(DESKTOP / "tall-plank.xml").find(".//{*}match")
    assert match is not None
    at, value = int(match.attrib["offset"]), match.attrib["value"].encode()
    assert head[at : at + len(value)] == value


def overlapping(count: int, size: int) -> bytes:
    """An archive whose entries all quote one kernel: the pattern of overlapping entries."""
    packer = zlib.compressobj(9, zlib.DEFLATED, -15)
    kernel = packer.compress(b"\0" * size) + packer.flush()
    crc = zlib.crc32(b"\0" * size)
    name = b"a"
    local = (
        struct.pack("<4s5H3I2H", b"PK\x03\x04", 20, 0, 8, 0, 33, crc, len(kernel), size, len(name), 0) + name + kernel
    )
    central = b"".join(
        struct.pack("<4s6H3I5H2I", b"PK\x01\x02", 20, 20, 0, 8, 0, 33, crc, len(kernel), size, 5, 0, 0, 0, 0, 0, 0)
        + f"{i:05d}".encode()
        for i in range(count)
    )
    end = struct.pack("<4s4H2IH", b"PK\x05\x06", 0, 0, count, count, len(central), len(local), 0)
    return local + central + end


def test_entries_that_lie_in_one_another_are_refused_before_they_are_unpacked(tmp_path: Path) -> None:
    # Many small ones stay below every limit of size: what tells them is that they pack to more than there is.
    data = overlapping(1500, 20_000)
    assert len(zipfile.ZipFile(io.BytesIO(data)).infolist()) == 1500  # it can be listed like any other
    with pytest.raises(PlankError, match="in one another"):
        check_archive(data, "x", "job")
    (tmp_path / "x.plank").write_bytes(data)
    with pytest.raises(PlankError):
        read_plank(tmp_path / "x.plank")


@pytest.mark.parametrize(("count", "size"), [(250, 21_000_000), (1, 1_100_000_000)])
def test_archives_of_the_published_ratios_are_refused(count: int, size: int) -> None:
    # 42 kB to 5.5 GB without nesting (zbsm.zip: 250 entries of 21.7 MB), and one large entry.
    if size > 1_000_000_000:
        packer = zlib.compressobj(9, zlib.DEFLATED, -15)
        block = b"\0" * 10_000_000
        kernel = b"".join(packer.compress(block) for _ in range(3)) + packer.flush()
        local = struct.pack("<4s5H3I2H", b"PK\x03\x04", 20, 0, 8, 0, 33, 0, len(kernel), size, 1, 0) + b"a" + kernel
        central = struct.pack(
            "<4s6H3I5H2I", b"PK\x01\x02", 20, 20, 0, 8, 0, 33, 0, len(kernel), size, 1, 0, 0, 0, 0, 0, 0
        )
        data = (
            local + central + b"a" + struct.pack("<4s4H2IH", b"PK\x05\x06", 0, 0, 1, 1, len(central) + 1, len(local), 0)
        )
    else:
        data = overlapping(count, size)
    assert len(data) < 100_000
    with pytest.raises(PlankError, match="too much"):
        check_archive(data, "x", "job")


def test_an_archive_in_an_archive_is_not_looked_into(tmp_path: Path) -> None:
    inner = io.BytesIO()
    with zipfile.ZipFile(inner, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("job.json", b" " * 1_000_000)
    with zipfile.ZipFile(tmp_path / "x.plank", "w") as archive:
        archive.writestr("mimetype", MIMETYPE)
        archive.writestr("job.json", inner.getvalue())
    with pytest.raises(PlankError, match="damaged"):
        read_plank(tmp_path / "x.plank")
