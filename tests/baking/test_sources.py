"""What is baked is what plays: sources, closing lengths, steps within their error, cues that replay, files that read back."""

import io
import json
import re

import av
import mido
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image
from sqlalchemy import select

from tests.thoroughness import thorough
from zarabanda.baking import cues, moving, written
from zarabanda.baking.sources import Playing, Source, even
from zarabanda.core.explain import bake
from zarabanda.core.rig import attributes
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.offline import Offline
from zarabanda.errors import ZarabandaError
from zarabanda.formats import baked as documents
from zarabanda.formats.dmx_frames import FramesReader
from zarabanda.messages import CueListPart, CuePart, Go, OpeningPart, ShowUpdate
from zarabanda.show import compile as compiling
from zarabanda.show import repositories
from zarabanda.show.tables import CueRow, PixelMapRow, TimelineRow

pytestmark = pytest.mark.slow

SEVENTEEN = tuple(f"601.{n}" for n in range(1, 18))
HEADS = tuple(str(n) for n in range(101, 109))


@pytest.fixture(scope="module")
def show(opened_demo):
    """Parts of the demo, and numbers by table and name."""
    with opened_demo.reading() as session:
        parts = compiling.all_parts(session)
        numbers = {("effect", row.name): row.id for row in repositories.effects.kept(session)}
        numbers |= {("cue", row.document["name"]): (row.list_id, row.id) for row in session.scalars(select(CueRow))}
        numbers |= {("map", row.name): row.id for row in session.scalars(select(PixelMapRow))}
        numbers |= {("song", row.name): row.id for row in session.scalars(select(TimelineRow))}
    return parts, numbers


def of_effect(show, name, heads=HEADS):
    parts, numbers = show
    return Playing(parts, Source("effect", numbers["effect", name], heads))


@pytest.mark.parametrize(
    ("effect", "seconds", "closes", "words"),
    [
        ("Tide fold", 5.0, True, "It closes after 1 cycle, 5 s."),
        ("Crossing eights", 2.5, True, "It closes after 1 cycle, 2.5 s."),
        (
            "Ember drift",
            None,
            False,
            r"It never closes: after \d+ cycles?, [\d.]+ s, it is nearest to where it began, [\d.]+% off.",
        ),
    ],
)
def test_an_effect_has_the_length_of_its_closing_cycle_or_the_one_that_nearly_closes(show, effect, seconds, closes, words):
    found = of_effect(show, effect).length(None)
    assert found.closes == closes
    assert seconds is None or found.seconds == pytest.approx(seconds)
    assert re.fullmatch(words, found.words)


@pytest.mark.parametrize("effect", ["Tide fold", "Rainbow walk", "Spark field"])
def test_baked_steps_replayed_stay_within_the_reported_error(show, effect):
    playing = of_effect(show, effect)
    made = playing.frames(even(4.0, 30))
    errors = {"intensity": 2.0, "pan": 1.5, "red": 0.02, "green": 0.02, "blue": 0.02}
    document = documents.read(json.loads(written.as_json(written.document(made, effect, 30, errors))))
    for name, steps in document.steps.items():
        assert steps.error <= errors[name] + 1e-9
        for key in steps.heads:
            column = made.values[:, attributes.INDEX[name], made.keys.index(key)]
            off = np.abs(document.at(name, key, made.times) - column).max()
            assert off <= steps.error + 1e-5
    for name in document.frames:
        for key in document.heads[:2]:
            column = made.values[:, attributes.INDEX[name], made.keys.index(key)]
            np.testing.assert_allclose(document.at(name, key, made.times), column, atol=1e-5)


@thorough(60)
@given(st.lists(st.tuples(*[st.floats(-50, 50)] * 3), min_size=2, max_size=40), st.floats(0.01, 20))
def test_steps_that_are_shared_stay_within_every_error_and_none_can_be_left_out(rows, error):
    times, values = np.arange(len(rows)) / 10, np.array(rows)
    allowed = np.array([error, 2 * error, 0.5 * error])
    kept = bake.kept_frames(times, values, allowed)
    assert (kept[0], kept[-1]) == (0, len(rows) - 1)
    assert (bake.off_by(times, values, kept) <= allowed + 1e-6).all()
    for n in range(1, len(kept) - 1):
        fewer = np.delete(kept, n)
        assert len(fewer) >= 2
    best = np.full(len(rows), len(rows) + 1)
    best[0] = 0
    for end in range(1, len(rows)):  # plainly: every line is tried
        for start in range(end):
            line = np.array([start, end])
            part = slice(start, end + 1)
            if (bake.off_by(times[part], values[part], line - start) <= allowed + 1e-9).all():
                best[end] = min(best[end], best[start] + 1)
    assert len(kept) - 1 == best[-1]


