"""Names of files from what people type: no part of a job ever becomes a path."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable

MOST = 80
"""Characters of a name at the most: with what is put before and behind it, every file system takes it."""

RESERVED = {"con", "prn", "aux", "nul", *(f"{kind}{i}" for kind in ("com", "lpt") for i in range(1, 10))}
"""Names that some systems keep for devices."""


def file_name(text: str) -> str:
    """A text as the name of a file, without its ending: letters, digits, spaces and ``.-_()``; anything else becomes a
    hyphen. It is never empty, never hidden, never a way out of its folder."""
    plain = unicodedata.normalize("NFC", text)
    kept = "".join(c if c.isalnum() or c in " .-_()" else "-" for c in plain)
    kept = kept.strip(" .")[:MOST].strip(" .")
    if not kept or kept.lower().split(".")[0] in RESERVED:
        kept = f"_{kept}"
    while len(kept.encode()) > 200:
        kept = kept[:-1]
    return kept


def file_names(texts: Iterable[str]) -> dict[str, str]:
    """Each text with a name of its own: where two come to one, whatever its case, the later ones are counted."""
    found: dict[str, str] = {}
    taken: set[str] = set()
    for text in texts:
        if text in found:
            continue
        name, n = file_name(text), 1
        while name.lower() in taken:
            n += 1
            name = f"{file_name(text)} ({n})"
        taken.add(name.lower())
        found[text] = name
    return found
