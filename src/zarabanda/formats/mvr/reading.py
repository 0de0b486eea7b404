"""An .mvr file: its zip and its scene checked, read by the library, made into fixtures; the types in it as kinds.

MVR hangs a fixture as GDTF does, in millimetres; here it stands, in metres: half a turn about y between them.
"""

from __future__ import annotations

import zipfile
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import IO, Any

import numpy as np
import pymvr
from numpy.typing import NDArray

from zarabanda.core.rig import stage
from zarabanda.errors import ZarabandaError, brief

from .. import archives, checked_xml
from ..gdtf.reading import ReadType
from ..gdtf.reading import read as read_type
from .checking import check

MOST_BYTES, LARGEST_TYPE, MOST_TYPES = 1 << 30, 64 << 20, 500
"""Unpacked; of a fixture type in it; and how many of these."""
LAST_NUMBER = 99_999
_SCENE = "GeneralSceneDescription.xml"
_LISTS = ("group_objects", "scene_objects", "trusses", "supports", "video_screens", "projectors")
STANDS = stage.rotation(0, 180, 0)
Progress = Callable[[float], None]
Place = tuple[float, float, float]


@dataclass
class SceneFixture:
    """A fixture of a scene. number: None where it has none that can be used; type and mode: by the names in the file."""

    uuid: str
    name: str
    number: int | None
    place: Place
    rotation: Place
    universe: int | None
    address: int | None
    layer: str
    class_name: str
    type: str
    mode: str


@dataclass
class ReadScene:
    """A scene. types: by the names of their files, as read, or why they cannot be; notes: what is not read, in words."""

    fixtures: list[SceneFixture] = field(default_factory=list)
    types: dict[str, ReadType | str] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)


def read(source: Path | IO[bytes], progress: Progress = lambda share: None) -> ReadScene:
    """Read a scene. progress: told 0…1, may raise to stop. ZarabandaError says what is wrong, where, and what to do."""
    with archives.opened(source, called="MVR file", remedy="Export it anew.") as archive:
        archives.check(archive, MOST_BYTES)
        if _SCENE not in archive.namelist():
            raise ZarabandaError(f"There is no {_SCENE} in this file: it is no MVR file.", "file")
        text = archives.content(archive, _SCENE, checked_xml.MOST_BYTES).rstrip(b"\0")
        element, notes = check(checked_xml.read(text, "GeneralSceneDescription", _SCENE))
        progress(0.1)
        found = ReadScene(notes=notes)
        scene = _by_library(element)
        classes = {one.uuid: one.name or "" for one in scene.aux_data.classes} if scene.aux_data else {}
        for layer in scene.layers:
            found.fixtures += _inside(layer.child_list, _matrix(layer), _words(layer.name, 80), classes)
        progress(0.2)
        _types(archive, found, lambda share: progress(0.2 + 0.8 * share))
    if not found.fixtures:
        raise ZarabandaError("There is no fixture in this scene. Export it with its fixtures.", _SCENE)
    return found


def _by_library(element: Any) -> Any:
    try:
        return pymvr.Scene(xml_node=element)
    except Exception as error:  # whatever a scene that is none makes the library raise
        reason = brief(f"{type(error).__name__}: {error}")
        raise ZarabandaError(f"The scene cannot be read ({reason}). Export it anew.", _SCENE) from error


def _matrix(one: Any) -> NDArray[np.float64]:
    found = np.array(one.matrix.matrix, float)
    found[3, 3] = 1
    return found


def _inside(children: Any, at: NDArray[np.float64], layer: str, classes: dict[str, str]) -> Iterator[SceneFixture]:
    """All fixtures below, those in what is inside what too. at: rows are axes and place, so that points are rows as well."""
    if children is None:
        return
    for one in children.fixtures:
        own = _matrix(one) @ at
        if not one.multipatch:
            yield _fixture(one, own, layer, classes)
        yield from _inside(one.child_list, own, layer, classes)
    for name in _LISTS:
        for one in getattr(children, name):
            yield from _inside(one.child_list, _matrix(one) @ at, layer, classes)


def _fixture(one: Any, at: NDArray[np.float64], layer: str, classes: dict[str, str]) -> SceneFixture:
    x, y, z = (at[3, :3] / 1000).round(4).tolist()
    addresses = sorted(one.addresses.addresses, key=lambda each: each.dmx_break)
    universe, address = (addresses[0].universe, addresses[0].address) if addresses else (None, None)
    return SceneFixture(
        _words(one.uuid, 36), _words(one.name, 120), _number(one), (x + 0.0, y + 0.0, z + 0.0), _rotation(at[:3, :3]), universe,
        address, layer, _words(classes.get(one.classing or "", ""), 80), _words(_spec(one.gdtf_spec), 200),
        _words(one.gdtf_mode, 120),
    )  # fmt: skip


def _rotation(axes: NDArray[np.float64]) -> Place:
    """Turns in degrees. axes: a row for each; what is scaled or mirrored by them is not."""
    left, _, right = np.linalg.svd(axes.T)
    turn = left @ np.diag([1, 1, float(np.sign(np.linalg.det(left @ right)))]) @ right
    x, y, z = (round(one, 3) + 0.0 for one in stage.angles(turn @ STANDS))
    return x, y, z


def _number(one: Any) -> int | None:
    text = (one.fixture_id or "").strip()
    for number in (one.fixture_id_numeric or 0, int(text) if text.isdecimal() and len(text) < 8 else 0):
        if 1 <= number <= LAST_NUMBER:
            return int(number)
    return None


def _spec(name: str | None) -> str:
    """The name of a type's file; the library reads it in the letters of old zips."""
    try:
        return (name or "").encode("cp437").decode("utf-8")
    except UnicodeError:
        return name or ""


def _types(archive: zipfile.ZipFile, found: ReadScene, progress: Progress) -> None:
    names = {one.filename.lower(): one.filename for one in archive.infolist()}
    wanted = sorted({one.type for one in found.fixtures if one.type})
    if len(wanted) > MOST_TYPES:
        raise ZarabandaError(f"This scene has {len(wanted):,} types of fixtures; {MOST_TYPES} are the most.", _SCENE)
    for n, name in enumerate(wanted):
        progress(n / len(wanted))
        inside = names.get(name.lower()) or names.get(f"{name}.gdtf".lower())
        if inside is None:
            found.types[name] = "it is not in the file"
            continue
        try:
            found.types[name] = read_type(archives.content(archive, inside, LARGEST_TYPE))
        except ZarabandaError as error:
            found.types[name] = error.message
    progress(1.0)


def _words(text: str | None, most: int) -> str:
    return brief(" ".join((text or "").split()), most)
