"""Claims as they are written into the journal, and back."""

from __future__ import annotations

import math
from dataclasses import fields, replace
from typing import Any, cast

import msgspec
import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import SPACES
from zarabanda.core.eases import EASES
from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.looks import Kind
from zarabanda.core.playback.shares import Release, Timing
from zarabanda.core.playback.strips import Strip
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
_KINDS = ("number", "hue", "colour", "step")


class ReleaseEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `shares.Release`."""

    action: float
    at: float
    seconds: float
    ease: str
    stands_at: float


class StripEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `claims.Strip` and `shares.Timing`. Arrays are bytes of little-endian numbers, one row after another."""

    holder: str
    laid: float
    rank: int
    kind: str
    family: str
    cells: bytes
    targets: bytes
    space: str
    origin: bytes | None
    was: bytes | None
    retargeted: float
    early: bool
    stamp: float
    delay: float
    fade: float
    ease: str
    stands_at: float
    goes_at: float
    paused_at: float
    stops_at: float
    releases: list[ReleaseEntry]


_TIMES = ("retargeted", "laid", "stamp", "stands_at", "goes_at", "paused_at", "stops_at")


def written(claims: Claims) -> list[StripEntry]:
    """The claims as entries."""

    def raw(array: Floats | None) -> bytes | None:
        return None if array is None else array.astype("<f8").tobytes()

    return [
        StripEntry(
            strip.holder, strip.laid, strip.rank, strip.kind, strip.family, strip.cells.astype("<i8").tobytes(),
            raw(strip.targets) or b"", strip.space, raw(strip.origin), raw(strip.was), strip.retargeted, strip.early,
            strip.timing.stamp, strip.timing.delay, strip.timing.fade, strip.timing.ease, strip.timing.stands_at,
            strip.timing.goes_at, strip.timing.paused_at, strip.timing.stops_at,
            [ReleaseEntry(*(getattr(one, field.name) for field in fields(Release))) for one in strip.timing.releases],
        )
        for strip in claims.strips
    ]  # fmt: skip


def read(entries: list[StripEntry], count: int, moved: float) -> Claims:
    """The claims that were written, on so many heads, with all times moved. ValueError says what does not fit."""
    strips = []
    for entry in entries:
        known = entry.kind in _KINDS and entry.space in SPACES and entry.ease in EASES
        if not known or not all(release.ease in EASES for release in entry.releases):
            raise ValueError(f"a claim of {entry.holder} is of a kind that is not known")
        cells = np.frombuffer(entry.cells, "<i8").astype(np.int64)
        width = 3 if entry.kind == "colour" else 1
        if len(cells) and not 0 <= cells.min() <= cells.max() < attributes.COUNT * count:
            raise ValueError(f"a claim of {entry.holder} is on heads that are not there")
        arrays = {name: _numbers(getattr(entry, name), len(cells), width) for name in ("targets", "origin", "was")}
        timing = Timing(
            entry.stamp + moved, entry.delay, entry.fade, entry.ease, entry.stands_at + moved, entry.goes_at + moved,
            tuple(_release(one, moved) for one in entry.releases), entry.paused_at + moved, entry.stops_at + moved,
        )  # fmt: skip
        strips.append(
            Strip(
                entry.holder, entry.laid + moved, entry.rank, cast(Kind, entry.kind), entry.family, cells,
                cast(Floats, arrays["targets"]), count, timing, entry.space, arrays["origin"], arrays["was"],
                entry.retargeted + moved, entry.early,
            )
        )  # fmt: skip
    return Claims(tuple(strips))


def _release(entry: ReleaseEntry, moved: float) -> Release:
    release = Release(*msgspec.structs.astuple(entry))
    return replace(release, action=release.action + moved, at=release.at + moved, stands_at=release.stands_at + moved)


def _numbers(raw: bytes | None, count: int, width: int) -> Floats | None:
    if raw is None:
        return None
    found = np.frombuffer(raw, "<f8").astype(float)
    if found.size != count * width or not np.isfinite(found).all():
        raise ValueError("a claim has other numbers than its cells need")
    return found.reshape(count, width)


def times(entries: list[StripEntry]) -> list[float]:
    """All numbers that must not be without meaning: none may be NaN, and delays and fades are finite."""
    found: list[Any] = []
    for entry in entries:
        found += [entry.delay, entry.fade, entry.stamp]
        found += [0.0 if not math.isnan(getattr(entry, name)) else math.nan for name in _TIMES]
        for release in entry.releases:
            found += [release.action, release.at, release.seconds, math.nan if math.isnan(release.stands_at) else 0.0]
    return found
