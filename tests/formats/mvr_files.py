"""MVR files as the standard (DIN SPEC 15801) describes them, put together here by text and not by any writer of the program."""

import io
import zipfile

from tests.formats import gdtf_files
from tests.formats.gdtf_files import element

HANGS = "{1,0,0}{0,1,0}{0,0,1}{%g,%g,%g}"
STANDS = "{-1,0,0}{0,1,0}{0,0,-1}{%g,%g,%g}"
CLASS = "3F1A7C9E-0000-4000-8000-00000000C1A5"


def uuid(n):
    return f"7B2F0D11-0000-4000-8000-{n:012d}"


def light(
    n,
    *,
    at=(0, 0, 5000),
    matrix=HANGS,
    number=None,
    address=None,
    name="Lantern",
    spec="Corda@Lantern 7.gdtf",
    mode="Full",
    **more,
):
    parts = [element("Matrix", matrix % at), element("GDTFSpec", spec), element("GDTFMode", mode)]
    if number is not None:
        parts.append(element("FixtureID", str(number)))
    if address is not None:
        parts.append(element("Addresses", element("Address", str(address), break_="0").replace("break_", "break")))
    if more.get("class_"):
        parts.append(element("Classing", more["class_"]))
    parts += more.get("parts", [])
    return element("Fixture", *parts, name=name, uuid=uuid(n))


def layer(name, *children, matrix=""):
    held = [element("Matrix", matrix)] if matrix else []
    return element("Layer", *held, element("ChildList", *children), name=name, uuid=uuid(5000 + len(name)))


def scene(*layers, aux=""):
    aux = element("AUXData", element("Class", name="Floor package", uuid=CLASS), aux)
    body = element("Scene", aux, element("Layers", *layers))
    return '<?xml version="1.0" encoding="UTF-8"?>' + element("GeneralSceneDescription", body, verMajor="1", verMinor="6")


def packed(text, types=None):
    """The file's bytes, with fixture types by their names."""
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("GeneralSceneDescription.xml", text)
        for name, content in (TYPES if types is None else types).items():
            archive.writestr(name, content)
    return target.getvalue()


TYPES = {"Corda@Lantern 7.gdtf": gdtf_files.packed(gdtf_files.spot(), {"wheels/reeds.png": gdtf_files.PNG})}
