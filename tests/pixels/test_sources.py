"""What layers draw from: letters, pictures that move, films in step with their position, and the bands of a sound."""

import av
import numpy as np
import pytest
from PIL import Image

from tests.waiting import until
from zarabanda.pictures.films import Film, Reader
from zarabanda.pictures.lettering import lettering
from zarabanda.pictures.stills import Still
from zarabanda.sound.spectrum import BANDS, HIGHEST_HZ, LOWEST_HZ, PER_SECOND, Spectrum, measured

RATE, FRAMES = 25, 100


@pytest.fixture(scope="module")
def reader(tmp_path_factory):
    """A film whose nth picture is so bright that it can be told from its neighbours."""
    path = tmp_path_factory.mktemp("film") / "film.mp4"
    with av.open(str(path), "w") as file:
        stream = file.add_stream("mpeg4", rate=RATE)
        stream.width, stream.height, stream.options = 64, 32, {"qscale": "1"}
        for n in range(FRAMES):
            file.mux(stream.encode(av.VideoFrame.from_ndarray(np.full((32, 64, 3), 2 * n + 20, np.uint8), format="rgb24")))
        file.mux(stream.encode())
    opened = Reader(path)
    yield opened
    opened.close()


def number(image):
    return round((float(image[..., :3].mean()) - 20) / 2)


@pytest.mark.parametrize("position", [0.0, 1.0, 3.5, 0.4, 2.02])
def test_a_film_is_in_step_with_its_position_wherever_it_is_asked_for(reader, position):
    def there():
        found = reader.picture_at(position)
        return found if found is not None and abs(found[0] - position) < 1 / RATE + 1e-3 else None

    _, image = until(there)
    assert abs(number(image) - int(position * RATE + 1e-6)) <= 1
    assert image.shape == (32, 64, 4)


POSITIONS = [
    ("time", "loop", 0.5, 0.0, 1.5), ("time", "loop", 2.5, 0.0, 1.5), ("time", "hold", 9.0, 0.0, 2.999),
    ("time", "dark", 9.0, 0.0, None), ("time", "dark", 1.9, 0.0, 2.9), ("cycle", "loop", 99.0, 3.25, 1.5),
    ("cycle", "dark", 99.0, -0.25, 2.5), ("song", "hold", -4.0, 0.0, 1.0),
]  # fmt: skip


@pytest.mark.parametrize(("clock", "ends", "seconds", "cycle", "wanted"), POSITIONS)
def test_where_in_a_film_it_is(clock, ends, seconds, cycle, wanted):
    found = Film(None, 1.0, 3.0, clock, ends).position(seconds, cycle)
    assert found == (None if wanted is None else pytest.approx(wanted))


def test_a_moving_picture_goes_round_in_its_own_time_and_is_made_small(tmp_path):
    frames = [Image.new("RGB", (600, 300), colour) for colour in ("red", "lime")]
    frames[0].save(tmp_path / "a.gif", save_all=True, append_images=frames[1:], duration=[100, 300], loop=0)
    still = Still(tmp_path / "a.gif")
    seen = [int(np.argmax(still.at(t, 0.0)[:3].mean(axis=(1, 2)))) for t in (0.05, 0.15, 0.39, 0.41, 0.55)]
    assert seen == [0, 1, 1, 0, 1]
    assert still.at(0.0, 0.0).shape == (4, 128, 256)


def test_letters_are_as_tall_as_their_ink_and_bolder_ones_cover_more():
    light, bold = lettering("SALT", 200), lettering("SALT", 800)
    assert light[-1].max(axis=1).min() > 0, "no empty line above or below"
    assert bold[-1].mean() > light[-1].mean()
    assert lettering("   ", 400).shape == (2, 1, 1)


def test_a_tone_is_heard_in_its_band_and_falls_in_its_time_whatever_was_asked_before():
    rate, hz = 44_100, 1_000.0
    t = np.arange(rate) / rate
    sound = (np.sin(2 * np.pi * hz * t) * (t < 0.5)).astype(np.float32)[:, None]
    levels = measured([sound[:20_000], sound[20_000:]], rate)
    spectrum = Spectrum(levels)
    band = int(np.log(hz / LOWEST_HZ) / np.log(HIGHEST_HZ / LOWEST_HZ) * BANDS)
    loud = spectrum.at(0.3, 0.4)
    assert int(loud.argmax()) == band
    assert loud[band] > 0.95
    whole = levels[: int(0.7 * PER_SECOND) + 1, band].astype(float) / 255
    ago = np.arange(len(whole))[::-1] / PER_SECOND
    assert spectrum.at(0.7, 0.4)[band] == pytest.approx(max(0, (whole - ago / 0.4).max()), abs=1e-3)
    assert spectrum.at(0.7, 0.4, hold_s=0.5)[band] == pytest.approx(loud[band], abs=0.02)
    assert spectrum.at(0.3, 0.4) == pytest.approx(loud), "a jump back hears what playing there hears"
    assert not spectrum.at(30.0, 0.4).any()
