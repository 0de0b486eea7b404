"""Where a value comes from: home, every claim, every layer of every effect, levels. The same records as the frame's."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.placement import Placed
from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.frame import Closing, Levels, Stage
from zarabanda.core.playback.strips import arranged
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Numbers = tuple[float, ...]


@dataclass(frozen=True)
class Step:
    """One step on the way to a value. what: home, claim, range, effect, two colours, flash, shown, special, levels, stand in or
    recorded; who: the holder, the effect or the level; value: after this step. Of claims: target and share; of effects: the
    layer, by number and in words, and the key of what plays it."""

    what: str
    who: str
    value: Numbers
    target: Numbers | None = None
    share: float | None = None
    words: str = ""
    layer: int | None = None
    key: str = ""


@dataclass(frozen=True)
class Playing:
    """An effect that runs: its θ, weight (of all families, or of each), phase shifts, its layers in words, by their number, and
    the key of what plays it."""

    name: str
    placed: Placed
    theta: float
    weight: float | Sequence[float]
    shifts: Sequence[float] = ()
    words: Sequence[str] = ()
    key: str = ""


@dataclass(frozen=True)
class Over:
    """A stage of the frame that acts after effects: what it is, and who it is of, as steps say it."""

    what: str
    who: str
    stage: Stage


def trace(
    rig: Rig,
    claims: Claims,
    effects: Sequence[Playing],
    levels: Levels,
    head: str,
    attribute: str,
    t: float,
    over: Sequence[Over] = (),
    closing: Closing | None = None,
    under: Sequence[Over] = (),
) -> list[Step]:
    """The steps of an attribute (`colour`, `position`: of its parts) of a head at t; the last value is the frame's.

    effects: in the order in which they started; under, over: stages that act before and after them, in their order; closing: what
    acts on values in range. Raises KeyError for a head that the rig does not have.
    """
    number = rig.heads.index[head]
    rows = [attributes.INDEX[name] for name in attributes.touched(attribute)]
    values = rig.home.astype(float)

    def now() -> Numbers:
        return tuple(values[rows, number].tolist())

    steps = [Step("home", "home", now())]
    apart: dict[str, NDArray[np.float64]] = {}
    for laid in sorted(arranged(claims.strips, claims.manners), key=lambda one: one.apart):
        strip = laid.strip
        mine = np.isin(laid.at, [row * strip.count + number for row in rows]).any(axis=1)
        if not mine.any():
            continue
        if laid.apart:
            own = apart.setdefault(strip.holder, np.zeros_like(values))
            laid.lay(own.reshape(-1), t)
            values[rows, number] = np.maximum(values[rows, number], own[rows, number])
        else:
            laid.lay(values.reshape(-1), t)
        for place in np.flatnonzero(mine).tolist():
            share = strip.timing.share(t) if strip.kind != "step" else float(strip.timing.shows_step(t))
            target = tuple(np.atleast_1d(strip.target(t)[place]).tolist())
            steps.append(Step("claim", strip.holder, now(), target, share))
    values = np.clip(values, rig.low, rig.high)
    steps += _in_range(steps, now())
    for stage in under:
        if stage.stage.touched[rows, number].any():
            stage.stage.apply(values)
            steps.append(Step(stage.what, stage.who, now()))
    for one in effects:
        for block in one.placed.blocks:
            layer = Batches([replace(one.placed, blocks=(block,))], len(rig), rig.mixes)
            layer.apply(values.reshape(-1), Running(np.array([one.theta]), np.array([one.weight]), [one.shifts]))
            if layer.touched[rows, number].any():
                words = one.words[block.number] if block.number < len(one.words) else ""
                share = one.weight if isinstance(one.weight, float) else one.weight[block.family]
                steps.append(Step("effect", one.name, now(), share=share, words=words, layer=block.number, key=one.key))
    for stage in over:
        if stage.stage.touched[rows, number].any():
            stage.stage.apply(values)
            steps.append(Step(stage.what, stage.who, now()))
    values[attributes.HUE] %= 360
    values = np.clip(values, rig.low, rig.high)
    steps += _in_range(steps, now())
    if closing is not None and closing.touched[rows, number].any():
        closing.apply(values, t)
        steps.append(Step("special", closing.whose(number), now(), share=closing.share(number, t)))
    if attributes.INTENSITY in rows:
        for group in levels.groups:
            if number in levels.scaled(group):
                values[attributes.INTENSITY, number] *= group.level
                steps.append(Step("levels", f"level of {group.name}", now(), share=group.level))
    replace(levels, groups=()).apply(values, rig)
    if attributes.INTENSITY in rows and levels.factor != 1 and not rig.led[number]:
        steps.append(Step("levels", "blackout" if levels.blackout else "grand master", now(), share=levels.factor))
    return steps


def _in_range(steps: Sequence[Step], value: Numbers) -> list[Step]:
    return [Step("range", "range", value)] if value != steps[-1].value else []
