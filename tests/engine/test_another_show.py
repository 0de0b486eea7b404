"""Another show in place of the one that plays: nothing of that goes on, and a restarted engine knows which it was."""

from zarabanda.engine import journal
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.acts import act
from zarabanda.engine.live.programs import take
from zarabanda.engine.live.state import LiveState
from zarabanda.messages import ShowUpdate, action


def update(parts, show, revision=1):
    return ShowUpdate("session", revision, parts, whole=True, show=show)


def test_everything_of_the_show_before_is_gone_and_the_new_one_begins_as_it_opens(demo_parts):
    compiler = Compiler()
    state, _ = take(LiveState(), compiler.take(update(demo_parts, "a")), 0.0)
    begins = set(state.playing)
    control = next(key for key, one in state.program.controls.items() if one.mode == "latch" and key not in state.playing)
    state = act(state, action({"do": "press", "control": control, "down": True, "holder": "x"}), 1.0)
    state = act(state, action({"do": "grand", "value": 0.5}), 1.0)
    assert control in state.playing
    same, _ = take(state, compiler.take(update(demo_parts, "a", 2)), 2.0)
    assert control in same.playing, "an edit leaves what plays"
    other, _ = take(same, compiler.take(update(demo_parts, "b", 3)), 3.0)
    assert set(other.playing) == begins
    assert (other.grand, other.held) == (0.5, {})


def test_the_journal_keeps_which_show_it_is(demo_parts, tmp_path):
    kept = journal.Journal(tmp_path)
    kept.write_program(update(demo_parts, "a"))
    assert journal.Journal(tmp_path).read_program(lambda read: read.show) == "a"
