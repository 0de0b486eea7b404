"""Cue lists in the live state: effects that run on through cues, chases, edits while a cue is on stage, the journal."""

from itertools import pairwise

import msgspec
import numpy as np
import pytest

from tests.engine.shows import HEADS, RIG, Live, effect, rig_parts
from zarabanda.core.playback.cue_list import CueList, Round, Step
from zarabanda.core.playback.ground import base_at
from zarabanda.core.rig import attributes
from zarabanda.engine import journal
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.seen_ahead import seen_ahead
from zarabanda.engine.live.stages import look_at
from zarabanda.engine.tracing import acting
from zarabanda.messages import ControlPart, CueListPart, CuePart, EffectPart, ShowUpdate, TempoPart
from zarabanda.targets import StopEffects

PLAIN = {"intensity": {"up": 0, "down": 0}, "position": {}, "colour": {}, "beam": {}}
SLOW = {"intensity": {"up": 2, "down": 2}, "position": {"fade": 2}, "colour": {"fade": 2}, "beam": {"fade": 2}}
TILT = {"attribute": "tilt", "form": {"kind": "waveform", "shape": "square", "duty": 1}, "anchor": {"kind": "above", "depth": 40}}


def cue(number, *, list_id=1, **document):
    return CuePart(100 * list_id + number, list_id, float(number), {"times": PLAIN, **document})


def start(thread=1, heads=HEADS, effect=1, **more):
    return {"do": "start", "thread": thread, "effect": effect, "heads": heads, **more}


def update(*parts, revision=1, lists=1, **settings):
    rows = [CueListPart(n, f"List {n}", n, settings) for n in range(1, lists + 1)]
    made = [EffectPart(1, effect()), EffectPart(2, effect(layers=[TILT])), TempoPart(1, "Movement", 120.0, 1)]
    return ShowUpdate("test", revision, [*rig_parts(RIG), *made, *rows, *parts], whole=True)


def live(*parts, compiler=None, **more):
    desk = Live()
    desk.swap((compiler or Compiler()).take(update(*parts, **more)), 0.0)
    return desk


def go(desk, t, list_id=1):
    desk.act({"do": "go", "list": list_id}, t)


def value(desk, name, head, t):
    desk.advance(t)
    return float(look_at(desk.now, t)[attributes.INDEX[name], HEADS.index(head)])


def running(desk, t):
    desk.advance(t)
    return {key: round(one.weight(t), 3) for key, one in desk.playing.items()}


def test_an_effect_runs_on_through_cues_until_one_stops_it_at_its_phase():
    desk = live(
        cue(1, effects=[start()]), cue(2, values={"zoom": {"1": 9}}),
        cue(3, effects=[{"do": "change", "thread": 1, "depth": 0.5, "speed": 2}], times=SLOW),
        cue(4, effects=[{"do": "stop", "thread": 1}], times=SLOW),
    )  # fmt: skip
    go(desk, 10.0)
    began = desk.playing["list:1:1"].started
    go(desk, 11.25)
    assert (desk.playing["list:1:1"].started, running(desk, 11.25)) == (began, {"list:1:1": 1.0})
    assert value(desk, "intensity", "1", 11.25) == pytest.approx(25.0)
    go(desk, 12.0)
    desk.advance(13.0)
    theta = [desk.now.theta(desk.playing["list:1:1"], t) for t in (12.0, 13.0, 14.0, 15.0)]
    assert np.diff(theta) == pytest.approx([1.25, 1.75, 2.0]), "to double speed in two seconds, without a jump"
    assert running(desk, 13.0) == {"list:1:1": 0.75}
    go(desk, 20.0)
    assert (running(desk, 21.0), running(desk, 22.0)) == ({"list:1:1": 0.25}, {})


def test_a_jump_starts_what_runs_there_and_stops_what_does_not():
    desk = live(cue(1, effects=[start()]), cue(2, effects=[start(2, effect=2)]), cue(3, effects=[{"do": "stop", "thread": 1}]))
    desk.act({"do": "go-to", "list": 1, "cue": 102}, 1.0)
    assert running(desk, 1.0) == {"list:1:1": 1.0, "list:1:2": 1.0}
    desk.act({"do": "go-to", "list": 1, "cue": 103}, 2.0)
    assert running(desk, 2.0) == {"list:1:2": 1.0}
    desk.act({"do": "stop", "key": "list:1:2"}, 3.0)
    desk.act({"do": "back", "list": 1}, 4.0)
    assert running(desk, 6.0) == {"list:1:1": 1.0, "list:1:2": 1.0}, "a cue that starts it brings it back"


