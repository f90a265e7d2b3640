"""How a job is put on paper: whose it is, the sizes of sheets, sheets of labels, lists as data."""

from __future__ import annotations

from typing import Literal

import msgspec

ListPaper = Literal["A4", "Letter"]
DrawingPaper = Literal["A3", "A4", "Tabloid", "Letter", "A2", "A1", "Broadsheet"]


class LabelSheet(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A sheet of labels. All mm.

    Attributes
    ----------
    paper : width and height of the upright sheet
    across, down : labels side by side, and below one another
    size : width and height of a label
    left, top : from the sheet's corner to that of the first label
    pitch : from one label's corner to the next one's, across and down
    """

    name: str
    paper: tuple[float, float]
    across: int
    down: int
    size: tuple[float, float]
    left: float
    top: float
    pitch: tuple[float, float]


A4 = (210.0, 297.0)
LETTER = (215.9, 279.4)


def _sheet(
    name: str, paper: tuple[float, float], count: tuple[int, int], size: tuple[float, float], gap: tuple[float, float]
) -> LabelSheet:
    """A sheet whose labels stand in the middle of it, `gap` mm apart."""
    pitch = (size[0] + gap[0], size[1] + gap[1])
    left = (paper[0] - pitch[0] * count[0] + gap[0]) / 2
    top = (paper[1] - pitch[1] * count[1] + gap[1]) / 2
    return LabelSheet(name, paper, count[0], count[1], size, round(left, 2), round(top, 2), pitch)


LABEL_SHEETS: tuple[LabelSheet, ...] = (
    LabelSheet("A4, 21 of 63.5 × 38.1", A4, 3, 7, (63.5, 38.1), 7.2, 15.1, (66.0, 38.1)),
    _sheet("A4, 24 of 70 × 37", A4, (3, 8), (70.0, 37.0), (0.0, 0.0)),
    _sheet("A4, 14 of 99.1 × 38.1", A4, (2, 7), (99.1, 38.1), (2.5, 0.0)),
    _sheet("A4, 16 of 105 × 37", A4, (2, 8), (105.0, 37.0), (0.0, 0.0)),
    _sheet("A4, 10 of 105 × 57", A4, (2, 5), (105.0, 57.0), (0.0, 0.0)),
    _sheet("A4, 8 of 99.1 × 67.7", A4, (2, 4), (99.1, 67.7), (2.5, 0.0)),
    _sheet("A4, 44 of 48.5 × 25.4", A4, (4, 11), (48.5, 25.4), (0.0, 0.0)),
    _sheet("A4, 65 of 38.1 × 21.2", A4, (5, 13), (38.1, 21.2), (2.5, 0.0)),
    _sheet("Letter, 30 of 66.7 × 25.4", LETTER, (3, 10), (66.675, 25.4), (3.175, 0.0)),
    _sheet("Letter, 14 of 101.6 × 33.9", LETTER, (2, 7), (101.6, 33.87), (4.76, 0.0)),
    _sheet("Letter, 10 of 101.6 × 50.8", LETTER, (2, 5), (101.6, 50.8), (4.76, 0.0)),
    _sheet("A6, one of 105 × 148", (105.0, 148.0), (1, 1), (105.0, 148.0), (0.0, 0.0)),
)
"""Sheets of labels in sizes that several makers sell; the first is the usual one."""

OWN = "own sizes"


class Papers(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """How a job is put on paper.

    Attributes
    ----------
    firm : who makes it: the author of its papers
    creator, approver : who draws, and who approves drawings
    lists, drawings : paper of lists, upright or lying; the largest paper of drawings
    chains : what chains of units on elevations measure to
    ink : drawings with the colors of finishes, or in black only, for printers without color and for copies
    logo : name of the image with the shop's mark; empty: it has none
    csv : lists as data for programs, or for a spreadsheet: with a byte mark, parted and with decimals as this computer
        writes them
    """

    firm: str = ""
    creator: str = ""
    approver: str = ""
    lists: ListPaper = "A4"
    drawings: DrawingPaper = "A3"
    csv: Literal["plain", "spreadsheet"] = "plain"
    ink: Literal["color", "black"] = "color"
    chains: Literal["carcass", "fronts", "worktops"] = "carcass"
    logo: str = ""
    labels: LabelSheet = LABEL_SHEETS[0]
