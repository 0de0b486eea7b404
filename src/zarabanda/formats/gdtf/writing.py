"""Kinds as a .gdtf file, for those that are from none: modes of one model, each with its own geometries."""

from __future__ import annotations

import io
import uuid
import zipfile
from collections.abc import Callable, Sequence
from typing import Any
from xml.etree.ElementTree import tostring

import numpy as np
import pygdtf
from pygdtf.geometries import Geometries, GeometryAxis, GeometryBeam
from pygdtf.value import ColorCIE, DmxValue, Matrix, NodeLink, PhysicalValue, Resource

from zarabanda.core.colour.white import drives_to_chromaticity
from zarabanda.core.rig import attributes
from zarabanda.core.rig.curves import Point

from ..rig_document import ChannelPart, ModeDocument
from .words import EMITTERS, SHUTTER_OPEN, STANDARD, word

_SPACE = uuid.UUID("a7c3d1b2-6f0e-4b59-9d18-2f5c0a7e4411")
"""Of the identifiers of types: the same model has the same one."""
_EARLIEST = (1980, 1, 1, 0, 0, 0)
_FEATURES = {"pan": "Position.PanTilt", "tilt": "Position.PanTilt", "intensity": "Dimmer.Dimmer"}


def write(modes: Sequence[ModeDocument], picture: Callable[[str], bytes | None] = lambda digest: None) -> bytes:
    """The file. modes: one or more of one model; picture: that of a wheel's slot by its hash."""
    first = modes[0]
    model = first.model or first.name
    fixture = pygdtf.FixtureType()
    fixture.name = fixture.long_name = fixture.short_name = model
    fixture.manufacturer, fixture.description = first.maker, ""
    fixture.fixture_type_id = str(uuid.uuid5(_SPACE, f"{first.maker}/{model}")).upper()
    fixture.attributes = [_attribute(name) for name in _names(modes)]
    fixture.feature_groups = [
        pygdtf.FeatureGroup(name=group, features=[pygdtf.Feature(name=name)])
        for group, name in (("Position", "PanTilt"), ("Dimmer", "Dimmer"), ("Color", "Color"), ("Beam", "Beam"))
    ]
    files: dict[str, bytes] = {}
    trees = [_Mode(mode, n, fixture, files, picture) for n, mode in enumerate(modes, 1)]
    fixture.geometries = Geometries([one.root for one in trees])
    fixture.dmx_modes = pygdtf.DmxModes([one.written() for one in trees])
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as archive:
        text = b'<?xml version="1.0" encoding="UTF-8"?>\n' + tostring(fixture.to_xml(), encoding="utf-8")
        for name, content in {"description.xml": text, **files}.items():
            archive.writestr(zipfile.ZipInfo(name, _EARLIEST), content, zipfile.ZIP_DEFLATED)
    return target.getvalue()


def _names(modes: Sequence[ModeDocument]) -> list[str]:
    sources = {one.source for mode in modes for one in mode.channels}
    return ["NoFeature", *([SHUTTER_OPEN] if "strobe" in sources else []), *(STANDARD[one] for one in STANDARD if one in sources)]


def _attribute(name: str) -> Any:
    found = word(name)
    source = found.source if found else ""
    feature = _FEATURES.get(source, "Color.Color" if source in EMITTERS else "Beam.Beam")
    return pygdtf.Attribute(name=name, pretty=name, feature=NodeLink("FeatureGroups", feature))


