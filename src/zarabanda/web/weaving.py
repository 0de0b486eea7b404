"""Weaves for the screen: an effect on heads of the rig, or on a made-up row of heads."""

from __future__ import annotations

import base64
from dataclasses import asdict, dataclass
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.effect import Effect, OwnHead
from zarabanda.core.effects.placement import Placed, circuit_turns, place
from zarabanda.core.explain import notices, scope, weave
from zarabanda.core.playback import looks
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads
from zarabanda.core.rig.rig import Rig

from .resources.weave_models import FixView, NoticeView, ScopeView, WeaveAsk, WeaveView

Floats = NDArray[np.float64]

_STILL, _DARKEST = 0.01, 0.08
_SHOWN_CYCLES = 2.0
"""A weave shows this many cycles at least."""


@dataclass(frozen=True)
class _Ground:
    head_set: weave.HeadSet
    light: Floats


def _of_rig(rig: Rig, heads: list[str], draft: looks.Look) -> _Ground:
    chosen = np.array([rig.heads.index[key] for key in heads], np.int64)
    base = looks.base_of(rig, looks.held(rig, draft))[:, chosen]
    models = [rig.heads.models[n] for n in chosen.tolist()]
    own = Heads(heads, rig.heads.places[chosen], rig.heads.has[:, chosen], rig.mounting[chosen], models)
    led = _left_by_fixtures(rig, chosen, draft)
    head_set = weave.HeadSet(own, rig.low[:, chosen], rig.high[:, chosen], base, rig.mixes[chosen], led)
    return _Ground(head_set, rig.light[chosen])


def _left_by_fixtures(rig: Rig, chosen: NDArray[np.int64], draft: looks.Look) -> Floats | None:
    """The share of its level that its fixture leaves each head, (n,); None where none of them has a fixture beside it."""
    leader = rig.leader[chosen]
    if (leader < 0).all():
        return None
    levels = looks.base_of(rig, looks.held(rig, draft))[attributes.INTENSITY] / 100
    return np.where(leader >= 0, levels[leader], 1.0)


def _phantom(count: int, lit: bool) -> _Ground:
    """A made-up row of heads at home; lit: their level at full, for what does not bring light of its own."""
    low, high, home = (
        np.repeat(np.array([getattr(a, name) for a in attributes.ATTRIBUTES], float)[:, None], count, axis=1)
        for name in ("low", "high", "home")
    )
    places = np.stack([np.arange(count) - (count - 1) / 2, np.zeros(count), np.zeros(count)], axis=1)
    has = np.ones((attributes.COUNT, count), bool)
    has[[attributes.HUE, attributes.SATURATION]] = False
    if lit:
        home[attributes.INTENSITY] = 100
    heads = Heads([str(n + 1) for n in range(count)], places, has)
    return _Ground(weave.HeadSet(heads, low, high, home, np.ones(count, bool)), np.ones((count, 3)))


def _touched(effect: Effect) -> list[str]:
    names: dict[str, None] = {}
    for layer in effect.layers:
        if not layer.muted:
            names |= dict.fromkeys(attributes.touched(layer.attribute))
    return list(names)


def _colours(touched: list[str]) -> bool:
    return not {"red", "green", "blue", "hue", "saturation"}.isdisjoint(touched)


def _grey(values: Floats, low: float, high: float) -> Floats:
    level = np.clip((values - low) / (high - low if high > low else 1), 0, 1)
    return np.repeat(level[:, None], 3, axis=1)


def _pixels(attribute: str, values: Floats, ground: _Ground, touched: list[str]) -> tuple[str, Floats, tuple[float, float]]:
    """Planes (T, 3, N) of colour for an attribute, and the values that black and white stand for.

    `look`: as it will look, dark where the heads are dark; it falls back to what the effect moves when that gives no light,
    or stays as it is. `colour`: the colour alone, as if all heads were at full.
    """
    colours = _colours(touched)
    if attribute == "colour" and colours:
        values = values.copy()
        values[:, attributes.INTENSITY] = 100
        return "colour", weave.appearance(values, ground.head_set.mixes, ground.light), (0.0, 100.0)
    if attribute == "look" and (colours or "intensity" in touched):
        look = weave.appearance(values, ground.head_set.mixes, ground.light, ground.head_set.led)
        others = [name for name in touched if attributes.BY_NAME[name].family not in ("intensity", "colour")]
        if not others or np.ptp(look, axis=0).max() > _STILL:
            return "look", look, (0.0, 100.0)
        touched = others  # the look stays as it is: then what moves beside it is shown
    name = attribute if attribute in attributes.INDEX else next(iter(touched), "intensity")
    row = values[:, attributes.INDEX[name]]
    if name == "intensity":
        return name, _grey(row, 0, 100), (0.0, 100.0)
    low, high = float(row.min()), float(row.max())
    return name, _DARKEST + (1 - _DARKEST) * _grey(row, low, high), (low - (high - low) * _DARKEST / (1 - _DARKEST), high)


