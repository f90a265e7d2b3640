"""Every file comes in by one door: it bounds size, and turns whatever goes wrong into a message."""

from __future__ import annotations

import io
import json
import os
import zipfile
from decimal import Decimal
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.formats import door
from tall_plank.formats.door import bytes_of, check_archive, csv_rows, json_of, read_toml, text_of, through
from tall_plank.measure import PlankError


@pytest.mark.parametrize(
    ("error", "said"),
    [
        (KeyError("x"), "damaged"), (ZeroDivisionError(), "damaged"), (MemoryError(), "memory"),
        (RecursionError(), "inside one another"), (OSError(5, "Input/output error"), "Input/output error"),
        (UnicodeDecodeError("utf-8", b"\xff", 0, 1, "x"), "UTF-8"),
    ],
)  # fmt: skip
def test_whatever_goes_wrong_is_a_message_with_its_file(error: Exception, said: str) -> None:
    with pytest.raises(PlankError) as told, through("a.list", "list", "Save it again."):
        raise error
    assert said in told.value.what and told.value.where == "a.list"


def test_what_was_said_inside_goes_through_as_it_is() -> None:
    with pytest.raises(PlankError) as told, through("a.list", "list", ""):
        raise PlankError("No.", "row 3", "Mend it.")
    assert told.value.where == "row 3"


def test_what_is_no_plain_file_stays_outside(tmp_path: Path) -> None:
    pipe = tmp_path / "pipe"
    os.mkfifo(pipe)  # opening it would wait for ever
    for path in (pipe, tmp_path, Path("/dev/zero")):
        with pytest.raises(PlankError, match="no plain file"):
            bytes_of(path, 100, "list")
    with pytest.raises(PlankError, match="cannot be read"):
        bytes_of(tmp_path / "nowhere", 100, "list")
    with pytest.raises(PlankError, match=r"cannot be read|damaged"):
        bytes_of(Path("a\0b"), 100, "list")
    (tmp_path / "large").write_bytes(b"x" * 101)
    with pytest.raises(PlankError, match="too large"):
        bytes_of(tmp_path / "large", 100, "list")
    assert len(bytes_of(tmp_path / "large", 101, "list")) == 101


def test_text_comes_without_the_mark_before_it_and_with_one_kind_of_line_end(tmp_path: Path) -> None:
    (tmp_path / "a").write_bytes(b"\xef\xbb\xbfone\r\ntwo\n")
    assert text_of(tmp_path / "a", 100, "list") == "one\ntwo\n"
    (tmp_path / "a").write_bytes(b"\xff\xfe")
    with pytest.raises(PlankError, match="UTF-8"):
        text_of(tmp_path / "a", 100, "list")


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("[" * 100_000, "inside one another|values"), ("NaN", "makes no sense"), ("[1e999]", "makes no sense"),
        ("9" * 5000, "makes no sense"), ("{", "no JSON"), ("[" + "1," * 2_000_000 + "1]", "too many values"),
        ("\ud800", "no JSON"), ('{"a": -Infinity}', "makes no sense"),
    ],
)  # fmt: skip
def test_json_that_makes_no_sense_is_refused(text: str, said: str) -> None:
    with pytest.raises(PlankError, match=said):
        json_of(text.encode("utf-8", "surrogatepass"), "x.json", "list", "Save it again.")


@given(st.recursive(st.none() | st.booleans() | st.floats(allow_nan=False, allow_infinity=False) | st.text(), st.lists))
def test_json_that_makes_sense_is_read(value: object) -> None:
    assert json_of(json.dumps(value).encode(), "x", "list", "") == value


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("a = " + "[" * 900 + "]" * 900, "inside one another"), ("a = " + "9" * 6000, "cannot be read|no sense"),
        ("a = 1\nb = nan", "line 2.*no sense"), ("a = 1e999999999", "line 1.*no sense"), ("a = inf", "no sense"),
        ("a = 1" + "0" * 30, "no sense"), ("a = ", "well-formed"), ("[a\n", "line 1"),
    ],
)  # fmt: skip
def test_toml_that_makes_no_sense_is_refused_at_its_line(tmp_path: Path, text: str, said: str) -> None:
    path = tmp_path / "x.toml"
    path.write_text(text)
    with pytest.raises(PlankError, match=said):
        read_toml(path)


def test_toml_keeps_money_exact(tmp_path: Path) -> None:
    (tmp_path / "x.toml").write_text("price = 24.10\n[[row]]\nn = 5\n")
    assert read_toml(tmp_path / "x.toml") == {"price": Decimal("24.10"), "row": [{"n": 5}]}


def test_lists_are_parted_by_what_their_heads_are_parted_by() -> None:
    assert csv_rows("a;b\n1,5;2\n", "x") == [["a", "b"], ["1,5", "2"]]
    assert csv_rows('a\tb\n"x\ty"\t2\n', "x")[1] == ["x\ty", "2"]
    with pytest.raises(PlankError, match="well-formed"):
        csv_rows('a,b\n"x,2\n', "x")
    with pytest.raises(PlankError, match="100,000 rows"):
        csv_rows("a\n" * (door.MOST_LINES + 2), "x")


def packed(*entries: tuple[str, bytes]) -> bytes:
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in entries:
            archive.writestr(name, data)
    return buffer.getvalue()


def test_a_plain_archive_comes_in() -> None:
    check_archive(packed(("mimetype", b"x"), ("a/b.json", b"{}" * 1000)), "x", "job")


@pytest.mark.parametrize("name", ["../x", "/x", "a/../../x", "..\\x", "\\x", "C:\\x", "C:/x"])
def test_names_that_lead_out_of_an_archive_stay_outside(name: str) -> None:
    with pytest.raises(PlankError, match="bad names"):
        check_archive(packed(("ok", b""), (name, b"")), "x", "job")
