"""Pixel maps on stage: faders, buttons, cues, songs, restarts, edits, and their place in the frame."""

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.busking import LEFT
from tests.engine.singing import LENGTH, SONG, VERSE, Stage, cue_id
from tests.thoroughness import thorough
from zarabanda import targets
from zarabanda.core.effects.batch.batches import Batches
from zarabanda.core.pixels.canvas import on_grid
from zarabanda.core.pixels.layers import Painter
from zarabanda.core.playback.trace import trace
from zarabanda.core.rig import attributes
from zarabanda.engine import journal
from zarabanda.engine.drawing import drawn_now
from zarabanda.engine.live import pixels, songs
from zarabanda.engine.live.looking import over_base, running_at
from zarabanda.engine.live.on_stage import on_stage
from zarabanda.engine.live.stages import Stages, levels_at
from zarabanda.engine.telling_rows import rows_told
from zarabanda.engine.tracing import playing_at
from zarabanda.errors import ZarabandaError
from zarabanda.formats.pixel_document import PixelMapDocument, StackDocument
from zarabanda.formats.pixel_edit import new_layer
from zarabanda.messages import BuskRowPart, ControlPart, CuePart, EventPart, PicturePart, PixelMapPart, TrackPart

RED, BARS, WALL = 1, 2, 1
LEVELS = attributes.INTENSITY
FADER, LATCH, FLASH, PAD = 41, 42, 43, 20


def red(**more):
    return new_layer("even").model_copy(update={"id": 1, **more}).model_dump(mode="json") | {"colour": {
        "over": "value", "stops": ["#ff0000"], "space": "rgb", "direction": 0.0, "hue_cycles": 0.0, "tint": 0.0}}  # fmt: skip


def bars(speed):
    layer = new_layer("bars").model_dump(mode="json")
    return layer | {"id": 3, "speed": {"kind": "tempo", "tempo": 1, "cycles_per_beat": speed, "sync": "beat"}}


def with_pad(row):
    pads = [*row.document["effects"], {"id": PAD, "name": "", "pixels": {"map": WALL, "picture": BARS}}]
    return msgspec.structs.replace(row, document={**row.document, "effects": pads})


class Wall(Stage):
    """The stage with a map of all four lights: red by itself, bars as a picture of the library."""

    def __init__(self, happens=(), speed=0.25, **document):
        self.speed, self.document = speed, document
        super().__init__(list(happens), keeps_moving=False)

    def made_of(self, **more):
        canvas = {"kind": "grid", "columns": 4, "rows": 1, "heads": ["1", "2", "3", "4"]}
        whole = {"canvas": canvas, "layers": [red()], "in_s": 1.0, "out_s": 2.0, **self.document}
        plain = PixelMapDocument.model_validate({**whole, "layers": []}).model_dump(mode="json") | {"layers": whole["layers"]}
        stack = StackDocument().model_dump(mode="json") | {"layers": [bars(self.speed)]}
        of = {FADER: ("fader", targets.UsePixels(WALL)), LATCH: ("latch", targets.UsePixels(WALL)),
              FLASH: ("flash", targets.UsePixels(WALL, BARS))}  # fmt: skip
        controls = [ControlPart(n, f"{n}", f"{n}", mode, "depth", 0.5, target) for n, (mode, target) in of.items()]
        track = [TrackPart(90, SONG, 90, {"name": "wall", "kind": "presses", "drives": "pixels:1:2"}),
                 TrackPart(91, SONG, 91, {"name": "share", "kind": "levels", "drives": "pixels:1:0"})]  # fmt: skip
        events = [EventPart(900, 90, 2.0, 5.0, {"does": "hold"}), EventPart(901, 91, 1.0, 0.0, {"value": 0.2}),
                  EventPart(902, 91, 6.0, 0.0, {"value": 1.0})]  # fmt: skip
        cues = [part for part in super().made_of(**more) if not isinstance(part, CuePart)]
        lists = {
            1: [{"do": "start", "map": WALL, "share": 0.5}], 2: [{"do": "start", "map": WALL, "picture": BARS}],
            3: [{"do": "stop", "map": WALL}], 4: [{"do": "change", "map": WALL, "picture": BARS, "share": 0.25}], 5: [],
        }  # fmt: skip
        times = {"intensity": {"up": 2.0, "down": 1.0}}
        cues += [CuePart(cue_id(n), VERSE, float(n), {"times": times, "pixels": own}) for n, own in lists.items()]
        cues = [with_pad(part) if isinstance(part, BuskRowPart) and part.id == LEFT else part for part in cues]
        return [*cues, PixelMapPart(WALL, "Wall", plain), PicturePart(BARS, "Bars", stack), *controls, *track, *events]

    def shares(self, t):
        self.advance(t)
        return {use: round(one.share(t), 4) for use, one in self.now.pixels.items()}

    def seen(self, t):
        """What a frame has, with the maps under effects."""
        self.advance(t)
        state = on_stage(self.now, t)
        rig = state.program.rig
        every = list(state.beneath_overlays.values())
        batches = Batches([one.placed for one in every], len(rig), rig.mixes)
        return over_base(state, batches, running_at(state, every, t), t, [one.stage for one in Stages().at(state, t)])


