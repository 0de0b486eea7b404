"""Random lists played by random actions come to what a plain reading says, whenever frames are made."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.playback.plain import PlainShow
from tests.thoroughness import thorough
from zarabanda.core.explain import cues as explain
from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.strips import lay
from zarabanda.core.rig import attributes
from zarabanda.formats import replay_request
from zarabanda.replay import Replay, replay

HEADS = ["a", "b"]
HOME = {"intensity": 0.0, "pan": 0.0, "tilt": 0.0, "zoom": 20.0}
VALUES = {"intensity": [0, 0, 30, 100], "pan": [-90, 0, 60], "tilt": [-40, 25], "zoom": [6, 15, 40]}
SECONDS = st.sampled_from([0.0, 0.0, 0.625, 1.5, 3.0])
"""Times and stamps are eighths: their sums are exact, so that what ends at a stamp does so in both readings."""


def cells(names=tuple(VALUES)):
    return st.dictionaries(st.sampled_from(names), st.lists(st.sampled_from(HEADS), min_size=1, unique=True), max_size=2)


@st.composite
def cues(draw, number):
    values = {name: {head: draw(st.sampled_from(VALUES[name])) for head in heads} for name, heads in draw(cells()).items()}
    family = st.fixed_dictionaries({"fade": SECONDS, "delay": SECONDS})
    cue = {
        "number": number, "values": values, "ease": draw(st.sampled_from(["linear", "smooth", "slow-start", "slow-end"])),
        "times": {"intensity": draw(st.fixed_dictionaries({"up": SECONDS, "down": SECONDS, "delay": SECONDS})),
                  "position": draw(family), "colour": draw(family), "beam": draw(family)},
    }  # fmt: skip
    if number > 1:
        cue["stops"] = {name: heads for name, heads in draw(cells()).items() if name not in values}
        cue["only_here"] = {name: list(heads) for name, heads in values.items() if draw(st.booleans())}
        cue["states_everything"] = draw(st.booleans())
        wait = draw(SECONDS)
        cue["trigger"] = draw(st.sampled_from([{"kind": "go"}, {"kind": "with", "wait": wait}, {"kind": "after", "wait": wait}]))
    cue["everything_else_out"] = draw(st.sampled_from([False, False, True]))
    return cue


@st.composite
def shows(draw):
    return [
        {"name": name, "highest_wins": draw(st.booleans()), "protected": draw(st.booleans()),
         "fader": draw(st.sampled_from(["dims", "uncovers"])), "back": draw(SECONDS),
         "cues": [draw(cues(n + 1)) for n in range(draw(st.integers(1, 4)))]}
        for name in ("Songs", "Hands")
    ]  # fmt: skip


@st.composite
def actions(draw, lists):
    found, t = [], 5.0
    for _ in range(draw(st.integers(2, 9))):
        t += draw(st.sampled_from([0.0, 0.25, 0.875, 2.125]))
        whose = draw(st.sampled_from(lists))
        do = draw(st.sampled_from(["go", "go", "go", "go", "go-to", "back", "pause", "release", "level"]))
        more = {
            "go-to": {"cue": draw(st.integers(1, len(whose["cues"])))}, "release": {"seconds": draw(SECONDS)},
            "level": {"value": draw(st.sampled_from([0.25, 0.5, 1.0]))},
        }.get(do, {})  # fmt: skip
        found.append({"at": t, "do": do, "list": whose["name"], **more})
    return found


def a_show(lists):
    return {"heads": [{"id": head} for head in HEADS], "home": HOME, "cue_lists": lists}


def values(played, t):
    rows = [attributes.INDEX[name] for name in HOME]
    return played.at(t)[np.ix_(rows, range(len(HEADS)))]


@thorough(100)
@given(st.data())
def test_lists_come_to_what_a_plain_reading_says(data):
    lists = data.draw(shows())
    done = data.draw(actions(lists))
    played = Replay(replay_request.read({"show": a_show(lists), "actions": done, "times": [0]}))
    plain = PlainShow(lists, HOME)
    for n, action in enumerate(done):
        played.do(action)
        plain.do(action)
        upcoming = done[n + 1]["at"] if n + 1 < len(done) else action["at"] + 12
        for part in data.draw(st.lists(st.sampled_from([0.0, 0.13, 0.5, 0.99]), max_size=3, unique=True).map(sorted)):
            t = action["at"] + part * (upcoming - action["at"])
            if t >= upcoming:
                continue
            plain.advance(t)
            expected = [[plain.value((name, head), t) for head in HEADS] for name in HOME]
            np.testing.assert_allclose(values(played, t), expected, atol=1e-7, err_msg=f"after action {n}, at {t}")


@thorough(60)
@given(st.data(), st.sampled_from([1 / 20, 1 / 44]))
def test_frames_change_nothing(data, step):
    lists = data.draw(shows())
    for whose in lists:
        for cue in whose["cues"]:
            cue["dark_moves"] = data.draw(st.booleans())
    done = data.draw(actions(lists))
    request = replay_request.read({"show": a_show(lists), "actions": done, "times": [0]})
    rare, often, last = Replay(request), Replay(request), done[0]["at"]
    for action in done:
        for t in np.arange(last, action["at"], step):
            often.at(float(t))
        rare.do(action)
        often.do(action)
        last = action["at"]
    for t in np.arange(last, last + 3, step):
        often.at(float(t))
    np.testing.assert_allclose(values(rare, last + 3), values(often, last + 3), atol=1e-9)
    assert rare.state.lists == often.state.lists


@thorough(60)
@given(st.data())
def test_a_dark_move_never_moves_a_lit_head(data):
    """Positions of cues jump at their go: between actions a head that gives light stands still, whoever lights it."""
    down, pan = st.sampled_from([0.0, 0.6]), st.dictionaries(st.sampled_from(HEADS), st.sampled_from([-90, 60]))
    levels = [dict.fromkeys(HEADS, 100), dict.fromkeys(HEADS, 0), dict.fromkeys(HEADS, 0), dict.fromkeys(HEADS, 100)]
    still = {"position": {"fade": 0, "delay": 0}, "colour": {}, "beam": {}}
    songs = [
        {"number": n + 1, "dark_moves": True, "values": {"intensity": level, "pan": data.draw(pan)},
         "times": {"intensity": {"up": 0, "down": data.draw(down)}, **still}}
        for n, level in enumerate(levels)
    ]  # fmt: skip
    hands = [{"number": n + 1, "values": {"intensity": {"a": 40 * (n % 2)}}, "dark_moves": False} for n in range(3)]
    lists = [{"name": "Songs", "cues": songs}, {"name": "Hands", "cues": hands, "highest_wins": True}]
    done, t = [], 5.0
    for whose in data.draw(st.permutations(["Songs"] * 4 + ["Hands"] * 3)):
        t += data.draw(st.sampled_from([0.7, 1.4, 2.2, 3.6]))
        done.append({"at": t, "do": "go", "list": whose})
    request = replay_request.read({"show": a_show(lists), "actions": done, "times": [0]})
    played = Replay(request)
    for n, action in enumerate(done):
        played.do(action)
        before = None
        for t in np.arange(action["at"] + 0.001, done[n + 1]["at"] if n + 1 < len(done) else action["at"] + 4, 0.09):
            now = values(played, float(t))
            if before is not None:
                lit = (before[0] > 0) & (now[0] > 0)
                np.testing.assert_allclose(now[1:3, lit], before[1:3, lit], atol=1e-9)
            before = now


def test_a_dark_move_waits_a_second_stops_where_it_is_seen_and_goes_on():
    still = {"intensity": {"up": 0, "down": 1}, "position": {"fade": 0, "delay": 0}, "colour": {}, "beam": {}}
    songs = [
        {"number": 1, "values": {"intensity": {"a": 100}, "pan": {"a": 0}}, "times": still},
        {"number": 2, "values": {"intensity": {"a": 0}}, "times": still},
        {"number": 3, "values": {"intensity": {"a": 50}, "pan": {"a": 80}, "zoom": {"a": 6}}, "dark_moves": True, "times": still},
    ]
    lit = [{"number": 1, "values": {"intensity": {"a": 30}}}, {"number": 2, "values": {"intensity": {"a": 0}}}]
    lists = [{"name": "Songs", "cues": songs}, {"name": "Hands", "cues": lit}]
    acts = [(1, "Songs"), (2, "Songs"), (5, "Hands"), (6, "Hands"), (20, "Songs")]
    request = {"show": a_show(lists), "actions": [{"at": at, "do": "go", "list": name} for at, name in acts],
               "times": [3.9, 4.5, 5.0, 5.9, 6.9, 8.0, 9.1], "heads": ["a"], "attributes": ["pan"]}  # fmt: skip
    [pan] = [replay(replay_request.read(request))["values"]["pan"]]
    assert [round(row[0], 3) for row in pan] == [0, 20, 40, 40, 40, 60, 80], "dark at 3, moves 4 to 6, seen 5 to 6, again from 7"


@thorough(80)
@given(st.data())
def test_moves_told_ahead_are_those_that_the_states_after_each_cue_say(data):
    lists = data.draw(shows())
    request = replay_request.read({"show": a_show(lists), "actions": [], "times": [0]})
    program = Replay(request).state.program
    for whose in program.lists.values():
        before = program.rig.home
        for place, told in enumerate(explain.moves(program.rig, whose)):
            values = whose.after(place).values
            now = np.where(np.isnan(values), before, values)
            if place:
                was, lit, cue = whose.lit[place - 1], whose.lit[place], whose.cues[place]
                differs = (now != before) & program.rig.heads.has & lit & ~was & cue.dark_moves
                differs[attributes.INTENSITY] = False
                seen = np.flatnonzero((now != before)[[attributes.PAN, attributes.TILT]].any(axis=0) & was & lit).tolist()
                hidden = [n for n in range(place) if seen and not whose.lit[n, seen].any()]
                expected = int(differs.any(axis=0).sum()), tuple(seen), hidden[-1] if hidden else -1
                assert (told.dark, told.seen, told.hidden_by) == expected
            before = np.where(np.isnan(values), program.rig.home, values)


@thorough(60)
@given(st.data())
def test_claims_that_rest_say_the_same_in_fewer_strips(data):
    lists = data.draw(shows())
    request = replay_request.read({"show": a_show(lists), "actions": [], "times": [0]})
    together, apart = Replay(request), Replay(request)
    with pytest.MonkeyPatch.context() as patched:
        for action in data.draw(actions(lists)):
            together.do(action)
            with patched.context() as without:
                without.setattr(Claims, "settled", lambda self, holder, t, others: self)
                apart.do(action)
            for later in (0.0, 0.4, 2.0):
                t = action["at"] + later
                np.testing.assert_array_equal(base(together, t), base(apart, t))


def base(played, t):
    return lay(played.state.program.rig.home, played.state.claims.strips, t, played.state.claims.manners)
