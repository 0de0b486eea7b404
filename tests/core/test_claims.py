"""Claims: compared with a plain reading of their definition, one cell at a time, that keeps everything and forgets nothing."""

import colorsys

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.documents import effects
from tests.thoroughness import thorough
from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.palette import Palette
from zarabanda.core.effects.placement import place
from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.frame import Effects, Frame, Levels
from zarabanda.core.playback.ground import Base, Ground, base_at
from zarabanda.core.playback.looks import cells_of, changed, held
from zarabanda.core.playback.shares import EASES, Release, Timing, alike
from zarabanda.core.playback.trace import Playing, trace
from zarabanda.core.rig import attributes
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, build
from zarabanda.formats import effect_document

SPOT = ModeSpec(
    "spot", "spot", "rgb",
    tuple(Channel(name, (n,), low, high) for n, (name, low, high) in enumerate((
        ("intensity", 0, 100), ("pan", -270, 270), ("gobo", 0, 7), ("red", 0, 1), ("green", 0, 1), ("blue", 0, 1),
    ))), 6,
)  # fmt: skip
RIG = build([FixtureSpec(n + 1, "", SPOT, (n, 0, 0), address=1 + 6 * n) for n in range(3)])
NAMES = ("intensity", "pan", "gobo", "colour")
HOLDERS = ("list", "list", "list", "row", "draft")
ROWS = {name: attributes.INDEX[name] for name in NAMES[:3]} | {"colour": attributes.RED}


def cell_of(name, head):
    return ROWS[name] * len(RIG) + head


# a plain reading


def ease(name, x):
    x = min(max(x, 0.0), 1.0)
    return {"linear": x, "smooth": 3 * x**2 - 2 * x**3, "slow-start": x**2, "slow-end": 1 - (1 - x) ** 2}[name]


def part(name, passed, whole):
    return (1.0 if passed >= 0 else 0.0) if whole == 0 else ease(name, passed / whole)


class Plain:
    """One claim on one cell."""

    def __init__(self, holder, t, action):
        self.holder, self.t, self.action = holder, t, action
        self.stands, self.ends, self.gone, self.released = None, [], None, False

    def begins(self):
        return self.t + self.action["delay"]

    def share(self, t):
        rise = min([t, *([self.stands] if self.stands is not None else []), *(end["at"] for end in self.ends)])
        share = part(self.action["ease"], rise - self.begins(), self.action["fade"])
        for end in self.ends:
            now = t if end["stands"] is None else min(t, end["stands"])
            share *= 1 - part(end["ease"], now - end["at"], end["fade"])
        return share

    def over(self, t):
        if self.gone is not None and t >= self.gone:
            return True
        return any(t >= end["at"] + end["fade"] and (end["stands"] is None or end["stands"] >= end["at"] + end["fade"])
                   for end in self.ends)  # fmt: skip

    def step(self, t):
        rise = min([t, *([self.stands] if self.stands is not None else []), *(end["at"] for end in self.ends)])
        return rise >= self.begins()


def plain_claims(moments, cell):
    """All claims on a cell after the actions, oldest first."""
    claims = []
    for t, action in moments:
        if cell not in action["cells"]:
            continue
        claims = [one for one in claims if not one.over(t)]
        mine = [one for one in claims if one.holder == action["holder"]]
        if action["do"] == "claim":
            new = Plain(action["holder"], t, action)
            for one in mine:
                late = any(end["at"] > t for end in one.ends)
                stop = t if late else new.begins()
                one.stands = stop if one.stands is None else min(one.stands, stop)
                for end in one.ends:
                    end["stands"] = t if end["stands"] is None else min(end["stands"], t)
                one.gone = new.begins() + action["fade"]
            claims.append(new)
            continue
        for one in mine:
            end = {"at": t + action["delay"], "fade": action["fade"], "ease": action["ease"], "stands": None}
            running = [other["at"] + other["fade"] for other in one.ends if other["stands"] is None]
            if not running or end["at"] + end["fade"] < min(running):
                one.ends.append(end)
                one.gone = None
    return sorted(claims, key=lambda one: one.holder == "draft")


