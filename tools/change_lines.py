"""Changes lines of the core on purpose, one at a time in a copy, and says which changes no test catches.

    tools/change_lines.py --seed 7 --count 60 --workers 2

Changes are spread over the folders of the core. Each is tried on the nearest tests first, then on all others; the
checkout itself is never touched. `--list FILE` tries given changes instead: JSON lines with file, old and new.
"""

from __future__ import annotations

import argparse
import ast
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
import threading
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
CORE = Path("src/tall_plank")
NEAR = {
    "measure": ("measure",), "stock": ("stock",), "job": ("job", "edits"), "setout": ("setout", "references"),
    "making": ("making", "references"), "drawing": ("drawing",), "scene": ("scene",), "shop": ("shop", "references"),
    "costing": ("costing", "papers"), "snags": ("snags",), "edits": ("edits",), "papers": ("papers",),
    "files": ("files",), "formats": ("files",),
}  # fmt: skip
"""Folder of the core: the folders of its nearest tests; for all of them, what two whole jobs come to."""

SWAPS: dict[type, str] = {
    ast.Add: "-", ast.Sub: "+", ast.Mult: "/", ast.Div: "*", ast.FloorDiv: "*", ast.Mod: "*",
    ast.Lt: ">=", ast.LtE: ">", ast.Gt: "<=", ast.GtE: "<", ast.Eq: "!=", ast.NotEq: "==",
    ast.Is: "is not", ast.IsNot: "is", ast.In: "not in", ast.NotIn: "in", ast.And: "or", ast.Or: "and",
}  # fmt: skip


@dataclass(frozen=True)
class Change:
    """A text of a file from one offset to another, and what stands there instead."""

    file: str
    start: int
    end: int
    old: str
    new: str
    line: int


def offsets(text: str) -> list[int]:
    """Where each line of a text begins, in bytes."""
    found = [0]
    for line in text.encode().splitlines(keepends=True):
        found.append(found[-1] + len(line))
    return found


def is_text(node: ast.AST) -> bool:
    """Whether adding to it joins texts or lists, which any test would see at once."""
    if isinstance(node, ast.JoinedStr | ast.List | ast.Tuple):
        return True
    return isinstance(node, ast.Constant) and isinstance(node.value, str)


def is_tolerance(node: ast.AST) -> bool:
    """Whether it is a number so small that adding or taking it away only says how exactly floats are compared."""
    return isinstance(node, ast.Constant) and isinstance(node.value, float) and 0 < abs(node.value) < 1e-3


def changes_of(file: Path) -> Iterator[Change]:
    """Every change that can be made to a file's functions."""
    text = file.read_text()
    raw, starts = text.encode(), offsets(text)

    def at(line: int, column: int) -> int:
        return starts[line - 1] + column

    def change(start: int, end: int, new: str, line: int) -> Change:
        return Change(str(file), start, end, raw[start:end].decode(), new, line)

    def between(a: ast.expr, b: ast.expr, op: ast.AST) -> Iterator[Change]:
        start, end = at(a.end_lineno or 0, a.end_col_offset or 0), at(b.lineno, b.col_offset)
        gap = raw[start:end].decode()
        sign = gap.strip("() \n\t")
        if sign and "#" not in gap and gap.count(sign) == 1:
            place = start + len(gap[: gap.index(sign)].encode())
            yield change(place, place + len(sign.encode()), SWAPS[type(op)], a.end_lineno or 0)

    bodies = [n for n in ast.walk(ast.parse(text)) if isinstance(n, ast.FunctionDef)]
    for body in bodies:
        for node in (n for statement in body.body for n in ast.walk(statement)):
            if (
                isinstance(node, ast.BinOp)
                and type(node.op) in SWAPS
                and not (is_text(node.left) or is_text(node.right) or is_tolerance(node.right))
            ):
                yield from between(node.left, node.right, node.op)
            elif isinstance(node, ast.Compare) and len(node.ops) == 1:
                yield from between(node.left, node.comparators[0], node.ops[0])
            elif isinstance(node, ast.BoolOp):
                yield from between(node.values[0], node.values[1], node.op)
            elif isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in ("min", "max"):
                start = at(node.func.lineno, node.func.col_offset)
                yield change(start, start + 3, "max" if node.func.id == "min" else "min", node.lineno)
            elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub | ast.Not):
                start, end = at(node.lineno, node.col_offset), at(node.operand.lineno, node.operand.col_offset)
                yield change(start, end, " ", node.lineno)
            elif isinstance(node, ast.Constant) and type(node.value) in (int, float) and abs(node.value) >= 0.3:
                start, end = at(node.lineno, node.col_offset), at(node.end_lineno or 0, node.end_col_offset or 0)
                yield change(start, end, repr(node.value + 1), node.lineno)