def test_what_was_stopped_by_hand_stays_so_until_a_cue_starts_it():
    desk = live(cue(1, effects=[start()]), cue(2), cue(3, effects=[start(3)]))
    go(desk, 1.0)
    desk.act({"do": "stop-all", "seconds": 0}, 2.0)
    go(desk, 3.0)
    assert running(desk, 3.0) == {}
    go(desk, 4.0)
    assert running(desk, 4.0) == {"list:1:3": 1.0}


def test_one_kind_of_effect_can_be_stopped_and_stays_so():
    both = effect(layers=[*effect()["layers"], TILT])
    desk = Live()
    parts = [one for one in update(cue(1, effects=[start()]), cue(2)).parts if one.key != ("effect", 1)]
    desk.swap(Compiler().take(ShowUpdate("test", 1, [*parts, EffectPart(1, both)], whole=True)), 0.0)
    go(desk, 1.0)
    desk.act({"do": "stop-all", "family": "position", "seconds": 1}, 2.3)
    go(desk, 5.0)
    assert value(desk, "intensity", "1", 5.25) == pytest.approx(25.0)
    assert value(desk, "tilt", "1", 5.25) == 0


@pytest.mark.parametrize(("takes", "left"), [(True, {"1": 30.0, "2": 30.0, "3": 75.0}), (False, {"1": 75.0, "3": 75.0})])
def test_a_cue_takes_over_from_effects_of_other_lists_where_it_writes(takes, left):
    mine = cue(1, list_id=2, values={"intensity": {"1": 30, "2": 30}}, takes_over=takes)
    desk = live(cue(1, effects=[start()]), mine, lists=2)
    go(desk, 1.0)
    go(desk, 2.0, list_id=2)
    assert {head: value(desk, "intensity", head, 2.75) for head in left} == pytest.approx(left)


def test_everything_else_goes_out_but_what_is_protected():
    desk = live(
        cue(1, values={"intensity": {"1": 100}}, effects=[start(heads=["2"])]),
        cue(1, list_id=2, values={"intensity": {"3": 60}}, everything_else_out=True), lists=2,
    )  # fmt: skip
    go(desk, 1.0)
    go(desk, 2.0, list_id=2)
    assert [value(desk, "intensity", head, 2.4) for head in "123"] == [0, 0, 60]
    assert (desk.lists[1].cue, running(desk, 2.4)) == (None, {})
    kept = live(*desk_parts(protected=True), lists=2, protected=True)
    go(kept, 1.0)
    go(kept, 2.0, list_id=2)
    assert [value(kept, "intensity", head, 2.4) for head in "13"] == [100, 60]
    kept.act({"do": "release-all", "seconds": 0}, 3.0)
    assert kept.lists[1].cue is not None, "what is protected stays"


def desk_parts(protected):
    return (
        cue(1, values={"intensity": {"1": 100}}),
        cue(1, list_id=2, values={"intensity": {"3": 60}}, everything_else_out=True),
    )


def test_a_follow_on_on_the_next_bar_is_kept_as_a_beat_so_that_a_tap_moves_it():
    desk = live(cue(1), cue(2, trigger={"kind": "bar", "tempo": 1}))
    go(desk, 0.6)  # 120 BPM: beat 1.2, so bar 2 begins at beat 4, at 2 s
    desk.advance(1.9)
    assert desk.lists[1].cue == 101
    desk.act({"do": "bpm", "tempo": "Movement", "value": 60}, 1.0)  # two beats are left, now of a second each
    desk.advance(2.9)
    assert desk.lists[1].cue == 101
    desk.advance(3.0)
    assert desk.lists[1].cue == 102


def a_round(count, **how):
    return CueList(1, "Round", tuple(range(count)), (0, 0), round=Round(**how))


@pytest.mark.parametrize(
    ("order", "places"),
    [("forward", [0, 1, 2, 0, 1, 2, 0]), ("backward", [0, 2, 1, 0, 2, 1, 0]), ("back-and-forth", [0, 1, 2, 1, 0, 1, 2])],
)
def test_a_list_goes_round_in_its_order(order, places):
    whose, at, found = a_round(3, order=order), Step(0), []
    for _ in places:
        found.append(at.place)
        at = whose.next(at)
    assert found == places


