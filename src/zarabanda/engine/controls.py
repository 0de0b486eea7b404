"""Faders and buttons as the engine has them: how each acts, what it drives, and whether that is there."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from zarabanda.core.playback.alone import Stayers
from zarabanda.core.playback.frame import GroupLevel
from zarabanda.core.playback.kept_looks import KeptLook
from zarabanda.core.rig import attributes
from zarabanda.core.rig.abilities import numbers
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.messages import ControlId, ControlPart, PlayerId, control_id
from zarabanda.targets import Alone, EffectOnHeads, OnGroup, Target, UseLook

from .looks import control_player


@dataclass(frozen=True, eq=False)
class Control:
    """A fader or button. source: where it is, in words; mode: `fader`, `latch` or `flash`; release in s; job: what a fader
    changes of an effect, `depth`, `speed` or `both`; players: of the effects that it plays; look: that it holds; group: that it
    levels; stayers: who is alone."""

    key: ControlId
    name: str
    source: str
    mode: str
    release_s: float
    target: Target
    job: str = "depth"
    players: tuple[PlayerId, ...] = ()
    look: KeptLook | None = None
    group: GroupLevel | None = None
    stayers: Stayers | None = None
    made_of: tuple[object, ...] = field(default=())

    @property
    def plays_effect(self) -> bool:
        """Whether it drives one effect alone."""
        return isinstance(self.target, EffectOnHeads)


def gone(control: Control) -> ZarabandaError:
    """That what it drives is not there any more."""
    return ZarabandaError(f"What “{control.name}” drives is gone. Put something else on it, or undo what deleted it.", "control")


class ControlMaker:
    """Makes controls; one that an edit leaves alone is not made again."""

    def __init__(self) -> None:
        self._made: dict[ControlId, Control] = {}

    def made(self, parts: list[ControlPart], looks: Mapping[int, KeptLook], rig: Rig) -> list[Control]:
        """All controls. looks: by number."""
        before, self._made = self._made, {}
        for part in parts:
            look = looks.get(part.target.look) if isinstance(part.target, UseLook) else None
            made_of = (part, look, rig.heads)
            known = before.get(control_id(part.id))
            if known is None or known.made_of[0] != part or known.made_of[1:] != made_of[1:]:
                known = _control(part, look, rig, made_of)
            self._made[known.key] = known
        return list(self._made.values())


def _control(part: ControlPart, look: KeptLook | None, rig: Rig, made_of: tuple[object, ...]) -> Control:
    target, key = part.target, control_id(part.id)
    players: tuple[PlayerId, ...] = (PlayerId(key),) if isinstance(target, EffectOnHeads) else ()
    if look is not None and not look.over:
        players = tuple(control_player(part.id, n) for n in range(look.effects))
    group = None
    if isinstance(target, OnGroup):
        group = GroupLevel(part.name, scaled_heads(rig, target.heads), 1.0)
    stayers = Stayers(rig, numbers(rig, target.heads)) if isinstance(target, Alone) else None
    return Control(
        key, part.name, part.source, part.mode, part.release_s, target, part.job, players, look, group, stayers, made_of
    )  # fmt: skip


def scaled_heads(rig: Rig, keys: tuple[str, ...]) -> tuple[int, ...]:
    """Heads of a group whose level it scales: without cells of a fixture whose own level it scales."""
    own = numbers(rig, keys)
    able = own[rig.heads.has[attributes.INTENSITY, own]]
    return tuple(able[~np.isin(rig.leader[able], able)].tolist())
