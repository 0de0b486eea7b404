"""Songs: playing to a position and going there give the same, whatever frames were made; hands and tempos beside them."""

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.singing import LENGTH, OTHER, SONG, VERSE, Stage, cue_id
from tests.thoroughness import thorough
from zarabanda.core.rig import attributes
from zarabanda.engine import journal
from zarabanda.engine.live import songs
from zarabanda.engine.telling_songs import songs_told
from zarabanda.errors import ZarabandaError

AT = st.floats(0, LENGTH).map(lambda at: round(at, 2))
SHARE = st.sampled_from([0.0, 0.3, 0.8, 1.0])
HAPPENS = st.lists(
    st.one_of(
        st.tuples(st.just("cues"), AT, st.fixed_dictionaries({"cue": st.integers(1, 5).map(cue_id)})),
        st.tuples(st.sampled_from(["warm", "swell", "green"]), AT,
                  st.fixed_dictionaries({"does": st.sampled_from(["on", "off"])})),
        st.tuples(st.sampled_from(["dark", "red", "held", "flash"]), AT,
                  st.fixed_dictionaries({"does": st.just("hold"), "length": st.sampled_from([0.0, 0.04, 0.7, 3.0])})),
        st.tuples(st.sampled_from(["blue", "row", "depth", "fader", "level"]), AT, st.fixed_dictionaries({"value": SHARE})),
    ), max_size=14,
)  # fmt: skip


@thorough(60)
@given(HAPPENS, AT, st.sampled_from([0, 7, 44]), st.sampled_from([0.5, 1.0, 1.7]))
def test_going_to_a_position_is_what_playing_to_it_gives(happens, p, rate, speed):
    played, gone = Stage(happens), Stage(happens)
    played.act({"do": "song-speed", "timeline": SONG, "speed": speed}, 100.0)
    played.play(100.0)
    for n in range(1, int(rate * p / speed) + 1):
        played.advance(100.0 + n / rate)
    end = 100.0 + p / speed
    played.play(end, on=False)
    gone.locate(songs.current(played.now).transport.position_at(end), end)
    assert np.allclose(gone.at(end), played.at(end), atol=1e-9)
    there, here = (songs.current(stage.now).inner for stage in (gone, played))
    assert {n: one.cue for n, one in there.lists.items()} == {n: one.cue for n, one in here.lists.items()}


def restarted(stage, t):
    """The state of an engine that goes on from the journal of one that died at t."""
    entry = journal.entry_of(stage.now, now=t, wall=9_000.0, boot="this start")
    read = msgspec.msgpack.decode(msgspec.msgpack.encode(entry), type=journal.LiveEntry)
    return journal.restored(read, stage.now.program, t, 9_000.0, "this start")


@thorough(25)
@given(HAPPENS, st.lists(AT, min_size=2, max_size=4).filter(lambda found: found[-1] < LENGTH), st.floats(0, 3))
def test_check_points_jumps_and_an_engine_that_died_lead_to_the_same_light(happens, positions, more):
    stage, fresh, again = (Stage(happens, keeps_moving=False) for _ in range(3))
    for n, p in enumerate(positions):
        stage.locate(p, float(n))
    stage.play(10.0)
    stage.advance(10.0 + more)
    p = min(positions[-1] + more, LENGTH)
    fresh.locate(p, 10.0 + more)
    assert np.allclose(stage.at(10.0 + more), fresh.at(10.0 + more), atol=1e-9)
    again.now = restarted(stage, 10.0 + more)
    assert np.allclose(again.at(11.0 + more), stage.at(11.0 + more), atol=1e-6)


@thorough(25)
@given(HAPPENS, HAPPENS, AT)
def test_what_was_kept_before_an_edit_is_still_right_after_it(happens, others, p):
    stage = Stage(happens)
    stage.locate(LENGTH, 0.0)
    stage.happens = others
    stage.edit(1.0)
    stage.locate(p, 2.0)
    fresh = Stage(others)
    fresh.locate(p, 2.0)
    assert np.allclose(stage.at(2.0), fresh.at(2.0), atol=1e-9)


