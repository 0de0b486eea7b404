"""A .gdtf file: its zip and its description checked, read by the library, made into kinds."""

from __future__ import annotations

import hashlib
import io
import warnings
import zipfile
from dataclasses import dataclass, field
from typing import Any
from xml.etree.ElementTree import Element, tostring

import pygdtf
from pydantic import ValidationError

from zarabanda.errors import ZarabandaError, brief

from .. import archives, checked_xml
from .checking import check
from .modes import Mode, ReadMode, read_mode

MOST_BYTES, LARGEST_PICTURE = 256 << 20, 8 << 20
"""Unpacked, and of a wheel's picture."""
_DESCRIPTION = "description.xml"
_ENDINGS = (".png", ".jpg", ".jpeg", "")


@dataclass
class ReadType:
    """A fixture type. faults: modes that could not be read, and why; pictures: of wheels, by their SHA-256; content:
    the file."""

    maker: str
    model: str
    description: str
    modes: list[ReadMode] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)
    pictures: dict[str, bytes] = field(default_factory=dict)
    content: bytes = b""


def read(content: bytes) -> ReadType:
    """Read a fixture type, all of its modes. ZarabandaError says what is wrong, where, and what to do."""
    with archives.opened(io.BytesIO(content), called="GDTF file", remedy="Take another copy of it.") as archive:
        archives.check(archive, MOST_BYTES)
        if _DESCRIPTION not in archive.namelist():
            raise ZarabandaError(f"There is no {_DESCRIPTION} in this file: it is no GDTF file.", "file")
        root = checked_xml.read(archives.content(archive, _DESCRIPTION, checked_xml.MOST_BYTES), "GDTF", _DESCRIPTION)
        left_out = check(root)
        fixture, modes = _by_library(root)
        pictures = _Pictures(archive)
        found = ReadType(_words(fixture.manufacturer), _words(fixture.long_name or fixture.name), _words(fixture.description))
        found.content = content
        for mode in modes:
            try:
                found.modes.append(read_mode(fixture, mode, pictures.hash_of))
            except (ValidationError, ZarabandaError) as error:
                text = error.errors(include_url=False)[0]["msg"] if isinstance(error, ValidationError) else error.message
                found.faults.append(f"Mode “{_words(mode.name)}” cannot be used: {brief(text)}.")
        found.left_out, found.pictures = left_out, pictures.found
    if not found.modes:
        raise ZarabandaError(f"No mode of this fixture type can be used. {found.faults[0]}", _DESCRIPTION)
    return found


def _by_library(root: Element) -> tuple[Any, list[Mode]]:
    """The type, and its modes. Takes the modes out of the description."""
    fixture = root.find("FixtureType")
    assert fixture is not None
    found = fixture.findall("DMXModes/DMXMode")
    fixture[:] = [section for section in fixture if section.tag != "DMXModes"]
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            read_type = pygdtf.FixtureType(dsc_file=io.BytesIO(tostring(root)))
            first = str(read_type.geometries[0].name) if read_type.geometries else ""
            return read_type, [
                Mode(
                    one.get("Name", ""), one.get("Geometry", first),
                    [pygdtf.DmxChannel(xml_node=channel) for channel in one.findall("DMXChannels/DMXChannel")],
                )
                for one in found
            ]  # fmt: skip
    except Exception as error:  # whatever a description that is none makes the library raise
        reason = brief(f"{type(error).__name__}: {error}")
        raise ZarabandaError(
            f"The fixture type cannot be read ({reason}). Ask its maker for another file.", _DESCRIPTION
        ) from error


class _Pictures:
    """Pictures of wheels, which lie in `wheels/` of the archive by their names."""

    def __init__(self, archive: zipfile.ZipFile) -> None:
        self._archive = archive
        self._names = {one.filename.lower(): one.filename for one in archive.infolist()}
        self._known: dict[str, str] = {}
        self.found: dict[str, bytes] = {}

    def hash_of(self, file: str) -> str:
        """The SHA-256 of the picture of this name, "" where there is none."""
        if file not in self._known:
            names = [self._names.get(f"wheels/{file}{ending}".lower()) for ending in _ENDINGS]
            name = next((one for one in names if file and one), None)
            self._known[file] = self._kept(name) if name else ""
        return self._known[file]

    def _kept(self, name: str) -> str:
        if self._archive.getinfo(name).file_size > LARGEST_PICTURE:
            return ""
        content = archives.content(self._archive, name, LARGEST_PICTURE)
        digest = hashlib.sha256(content).hexdigest()
        self.found[digest] = content
        return digest


def _words(text: str | None) -> str:
    return brief(" ".join((text or "").split()), 120)
