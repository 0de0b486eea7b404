"""Labels against a table and a library, beat grids, recording reduced, MTC as it is sent, and following it."""

import random

import numpy as np
import pytest
import timecode
from hypothesis import given, settings
from hypothesis import strategies as st

from zarabanda.core.timecode.beat_grid import BeatGrid, lateness, tapped
from zarabanda.core.timecode.chase import Chase
from zarabanda.core.timecode.recording import WITHIN, reduced
from zarabanda.core.timecode.smpte import RATES, Label, frame_at, frame_of, label_of, read, seconds_of, text
from zarabanda.errors import ZarabandaError
from zarabanda.protocols.mtc import PIECES, RATE_NAMES, Decoder, code_of, full_frame, quarter_frame

LIBRARY = {"24": "24", "25": "25", "29.97": "29.97", "29.97 drop": "29.97", "30": "30"}


@pytest.mark.parametrize(
    ("rate", "frame", "label"),
    [
        ("29.97 drop", 1799, "00:00:59;29"), ("29.97 drop", 1800, "00:01:00;02"), ("29.97 drop", 3597, "00:01:59;29"),
        ("29.97 drop", 3598, "00:02:00;02"), ("29.97 drop", 17981, "00:09:59;29"), ("29.97 drop", 17982, "00:10:00;00"),
        ("29.97 drop", 107892, "01:00:00;00"), ("29.97 drop", 2589407, "23:59:59;29"), ("29.97 drop", 2589408, "00:00:00;00"),
        ("24", 24 * 86400 - 1, "23:59:59:23"), ("25", 25 * 86400, "00:00:00:00"), ("30", 108000, "01:00:00:00"),
        ("29.97", 107892, "00:59:56:12"),
    ],
)  # fmt: skip
def test_labels_at_their_edges(rate, frame, label):
    assert text(label_of(frame, RATES[rate]), RATES[rate]) == label
    assert read(label, RATES[rate]) == frame % RATES[rate].per_day


@given(st.sampled_from(list(RATES)), st.integers(0, 2_073_599))
def test_labels_are_those_of_an_independent_library(rate, frame):
    one = RATES[rate]
    there = timecode.Timecode(LIBRARY[rate], frames=frame + 1, force_non_drop_frame=not one.drop)
    assert text(label_of(frame, one), one).replace(";", ":") == str(there).replace(";", ":")
    assert frame_of(label_of(frame, one), one) == frame
    assert frame_at(seconds_of(frame, one), one) == frame


@pytest.mark.parametrize(
    ("label", "rate"), [("00:01:00;00", "29.97 drop"), ("24:00:00:00", "25"), ("00:00:00:25", "25"), ("1:2", "25")]
)
def test_what_is_no_label_is_refused(label, rate):
    with pytest.raises(ZarabandaError, match=r"no label|no timecode"):
        read(label, RATES[rate])


GRIDS = st.builds(
    lambda first, bpm, changes: BeatGrid(first, ((0.0, bpm), *sorted(dict(changes).items()))),
    st.floats(-2, 4), st.floats(40, 220), st.lists(st.tuples(st.integers(1, 200).map(float), st.floats(40, 220)), max_size=5),
)  # fmt: skip


@given(GRIDS, st.floats(0, 300), st.floats(0.01, 5))
def test_beats_rise_with_the_position_and_are_found_again(grid, p, more):
    assert grid.time_of(grid.beats(p)) == pytest.approx(p, abs=1e-9)
    assert grid.beats(p + more) > grid.beats(p)


@given(GRIDS, st.integers(1, 100), st.floats(-0.05, 0.05))
def test_a_dragged_bar_line_is_where_it_was_let_go(grid, beat, off):
    p = grid.time_of(float(beat)) + off
    try:
        dragged = grid.stretched(float(beat), p)
    except ZarabandaError:
        return
    assert dragged.time_of(float(beat)) == pytest.approx(p, abs=1e-9)
    assert dragged.first_s == grid.first_s


@given(st.floats(60, 180), st.floats(0, 3), st.integers(0, 2**31), st.sets(st.integers(1, 30), max_size=6))
def test_taps_give_their_tempo_also_where_some_are_left_out(bpm, first, seed, left_out):
    shaky = np.random.default_rng(seed).uniform(-0.02, 0.02, 32)
    taps = [first + n * 60 / bpm + shaky[n] for n in range(32) if n not in left_out]
    grid = tapped(taps)
    assert grid.changes[0][1] == pytest.approx(bpm, rel=0.02)
    assert grid.first_s == pytest.approx(first, abs=0.05)
    with pytest.raises(ZarabandaError, match="at least four"):
        tapped(taps[:3])


@given(st.floats(60, 180), st.floats(-0.12, 0.12), st.integers(0, 2**31))
def test_how_late_hands_are_is_measured_from_taps_some_of_them_far_off(bpm, late, seed):
    draw = np.random.default_rng(seed)
    grid = BeatGrid(1.0, ((0, bpm),))
    shaky = draw.uniform(-0.01, 0.01, 24)
    shaky[draw.choice(24, 5, replace=False)] += 0.15
    found, wanders = lateness(grid, [grid.time_of(float(n)) + late + shaky[n] for n in range(24)])
    assert found == pytest.approx(late, abs=0.011)
    assert wanders < 0.011
    with pytest.raises(ZarabandaError, match="at least 8"):
        lateness(grid, [1.0] * 7)


