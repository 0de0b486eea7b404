"""What can be baked, and playing it: an effect on heads, a cue, a pixel map, a stretch of a song; alone on the stage."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.explain import bake, weave
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.offline import Offline
from zarabanda.engine.program import Program
from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    AnyPart,
    DraftEffectPart,
    GoTo,
    Locate,
    OpeningPart,
    PlaySong,
    PressPixels,
    ShowUpdate,
)
from zarabanda.targets import EffectOnHeads

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Progress = Callable[[float], None]

LONGEST_S, MOST_FRAMES, MOST_NUMBERS = 3600.0, 160_000, 40_000_000
_LONG_BEFORE = -10_000.0
_LOOKED_AT, _CYCLES, _OFF = 96, 64, 0.002
"""Frames that are looked at for what moves; cycles among which one is looked for that nearly closes; a share of the range that
counts as closed."""


@dataclass(frozen=True)
class Source:
    """What is baked. kind: effect, cue, map or song; number: of it in the show; heads: keys, none: all that it lights or moves;
    list: of a cue; picture: on a map; begin: position in a song, s."""

    kind: str
    number: int
    heads: tuple[str, ...] = ()
    list: int = 0
    picture: int = 0
    begin: float = 0.0


@dataclass(frozen=True)
class Length:
    """How long a bake is. closes: it ends where it began; words: what is to know of that."""

    seconds: float
    closes: bool
    words: str


@dataclass(frozen=True)
class Baked:
    """Frames of what was baked. times (T,) s; heads (n,): numbers in the rig; values (T, A, n) in natural units; moved: numbers
    of attributes that it sets or moves."""

    rig: Rig
    times: Floats
    heads: Ints
    values: NDArray[np.float32]
    moved: tuple[int, ...]

    @property
    def keys(self) -> list[str]:
        """The heads by their keys."""
        return [self.rig.heads.keys[head] for head in self.heads.tolist()]

    def has(self, row: int) -> NDArray[np.bool_]:
        """(n,) which heads have an attribute."""
        return np.asarray(self.rig.heads.has[row, self.heads])

    def spans(self, row: int) -> Floats:
        """(n,) widths of the range of an attribute."""
        return np.asarray(np.maximum(self.rig.high[row, self.heads] - self.rig.low[row, self.heads], 1e-9))


class Playing:
    """A source on a stage of its own. parts: of the show; media: the folder of its pictures, films and sounds."""

    def __init__(self, parts: Sequence[AnyPart], source: Source, media: Path | None = None) -> None:
        self._source = source
        alone: list[AnyPart] = [one for one in parts if not isinstance(one, DraftEffectPart)]
        alone = [OpeningPart(()) if isinstance(one, OpeningPart) else one for one in alone]
        if source.kind == "effect":
            alone.append(DraftEffectPart(1, EffectOnHeads(source.number, source.heads)))
        self.program: Program = Compiler(media).take(ShowUpdate("bake", 1, alone, whole=True))
        self.rig = self.program.rig
        missing = [key for key in source.heads if key not in self.rig.heads.index]
        if missing or (source.kind == "effect" and not source.heads):
            what = f"There is no head {missing[0]} in the rig." if missing else "There is no head to bake it on."
            raise ZarabandaError(f"{what} Choose lights, or a group that has some.", "heads")

    @property
    def heads(self) -> tuple[str, ...]:
        """Heads that were chosen; none: all that it sets."""
        return self._source.heads

    def length(self, seconds: float | None) -> Length:
        """So many s, or of an effect one closing cycle. ZarabandaError where that is too long, or not known."""
        if seconds is not None:
            if not 0 < seconds <= LONGEST_S:
                raise ZarabandaError(
                    f"{seconds:g} s cannot be baked; give more than 0, and {LONGEST_S:g} s at the most.", "seconds"
                )
            return Length(seconds, closes=False, words="")
        if self._source.kind != "effect":
            raise ZarabandaError("Say how long it is: only an effect has a cycle that closes.", "seconds")
        state = self._begun().state
        playing = next(iter(state.playing.values()))
        effect, placed = playing.instance.effect, playing.placed
        cycle = state.time_of(playing, 1.0) - state.time_of(playing, 0.0)
        closing = weave.closing_cycles(effect, placed)
        if weave.repeats(effect) and closing <= _CYCLES and self._off(closing * cycle) <= _OFF:
            return Length(closing * cycle, closes=True, words=f"It closes after {_cycles(closing)}, {closing * cycle:.3g} s.")
        at = np.arange(_CYCLES + 1, dtype=np.float64) * cycle
        baked = self.frames(at)
        cells = [(row, n) for row in baked.moved for n in range(len(baked.heads))]
        values = np.stack([baked.values[:, row, n] for row, n in cells], axis=1).astype(float)
        best, off = bake.nearest_close(values, np.array([baked.spans(row)[n] for row, n in cells]))
        why = "never closes" if not weave.repeats(effect) else f"does not close within {_CYCLES} cycles"
        words = f"It {why}: after {_cycles(best)}, {best * cycle:.3g} s, it is nearest to where it began, {off:.1%} off."
        return Length(best * cycle, closes=False, words=words)

    def _off(self, seconds: float) -> float:
        baked = self.frames(np.array([0.0, seconds]))
        ways = (np.abs(baked.values[1, row] - baked.values[0, row]) / baked.spans(row) for row in baked.moved)
        return max((float(one.max()) for one in ways), default=0.0)

    def _begun(self) -> Offline:
        """On stage at 0."""
        source, stage = self._source, Offline(self.program, 0.0 if self._source.kind == "effect" else _LONG_BEFORE)
        if source.kind == "cue":
            whose = self.program.lists.get(source.list)
            place = whose.index.get(source.number) if whose is not None else None
            if whose is None or place is None:
                raise ZarabandaError("This cue is not there any more. Choose another.", "number")
            if place:
                stage.act(GoTo(list=source.list, cue=whose.cues[place - 1].id), _LONG_BEFORE)
            stage.act(GoTo(list=source.list, cue=source.number), 0.0)
        elif source.kind == "map":
            stage.act(PressPixels(map=source.number, picture=source.picture), _LONG_BEFORE)
        elif source.kind == "song":
            stage.act(Locate(timeline=source.number, position=source.begin), 0.0)
            stage.act(PlaySong(timeline=source.number), 0.0)
        return stage

    def every(self, times: Floats) -> Iterator[tuple[float, Floats]]:
        """Time and values (A, N) of each frame; a buffer that the next one overwrites."""
        stage = self._begun()
        for t in times.tolist():
            yield t, stage.at(t)

    def sent(self, times: Floats) -> Iterator[tuple[float, NDArray[np.uint8]]]:
        """Time and bytes (universes, 512) of each frame; a buffer that the next one overwrites."""
        stage = self._begun()
        for t in times.tolist():
            yield t, stage.bytes(stage.at(t))

    def frames(self, times: Floats, progress: Progress = lambda share: None) -> Baked:
        """All frames of the heads that it sets or moves. ZarabandaError where that is too much at once."""
        heads, moved = self._moved(times)
        if len(times) * attributes.COUNT * len(heads) > MOST_NUMBERS:
            raise ZarabandaError(
                f"{len(heads):,} heads for {len(times):,} frames are too much at once. Choose fewer lights, less time, or a "
                "lower rate; universes, films and pictures can be longer.", "heads",
            )  # fmt: skip
        values = np.empty((len(times), attributes.COUNT, len(heads)), np.float32)
        for n, (_, now) in enumerate(self.every(times)):
            values[n] = now[:, heads]
            if n % 64 == 0:
                progress(n / len(times))
        return Baked(self.rig, times, heads, values, moved)

    def _moved(self, times: Floats) -> tuple[Ints, tuple[int, ...]]:
        """Heads, and attributes, that are ever other than at home."""
        looked = times[:: max(1, len(times) // _LOOKED_AT)]
        touched = np.zeros(self.rig.home.shape, bool)
        home = self.rig.home.astype(np.float32)
        for _, now in self.every(looked):
            touched |= np.abs(now - home) > 1e-4
        touched &= self.rig.heads.has
        own = self._source.heads
        heads = np.array([self.rig.heads.index[key] for key in own], np.int64) if own else np.flatnonzero(touched.any(axis=0))
        moved = tuple(np.flatnonzero(touched[:, heads].any(axis=1)).tolist())
        if not moved:
            raise ZarabandaError("Nothing moves or is lit in it: all of it is as at home. Choose something else.", "source")
        return heads, moved


def even(seconds: float, rate: float) -> Floats:
    """Times of frames at a rate in Hz, both ends included. ZarabandaError where they are too many."""
    count = max(int(np.ceil(seconds * rate - 1e-9)), 1)
    if count > MOST_FRAMES:
        raise ZarabandaError(
            f"{count:,} frames are too many; {MOST_FRAMES:,} are possible. Give a lower rate, or less time.", "rate"
        )
    return np.linspace(0, seconds, count + 1)


def _cycles(count: float) -> str:
    return "1 cycle" if count == 1 else f"{count:g} cycles"
