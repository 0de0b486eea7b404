"""The journal: the live state and the last program, written after every change, from which a restarted engine goes on."""

from __future__ import annotations

import math
from collections.abc import Callable
from pathlib import Path

import msgspec

from zarabanda.core.playback.claims import Claims
from zarabanda.kept_file import KeptFile, put_aside
from zarabanda.messages import ControlId, FixturePart, PlayerId, ShowUpdate

from . import kept_claims
from .kept_claims import StripEntry
from .live import draft
from .live.state import LiveState, Playing
from .live.tempo import Tempo
from .program import Program

VERSION = 4
_BOOT_ID = Path("/proc/sys/kernel/random/boot_id")


def boot_id() -> str:
    """Which start of the machine this is; the monotonic clock goes on as long as it is the same. Empty: not known."""
    try:
        return _BOOT_ID.read_text().strip()
    except OSError:
        return ""


class TempoEntry(msgspec.Struct, forbid_unknown_fields=True):
    """A tempo: see `tempo.Tempo`."""

    bpm: float
    since: float
    beat: float
    settles: float
    slew: float


class PlayingEntry(msgspec.Struct, forbid_unknown_fields=True):
    """One instance that plays: see `state.Playing`."""

    key: PlayerId
    started: float
    started_beat: float
    level: float
    fade_from: float
    fade_to: float
    fade_at: float
    fade_s: float
    shift: float
    rate: float
    layer_shifts: list[float]
    frozen: float | None


class LiveEntry(msgspec.Struct, forbid_unknown_fields=True):
    """The live state. now: s of the engine's clock; wall: s since 1970 at the same moment; boot: start of the machine; heads:
    which heads the claims are on, see `Heads.number`; blind: since when the draft is prepared without output."""

    version: int
    boot: str
    now: float
    wall: float
    tempos: dict[int, TempoEntry]
    levels: dict[ControlId, float]
    grand: float
    blackout: bool
    stopped: list[PlayerId]
    opened: bool
    held: dict[ControlId, list[str]]
    playing: list[PlayingEntry]
    heads: int
    claims: list[StripEntry]
    blind: float | None


def entry_of(state: LiveState, now: float, wall: float, boot: str) -> LiveEntry:
    """The live state as it is written down."""
    return LiveEntry(
        version=VERSION, boot=boot, now=now, wall=wall,
        tempos={
            name: TempoEntry(one.bpm, one.since, one.beat, one.settles, one.slew) for name, one in state.tempos.items()
        },
        levels=dict(state.levels), grand=state.grand, blackout=state.blackout, stopped=sorted(state.stopped),
        opened=state.opened, held={key: sorted(holders) for key, holders in state.held.items()},
        playing=[
            PlayingEntry(
                key, one.started, one.started_beat, one.level, one.fade_from, one.fade_to, one.fade_at, one.fade_s,
                one.shift, one.rate, list(one.layer_shifts), one.frozen,
            )
            for key, one in state.playing.items()
        ],
        heads=state.program.rig.heads.number, claims=kept_claims.written(state.claims), blind=state.blind,
    )  # fmt: skip


def restored(entry: LiveEntry, program: Program, now: float, wall: float, boot: str) -> LiveState:
    """The live state that was written down.

    Where the machine has not been started anew its monotonic clock went on, and no time moves, whatever the wall clock did;
    else times are moved by what the wall clock says has passed.
    """
    same_clock = bool(boot) and boot == entry.boot
    moved = 0.0 if same_clock else (now - entry.now) - (wall - entry.wall)
    playing = {}
    for data in entry.playing:
        instance = program.instances.get(data.key)
        if instance is not None:
            fields = {name: getattr(data, name) for name in data.__struct_fields__ if name != "key"}
            fields |= {"started": data.started + moved, "fade_at": data.fade_at + moved, "layer_shifts": tuple(data.layer_shifts)}
            playing[data.key] = Playing(instance, **fields)
    return LiveState(
        program=program,
        tempos={
            name: Tempo(one.bpm, one.since + moved, one.beat, one.settles + moved, one.slew) for name, one in entry.tempos.items()
        },
        playing=playing, levels=entry.levels, grand=entry.grand, blackout=entry.blackout, stopped=frozenset(entry.stopped),
        opened=entry.opened, claims=_claims(entry, program, now, moved),
        blind=None if entry.blind is None else entry.blind + moved,
        held={key: frozenset(holders) for key, holders in entry.held.items()},
    )  # fmt: skip


def _claims(entry: LiveEntry, program: Program, now: float, moved: float) -> Claims:
    """The claims that were written down, fades and all; and of the draft what has changed since, unless it is prepared only."""
    if entry.heads != program.rig.heads.number:
        return draft.restored(program, now)
    try:
        claims = kept_claims.read(entry.claims, len(program.rig), moved).advanced(now)
    except ValueError:  # odd claims are worth less than a light: what is kept of the draft is known
        return draft.restored(program, now)
    return claims if entry.blind is not None else draft.settled(claims, program, now, 0.0)


_decoder = msgspec.msgpack.Decoder(LiveEntry)


def _decode_live(content: bytes) -> LiveEntry:
    entry = _decoder.decode(content)
    if entry.version != VERSION:
        raise ValueError(f"it is of version {entry.version}, and this program reads {VERSION}")
    numbers = [entry.now, entry.wall, entry.grand, *entry.levels.values(), entry.blind or 0.0, *kept_claims.times(entry.claims)]
    for one in [*entry.tempos.values(), *entry.playing]:
        numbers += [value for value in msgspec.structs.astuple(one) if isinstance(value, float)]
    if not all(map(math.isfinite, numbers)):
        raise ValueError("it has numbers that are not finite")
    return entry


_show_decoder = msgspec.msgpack.Decoder(ShowUpdate)


def _decode_show(content: bytes) -> ShowUpdate:
    update = _show_decoder.decode(content)
    if not any(isinstance(part, FixturePart) for part in update.parts):
        raise ValueError("it has no rig")
    return update


class Journal:
    """The two files in the data folder: the live state, and the parts of the last program."""

    def __init__(self, folder: Path) -> None:
        self.told: list[str] = []
        """What was wrong with what was read, and where it was put."""
        if folder.exists() and not folder.is_dir():
            self.told.append(f"{folder} is no folder. It was put aside as {put_aside(folder)}; nothing needs to be done.")
        folder.mkdir(parents=True, exist_ok=True)
        self.live, self.program = KeptFile(folder / "live.journal"), KeptFile(folder / "show.journal")

    def write_live(self, entry: LiveEntry) -> None:
        """Replace the live state, whole or not at all."""
        self.live.write(msgspec.msgpack.encode(entry))

    def write_program(self, update: ShowUpdate) -> None:
        """Replace the program: all parts that it was made from."""
        self.program.write(msgspec.msgpack.encode(update))

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
