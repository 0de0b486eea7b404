"""The journal: what is written is whole, what is read is checked, and time goes on where it was."""

import errno

import msgspec
import pytest

from tests.engine.shows import RIG, Live, effect, on_tempo, program, show, update
from zarabanda.engine import journal
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.keeper import JournalKeeper
from zarabanda.workers import Troubles


def playing_state():
    compiler = Compiler()
    state, made = Live(), program(show(effect(speed=on_tempo()), control="fader"), compiler)
    state.swap(made, 50.0)
    for action in (
        {"do": "level", "control": "control:1", "value": 0.6},
        {"do": "grand", "value": 0.8},
        {"do": "tap", "tempo": "Movement"},
    ):
        state.act(action, 50.0)
    return state, made


@pytest.mark.parametrize(
    ("boot", "now", "wall", "ended", "then"),
    [
        ("this start", 53.0, 9_002.0, False, 53.0),
        ("this start", 53.0, 5.0, False, 53.0),  # a step of the wall clock moves nothing
        ("another start", 7.0, 9_002.0, False, 53.0),  # the monotonic clock began anew: 2 s of the wall clock have passed
        ("this start", 80_000.0, 99_000.0, True, 51.0),  # it was ended, and started the next day: nothing went on meanwhile
        ("another start", 7.0, 99_000.0, True, 51.0),
    ],
)
def test_a_restarted_engine_goes_on_at_the_same_phase(tmp_path, boot, now, wall, ended, then):
    state, made = playing_state()
    kept = journal.Journal(tmp_path)
    kept.write_live(journal.entry_of(state.now, now=51.0, wall=9_000.0, boot="this start", ended=ended))
    again = journal.restored(kept.read_live(), made, now, wall, boot)
    assert again.levels == {"control:1": 0.6}
    assert (again.grand, again.opened) == (0.8, True)
    key = "control:1"
    assert again.theta(again.playing[key], now) == pytest.approx(state.theta(state.playing[key], then))
    assert again.tempos[1].beats(now + 1) == pytest.approx(state.beats("Movement", then + 1))


ENTRY = msgspec.to_builtins(journal.entry_of(Live().now, now=1.0, wall=2.0, boot="b"))
WRONG = {
    "nothing": {},
    "a wrong type": ENTRY | {"grand": "full"},
    "a missing key": {key: value for key, value in ENTRY.items() if key != "stage"},
    "an extra key": ENTRY | {"colour": 1},
    "another version": ENTRY | {"version": 99},
    "not a number": ENTRY | {"stage": ENTRY["stage"] | {"levels": {"control:1": float("nan")}}},
}


@pytest.mark.parametrize("name", WRONG)
def test_a_live_state_of_a_wrong_shape_is_put_aside_and_the_one_before_is_used(tmp_path, name):
    kept = journal.Journal(tmp_path)
    state, _ = playing_state()
    kept.write_live(journal.entry_of(state.now, 51.0, 9_000.0, "b"))
    kept.live.write(msgspec.msgpack.encode(WRONG[name]))
    assert kept.read_live().stage.levels == {"control:1": 0.6}
    [told] = kept.told
    assert "live.journal" in told
    assert "put aside" in told
    assert len(list((tmp_path / "aside").iterdir())) == 1


def test_a_program_that_cannot_be_compiled_is_put_aside_and_the_one_before_is_used(tmp_path):
    kept = journal.Journal(tmp_path)
    kept.write_program(update(show(effect())))
    kept.write_program(update(show(effect()), RIG | {"fixtures": [RIG["fixtures"][0] | {"mode": 77}]}))
    assert list(kept.read_program(lambda update: Compiler().take(update)).instances) == ["draft:1"]
    assert "cannot be compiled" in kept.told[0]
    kept.program.write(b"no message")
    assert list(kept.read_program(lambda update: Compiler().take(update)).instances) == ["draft:1"]


def test_a_file_in_the_place_of_the_folder_is_put_aside(tmp_path):
    for name in ("journal", "aside"):
        (tmp_path / name).write_text("")
    kept = journal.Journal(tmp_path / "journal")
    assert "is no folder" in kept.told[0]
    kept.write_program(update(show(effect())))
    assert kept.read_program(lambda messages: True)


def test_a_full_disk_is_told_and_what_waits_is_written_when_there_is_room(tmp_path, monkeypatch):
    kept, state = journal.Journal(tmp_path), playing_state()[0]
    entry = journal.entry_of(state.now, 51.0, 9_000.0, "b")
    full = True

    def write(content):
        if full:
            raise OSError(errno.ENOSPC, "No space left on device", "live.journal")
        journal.KeptFile.write(kept.live, content)

    monkeypatch.setattr(kept.live, "write", write)
    keeper = JournalKeeper(kept, Troubles(), sleep=lambda s: None)
    keeper.keep_live(entry)
    with pytest.raises(OSError, match=r"No space left.*tried again"):
        keeper._write()
    full = False
    keeper._write()
    assert kept.read_live().stage.levels == {"control:1": 0.6}