def test_baked_cues_play_what_the_effect_plays_within_the_error_round_and_round(show):
    playing = of_effect(show, "Tide fold")
    length = playing.length(None)
    made = playing.frames(even(length.seconds, 40))
    errors = {"intensity": 3.0, "pan": 2.0, "tilt": 2.0, "red": 0.03, "green": 0.03, "blue": 0.03}
    joint = cues.joint(made, errors)
    made_cues = cues.documents(made, joint, closes=length.closes)
    assert len(made_cues) == len(joint.kept) < 120
    parts = [one for one in playing_parts(show) if not isinstance(one, CueListPart | CuePart)]
    parts.append(CueListPart(1, "Baked", 0, {"goes_round": True}))
    parts += [CuePart(n, 1, float(n), one.model_dump(mode="json")) for n, one in enumerate(made_cues, 1)]
    stage = Offline(Compiler().take(ShowUpdate("t", 1, parts, whole=True)))
    stage.act(Go(list=1), 0.0)
    for t in np.linspace(0.0, 2.4 * length.seconds, 90):
        values = stage.at(float(t))
        at = round((t % length.seconds) * 40) / 40
        if abs((t % length.seconds) - at) > 1e-6:
            continue
        frame = round(at * 40)
        for name, allowed in joint.errors.items():
            row = attributes.INDEX[name]
            off = np.abs(values[row, made.heads] - made.values[frame, row]).max()
            assert off <= allowed + 1e-3, (name, t)


def playing_parts(show):
    return [OpeningPart(()) if isinstance(one, OpeningPart) else one for one in show[0]]


@pytest.mark.parametrize(
    ("kind", "name", "begin", "moved", "heads"),
    [
        ("cue", "Figure", 0.0, "intensity", "101"),
        ("map", "Salt wall", 0.0, "red", "601.1"),
        ("song", "Saltworks", 20.0, "red", "101"),
    ],
)
def test_a_cue_a_map_and_a_stretch_of_a_song_are_baked_alone(show, kind, name, begin, moved, heads):
    parts, numbers = show
    number = numbers[kind, name]
    list_id, number = number if kind == "cue" else (0, number)
    made = Playing(parts, Source(kind, number, list=list_id, begin=begin)).frames(even(2.0, 10))
    assert attributes.INDEX[moved] in made.moved
    assert heads in made.keys
    again = Playing(parts, Source(kind, number, list=list_id, begin=begin)).frames(even(2.0, 10))
    np.testing.assert_array_equal(made.values, again.values)


def test_universes_read_back_are_what_is_sent(show, tmp_path):
    playing = of_effect(show, "Tide fold")
    times, rows = even(25.0, 20), written.rows_of_universes(playing, [playing.rig.heads.index[key] for key in HEADS])
    assert [playing.rig.universes[row] for row in rows] == [1]
    with (tmp_path / "a.frames").open("wb") as file:
        written.write_frames(playing, times, rows, file, lambda share: None)
    reader = FramesReader(tmp_path / "a.frames")
    sent = [data[rows].copy() for _, data in playing.sent(times)]
    assert (reader.universes, reader.frames, reader.seconds) == ([1], len(times), pytest.approx(25.0))
    for number in (0, 7, 450, 449, 3, len(times) - 1):
        np.testing.assert_array_equal(reader.frame(number)[1], sent[number])
    np.testing.assert_array_equal(reader.at(12.34), sent[246])
    reader.close()
    text = io.BytesIO()
    written.write_frames_csv(playing, times[:3], rows, text, lambda share: None)
    lines = text.getvalue().decode().splitlines()
    assert [int(one) for one in lines[2].split(",")[2:]] == sent[1][0].tolist()


