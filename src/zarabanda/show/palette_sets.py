"""Sets of palettes, made in one go: colours evenly chosen for the eye, positions from where lights stand, and beams."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from sqlalchemy.orm import Session

from zarabanda.core.colour.sets import even_colours
from zarabanda.core.colour.spaces import hex_to_rgb, rgb_to_hex
from zarabanda.core.explain.base import movers
from zarabanda.core.rig import attributes
from zarabanda.core.rig.abilities import abilities, numbers, whole
from zarabanda.core.rig.positions import positions, tilts
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.formats.palette_document import PaletteDocument

from . import repositories
from .tables import Group, PaletteRow

BEAMS: dict[str, dict[str, float]] = {
    "Narrow": {"zoom": 1.0}, "Middle": {"zoom": 25.0}, "Wide": {"zoom": 90.0}, "Open": {"gobo": 0.0}, "Gobo 2": {"gobo": 2.0},
    "Gobo 4": {"gobo": 4.0}, "Gobo 6": {"gobo": 6.0}, "Prism": {"prism": 100.0}, "No prism": {"prism": 0.0},
    "Soft": {"frost": 60.0}, "Sharp": {"frost": 0.0},
}  # fmt: skip
"""Beams that lights are given; each takes what it can of them."""
BEAM_SET = "Beams"


def _kept(session: Session, name: str, document: PaletteDocument) -> PaletteRow:
    return repositories.palettes.store(session, repositories.palettes.free_name(session, name[:76]), document)


def make_colours(session: Session, rig: Rig, count: int, group: Group | None = None) -> list[PaletteRow]:
    """A set of colours for all lights, or for those of a group that mix colours."""
    able = [] if group is None else [rig.heads.keys[n] for n in numbers(rig, group.heads).tolist() if rig.mixes[n]]
    if group is not None and not able:
        raise ZarabandaError(f"None of the lights in {group.name} mixes colours. Leave this group out.", "groups")
    made = []
    for name, rgb in even_colours(count):
        colour = rgb_to_hex(rgb)
        if group is None:
            made.append(_kept(session, name, PaletteDocument(family="colour", colour=colour, set=f"{count} colours")))
        else:
            drives = dict(zip(attributes.COMPOUND["colour"], hex_to_rgb(colour), strict=True))
            document = PaletteDocument(family="colour", own=dict.fromkeys(able, drives), set=f"{group.name}, colours")
            made.append(_kept(session, f"{name}, {group.name}", document))
    return made


def make_positions(session: Session, rig: Rig, called: str, heads: Sequence[str]) -> list[PaletteRow]:
    """A set of positions for the lights of a group, by its name, that pan and tilt, or only tilt."""
    lights = movers(rig, heads)
    by_name: dict[str, dict[str, dict[str, float]]] = {}
    if len(lights):
        for name, (pan, tilt) in positions(rig, lights).items():
            by_name[name] = {
                rig.heads.keys[light]: {"pan": round(float(p), 2), "tilt": round(float(t), 2)}
                for light, p, t in zip(lights.tolist(), pan, tilt, strict=True)
            }
    else:
        turned = np.array(list(dict.fromkeys(whole(rig, numbers(rig, heads)).tolist())), np.int64)
        turned = turned[rig.heads.has[attributes.TILT, turned]]
        if not len(turned):
            raise ZarabandaError(f"None of the lights in {called} can pan and tilt. Choose a group that moves.", "group")
        for name, angles in tilts(rig, turned).items():
            each = zip(turned.tolist(), angles.tolist(), strict=True)
            by_name[name] = {rig.heads.keys[light]: {"tilt": round(angle, 2)} for light, angle in each}
    return [
        _kept(session, f"{name}, {called}", PaletteDocument(family="position", own=own, set=f"{called}, positions"))
        for name, own in by_name.items()
    ]


def make_beams(session: Session, rig: Rig) -> list[PaletteRow]:
    """A set of beams for all lights of a rig: those of which any of them can do something."""
    can = abilities(rig, rig.heads.keys).beam
    return [
        _kept(session, name, PaletteDocument(family="beam", values=values, set=BEAM_SET))
        for name, values in BEAMS.items()
        if values.keys() & can
    ]
