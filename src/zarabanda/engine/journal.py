"""The journal: the live state and the last program, written after every change, from which a restarted engine goes on."""

from __future__ import annotations

import contextlib
import math
from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec

from zarabanda.core.playback.claims import Claims
from zarabanda.kept_file import KeptFile, put_aside
from zarabanda.messages import AnyPart, FixturePart, PartKey, ShowUpdate

from . import kept_songs, kept_stage
from .kept_songs import SongEntry
from .kept_stage import StageEntry
from .live import draft, stand_ins
from .live.cut_off import CutOff, standing
from .live.recorded import Recorded
from .live.state import LiveState
from .program import Program

VERSION = 11
_BOOT_ID = Path("/proc/sys/kernel/random/boot_id")


def boot_id() -> str:
    """Which start of the machine this is; the monotonic clock goes on as long as it is the same. Empty: not known."""
    try:
        return _BOOT_ID.read_text().strip()
    except OSError:
        return ""


class LiveEntry(msgspec.Struct, forbid_unknown_fields=True):
    """The live state. now: s of the engine's clock; wall: s since 1970 at the same moment; boot: start of the machine; blind:
    since when the draft is prepared without output; ended: whether it was stopped, not cut off; cut_off: when it was before
    that, if nobody has said yet whether it goes on."""

    version: int
    boot: str
    now: float
    wall: float
    stage: StageEntry
    songs: list[SongEntry]
    grand: float
    blackout: bool
    opened: bool
    blind: float | None
    ended: bool = False
    cut_off: tuple[float, list[int]] | None = None
    stand_ins: dict[int, int] = msgspec.field(default_factory=dict)
    recorded: tuple[str, float, float, bool] | None = None


def entry_of(state: LiveState, now: float, wall: float, boot: str, *, ended: bool = False) -> LiveEntry:
    """The live state as it is written down."""
    return LiveEntry(
        version=VERSION, boot=boot, now=now, wall=wall, stage=kept_stage.written(state), songs=kept_songs.written(state.songs),
        grand=state.grand, blackout=state.blackout, opened=state.opened, blind=state.blind, ended=ended,
        cut_off=None if state.cut_off is None else (state.cut_off.at, list(state.cut_off.standing)),
        stand_ins=dict(state.stand_ins),
        recorded=None if (one := state.recorded) is None else (one.name, one.since, one.seconds, one.loops),
    )  # fmt: skip


def restored(entry: LiveEntry, program: Program, now: float, wall: float, boot: str, *, cut_at: float | None = None) -> LiveState:
    """The live state that was written down.

    Where the machine has not been started anew its monotonic clock went on, and no time moves, whatever the wall clock did;
    else times are moved by what the wall clock says has passed. Where the program was ended no time has passed since: what played
    goes on from there. cut_at: when everything was cut off, s since 1970; then no time has passed since, either, and lists stand.
    """
    same_clock = bool(boot) and boot == entry.boot
    moved = 0.0 if same_clock else (now - entry.now) - (wall - entry.wall)
    still_since = entry.wall if entry.ended else cut_at
    if still_since is not None:
        moved = now - entry.now - max(0.0, still_since - entry.wall)
    state = kept_stage.read(entry.stage, program, moved).with_(
        grand=entry.grand,
        blackout=entry.blackout,
        opened=entry.opened,
        claims=_claims(entry, program, now, moved),
        blind=None if entry.blind is None else entry.blind + moved,
        stand_ins=stand_ins.there(entry.stand_ins, program),
        recorded=None if (one := entry.recorded) is None else Recorded(one[0], one[1] + moved, one[2], one[3]),
    )
    if entry.cut_off is not None:
        state = state.with_(cut_off=CutOff(entry.cut_off[0], tuple(entry.cut_off[1])))
    state = kept_songs.read(entry.songs, state, moved)
    state = kept_stage.settled(state, now)
    return state if cut_at is None else standing(state, now, cut_at)


