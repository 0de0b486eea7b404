"""Palettes: kept values, that looks refer to and stops of effects go to. A palette says on which heads it acts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads

Floats = NDArray[np.float64]
ByAttribute = Mapping[str, float]


@dataclass(frozen=True, eq=False)
class Palette:
    """values: by attribute, for every head, natural units; models: by model, for heads of such fixtures instead; own: by head
    key, what holds on that head instead of both; way: of colours to it, a name from `colour.spaces.SPACES`, empty: the show's."""

    name: str
    values: ByAttribute = field(default_factory=dict)
    own: Mapping[str, ByAttribute] = field(default_factory=dict)
    models: Mapping[str, ByAttribute] = field(default_factory=dict)
    way: str = ""

    def on(self, rig: Heads, heads: Sequence[int], names: Sequence[str]) -> Floats:
        """Values (heads, names) of attributes; NaN where the palette does not act. heads: their numbers in the rig.

        >>> rig = Heads(["101", "102"], np.zeros((2, 3)), np.ones((attributes.COUNT, 2), bool))
        >>> Palette("Deck", {"tilt": -30.0}, {"102": {"tilt": -28.0}}).on(rig, [0, 1], ["pan", "tilt"]).tolist()
        [[nan, -30.0], [nan, -28.0]]
        """
        shared = [self.values.get(name, np.nan) for name in names]
        found = np.tile(np.array(shared, float), (len(heads), 1))
        models = np.array(rig.models, object)[list(heads)] if self.models and rig.models else np.zeros(0)
        for model, values in self.models.items():
            for name in names if len(models) else ():
                if name in values:
                    found[models == model, names.index(name)] = values[name]
        if self.own:
            place = np.full(len(rig), -1)
            place[list(heads)] = np.arange(len(heads))
            for key, values in self.own.items():
                number = rig.index.get(key)
                if number is None or place[number] < 0:
                    continue
                for column, name in enumerate(names):
                    if name in values:
                        found[place[number], column] = values[name]
        return found

    @property
    def names(self) -> list[str]:
        """Attributes that it has values of, in their order."""
        every = [self.values, *self.models.values(), *self.own.values()]
        return [one.name for one in attributes.ATTRIBUTES if any(one.name in values for values in every)]

    def acts(self, rig: Heads, heads: Sequence[int], names: Sequence[str]) -> NDArray[np.bool_]:
        """Where it acts on heads (heads, names): where it has a value of something that the head has."""
        rows = [attributes.INDEX[name] for name in names]
        return np.asarray(~np.isnan(self.on(rig, heads, names)) & rig.has[rows][:, list(heads)].T)
