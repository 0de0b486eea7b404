"""Pixel maps of "Salt Light", and the pictures of the library: they fit walls, rows of battens and single bars alike."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.formats.pixel_document import CanvasDocument, LayerDocument, PixelMapDocument, StackDocument
from zarabanda.formats.pixel_edit import new_layer
from zarabanda.show import repositories

from .songs import BATTENS, WALL, Lights

_FIRE = ["#000000", "#7a0f00", "#ff5a00", "#ffd080"]
_TIDE = ["#02112e", "#0f6f8f", "#7ff0e0"]
_CORAL = ["#ff4f3a", "#ffb02e"]
_RAINBOW = ["#ff2020", "#ffe020", "#20ff60", "#20a0ff", "#a020ff", "#ff2020"]
_LAGOON = ["#18b8ff", "#1846ff", "#a04bff"]


def _layer(figure: str, stops: list[str], motion: str = "", **more: Any) -> dict[str, Any]:
    """A layer: its figure, colours and motion, then settings of the figure by name, those of other parts behind the part's name
    and two underscores (`motion__direction`, `finish__fold`), and what else a layer has (`speed`, `seconds`, `join`)."""
    document = new_layer(figure).model_dump(mode="json")
    document["colour"]["stops"] = stops
    if motion:
        document |= {"motion": motion, "motion_settings": {}}
    for name, value in more.items():
        part, _, field = name.partition("__")
        if field:
            document[{"motion": "motion_settings"}.get(part, part)][field] = value
        elif name == "speed":
            document["speed"] = {"kind": "tempo", "tempo": "Colour", "cycles_per_beat": value}
        elif name == "seconds":
            document["speed"] = {"kind": "time", "seconds_per_cycle": value}
        elif name in document:
            document[name] = value
        else:
            document["settings"][name] = value
    return document


PICTURES: Mapping[str, list[dict[str, Any]]] = {
    "Low flames": [_layer("flames", _FIRE, height=0.7, seconds=1.2)],
    "Bonfire": [_layer("flames", _FIRE, height=1.3, scale=0.22, coarseness=0.2, seconds=0.8)],
    "Slow haze": [_layer("haze", _TIDE, scale=0.45, seconds=6.0)],
    "Heather haze": [_layer("haze", ["#10041f", "#a04bff", "#ff3c9b"], scale=0.3, coarseness=0.8, seconds=4.0)],
    "Tide line": [_layer("bars", ["#000000", "#7ff0e0"], number=1, width=0.12, soft=1.0, tail=0.6, speed=0.25)],
    "Three tides": [_layer("bars", ["#000000", "#18b8ff", "#ffffff"], number=3, width=0.2, soft=0.9, tail=0.5, speed=0.25)],
    "Rain": [_layer("bars", ["#001020", "#9fdcff"], "travel", number=5, width=0.12, tail=0.4, direction=90.0,
                    motion__direction=90.0, speed=0.5)],
    "Rings from the middle": [_layer("rings", ["#18b8ff", "#ffffff"], number=3, width=0.35, soft=0.6, speed=0.5)],
    "Rings from the side": [_layer("rings", _LAGOON, number=4, across=0.0, width=0.4, soft=0.5, colour__over="place", speed=0.5,
                                   finish__fold="left to right")],
    "Fan of rays": [_layer("rays", _CORAL, number=8, down=1.0, width=0.4, soft=0.5, colour__over="place", speed=0.0625)],
    "Pinwheel": [_layer("rays", ["#ffb02e", "#ff3c9b"], number=3, width=0.5, soft=0.2, speed=0.25)],
    "Rainbow run": [_layer("slope", _RAINBOW, "travel", speed=0.125)],
    "Breathing": [_layer("even", ["#ff4f3a", "#401008"], colour__over="cycle", speed=0.25)],
    "Round the hues": [_layer("slope", ["#ff4020", "#ff20c0"], colour__hue_cycles=1.0, seconds=12.0)],
    "Checks": [_layer("squares", ["#ff4f3a", "#1846ff"], "travel", columns=8, rows=2, speed=0.125)],
    "Glints": [_layer("glints", ["#ffffff", "#ffe9b0"], density=0.25, speed=0.5)],
    "Salt crystals": [
        _layer("haze", ["#02061a", "#103a5a"], scale=0.5, seconds=8.0),
        _layer("glints", ["#ffffff", "#9fe8ff"], density=0.15, decay=0.8, seconds=1.5),
    ],
    "Gathering": [_layer("gathering", ["#ffb02e", "#ff4f3a"], pause=0.2, speed=0.125)],
    "Bouncing moons": [_layer("bodies", ["#ffe9b0", "#ff9a4f"], number=4, size=0.5, trail=0.3, seconds=3.0)],
    "Stars adrift": [_layer("bodies", ["#ffffff", "#9fdcff"], "drift", shape="stars", number=9, size=0.5, seconds=6.0)],
    "Hearts": [_layer("bodies", ["#ff3c9b", "#ff4f3a"], "bounce", shape="outlines", number=5, size=0.7, seconds=4.0)],
    "Letters: SALT": [_layer("letters", ["#fff2d8"], text="SALT LIGHT", speed=0.0625)],
    "Letters over tide": [
        _layer("haze", _TIDE, scale=0.4, seconds=5.0),
        _layer("letters", ["#ffffff"], text="LAS MAREAS", join="lighten", speed=0.0625),
    ],
    "Level": [_layer("level", ["#1f9f5a", "#ffd030", "#ff3020"], peaks=0.06, gain=1.2)],
    "Bands": [_layer("bands", ["#1846ff", "#18b8ff", "#ffffff"], number=16, peaks=0.06, gain=1.2)],
    "Curtain": [_layer("bars", ["#000000", "#ff4f3a"], "travel", number=2, width=0.5, soft=0.2, finish__fold="left to right",
                       speed=0.125)],
}  # fmt: skip
"""Ready pictures by name."""
WALL_MAP, BATTENS_MAP = "Salt wall", "Battens"


def add_pixels(session: Session, lights: Mapping[str, Lights]) -> None:
    """The library, a map of the wall and one of the battens, and a page with a dozen of their looks."""
    kept = {}
    for name, layers in PICTURES.items():
        document = StackDocument(layers=[LayerDocument.model_validate(one) for one in layers])
        kept[name] = repositories.pixels.keep(session, name, document).id
    wall = CanvasDocument(kind="stage", view="front", heads=lights[WALL].lit)
    battens = CanvasDocument(kind="stage", view="front", heads=lights[BATTENS].lit)
    own = [LayerDocument.model_validate(one) for one in (PICTURES["Low flames"][0], PICTURES["Rings from the side"][0])]
    on_wall = repositories.pixels.add(session, WALL_MAP, PixelMapDocument(canvas=wall, layers=own)).id
    row = [LayerDocument.model_validate(PICTURES["Tide line"][0])]
    on_battens = repositories.pixels.add(session, BATTENS_MAP, PixelMapDocument(canvas=battens, layers=row)).id
    page = repositories.pages.add(session, "Pixels").id
    faders = [(on_wall, "Slow haze"), (on_wall, "Low flames"), (on_wall, "Rings from the side"), (on_wall, "Glints"),
              (on_battens, "Tide line"), (on_battens, "Glints")]  # fmt: skip
    buttons = [(on_wall, "Letters: SALT"), (on_wall, "Bouncing moons"), (on_wall, "Bands"), (on_wall, "Checks"),
               (on_battens, "Rainbow run"), (on_battens, "Letters: SALT"), (on_battens, "Gathering")]  # fmt: skip
    for mode, places in (("fader", faders), ("latch", buttons)):
        for n, (number, name) in enumerate(places, 1):
            of = WALL_MAP if number == on_wall else BATTENS_MAP
            repositories.pages.add_control(
                session,
                page,
                place=n,
                name=f"{of}: {name}",
                mode=mode,
                target=targets.UsePixels(number, kept[name]),
                release_s=0.6,
            )
