"""A place on the desktop: what is installed is well-formed, starts the program, and goes away without a trace."""

from __future__ import annotations

import configparser
import re
import subprocess
import sys
import xml.etree.ElementTree as ET
from pathlib import Path

import pytest

from tall_plank import __version__
from tall_plank.cli import main
from tall_plank.install import MIME, Places, completion, install, manual, quoted, started_by, uninstall
from tall_plank.measure import PlankError


@pytest.fixture
def places(tmp_path: Path) -> Places:
    home = tmp_path / "a home with 100% $pace"
    return Places(home / "data", home / "bin", home / "config")


def everything(places: Places) -> set[Path]:
    return {p for root in (places.data, places.programs, places.config) for p in root.rglob("*") if p.is_file()}


def test_what_is_installed_starts_the_program(places: Places) -> None:
    done = install(main, places, started_by())
    assert all(p.is_file() for p in done)
    told = subprocess.run(
        [places.programs / "tall-plank", "measure", "2' 6"], capture_output=True, text=True, check=True
    )
    assert told.stdout == "762 mm\n"
    entry = configparser.RawConfigParser()
    entry.optionxform = str  # type: ignore[assignment,method-assign]
    entry.read(places.data / "applications/tall-plank.desktop", encoding="utf-8")
    values = dict(entry["Desktop Entry"])
    assert values["Type"] == "Application" and values["MimeType"] == f"{MIME};" and values["Icon"] == "tall-plank"
    assert values["TryExec"] == str(places.programs / "tall-plank")
    # As a desktop reads it: first the escapes of a string, then the quotes of an Exec line, then its field codes.
    line = values["Exec"].replace("\\\\", "\\")
    word, rest = re.fullmatch(r'"((?:[^"\\]|\\.)*)" (.*)', line).groups()  # type: ignore[union-attr]
    assert re.sub(r"\\(.)", r"\1", word).replace("%%", "%") == str(places.programs / "tall-plank") and rest == "%f"


def test_it_goes_away_without_a_trace_and_takes_nothing_along(places: Places) -> None:
    places.data.mkdir(parents=True)
    other = places.data / "applications" / "other.desktop"
    other.parent.mkdir()
    other.write_text("mine")
    done = install(main, places, started_by())
    again = install(main, places, started_by())  # over an earlier one
    assert done == again
    gone = uninstall(places)
    assert set(gone) == set(done)
    left = {p for p in everything(places) if p.parent.name != "mime" and "mime" not in p.parts[-3:]}
    assert left - {places.data / "applications" / "mimeinfo.cache"} == {other}
    assert uninstall(places) == []


def test_a_note_that_somebody_changed_takes_nothing_else_away(places: Places, tmp_path: Path) -> None:
    install(main, places, started_by())
    precious = tmp_path / "tall tales.txt"
    precious.write_text("mine")
    mine = places.data / "mine.txt"
    mine.write_text("mine")
    noted = places.data / "tall-plank" / "installed.txt"
    noted.write_text(noted.read_text() + f"{precious}\n{mine}\n{places.data}/../../{precious.name}\n\n/\n")
    uninstall(places)
    assert precious.exists() and mine.exists()


def test_a_folder_that_cannot_be_written_leaves_nothing_half_done(places: Places) -> None:
    places.data.mkdir(parents=True)
    (places.data / "man").write_text("in the way")
    with pytest.raises(PlankError, match="cannot be installed"):
        install(main, places, started_by())
    assert everything(places) == {places.data / "man"}


@pytest.mark.parametrize(
    ("word", "shown"),
    [
        ("/usr/bin/tall-plank", "/usr/bin/tall-plank"), ("/a b/x", '"/a b/x"'), ("/100%/x", '"/100%%/x"'),
        ("/$x", '"/\\\\$x"'), ("/`x`", '"/\\\\`x\\\\`"'), ('/"x', '"/\\\\"x"'), ("/\\x", '"/\\\\\\\\x"'),
    ],
)  # fmt: skip
def test_words_of_an_exec_line_are_quoted(word: str, shown: str) -> None:
    # Desktop Entry Specification, “The Exec key”: a literal backslash in a quoted argument is four backslashes.
    assert quoted(word) == shown


@pytest.mark.parametrize("shell", ["bash", "zsh", "fish"])
def test_every_shell_gets_its_completion(shell: str) -> None:
    script = completion(main, shell)
    assert "_TALL_PLANK_COMPLETE" in script and "%(" not in script


def test_completion_knows_verbs_and_options() -> None:
    def completed(*words: str) -> set[str]:
        env = {"COMP_WORDS": " ".join(("tall-plank", *words)), "COMP_CWORD": str(len(words))}
        told = subprocess.run(
            [sys.executable, "-m", "tall_plank"],
            env={"_TALL_PLANK_COMPLETE": "bash_complete", "PYTHONPATH": ":".join(sys.path), **env},
            capture_output=True,
            text=True,
            check=True,
        )
        return {line.split(",")[1] for line in told.stdout.splitlines()}

    assert completed("sn") == {"snags"}
    assert {"--kerf", "--mode", "--seed"} <= completed("nest", "--")
    assert completed("nest", "--mode", "s") == {"saw"}


def test_the_manual_page_names_every_verb_and_option() -> None:
    page = manual(main)
    for name, verb in main.commands.items():
        assert verb.hidden or f".SS {name}".replace("-", "\\-") in page
    assert "\\-\\-kerf" in page and __version__ in page
    assert all(len(line) < 2000 and not line.startswith("'") for line in page.splitlines())


def test_versions_and_names_agree() -> None:
    from tall_plank.install import DESKTOP

    tree = ET.parse(DESKTOP / "org.tallplank.tallplank.metainfo.xml")
    assert tree.findtext("id") == "org.tallplank.tallplank"
    assert tree.find("releases/release").attrib["version"] == __version__  # type: ignore[union-attr]
    assert tree.findtext("provides/mediatype") == MIME
    kind = ET.parse(DESKTOP / "tall-plank.xml").find("{*}mime-type")
    assert kind is not None and kind.attrib["type"] == MIME
