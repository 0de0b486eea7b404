"""A scene, looked at before the library works on it: only what is read stays in it, and its numbers are numbers."""

from __future__ import annotations

import math
import re
from collections import Counter
from xml.etree.ElementTree import Element

from zarabanda.errors import ZarabandaError, shown

MOST_FIXTURES = 20_000
_HOLDS = ("GroupObject", "SceneObject", "Truss", "Support", "VideoScreen", "Projector")
"""What fixtures can hang on or lie in."""
_KEPT = {
    "Scene": {"Layers", "AUXData"}, "Layers": {"Layer"}, "AUXData": {"Class"}, "Class": set(), "Layer": {"Matrix", "ChildList"},
    "ChildList": {"Fixture", *_HOLDS}, "Addresses": {"Address"},
    "Fixture": {"Matrix", "Classing", "GDTFSpec", "GDTFMode", "Addresses", "FixtureID", "FixtureIDNumeric", "ChildList"},
} | {name: {"Matrix", "Classing", "ChildList"} for name in _HOLDS}  # fmt: skip
_COUNTED = {"SceneObject": "scene objects", "Truss": "trusses", "Support": "supports", "VideoScreen": "video screens",
            "Projector": "projectors", "FocusPoint": "points of focus", "Symdef": "drawings", "Position": "positions",
            "MappingDefinition": "mappings"}  # fmt: skip
_MATRIX = re.compile(r"[{},\s]+")
_ADDRESS = re.compile(r"\d{1,5}(\.\d{1,3})?|\d{1,8}")


def check(root: Element) -> tuple[Element, list[str]]:
    """The scene with nothing in it but what is read, and what was left out, in words. ZarabandaError says what is wrong."""
    scene = root.find("Scene")
    if scene is None:
        raise _wrong("There is no Scene in it.")
    left_out = Counter(element.tag for element in scene.iter() if element.tag in _COUNTED)
    fixtures = sum(1 for _ in scene.iter("Fixture"))
    if fixtures > MOST_FIXTURES:
        raise _wrong(f"It has {fixtures:,} fixtures; {MOST_FIXTURES:,} are the most.")
    open_ones = [scene]
    while open_ones:
        element = open_ones.pop()
        element[:] = [child for child in element if child.tag in _KEPT.get(element.tag, set())]
        open_ones += element
        _numbers(element)
    return scene, [f"{count:,} {_COUNTED[tag]} are not read" for tag, count in left_out.items()]


def _numbers(element: Element) -> None:
    text = (element.text or "").strip()
    if element.tag == "Matrix":
        parts = [one for one in _MATRIX.split(text) if one]
        try:
            good = len(parts) == 12 and all(math.isfinite(float(one)) and abs(float(one)) < 1e9 for one in parts)
        except ValueError:
            good = False
        if not good:
            raise _wrong(f"{shown(text)} is no matrix of 12 numbers.")
        element.text = "".join("{" + ",".join(parts[n : n + 3]) + "}" for n in range(0, 12, 3))
    elif element.tag == "FixtureIDNumeric":
        element.text = text if text.isdecimal() and len(text) < 8 else "0"
    elif element.tag == "Address":
        if not _ADDRESS.fullmatch(text):
            raise _wrong(f"{shown(text)} is no address, such as 513 or 2.1.")
        element.text = text
        number = element.get("break", "0")
        element.set("break", number if number.isdecimal() and len(number) < 4 else "0")


def _wrong(text: str) -> ZarabandaError:
    return ZarabandaError(f"The scene cannot be read. {text} Export it anew.", "GeneralSceneDescription.xml")
