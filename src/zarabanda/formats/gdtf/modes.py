"""A mode of a fixture type as a mode document, and what of it could not be used."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from zarabanda.core.colour.white import chromaticity_to_drives, white
from zarabanda.core.rig import attributes
from zarabanda.core.rig.modes import EMITTERS, emitters_for

from ..rig_document import ModeDocument
from .cells import Geometry, cells_of, geometries_of
from .channels import MOST_BYTES, Channel, Driven
from .words import EMITTERS as OF_EMITTERS

RGB = tuple[float, float, float]
_USUAL_BEAM_DEG = 20.0
_LONGEST = 60


@dataclass
class ReadMode:
    """A mode that was read. name: what the file calls it; left_out: what of it is not driven, each as a line."""

    name: str
    document: ModeDocument
    left_out: list[str] = field(default_factory=list)


def read_mode(fixture: Any, mode: Mode, pictures: Callable[[str], str]) -> ReadMode:
    """A mode. pictures: the SHA-256 of a wheel's picture by the name of its file, "" where there is none."""
    return _Reading(fixture, mode, pictures).done()


@dataclass
class Mode:
    """A mode of a file: its name, the geometry it begins with, and its channels as the library gives them, one by one.

    The library's own modes follow references, but forget which of them a channel belongs to.
    """

    name: str
    geometry: str
    channels: list[Any]


class _Reading:
    def __init__(self, fixture: Any, mode: Mode, pictures: Callable[[str], str]) -> None:
        self.fixture, self.mode, self.picture = fixture, mode, pictures
        self.wheels = {str(one.name): one for one in fixture.wheels}
        self.geometries = geometries_of(fixture, mode.geometry)
        self.channels = _in_a_row(mode.channels, self.geometries)
        self.told: list[str] = []
        sources: dict[str, set[str]] = {}
        for one in self.channels:
            sources.setdefault(one.geometry, set()).update(one.words)
        self.cells = cells_of(sources, self.geometries)
        self.told += self.cells.notes
        known = self.geometries.keys() | {one.refers for one in self.geometries.values()}
        self.told += [f"{one.name}: its geometry is not in this mode" for one in mode.channels if str(one.geometry) not in known]

    def done(self) -> ReadMode:
        driven = self._driven()
        rests = self._rests(driven)
        footprint = 1 + max((slot for one in self.channels for slot in one.slots), default=0)
        sources = {one.source for _, _, one in driven}
        emitters = emitters_for(sources)
        document = ModeDocument.model_validate(
            {
                "name": _called(self.fixture, self.mode), "model": _model(self.fixture),
                "maker": _text(self.fixture.manufacturer),
                "kind": self._kind(sources), "emitters": emitters, "footprint": footprint,
                "channels": [
                    {"source": one.source, "slots": channel.used, "low": one.low, "high": one.high, "cell": cell,
                     "curve": one.curve}
                    for channel, cell, one in driven
                ],
                "limits": self._limits(driven, emitters),
                "cells": self.cells.places, "beam_deg": self._beam_deg(), "light": self._light(), "rests": rests,
                **self._speeds(driven), **self._wheels(driven),
                "emitter_colours": self._emitter_colours(driven), "left_out": self.told[:200], "gdtf_mode": _text(self.mode.name),
            }
        )  # fmt: skip
        return ReadMode(self.mode.name, document, self.told)

    def _driven(self) -> list[tuple[Channel, int, Driven]]:
        """Channels that something drives: each attribute of a head once, colours by one system."""
        cell_of = self.cells.by_geometry(self.geometries)
        wanted = [(channel, cell_of[channel.geometry]) for channel in self.channels]
        every = {source for channel, _ in wanted for source in channel.words}
        system = set(EMITTERS[emitters_for(every & OF_EMITTERS - ({"wheel"} if every & OF_EMITTERS - {"wheel"} else set()))])
        found: list[tuple[Channel, int, Driven]] = []
        taken: set[tuple[str, int]] = set()
        for channel, cell in wanted:
            why = "it has no part in what this program drives"
            for source in channel.words:
                if (source, cell) in taken:
                    why = f"another channel is its {source.replace('_', ' ')}"
                elif source in OF_EMITTERS and source not in system:
                    why = "its colour is made by other channels"
                elif isinstance(one := channel.driven(source, self.wheels), str):
                    why = one
                else:
                    taken.add((source, cell))
                    found.append((channel, cell, one))
                    self._parts_left(channel, one)
                    break
            else:
                if channel.spans and channel.spans[0].attribute != "NoFeature":
                    self.told.append(f"{channel.called}: {why}; it stays at {channel.rest}")
        return found

    def _parts_left(self, channel: Channel, one: Driven) -> None:
        others = [f"{span.attribute} {span.first}–{span.last}" for span in channel.spans if span is not one.span]
        if others and one.source != "strobe":
            self.told.append(f"{channel.called}: not used of it: {', '.join(others[:6])}")
        if len(channel.slots) > MOST_BYTES:
            self.told.append(f"{channel.called}: 24 of its {8 * len(channel.slots)} bits are used")

    def _rests(self, driven: Sequence[tuple[Channel, int, Driven]]) -> list[tuple[int, int]]:
        used = {slot for channel, _, _ in driven for slot in channel.used}
        rests = {slot: byte for channel in self.channels for slot, byte in channel.bytes_of(channel.rest)}
        return [(slot, byte) for slot, byte in sorted(rests.items()) if byte and slot not in used]

    def _limits(self, driven: Sequence[tuple[Channel, int, Driven]], emitters: str) -> dict[str, tuple[float, float, float]]:
        of_whites = _WARM_COLD if emitters == "warm-cold" else {}
        own = [one for _, _, one in driven if one.source in attributes.BY_NAME and one.source not in _AT_HOME]
        return of_whites | {one.source: (min(one.low, one.high), max(one.low, one.high), one.home) for one in own}

    def _kind(self, sources: set[str]) -> str:
        """What it is, by what it can do."""
        for kind, needed in _KINDS:
            if needed <= sources:
                return kind if kind != "wash" or self._beam_deg() > 7 else "beam"
        rows = {place[1] for place in self.cells.places}
        if len(self.cells.names) > 1:
            return "blinder" if not sources & OF_EMITTERS else "wall" if len(rows) > 2 else "batten"
        return "par" if sources & OF_EMITTERS or "zoom" not in sources else "profile"

    def _beam_deg(self) -> float:
        angles = [float(one.beam.beam_angle) for one in self.geometries.values() if one.beam is not None]
        return angles[0] if angles and 0 < angles[0] < 180 else _USUAL_BEAM_DEG

    def _light(self) -> RGB:
        kelvin = [float(one.beam.color_temperature) for one in self.geometries.values() if one.beam is not None]
        if not kelvin or not 1800 <= kelvin[0] <= 12_000:
            return (1.0, 1.0, 1.0)
        red, green, blue = white(np.array([kelvin[0]]), np.zeros(1))[0].round(4).tolist()
        return red, green, blue

    def _speeds(self, driven: Sequence[tuple[Channel, int, Driven]]) -> dict[str, float]:
        found = {}
        for _, _, one in driven:
            if one.source in ("pan", "tilt") and (seconds := float(one.span.function.real_fade)) > 0:
                found[f"{one.source}_speed"] = round(min(max(abs(one.high - one.low) / seconds, 1.0), 3600.0), 3)
        return found

    def _wheels(self, driven: Sequence[tuple[Channel, int, Driven]]) -> dict[str, Any]:
        found: dict[str, Any] = {}
        for _, _, one in driven:
            wheel = self.wheels.get(str(one.span.function.wheel))
            if one.source == "gobo" and wheel is not None:
                found["gobos"] = _apart([name for name, _ in one.slots])
                files = [str(wheel.wheel_slots[number - 1].media_file_name.name or "") for _, number in one.slots]
                found["gobo_pictures"] = [self.picture(file) for file in files]
            elif one.source == "wheel" and wheel is not None:
                names = _apart([name for name, _ in one.slots])
                colours = [_drive(wheel.wheel_slots[number - 1].color) for _, number in one.slots]
                found["wheel"] = list(zip(names, colours, strict=True))
        return found

    def _emitter_colours(self, driven: Sequence[tuple[Channel, int, Driven]]) -> dict[str, RGB]:
        known = {str(one.name): one for one in self.fixture.emitters}
        found = {}
        for _, _, one in driven:
            emitter = known.get(str(one.span.function.emitter))
            if one.source in OF_EMITTERS and emitter is not None:
                found[one.source] = _drive(emitter.color)
        return found