def test_a_shuffled_round_has_every_cue_once_and_none_twice_in_a_row():
    whose, steps = a_round(5, order="shuffled", seed=3), [Step(0)]
    for _ in range(60):
        steps.append(whose.next(steps[-1]))
    assert all(one.place != other.place for one, other in pairwise(steps))
    rounds = [tuple(step.place for step in steps if step.rounds == n) for n in range(1, 9)]
    assert all(sorted(one) == [0, 1, 2, 3, 4] for one in rounds)
    assert len(set(rounds)) > 1


def test_a_chase_steps_by_beats_and_stops_when_it_is_paused():
    cues = [cue(n, values={"intensity": {str(n): 100}}, stops={"intensity": [str(n - 1)]} if n > 1 else {}) for n in (1, 2, 3)]
    desk = live(*cues, goes_round=True, round_by="tempo", round_every=2)
    go(desk, 0.0)
    seen = []
    for t in (0.5, 1.5, 2.5, 3.5):
        desk.advance(t)
        seen.append(desk.lists[1].cue)
    assert seen == [101, 102, 103, 101]
    desk.act({"do": "pause", "list": 1}, 3.6)
    desk.advance(30.0)
    assert desk.lists[1].cue == 101
    go(desk, 30.0)
    desk.advance(30.6)
    assert desk.lists[1].cue == 102


def test_a_list_that_would_never_rest_does_not_stop_the_lights():
    cues = [cue(n, trigger={"kind": "with", "wait": 0}, values={"zoom": {"1": 10 + n}}) for n in (1, 2)]
    desk = live(*cues, goes_round=True)
    assert desk.program.lists[1].never_rests
    go(desk, 1.0)
    desk.advance(100.0)
    assert desk.lists[1].cue == 102


def test_a_list_may_release_itself_when_its_last_fade_has_arrived():
    desk = live(cue(1, values={"intensity": {"1": 100}}, times=SLOW), ends="releases", ends_in=1)
    go(desk, 1.0)
    assert [round(value(desk, "intensity", "1", t)) for t in (2.0, 3.0, 3.5, 4.0)] == [50, 100, 50, 0]
    assert desk.lists[1].cue is None


def edited(desk, compiler, t, *parts, revision=2, **more):
    desk.swap(compiler.take(update(*parts, revision=revision, **more)), t)


def test_an_edit_of_the_cue_on_stage_is_there_soon_and_changes_nothing_else():
    compiler = Compiler()
    first = cue(1, values={"intensity": {"1": 100, "2": 80}, "zoom": {"1": 10}}, times=SLOW)
    desk = live(first, cue(2), compiler=compiler)
    go(desk, 1.0)
    changed = cue(1, values={"intensity": {"1": 100, "2": 20, "3": 50}}, times=SLOW, effects=[start(heads=["4"])])
    edited(desk, compiler, 2.0, changed, cue(2))
    assert value(desk, "intensity", "1", 2.0) == 50, "its fade goes on"
    assert [round(value(desk, "intensity", head, 2.2)) for head in "123"] == [60, 20, 50]
    assert value(desk, "zoom", "1", 2.2) == attributes.BY_NAME["zoom"].home
    assert "list:1:1" in desk.playing


def test_where_the_cue_on_stage_is_deleted_the_list_is_on_the_one_before():
    compiler = Compiler()
    three = [cue(n, values={"intensity": {"1": 10.0 * n}}) for n in (1, 2, 3)]
    desk = live(*three, compiler=compiler)
    go(desk, 1.0)
    go(desk, 2.0)
    edited(desk, compiler, 3.0, three[0], three[2])
    assert (desk.lists[1].cue, value(desk, "intensity", "1", 3.5)) == (101, 20), "what is on stage stays"
    go(desk, 4.0)
    assert desk.lists[1].cue == 103
    desk.swap(compiler.take(ShowUpdate("test", 3, [], [("cue-list", 1), *(part.key for part in three)])), 5.0)
    assert (desk.lists, value(desk, "intensity", "1", 5.5)) == ({}, 0)


