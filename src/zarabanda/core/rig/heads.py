"""What is known of heads, one after another: keys, places, what they can do."""

from __future__ import annotations

import zlib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


@dataclass(frozen=True, eq=False)
class Heads:
    """What placement needs to know of the rig's heads, all N of them.

    keys: what a head is called; places: (N, 3) metres; has: (A, N) which attributes a head has, in the order of
    `attributes.ATTRIBUTES`; mounting: (N, 3, 3) rotation of each base, needed for paths on stage; models: of which fixture
    each is a head, empty where that is not known.
    """

    keys: Sequence[str]
    places: Floats
    has: NDArray[np.bool_]
    mounting: Floats | None = None
    models: Sequence[str] = ()

    def __len__(self) -> int:
        return len(self.keys)

    @cached_property
    def index(self) -> dict[str, int]:
        """The number of each head by its key."""
        return {key: n for n, key in enumerate(self.keys)}

    @cached_property
    def cells(self) -> dict[str, list[str]]:
        """Keys of the cells of each fixture that has some, by its number."""
        found: dict[str, list[str]] = {}
        for key in self.keys:
            number, point, _ = key.partition(".")
            if point:
                found.setdefault(number, []).append(key)
        return found

    @cached_property
    def of_fixture(self) -> dict[str, list[int]]:
        """The heads of each fixture, by its number as it is in their keys."""
        found: dict[str, list[int]] = {}
        for n, key in enumerate(self.keys):
            found.setdefault(key.partition(".")[0], []).append(n)
        return found

    @cached_property
    def number(self) -> int:
        """Tells sets of heads apart: of their keys in their order, 32 bits."""
        return zlib.crc32("\n".join(self.keys).encode())

    def having(self, heads: Ints, layer_attribute: str) -> NDArray[np.bool_]:
        """Which of `heads` a layer on this attribute can act on, (n,)."""
        names = {"position": ("pan", "tilt"), "colour": ("red",)}.get(layer_attribute, (layer_attribute,))
        if layer_attribute in ("hue", "saturation"):
            names = (layer_attribute, "red")
        return np.asarray(self.has[[attributes.INDEX[name] for name in names]][:, heads].any(axis=0))
