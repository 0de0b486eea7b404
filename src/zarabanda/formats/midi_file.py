"""Presses of a song as a Standard MIDI File (RP-001), and back: a track for each, a note for each press, tempos of the beat grid.

Positions are those of the tempos as the file has them (whole microseconds a beat), so that nothing drifts.
"""

from __future__ import annotations

import io
from bisect import bisect_right
from collections import defaultdict
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any

import mido

from zarabanda.core.timecode.beat_grid import BeatGrid
from zarabanda.errors import ZarabandaError, brief

MOST_BYTES, MOST_TRACKS, MOST_EVENTS = 1 << 20, 512, 400_000
TICKS = 1920
"""In a beat: a quarter of a millisecond at 120 BPM."""
NOTES = {"hold": 60, "on": 61, "off": 62}
"""The note of what a press does."""
_DOES = {note: does for does, note in NOTES.items()}
_SHORT_S = 0.05
_TEMPO = 500_000
"""Microseconds a beat where a file says nothing."""
_NAMES = ("C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B")


@dataclass(frozen=True)
class Press:
    """A press: position and length in s, and what it does."""

    at: float
    length: float
    does: str = "hold"


@dataclass
class Line:
    """All presses of one note of a track of a file. key: which, as `track/channel/note`."""

    key: str
    name: str
    channel: int
    note: int
    presses: list[Press] = field(default_factory=list)

    @property
    def called(self) -> str:
        """In words: `Drums, C2`."""
        return f"{self.name or 'no name'}, {_NAMES[self.note % 12]}{self.note // 12 - 1}"


class _Tempos:
    """Ticks of positions, by tempos of whole microseconds a beat. changes: from which position on, s, and microseconds."""

    def __init__(self, changes: Sequence[tuple[float, int]]) -> None:
        self.rows: list[tuple[float, int, int]] = []  # position, tick, microseconds a beat
        for at, tempo in changes:
            if self.rows:
                before, tick, old = self.rows[-1]
                tick += round((at - before) * 1e6 / old * TICKS)
                at = before + (tick - self.rows[-1][1]) / TICKS * old / 1e6
            else:
                tick = 0
            self.rows.append((at, tick, tempo))

    def tick(self, at: float) -> int:
        begins, tick, tempo = self.rows[max(bisect_right([row[0] for row in self.rows], at) - 1, 0)]
        return max(tick + round((at - begins) * 1e6 / tempo * TICKS), 0)


def written(tracks: Iterable[tuple[str, Sequence[Press]]], grid: BeatGrid) -> bytes:
    """The file. tracks: name and presses of each."""
    tempos = _Tempos(_tempos_of(grid))
    file = mido.MidiFile(type=1, ticks_per_beat=TICKS)
    head = [(0, mido.MetaMessage("time_signature", numerator=grid.in_bar, denominator=4))]
    head += [(tick, mido.MetaMessage("set_tempo", tempo=tempo)) for _, tick, tempo in tempos.rows]
    file.tracks.append(_track("Tempo", head))
    for name, presses in tracks:
        rows = []
        for one in presses:
            note, end = NOTES[one.does], one.at + (one.length if one.does == "hold" and one.length > 0 else _SHORT_S)
            rows.append((tempos.tick(one.at), mido.Message("note_on", note=note, velocity=100)))
            rows.append((max(tempos.tick(end), tempos.tick(one.at) + 1), mido.Message("note_off", note=note, velocity=0)))
        file.tracks.append(_track(name, rows))
    out = io.BytesIO()
    file.save(file=out)
    return out.getvalue()


def _tempos_of(grid: BeatGrid) -> list[tuple[float, int]]:
    """Tempos from 0 s on. What is before the first bar is made whole bars, so that bar lines are where they are."""
    changes = [(grid.time_of(beat), round(60e6 / bpm)) for beat, bpm in grid.changes]
    first, tempo = changes[0]
    if first < _SHORT_S:
        return [(0.0, round(60e6 / grid.bpm_at(0.0))), *(one for one in changes if one[0] > 0)]
    beats = grid.in_bar * max(1, round(first * 1e6 / tempo / grid.in_bar))
    return [(0.0, round(first * 1e6 / beats)), *changes]