def test_lights_that_come_to_the_rig_keep_what_lists_hold_on_the_others():
    compiler = Compiler()
    desk = live(cue(1, values={"intensity": {"2": 70}}), compiler=compiler)
    go(desk, 1.0)
    more = {**RIG, "fixtures": [{**RIG["fixtures"][0], "id": 9, "address": 200}, *RIG["fixtures"][1:]]}
    desk.swap(compiler.take(ShowUpdate("test", 2, rig_parts(more), [("fixture", 1)])), 2.0)
    rig = desk.program.rig
    assert base_at(rig, desk.claims, 2.0)[0, rig.heads.index["2"]] == 70


def test_a_journal_brings_lists_back_with_fades_pauses_effects_and_what_waits(tmp_path):
    cues = [
        cue(1, values={"intensity": {"1": 100}, "tilt": {"1": 30}}, times=SLOW, effects=[start(heads=["2"])]),
        cue(2, values={"intensity": {"1": 20}}, trigger={"kind": "after", "wait": 1}, times=SLOW),
        cue(1, list_id=2, values={"zoom": {"3": 9}}, times=SLOW), cue(2, list_id=2),
    ]  # fmt: skip
    desk = live(*cues, lists=2)
    go(desk, 1.0)
    go(desk, 1.5, list_id=2)
    desk.act({"do": "pause", "list": 2}, 2.0)
    desk.act({"do": "list-level", "list": 1, "value": 0.5}, 2.0)
    kept = journal.Journal(tmp_path)
    kept.write_live(journal.entry_of(desk.now, now=2.2, wall=0.0, boot="b"))
    again = Live()
    again.now = journal.restored(kept.read_live(), desk.program, 2.2, 0.0, "b")
    for t in (2.2, 2.9, 3.7, 4.6, 7.0):
        for name, head in (("intensity", "1"), ("intensity", "2"), ("tilt", "1"), ("zoom", "3")):
            assert value(again, name, head, t) == pytest.approx(value(desk, name, head, t)), (name, head, t)
    assert (again.lists, again.lists[1].cue) == (desk.lists, 102)


def test_a_journal_with_odd_numbers_in_a_list_is_put_aside(tmp_path):
    desk = live(cue(1))
    go(desk, 1.0)
    entry = msgspec.to_builtins(journal.entry_of(desk.now, now=2.2, wall=0.0, boot="b"))
    lists = entry["stage"]["lists"]
    lists["1"] = {**(lists.pop("1", None) or lists.pop(1)), "level": float("nan")}
    kept = journal.Journal(tmp_path)
    kept.live.write(msgspec.msgpack.encode(msgspec.convert(entry, journal.LiveEntry, strict=False)))
    assert kept.read_live() is None


def test_a_cue_is_seen_ahead_as_it_will_be_while_the_stage_stays():
    desk = live(cue(1, values={"intensity": {"1": 80}}), cue(2, values={"intensity": {"2": 40}}, effects=[start(heads=["3"])]))
    go(desk, 1.0)
    desk.act({"do": "look-at", "list": 1, "cue": 102}, 2.0)
    ahead = seen_ahead(desk.now)
    assert look_at(ahead, 2.25)[0].round(6).tolist() == [80, 40, 25, 0], "with what is carried on, and its effect from now on"
    assert [value(desk, "intensity", head, 2.25) for head in "12"] == [80, 0]
    go(desk, 3.0)
    assert desk.looked_at is None, "what is looked at is on stage now"


def test_depth_and_speed_of_what_runs_are_changed_live_until_a_cue_starts_it_anew():
    desk = live(cue(1, effects=[start()]), cue(2), cue(3, effects=[{"do": "change", "thread": 1, "depth": 0.5, "speed": 2}]))
    go(desk, 10.0)
    desk.act({"do": "adjust", "key": "list:1:1", "depth": 0.4, "speed": 4}, 10.25)
    theta = [desk.now.theta(desk.playing["list:1:1"], t) for t in (10.25, 10.5)]
    assert np.diff(theta) == pytest.approx([1.0]), "four times as quick, without a jump"
    assert theta[0] == pytest.approx(0.25)
    assert running(desk, 10.5) == {"list:1:1": 0.4}
    go(desk, 11.0)
    assert running(desk, 11.0) == {"list:1:1": 0.4}, "a cue that says nothing of it leaves it"
    go(desk, 12.0)
    assert running(desk, 12.0) == {"list:1:1": 0.2}
    assert desk.playing["list:1:1"].rate == 8