@settings(deadline=None)
@given(st.lists(st.tuples(st.floats(0.02, 0.5), st.floats(0, 1)), min_size=1, max_size=40))
def test_recorded_moves_become_few_points_within_half_a_percent(moves):
    at = np.cumsum([pause for pause, _ in moves])
    points = [(float(p), value) for p, (_, value) in zip(at, moves, strict=True)]
    kept = reduced(points)
    assert (kept[0], kept[-1]) == (points[0], points[-1])
    assert set(kept) <= set(points)
    straight = np.interp([p for p, _ in points], [p for p, _ in kept], [value for _, value in kept])
    assert np.abs(straight - [value for _, value in points]).max() <= WITHIN + 1e-9


def test_a_straight_move_is_two_points_and_a_fade_with_a_stop_three():
    assert reduced([(n / 40, n / 100) for n in range(101)]) == [(0.0, 0.0), (2.5, 1.0)]
    assert len(reduced([(n / 40, min(n / 50, 1.0)) for n in range(101)])) == 3


def quarters(rate, start, count, code=None):
    """Pieces from an even frame on."""
    one = RATES[rate]
    for n in range(count):
        frame = start + n // PIECES * 2
        yield quarter_frame(label_of(frame, one), code_of(one) if code is None else code, n % PIECES)


@given(st.sampled_from(RATE_NAMES), st.integers(0, 40_000), st.integers(9, 60))
def test_pieces_say_where_a_player_is_to_the_quarter_frame(rate, half, count):
    decoder, start = Decoder(), 2 * half
    heard = [one for data in quarters(rate, start, count) for one in decoder.read(data)]
    assert [one.frames for one in heard] == [start + n / 4 for n in range(7, count)]
    assert all(one.rate.name == rate and not one.backwards for one in heard)
    assert [one.frames for one in decoder.read(full_frame(Label(1, 2, 3, 4), 1))] == [25 * 3723 + 4]


def test_lost_and_mixed_pieces_say_nothing_wrong():
    decoder, sent = Decoder(), list(quarters("25", 1000, 64))
    heard = [(n, one.frames) for n, data in enumerate(sent) if n not in (20, 41) for one in decoder.read(data)]
    assert all(frames == 1000 + n / 4 for n, frames in heard), "after a loss it waits for the next whole label"
    assert decoder.broken == 2
    back, backwards = (
        Decoder(),
        [quarter_frame(label_of(1000 - 2 * n, RATES["25"]), 1, piece) for n in range(4) for piece in range(7, -1, -1)],
    )
    assert {one.backwards for data in backwards for one in back.read(data)} == {True}
    mixed = Decoder()
    heard = [
        one
        for a, b in zip(quarters("25", 1000, 40), list(quarters("25", 9003, 43))[3:], strict=False)
        for one in mixed.read(a + b)
    ]
    assert not heard
    assert mixed.broken > 30


def chased(jitter, speed=1.0, dropout=0.0, seconds=20.0, seed=1, rate="25"):
    """Stamp and error of the position, s, a hundred times a second, while quarter frames come with jitter."""
    chance, chase, frame_s = random.Random(seed), Chase(frame_s=1 / 25), 1 / float(RATES[rate].per_second)
    arrivals = []
    for n in range(int(seconds * 4 / frame_s)):
        if chance.random() >= dropout:
            t = n * frame_s / 4 / speed
            arrivals.append((max(t + chance.uniform(-jitter, jitter), arrivals[-1][0] if arrivals else -1), n * frame_s / 4))
    errors = []
    for t, p in arrivals:
        chase = chase.heard(p, t)
        errors.append((t, chase.way.position_at(t) - t * speed))
    return np.array(errors), chase


@pytest.mark.parametrize("speed", [1.0, 1.001, 0.999])
@pytest.mark.parametrize("seed", [1, 2, 3])
def test_jitter_of_20_ms_gives_less_than_2_ms_of_wander(speed, seed):
    errors, chase = chased(0.02, speed, seed=seed)
    settled = errors[errors[:, 0] > 3, 1]
    assert settled.std() < 0.002
    assert abs(settled.mean()) < 0.012, "a line that keeps the order is late as a whole"
    assert chase.jumped == 0


def test_it_locks_within_half_a_second_and_a_player_of_another_speed_is_followed():
    errors, _ = chased(0.02, seed=4)
    after = errors[(errors[:, 0] > 0.5) & (errors[:, 0] < 3), 1]
    assert after.std() < 0.004
    fast, _ = chased(0.0, 1.04)
    assert np.abs(fast[fast[:, 0] > 4, 1]).max() < 0.002
    lossy, _ = chased(0.02, 1.0, dropout=0.5, seed=5)
    assert lossy[lossy[:, 0] > 4, 1].std() < 0.003


def test_a_step_of_more_than_4_frames_is_a_jump_and_silence_is_told():
    chase = Chase(frame_s=0.04)
    for n in range(100):
        chase = chase.heard(n / 100, n / 100)
    assert chase.state(1.0) == "chasing"
    assert chase.heard(1.15, 1.0).jumped == 0
    jumped = chase.heard(1.17, 1.0)
    assert (jumped.jumped, jumped.way.position_at(1.0)) == (1, 1.17)
    assert [chase.state(t) for t in (1.1, 1.2, 2.9, 3.1)] == ["chasing", "free", "free", "lost"]
