"""Paths of pan and tilt: in degrees, or in metres on the stage."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from zarabanda.core.effects import paths
from zarabanda.core.effects.batch.elements import Batch, Chosen, Floats, Phases, moved
from zarabanda.core.effects.batch.pieces import BatchKey, Piece, Pieces
from zarabanda.core.effects.effect import Path
from zarabanda.core.rig import attributes, stage

_FOLLOWED = 25
"""Points along the figure, from p = 0 to now, over which the solution is followed."""


def form_of(piece: Piece) -> Path:
    """The path of a piece of a batch of paths."""
    form = piece.block.layer.form
    assert isinstance(form, Path)
    return form


def sign_of_pan(pieces: Pieces) -> Floats:
    """−1 where pan is mirrored, else 1."""
    return pieces.each(lambda piece: np.where(piece.block.mirrored, -1.0, 1.0))


class Paths(Batch):
    """Paths of pan and tilt in degrees; pan mirrored where asked for; in a relay relative to the point at p = 0."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        self.named = isinstance(key.form, str)
        first = form_of(pieces.first)
        unit = (1.0, 1.0, 0.0) if self.named else (first.width, first.height, first.rotation)
        self.figure = paths.figure(
            first.path, unit[0], unit[1], rotation=unit[2],
            corners=first.corners, points=first.points, dwell=first.dwell,
        )  # fmt: skip
        zero = self.figure(np.zeros(1))
        self.at_start = (float(zero[0][0]), float(zero[1][0])) if self.how != "ripple" else (0.0, 0.0)
        sign = sign_of_pan(pieces)

        def of_form(value: Callable[[Path], float]) -> Floats:
            return pieces.of_block(lambda piece: value(form_of(piece)))

        # turned and scaled: (x, y) = matrix · figure of unit size; alone, the figure is finished already
        width = of_form(lambda form: form.width if self.named else 1.0)
        height = of_form(lambda form: form.height if self.named else 1.0)
        angle = np.radians(of_form(lambda form: form.rotation if self.named else 0.0))
        self.xx, self.xy = sign * width * np.cos(angle), -sign * height * np.sin(angle)
        self.yx, self.yy = width * np.sin(angle), height * np.cos(angle)
        self.turned = bool(angle.any())
        self.target = pieces.target(attributes.PAN)
        self.to_tilt = (attributes.TILT - attributes.PAN) * pieces.copies.heads
        self.x, self.y = np.zeros(0), np.zeros(0)

    def _compute(self, phases: Phases) -> None:
        turns = self._latest_turn(phases)
        self.active = turns.active
        x, y = self.figure(turns.p)
        if self.how != "ripple":
            x, y = x - self.at_start[0], y - self.at_start[1]
        self.x, self.y = self.xx * x, self.yy * y
        if self.turned:
            self.x += self.xy * y
            self.y += self.yx * x
        strength = self.strength(depth=True)
        if strength is not None:
            self.x *= strength
            self.y *= strength

    def act(self, values: Floats, chosen: Chosen) -> None:
        target = self.place(chosen)
        values[target] += self.x[chosen]
        values[moved(target, self.to_tilt)] += self.y[chosen]


class StagePaths(Batch):
    """Paths in metres round the point that a beam hits on a plane; pan and tilt by inverse kinematics.

    A pure function of base and phase: the solution is followed along the figure from p = 0, where it is the one nearest to
    the base. A beam that does not hit the plane stays at its base.
    """

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        form = form_of(pieces.first)
        self.figure = paths.figure(
            form.path, form.width, form.height, rotation=form.rotation,
            corners=form.corners, points=form.points, dwell=form.dwell,
        )  # fmt: skip
        self.axis, self.at = (2 if form.plane == "floor" else 1), form.plane_at
        self.places = pieces.each(lambda piece: piece.block.places)
        self.mounting = pieces.each(lambda piece: piece.block.mounting)
        self.sign = sign_of_pan(pieces)
        self.target = pieces.target(attributes.PAN)
        self.to_tilt = (attributes.TILT - attributes.PAN) * pieces.copies.heads
        self.p = np.zeros(0)

    def _compute(self, phases: Phases) -> None:
        turns = self._latest_turn(phases)
        self.active, self.p = turns.active, turns.p

    def act(self, values: Floats, chosen: Chosen) -> None:
        pan, tilt = self.target[chosen], self.target[chosen] + self.to_tilt
        base_pan, base_tilt = values[pan], values[tilt]
        places, mounting = self.places[chosen], self.mounting[chosen]
        hit, hits = stage.landing(places, stage.direction(base_pan, base_tilt, mounting), self.axis, self.at)
        own = self.strength(depth=True)
        strength = hits * (1.0 if own is None else own[chosen])
        way = np.linspace(0, 1, _FOLLOWED)[:, None] * self.p[chosen]
        x, y = (plane.reshape(way.shape) for plane in self.figure(way.ravel()))
        if self.how != "ripple":
            x, y = x - x[0], y - y[0]
        points = np.repeat(hit[None], _FOLLOWED, axis=0)
        points[..., 0] += x * self.sign[chosen] * strength
        points[..., 3 - self.axis] += y * strength
        found = stage.follow(places, mounting, points, base_pan, base_tilt)
        moved = strength > 0
        values[pan] = np.where(moved, found[0], base_pan)
        values[tilt] = np.where(moved, found[1], base_tilt)
