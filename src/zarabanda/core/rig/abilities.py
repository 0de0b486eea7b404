"""What the lights of a group can do, taken together, and where they stand among others."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Ints = NDArray[np.int64]
_NOT_BEAM = frozenset({"haze", "fan_speed"})
_BAND_M = 2.0


@dataclass(frozen=True)
class Abilities:
    """level: any has intensity; colour: any takes a colour; position: any pans or tilts; beam: attributes of beam that any has;
    haze: any makes haze."""

    level: bool
    colour: bool
    position: bool
    beam: frozenset[str]
    haze: bool


def whole(rig: Rig, heads: Ints) -> Ints:
    """What leads each head or turns it, itself where nothing does. (n,)"""
    led = np.where(rig.leader[heads] >= 0, rig.leader[heads], heads)
    return np.where(led == heads, rig.body[heads], led)


def on_heads_that_can(rig: Rig, heads: Ints, names: Sequence[str]) -> Ints:
    """The heads that layers on these attributes act on: these, or where none of them has any, what leads or turns them, each once
    (a bar of cells moves as a whole)."""
    if any(rig.heads.having(heads, name).any() for name in names):
        return heads
    return np.array(list(dict.fromkeys(whole(rig, heads).tolist())), np.int64)


def numbers(rig: Rig, keys: Sequence[str]) -> Ints:
    """Numbers of heads by their keys, in this order, without those that the rig does not have."""
    return np.array([rig.heads.index[key] for key in keys if key in rig.heads.index], np.int64)


def abilities(rig: Rig, keys: Sequence[str]) -> Abilities:
    """What these heads can do, or what leads or turns them."""
    own = numbers(rig, keys)
    every = np.unique(np.concatenate([own, whole(rig, own)]))
    has = {attributes.ATTRIBUTES[row].name for row in np.flatnonzero(rig.heads.has[:, every].any(axis=1)).tolist()}
    beam = frozenset(name for name in has if attributes.BY_NAME[name].family == "beam") - _NOT_BEAM
    return Abilities("intensity" in has, "red" in has, bool(has & {"pan", "tilt"}), beam, "haze" in has)


def stage_place(rig: Rig, keys: Sequence[str]) -> tuple[float, float]:
    """By which groups are in the order in which they are seen: from the back to the front, and there from high to low."""
    own = numbers(rig, keys)
    if not len(own):
        return 0.0, 0.0
    _, y, z = rig.heads.places[own].mean(axis=0).tolist()
    return -float(np.floor(y / _BAND_M)), -z