def test_notes_and_pictures_read_back(show):
    playing = of_effect(show, "Tide fold")
    made = playing.frames(even(2.0, 25))
    midi = mido.MidiFile(file=io.BytesIO(written.as_midi(made, "Tide fold")))
    assert [track.name for track in midi.tracks] == ["Tide fold", *(f"Head {key}" for key in HEADS)]
    assert midi.length == pytest.approx(2.0, abs=0.05)
    levels = [
        one.value for one in midi.tracks[1] if one.type == "control_change" and one.control == written.CONTROLLERS["intensity"]
    ]
    assert levels[0] == round(float(made.values[0, attributes.INTENSITY, 0]) * 1.27)
    picture = Image.open(io.BytesIO(written.weave_png(made)))
    assert picture.size == (len(made.times) * 4, len(HEADS) * 12)
    drawing = written.weave_svg(made, "A & B <1>").decode()
    assert drawing.count("</text>") == len(HEADS) + 2
    assert "A &amp; B &lt;1>" in drawing
    assert Image.open(io.BytesIO(moving.gif(playing, 1.0, lambda share: None))).n_frames == 15
    film = io.BytesIO()
    moving.film(playing, 1.0, film, lambda share: None)
    film.seek(0)
    with av.open(film) as container:
        assert sum(1 for _ in container.decode(video=0)) == 25


@pytest.mark.parametrize(
    ("does", "said"),
    [
        (lambda show: of_effect(show, "Tide fold", ()), "There is no head to bake it on"),
        (lambda show: of_effect(show, "Tide fold", ("9999",)), "There is no head 9999"),
        (lambda show: Playing(show[0], Source("map", show[1]["map", "Salt wall"])).length(None), "only an effect has a cycle"),
        (lambda show: of_effect(show, "Tide fold").length(7200.0), "3600 s at the most"),
        (lambda show: even(3600, 100), "are too many"),
        (lambda show: Playing(show[0], Source("cue", 99_999, list=1)).frames(even(1, 10)), "This cue is not there any more"),
        (lambda show: of_effect(show, "Iris wink", ("601.1",)).frames(even(1, 10)), "Nothing moves or is lit in it"),
        (lambda show: moving.gif(of_effect(show, "Tide fold"), 31, print), "A GIF can be 30 s long"),
        (lambda show: written.as_midi(of_effect(show, "Brine", SEVENTEEN).frames(even(1, 10)), ""), "16 channels"),
    ],
    ids=range(9),
)  # fmt: skip
def test_what_cannot_be_baked_is_told(show, does, said):
    with pytest.raises(ZarabandaError, match=said):
        does(show)


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda one: one["steps"]["intensity"]["heads"]["101"][0].pop(), "steps.intensity: heads.101: 1 times and 2 values"),
        (lambda one: one["steps"]["intensity"]["heads"].update({"101": [[0, 0], [1, 2]]}), "time 2 is 0 s, not after 0 s"),
        (lambda one: one["frames"]["pan"].pop(), "frames.pan: 1 rows for 2 times"),
        (lambda one: one["frames"]["pan"][1].append(3), "frames.pan: row 2 has 2 values for 1 heads"),
        (lambda one: one["frames"].update(wobble=[]), "there is no attribute 'wobble'"),
        (lambda one: one["times"].__setitem__(0, "soon"), "times.0"),
        (lambda one: one.update(format="zarabanda.baked/9"), "format"),
        (lambda one: one.pop("seconds"), "seconds"),
    ],
    ids=range(8),
)
def test_a_baked_file_that_was_edited_wrongly_says_where(change, said):
    good = {
        "format": "zarabanda.baked/1", "name": "a", "seconds": 1, "rate": 1, "heads": ["101"], "times": [0, 1],
        "frames": {"pan": [[1], [2]]},
        "steps": {"intensity": {"unit": "%", "max_error": 1, "error": 0.5, "heads": {"101": [[0, 1], [3, 4]]}}},
    }  # fmt: skip
    assert documents.read(json.loads(json.dumps(good))).at("intensity", "101", np.array([0.5])) == 3.5
    change(good)
    with pytest.raises(ZarabandaError, match=re.escape(said)):
        documents.read(good)
