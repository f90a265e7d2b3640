"""Fields of a job file that another hand has filled: refused at their place, or taken and computed."""

from __future__ import annotations

import json
from typing import Any

import pytest

from tall_plank.demo import demo_job
from tall_plank.files.plankfile import job_bytes, job_from_bytes
from tall_plank.measure import PlankError
from tall_plank.workings import Workings

DOCUMENT = json.loads(job_bytes(demo_job()))


def first(at: Any, key: str) -> Any:
    """The first thing in a document, depth first, that has a key."""
    if isinstance(at, dict):
        if key in at and not (key == "style" and at[key] is None):
            return at
        at = list(at.values())
    for inner in at if isinstance(at, list) else ():
        found = first(inner, key)
        if found is not None:
            return found
    return None


@pytest.mark.parametrize(
    ("holder", "key", "value", "said"),
    [
        ("rooms", "openings", [{"wall": ""}], "no wall"),
        ("rooms", "leaves", [], "leaves"),
        ("units", "weight", 0, "out of range"),
        ("units", "weight", 1e9, "out of range"),
        ("units", "style", "nonsense", "no style"),
        ("units", "shelves", -1, "out of range"),
        ("rooms", "width", {"rule": "fixed"}, "fixed width has no length"),
        ("values", "length", {"text": "50000000", "mm": 1.0}, "out of range|larger than any room"),
    ],
)
def test_a_field_that_makes_no_sense_is_refused(holder: str, key: str, value: Any, said: str) -> None:
    document = json.loads(json.dumps(DOCUMENT))
    if key == "width":  # of the first cell
        at = first(document["job"][holder], "unit")
    else:
        at = first(document["job"][holder], key)
    if key == "openings":
        at[key][0]["wall"] = ""
    else:
        at[key] = value
    with pytest.raises(PlankError, match=said) as told:
        job_from_bytes(json.dumps(document).encode(), "spoiled.plank")
    assert "spoiled.plank" in str(told.value)


@pytest.mark.parametrize("key", ["handle", "finish"])
def test_codes_that_the_stock_does_not_have_are_snags_not_traces(key: str) -> None:
    document = json.loads(json.dumps(DOCUMENT))
    at = first(document["job"]["units"], key) or first(document["job"]["schemes"], key)
    at[key] = "NONSENSE"
    assert Workings(job_from_bytes(json.dumps(document).encode(), "x")).tally.snags > 0


def test_every_sign_that_no_file_can_hold_is_named() -> None:
    document = json.loads(json.dumps(DOCUMENT))
    document["job"]["client"] = "half a \ud800 sign"
    with pytest.raises(PlankError, match=r"U\+D800|damaged"):
        job_from_bytes(json.dumps(document).encode(), "x")