def _claims(entry: LiveEntry, program: Program, now: float, moved: float) -> Claims:
    """The claims that were written down; and of the draft what has changed since, unless it is prepared only. Odd claims are
    worth less than a light: what is kept of the draft is known."""
    claims = kept_stage.claims_read(entry.stage, program, now, moved)
    if claims is None:
        return draft.restored(program, now)
    return claims if entry.blind is not None else draft.settled(claims, program, now, 0.0)


_decoder = msgspec.msgpack.Decoder(LiveEntry)


def _decode_live(content: bytes) -> LiveEntry:
    entry = _decoder.decode(content)
    if entry.version != VERSION:
        raise ValueError(f"it is of version {entry.version}, and this program reads {VERSION}")
    numbers = [entry.now, entry.wall, entry.grand, entry.blind or 0.0]
    numbers += kept_stage.times(entry.stage) + kept_songs.times(entry.songs)
    if not all(map(math.isfinite, numbers)):
        raise ValueError("it has numbers that are not finite")
    return entry


_show_decoder = msgspec.msgpack.Decoder(ShowUpdate)


def _decode_show(content: bytes) -> ShowUpdate:
    update = _show_decoder.decode(content)
    if not any(isinstance(part, FixturePart) for part in update.parts):
        raise ValueError("it has no rig")
    return update


class _Packed(ShowUpdate, frozen=True, tag="show"):
    """A show, each of whose parts is packed already."""

    parts: list[Any] = msgspec.field(default_factory=list)


class Journal:
    """The two files in the data folder: the live state, and the parts of the last program."""

    def __init__(self, folder: Path) -> None:
        self.told: list[str] = []
        """What was wrong with what was read, and where it was put."""
        if folder.exists() and not folder.is_dir():
            self.told.append(f"{folder} is no folder. It was put aside as {put_aside(folder)}; nothing needs to be done.")
        folder.mkdir(parents=True, exist_ok=True)
        self.live, self.program = KeptFile(folder / "live.journal"), KeptFile(folder / "show.journal")
        self._alive = folder / "alive"
        self._packed: dict[PartKey, tuple[AnyPart, msgspec.Raw]] = {}

    def write_live(self, entry: LiveEntry) -> None:
        """Replace the live state, whole or not at all."""
        self.live.write(msgspec.msgpack.encode(entry))

    def write_program(self, update: ShowUpdate) -> None:
        """Replace the program: all parts that it was made from. What did not change is not packed again, so that the loop need
        not wait for it."""
        before, self._packed = self._packed, {}
        for part in update.parts:
            known = before.get(part.key)
            raw = known[1] if known is not None and known[0] is part else msgspec.Raw(msgspec.msgpack.encode(part))
            self._packed[part.key] = (part, raw)
        parts = [raw for _, raw in self._packed.values()]
        self.program.write(
            msgspec.msgpack.encode(_Packed(update.session, update.revision, parts, update.gone, update.whole, show=update.show))
        )

    def alive(self) -> None:
        """Note that the lights were on until now."""
        with contextlib.suppress(OSError):
            self._alive.touch()

    def cut_at(self, entry: LiveEntry) -> float:
        """Until when the lights were on, in s since 1970."""
        try:
            return max(entry.wall, self._alive.stat().st_mtime)
        except OSError:
            return entry.wall

    def read_program(self, compiled: Callable[[ShowUpdate], Program]) -> Program | None:
        """What `compiled` makes of the newest program that it can compile, or None."""

        def attempt(content: bytes) -> Program:
            update = _decode_show(content)
            try:
                return compiled(update)
            except Exception as error:  # whatever is wrong in it: it is put aside, and the one before is tried
                raise ValueError(f"it cannot be compiled: {type(error).__name__}: {error}") from error

        return self.program.read(attempt, self.told.append)

    def read_live(self) -> LiveEntry | None:
        """The last live state, or None where there is none that can be read."""
        return self.live.read(_decode_live, self.told.append)