def test_a_restarted_engine_sends_nothing_again_and_a_song_that_goes_out_goes_on_doing_so():
    hit = {"kind": "osc", "address": "/hit"}
    stage = Stage([CUE, ("sent", 1.5, {"message": hit}), ("sent", 3.0, {"message": hit})])
    again = Stage(stage.happens)
    stage.play(10.0)
    stage.advance(12.0)
    assert len(stage.now.outbox.messages) == 1
    again.now = restarted(stage, 12.0)
    again.advance(14.0)
    assert len(again.now.outbox.messages) == 1, "that at 3 s, not that before"
    stage.act({"do": "leave-song", "seconds": 4.0}, 14.0)
    again.now = restarted(stage, 15.0)
    assert intensity(again, 16.0)[0] == intensity(stage, 16.0)[0] == 30, "half of the way out from 60"


CUE = ("cues", 1.0, {"cue": cue_id(1)})


def intensity(stage, t):
    return np.round(stage.at(t)[attributes.INTENSITY], 3).tolist()


def test_a_song_plays_stands_and_goes_on_where_it_was():
    stage = Stage([CUE])
    stage.play(10.0)
    assert intensity(stage, 10.9) == [0, 0, 0, 0]
    assert intensity(stage, 12.0) == [30, 0, 15, 0], "half of a fade of 2 s from position 1"
    stage.play(12.5, on=False)
    assert intensity(stage, 20.0) == [45, 0, 22.5, 0], "fades stand with the song"
    stage.play(30.0)
    assert intensity(stage, 30.25) == [52.5, 0, 26.25, 0]
    stage.act({"do": "song-speed", "timeline": SONG, "speed": 0.5}, 30.25)
    assert intensity(stage, 30.5) == [56.25, 0, 28.125, 0]


def test_a_part_is_played_over_and_over_and_a_loop_without_length_is_refused():
    stage = Stage([("cues", 3.0, {"cue": cue_id(1)})])
    with pytest.raises(ZarabandaError, match="no length"):
        stage.act({"do": "loop-song", "timeline": SONG, "begin": 4.0, "end": 4.0}, 0.0)
    stage.act({"do": "loop-song", "timeline": SONG, "begin": 2.0, "end": 4.0}, 0.0)
    stage.play(0.0)
    assert [intensity(stage, t)[0] for t in (0.9, 1.5, 1.9, 2.5, 3.5, 5.5)] == [0, 15, 27, 0, 15, 15]
    assert songs.current(stage.now).done == pytest.approx(3.0, abs=0.6)


def test_at_its_end_a_song_stands_and_play_begins_it_anew():
    stage = Stage([CUE], length_s=4.0)
    stage.play(0.0)
    assert intensity(stage, 9.0)[0] == 60
    assert (songs.current(stage.now).plays, songs.current(stage.now).done) == (False, 4.0)
    stage.play(10.0)
    assert intensity(stage, 10.5)[0] == 0


def test_everything_else_goes_out_but_what_hands_have_taken_since():
    stage = Stage([("cues", 2.0, {"cue": cue_id(4)})], begins_alone=True)
    stage.act({"do": "pad", "row": 2, "pad": 1}, 0.0)
    stage.play(1.0)
    assert stage.colours(0.9)[0] == "r"
    assert stage.colours(2.1)[0] == "w", "what was there before goes out as it begins"
    stage.act({"do": "pad", "row": 2, "pad": 1}, 2.5)
    assert stage.colours(9.0)[0] == "r", "what hands do while it plays stays"


