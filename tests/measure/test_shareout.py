from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.measure.shareout import Member, RestGoes, Rule, share_out

FIXED = st.builds(lambda size: Member(Rule.FIXED, size=size), st.floats(1, 900))
SHARE = st.builds(
    lambda weight, least, span: Member(Rule.SHARE, weight=weight, least=least, most=least + span),
    st.floats(0.25, 4),
    st.floats(0, 300),
    st.floats(0, 900),
)
REST = st.builds(lambda least: Member(Rule.REST, least=least), st.floats(0, 200))


def test_fixed_cells_leave_what_nobody_took() -> None:
    shares = share_out(3600, [Member(Rule.FIXED, 600.0), Member(Rule.FIXED, 900.0)])
    assert shares.sizes == (600.0, 900.0)
    assert shares.left == pytest.approx(2100)
    assert shares.fits


def test_two_shares_stand_as_their_weights() -> None:
    shares = share_out(1000, [Member(Rule.FIXED, 100.0), Member(Rule.SHARE), Member(Rule.SHARE, weight=2)])
    assert shares.sizes == pytest.approx((100, 300, 600))


def test_a_share_at_its_most_hands_the_rest_to_the_others() -> None:
    shares = share_out(1000, [Member(Rule.SHARE, most=200), Member(Rule.SHARE)])
    assert shares.sizes == pytest.approx((200, 800))


def test_what_is_short_is_named_and_nobody_falls_below_the_least() -> None:
    shares = share_out(500, [Member(Rule.FIXED, 400.0), Member(Rule.SHARE, least=150)])
    assert shares.short == pytest.approx(50)
    assert shares.sizes == (400.0, 150)
    assert not shares.fits


def test_a_run_of_fixed_cells_that_is_too_long_is_short_by_the_difference() -> None:
    assert share_out(1000, [Member(Rule.FIXED, 700.0)] * 2).short == pytest.approx(400)


@pytest.mark.parametrize(
    ("goes", "sizes"),
    [
        (RestGoes.LAST, (33.0, 33.0, 34.0)),
        (RestGoes.ENDS, (33.5, 33.0, 33.5)),
        (RestGoes.EVENLY, (100 / 3,) * 3),
    ],
)
def test_the_remainder_of_a_step_goes_where_it_is_told(goes: RestGoes, sizes: tuple[float, ...]) -> None:
    shares = share_out(100, [Member(Rule.SHARE)] * 3, step=1.0, rest_goes=goes)
    assert shares.sizes == pytest.approx(sizes)
    assert shares.rounded == pytest.approx(1.0)


def test_a_rest_member_takes_the_remainder() -> None:
    shares = share_out(100, [Member(Rule.SHARE), Member(Rule.REST), Member(Rule.SHARE)], step=1.0)
    assert shares.sizes == pytest.approx((33, 34, 33))


def test_no_members_leave_everything() -> None:
    assert share_out(500, []).left == 500


@given(
    st.floats(0, 8000),
    st.lists(st.one_of(FIXED, SHARE, REST), max_size=12),
    st.floats(0, 20),
    st.sampled_from([0.0, 0.5, 1.0]),
)
def test_sizes_gaps_and_what_is_left_always_sum_to_the_length(
    total: float, members: list[Member], gap: float, step: float
) -> None:
    shares = share_out(total, members, gap=gap, step=step)
    gaps = gap * max(0, len(members) - 1)
    used = math.fsum(shares.sizes) + gaps
    assert shares.left >= -1e-6
    assert used + shares.left - shares.short == pytest.approx(total, abs=1e-6)
    if shares.fits:
        for member, size in zip(members, shares.sizes, strict=True):
            if member.rule is Rule.FIXED:
                assert size == member.size
            else:
                assert size >= member.least - max(1e-6, step)
    else:
        assert shares.left == 0


@given(st.lists(SHARE, min_size=1, max_size=8), st.floats(0, 1))
def test_a_length_between_least_and_most_is_taken_whole(members: list[Member], t: float) -> None:
    low = sum(m.least for m in members)
    high = sum(m.most for m in members)
    total = low + (high - low) * t
    shares = share_out(total, members)
    assert sum(shares.sizes) == pytest.approx(total, abs=1e-6)
    for member, size in zip(members, shares.sizes, strict=True):
        assert member.least - 1e-6 <= size <= member.most + 1e-6