def control(wall, number, t, **what):
    wall.act({"do": "level" if "value" in what else "press", "control": f"control:{number}", **what}, t)


def test_a_fader_moves_the_share_a_button_brings_in_and_out_and_one_that_is_held_adds():
    wall = Wall()
    control(wall, FADER, 1.0, value=0.4)
    assert wall.shares(1.0) == {(1, 0): 0.4}
    assert np.round(wall.seen(1.0)[LEVELS], 3).tolist() == [40, 40, 40, 40], "on dark lights a picture shows by itself"
    control(wall, LATCH, 2.0, down=True, holder="a")
    assert wall.shares(2.5) == {(1, 0): 0.3}, "a press of what is in takes it out, in 2 s, from where it was"
    control(wall, LATCH, 3.0, down=True, holder="a")
    control(wall, FLASH, 3.0, down=True, holder="a")
    assert wall.shares(4.0) == {(1, 0): 1.0, (1, 2): 1.0}
    control(wall, FLASH, 5.0, down=False, holder="a")
    assert wall.shares(6.0) == {(1, 0): 1.0, (1, 2): 0.5}
    assert wall.shares(7.0) == {(1, 0): 1.0}
    control(wall, FADER, 8.0, value=0.0)
    assert wall.shares(8.0) == {}


def test_the_picture_beneath_the_cells_is_what_the_layers_give_there_whether_on_stage_or_not():
    wall = Wall()
    alone = drawn_now(wall.now, (WALL, 0), 1.0, 7)
    assert (alone.ref, alone.columns, alone.rows) == (7, 64, 16)
    assert set(zip(*[iter(alone.points)] * 3, strict=True)) == {(255, 0, 0)}
    for t in (0.0, 1.3, 2.9):
        control(wall, FLASH, t, down=True, holder="a")
        now = np.frombuffer(drawn_now(wall.now, (WALL, BARS), t, 1).points, np.uint8).reshape(-1, 3)
        own = wall.now.pixels[WALL, BARS]
        layers = [pixels.moment(wall.now, own, one, t) for one in pixels.stack_of(wall.now.program, own.use).layers]
        wanted = Painter(on_grid(np.arange(64 * 16), 64, 16)).over_black(layers)
        assert np.abs(now.T / 255 - wanted).max() < 0.003
    assert drawn_now(wall.now, (99, 0), 1.0, 1).points == b""


def test_maps_act_over_effects_or_under_them():
    shown = {}
    for over in (True, False):
        wall = Wall(over_effects=over, acts="level")
        control(wall, 28, 0.0, value=1.0)  # an effect of intensity on 3 and 4
        control(wall, FADER, 0.0, value=1.0)
        shown[over] = [np.round(wall.seen(t)[LEVELS, 2], 2) for t in (0.3, 0.55, 0.8)]
    assert len(set(shown[True])) == 1, "over effects the picture is all there is"
    assert len(set(shown[False])) > 1, "under them the effect moves on it"


def test_a_trace_ends_where_the_frame_does_and_says_which_map_acted():
    for over in (True, False):
        wall = Wall(over_effects=over)
        control(wall, 28, 0.0, value=1.0)
        control(wall, FADER, 0.0, value=0.5)
        values, state = wall.seen(0.7), on_stage(wall.now, 0.7)
        under = pixels.stages(state, 0.7, over=False)
        steps = trace(state.program.rig, state.claims, playing_at(state, 0.7), levels_at(state, 0.7), "3", "intensity", 0.7,
                      Stages().at(state, 0.7), None, under)  # fmt: skip
        assert steps[-1].value[0] == pytest.approx(values[LEVELS, 2])
        assert ("pixels", "Wall") in [(one.what, one.who) for one in steps]


def test_a_pad_of_a_row_brings_a_picture_in_and_out_in_the_time_of_the_next_change():
    wall = Wall()
    wall.act({"do": "next-change", "seconds": 2.0}, 0.0)
    wall.pad(PAD, 0.0)
    assert wall.shares(1.0) == {(1, 2): 0.5}
    assert [one.on for one in rows_told(wall.now, None, 1.0) if one.id == LEFT] == [[PAD]], "its row says that it is on"
    wall.pad(PAD, 2.0)
    assert [one.on for one in rows_told(wall.now, None, 2.0) if one.id == LEFT] == [[]]
    assert wall.shares(3.0) == {(1, 2): 0.5}
    assert wall.shares(4.0) == {}


