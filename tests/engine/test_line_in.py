"""The line input: what is heard of it, and how it falls when it stops."""

import numpy as np
import pytest

from tests.waiting import until
from zarabanda.engine.hearing import Sounds
from zarabanda.engine.line_in import HeardLine, LineIn
from zarabanda.messages import SIMULATOR
from zarabanda.simulators.sound_player import SOUND, SoundPlayer, beat
from zarabanda.sound.spectrum import Analyser, Spectrum, measured
from zarabanda.workers import Troubles

HOW = {"hears": "line", "fall_s": 0.4, "hold_s": 0.5}


def tone(hertz, seconds=1.0, rate=44_100):
    return np.sin(2 * np.pi * hertz * np.arange(int(seconds * rate)) / rate)


def test_sound_measured_as_it_comes_is_what_is_measured_of_a_whole_file():
    sound = beat(120)[: 3 * 44_100]
    analyser = Analyser(44_100)
    pieces = np.concatenate([analyser.feed(one) for one in np.array_split(sound, 37)])
    whole = measured([sound[:, None]], 44_100)
    assert np.round(np.clip(1 + (pieces - pieces.max()) / 60, 0, 1) * 255).astype(int).tolist() == whole.tolist()


@pytest.mark.parametrize(("hertz", "band"), [(60, 2), (1000, 17), (8000, 28)])
def test_a_tone_is_loudest_in_its_band_and_falls_when_it_stops(hertz, band):
    line = HeardLine()
    line.add(Analyser(44_100).feed(tone(hertz)), 10.0)
    heard = Sounds(line=line).heard(None, HOW, 10.0)
    assert heard.bands.argmax() == pytest.approx(band, abs=1)
    assert heard.bands.max() == pytest.approx(1.0, abs=0.001)
    at = [float(Sounds(line=line).heard(None, HOW, 10.0 + s).bands.max()) for s in (0.1, 0.2, 0.3, 0.5)]
    assert at == pytest.approx([0.75, 0.5, 0.25, 0.0], abs=0.01)
    assert Sounds(line=line).heard(None, HOW, 10.3).peaks.max() == pytest.approx(1.0, abs=0.001), (
        "a peak stands as long as it is held"
    )


def test_a_line_falls_as_a_spectrum_that_was_measured_before():
    levels = np.zeros((100, 32), np.uint8)
    levels[10:20, 5], levels[50, 9] = 255, 128
    line = HeardLine()
    line.add((levels / 255.0 - 1) * 60, 99 / 50)  # the loudest at 0 dB
    for t in np.arange(0, 100, 7) / 50:
        assert line.at(t + 1e-6, 0.3, 0.1) == pytest.approx(Spectrum(levels).at(t + 1e-6, 0.3, 0.1), abs=0.08)


def test_what_was_loud_is_forgotten_and_what_is_quiet_shows_again():
    line = HeardLine()
    line.add(np.full((1, 32), 40.0), 0.0)
    line.add(np.full((1, 32), 20.0), 0.02)
    assert line.at(0.02, 0.01).max() == pytest.approx(1 - 20 / 60, abs=0.01)
    line.add(np.full((1, 32), 20.0), 20.0)
    assert line.at(20.0, 0.01).max() == pytest.approx(1.0, abs=0.01)


def test_the_simulated_line_is_heard_found_again_and_can_be_left():
    player, troubles = SoundPlayer(), Troubles()
    line = LineIn((SOUND, player.port), troubles)
    line.set(SIMULATOR)
    assert until(lambda: line.report(line._clock()).open)
    assert not line.report(line._clock()).sounds
    player.change({"bpm": 240.0})
    player.play(True)
    assert until(lambda: line.report(line._clock()).sounds)
    assert until(lambda: max(line.report(line._clock()).bands, default=0) > 0.8)
    line.set("An input that nobody has")
    assert until(lambda: troubles.report() and "Choose another line input" in troubles.report()[0]["text"])
    line.set("")
    assert until(lambda: not troubles.report())
    assert not line.report(line._clock()).open
    line.close()
    player.close()