_WARM_COLD = {"temperature": (2700.0, 6500.0, 4000.0)}
"""Of lights that mix white of two whites, which files say nothing of."""
_AT_HOME = ("intensity", "red", "green", "blue", "hue", "saturation")
"""Attributes that have their usual range and home, whatever a file says."""
_KINDS: Sequence[tuple[str, set[str]]] = (
    ("spot", {"pan", "tilt", "gobo"}), ("wash", {"pan", "tilt"}), ("bar", {"tilt"}), ("haze", {"haze"}), ("fan", {"fan_speed"}),
)  # fmt: skip


def _in_a_row(raw: Sequence[Any], geometries: Mapping[str, Geometry]) -> list[Channel]:
    """Channels by slot, once for each geometry that has them; where a fixture takes several addresses, one after another."""
    breaks: dict[int, list[tuple[list[int], Any, str]]] = {}
    of_geometry: dict[str, list[Any]] = {}
    for one in raw:
        if one.offset:
            of_geometry.setdefault(str(one.geometry), []).append(one)
    for geometry in geometries.values():
        for one in of_geometry.get(geometry.refers or geometry.name, ()):
            address, first = geometry.address(one.dmx_break)
            breaks.setdefault(address, []).append(([first - 1 + offset for offset in one.offset], one, geometry.name))
    found, before = [], 0
    for number in sorted(breaks):
        rows = sorted(breaks[number], key=lambda row: row[0])
        found += [Channel(one, geometry, [before + offset - 1 for offset in offsets]) for offsets, one, geometry in rows]
        before += max(max(offsets) for offsets, _, _ in rows)
    return found


def _drive(color: Any) -> RGB:
    """The drives of a colour in CIE xyY, at full."""
    if not color.y or color.y <= 0:
        return (1.0, 1.0, 1.0)
    drives = chromaticity_to_drives(np.array(color.x), np.array(color.y))
    red, green, blue = (drives / max(drives.max(), 1e-6)).clip(0, 1).round(4).tolist()
    return red, green, blue


def _apart(names: Sequence[str]) -> list[str]:
    """Names of slots; those that are there already get their number."""
    found: list[str] = []
    for n, name in enumerate(names, 1):
        short = " ".join(name.split())[:_LONGEST] or f"slot {n}"
        found.append(short if short not in found else f"{short} {n}")
    return found


def _text(text: str | None) -> str:
    return " ".join((text or "").split())[:_LONGEST]


def _model(fixture: Any) -> str:
    return _text(fixture.long_name or fixture.name) or "A light without a name"


def _called(fixture: Any, mode: Mode) -> str:
    return f"{_model(fixture)}, {' '.join((mode.name or 'mode').split())[:50]}"