def rising(depth, seconds):
    layer = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "rise"}, "anchor": {"kind": "above", "depth": depth}}
    return EffectPart(4, effect(layers=[layer], speed={"kind": "time", "seconds_per_cycle": seconds}))


@pytest.mark.parametrize(
    ("change", "part"),
    [({"depth": 0.4, "speed": 4.0}, rising(100, 1.0)), ({}, rising(40, 0.25))],
    ids=["into the cue", "into the effect"],
)
def test_what_was_changed_live_and_is_written_back_goes_on_as_it_was(change, part):
    compiler = Compiler()
    desk = live(cue(1, effects=[start(effect=4)]), rising(100, 1.0), compiler=compiler)
    go(desk, 10.0)
    desk.act({"do": "adjust", "key": "list:1:1", "depth": 0.4, "speed": 4}, 10.25)
    desk.advance(11.1)
    again = Live()
    again.now = desk.now
    made = update(cue(1, effects=[start(effect=4, **change)]), part, revision=2)
    again.swap(compiler.take(msgspec.structs.replace(made, written_back=["list:1:1"])), 11.1)
    times = (11.1, 11.13, 11.2, 11.27, 11.4)
    assert [value(again, "intensity", "1", t) for t in times] == pytest.approx([value(desk, "intensity", "1", t) for t in times])
    playing = again.playing["list:1:1"]
    assert (playing.hand.end, playing.hand_speed) == (1, 1)


@pytest.mark.parametrize("changed", [0, 31, 32, 40, 69])
def test_an_edit_of_one_cue_of_many_gives_what_all_made_anew_give(changed):
    def cues(other):
        values = [{"zoom": {HEADS[n % 4]: 5 + n % 40}, "intensity": {HEADS[n % 3]: n}} for n in range(70)]
        values[changed] = other
        return [cue(n + 1, values=one) for n, one in enumerate(values)]

    compiler, edited = Compiler(), cues({"intensity": {"1": 77, "4": 0}})
    compiler.take(update(*cues({"zoom": {"1": 9}})))
    again = compiler.take(update(*edited, revision=2)).lists[1]
    anew = Compiler().take(update(*edited)).lists[1]
    for n in range(70):
        one, other = again.after(n), anew.after(n)
        np.testing.assert_array_equal(one.values, other.values)
        np.testing.assert_array_equal(one.source, other.source)
    np.testing.assert_array_equal(again.lit, anew.lit)


def test_a_button_stops_what_effects_do_in_one_family():
    both = EffectPart(5, effect(layers=[*effect()["layers"], TILT]))
    button = ControlPart(9, "Stop movement", "page", "flash", "depth", 1.0, StopEffects("position"))
    desk = live(cue(1, effects=[start(effect=5)]), both, button)
    go(desk, 1.0)
    desk.act({"do": "press", "control": "control:9"}, 2.3)
    desk.act({"do": "press", "control": "control:9", "down": False}, 2.4)
    assert value(desk, "tilt", "1", 2.8) == pytest.approx(20.0), "half of its way back"
    assert (value(desk, "tilt", "1", 4.25), value(desk, "intensity", "1", 4.25)) == (0, pytest.approx(25.0))


def test_it_is_told_on_which_heads_an_effect_runs_now():
    desk = live(cue(1, effects=[start(heads=["1", "2", "3"])]), cue(1, list_id=2, values={"intensity": {"2": 10.0}}), lists=2)
    go(desk, 1.0)
    assert acting(desk.now, 1) == [("List 1, cue 1", ["1", "2", "3"])]
    go(desk, 2.0, list_id=2)
    desk.advance(3.0)
    assert acting(desk.now, 1) == [("List 1, cue 1", ["1", "3"])], "another list has taken over the second"
    desk.act({"do": "stop-all", "seconds": 0}, 4.0)
    assert acting(desk.now, 1) == []


def test_a_show_is_written_down_part_by_part_as_if_it_were_packed_whole(tmp_path):
    kept = journal.Journal(tmp_path)
    for revision, parts in ((1, [cue(1)]), (2, [cue(1), cue(2, values={"zoom": {"1": 9}})]), (3, [cue(2)])):
        shown = update(*parts, revision=revision)
        kept.write_program(shown)
        written = kept.program.read(msgspec.msgpack.Decoder(ShowUpdate).decode, print)
        assert (written.revision, written.parts, written.whole) == (revision, shown.parts, True)