def test_cues_start_change_and_stop_maps_in_their_times_and_a_release_takes_them_out():
    wall = Wall()

    def go(t, cue):
        wall.act({"do": "go-to", "list": VERSE, "cue": cue_id(cue)}, t)

    go(0.0, 1)
    assert wall.shares(1.0) == {(1, 0): 0.25}, "half of the way up to 0.5 in 2 s"
    go(2.0, 2)
    assert wall.shares(4.0) == {(1, 0): 0.5, (1, 2): 1.0}, "what an earlier cue started goes on"
    go(4.0, 3)
    assert wall.shares(4.5) == {(1, 0): 0.25, (1, 2): 1.0}
    go(6.0, 4)
    assert wall.shares(7.0) == {(1, 2): 0.25}
    go(8.0, 1)
    assert wall.shares(10.0) == {(1, 0): 0.5}, "a jump back has what holds there"
    wall.act({"do": "release", "list": VERSE, "seconds": 2.0}, 10.0)
    assert wall.shares(11.0) == {(1, 0): 0.25}
    assert wall.shares(12.0) == {}


def test_everything_else_goes_out_with_release_and_what_hands_hold_stays():
    wall = Wall()
    control(wall, LATCH, 0.0, down=True, holder="a")
    control(wall, FLASH, 0.0, down=True, holder="a")
    wall.act({"do": "release-all", "seconds": 1.0}, 2.0)
    assert wall.shares(2.5) == {(1, 0): 0.5, (1, 2): 1.0}
    assert wall.shares(3.0) == {(1, 2): 1.0}


def test_an_edit_of_speed_makes_no_phase_jump_and_one_that_is_deleted_goes_out():
    wall = Wall()
    control(wall, FLASH, 0.0, down=True, holder="a")
    before = wall.seen(3.3)
    wall.speed = 1.7
    wall.edit(3.3)
    assert wall.seen(3.3) == pytest.approx(before, abs=1e-6)
    assert not np.allclose(wall.seen(3.5), before)
    with pytest.raises(ZarabandaError, match="not there any more"):
        wall.act({"do": "pixels", "map": 9}, 4.0)
    with pytest.raises(ZarabandaError, match="not in the library"):
        wall.act({"do": "pixels", "map": WALL, "picture": 9}, 4.0)


@thorough(25)
@given(st.floats(0, LENGTH).map(lambda p: round(p, 2)), st.sampled_from([0, 9, 44]), st.floats(0, 3))
def test_a_song_that_plays_or_jumps_and_an_engine_that_died_show_the_same_picture(p, rate, more):
    played, gone, again = Wall(), Wall(), Wall()
    played.play(100.0)
    for n in range(1, int(rate * p) + 1):
        played.advance(100.0 + n / rate)
    played.play(100.0 + p, on=False)
    gone.locate(p, 100.0 + p)
    assert gone.seen(100.0 + p) == pytest.approx(played.seen(100.0 + p), abs=1e-6)
    assert songs.current(gone.now).inner.pixels.keys() == songs.current(played.now).inner.pixels.keys()
    control(gone, FADER, 100.0 + p, value=0.3)
    gone.play(100.0 + p)
    gone.advance(100.0 + p + more)
    entry = journal.entry_of(gone.now, now=100.0 + p + more, wall=9_000.0, boot="this start")
    read = msgspec.msgpack.decode(msgspec.msgpack.encode(entry), type=journal.LiveEntry)
    again.now = journal.restored(read, gone.now.program, 100.0 + p + more, 9_000.0, "this start")
    assert again.seen(101.0 + p + more) == pytest.approx(gone.seen(101.0 + p + more), abs=1e-6)


def test_a_map_is_looked_at_on_screens_while_the_stage_stays():
    wall = Wall()
    wall.act({"do": "look-at-pixels", "map": WALL}, 0.0)
    assert wall.shares(1.0) == {}
    assert {use: one.share(1.0) for use, one in pixels.seen(on_stage(wall.now, 1.0), 1.0).pixels.items()} == {(1, 0): 1.0}
    wall.act({"do": "look-at-pixels", "map": 0}, 2.0)
    assert wall.now.pixels_seen is None
    wall.act({"do": "look-at-pixels", "map": WALL, "holder": "a"}, 3.0)
    wall.act({"do": "let-go", "holders": ["b"]}, 3.1)
    assert wall.now.pixels_seen == (WALL, 0)
    wall.act({"do": "let-go", "holders": ["a"]}, 3.2)
    assert wall.now.pixels_seen is None, "who looked is gone"


def test_a_canvas_without_cells_and_cells_that_are_gone_change_nothing_else():
    wall = Wall(canvas={"kind": "grid", "columns": 4, "rows": 1, "heads": ["77", "3"]})
    control(wall, FADER, 0.0, value=1.0)
    assert np.round(wall.seen(0.0)[LEVELS], 2).tolist() == [0, 0, 100, 0], "the box of the one that is gone stays empty"
    wall.document = {"canvas": {"kind": "grid", "columns": 4, "rows": 1, "heads": ["77"]}}
    wall.edit(1.0)
    assert np.round(wall.seen(1.0)[LEVELS], 2).tolist() == [0, 0, 0, 0]