def plain_value(moments, name, head, t):
    past = [moment for moment in moments if moment[0] <= t]
    value = np.array([1.0, 1.0, 1.0]) if name == "colour" else np.array([attributes.BY_NAME[name].home])
    for one in plain_claims(past, cell_of(name, head)):
        if one.over(t):
            continue
        target = np.array(one.action["targets"][cell_of(name, head)])
        if name == "gobo":
            value = target if one.step(t) else value
        else:
            share = one.share(t)
            value = value + share * (target - value)
    return value


# random actions

LEVELS = {"intensity": st.integers(0, 100), "pan": st.integers(-200, 200), "gobo": st.integers(0, 7),
          "colour": st.tuples(*[st.sampled_from([0.0, 0.2, 1.0])] * 3)}  # fmt: skip
SECONDS = st.sampled_from([0.0, 0.0, 0.5, 1.0, 3.0])


@st.composite
def actions(draw):
    moments, t = [], 10.0
    names = draw(st.sampled_from([("intensity",), ("gobo",), ("pan", "colour"), NAMES]))
    for _ in range(draw(st.integers(2, 7))):
        t += draw(st.sampled_from([0.0, 0.25, 0.5, 1.0, 2.5]))
        do = draw(st.sampled_from(["claim", "release"]))
        chosen = draw(st.lists(st.tuples(st.sampled_from(names), st.integers(0, 1)), min_size=1, max_size=8, unique=True))
        targets = {cell_of(name, head): np.atleast_1d(draw(LEVELS[name])) for name, head in chosen}
        moments.append((t, {
            "do": do, "holder": draw(st.sampled_from(HOLDERS)), "delay": draw(SECONDS), "fade": draw(SECONDS),
            "ease": draw(st.sampled_from(sorted(EASES))), "cells": set(targets), "targets": targets, "chosen": chosen,
        }))  # fmt: skip
    return moments


def done(claims, t, action, space="rgb"):
    delay, fade, ease = action["delay"], action["fade"], action["ease"]
    if action["do"] == "release":
        return claims.released(action["holder"], np.array(sorted(action["cells"])), alike(Release(t, t + delay, fade, ease)))
    values = np.full(RIG.home.shape, np.nan)
    for (name, head), target in zip(action["chosen"], action["targets"].values(), strict=True):
        values[ROWS[name] : ROWS[name] + len(target), head] = target
    return claims.claimed(
        action["holder"], cells_of(values, ~np.isnan(values)), RIG.home, alike(Timing(t, delay, fade, ease)), space=space
    )


@thorough(120)
@given(actions(), st.lists(st.sampled_from([0.0, 0.1, 0.3, 0.75, 1.2, 2.0, 4.0]), min_size=1, max_size=3))
def test_claims_come_to_what_a_plain_reading_says(moments, later):
    claims, ground = Claims(), Ground(RIG)
    for number, (t, action) in enumerate(moments):
        claims = done(claims.advanced(t), t, action)
        upcoming = moments[number + 1][0] if number + 1 < len(moments) else np.inf
        for time in sorted(t + more for more in later):
            if time >= upcoming:
                break
            now = claims.advanced(time)
            found = base_at(RIG, now, time)
            for name in NAMES:
                for head in range(3):
                    rows = slice(ROWS[name], ROWS[name] + (3 if name == "colour" else 1))
                    expected = plain_value(moments[: number + 1], name, head, time)
                    np.testing.assert_allclose(found[rows, head], expected, atol=1e-9, err_msg=f"{name} {head} at {time}")
            base = ground.at(now, time)
            quick = base.still.copy()
            if base.moving is not None:
                quick.reshape(-1)[base.moving.places] = base.moving.at(time)
            np.testing.assert_allclose(quick, found, atol=1e-9)


@thorough(150)
@given(actions(), st.sampled_from([0.0, 1 / 44, 0.05]))
def test_claims_are_a_fold_over_stamps(moments, step):
    rare, often, last = Claims(), Claims(), moments[0][0]
    for t, action in moments:
        if step:
            for time in np.arange(last, t, step):
                often = often.advanced(float(time))
        rare, often, last = done(rare.advanced(t), t, action), done(often.advanced(t), t, action), t
    assert rare.advanced(last + 0.7) == often.advanced(last + 0.7)


COLOURS = st.tuples(*[st.floats(0, 1)] * 3)