def _track(name: str, rows: Sequence[tuple[int, Any]]) -> Any:
    """A track of messages at ticks: those that end come before those that begin."""
    plain = name.encode("latin-1", "replace").decode("latin-1")
    track, before = mido.MidiTrack([mido.MetaMessage("track_name", name=plain)]), 0
    for tick, message in sorted(rows, key=lambda row: (row[0], row[1].type != "note_off")):
        track.append(message.copy(time=tick - before))
        before = tick
    return track


def read(content: bytes) -> list[Line]:
    """All lines of a file, those with the most presses first. ZarabandaError says what is wrong with it."""
    if len(content) > MOST_BYTES:
        raise ZarabandaError(
            f"This file has {len(content) >> 10:,} kB; a MIDI file has at most {MOST_BYTES >> 10:,} here.", "file"
        )
    if content[:4] != b"MThd":
        raise ZarabandaError("This is no MIDI file: it does not begin with MThd. Choose a .mid file.", "file")
    try:
        file = mido.MidiFile(file=io.BytesIO(content), clip=True)
    except Exception as error:  # whatever a broken file makes its reader raise
        reason = brief(str(error)) or type(error).__name__
        raise ZarabandaError(f"This MIDI file cannot be read ({reason}). Export it anew.", "file") from error
    if len(file.tracks) > MOST_TRACKS or sum(map(len, file.tracks)) > MOST_EVENTS:
        raise ZarabandaError(
            f"This file has more than {MOST_TRACKS} tracks or {MOST_EVENTS:,} events. Save a part of it.", "file"
        )
    seconds = _clock(file)
    lines: dict[str, Line] = {}
    for n, track in enumerate(file.tracks):
        for line in _lines(n, track, seconds):
            lines[line.key] = line
    if not lines:
        raise ZarabandaError("There is no note in this file. Export it with its notes.", "file")
    return sorted(lines.values(), key=lambda line: (-len(line.presses), line.key))


def _clock(file: Any) -> Callable[[int], float]:
    """Seconds of ticks: by the tempos of all tracks, or by timecode."""
    division = int(file.ticks_per_beat)
    if division < 0:  # frames a second, negative, above ticks a frame
        per_second = -(division >> 8) * (division & 0xFF)
        if per_second <= 0:
            raise ZarabandaError("The time of this file is in no frames that there are. Export it anew.", "file")
        return lambda tick: tick / per_second
    if division == 0:
        raise ZarabandaError("A beat of this file has no ticks. Export it anew.", "file")
    changes = {0: _TEMPO}
    for track in file.tracks:
        tick = 0
        for message in track:
            tick += message.time
            if message.type == "set_tempo":
                changes[tick] = message.tempo
    rows = [(0, 0.0, changes[0])]
    for tick, tempo in sorted(changes.items())[1:]:
        before, at, old = rows[-1]
        rows.append((tick, at + (tick - before) / division * old / 1e6, tempo))
    ticks = [row[0] for row in rows]

    def seconds(tick: int) -> float:
        begins, at, tempo = rows[bisect_right(ticks, tick) - 1]
        return at + (tick - begins) / division * tempo / 1e6

    return seconds


def _lines(number: int, track: Any, seconds: Callable[[int], float]) -> list[Line]:
    name, tick = "", 0
    lines: dict[tuple[int, int], Line] = {}
    held: defaultdict[tuple[int, int], list[int]] = defaultdict(list)

    def end(key: tuple[int, int], begun: int) -> None:
        channel, note = key
        line = lines.setdefault(key, Line(f"{number}/{channel + 1}/{note}", "", channel + 1, note))
        at = seconds(begun)
        line.presses.append(Press(at, seconds(tick) - at))

    for message in track:
        tick += message.time
        if message.type == "track_name" and not name:
            name = brief(" ".join(message.name.split()), 80)
        elif message.type in ("note_on", "note_off"):
            key = (message.channel, message.note)
            if message.type == "note_on" and message.velocity > 0:
                held[key].append(tick)
            elif held[key]:
                end(key, held[key].pop(0))
    for key, begins in held.items():
        for begun in begins:
            end(key, begun)
    for line in lines.values():
        line.name = name
        line.presses.sort(key=lambda one: one.at)
    return list(lines.values())


def presses_of(line: Line, name: str) -> list[Press]:
    """The presses of a line for a track of this name: as they were where the track was written here, else held."""
    if line.name == name and line.channel == 1 and line.note in _DOES:
        does = _DOES[line.note]
        return [Press(one.at, one.length if does == "hold" else 0.0, does) for one in line.presses]
    return line.presses
