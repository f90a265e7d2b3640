"""A place on the desktop of one user: the entry in menus, the kind of file with its icon, completion, the manual page.

What is put where follows the desktop's standards (XDG base directories, Desktop Entry, Shared MIME-info, Icon Theme,
AppStream). What was put there is noted, and taken away again file by file.
"""

from __future__ import annotations

import os
import shlex
import shutil
import subprocess
import sys
import time
from dataclasses import dataclass
from pathlib import Path

import click

from tall_plank import __version__
from tall_plank.assets import FOLDER, ICONS
from tall_plank.formats.writing import put
from tall_plank.measure import PlankError

NAME = "tall-plank"
MIME = "application/vnd.tallplank.job+zip"
DESKTOP = FOLDER / "desktop"
NOTED = "installed.txt"
REFRESH = (
    ("update-desktop-database", "applications"),
    ("update-mime-database", "mime"),
    ("gtk-update-icon-cache", "icons/hicolor"),
)
"""Programs of the desktop that take notice of what changed in a folder, where they are there."""


@dataclass(frozen=True)
class Places:
    """Where things of one user go: data of the desktop, programs, settings of shells."""

    data: Path
    programs: Path
    config: Path


def default_places() -> Places:
    """The user's folders by the desktop's standard."""
    home = Path.home()
    data = Path(os.environ.get("XDG_DATA_HOME") or home / ".local/share")
    return Places(data, home / ".local/bin", Path(os.environ.get("XDG_CONFIG_HOME") or home / ".config"))


def install(main: click.Group, places: Places, start: tuple[str, ...]) -> list[Path]:
    """Put everything in its place; an earlier installation is taken away first.

    Parameters
    ----------
    main : the verbs, for completion and the manual page
    start : the command that starts the program, before its arguments

    Returns
    -------
    the files

    Raises
    ------
    PlankError where a folder cannot be written; then nothing stays of it
    """
    uninstall(places, refresh=False)
    data = places.data
    program = places.programs / NAME
    files: dict[Path, str | bytes] = {
        program: f'#!/bin/sh\nexec {shlex.join(start)} "$@"\n',
        data / "applications/tall-plank.desktop": _entry(program),
        data / "mime/packages/tall-plank.xml": (DESKTOP / "tall-plank.xml").read_bytes(),
        data / "icons/hicolor/scalable/apps/tall-plank.svg": (ICONS / "tall-plank.svg").read_bytes(),
        data / f"icons/hicolor/scalable/mimetypes/{_icon_of(MIME)}": (DESKTOP / _icon_of(MIME)).read_bytes(),
        data / "metainfo/org.tallplank.tallplank.metainfo.xml": (
            DESKTOP / "org.tallplank.tallplank.metainfo.xml"
        ).read_bytes(),
        data / "man/man1/tall-plank.1": manual(main),
        data / "bash-completion/completions/tall-plank": completion(main, "bash"),
        data / "zsh/site-functions/_tall-plank": completion(main, "zsh"),
        places.config / "fish/completions/tall-plank.fish": completion(main, "fish"),
    }
    done: list[Path] = []
    try:
        for path, content in files.items():
            path.parent.mkdir(parents=True, exist_ok=True)
            put(path, content)
            done.append(path)
        program.chmod(0o755)
        noted = data / NAME / NOTED
        noted.parent.mkdir(parents=True, exist_ok=True)
        put(noted, "".join(f"{path}\n" for path in done))
    except OSError as error:
        for path in done:
            path.unlink(missing_ok=True)
        what = f"It cannot be installed ({error.strerror})."
        raise PlankError(what, str(error.filename or data), "Make the folder writable.") from None
    _refresh(places)
    return done


def uninstall(places: Places, *, refresh: bool = True) -> list[Path]:
    """Take away what an installation put there, and folders that are empty then; jobs and settings stay.

    Returns
    -------
    the files that were taken away; none where nothing was installed
    """
    noted = places.data / NAME / NOTED
    try:
        names = noted.read_text(encoding="utf-8").splitlines()
    except (OSError, UnicodeDecodeError):
        return []
    roots = (places.data.resolve(), places.programs.resolve(), places.config.resolve())
    gone = []
    for name in names:
        path = Path(name)
        # Only what lies where installations put things: the note could be anybody's.
        root = next((r for r in roots if path.parent.resolve().is_relative_to(r)), None)
        if root is None or "tall" not in path.name or not path.is_file():
            continue
        path.unlink()
        gone.append(path)
        _clear(path.parent, root)
    noted.unlink(missing_ok=True)
    _clear(noted.parent, roots[0])
    if refresh:
        _refresh(places)
    return gone


