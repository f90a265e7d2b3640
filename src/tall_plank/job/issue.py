"""Issued sets of drawings: what was given out, frozen, so that what changed since can be told."""

from __future__ import annotations

import hashlib

import msgspec


class IssuedSheet(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A sheet as it was issued.

    Attributes
    ----------
    number : the sheet's own
    revision : letter of the issue in which it changed last
    digest : SHA-256 of what stands on it, hexadecimal
    places : for each of the marks seven digits, hexadecimal: the number of its view, and its middle across and up, 5 mm
        of paper each, 2048 at the view's own 0
    marks : four bytes of the digest of every line, outline and text on it, hexadecimal, one after another
    """

    number: str
    title: str
    revision: str
    digest: str
    marks: str = ""
    places: str = ""


class Issue(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A set as it was issued.

    Attributes
    ----------
    letter : A, B and so on, for each kind of set
    kind : of set: client, site, shop, installer
    date : of issue, as it stands on the sheets
    seal : SHA-256 of the file, hexadecimal
    signed_by, signed_on : who approved it, and when; empty: nobody yet
    signature : SHA-256 of seal, name and day: another file, name or day has another one
    data : the set as PDF; in a job file it lies beside the job, under `issued/`
    """

    letter: str
    kind: str
    date: str
    sheets: tuple[IssuedSheet, ...]
    seal: str
    note: str = ""
    signed_by: str = ""
    signed_on: str = ""
    signature: str = ""
    data: bytes = b""

    @property
    def name(self) -> str:
        """Of its file."""
        return f"{self.kind}-{self.letter}.pdf"


def signature_of(seal: str, name: str, day: str) -> str:
    """What a signature of a file with a seal comes to."""
    return hashlib.sha256("\n".join((seal, name, day)).encode()).hexdigest()


LETTERS = "ABCDEFGHJKLMNPRSTUVWY"
"""Of revisions: without those that read like figures or one another (I, O, Q, X, Z)."""


def letter_after(count: int) -> str:
    """The letter of the issue after so many: A .. Y, then AA, AB."""
    name, n = "", count + 1
    while n:
        n, k = divmod(n - 1, len(LETTERS))
        name = LETTERS[k] + name
    return name
