"""From timecode that is heard to what the song does, and what is said of it."""

import pytest

from zarabanda.core.timecode.smpte import RATES
from zarabanda.core.timecode.timeline import Timeline
from zarabanda.engine.following import Followed
from zarabanda.protocols.mtc import Heard

RATE = RATES["25"]
SONGS = {
    1: Timeline(1, "One", 100.0, chases=True, begins=3600.0),
    2: Timeline(2, "Two", 50.0, chases=True, begins=7200.0, goes_on=True),
    3: Timeline(3, "Own", 50.0, begins=0.0), 4: Timeline(4, "Firm", 50.0, chases=True, begins=9000.0, ignores_jumps=True),
}  # fmt: skip


class Player:
    """A player that is heard exactly."""

    def __init__(self):
        self.now, self.done, self.t = Followed(), [], 0.0

    def run(self, seconds, position, rate=RATE, **more):
        """Quarter frames for a time, from a position in s."""
        begin = self.t
        for n in range(int(seconds * 100) + 1):
            self.t = begin + n / 100
            frames = (position + n / 100) * float(rate.per_second)
            self._take(*self.now.heard(Heard(frames, rate, **more), self.t, SONGS))
        return self

    def wait(self, seconds):
        for _ in range(int(seconds * 50)):
            self.t += 0.02
            self._take(*self.now.silent(self.t, SONGS))
        return self

    def _take(self, now, actions):
        self.now, self.done = now, [*self.done, *((round(self.t, 2), one) for one in actions)]

    @property
    def told(self):
        return self.now.told(self.t)


def test_it_locks_within_half_a_second_and_the_label_chooses_the_song():
    player = Player().run(1.0, 3610.0)
    t, first = player.done[0]
    assert t <= 0.5
    assert (first.timeline, first.jump, first.position) == (1, True, pytest.approx(10 + t))
    assert [one.jump for _, one in player.done[1:]] == [False] * (len(player.done) - 1)
    assert 4 <= len(player.done) <= 7, "corrected ten times a second"
    assert (player.told.state, player.told.label, player.told.rate, player.told.text) == ("chasing", "01:00:11:00", "25", "")
    player.run(1.0, 7201.0)
    assert player.done[-1][1].timeline == 2


def test_a_jump_is_followed_with_the_next_frame_or_not_at_all():
    player = Player().run(1.0, 3610.0)
    begin = player.t
    player.run(0.5, 3650.0)
    t, jumped = next((t, one) for t, one in player.done if t >= begin and one.jump)
    assert t - begin <= 0.2
    assert jumped.position == pytest.approx(50.0, abs=0.05)
    firm = Player().run(1.0, 9010.0).run(1.0, 9030.0)
    assert [one.jump for _, one in firm.done].count(True) == 1


def test_it_runs_on_for_two_seconds_then_stands_or_goes_on():
    player = Player().run(1.0, 3610.0).wait(1.0)
    assert (player.told.state, player.done[-1][1].speed) == ("free", pytest.approx(1.0))
    player.wait(1.5)
    assert (player.told.state, player.done[-1][1].speed) == ("lost", 0.0)
    assert player.done[-1][1].position == pytest.approx(13.0, abs=0.1)
    assert "stands" in player.told.text
    player.run(1.0, 3620.0)
    assert player.done[-1][1].speed == pytest.approx(1.0)
    on = Player().run(1.0, 7210.0).wait(3.0)
    assert on.done[-1][1].speed == pytest.approx(1.0)
    assert "goes on by itself" in on.told.text


@pytest.mark.parametrize(
    ("position", "more", "says"),
    [
        (5000.0, {}, "No song has this timecode"),
        (3610.0, {"rate": RATES["30"]}, "runs at 30 frames a second, and One is set to 25"),
        (3610.0, {"backwards": True}, "runs backwards"),
    ],
)
def test_what_is_wrong_is_said(position, more, says):
    assert says in Player().run(1.0, position, **more).told.text


def test_a_player_that_stands_is_where_it_says_and_noise_is_two_players():
    player = Player()
    player._take(*player.now.heard(Heard(3605.0 * 25, RATE, stands=True), 0.0, SONGS))
    assert [(one.position, one.speed, one.jump) for _, one in player.done] == [(5.0, 0.0, True)]
    assert player.told.state == "standing"
    assert "two players" in player.now.with_noise(40, 1.0).text
