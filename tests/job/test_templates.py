from __future__ import annotations

from pathlib import Path

import pytest

from tall_plank.job.shipped import DATA, shipped_standard
from tall_plank.job.standard import LENGTH_KEYS, load_standard
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.job.template import bay_of, load_template, load_templates
from tall_plank.measure import PlankError


def test_shipped_kinds_cover_the_first_slice() -> None:
    codes = {t.code for t in shipped_templates()}
    assert codes >= {"door", "pair", "drawers", "sink", "dishwasher", "filler", "open", "gap", "hung-door", "hung-open"}


def test_every_starting_width_lies_in_its_range() -> None:
    for template in shipped_templates():
        assert template.least <= template.width <= template.most, template.code


def test_the_hung_run_starts_from_the_worktop_by_rule() -> None:
    job = new_job()
    assert job.value("hung_bottom") == 100 + 730 + 40 + 530


@pytest.mark.parametrize(
    ("bay", "word"),
    [
        ({"front": "curtain"}, "curtain"),
        ({"shelf": 2}, "not part of a bay"),
        ({"split": "rows"}, "neither"),
        ({"children": [{}]}, "neither"),
        ({"size": "much"}, "no value named"),
        ({"shelves": -1}, "shelves"),
        ("door", "table"),
        ({"split": "rows", "children": [{"front": "x"}]}, "bay 1"),
    ],
)
def test_a_wrong_bay_is_named(bay: object, word: str) -> None:
    with pytest.raises(PlankError) as caught:
        bay_of(bay, "mine.toml, bay")
    assert word in str(caught.value)


def test_a_template_of_the_shop_is_read_from_text(tmp_path: Path) -> None:
    text = (DATA / "templates" / "12-drawers.toml").read_text().replace('"drawers"', '"chest"')
    (tmp_path / "chest.toml").write_text(text)
    template = load_template(tmp_path / "chest.toml")
    assert template.words == ("chest",)
    assert template.bay.children[0].size.mm == 140  # type: ignore[union-attr]


def test_two_kinds_that_answer_to_one_word_are_refused(tmp_path: Path) -> None:
    text = (DATA / "templates" / "10-door.toml").read_text()
    (tmp_path / "a.toml").write_text(text)
    (tmp_path / "b.toml").write_text(text.replace('code = "door"', 'code = "other"'))
    with pytest.raises(PlankError, match="answer to"):
        load_templates(tmp_path)


def test_a_template_file_with_an_unknown_value_names_it(tmp_path: Path) -> None:
    text = (DATA / "templates" / "10-door.toml").read_text()
    (tmp_path / "a.toml").write_text(text + "\nwheels = 4\n")
    with pytest.raises(PlankError, match="wheels"):
        load_template(tmp_path / "a.toml")


def test_a_standard_holds_every_value_once() -> None:
    standard = shipped_standard()
    assert set(standard.values()) >= set(LENGTH_KEYS)
    assert standard.with_length("gap_side", standard.values()["gap_top"]).values()["gap_side"].mm == 3  # type: ignore[union-attr, arg-type]


@pytest.mark.parametrize(
    ("old", "new", "word"),
    [
        ('carcass_thickness = "18"', "", "“carcass_thickness” is missing"),
        ('carcass_thickness = "18"', 'carcass_thickness = "18"\nwings = "2"', "“wings” is not known"),
        ('gap_side = "1.5"', 'gap_side = "wide"', "[lengths] gap_side"),
        ('gap_side = "1.5"', 'gap_side = "-1"', "too small"),
        ("count = 2", 'count = "two"', "hinge_rules"),
        ('code = "quay-dowelled"', 'code = "q"\nsmell = 1', "smell"),
    ],
)
def test_a_wrong_standard_is_named_at_its_key(tmp_path: Path, old: str, new: str, word: str) -> None:
    text = (DATA / "standards" / "quay-dowelled.toml").read_text()
    assert old in text
    path = tmp_path / "s.toml"
    path.write_text(text.replace(old, new, 1))
    with pytest.raises(PlankError) as caught:
        load_standard(path)
    assert word in str(caught.value)
