"""Making kept looks from parts of the show, and what plays their effects: as overlays, and on controls."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from zarabanda.core.effects.palette import Palette
from zarabanda.core.playback.kept_looks import KeptLook, kept_look
from zarabanda.core.rig.heads import Heads
from zarabanda.core.rig.rig import Rig
from zarabanda.messages import ControlPart, HeldValues, LookPart, PaletteUse, PlayerId, control_id
from zarabanda.messages.looks import look_of
from zarabanda.targets import EffectOnHeads, UseLook

from .cueing import values_of


def overlay_player(overlay: int, number: int) -> PlayerId:
    """The key of what plays an effect of an overlay, counted from 0."""
    return PlayerId(f"overlay:{overlay}:{number}")


def overlay_of(key: PlayerId) -> int:
    """The overlay whose effect is played by this key; 0: none."""
    kind, *numbers = key.partition("~")[0].split(":")
    return int(numbers[0]) if kind == "overlay" else 0


def control_player(control: int, number: int) -> PlayerId:
    """The key of what plays an effect of the look on a control, counted from 0."""
    return PlayerId(f"{control_id(control)}:{number}")


def targets_of(look: LookPart) -> list[EffectOnHeads]:
    """The effects of a look on their heads."""

    def target(one: Mapping[str, Any]) -> EffectOnHeads:
        families = tuple(one["families"]) if one.get("families") else None
        heads = tuple(one.get("heads", ()))
        return EffectOnHeads(one["effect"], heads, families, None, one.get("depth", 1.0), one.get("speed", 1.0))

    return [target(one) for one in look.document.get("effects", ())]


def players_of(
    looks: Iterable[LookPart], controls: Iterable[ControlPart]
) -> Iterator[tuple[PlayerId, LookPart | ControlPart, str, EffectOnHeads]]:
    """Everything that effects of looks may play: the key, its part, where it is in words, and the effect on heads."""
    there = {one.id: one for one in looks}
    for one in there.values():
        if one.over:
            for n, target in enumerate(targets_of(one)):
                yield overlay_player(one.id, n), one, f"overlay {one.name}", target
    for control in controls:
        look = there.get(control.target.look) if isinstance(control.target, UseLook) else None
        if look is not None and not look.over:
            for n, target in enumerate(targets_of(look)):
                yield control_player(control.id, n), control, f"{look.name}, {control.source}", target


@dataclass(frozen=True, eq=False)
class _Made:
    """A look, and what it was made of."""

    part: LookPart
    heads: Heads
    palettes: Mapping[int, Palette | None]
    ways: tuple[str, Mapping[int, str]]
    look: KeptLook


class LookMaker:
    """Makes kept looks, and keeps what it made of each part."""

    def __init__(self) -> None:
        self._made: dict[int, _Made] = {}

    def made(
        self, parts: Iterable[LookPart], palettes: Mapping[int, Palette], ways: Mapping[int, str], way: str, rig: Rig
    ) -> dict[int, KeptLook]:
        """All looks, in their order. ways: of colours, by the number of their palette; way: of all others."""
        before, self._made = self._made, {}
        for part in sorted(parts, key=lambda one: (one.position, one.id)):
            values = values_of(part.document)
            used = {one.palette for heads in values.values() for one in heads.values() if isinstance(one, PaletteUse)}
            own = {number: palettes.get(number) for number in used}
            own_ways = (way, {number: ways[number] for number in used if number in ways})
            known = before.get(part.id)
            if known is None or (known.part, known.palettes, known.ways) != (part, own, own_ways) or known.heads is not rig.heads:
                known = _Made(part, rig.heads, own, own_ways, _look(part, values, palettes, own_ways, rig))
            self._made[part.id] = known
        return {number: one.look for number, one in self._made.items()}


def _look(
    part: LookPart, values: HeldValues, palettes: Mapping[int, Palette], ways: tuple[str, Mapping[int, str]], rig: Rig
) -> KeptLook:
    document = part.document
    return kept_look(
        rig, part.id, part.name, part.position, part.over, look_of(values, palettes), ways[1], ways[0],
        {one: number for number, one in palettes.items()}, len(document.get("effects", ())),
        document.get("in_s", 0.5), document.get("out_s", 1.0),
    )  # fmt: skip
