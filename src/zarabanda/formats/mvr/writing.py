"""A rig as an .mvr file: a layer for each that is named, classes, and the types of its fixtures."""

from __future__ import annotations

import io
import uuid
import zipfile
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Any
from xml.etree.ElementTree import tostring

import pymvr
from pymvr.value import Matrix

from zarabanda import __version__
from zarabanda.core.rig import stage

from ..gdtf.writing import write as write_type
from ..rig_document import ModeDocument
from .reading import STANDS

_SPACE = uuid.UUID("c0a1f7de-2b7c-4d1d-9a55-71be0c63d912")
"""Of identifiers: the same show is the same file, byte for byte."""
_EARLIEST = (1980, 1, 1, 0, 0, 0)
Fields = Mapping[str, Any]
Medium = Callable[[str], bytes | None]


def write(show: str, fixtures: Sequence[Fields], modes: Mapping[str, ModeDocument], medium: Medium) -> bytes:
    """The file. fixtures: columns of each, `mode` by its name, `slot` its address; medium: what is in the media folder by its
    hash, None where it is not."""
    types = _Types(modes, {str(one["mode"]) for one in fixtures}, medium)
    layers, classes = pymvr.Layers(), dict[str, str]()
    for name in dict.fromkeys(str(one["layer"]) for one in fixtures):
        own = [_fixture(show, one, types, classes) for one in fixtures if one["layer"] == name]
        layers.append(pymvr.Layer(name=name, uuid=_id(show, "layer", name), child_list=pymvr.ChildList(fixtures=own)))
    aux = pymvr.AUXData(classes=[pymvr.Class(name=name, uuid=own) for name, own in classes.items()])
    writer = pymvr.GeneralSceneDescriptionWriter()
    writer.xml_root.set("provider", "Zarabanda")
    writer.xml_root.set("providerVersion", __version__)
    writer.serialize_scene(pymvr.Scene(layers=layers, aux_data=aux))
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w") as archive:
        _put(archive, "GeneralSceneDescription.xml", tostring(writer.xml_root, encoding="UTF-8", xml_declaration=True))
        for name, content in sorted(types.files.items()):
            _put(archive, name, content)
    return target.getvalue()


def _put(archive: zipfile.ZipFile, name: str, content: bytes) -> None:
    archive.writestr(zipfile.ZipInfo(name, _EARLIEST), content, zipfile.ZIP_DEFLATED)


def _id(*what: str) -> str:
    return str(uuid.uuid5(_SPACE, "/".join(what))).upper()


def _fixture(show: str, one: Fields, types: _Types, classes: dict[str, str]) -> Any:
    turn = stage.rotation(one["turn_x"], one["turn_y"], one["turn_z"]) @ STANDS
    rows = [[*axis.round(9).tolist(), 0] for axis in turn.T]
    place = [round(one[axis] * 1000, 3) for axis in "xyz"]
    file, mode = types.of[str(one["mode"])]
    addresses = [] if one["universe"] is None else [pymvr.Address(0, one["universe"], one["slot"])]
    class_name = str(one["class_name"])
    return pymvr.Fixture(
        name=one["name"], uuid=one["uuid"] or _id(show, "fixture", str(one["number"])), matrix=Matrix([*rows, [*place, 0]]),
        gdtf_spec=file, gdtf_mode=mode, fixture_id=str(one["number"]), fixture_id_numeric=one["number"], unit_number=0,
        addresses=pymvr.Addresses(addresses=addresses),
        classing=classes.setdefault(class_name, _id(show, "class", class_name)) if class_name else None,
    )  # fmt: skip


class _Types:
    """Types of fixtures. of: file and mode by the name of a mode; files: what is in each. Those that came from a file go out as
    they came; the others are written, all modes of a model in one."""

    def __init__(self, modes: Mapping[str, ModeDocument], used: Iterable[str], medium: Medium) -> None:
        self.of: dict[str, tuple[str, str]] = {}
        self.files: dict[str, bytes] = {}
        by_model: dict[tuple[str, str], list[ModeDocument]] = {}
        for name in sorted(used):
            mode = modes[name]
            content = medium(mode.gdtf) if mode.gdtf else None
            if content is None:
                by_model.setdefault((mode.maker, mode.model or mode.name), []).append(mode)
            else:
                self.of[name] = (self._named(mode, content), mode.gdtf_mode)
        for of_model in by_model.values():
            file = self._named(of_model[0], write_type(of_model, medium))
            self.of |= {mode.name: (file, mode.label) for mode in of_model}

    def _named(self, mode: ModeDocument, content: bytes) -> str:
        called = f"{mode.maker or 'Own'} {mode.model or mode.name}"[:80]
        plain = "".join(one if one.isascii() and (one.isalnum() or one in " -_") else "_" for one in called)
        n, name = 1, f"{plain.strip()}.gdtf"
        while self.files.get(name, content) != content:
            n += 1
            name = f"{plain.strip()} {n}.gdtf"
        self.files[name] = content
        return name