def _notices(woven: weave.Woven, cycles: float, bpm: float) -> list[NoticeView]:
    return [
        NoticeView(
            kind=notice.kind,
            path=notice.path,
            text=notice.text,
            note=notice.note,
            fix=FixView(**asdict(notice.fix)) if notice.fix else None,
        )
        for notice in notices.notices(notices.look_at(woven, cycles, bpm))
    ]


def _scopes(woven: weave.Woven, order: NDArray[np.int64]) -> list[ScopeView]:
    views = []
    for one in scope.scopes(woven):
        kind: Literal["wave", "path", "colour"] = "wave" if len(one.names) == 1 else "path" if len(one.names) == 2 else "colour"
        at = np.nan_to_num(one.phases[:, order].T * 254, nan=255.0)
        views.append(
            ScopeView(
                layer=one.number,
                kind=kind,
                names=list(one.names),
                unit="m" if one.metres else attributes.BY_NAME[one.names[0]].unit,
                values=np.round(one.values, 4).T.tolist(),
                low=one.low.tolist(),
                high=one.high.tolist(),
                base=one.base.tolist(),
                mirrored=one.mirrored[order].tolist(),
                duty=one.duty,
                depth_per_unit=one.depth_per_unit,
                phases=base64.b64encode(np.ascontiguousarray(at).astype(np.uint8).tobytes()).decode(),
            )
        )
    return views


def _spread(effect: Effect, placed: Placed, keys: list[str]) -> dict[str, Any]:
    """How the cycle lies over rows and lanes, by the effect's shared spread. keys: of the heads, by their index."""
    spread, lanes = effect.spread, np.arange(placed.count)
    own = np.zeros(len(placed.order))
    if effect.own:
        own = np.array([effect.own.get(keys[head], OwnHead()).offset / 360 for head in placed.order])
    if spread.kind == "relay":
        shares, whole, own = lanes.astype(float), spread.handover, np.zeros(len(own))
    else:
        shares = lanes / (placed.count if spread.fit == "closed" else max(placed.count - 1, 1))
        whole = spread.degrees / 360
    back = effect.lanes.travel == "back-and-forth"
    return {
        "offsets": (whole * shares[placed.lane] + own)[np.lexsort((placed.part, placed.lane))].tolist(),
        "shares": shares.tolist(),
        "circuit": circuit_turns(spread, placed.count, back) if spread.kind == "relay" else 1.0,
    }


def seen_attribute(effect: Effect) -> str:
    """What of an effect a small weave shows best: how it looks, its colour alone, or what it moves."""
    touched = _touched(effect)
    if "intensity" in touched:
        return "look"
    return "colour" if _colours(touched) else touched[-1]


def pixels_of(view: WeaveView) -> NDArray[np.uint8]:
    """The pixels of a weave, (heads, columns, 3)."""
    return np.frombuffer(base64.b64decode(view.pixels), np.uint8).reshape(len(view.heads), view.columns, 3)


def make(effect: Effect, ask: WeaveAsk, rig: Rig, draft: looks.Look, bpm: float) -> WeaveView:
    """The weave of an effect. bpm: of its tempo."""
    touched = _touched(effect)
    ground = _of_rig(rig, ask.heads, draft) if ask.heads else _phantom(ask.phantom, "intensity" not in touched)
    placed = place(effect, np.arange(len(ground.head_set.heads)), ground.head_set.heads)
    cycles = ask.cycles
    if cycles is None:
        cycles = weave.closing_cycles(effect, placed)
        cycles *= -(-_SHOWN_CYCLES // cycles)
    theta = ask.start + (np.arange(ask.columns) + 0.5) / ask.columns * cycles
    woven = weave.over_time(effect, ground.head_set, theta, np.float32, placed=placed)
    name, colours, ends = _pixels(ask.attribute, woven.values, ground, touched)
    rank = np.lexsort((placed.part, placed.lane))
    order = placed.order[rank]
    pixels = (colours * 255 + 0.5).astype(np.uint8)[:, :, order].transpose(2, 0, 1)
    seconds = weave.cycle_seconds(effect, bpm) * cycles
    by_tempo = effect.speed.kind == "tempo"
    return WeaveView(
        heads=[ground.head_set.heads.keys[head] for head in order],
        lanes=placed.lane[rank].tolist(),
        parts=placed.part[rank].tolist(),
        count=placed.count,
        **_spread(effect, placed, list(ground.head_set.heads.keys)),
        columns=ask.columns,
        start=ask.start,
        cycles=cycles,
        repeats=weave.repeats(effect),
        beats=cycles / effect.speed.cycles_per_beat if by_tempo else None,
        seconds=seconds,
        attribute=name,
        unit="%" if name in ("look", "colour") else attributes.BY_NAME[name].unit,
        black=ends[0],
        white=ends[1],
        attributes=["look", *(["colour"] if _colours(touched) else []), *touched],
        cut_off=weave.cut_off(woven.raw, ground.head_set, touched),
        notices=_notices(woven, cycles, bpm) if ask.notices else [],
        scopes=_scopes(woven, order) if ask.notices else [],
        pixels=base64.b64encode(np.ascontiguousarray(pixels).tobytes()).decode(),
    )
