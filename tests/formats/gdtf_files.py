"""GDTF files as the standard (DIN SPEC 15800) describes them, put together here by text and not by any writer of the program."""

import io
import zipfile
from xml.sax.saxutils import quoteattr

from PIL import Image


def _png():
    target = io.BytesIO()
    Image.new("L", (8, 8), 255).save(target, "PNG")
    return target.getvalue()


PNG = _png()
UNIT = "{1,0,0,%g}{0,1,0,%g}{0,0,1,%g}{0,0,0,1}"


def element(tag, *children, **attributes):
    words = "".join(f" {name}={quoteattr(str(value))}" for name, value in attributes.items())
    return f"<{tag}{words}>{''.join(children)}</{tag}>"


def function(attribute, start="0/1", low=0, high=1, *sets, default="0/1", **more):
    children = [element("ChannelSet", Name=name, DMXFrom=at, WheelSlotIndex=slot) for name, at, slot in sets]
    return element(
        "ChannelFunction", *children, Name=f"{attribute} {start}", Attribute=attribute, DMXFrom=start, PhysicalFrom=low,
        PhysicalTo=high, Default=default, **more,
    )  # fmt: skip


def channel(offset, geometry, *functions, attribute="", **more):
    logical = element("LogicalChannel", *functions, Attribute=attribute, Snap="No", Master="None")
    return element("DMXChannel", logical, DMXBreak=more.pop("dmx_break", 1), Offset=offset, Geometry=geometry, **more)


def fixture_type(*, modes, geometries, wheels="", emitters="", name="Lantern 7", maker="Corda & Söhne"):
    fixture = element(
        "FixtureType",
        element("AttributeDefinitions"), element("Wheels", wheels),
        element("PhysicalDescriptions", element("Emitters", emitters)),
        element("Geometries", geometries), element("DMXModes", *modes), element("Revisions"),
        Name=name, LongName=name, ShortName="L7", Manufacturer=maker, Description="Made up",
        FixtureTypeID="6E4B1C52-7C1D-4B0E-9E53-6C1C1E6C2F01",
    )  # fmt: skip
    return '<?xml version="1.0" encoding="UTF-8"?>' + element("GDTF", fixture, DataVersion="1.2")


def packed(description, files=()):
    """The file's bytes."""
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("description.xml", description)
        for name, content in dict(files).items():
            archive.writestr(name, content)
    return target.getvalue()


def spot():
    """A moving spot: 16 and 24 bit, a shutter that has to be opened, a wheel with pictures, colours by filters, two modes."""
    head = element("Beam", Name="Lens", Position=UNIT % (0, 0, -0.3), BeamAngle=18, ColorTemperature=3200)
    yoke = element(
        "Axis", element("Axis", head, Name="Head", Position=UNIT % (0, 0, -0.2)), Name="Yoke", Position=UNIT % (0, 0, -0.1)
    )
    wheel = element(
        "Wheel",
        element("Slot", Name="Open", Color="0.3127,0.3290,100"),
        element("Slot", Name="Reeds", MediaFileName="reeds"),
        element("Slot", Name="Pebbles", MediaFileName="missing"), Name="Wheel 1",
    )  # fmt: skip
    moves = [
        channel("1,2", "Yoke", function("Pan", "0/2", -270, 270, default="32768/2", RealFade=3)),
        channel("3,4,5", "Head", function("Tilt", "0/3", -125, 125, default="127/1", RealFade=2.5)),
        channel("6", "Head", function("Shutter1", "0/1", 0, 1, ("Closed", "0/1", 0), ("Open", "20/1", 0)),
                function("Shutter1Strobe", "60/1", 1, 20), function("Shutter1", "200/1", 1, 1)),
        channel("7", "Head", function("Dimmer", "0/1", 0, 1)),
        channel("8", "Head", function("Gobo1", "0/1", 0, 1, ("Open", "0/1", 1), ("Pebbles", "10/1", 3), ("Reeds", "20/1", 2),
                Wheel="Wheel 1"), function("Gobo1SelectSpin", "100/1", -60, 60)),
        channel("9", "Head", function("Zoom", "0/1", 44, 6, default="255/1")),
        channel("10", "Head", function("ColorSub_C")), channel("11", "Head", function("ColorSub_M")),
        channel("12", "Head", function("ColorSub_Y")),
        channel("13", "Head", function("Color1", "0/1", 0, 1)), channel("14", "Yoke", function("Control1"), Default="7/1"),
    ]  # fmt: skip
    small = [channel("1", "Head", function("Dimmer")), channel("2", "Yoke", function("Pan", "0/1", -270, 270))]
    modes = [
        element(
            "DMXMode",
            element("DMXChannels", *moves),
            element("Relations", element("Relation", Name="a")),
            Name="Full",
            Geometry="Base",
        ),
        element("DMXMode", element("DMXChannels", *small), Name="Small", Geometry="Base"),
    ]
    return fixture_type(modes=modes, geometries=element("Geometry", yoke, Name="Base", Position=UNIT % (0, 0, 0)), wheels=wheel)


def bar(count=4):
    """A bar of cells that refer to one geometry, with a level of the whole and emitters of measured colours."""
    cell = element("Beam", Name="Cell", Position=UNIT % (0, 0, 0), BeamAngle=9)
    places = [
        element("GeometryReference", element("Break", DMXOffset=1 + 4 * n, DMXBreak=1), Name=f"Cell {n + 1}", Geometry="Cell",
                Position=UNIT % (0.1 * n - 0.15, 0, -0.05))
        for n in range(count)
    ]  # fmt: skip
    body = element("Geometry", *places, Name="Body", Position=UNIT % (0, 0, 0))
    emitters = element("Emitter", Name="Red", Color="0.70,0.29,20", DominantWaveLength=625)
    colours = [function("ColorAdd_R", Emitter="Red"), *[function(f"ColorAdd_{one}") for one in "GBW"]]
    channels = [
        channel("1", "Body", function("Dimmer"), dmx_break=2),
        *[channel(str(n + 1), "Cell", one, dmx_break="Overwrite") for n, one in enumerate(colours)],
    ]
    modes = [element("DMXMode", element("DMXChannels", *channels), Name="Cells", Geometry="Body")]
    return fixture_type(modes=modes, geometries=body + cell, emitters=emitters, name="Reed Bar 4", maker="Corda")