def test_a_control_that_hands_touch_is_theirs_until_it_is_given_back():
    stage = Stage([("blue", 0.0, {"value": 0.0}), ("blue", 10.0, {"value": 1.0}), ("level", 0.0, {"value": 1.0}), CUE])
    zoom = lambda t: round(float(stage.at(t)[attributes.INDEX["zoom"], 0]), 3)  # noqa: E731
    stage.play(0.0)
    home, there = zoom(0.0), zoom(5.0)
    assert there == pytest.approx(home + 0.5 * (40 - home))
    stage.move("blue", 0.2, 5.0)
    assert zoom(6.0) == zoom(8.0) == pytest.approx(home + 0.2 * (40 - home), abs=1e-3)
    assert [(one.name, one.since) for one in songs_told(stage.now, 8.0)[0].hands] == [("Blue", 5.0)]
    stage.locate(4.0, 8.0)
    assert zoom(8.0) == pytest.approx(home + 0.2 * (40 - home), abs=1e-3), "a jump leaves it in hands"
    stage.act({"do": "give-back"}, 9.0)
    shares = [(zoom(t) - home) / (40 - home) for t in (9.0, 9.5, 10.0, 10.5)]
    assert shares == pytest.approx([0.2, 0.375, 0.6, 0.65], abs=1e-3), "it glides to the song in 1 s"
    stage.act({"do": "list-level", "list": VERSE, "value": 0.5}, 11.0)
    assert intensity(stage, 14.0)[0] == 30
    stage.act({"do": "go", "list": VERSE}, 14.0)
    stage.act({"do": "give-back", "subject": f"list:{VERSE}"}, 20.0)
    assert stage.now.songs[-1].inner.lists[VERSE].cue == cue_id(1)
    with pytest.raises(ZarabandaError, match="song's already"):
        stage.act({"do": "give-back", "subject": "control:3"}, 21.0)


def test_tempos_follow_the_grid_within_a_beat_and_are_tapped_once_they_are_taken():
    stage = Stage([])
    stage.act({"do": "bpm", "tempo": "Movement", "value": 70.0}, 0.0)
    stage.play(10.0)
    beats = [stage.beats("Movement", t) for t in (12.5, 13.0)]
    assert np.diff(beats) == pytest.approx([1.0])
    assert (beats[0] - 4.0) % 1 == pytest.approx(0.0, abs=1e-9), "on the beats of the grid"
    stage.advance(28.0)
    assert stage.tempo("Movement").bpm == 90, "and through its changes"
    with pytest.raises(ZarabandaError, match="Song drives the tempo Movement"):
        stage.act({"do": "tap", "tempo": "Movement"}, 28.0)
    stage.act({"do": "take-tempo", "tempo": "Movement"}, 28.0)
    stage.act({"do": "bpm", "tempo": "Movement", "value": 60.0}, 28.0)
    assert (stage.tempo("Movement").bpm, stage.tempo("Colour").bpm) == (60, 90)
    stage.act({"do": "give-back"}, 29.0)
    assert stage.tempo("Movement").bpm == 90


def test_effects_move_on_while_the_song_stands_and_come_back_onto_its_grid():
    happens = [("swell", 0.0, {"does": "on"})]
    stage, exact, still = Stage(happens), Stage(happens), Stage(happens, keeps_moving=False)
    for one in (stage, exact, still):
        one.play(0.0)
    for one in (stage, still):
        one.play(4.0, on=False)
    level = lambda one, t: float(one.at(t)[attributes.INTENSITY, 0])  # noqa: E731
    assert len({round(level(stage, t), 3) for t in (5.0, 5.3, 5.7)}) == 3
    assert len({round(level(still, t), 3) for t in (5.0, 5.3, 5.7)}) == 1
    stage.play(6.3)
    assert level(stage, 6.3) == pytest.approx(level(stage, 6.3 - 1e-7), abs=1e-3), "nothing jumps"
    assert level(stage, 6.9) == pytest.approx(level(exact, 4.6), abs=1e-6), "within a beat it is on the grid"


def test_another_song_takes_the_place_of_one_and_leaving_clears_the_stage():
    stage = Stage([CUE])
    stage.play(0.0)
    assert intensity(stage, 5.0)[0] == 60
    stage.act({"do": "play-song", "timeline": OTHER}, 5.0)
    assert intensity(stage, 5.5)[0] == 30
    stage.advance(7.1)
    assert [song.id for song in stage.now.songs] == [OTHER]
    stage.act({"do": "leave-song", "seconds": 0}, 8.0)
    stage.advance(8.1)
    assert stage.now.songs == ()


