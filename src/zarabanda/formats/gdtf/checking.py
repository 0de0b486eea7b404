"""A description, looked at before the library works on it: how much there is, and that its numbers are numbers.

Levels (`255/1`, `127/2s`) are written anew in the bits of their channel, since the library forgets whether they repeat or shift.
"""

from __future__ import annotations

import math
import re
from collections import Counter
from collections.abc import Iterator
from xml.etree.ElementTree import Element

from zarabanda.errors import ZarabandaError, shown

MOST_MODES, MOST_GEOMETRIES, MOST_CHANNELS, MOST_FUNCTIONS = 64, 4_000, 8_000, 40_000
"""Of a file; channels and functions as often as geometries refer to them."""
LAST_OFFSET, LAST_BREAK = 2048, 16
NEEDED = ("AttributeDefinitions", "Wheels", "PhysicalDescriptions", "Geometries", "DMXModes")
"""Sections that are read; what else there is (3D models, revisions, protocols, macros) is not looked at."""
_PHYSICAL = ("Emitters",)
_NUMBERS = {
    "ChannelFunction": ("PhysicalFrom", "PhysicalTo", "RealFade", "RealAcceleration", "Min", "Max"),
    "ChannelSet": ("PhysicalFrom", "PhysicalTo"),
    "LogicalChannel": ("MibFade", "DMXChangeTimeLimit"),
    "Beam": ("BeamAngle", "FieldAngle", "BeamRadius", "PowerConsumption", "LuminousFlux", "ColorTemperature", "ThrowRatio",
             "RectangleRatio"),
    "Emitter": ("DominantWaveLength",),
}  # fmt: skip
_LEVELS = {"DMXChannel": ("Default", "Highlight"), "ChannelFunction": ("DMXFrom", "Default"), "ChannelSet": ("DMXFrom",)}
_LEVEL = re.compile(r"(\d{1,10})/([1-4])(s?)")
_MATRIX = re.compile(r"[{},]+")


def check(root: Element) -> list[str]:
    """Check a description and make it exact, in place; ZarabandaError says what is wrong. What was taken out, in words."""
    fixture = root.find("FixtureType")
    if fixture is None:
        raise _wrong("There is no FixtureType in it.")
    left_out = _only_needed(fixture)
    for element in fixture.iter():
        for name in _NUMBERS.get(element.tag, ()):
            _finite(element, name)
        if "Position" in element.attrib:
            _matrix(element)
        if element.tag == "Break":
            _whole(element, "DMXOffset", 1, LAST_OFFSET)
            _whole(element, "DMXBreak", 1, LAST_BREAK)
    modes = fixture.findall("DMXModes/DMXMode")
    if not modes:
        raise _wrong("It has no mode: there is nothing that could be patched.")
    _few("modes", len(modes), MOST_MODES)
    geometries = list(_inside(fixture.find("Geometries")))
    _few("geometries", len(geometries), MOST_GEOMETRIES)
    referred = Counter(one.get("Geometry") for one in geometries if one.tag == "GeometryReference")
    channels = functions = 0
    for channel in (one for mode in modes for one in mode.findall("DMXChannels/DMXChannel")):
        _channel(channel)
        times = 1 + referred[channel.get("Geometry")]
        channels += times
        functions += times * len(channel.findall("LogicalChannel/ChannelFunction"))
    _few("channels", channels, MOST_CHANNELS)
    _few("channel functions", functions, MOST_FUNCTIONS)
    return left_out


def _only_needed(fixture: Element) -> list[str]:
    told = []
    fixture[:] = [section for section in fixture if section.tag in NEEDED]
    for section in fixture.findall("PhysicalDescriptions"):
        section[:] = [part for part in section if part.tag in _PHYSICAL]
    for mode in fixture.findall("DMXModes/DMXMode"):
        for tag, what in (("Relations", "relations between channels"), ("FTMacros", "macros")):
            if count := sum(len(part) for part in mode.findall(tag)):
                told.append(f"{mode.get('Name', 'a mode')}: {what} are not followed ({count})")
        mode[:] = [part for part in mode if part.tag == "DMXChannels"]
    return told


def _channel(channel: Element) -> None:
    text = channel.get("Offset", "")
    offsets = [] if text in ("", "None") else text.split(",")
    if len(offsets) > 4 or not all(one.strip().isdecimal() and 1 <= int(one) <= LAST_OFFSET for one in offsets):
        raise _wrong(f"Offset {shown(text)} of a channel is not 1 to 4 numbers from 1 to {LAST_OFFSET}.")
    if channel.get("DMXBreak", "1") != "Overwrite":
        _whole(channel, "DMXBreak", 1, LAST_BREAK)
    size = len(offsets)
    for element in channel.iter():
        for name in _LEVELS.get(element.tag, ()):
            if (value := element.get(name)) is not None and value.lower() != "none":
                element.set(name, _level(value, size))
        if element.tag == "ChannelSet":
            _whole(element, "WheelSlotIndex", 0, 10_000)
        for name in ("ModeFrom", "ModeTo"):
            if name in element.attrib:
                _level(element.attrib[name], 0)


def _level(text: str, size: int) -> str:
    """A level at the resolution of its channel, `value/bytes`; size 0: at its own."""
    if not (found := _LEVEL.fullmatch(text.strip())):
        raise _wrong(f"{shown(text)} is no level; one is written as a number, a slash and its bytes, such as 255/1.")
    value, own = int(found[1]), int(found[2])
    if value >= 256**own:
        raise _wrong(f"Level {shown(text)} is more than {own} byte{'s' if own > 1 else ''} can hold.")
    size = size or own
    if own > size:
        return f"{value >> 8 * (own - size)}/{size}"
    if found[3]:
        return f"{value << 8 * (size - own)}/{size}"
    parts = value.to_bytes(own, "big")
    return f"{int.from_bytes((parts * size)[:size], 'big')}/{size}"


def _finite(element: Element, name: str) -> None:
    value = element.get(name)
    if value is None:
        return
    try:
        finite = math.isfinite(float(value))
    except ValueError:
        finite = False
    if not finite:
        raise _wrong(f"{name}={shown(value)} of {_called(element)} is no number.")


def _whole(element: Element, name: str, least: int, most: int) -> None:
    value = element.get(name)
    if value is None:
        return
    number = value.strip().rpartition(".")[2]  # an address may be written as universe.address
    if not number.isdecimal() or len(number) > 9 or not least <= int(number) <= most:
        raise _wrong(f"{name}={shown(value)} of {_called(element)} is not a number from {least} to {most}.")


def _matrix(element: Element) -> None:
    parts = [one for one in _MATRIX.split(element.attrib["Position"].replace(" ", "")) if one]
    try:
        good = parts == ["0"] or (len(parts) >= 12 and all(math.isfinite(float(one)) for one in parts))
    except ValueError:
        good = False
    if not good:
        raise _wrong(f"Position={shown(element.attrib['Position'])} of {_called(element)} is no matrix of numbers.")


def _inside(section: Element | None) -> Iterator[Element]:
    if section is not None:
        for child in section:
            yield from child.iter()


def _called(element: Element) -> str:
    return f"{element.tag} {shown(element.get('Name', ''))}"


def _few(what: str, count: int, most: int) -> None:
    if count > most:
        raise _wrong(f"It has {count:,} {what}; {most:,} are the most.")


def _wrong(text: str) -> ZarabandaError:
    return ZarabandaError(f"The fixture type cannot be read. {text} Ask its maker for another file.", "description.xml")