def _clear(folder: Path, root: Path) -> None:
    """Take empty folders away, up to a root that stays."""
    while folder.resolve() != root and folder.is_dir() and not any(folder.iterdir()):
        folder.rmdir()
        folder = folder.parent


def _refresh(places: Places) -> None:
    for program, folder in REFRESH:
        found = shutil.which(program)
        if found is not None and (places.data / folder).is_dir():
            subprocess.run([found, str(places.data / folder)], check=False, capture_output=True, timeout=60)


def _icon_of(mime: str) -> str:
    return f"{mime.replace('/', '-')}.svg"


def _entry(program: Path) -> str:
    """The entry for menus, with the whole path of the program: not every desktop looks into the user's own folder."""
    text = (DESKTOP / "tall-plank.desktop").read_text(encoding="utf-8")
    return text.replace("Exec=tall-plank %f", f"Exec={quoted(str(program))} %f\nTryExec={program}")


def quoted(text: str) -> str:
    """A word of an Exec line (Desktop Entry Specification 1.5, “The Exec key”): quotes, grave accents, dollar signs and
    backslashes are marked by a backslash, that again by another; a percent sign is doubled."""
    if text.isascii() and all(c.isalnum() or c in "/._-+" for c in text):
        return text
    marked = "".join(f"\\{c}" if c in '"`$\\' else c for c in text)
    return '"' + marked.replace("\\", "\\\\").replace("%", "%%") + '"'


def completion(main: click.Group, shell: str) -> str:
    """The script by which a shell completes verbs, options and files."""
    from click.shell_completion import BashComplete, FishComplete, ZshComplete

    kinds = {"bash": BashComplete, "zsh": ZshComplete, "fish": FishComplete}
    made = kinds[shell](main, {}, NAME, "_TALL_PLANK_COMPLETE")
    return made.source_template % made.source_vars()


def manual(main: click.Group) -> str:
    """The manual page, in man's own language, from what the verbs say of themselves."""
    lines = [
        f'.TH TALL-PLANK 1 "{time.strftime("%Y-%m-%d", time.gmtime(_built()))}" "Tall Plank {__version__}"',
        ".SH NAME", "tall\\-plank \\- lay out kitchens and furniture and say what to cut for them",
        ".SH SYNOPSIS", ".B tall\\-plank", "[\\fIFILE\\fR]", ".br", ".B tall\\-plank", "\\fIVERB\\fR [\\fIOPTIONS\\fR]",
        ".SH DESCRIPTION", "Without a verb the window opens, with a job file where one is named. "
        "The verbs work without a window. Bare numbers are millimeters.",
        ".SH VERBS",
    ]  # fmt: skip
    context = click.Context(main, info_name=NAME)
    for name, verb in sorted(main.commands.items()):
        if verb.hidden:
            continue
        lines += [".SS " + _plain(name), _plain((verb.help or "").replace("\n\n", "\n"))]
        usage = " ".join(verb.collect_usage_pieces(click.Context(verb, info_name=name, parent=context)))
        lines += [".PP", f".B tall\\-plank {_plain(name)}", _plain(usage)]
        for option in verb.params:
            told = option.get_help_record(click.Context(verb)) if isinstance(option, click.Option) else None
            if told is not None:
                lines += [".TP", f"\\fB{_plain(told[0])}\\fR", _plain(told[1] or " ")]
    lines += [
        ".SH EXIT STATUS", ".TP", ".B 0", "fine", ".TP", ".B 1", "something in the job or list is wrong; it is named",
        ".TP", ".B 2", "wrong use", ".TP", ".B 3", "a fault of the program; its trace is in the log",
        ".SH FILES", ".TP", ".I ~/.config/tall\\-plank", "preferences, own machines, the library",
        ".TP", ".I ~/.local/state/tall\\-plank", "work that is not saved, the log",
        ".TP", ".I ~/.local/share/tall\\-plank", "the offcut rack",
        ".TP", ".I ~/.cache/tall\\-plank", "compiled loops",
    ]  # fmt: skip
    return "\n".join(lines) + "\n"


def _plain(text: str) -> str:
    """A text that man takes as it stands."""
    marked = text.replace("\\", "\\e").replace("-", "\\-")
    return "\n".join(f"\\&{line}" if line[:1] in (".", "'") else line for line in marked.splitlines())


def _built() -> float:
    """When this version was made, as far as its files tell."""
    return (DESKTOP / "tall-plank.xml").stat().st_mtime


def started_by() -> tuple[str, ...]:
    """The command that starts this program as it runs now."""
    return (sys.executable, "-m", "tall_plank")