def test_a_jump_tells_the_latest_message_of_each_target_that_says_how_things_are():
    osc = {"kind": "osc", "device": 1, "arguments": ""}
    stage = Stage([
        ("sent", 1.0, {"message": {**osc, "address": "/clip", "arguments": "1", "is_state": True}}),
        ("sent", 2.0, {"message": {**osc, "address": "/clip", "arguments": "2", "is_state": True}}),
        ("sent", 3.0, {"message": {**osc, "address": "/hit"}}),
    ])  # fmt: skip
    stage.play(0.0)
    stage.advance(3.5)
    assert [one.content["arguments"] for one in stage.now.outbox.messages] == ["1", "2", ""]
    stage.locate(10.0, 4.0)
    assert [one.content["arguments"] for one in stage.now.outbox.messages[3:]] == ["2"]
    stage.act({"do": "scrub", "timeline": SONG, "position": 2.5}, 5.0)
    assert len(stage.now.outbox.messages) == 4


def test_following_timecode_goes_there_smoothly_or_at_once_and_stands_when_told():
    stage = Stage([CUE])
    chased = lambda p, t, **more: stage.act({"do": "chased", "timeline": SONG, "position": p, "at": t, **more}, t)  # noqa: E731
    chased(5.0, 100.0, jump=True)
    assert songs.current(stage.now).transport.position_at(101.0) == pytest.approx(6.0)
    chased(6.02, 101.0)
    assert songs.current(stage.now).transport.position_at(101.0) == pytest.approx(6.0), "no jump"
    assert songs.current(stage.now).transport.position_at(101.25) == pytest.approx(6.27)
    chased(20.0, 102.0, jump=True)
    assert intensity(stage, 102.0)[0] == 60
    chased(20.5, 102.5, speed=0.0)
    assert not songs.current(stage.now).plays


def test_hands_on_armed_tracks_are_taken_with_their_positions_and_lengths():
    happens = [("cues", 30.0, {"cue": cue_id(1)}), ("flash", 30.0, {"length": 0.1}), ("fader", 30.0, {"value": 0.0}),
               ("warm", 30.0, {"does": "on"}), ("dark", 30.0, {"length": 0.1})]  # fmt: skip
    stage = Stage(happens)
    stage.play(0.0)
    with pytest.raises(ZarabandaError, match="No track is armed"):
        stage.act({"do": "record-song", "timeline": SONG}, 1.0)
    stage.armed = {"cues", "flash", "fader", "warm"}
    stage.edit(1.0)
    stage.act({"do": "record-song", "timeline": SONG}, 2.0)
    stage.act({"do": "go", "list": VERSE}, 3.0)
    stage.act({"do": "flash", "row": 3, "kind": "white", "down": True, "holder": "a"}, 4.0)
    stage.act({"do": "flash", "row": 3, "kind": "white", "down": False, "holder": "a"}, 4.5)
    stage.press("warm", 5.0)
    stage.press("warm", 5.1, down=False)
    stage.press("dark", 5.2)
    stage.move("swell", 0.5, 6.0)
    stage.press("warm", 7.0)
    told = songs_told(stage.now, 8.0)[0]
    assert (told.records, told.taken) == (True, 6), "not what is on tracks that are not armed"
    taken = stage.now.songs[-1].recording.taken
    assert [(one.track, one.at, one.what) for one in taken] == [
        (1, 3.0, "cue"), (2, 4.0, "down"), (2, 4.5, "up"), (4, 5.0, "on"), (3, 6.0, "level"), (4, 7.0, "off"),
    ]  # fmt: skip
    assert (taken[0].cue, taken[4].value) == (cue_id(1), 0.5)
    stage.locate(20.0, 9.0)
    stage.act({"do": "record-song", "timeline": SONG, "on": False}, 10.0)
    assert stage.now.songs[-1].recording.spans == ((2.0, 9.0), (20.0, 21.0))
