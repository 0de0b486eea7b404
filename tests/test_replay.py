"""Replay: a show played from actions with their stamps. Expected values are worked out by hand."""

import json

import numpy as np
import pytest
from typer.testing import CliRunner

from zarabanda.cli import app
from zarabanda.errors import ZarabandaError
from zarabanda.formats import replay_request
from zarabanda.replay import replay

pytestmark = pytest.mark.slow

RISE = {
    "name": "Rise", "speed": {"kind": "time", "seconds_per_cycle": 4}, "spread": {"kind": "ripple", "degrees": 0},
    "layers": [
        {"attribute": "intensity", "form": {"kind": "waveform", "shape": "rise"}, "anchor": {"kind": "above", "depth": 40}}
    ],
}  # fmt: skip
SHOW = {
    "heads": [{"id": "a"}, {"id": "b", "x": 1}],
    "home": {"intensity": 10, "zoom": 20, "colour": "#ffffff"},
    "palettes": {"Coral": {"family": "colour", "colour": "#ff0033"}, "Sea": {"family": "colour", "colour": "#0000ff"}},
    "tempos": {"Slow": 60},
    "effects": [RISE],
    "rows": [
        {"name": "All", "pads": [{"name": "Coral", "palette": "Coral"}]},
        {
            "name": "Left",
            "heads": ["a"],
            "tempo": "Slow",
            "pads": [
                {"name": "Coral", "palette": "Coral"},
                {"name": "Sea", "palette": "Sea"},
                {"name": "Rise", "effect": "Rise"},
            ],
        },
    ],
    "controls": [
        {"name": "Up", "effect": "Rise", "heads": ["a"]},
        {"name": "Hit", "mode": "flash", "effect": "Rise", "heads": ["b"], "release": 1},
    ],
}
LOOKS = [
    {"name": "Sea", "values": {"colour": {"a": {"palette": "Sea"}}, "zoom": {"b": 40}}},
    {"name": "Rising", "effects": [{"effect": "Rise", "heads": ["b"]}], "in_s": 2, "out_s": 2},
]
SHOW["looks"] = LOOKS
HALF = {"do": "set", "attribute": "intensity", "heads": ["a"], "value": 50}
CASES = {
    "a hand fade begins from what is beneath": (
        [{"at": 1, **HALF, "fade": 2}, {"at": 2, **HALF, "value": 90, "fade": 1}],
        {"intensity": {1: 10, 2: 30, 2.5: 60, 3: 90}},
    ),
    "what is taken back uncovers home in its time": (
        [{"at": 0, **HALF}, {"at": 1, "do": "take-back", "attribute": "intensity", "heads": ["a"], "fade": 4}],
        {"intensity": {0: 50, 1: 50, 2: 40, 5: 10}},
    ),
    "a palette and a colour are values": (
        [{"at": 0, "do": "set", "attribute": "colour", "heads": ["a"], "value": {"palette": "Coral"}},
         {"at": 1, "do": "set", "attribute": "colour", "heads": ["a"], "value": "#00ff00", "fade": 2}],
        {"red": {0: 1, 2: 0.5, 3: 0}, "green": {0: 0, 2: 0.5, 3: 1}, "blue": {0.5: 0.2, 2: 0.1}},
    ),
    "an overlay is mixed in by name, with its effect": (
        [{"at": 1, "do": "overlay-level", "overlay": "Sea", "value": 0.5}, {"at": 1, "do": "overlay", "overlay": "Rising"}],
        {"red": {0: 1, 1: 0.5}, "blue": {1: 1}, "intensity": {2: 10}},
    ),
    "a fader scales its effect": (
        [{"at": 1, "do": "level", "control": "Up", "value": 0.5}],
        {"intensity": {1: 10, 2: 10 + 0.5 * 40 * 0.25, 4: 10 + 0.5 * 40 * 0.75}},
    ),
    "an effect of the draft goes on beneath a value": (
        [{"at": 0, "do": "put-on", "effect": "Rise", "heads": ["a"]}, {"at": 1, **HALF},
         {"at": 3, "do": "freeze", "key": "Rise"}, {"at": 9, "do": "take-off", "effect": "Rise"}],
        {"intensity": {0.5: 10 + 40 / 8, 2: 50 + 20, 5: 50 + 30, 8: 80, 9.2: 50 + 15, 10: 50}},
    ),
    "clearing takes back all": (
        [{"at": 0, **HALF}, {"at": 0, "do": "put-on", "effect": "Rise", "heads": ["a"]}, {"at": 2, "do": "clear"}],
        {"intensity": {1: 60, 3: 10}},
    ),
    "a pad of a row takes the time of the next change, and none uncovers what lies beneath": (
        [{"at": 0, "do": "next-change", "seconds": 2}, {"at": 1, "do": "pad", "row": "All", "pad": "Coral"},
         {"at": 4, "do": "pad", "row": "Left", "pad": "Sea"}, {"at": 7, "do": "no-pad", "row": "Left", "section": "colour"}],
        {"green": {1: 1, 2: 0.5, 3: 0, 8: 0}, "red": {3: 1, 5: 0.5, 6: 0, 8: 0.5, 9: 1}},
    ),
    "a press waits for the beat of its row, and the level of a row is its fader times that of all": (
        [{"at": 0, "do": "next-change", "seconds": 0, "waits": "beat"}, {"at": 0.5, "do": "pad", "row": "Left", "pad": "Sea"},
         {"at": 2, "do": "row-level", "row": "Left", "value": 0.8}, {"at": 3, "do": "row-level", "row": "All", "value": 0.5}],
        {"red": {0.99: 1, 1: 0}, "intensity": {1: 10, 2: 80, 3: 40}},
    ),
    "a flash goes from the share that it had": (
        [{"at": 0, "do": "flash-times", "release_s": 2}, {"at": 1, "do": "flash", "row": "Left", "kind": "white"},
         {"at": 2, "do": "flash", "row": "Left", "kind": "white", "down": False}],
        {"intensity": {0.5: 10, 1: 100, 3: 55, 4: 10}},
    ),
    "the grand master comes last": (
        [{"at": 0, **HALF}, {"at": 1, "do": "grand", "value": 0.5}, {"at": 2, "do": "blackout", "on": True}],
        {"intensity": {0.5: 50, 1.5: 25, 2: 0}},
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", CASES)
def test_values_are_those_worked_out_by_hand(name):
    actions, expected = CASES[name]
    for attribute, values in expected.items():
        request = {
            "show": SHOW,
            "actions": actions,
            "times": list(values),
            "heads": ["a"],
            "attributes": [attribute],
            "trace": True,
        }
        answer = replay(replay_request.read(request))
        found = [row[0] for row in answer["values"][attribute]]
        np.testing.assert_allclose(found, list(values.values()), atol=1e-9, err_msg=f"{attribute} at {list(values)}")
        for value, traced in zip(found, answer["trace"], strict=True):
            assert traced["a"][attribute][-1]["value"][0] == pytest.approx(value), "the last step of a trace is the value"


def test_a_trace_says_who_does_what():
    actions = [{"at": 0, **HALF, "fade": 2}, {"at": 0, "do": "level", "control": "Up", "value": 1},
               {"at": 0, "do": "grand", "value": 0.5}]  # fmt: skip
    request = {"show": SHOW, "actions": actions, "times": [1], "heads": ["a"], "attributes": ["intensity"], "trace": True}
    [traced] = replay(replay_request.read(request))["trace"]
    home, claim, effect, level = traced["a"]["intensity"]
    assert (home["what"], home["value"]) == ("home", (10.0,))
    assert (claim["who"], claim["target"], claim["share"], claim["value"]) == ("draft", (50.0,), 0.5, (30.0,))
    assert (effect["who"], effect["share"], effect["value"]) == ("Rise", 1.0, (40.0,))
    assert effect["words"].startswith("Intensity follows rise")
    assert (level["who"], level["value"]) == ("grand master", (20.0,))


SONG = {
    "name": "Low Water", "length": 30, "grid": {"changes": [{"beat": 0, "bpm": 90}]},
    "tracks": [
        {"kind": "cues", "cue_list": "Main", "events": [{"at": 1, "cue": 1}, {"at": 5, "cue": 2}]},
        {"kind": "levels", "control": "Up", "events": [{"at": 2, "value": 0}, {"at": 4, "value": 1}, {"at": 9, "value": 0.25}]},
        {"kind": "presses", "control": "Hit", "events": [{"at": 3, "length": 2.5}, {"at": 8, "length": 0.2}]},
    ],
}  # fmt: skip
MAIN = {"name": "Main", "cues": [
    {"number": 1, "values": {"intensity": {"b": 50}, "zoom": {"a": 40}}, "times": {"intensity": {"up": 2}, "beam": {"fade": 2}}},
    {"number": 2, "values": {"zoom": {"a": 10}}, "times": {"beam": {"fade": 4}}},
]}  # fmt: skip
WITH_SONG = SHOW | {"cue_lists": [MAIN], "timelines": [SONG]}


def at_positions(actions, times):
    request = {"show": WITH_SONG, "actions": actions, "times": times, "attributes": ["intensity", "zoom"]}
    return replay(replay_request.read(request))["values"]


def test_a_song_is_at_a_position_what_playing_there_gives():
    play = {"do": "play-song", "timeline": "Low Water"}
    positions = [0.5, 2, 3.21, 4.4, 6.7, 8.1, 9.3]
    played = at_positions([{"at": 100, **play}], [100 + p for p in positions])
    assert [played["zoom"][n][0] for n in (0, 1)] == pytest.approx([20, 30]), "half of the way from 20 to 40 at 2 s"
    for n, p in enumerate(positions):
        for attribute, [found] in at_positions([{"at": 7, "do": "locate", "timeline": "Low Water", "position": p}], [7]).items():
            np.testing.assert_allclose(found, played[attribute][n], atol=1e-9, err_msg=f"{attribute} at {p}")


WRONG = {
    "a track of presses has a control, by its name": {
        "show": WITH_SONG | {"timelines": [SONG | {"tracks": [{"kind": "presses", "cue_list": "Main"}]}]}, "times": [0],
    },
    "There is no cue 3": {
        "show": WITH_SONG | {"timelines": [{"name": "Wrong", "tracks": [SONG["tracks"][0] | {"events": [{"at": 1, "cue": 3}]}]}]},
        "times": [0],
    },
    "There is no song 'High'": {"show": SHOW, "times": [0], "actions": [{"at": 0, "do": "play-song", "timeline": "High"}]},
    "show.cue_list: unknown key": {"show": SHOW | {"cue_list": []}, "times": [0]},
    "give its stamp in seconds": {"show": SHOW, "times": [0], "actions": [{"do": "clear"}]},
    "actions.0: There is no action 'fly'": {"show": SHOW, "times": [0], "actions": [{"at": 0, "do": "fly"}]},
    "actions.0: There is no head 'z'": {"show": SHOW, "times": [0], "actions": [{"at": 0, **HALF, "heads": ["z"]}]},
    "There is no palette 'Mist'": {"show": SHOW, "times": [0], "actions": [{"at": 0, **HALF, "value": {"palette": "Mist"}}]},
    "There is no row 'Right'; the show has All, Left": {
        "show": SHOW, "times": [0], "actions": [{"at": 0, "do": "pad", "row": "Right", "pad": "Sea"}],
    },
    "There is no pad 'Sky' in Left": {
        "show": SHOW, "times": [0], "actions": [{"at": 0, "do": "pad", "row": "Left", "pad": "Sky"}],
    },
    "no attribute 'warmth'": {"show": SHOW, "times": [0], "attributes": ["warmth"]},
    "drives 'Fall', which is not under effects": {
        "show": SHOW | {"controls": [{"name": "Up", "effect": "Fall", "heads": ["a"]}]}, "times": [0],
    },
    "fade: Input should be greater": {"show": SHOW, "times": [0], "actions": [{"at": 0, **HALF, "fade": -1}]},
    "'red' is no value of intensity": {"show": SHOW, "times": [0], "actions": [{"at": 0, **HALF, "value": "red"}]},
}  # fmt: skip


@pytest.mark.parametrize("told", WRONG)
def test_what_cannot_be_played_is_told_with_its_place(told):
    with pytest.raises(ZarabandaError) as error:
        replay(replay_request.read(WRONG[told]))
    assert told in str(error.value)


def test_the_command_plays_the_demo_show(tmp_path):
    actions = [{"at": 0, "do": "level", "control": "Spots: tide fold", "value": 1}]
    request = {"show": "demo", "actions": actions, "times": [1, 2, 3], "heads": ["101", "102"], "attributes": ["position"]}
    dark = request | {"actions": [{"at": 0, "do": "stop-all"}]}
    (tmp_path / "r.json").write_text(json.dumps([request, dark]))
    done = CliRunner().invoke(app, ["replay", str(tmp_path / "r.json")])
    first, second = map(json.loads, done.stdout.splitlines())
    assert set(first["values"]) == {"pan", "tilt"}
    assert np.ptp(first["values"]["tilt"], axis=0).min() > 1
    assert np.ptp(second["values"]["tilt"]) == 0


def test_effects_of_cues_are_played_by_name_and_traced_with_their_list():
    rise = {"kind": "waveform", "shape": "rise"}
    speed = {"kind": "tempo", "tempo": "Beat", "cycles_per_beat": 0.5}
    effect = {"format": "zarabanda.effect/1", "name": "Rise", "speed": speed,
              "layers": [{"attribute": "intensity", "form": rise, "anchor": {"kind": "between", "low": 0, "high": 80}}],
              }  # fmt: skip
    cues = [
        {"number": 1, "values": {"pan": {"a": 45}}, "effects": [{"do": "start", "thread": 1, "effect": "Rise", "heads": ["a"]}]},
        {"number": 2, "trigger": {"kind": "beat", "tempo": "Beat"}, "effects": [{"do": "stop", "thread": 1}]},
    ]
    shows = {"heads": [{"id": "a"}], "tempos": {"Beat": 60}, "effects": [effect], "cue_lists": [{"name": "Songs", "cues": cues}]}
    request = {"show": shows, "actions": [{"at": 2.5, "do": "go", "list": "Songs"}], "times": [2.9, 3.1], "trace": True,
               "attributes": ["intensity", "pan"]}  # fmt: skip
    answer = replay(replay_request.read(request))
    assert [round(row[0], 6) for row in answer["values"]["intensity"]] == [36, 0], "it counts on the beat, and stops at the next"
    [before, _] = [one["a"] for one in answer["trace"]]
    assert [step["who"] for step in before["pan"]] == ["home", "list:1"]
    assert (before["intensity"][-1]["who"], round(before["intensity"][-1]["value"][0], 6)) == ("Rise", 36)
    with pytest.raises(ZarabandaError, match="There is no effect 'Fall'"):
        cues[0]["effects"][0]["effect"] = "Fall"
        replay(replay_request.read(request))
