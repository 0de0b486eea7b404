"""The same effect played another way, as a hand asks for it live: in pairs, with another waveform, spread or travel."""

from __future__ import annotations

from dataclasses import dataclass, replace

from zarabanda.core.effects import waveforms
from zarabanda.core.effects.effect import Effect, Layer, Spread, Waveform

SHAPES: tuple[str, ...] = ("swell", "rise", "fall", "triangle", "square", "strike", "steps")
"""Waveforms that all intensity effects can be given at once."""
SPREADS: dict[str, Spread] = {
    "together": Spread(degrees=0.0),
    "one wave": Spread(degrees=360.0),
    "two waves": Spread(degrees=720.0),
    "in turn": Spread("relay", handover=0.5),
}
"""Spreads by the words for them."""
TRAVELS: tuple[str, ...] = ("forward", "reverse", "back-and-forth")


@dataclass(frozen=True)
class Variant:
    """How an effect is played; empty: as it is. pairs: its symmetric version; the others act on effects that move intensity."""

    pairs: bool = False
    shape: str = ""
    spread: str = ""
    travel: str = ""


AS_IT_IS = Variant()


def moves_intensity(effect: Effect) -> bool:
    """Whether any layer of it acts on intensity."""
    return any(layer.attribute == "intensity" and not layer.muted for layer in effect.layers)


def varied(effect: Effect, variant: Variant) -> Effect:
    """The effect, played so. Its speed, run and drift stay: the phase of its first lane can go on without a jump."""
    lanes = effect.lanes
    if variant.pairs:
        lanes = replace(lanes, parts=max(lanes.parts, 2), mirror=True)
    layers = effect.layers
    if moves_intensity(effect):
        lanes = replace(lanes, travel=variant.travel or lanes.travel)
        layers = tuple(_of_intensity(layer, variant) if layer.attribute == "intensity" else layer for layer in layers)
    return replace(effect, lanes=lanes, layers=layers)


def _of_intensity(layer: Layer, variant: Variant) -> Layer:
    """A list of values has no waveform: it keeps its own."""
    if variant.shape and isinstance(layer.form, Waveform):
        layer = replace(layer, form=Waveform(variant.shape, waveforms.default_duty(variant.shape)))
    return replace(layer, spread=SPREADS[variant.spread]) if variant.spread else layer
