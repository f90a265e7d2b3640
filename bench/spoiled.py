"""Inputs that are spoiled by chance: texts, lists of values, bytes, trees of values, archives, pictures."""

from __future__ import annotations

import copy
import io
import json
import random
import string
import zipfile
from typing import Any

NASTY: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 2**31, 2**63, -(2**63), 10**400, 1e308, -1e308, 1e-9, 0.5, "", " ", "NaN", "Infinity",
    "-1", "1e50", "a" * 5000, "9" * 3000, "../../x", "/etc/x", "\x00", "\ud800", "\u202e", "=1+1", "-1+1", "@x", "\tx",
    [], {}, [[]], [None], [[[[[[[[]]]]]]]], {"text": "1mm", "mm": 1e9}, {"text": "x", "mm": None},
    {"text": "1/0", "mm": 1.0}, "nan", "inf", "-inf", "1" * 400 + "mm", "((((((((((" * 20, "min(600,500)",
    "base_height * base_height", "1e", "0x10",
)  # fmt: skip


def spoiled_text(r: random.Random, text: str) -> str:
    """A text with some places changed."""
    chars = list(text)
    for _ in range(r.randint(1, 4)):
        at = r.randrange(len(chars) + 1)
        pick = r.random()
        if pick < 0.3 and chars:
            del chars[at : at + r.randint(1, 20)]
        elif pick < 0.6:
            chars[at:at] = str(r.choice(NASTY))[: r.choice((5, 50, 4000))]
        elif pick < 0.8:
            chars[at:at] = r.choice(string.printable)
        else:
            other = r.randrange(len(chars) + 1)
            chars[at:at] = chars[other : other + r.randint(1, 60)]
    return "".join(chars)


def spoiled_values(r: random.Random, text: str) -> str:
    """A text file of keys and values, or of columns, with some values replaced."""
    lines = text.splitlines()
    for _ in range(r.randint(1, 3)):
        n = r.randrange(len(lines))
        line = lines[n]
        value = str(r.choice(NASTY))
        if "=" in line:
            key, _, old = line.partition("=")
            lines[n] = (
                f"{key}= {value if r.random() < 0.6 else json.dumps(value)}" if r.random() < 0.8 else f"{key}x ={old}"
            )
        else:
            mark = next((m for m in ",;\t " if m in line), ",")
            cells = line.split(mark)
            cells[r.randrange(len(cells))] = value
            lines[n] = mark.join(cells)
    if r.random() < 0.1:
        n = r.randrange(len(lines))
        lines[n:n] = lines[n : n + r.randint(1, 5)] * r.randint(1, 20)
    return "\n".join(lines)


def spoiled_bytes(r: random.Random, data: bytes) -> bytes:
    """Bytes with some places changed."""
    found = bytearray(data)
    for _ in range(r.randint(1, 6)):
        at = r.randrange(len(found) + 1)
        pick = r.random()
        if pick < 0.5 and at < len(found):
            found[at] = r.randrange(256)
        elif pick < 0.7:
            del found[at : at + r.choice((1, 4, 100, 10_000))]
        elif pick < 0.9:
            found[at:at] = bytes(r.randrange(256) for _ in range(r.randint(1, 16)))
        else:
            found = found[:at]
    return bytes(found)


def spoiled_tree(r: random.Random, tree: Any, times: int = 1) -> Any:
    """A document with some of its nodes replaced, taken away, doubled or put elsewhere."""
    tree = json.loads(json.dumps(tree))
    for _ in range(times):
        at, places = tree, []
        while isinstance(at, dict | list) and at:
            key = r.choice(list(at)) if isinstance(at, dict) else r.randrange(len(at))
            places.append((at, key))
            at = at[key]
            if r.random() < 0.12:
                break
        if not places:
            return copy.deepcopy(r.choice(NASTY))
        holder, key = places[-1]
        pick = r.random()
        if pick < 0.6:
            holder[key] = copy.deepcopy(r.choice(NASTY))
        elif pick < 0.75:
            del holder[key]
        elif pick < 0.85 and isinstance(holder, list):
            holder[key:key] = [holder[key]] * r.choice((1, 2, 30))
        elif isinstance(holder, dict):
            holder[r.choice(("x", "", "kind", "format", *holder))] = copy.deepcopy(holder[key])
    return tree


def large_png(size: int) -> bytes:
    """The head of a PNG of many pixels."""
    import struct
    import zlib

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", size, size, 8, 0, 0, 0, 0)
    rows = zlib.compress(b"\x00" * 1_000_000, 9)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")


def respoiled(r: random.Random, data: bytes) -> bytes:
    """An archive with one of its documents spoiled, or gone."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as new:
        names = old.namelist()
        bad = r.choice(names)
        for name in names:
            if name != bad:
                new.writestr(name, old.read(name))
            elif r.random() < 0.7:
                new.writestr(name, spoiled_text(r, old.read(name).decode()).encode("utf-8", "replace"))
    return buffer.getvalue()