def chosen(seed: int, count: int) -> list[Change]:
    """Changes spread over the folders: from each in turn, from files by chance, no file twice in a row."""
    dice = random.Random(seed)
    files = {name: sorted((ROOT / CORE / name).rglob("*.py")) for name in NEAR}
    found: list[Change] = []
    while len(found) < count:
        for name in dice.sample(sorted(files), len(files)):
            options = list(changes_of(dice.choice(files[name])))
            if options and len(found) < count:
                found.append(dice.choice(options))
    return found


def listed(path: Path) -> list[Change]:
    """Changes from a file."""
    found = []
    for row in map(json.loads, path.read_text().splitlines()):
        file = ROOT / row["file"]
        raw, old = file.read_bytes(), row["old"].encode()
        if raw.count(old) != 1:
            sys.exit(f"{row['file']}: “{row['old']}” stands there {raw.count(old)} times")
        start = raw.index(old)
        line = raw[:start].count(b"\n") + 1
        found.append(Change(str(file), start, start + len(old), row["old"], row["new"], line))
    return found


def copy_of_checkout(folder: Path) -> None:
    """Copy what git keeps or would keep."""
    listing = ["git", "ls-files", "-co", "--exclude-standard", "-z"]
    for name in subprocess.run(listing, cwd=ROOT, capture_output=True, text=True, check=True).stdout.split("\0"):
        if name and (ROOT / name).is_file():
            (folder / name).parent.mkdir(parents=True, exist_ok=True)
            shutil.copy(ROOT / name, folder / name)


def tests_pass(folder: Path, places: list[str]) -> bool:
    """Whether some tests pass in a copy."""
    env = {
        **os.environ, "PYTHONPATH": str(folder / "src"), "QT_QPA_PLATFORM": "offscreen", "HYPOTHESIS_PROFILE": "repeat",
    }  # fmt: skip
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *places]
    try:
        return subprocess.run(command, cwd=folder, env=env, capture_output=True, timeout=3600).returncode == 0
    except subprocess.TimeoutExpired:
        return False  # it never ends: somebody sees that


def try_one(folder: Path, change: Change) -> str:
    """Try a change in a copy: `near`, `far` where the other tests catch it, else `missed`."""
    name = Path(change.file).relative_to(ROOT)
    target = folder / name
    raw = target.read_bytes()
    target.write_bytes(raw[: change.start] + change.new.encode() + raw[change.end :])
    try:
        compile(target.read_bytes(), str(target), "exec")
    except SyntaxError:
        target.write_bytes(raw)
        return "no program"
    near = [f"tests/{part}" for part in (*NEAR.get(name.relative_to(CORE).parts[0], ()), "kept")]
    try:
        if near and not tests_pass(folder, near):
            return "near"
        rest = [f"--ignore={place}" for place in near]
        core = tests_pass(folder, ["tests", "--ignore=tests/desk", *rest])
        return "missed" if core and tests_pass(folder, ["tests/desk"]) else "far"
    finally:
        target.write_bytes(raw)


def main() -> int:
    """Try changes and count."""
    asked = argparse.ArgumentParser(description=(__doc__ or "").splitlines()[0])
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--count", type=int, default=60)
    asked.add_argument("--workers", type=int, default=2)
    asked.add_argument("--list", type=Path)
    asked.add_argument("--sure", action="store_true", help="the tests are known to pass as they are")
    given = asked.parse_args()
    changes = listed(given.list) if given.list else chosen(given.seed, given.count)
    with tempfile.TemporaryDirectory() as place:
        # A test that fails by itself would count as one that catches everything.
        copy_of_checkout(Path(place))
        if not given.sure and not tests_pass(Path(place), ["tests", "-n", str(given.workers)]):
            print("The tests do not pass as they are.")
            return 2
    lock, results = threading.Lock(), dict[str, int]()
    waiting = list(changes)

    def work() -> None:
        with tempfile.TemporaryDirectory() as place:
            folder = Path(place)
            copy_of_checkout(folder)
            while True:
                with lock:
                    if not waiting:
                        return
                    change = waiting.pop(0)
                outcome = try_one(folder, change)
                with lock:
                    results[outcome] = results.get(outcome, 0) + 1
                    where = f"{Path(change.file).relative_to(ROOT)}:{change.line}"
                    print(f"{outcome:10} {where}: {change.old} -> {change.new}", flush=True)

    threads = [threading.Thread(target=work) for _ in range(given.workers)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    print(json.dumps(results))
    return 1 if results.get("missed") else 0


if __name__ == "__main__":
    sys.exit(main())
