"""Making pixel maps and pictures from parts of the show: canvases on the rig, layers with their speeds and sources."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from zarabanda.core.colour.spaces import hex_to_rgb
from zarabanda.core.effects.palette import Palette
from zarabanda.core.pixels import canvas as canvases
from zarabanda.core.pixels.canvas import Canvas
from zarabanda.core.pixels.colouring import BASE, Colouring
from zarabanda.core.pixels.drawings import Source
from zarabanda.core.pixels.layers import Finish, Layer
from zarabanda.core.pixels.light import Wall
from zarabanda.core.pixels.places import Rect
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads
from zarabanda.core.rig.rig import Rig
from zarabanda.messages import PicturePart, PixelMapPart
from zarabanda.pictures.films import Film, Reader
from zarabanda.pictures.lettering import Letters
from zarabanda.pictures.media import PictureMedia
from zarabanda.pictures.stills import Still

SUBJECTS = frozenset({"pixel-map", "picture"})
"""Of the parts that this is made of."""


@dataclass(frozen=True)
class LayerSpeed:
    """How θ of a layer moves: cycles a beat of a tempo, on the beat or from its start; or seconds a cycle; and its run."""

    kind: str
    tempo: int | None = None
    cycles_per_beat: float = 0.25
    sync: str = "beat"
    seconds: float = 2.0
    run: str = "forward"


@dataclass(frozen=True, eq=False)
class MadeLayer:
    """A layer of a stack. id: tells it from the others, through edits; clock: of a film, time, cycle or song."""

    id: int
    name: str
    layer: Layer
    speed: LayerSpeed
    clock: str = "time"

    @property
    def listens(self) -> bool:
        """Whether it draws what is heard."""
        return self.layer.kind.listens


@dataclass(frozen=True, eq=False)
class Stack:
    """The layers of a map, or of a picture of the library, that are seen, the lowest first. faults: what could not be read."""

    name: str
    layers: tuple[MadeLayer, ...]
    faults: tuple[str, ...] = ()


@dataclass(frozen=True, eq=False)
class PixelMap:
    """A pixel map on the rig. over_effects: unless a use says otherwise; in_s, out_s: in which buttons bring it in and out."""

    id: int
    name: str
    wall: Wall
    stack: Stack
    over_effects: bool
    in_s: float
    out_s: float


class Sources:
    """Pictures, films and letters, each opened once. media: the folder; None: there is none."""

    def __init__(self, media: Path | None) -> None:
        self._media = PictureMedia(media) if media is not None else None
        self._stills: dict[str, Still] = {}
        self._readers: dict[str, Reader] = {}

    def of(self, figure: str, how: Mapping[str, Any]) -> Source | None:
        """The source of a layer. ZarabandaError or OSError where its medium is not there."""
        if figure == "letters":
            return Letters(how["text"], how["weight"])
        if figure not in ("picture", "film") or not how["medium"] or self._media is None:
            return None
        medium, path = self._media.medium(how["medium"]), self._media.path(how["medium"])
        if medium.kind == "picture":
            if medium.hash not in self._stills:
                self._stills[medium.hash] = Still(path)
            return self._stills[medium.hash]
        if medium.hash not in self._readers:
            self._readers[medium.hash] = Reader(path)
        ends = min(how.get("out_s") or medium.seconds, medium.seconds)
        return Film(
            self._readers[medium.hash], how.get("in_s", 0.0), ends, how.get("clock", "time"), how.get("ends", "loop")
        )  # fmt: skip


class PixelMaker:
    """Makes maps and pictures; one that an edit leaves alone is not made again."""

    def __init__(self, media: Path | None) -> None:
        self._sources = Sources(media)
        self._walls: dict[int, tuple[dict[str, Any], str, Heads, Wall]] = {}
        self._stacks: dict[tuple[str, int], tuple[Any, Mapping[int, Palette | None], Stack]] = {}

    def maps(self, parts: Iterable[PixelMapPart], palettes: Mapping[int, Palette], rig: Rig) -> dict[int, PixelMap]:
        """All maps by number."""
        found = {}
        for part in parts:
            document = part.document
            stack = self._stack("map", part.id, part.name, document.get("layers", ()), palettes)
            found[part.id] = PixelMap(
                part.id, part.name, self._wall(part.id, document.get("canvas", {}), document.get("acts", "light"), rig), stack,
                document.get("over_effects", True), document.get("in_s", 0.5), document.get("out_s", 1.0),
            )  # fmt: skip
        return found

    def pictures(self, parts: Iterable[PicturePart], palettes: Mapping[int, Palette]) -> dict[int, Stack]:
        """All pictures of the library by number."""
        return {part.id: self._stack("picture", part.id, part.name, part.document.get("layers", ()), palettes) for part in parts}

    def _wall(self, number: int, document: dict[str, Any], acts: str, rig: Rig) -> Wall:
        known = self._walls.get(number)
        if known is None or known[:2] != (document, acts) or known[2] is not rig.heads or known[3].rig is not rig:
            known = (document, acts, rig.heads, Wall(rig, canvas_of(document, rig), acts))
            self._walls[number] = known
        return known[3]

    def _stack(
        self, kind: str, number: int, name: str, layers: Sequence[Mapping[str, Any]], palettes: Mapping[int, Palette]
    ) -> Stack:
        used = {one["palette"] for layer in layers for one in layer["colour"]["stops"] if isinstance(one, dict)}
        made_of = {one: palettes.get(one) for one in used if isinstance(one, int)}
        known = self._stacks.get((kind, number))
        if known is None or known[0] != (name, layers) or known[1] != made_of:
            before = {one.id: one for one in known[2].layers} if known is not None and known[1] == made_of else {}
            documents = {one["id"]: one for one in known[0][1]} if known is not None else {}
            known = ((name, layers), made_of, self._made(name, layers, palettes, before, documents))
            self._stacks[kind, number] = known
        return known[2]

    def _made(
        self, name: str, layers: Sequence[Mapping[str, Any]], palettes: Mapping[int, Palette], before: Mapping[int, MadeLayer],
        documents: Mapping[int, Mapping[str, Any]],
    ) -> Stack:  # fmt: skip
        seen = [one for one in layers if one["on"]]
        seen = [one for one in seen if one["alone"]] or seen
        found, faults = list[MadeLayer](), list[str]()
        for one in seen:
            if one["id"] in before and documents.get(one["id"]) == one:
                found.append(before[one["id"]])
                continue
            try:
                found.append(self._layer(one, palettes))
            except Exception as error:  # a film that is gone, a picture that is broken: the other layers go on
                faults.append(f"{name}: a layer cannot be shown ({error}).")
        return Stack(name, tuple(found), tuple(faults))

    def _layer(self, document: Mapping[str, Any], palettes: Mapping[int, Palette]) -> MadeLayer:
        how, colour = document["settings"], document["colour"]
        colouring = Colouring(
            colour["over"], [_stop(one, palettes) for one in colour["stops"]], colour["space"], colour["direction"],
            colour["hue_cycles"], colour["tint"],
        )  # fmt: skip
        layer = Layer(
            document["figure"], how, document["motion"], document["motion_settings"], colouring, Finish(**document["finish"]),
            Rect(**document["rect"]), document["opacity"], document["join"], document["seed"],
            self._sources.of(document["figure"], how),
        )  # fmt: skip
        return MadeLayer(document["id"], document["name"], layer, speed_of(document), how.get("clock", "time"))


def speed_of(document: Mapping[str, Any]) -> LayerSpeed:
    """The speed of a layer from its document."""
    speed, run = document["speed"], document["run"]
    if speed["kind"] == "time":
        return LayerSpeed("time", seconds=speed["seconds_per_cycle"], run=run)
    tempo = speed["tempo"]
    return LayerSpeed("tempo", tempo if isinstance(tempo, int) else None, speed["cycles_per_beat"], speed["sync"], run=run)


def _stop(stop: Any, palettes: Mapping[int, Palette]) -> tuple[float, ...] | None:
    """Drives of a stop. A palette that is gone is white."""
    if stop == "base":
        return BASE
    if isinstance(stop, str):
        return hex_to_rgb(stop)
    palette = palettes.get(stop["palette"])
    values = palette.values if palette is not None else {}
    return tuple(values.get(name, 1.0) for name in ("red", "green", "blue"))


def canvas_of(document: Mapping[str, Any], rig: Rig) -> Canvas:
    """The canvas of a map on a rig; heads that are not there are left out, on a grid their boxes stay empty."""
    index = rig.heads.index
    if document.get("everything"):
        light = rig.heads.has[attributes.INTENSITY] | rig.dims | rig.mixes
        light[np.unique(rig.leader[rig.leader >= 0])] = False  # their cells are the light
        heads = np.flatnonzero(light)
    else:
        keys = document.get("heads", ())
        heads = np.array([index.get(key, -1) for key in keys], np.int64)
    there = heads >= 0
    if document.get("kind", "stage") == "stage":
        return canvases.on_stage(heads[there], rig.heads.places[heads[there]], document.get("view", "front"))
    columns, rows = document.get("columns", 16), document.get("rows", 16)
    whole = canvases.on_grid(
        heads[: columns * rows], columns, rows, document.get("order", "rows from top left"), document.get("gap_across", 0.0),
        document.get("gap_down", 0.0),
    )  # fmt: skip
    own = whole.heads >= 0
    return Canvas(
        whole.heads[own], whole.left[own], whole.top[own], whole.right[own], whole.bottom[own], whole.width, whole.height
    )  # fmt: skip
