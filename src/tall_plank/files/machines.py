"""The shop's machines: text files in its own folder, each with a name; the shipped machine is always there."""

from __future__ import annotations

import re
from pathlib import Path

from tall_plank.files.userdata import UserFolders
from tall_plank.formats.writing import write_atomic
from tall_plank.measure import PlankError
from tall_plank.shop.machine.model import SHIPPED, Machine, load_machine, shipped_machine


def own_files(folders: UserFolders) -> list[Path]:
    """Files of the shop's own machines: the one that older programs kept, then those of the folder."""
    found = [folders.machine] if folders.machine.exists() else []
    return found + (sorted(folders.machines.glob("*.toml")) if folders.machines.is_dir() else [])


def shop_machines(folders: UserFolders) -> tuple[tuple[Machine, ...], tuple[str, ...]]:
    """The shop's machines, its own first and the shipped one last, each name once; and why a file cannot be used."""
    machines: dict[str, Machine] = {}
    faults: list[str] = []
    for path in own_files(folders):
        try:
            machine = load_machine(path)
        except PlankError as error:
            faults.append(str(error))
            continue
        machines.setdefault(machine.name, machine)
    shipped = shipped_machine()
    machines.setdefault(shipped.name, shipped)
    return tuple(machines.values()), tuple(faults)


def add_machine(folders: UserFolders, path: Path) -> Machine:
    """Keep the machine of a file as one of the shop's; one of its name is replaced.

    Raises
    ------
    PlankError where the file is no machine, or it cannot be kept; then nothing changes
    """
    machine = load_machine(path)
    kept = path.read_bytes()
    try:
        folders.machines.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise PlankError(
            f"The machine cannot be kept ({error.strerror}).", str(folders.machines), "Make the folder writable."
        ) from None
    write_atomic(folders.machines / f"{_plain(machine.name)}.toml", kept)
    remove_machine(folders, machine.name, but=f"{_plain(machine.name)}.toml")
    return machine


def remove_machine(folders: UserFolders, name: str, but: str = "") -> bool:
    """Give one of the shop's own machines up; whether there was one. `but`: a file that stays."""
    found = False
    for path in own_files(folders):
        try:
            own = load_machine(path).name
        except PlankError:
            continue
        if own == name and path.name != but:
            path.unlink(missing_ok=True)
            found = True
    return found


def file_of(folders: UserFolders, name: str) -> Path:
    """The file of a machine; the shipped one's where the shop has none of that name."""
    for path in own_files(folders):
        try:
            if load_machine(path).name == name:
                return path
        except PlankError:
            continue
    return SHIPPED


def _plain(name: str) -> str:
    return re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "machine"
