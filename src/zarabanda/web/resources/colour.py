"""Colours: picked in many ways, read in all of them, what lights do for them, and the ways between two."""

from __future__ import annotations

import re
from functools import cache

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from numpy.typing import NDArray
from pydantic import BaseModel

from zarabanda.core.colour import ways
from zarabanda.core.colour.naming import in_words
from zarabanda.core.colour.readings import PICKERS, picked, read, told
from zarabanda.core.colour.spaces import SPACES, hex_to_rgb, rgb_to_hex
from zarabanda.core.explain.mixing import mixed
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError
from zarabanda.show import repositories
from zarabanda.show.tables import Show

from ..by_hand import set_by_hand, show
from ..context import browser_id, context
from ..parts import Done
from .colour_models import (
    ColourRead,
    ColourView,
    MixedView,
    PickerPart,
    PickerView,
    ReadColour,
    SeenWay,
    SetColour,
    ShowOnWay,
    ShowWay,
    WaysAsk,
    WaysView,
    WayView,
    WheelSlot,
)
from .selection import known_heads

api = APIBlueprint("colour", __name__, url_prefix="/api/colour", abp_tags=[Tag(name="colour")])
_HEX = re.compile(r"#?([0-9a-fA-F]{6})")
_STRIP = 49
_RGB = attributes.COMPOUND["colour"]


class PickersView(BaseModel):
    """All ways to pick a colour."""

    pickers: list[PickerView]


@api.get("/pickers", responses={200: PickersView})
def get_pickers() -> PickersView:
    """Ways to pick a colour, with their numbers."""
    return PickersView(
        pickers=[
            PickerView(name=name, label=one.label, parts=[PickerPart(**vars(part)) for part in one.parts])
            for name, one in PICKERS.items()
        ]
    )


def _rgb(body: ColourRead) -> NDArray[np.float64]:
    """Drives (3,) of what was picked."""
    if (body.hex is None) == (body.picker is None):
        raise ZarabandaError("Give one of hex and picker: a colour as #rrggbb, or a picker's name with its numbers.", "hex")
    if body.hex is not None:
        match = _HEX.fullmatch(body.hex.strip())
        if match is None:
            raise ZarabandaError(f"{body.hex.strip()!r} is no colour: give six digits of 0–9 and a–f, such as #ff8000.", "hex")
        return np.array(hex_to_rgb(f"#{match[1]}"))
    if body.picker not in PICKERS:
        raise ZarabandaError(f"There is no picker {body.picker}; use one of {', '.join(PICKERS)}.", "picker")
    try:
        return picked(body.picker, body.numbers)
    except ValueError as error:
        raise ZarabandaError(f"{error}.", "numbers") from error


def _view(body: ColourRead, rgb: NDArray[np.float64], heads: list[str]) -> ColourView:
    """A colour; the numbers that it was picked with stay as they are, also where another picker's would be the same colour."""
    given = {body.picker: list(body.numbers)} if body.picker else {}
    link = context().link
    return ColourView(
        hex=rgb_to_hex(rgb), words=in_words(rgb), numbers=read(rgb) | given,
        lights=[
            MixedView(
                model=one.model, heads=one.heads, words=one.words, exact=one.exact,
                slots=[WheelSlot(name=name, hex=rgb_to_hex(np.array(colour))) for name, colour in one.slots],
            )
            for one in mixed(link.rig, link.fixtures, heads, rgb)
        ],
    )  # fmt: skip


@api.post("/read", responses={200: ColourView})
def read_colour(body: ReadColour) -> ColourView:
    """A colour in every picker's numbers, and what lights do for it."""
    return _view(body, _rgb(body), body.heads)


@api.post("/set", responses={200: ColourView})
def set_colour(body: SetColour) -> ColourView:
    """Set a colour on heads that mix them, or have a wheel of them."""
    rgb, rig = _rgb(body), context().link.rig
    able = [key for key in known_heads(body.heads) if rig.mixes[rig.heads.index[key]]]
    if not able:
        raise ZarabandaError("None of the selected heads makes colours. Select others.", "heads")

    drives = dict(zip(_RGB, rgb.tolist(), strict=True))
    wanted = {name: dict.fromkeys(able, round(drive, 5)) for name, drive in drives.items()}
    set_by_hand(lambda drafted: wanted, "Set colour", preview=body.preview, fade_s=body.fade_s)
    return _view(body, rgb, able)


@cache
def _way(space: str, start: str, end: str) -> WayView:
    ends = np.array(hex_to_rgb(start)), np.array(hex_to_rgb(end))
    adds, filters = (_seen(ways.seen(space, *ends, subtractive=one)) for one in (False, True))
    return WayView(name=space, label=ways.LABELS[space], adds=adds, filters=filters)


def _seen(way: ways.Seen) -> SeenWay:
    shares = np.linspace(0, len(way.colours) - 1, _STRIP).round().astype(int)
    strip, middle = [rgb_to_hex(one) for one in way.colours[shares]], told(way.colours[len(way.colours) // 2])
    return SeenWay(strip=strip, middle=middle, passes=list(way.passes), dip=round(way.dip, 1))


@api.post("/ways", responses={200: WaysView})
def get_ways(body: WaysAsk) -> WaysView:
    """Ways between two colours, in every space; way: the show's."""
    with context().store.reading() as session:
        show = session.get(Show, 1)
        way = show.settings.get("way", "rgb") if show else "rgb"
    return WaysView(ways=[_way(name, body.start.lower(), body.end.lower()) for name in SPACES], way=way)


def _known(way: str) -> str:
    if way not in SPACES:
        raise ZarabandaError(f"There is no way of colours {way}; use one of {', '.join(SPACES)}.", "way")
    return way


@api.post("/show-on-way", responses={200: Done})
def show_on_way(body: ShowOnWay) -> Done:
    """Show heads on ways between two colours, as long as it is looked at: nothing is kept."""
    start, end = np.array(hex_to_rgb(body.start)), np.array(hex_to_rgb(body.end))

    wanted: dict[str, dict[str, float]] = {name: {} for name in _RGB}
    for one in body.on:
        rgb = ways.along(_known(one.way), start, end, np.array([body.share]))[0]
        heads = known_heads(one.heads)
        for name, drive in zip(_RGB, rgb.tolist(), strict=True):
            wanted[name] |= dict.fromkeys(heads, drive)
    show(lambda drafted: wanted)
    return Done(done="Shown")


@api.post("/look-away", responses={200: Done})
def look_away() -> Done:
    """End what is only looked at."""
    show()
    return Done(done="As it was")


@api.put("/way", responses={200: Done})
def set_way(body: ShowWay) -> Done:
    """The way that colours go, where neither a palette nor what plays it says otherwise."""
    with context().store.edit(browser_id(), "Set the way of colours") as session:
        show = repositories.rows.get(session, Show, 1, "show")
        show.settings = {**show.settings, "way": _known(body.way)}
    return Done(done=f"Colours go {ways.LABELS[body.way]}")
