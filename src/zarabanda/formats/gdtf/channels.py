"""One DMX channel of a fixture type: which of its functions is driven, over which levels, and where it rests if none is."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any

from zarabanda.core.rig import attributes

from .words import EMITTERS, SHUTTER, Word, word

MOST_BYTES = 3
_OPEN = re.compile(r"\bopen\b", re.IGNORECASE)
_ALLOWED = {"temperature": (1000.0, 25_000.0), "zoom": (0.1, 180.0)}
"""Physical ranges outside of which a file says nothing that could be right."""


@dataclass(frozen=True)
class Span:
    """A function as the library gives it, and the levels from first to last that are its own."""

    function: Any
    first: int
    last: int

    @property
    def attribute(self) -> str:
        """What it is for, by the standard."""
        return str(self.function.attribute)

    def middle(self, of: Any) -> int:
        """The level in the middle of one of its sets."""
        later = [one.dmx_from.value for one in self.function.channel_sets if one.dmx_from.value > of.dmx_from.value]
        return (max(self.first, int(of.dmx_from.value)) + min([self.last, *(int(one) - 1 for one in later)])) // 2


@dataclass
class Driven:
    """A channel as it is driven: natural values at both ends, or a curve; home is the value at the file's own default.

    slots: of a wheel, in the order of its values, each with its name and the number of its slot in the wheel, from 1.
    """

    source: str
    span: Span
    low: float
    high: float
    home: float
    curve: list[tuple[float, int]] = field(default_factory=list)
    slots: list[tuple[str, int]] = field(default_factory=list)


class Channel:
    """A channel of a mode as the library gives it, on one geometry, with its slots from 0 on."""

    def __init__(self, raw: Any, geometry: str, slots: list[int]) -> None:
        self.raw, self.geometry, self.slots = raw, geometry, slots
        self.used = self.slots[:MOST_BYTES]
        self.full: int = 256 ** len(self.slots) - 1
        """Its highest level, of all bytes that it has in the file."""
        self.spans = list(self._spans())
        self.default_given, default = self._default()
        self.default: int = min(default, self.full)

    def _default(self) -> tuple[bool, int]:
        """The level that the file wants at first, and whether it says so: of the function that it names, of the channel, or of
        the first function."""
        if self.raw.initial_function is None and not self.raw._has_default_attr and self.spans:
            function = self.spans[0].function
            return "Default" in function._attr_keys, int(function.default.value)
        return True, int(self.raw.default.value)

    def _spans(self) -> Iterator[Span]:
        every = [one for logical in self.raw.logical_channels for one in logical.channel_functions]
        free = [one for one in every if not (one.mode_master and one.mode_master.str_link)]
        found = sorted({one.dmx_from.value: one for one in reversed(free or every)}.items())
        for n, (first, function) in enumerate(found):
            yield Span(function, int(first), int(found[n + 1][0]) - 1 if n + 1 < len(found) else self.full)

    @property
    def words(self) -> dict[str, tuple[Span, Word]]:
        """What it could be driven as: the first function for each."""
        found: dict[str, tuple[Span, Word]] = {}
        for span in self.spans:
            if one := word(span.attribute):
                found.setdefault(one.source, (span, one))
        return found

    @property
    def called(self) -> str:
        """It in words: its number and what it is for."""
        numbers = "+".join(str(one + 1) for one in self.slots)
        return f"channel {numbers} ({self.spans[0].attribute if self.spans else 'nothing'})"

    @property
    def rest(self) -> int:
        """The level at which it stays where nothing drives it: open, bright, or what the file says."""
        for span in self.spans:
            if SHUTTER.fullmatch(span.attribute) and (level := _opened(span)) is not None:
                return level
        if "intensity" in self.words:
            span, _ = self.words["intensity"]
            return span.last
        return self.default

    def bytes_of(self, level: int) -> list[tuple[int, int]]:
        """Slots and bytes of a level."""
        return list(zip(self.slots, level.to_bytes(len(self.slots), "big"), strict=True))

    def driven(self, source: str, wheels: dict[str, Any]) -> Driven | str:
        """Driven as this; a text says why it cannot be."""
        span, one = self.words[source]
        if one.stepped:
            return self._wheel(source, span, wheels)
        physical = _physical(source, span, one)
        if isinstance(physical, str):
            return physical
        low, high = physical
        share = (min(max(self.default, span.first), span.last) - span.first) / max(span.last - span.first, 1)
        found = Driven(source, span, low, high, self._home(source, low, high, low + share * (high - low)))
        if source == "strobe":
            found.curve = [(0.0, self._cut(self.rest)), *self._points(span, max(low, 0.1), high)]
            found.low, found.high, found.home = 0.0, max(low, high), 0.0
        elif (span.first, span.last) != (0, self.full):
            found.curve = self._points(span, low, high)
        found.curve = [point for n, point in enumerate(found.curve) if not n or point[0] > found.curve[n - 1][0]]
        return found

    def _home(self, source: str, low: float, high: float, value: float) -> float:
        """The value at the default, or the usual one; what is nought but for a step of 8 bit is nought."""
        if not self.default_given and source in attributes.BY_NAME:
            value = min(max(attributes.BY_NAME[source].home, min(low, high)), max(low, high))
        return 0.0 if abs(value) <= abs(high - low) / 255 else round(value, 3)

    def _points(self, span: Span, low: float, high: float) -> list[tuple[float, int]]:
        return sorted([(low, self._cut(span.first)), (high, self._cut(span.last))])

    def _cut(self, level: int) -> int:
        """A level in the bytes that are used."""
        return level >> 8 * (len(self.slots) - len(self.used))

    def _wheel(self, source: str, span: Span, wheels: dict[str, Any]) -> Driven | str:
        wheel = wheels.get(str(span.function.wheel))
        if wheel is None or not wheel.wheel_slots:
            return "its wheel is not described"
        count = len(wheel.wheel_slots)
        levels: dict[int, int] = {}
        for one in span.function.channel_sets:
            if 1 <= one.wheel_slot_index <= count:
                levels.setdefault(one.wheel_slot_index, span.middle(one))
        if not levels:
            width = (span.last - span.first + 1) / count
            levels = {n + 1: int(span.first + (n + 0.5) * width) for n in range(count)}
        order = sorted(levels)[: int(attributes.BY_NAME["gobo"].high) + 1]
        home = min(range(len(order)), key=lambda n: abs(levels[order[n]] - self.default))
        found = Driven(source, span, 0, max(len(order) - 1, 1), home)
        found.slots = [(wheel.wheel_slots[number - 1].name or f"slot {number}", number) for number in order]
        found.curve = [(n, self._cut(levels[number])) for n, number in enumerate(order)]
        return found


def _opened(span: Span) -> int | None:
    """Where a shutter is open: at the set that says so, or at the end that lets all light through."""
    for one in span.function.channel_sets:
        if _OPEN.search(one.name or ""):
            return span.middle(one)
    low, high = span.function.physical_from.value, span.function.physical_to.value
    return span.first if low > high else span.last if span.function.channel_sets == [] else None


def _physical(source: str, span: Span, one: Word) -> tuple[float, float] | str:
    """Natural values at both ends of a function."""
    low, high = float(span.function.physical_from.value), float(span.function.physical_to.value)
    if str(span.function.dmx_invert) == "Yes":
        low, high = high, low
    if source in EMITTERS and source not in ("hue", "saturation"):
        return (1.0, 0.0) if low > high else (0.0, 1.0)
    attribute = attributes.BY_NAME[source]
    return _RANGES.get(attribute.unit, _as_given)(source, low, high, one)


def _percent(source: str, low: float, high: float, one: Word) -> tuple[float, float] | str:
    factor = one.factor if max(abs(low), abs(high)) <= 1 else 1.0
    row = attributes.BY_NAME[source]
    ends = [min(max(value * factor, row.low), row.high) for value in (low, high)]
    return (ends[0], ends[1]) if ends[0] != ends[1] else (row.low, row.high)


def _degrees(source: str, low: float, high: float, one: Word) -> tuple[float, float] | str:
    if source in ("pan", "tilt"):
        if abs(high - low) <= 1 or max(abs(low), abs(high)) > 3600:
            row = attributes.BY_NAME[source]
            return row.high, row.low  # nothing is said: what is usual
        return low * one.factor, high * one.factor
    return _as_given(source, low, high, one)


def _as_given(source: str, low: float, high: float, one: Word) -> tuple[float, float] | str:
    least, most = _ALLOWED.get(source, (attributes.BY_NAME[source].low, 1e6))
    if low == high or not all(least <= value <= most for value in (low, high)):
        return f"from {low:g} to {high:g} is no range in {attributes.BY_NAME[source].unit}"
    return low * one.factor, high * one.factor


_RANGES: dict[str, Callable[[str, float, float, Word], tuple[float, float] | str]] = {"%": _percent, "°": _degrees}
"""How the physical values of an attribute are read, by its unit; else they are what they are."""