@given(COLOURS, COLOURS, COLOURS, st.floats(0.01, 0.99))
def test_a_colour_that_moves_beneath_never_turns_the_way_round(first, second, other, share):
    """Way from what was beneath, plus what that has changed by since; limited to 0…1."""

    def claim(claims, holder, colour, t, fade):
        action = {"do": "claim", "holder": holder, "delay": 0.0, "fade": fade, "ease": "linear", "cells": {0},
                  "chosen": [("colour", 0)], "targets": {0: np.array(colour)}}  # fmt: skip
        return done(claims, t, action, space="hsv-short")

    claims = claim(Claims(), "row", first, 0.0, 0.0)
    claims = claim(claims, "list", second, 1.0, 1.0)
    before = base_at(RIG, claims, 1 + share)[attributes.RED : attributes.BLUE + 1, 0]
    hue_a, hue_b = colorsys.rgb_to_hsv(*first), colorsys.rgb_to_hsv(*second)
    if min(hue_a[1] * hue_a[2], hue_b[1] * hue_b[2]) > 0.05:
        turn = (hue_b[0] - hue_a[0] + 0.5) % 1 - 0.5
        at = [a + share * (b - a) for a, b in zip((0, *hue_a[1:]), (0, *hue_b[1:]), strict=True)]
        if abs(abs(turn) - 0.5) > 1e-6:
            expected = colorsys.hsv_to_rgb((hue_a[0] + share * turn) % 1, *at[1:])
            np.testing.assert_allclose(before, expected, atol=1e-6)
    moved = claim(claims, "row", other, 1.0, 0.0)
    now = base_at(RIG, Claims(tuple(sorted(moved.strips, key=lambda s: s.holder == "list"))), 1 + share)
    shift = (1 - share) * (np.array(other) - np.array(first))
    # what is clipped on the way is clipped once, at the end
    np.testing.assert_allclose(now[attributes.RED : attributes.BLUE + 1, 0], np.clip(before + shift, 0, 1), atol=1e-6)


def test_a_palette_that_is_edited_gets_there_in_a_fifth_of_a_second():
    wash = held(RIG, {"intensity": {"1": Palette("Half", {"intensity": 40.0}), "2": 20.0}})
    claims = Claims().claimed("list", cells_of(wash, changed(held(RIG, {}), wash)[0]), RIG.home, alike(Timing(0.0, fade=2.0)))
    claims = claims.retargeted("list", np.array([0]), np.array([[80.0]]), 1.0)
    assert [base_at(RIG, claims, t)[0, :2].round(3).tolist() for t in (1.0, 1.1, 1.2, 2.0)] == [
        [20.0, 10.0], [33.0, 11.0], [48.0, 12.0], [80.0, 20.0],
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("given", "kept"), [({"red": {"1": 0.25}}, [0.25, 1.0, 1.0]), ({"colour": {"1": "#00ff33"}}, [0, 1, 0.2])]
)
def test_a_colour_is_held_as_one(given, kept):
    values = held(RIG, given | {"pan": {"9": 4.0}})
    assert values[attributes.RED : attributes.BLUE + 1, 0].tolist() == kept
    assert np.isnan(values[attributes.PAN]).all(), "a head that is not there"


@thorough(60)
@given(actions(), st.lists(effects(apart=True), max_size=2), st.floats(0, 5), st.sampled_from([1.0, 0.4]), st.sampled_from(NAMES))
def test_the_last_step_of_a_trace_is_the_value_of_the_frame(moments, documents, theta, weight, name):
    claims = Claims()
    for t, action in moments:
        claims = done(claims.advanced(t), t, action)
    placed = [place(effect_document.read(one).to_core(), np.array([2, 0, 1]), RIG.heads) for one in documents]
    now, levels = moments[-1][0] + 0.3, Levels(grand=weight)
    claims = claims.advanced(now)
    batches = Batches(placed, len(RIG), RIG.mixes)
    running = Running(np.full(len(placed), theta), np.full(len(placed), weight))
    values = Frame(RIG).values(Base(base_at(RIG, claims, now)), [Effects(batches, running)], levels)
    playing = [Playing("any", one, theta, weight) for one in placed]
    for head in range(3):
        steps = trace(RIG, claims, playing, levels, str(head + 1), name, now)
        rows = slice(ROWS[name], ROWS[name] + (3 if name == "colour" else 1))
        np.testing.assert_allclose(steps[-1].value, values[rows, head], atol=1e-9)
