"""What a pixel map does to light: its layers over what is there, by its share (docs/computation.md, "Pixels")."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

from .canvas import Canvas
from .colouring import brightness
from .layers import Layer, Moment, Painter, joined

Singles = NDArray[np.floating[Any]]
Bools = NDArray[np.bool_]
Ints = NDArray[np.int64]

ACTS: dict[str, str] = {"light": "light", "colour": "colour only", "level": "level only"}
"""What a map acts on, in words."""
_RGB = np.array([attributes.RED, attributes.GREEN, attributes.BLUE])
_DARK = 1e-6


@dataclass(frozen=True, eq=False)
class Wall:
    """The cells of a map on a rig. acts: see `ACTS`."""

    rig: Rig
    canvas: Canvas
    acts: str = "light"

    @cached_property
    def painter(self) -> Painter:
        """Draws on its canvas."""
        return Painter(self.canvas)

    @cached_property
    def mixing(self) -> Ints:
        """Places on the canvas of cells that mix red, green and blue, unless it acts on levels only."""
        mixes = self.rig.mixes[self.canvas.heads]
        return np.flatnonzero(mixes & (self.acts != "level"))

    @cached_property
    def mixing_part(self) -> Ints | slice:
        """The same; all of them as a slice, which need not be picked one by one."""
        return slice(None) if len(self.mixing) == len(self.canvas) else self.mixing

    @cached_property
    def plain(self) -> Ints:
        """Places on the canvas of cells that take level only."""
        heads = self.canvas.heads
        others = np.setdiff1d(np.arange(len(heads)), self.mixing)
        able = self.rig.heads.has[attributes.INTENSITY, heads[others]] | self.rig.dims[heads[others]]
        return others[able] if self.acts != "colour" else others[:0]

    @cached_property
    def _leaders(self) -> Ints:
        """Heads of fixtures whose level scales cells of it."""
        own = self.rig.leader[self.canvas.heads]
        return np.unique(own[own >= 0])

    @cached_property
    def _siblings(self) -> Ints:
        """Cells of these fixtures that are not on the canvas."""
        led = np.isin(self.rig.leader, self._leaders) & self.rig.led
        led[self.canvas.heads] = False
        return np.flatnonzero(led)

    @cached_property
    def touched(self) -> Bools:
        """(A, N) what it may change."""
        touched = np.zeros(self.rig.home.shape, bool)
        heads = self.canvas.heads
        touched[np.ix_(_RGB, heads[self.mixing])] = True
        if self.acts != "colour":
            touched[attributes.INTENSITY, heads] = True
            touched[attributes.INTENSITY, self._leaders] = True
            touched[attributes.INTENSITY, self._siblings] = True
        return touched

    def levels(self, values: Singles) -> Singles:
        """(C,) how bright each cell is beneath, 0…1: with the level of its fixture."""
        heads, level = self.canvas.heads, np.clip(values[attributes.INTENSITY] / 100, 0, 1)
        leader = self.rig.leader[heads]
        own: Singles = level[heads]
        return np.where(leader >= 0, own * level[leader], own) if len(self._leaders) else own

    def give(self, values: Singles, levels: Singles) -> None:
        """Give the cells levels (C,) 0…1. Where the level of a fixture scales its cells it goes up as far as they need, and its
        other cells down by as much, so that these stay as they are."""
        heads, row = self.canvas.heads, values[attributes.INTENSITY]
        if not len(self._leaders):
            row[heads] = 100 * levels
            return
        leader = self.rig.leader[heads]
        led = leader >= 0
        row[heads[~led]] = 100 * levels[~led]
        before = np.clip(row / 100, 0, 1)
        after = before.copy()
        np.maximum.at(after, leader[led], levels[led].astype(after.dtype))
        up = after[leader[led]]
        row[heads[led]] = np.where(up > _DARK, 100 * levels[led] / np.maximum(up, _DARK), row[heads[led]])
        mine, whose = self._siblings, self.rig.leader[self._siblings]
        risen = after[whose] > before[whose]
        row[mine] = np.where(risen, row[mine] * before[whose] / np.maximum(after[whose], _DARK), row[mine])
        row[self._leaders] = np.where(
            after[self._leaders] > before[self._leaders], 100 * after[self._leaders], row[self._leaders]
        )


@dataclass(frozen=True, eq=False)
class Picture:
    """A stage of the frame: layers, each with its moment, on a wall by a share 0…1."""

    wall: Wall
    layers: Sequence[tuple[Layer, Moment]]
    share: float

    @property
    def touched(self) -> Bools:
        """What it may change."""
        return self.wall.touched

    def apply(self, values: Singles) -> None:
        """Lay it over values (A, N)."""
        wall = self.wall
        heads = wall.canvas.heads
        if self.share <= 0 or not len(heads):
            return
        colours = np.stack([values[row, heads] for row in _RGB]).astype(np.float32)
        np.clip(colours, 0, 1, out=colours)
        if len(wall.mixing) < len(heads):
            colours[:, ~wall.rig.mixes[heads]] = 1
        levels = wall.levels(values).astype(np.float32)
        drawn = [(layer, *wall.painter.drawn(layer, now, colours)) for layer, now in self.layers]
        plain, new = wall.plain, levels.copy()
        if len(wall.mixing):
            part = wall.mixing_part
            beneath = np.ones(len(wall.mixing), np.float32) if wall.acts == "colour" else levels[part]
            rgb, level = self._mixed(drawn, part, colours[:, part], beneath)
            for row, drive in zip(_RGB, rgb, strict=True):
                values[row, heads[part]] = drive
            new[part] = level
        if len(plain):
            new[plain] = self._dimmed(drawn, plain, levels[plain])
        if wall.acts != "colour":
            wall.give(values, new)

    def _mixed(
        self, drawn: Sequence[tuple[Layer, Singles, Singles]], cells: Ints | slice, colours: Singles, levels: Singles
    ) -> tuple[Singles, Singles]:
        """Colours (3, n) and levels (n,) of cells that mix: L′ / m and m."""
        below = colours * levels
        light, uncovered = below.copy(), np.ones(len(levels), np.float32)
        for layer, rgb, cover in drawn:
            own = cover[cells] * np.float32(layer.opacity)
            way = joined(layer.join, light, rgb[:, cells]) - light
            way *= own
            light += way
            uncovered *= 1 - own
        if self.share < 1:
            light = below + np.float32(self.share) * (light - below)
        brightest = np.maximum(np.maximum(light[0], light[1]), light[2])
        a = np.float32(self.share) * (1 - uncovered)
        m = np.maximum(brightest, levels + a * (1 - levels))
        lit = brightest > _DARK
        return np.where(lit, light / np.maximum(m, _DARK), colours), np.where(lit, m, 0)

    def _dimmed(self, drawn: Sequence[tuple[Layer, Singles, Singles]], cells: Ints, levels: Singles) -> Singles:
        """Levels (n,) of cells that take level only: of the brightness of each layer."""
        light = levels
        for layer, rgb, cover in drawn:
            own = cover[cells] * np.float32(layer.opacity)
            bright = brightness(rgb[:, cells])
            after = joined(layer.join, np.stack([light] * 3), np.stack([bright] * 3))[0]
            light = light + own * (after - light)
        return levels + np.float32(self.share) * (light - levels)