class _Mode:
    """A mode with its geometries: a body, axes where it turns, and a light, or a light for each cell."""

    def __init__(
        self, mode: ModeDocument, number: int, fixture: Any, files: dict[str, bytes], picture: Callable[[str], bytes | None]
    ) -> None:
        self.mode, self.fixture, self.number, self.files, self.picture = mode, fixture, number, files, picture
        sources = {one.source for one in mode.channels}
        self.root = inner = pygdtf.Geometry(name=f"Body {number}", position=_at(0, 0, 0))
        self.places: dict[str, str] = {}
        for source, name in (("pan", "Yoke"), ("tilt", "Head")):
            if source in sources:
                axis = GeometryAxis(name=f"{name} {number}", position=_at(0, 0, 0))
                inner.geometries.append(axis)
                inner, self.places[source] = axis, axis.name
        self.places["inner"] = inner.name
        for n, place in enumerate(mode.cells or [(0.0, 0.0, 0.0)], 1):
            name = f"Cell {number}.{n}" if mode.cells else f"Light {number}"
            light = GeometryBeam(name=name, position=_at(*place), beam_angle=mode.beam_deg, field_angle=mode.beam_deg)
            inner.geometries.append(light)
            self.places[str(n) if mode.cells else "light"] = name

    def written(self) -> Any:
        """The mode, its channels by slot, those that nothing drives too."""
        used = {slot for one in self.mode.channels for slot in one.slots}
        rests = dict(self.mode.rests)
        idle = [self._idle(slot, rests.get(slot, 0)) for slot in range(self.mode.footprint) if slot not in used]
        channels = [self._channel(one) for one in self.mode.channels] + idle
        return pygdtf.DmxMode(
            name=self.mode.label, geometry=self.root.name,
            _dmx_channels=pygdtf.DmxChannels(sorted(channels, key=lambda one: one.offset[0])),
        )  # fmt: skip

    def _idle(self, slot: int, level: int) -> Any:
        return self._made([slot], self.root.name, "NoFeature", [_function("NoFeature", 0, 1, level, (0, 1))], level)

    def _made(self, slots: Sequence[int], geometry: str, attribute: str, functions: list[Any], default: int) -> Any:
        logical = pygdtf.LogicalChannel(attribute=NodeLink("Attributes", attribute), channel_functions=functions)
        return pygdtf.DmxChannel(
            offset=[slot + 1 for slot in slots],
            geometry=geometry,
            default=_level(default, len(slots)),
            logical_channels=[logical],
        )

    def _geometry(self, one: ChannelPart) -> str:
        if one.cell:
            return self.places[str(one.cell)]
        if one.source in self.places:
            return self.places[one.source]
        return self.places["light"] if "light" in self.places else self.places["inner"]

    def _channel(self, one: ChannelPart) -> Any:
        attribute, size, default = STANDARD[one.source], len(one.slots), self._default(one)
        make = self._wheel if one.source in ("gobo", "wheel") else self._strobe if one.source == "strobe" else self._straight
        return self._made(one.slots, self._geometry(one), attribute, make(one, attribute, size, default), default)

    def _points(self, one: ChannelPart) -> list[Point]:
        ends = (one.high, one.low) if one.inverted else (one.low, one.high)
        return [(value, level) for value, level in one.curve] or [(ends[0], 0), (ends[1], 256 ** len(one.slots) - 1)]

    def _default(self, one: ChannelPart) -> int:
        """The level of its value at home."""
        usual = attributes.BY_NAME[one.source].home if one.source in attributes.BY_NAME else 0.0
        home = self.mode.limits[one.source][2] if one.source in self.mode.limits else usual
        points = sorted(self._points(one))
        return round(float(np.interp(home, *np.array(points, float).T))) if one.source not in EMITTERS else 0

    def _straight(self, one: ChannelPart, attribute: str, size: int, default: int) -> list[Any]:
        points = sorted(self._points(one), key=lambda point: point[1])
        (low, first), (high, last) = points[0], points[-1]
        found = word(attribute)
        factor = found.factor if found else 1.0
        functions = [_function(attribute, first, size, default, (low / factor, high / factor), self._speed(one))]
        if first > 0:
            functions.insert(0, _function("NoFeature", 0, size, default, (0, 1)))
        if last < 256**size - 1:
            functions.append(_function("NoFeature", last + 1, size, default, (0, 1)))
        return functions

    def _speed(self, one: ChannelPart) -> float:
        per_second = {"pan": self.mode.pan_speed, "tilt": self.mode.tilt_speed}.get(one.source)
        return round(abs(one.high - one.low) / per_second, 6) if per_second else 0.0

    def _strobe(self, one: ChannelPart, attribute: str, size: int, default: int) -> list[Any]:
        points = sorted(self._points(one))
        if not one.curve or len(points) < 3 or points[1][1] <= points[0][1]:
            return [_function(attribute, 0, size, default, (points[0][0], points[-1][0]))]
        is_open = pygdtf.ChannelSet(name="Open", dmx_from=_level(0, size))
        first = _function(SHUTTER_OPEN, 0, size, default, (1, 1))
        first.channel_sets = [is_open]
        return [first, _function(attribute, points[1][1], size, default, (points[1][0], points[-1][0]))]

    def _wheel(self, one: ChannelPart, attribute: str, size: int, default: int) -> list[Any]:
        name = f"{attribute} {self.number}"
        slots = [(slot, drive, "") for slot, drive in self.mode.wheel] if one.source == "wheel" else self._gobos()
        wheel = pygdtf.Wheel(name=name)
        wheel.wheel_slots = [
            pygdtf.WheelSlot(name=slot, color=_cie(drive), media_file_name=Resource(self._file(picture), "png"))
            for slot, drive, picture in slots
        ]
        self.fixture.wheels.append(wheel)
        (low, first), (high, last) = sorted(self._points(one))[0], sorted(self._points(one))[-1]
        known = dict(self._points(one)) if one.curve else {}
        levels = [known.get(n, round(first + (n - low) / max(high - low, 1e-9) * (last - first))) for n in range(len(slots))]
        starts = sorted((max(level, 0), n) for n, level in enumerate(levels))
        function = _function(attribute, 0, size, default, (0, 1))
        function.wheel = NodeLink("WheelCollect", name)
        function.channel_sets = [
            pygdtf.ChannelSet(
                name=slots[n][0], wheel_slot_index=n + 1,
                dmx_from=_level((level + starts[k - 1][0] + 1) // 2 if k else 0, size),
            )
            for k, (level, n) in enumerate(starts)
        ]  # fmt: skip
        return [function]

    def _gobos(self) -> list[tuple[str, tuple[float, float, float], str]]:
        spec = self.mode.spec()
        return [(name, (1.0, 1.0, 1.0), picture) for name, picture in spec.gobo_slots]

    def _file(self, digest: str) -> str:
        content = self.picture(digest) if len(digest) == 64 else None
        if content is None:
            return ""
        self.files[f"wheels/{digest[:16]}.png"] = content
        return digest[:16]


def _function(attribute: str, first: int, size: int, default: int, ends: tuple[float, float], fade: float = 0.0) -> Any:
    return pygdtf.ChannelFunction(
        name=f"{attribute} {first}", attribute=NodeLink("Attributes", attribute), dmx_from=_level(first, size),
        default=_level(default, size), physical_from=PhysicalValue(ends[0]), physical_to=PhysicalValue(ends[1]), real_fade=fade,
    )  # fmt: skip


def _level(level: int, size: int) -> Any:
    return DmxValue(f"{level}/{size}")


def _at(x: float, y: float, z: float) -> Any:
    """A place beside the fixture, which hangs in the file."""
    return Matrix(f"{{1,0,0,{-x + 0.0:.6f}}}{{0,1,0,{y:.6f}}}{{0,0,1,{-z + 0.0:.6f}}}{{0,0,0,1}}")


def _cie(drive: tuple[float, float, float]) -> Any:
    x, y, luminance = drives_to_chromaticity(np.array(drive))
    return ColorCIE(round(x, 4), round(y, 4), round(luminance * 100, 2))
