"""A route in one line, such as “1–8 to 192.0.2.20 as E1.31”, and as a document. One definition for API and database."""

from __future__ import annotations

import re
from collections.abc import Callable
from ipaddress import AddressValueError, IPv4Address
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, field_validator, model_validator

from zarabanda.errors import ZarabandaError, shown
from zarabanda.formats.effect_document import faults
from zarabanda.messages import ARTNET, BROADCAST, E131, MULTICAST, SIMULATOR, RoutePart
from zarabanda.protocols import artnet, e131

MOST_RANGES = 64
HIGHEST = {E131: e131.MOST_UNIVERSES - 1, ARTNET: artnet.MOST_PORT_ADDRESSES - 1}
LOWEST = {E131: 1, ARTNET: 0}
PORTS = {E131: e131.PORT, ARTNET: artnet.PORT}
EXAMPLE = "1–8 to 192.0.2.20 as E1.31"


class RouteDocument(BaseModel):
    """Which universes go where: see `messages.RoutePart`. universes: ranges, or “all”."""

    model_config = ConfigDict(extra="forbid")

    universes: Annotated[str, Field(max_length=1000)] = "all"
    protocol: Literal["E1.31", "Art-Net"] = "E1.31"
    to: Annotated[str, Field(max_length=40)]
    port: Annotated[int, Field(ge=0, le=65_535)] = 0
    over: Annotated[str, Field(max_length=40, pattern=r"^\S*$")] = ""
    first: Annotated[int, Field(ge=0, le=63_999)] | None = None
    priority: Annotated[int, Field(ge=0, le=200)] = 100
    sync: Annotated[int, Field(ge=0, le=63_999)] = 0
    rate: Annotated[float, Field(ge=1, le=44)] = 44.0
    always: bool = False

    @field_validator("universes")
    @classmethod
    def _ranges(cls, text: str) -> str:
        return as_text(ranges(text))

    @field_validator("to")
    @classmethod
    def _goes_somewhere(cls, text: str) -> str:
        word = text.strip().lower().removeprefix("the ")
        if word in (SIMULATOR, MULTICAST, BROADCAST):
            return word
        try:
            address = IPv4Address(text.strip())
        except AddressValueError as error:
            raise ValueError(
                f"{shown(text)} is no address: give four numbers such as 192.0.2.20, or one of simulator, multicast, broadcast"
            ) from error
        if address.is_multicast:
            raise ValueError(f"{text} is an address of multicast: write multicast, which has an address for each universe")
        if address.is_unspecified or address.is_reserved:
            raise ValueError(f"{text} is not the address of a node: to reach all of a network write broadcast")
        return str(address)

    @model_validator(mode="after")
    def _fits(self) -> RouteDocument:
        if self.protocol == E131 and self.to == BROADCAST:
            raise ValueError("E1.31 is not sent by broadcast: choose multicast, or Art-Net")
        if self.protocol == ARTNET and self.to == MULTICAST:
            raise ValueError("Art-Net is not sent by multicast: choose broadcast, or E1.31")
        if self.to == SIMULATOR and (self.port or self.over):
            raise ValueError("the simulator has its own address: leave out port and interface")
        if self.protocol == ARTNET:
            self.sync = min(self.sync, 1)
        part = self.part(0, on=False)
        for first, last in numbers_there(part):
            if first < LOWEST[self.protocol] or (part.ranges and last > HIGHEST[self.protocol]):
                raise ValueError(
                    f"universes {first} to {last} there are out of range: {self.protocol} has {LOWEST[self.protocol]} to "
                    f"{HIGHEST[self.protocol]}"
                )
            if self.protocol == E131 and part.ranges and first <= self.sync <= last:
                raise ValueError(
                    f"universe {self.sync} carries values, so it cannot synchronise: choose another one, such as 7000"
                )
        return self

    def part(self, number: int, *, on: bool) -> RoutePart:
        """As the engine works with it."""
        fields = self.model_dump(exclude={"universes"})
        return RoutePart(id=number, ranges=ranges(self.universes), on=on, **fields)

    @property
    def line(self) -> str:
        """The route in one line, which `read_line` reads again."""
        words = [f"{self.universes} to {self.to}{f':{self.port}' if self.port else ''} as {self.protocol}"]
        words += [text for field, write in _WRITTEN.items() if (text := write(getattr(self, field)))]
        if self.protocol == ARTNET:
            words = [word for word in words if not word.startswith("priority")]
            words = ["sync" if word.startswith("sync") else word for word in words]
        return ", ".join(words)


