"""Pages that are open take turns where they are many: each gets as many frames as another, none twice in a turn."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.web.browsers import FRAMES_AT_ONCE, Browsers


@given(st.integers(0, 80), st.integers(1, 60))
def test_frames_are_dealt_out_evenly(count, frames):
    browsers = Browsers("s")
    pages = [browsers.join() for _ in range(count)]
    dealt = dict.fromkeys(pages, 0)
    for _ in range(frames):
        turn = browsers.in_turn()
        assert len({id(one) for one in turn}) == len(turn) == min(count, FRAMES_AT_ONCE)
        for one in turn:
            dealt[one] += 1
    if count:
        assert max(dealt.values()) - min(dealt.values()) <= 1


@pytest.mark.parametrize(("count", "words"), [(0, "0 are open now"), (1, "1 is open now"), (13, "13 are open now")])
def test_who_is_there_is_told_and_who_is_gone_is_not(count, words):
    browsers = Browsers("s")
    pages = [browsers.join() for _ in range(count + 1)]
    pages[0].watching = {9}
    for n, page in enumerate(pages[1:]):
        page.watching = {n + 1, 7}
    browsers.leave(pages[0])
    assert browsers.in_words() == words
    assert browsers.watched == sorted({*range(1, count + 1), *([7] if count else [])})
    assert len({page.holder for page in pages}) == count + 1
