"""Every kind of file with its steps."""

from __future__ import annotations

from tall_plank.formats.envelope import Format
from tall_plank.formats.steps import (
    clipboard_1,
    clipboard_2,
    job_1,
    job_2,
    job_3,
    job_4,
    job_5,
    job_6,
    job_7,
    job_8,
    job_9,
    job_10,
    job_11,
    job_12,
    job_13,
    job_14,
    job_15,
    job_16,
    library_1,
    library_2,
    standard_1,
    standard_2,
    standard_3,
)

JOB = Format(
    "tall-plank-job",
    "job",
    (
        job_1.step,
        job_2.step,
        job_3.step,
        job_4.step,
        job_5.step,
        job_6.step,
        job_7.step,
        job_8.step,
        job_9.step,
        job_10.step,
        job_11.step,
        job_12.step,
        job_13.step,
        job_14.step,
        job_15.step,
        job_16.step,
    ),
    "Open its .bak file or a saved copy.",
)
LIBRARY = Format("tall-plank-saved", "library entry", (library_1.step, library_2.step), "Take it out of the library.")
CLIPBOARD = Format("tall-plank-units", "clipboard", (clipboard_1.step, clipboard_2.step), "Copy some units first.")
STANDARD = Format(
    "tall-plank-standard",
    "shop standard",
    (standard_1.step, standard_2.step, standard_3.step),
    "Compare it with the shipped one.",
)
MACHINE = Format("tall-plank-machine", "machine file", (), "Compare it with the shipped one.")
RACK = Format("tall-plank-rack", "offcut rack", (), "Move the file away; a new rack is begun.")

FORMATS = (JOB, LIBRARY, CLIPBOARD, STANDARD, MACHINE, RACK)
