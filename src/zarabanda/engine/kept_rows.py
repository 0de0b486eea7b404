"""Rows of busking pages, and what goes over them, as they are written into the journal, and back."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import msgspec

from zarabanda.core.effects.variants import Variant
from zarabanda.core.playback.two_colours import Picked, TwoColours

from .kept_lists import FadeEntry, fade_read, fade_written
from .live.busk import BuskState, Flashing, RowState, WaitingPress
from .live.tempos import Follow

Rgb = tuple[float, float, float]


class RowEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `busk.RowState`. waiting: the fields of `busk.WaitingPress`."""

    level: float | None
    shown: float
    depth: FadeEntry
    pairs: bool
    pressed: dict[str, int]
    waiting: list[tuple[int, bool, float, int, int]]
    sent: int | None
    values: dict[str, float]


class BuskEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `busk.BuskState`. variant: pairs, shape, spread, travel; colours: of both, where they go and where they were; flashing:
    row, kind, since when, and its share; follows: of tempos, main, ratio and shift by number."""

    seconds: float
    position_s: float
    waits: str
    variant: tuple[bool, str, str, str]
    release_s: float
    rate_hz: float
    colours: list[tuple[Rgb, Rgb, float]]
    two_rows: list[int]
    mix: float
    flashing: list[tuple[int, str, float, FadeEntry]]
    presses: int
    follows: dict[int, tuple[int, float, float]]


def rows_written(rows: Mapping[int, RowState]) -> dict[int, RowEntry]:
    """Where rows are, as entries."""
    return {
        number: RowEntry(
            one.level, one.shown, fade_written(one.depth), one.pairs, dict(one.pressed),
            [(press.pad, press.on, press.beat, press.tempo, press.order) for press in one.waiting], one.sent, dict(one.values),
        )
        for number, one in rows.items()
    }  # fmt: skip


def rows_read(entries: Mapping[int, RowEntry], moved: float) -> dict[int, RowState]:
    """Where rows were, with all times moved."""
    return {
        number: RowState(
            one.level, one.shown, fade_read(one.depth, moved), one.pairs, one.pressed,
            tuple(WaitingPress(*press) for press in one.waiting), one.sent, one.values,
        )
        for number, one in entries.items()
    }  # fmt: skip


def busk_written(busk: BuskState, follows: Mapping[int, Follow]) -> BuskEntry:
    """What goes over all rows, as an entry."""
    two, variant = busk.two, busk.variant
    return BuskEntry(
        busk.seconds, busk.position_s, busk.waits, (variant.pairs, variant.shape, variant.spread, variant.travel),
        busk.release_s, busk.rate_hz, [(one.rgb, one.was, one.since) for one in (two.a, two.b)],
        sorted(two.rows), two.mix,
        [(one.row, one.kind, one.since, fade_written(one.share)) for one in busk.flashing], busk.presses,
        {number: (one.main, one.ratio, one.shift) for number, one in follows.items()},
    )  # fmt: skip


def busk_read(entry: BuskEntry, moved: float) -> tuple[BuskState, dict[int, Follow]]:
    """What went over all rows, with all times moved, and tempos that followed others."""
    a, b = (Picked(rgb, was, since + moved) for rgb, was, since in entry.colours)
    flashing = tuple(Flashing(row, kind, since + moved, fade_read(share, moved)) for row, kind, since, share in entry.flashing)
    busk = BuskState(
        entry.seconds, entry.position_s, entry.waits, Variant(*entry.variant), entry.release_s, entry.rate_hz,
        TwoColours(a, b, frozenset(entry.two_rows), entry.mix), flashing, entry.presses,
    )  # fmt: skip
    return busk, {number: Follow(*one) for number, one in entry.follows.items()}


def times(rows: Mapping[int, RowEntry], busk: BuskEntry) -> list[float]:
    """All numbers that must be finite."""
    found: list[Any] = [getattr(busk, field) for field in ("seconds", "position_s", "release_s", "rate_hz", "mix")]
    for rgb, was, since in busk.colours:
        found += [*rgb, *was, since]
    for _, _, since, share in busk.flashing:
        found += [since, share.start, share.end, share.at, share.seconds]
    for follow in busk.follows.values():
        found += follow
    for one in rows.values():
        found += [one.level, one.shown, one.depth.start, one.depth.end, *one.values.values()]
        found += [value for press in one.waiting for value in press]
    return [float(value) for value in found if isinstance(value, float)]
