"""A fixture's set of channels, and the heads that it makes: one, or cells, or cells beside a head of the fixture itself."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, field

from zarabanda.core.rig import attributes
from zarabanda.core.rig.curves import Curve

Place = tuple[float, float, float]
"""x, y, z in metres; also: turns around them in degrees."""
RGB = tuple[float, float, float]

EMITTERS: dict[str, tuple[str, ...]] = {
    "none": (),
    "rgb": ("red", "green", "blue"),
    "rgbw": ("red", "green", "blue", "white"),
    "rgbaw": ("red", "green", "blue", "amber", "white"),
    "cmy": ("cyan", "magenta", "yellow"),
    "hue-saturation": ("hue", "saturation"),
    "wheel": ("wheel",),
    "warm-cold": ("warm", "cold"),
    "level": ("level",),
}
"""How a fixture makes colour, and the names of the channels it has for that. `level` is made for heads whose own channel
of intensity has to carry the level of their fixture as well."""


def emitters_for(sources: Collection[str]) -> str:
    """Which of them fits best to channels that carry these: it uses the most, and lacks the fewest.

    >>> emitters_for({"intensity", "red", "green", "blue", "white"})
    'rgbw'
    """
    own = set(sources)
    return max(EMITTERS, key=lambda one: (len(own & set(EMITTERS[one])) - len(set(EMITTERS[one]) - own), one == "none"))


OF_MODES = tuple(name for name in EMITTERS if name != "level")
"""What a mode can say of itself."""
WITHOUT_LIGHT = frozenset({"haze", "fan"})
"""Kinds that give no light, and so have no intensity."""
GOBOS = ("open", "dots", "bars", "rings", "leaves", "spiral", "stars", "split")
"""Pictures in slots of gobo wheels; a mode that does not say has these in this order."""
VIRTUAL = ("temperature", "tint", "white_mix")
"""Attributes that a mode may have without a channel: its emitters do it."""


@dataclass(frozen=True, slots=True)
class Channel:
    """One channel of a mode. slots: offsets from the address, coarse first (1–3 of them: 8, 16 or 24 bits).

    source: an attribute or a name from EMITTERS; low, high: natural value at DMX 0 and at full; cell: 1…, or 0 for what
    the fixture has as a whole. curve: levels for values, where the channel does not run straight from low to high.
    """

    source: str
    slots: tuple[int, ...]
    low: float = 0.0
    high: float = 1.0
    inverted: bool = False
    cell: int = 0
    curve: Curve = ()

    @property
    def ends(self) -> tuple[float, float]:
        """The least and the largest value that it carries."""
        reached = [value for value, _ in self.curve] or [self.low, self.high]
        return min(reached), max(reached)


@dataclass(frozen=True)
class ModeSpec:
    """A fixture's set of channels. limits: narrower ranges and home values (low, high, home) by attribute.

    cells: their places beside that of the fixture; virtual: attributes without a channel, from VIRTUAL; model: what its maker
    calls the fixture; gobos: names of what is in the slots of its gobo wheel; gobo_pictures: for each a name from GOBOS, or the
    SHA-256 of a picture in the media folder; pan_speed, tilt_speed: in °/s; rests: (slot, byte) of slots that no channel drives.
    """

    name: str
    kind: str
    emitters: str
    channels: tuple[Channel, ...]
    footprint: int
    limits: dict[str, tuple[float, float, float]] = field(default_factory=dict)
    wheel: tuple[tuple[str, RGB], ...] = ()
    light: RGB = (1.0, 1.0, 1.0)
    cells: tuple[Place, ...] = ()
    beam_deg: float = 20.0
    virtual: tuple[str, ...] = ()
    model: str = ""
    gobos: tuple[str, ...] = ()
    pan_speed: float = 180.0
    tilt_speed: float = 120.0
    gobo_pictures: tuple[str, ...] = ()
    rests: tuple[tuple[int, int], ...] = ()

    @property
    def gives_light(self) -> bool:
        """Whether its heads have intensity."""
        return self.kind not in WITHOUT_LIGHT

    @property
    def leads(self) -> bool:
        """Whether the fixture is a head of its own beside its cells: where some channel is of the whole."""
        return bool(self.cells) and any(channel.cell == 0 for channel in self.channels)

    @property
    def parts(self) -> tuple[int, ...]:
        """Cell numbers of its heads in their order; 0 is the fixture itself.

        >>> ModeSpec("bar", "bar", "none", (Channel("tilt", (0,)),), 1, cells=((0, 0, 0), (1, 0, 0))).parts
        (0, 1, 2)
        """
        if not self.cells:
            return (0,)
        cells = tuple(range(1, len(self.cells) + 1))
        return (0, *cells) if self.leads else cells

    def channels_of(self, part: int) -> tuple[Channel, ...]:
        """Channels of one of its heads."""
        return tuple(channel for channel in self.channels if channel.cell == part) if self.cells else self.channels

    @property
    def slot_names(self) -> list[str]:
        """What each of its slots does; empty where none does anything."""
        names = [""] * self.footprint
        for channel in self.channels:
            for n, slot in enumerate(channel.slots):
                fine = (" fine", " finer")[n - 1] if n else ""
                cell = f" of cell {channel.cell}" if channel.cell else ""
                names[slot] = f"{channel.source.replace('_', ' ')}{fine}{cell}"
        return names

    @property
    def gobo_slots(self) -> list[tuple[str, str]]:
        """Name and picture of each slot of its gobo wheel; what is usual where it does not say."""
        if not self.gobos:
            return [(name, name) for name in GOBOS]
        pictures = self.gobo_pictures + ("",) * len(self.gobos)
        usual = (name.lower() if name.lower() in GOBOS else "" for name in self.gobos)
        return [(name, own or like) for name, own, like in zip(self.gobos, pictures, usual, strict=False)]

    def attributes_of(self, part: int) -> list[str]:
        """What one of its heads can do: from its channels; intensity wherever it gives light, colour where it mixes it."""
        sources = {channel.source for channel in self.channels_of(part)}
        named = {source for source in sources if source in attributes.BY_NAME}
        if sources & set(EMITTERS[self.emitters]):
            named -= {"hue", "saturation", "red", "green", "blue"}
            named |= set(self.virtual)
            if self.emitters == "warm-cold":
                named.add("temperature")
            else:
                named |= {"red", "green", "blue"}
        if self.gives_light:
            named.add("intensity")
        return [attribute.name for attribute in attributes.ATTRIBUTES if attribute.name in named]


def head_key(number: int, cell: int) -> str:
    """What a head is called: the fixture's number, and the cell's after a point.

    >>> head_key(501, 3)
    '501.3'
    """
    return f"{number}.{cell}" if cell else str(number)


def head_keys(number: int, mode: ModeSpec) -> list[str]:
    """All heads of a fixture."""
    return [head_key(number, part) for part in mode.parts]


def lit_keys(number: int, mode: ModeSpec) -> list[str]:
    """Heads of a fixture that give light of their own: its cells where it has some, else the fixture."""
    return [head_key(number, part) for part in mode.parts if part or not mode.cells]


def whole_keys(number: int, mode: ModeSpec) -> list[str]:
    """The fixture as one light: its own head where it has one, else its cells together."""
    return [head_key(number, 0)] if mode.parts[0] == 0 else lit_keys(number, mode)