_WRITTEN: dict[str, Callable[[Any], str]] = {
    "over": lambda name: f"over {name}" if name else "",
    "first": lambda number: f"from {number}" if number is not None else "",
    "priority": lambda number: f"priority {number}" if number != 100 else "",
    "sync": lambda number: f"sync {number}" if number else "",
    "rate": lambda hertz: f"{hertz:g} Hz" if hertz != 44 else "",
    "always": lambda on: "always" if on else "",
}
_READ: list[tuple[str, Callable[[re.Match[str]], dict[str, Any]]]] = [
    (r"as (E1\.31|sACN|Art-?Net)\b", lambda found: {"protocol": ARTNET if found[1].lower().startswith("art") else E131}),
    (r"over (\S+?)(?=,|\s|$)", lambda found: {"over": found[1]}),
    (r"from (\d{1,5})\b", lambda found: {"first": int(found[1])}),
    (r"priority (\d{1,5})\b", lambda found: {"priority": int(found[1])}),
    (r"sync(?: (\d{1,5})\b(?!\.| ?Hz))?(?=\W|$)", lambda found: {"sync": int(found[1] or 1)}),
    (r"(?:at )?(\d{1,4}(?:\.\d{1,3})?) ?Hz\b", lambda found: {"rate": float(found[1])}),
    (r"always\b", lambda found: {"always": True}),
]
"""What can stand in a line after its address, in any order, and what each means."""


def ranges(text: str) -> tuple[tuple[int, int], ...]:
    """First and last of each range of “1–8, 12”; none for “all”. ValueError says what is wrong."""
    if text.strip().lower() in ("all", ""):
        return ()
    found: list[tuple[int, int]] = []
    for one in text.split(","):
        match = re.fullmatch(r"\s*(\d{1,6})\s*(?:[-–]\s*(\d{1,6})\s*)?", one)
        if match is None:
            raise ValueError(f"{shown(one.strip())} is no universe: give numbers and ranges such as 1–8, 12, or all")
        first, last = int(match[1]), int(match[2] or match[1])
        if not 1 <= first <= last <= 63_999:
            raise ValueError(f"{shown(one.strip())}: universes are 1 to 63999, the lower one first")
        twice = next((other for other in found if other[0] <= last and first <= other[1]), None)
        if twice is not None:
            raise ValueError(f"universe {max(first, twice[0])} stands twice in {shown(text)}: leave one of them out")
        found.append((first, last))
    if len(found) > MOST_RANGES:
        raise ValueError(
            f"{len(found)} ranges are too many for one route: make several, of {MOST_RANGES} ranges each at the most"
        )
    return tuple(sorted(found))


def as_text(given: tuple[tuple[int, int], ...]) -> str:
    """Ranges as they are shown.

    >>> as_text(((1, 8), (12, 12)))
    '1–8, 12'
    """
    return ", ".join(str(first) if first == last else f"{first}–{last}" for first, last in given) or "all"


def in_ranges(numbers: list[int]) -> tuple[tuple[int, int], ...]:
    """Numbers in rising order, as ranges.

    >>> in_ranges([1, 2, 3, 7])
    ((1, 3), (7, 7))
    """
    found: list[tuple[int, int]] = []
    for number in numbers:
        if found and found[-1][1] == number - 1:
            found[-1] = found[-1][0], number
        else:
            found.append((number, number))
    return tuple(found)


def numbers_there(part: RoutePart) -> list[tuple[int, int]]:
    """First and last number there of each range."""
    return [(part.number_there(first), part.number_there(last)) for first, last in part.ranges or ((1, 63_999),)]


def read(data: Any) -> RouteDocument:
    """A route from plain data; ZarabandaError says what is wrong."""
    try:
        return RouteDocument.model_validate(data)
    except ValidationError as error:
        place, what = faults(error)[0]
        said = what if place in ("", "universes", "to") else f"{place}: {what}"
        raise ZarabandaError(f"{said[0].upper()}{said[1:]}.", place) from error


def read_line(line: str) -> RouteDocument:
    """A route from one line; ZarabandaError says what is wrong, and how it is written."""
    match = re.fullmatch(
        r"\s*(?:universes? )?(.+?)\s+to\s+(?:the )?([^\s,:]+)(?::(\d{1,5}))?(.*)", line, re.IGNORECASE | re.DOTALL
    )
    if match is None:
        raise ZarabandaError(f"{shown(line.strip())} is no route. Write which universes go where: {EXAMPLE}.", "line")
    fields: dict[str, Any] = {"universes": match[1], "to": match[2], "port": int(match[3] or 0)}
    if match[2].lower() == BROADCAST:
        fields["protocol"] = ARTNET
    rest = match[4].strip(" ,")
    while rest:
        for pattern, meant in _READ:
            found = re.match(pattern, rest, re.IGNORECASE)
            if found is not None:
                fields |= meant(found)
                rest = rest[found.end() :].strip(" ,")
                break
        else:
            raise ZarabandaError(
                f"{shown(rest)} is not understood. After the address may stand: as E1.31 or as Art-Net, over an interface, "
                "from a number, priority, sync, a rate in Hz, always.", "line"
            )  # fmt: skip
    return read(fields)
