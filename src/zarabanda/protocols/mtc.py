"""MIDI Time Code: quarter frames and full frames, made and read (MIDI Time Code 1.0)."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

import mido

from zarabanda.core.timecode.smpte import RATES, Label, Rate, frame_of, label_of, text
from zarabanda.errors import ZarabandaError

RATE_NAMES = ("24", "25", "29.97 drop", "30")
"""By the two bits that say so; 29.97 without dropped labels runs as 30."""
PIECES = 8
PER_FRAME = 4
"""Quarter frames in a frame: a label takes two frames to be told."""
_FULL = (0x7F, 0x7F, 0x01, 0x01)


def code_of(rate: Rate) -> int:
    """The two bits of a rate."""
    return RATE_NAMES.index(rate.name) if rate.name in RATE_NAMES else RATE_NAMES.index("30")


def quarter_frame(label: Label, code: int, piece: int) -> bytes:
    """One of the eight pieces of a label.

    >>> quarter_frame(Label(1, 2, 3, 4), 1, 7).hex(" "), quarter_frame(Label(1, 2, 3, 20), 1, 1).hex(" ")
    ('f1 72', 'f1 11')
    """
    hours = label.hours | code << 5
    values = (label.frames, label.seconds, label.minutes, hours)
    value = values[piece // 2]
    nibble = value >> 4 if piece % 2 else value & 0x0F
    return bytes(mido.Message("quarter_frame", frame_type=piece, frame_value=nibble).bytes())


def full_frame(label: Label, code: int) -> bytes:
    """A whole label at once: where a player stands, or begins."""
    data = [*_FULL, label.hours | code << 5, label.minutes, label.seconds, label.frames]
    return bytes(mido.Message("sysex", data=data).bytes())


@dataclass(frozen=True)
class Heard:
    """Where a player is: frames from 00:00:00:00 on, with quarters, at a rate. stands: it was told as a whole; backwards: it runs
    so."""

    frames: float
    rate: Rate
    stands: bool = False
    backwards: bool = False


@dataclass
class Decoder:
    """Puts labels together. broken: pieces that did not follow the one before, by now."""

    broken: int = 0
    _nibbles: list[int] = field(default_factory=lambda: [0] * PIECES)
    _last: int = -1
    _run: int = 0
    _begin: int | None = None
    _pieces: int = 0
    _rate: Rate = RATES["25"]
    _parser: mido.Parser = field(default_factory=mido.Parser)

    def read(self, data: bytes) -> Iterator[Heard]:
        """What bytes say of where a player is."""
        self._parser.feed(data)
        yield from self.heard(self._parser)

    def heard(self, messages: Iterable[mido.Message]) -> Iterator[Heard]:
        """What messages say of it; others are left out."""
        for message in messages:
            if message.type == "quarter_frame":
                found = self._piece(message.frame_type, message.frame_value)
            elif message.type == "sysex" and tuple(message.data[:4]) == _FULL and len(message.data) == 8:
                found = self._full(message.data[4:])
            else:
                continue
            if found is not None:
                yield found

    def _full(self, data: tuple[int, ...]) -> Heard | None:
        self._last, self._run, self._begin = -1, 0, None
        rate = RATES[RATE_NAMES[data[0] >> 5 & 3]]
        try:
            return Heard(frame_of(Label(data[0] & 0x1F, *data[1:]), rate), rate, stands=True)
        except ZarabandaError:
            self.broken += 1
            return None

    def _piece(self, piece: int, nibble: int) -> Heard | None:
        last, self._last = self._last, piece
        self._nibbles[piece] = nibble
        if last >= 0 and piece == (last - 1) % PIECES:
            return self._backwards(piece)
        if last >= 0 and piece == (last + 1) % PIECES:
            self._run = max(self._run, 0) + 1
        else:
            self.broken += last >= 0
            self._run, self._begin = 1, None
        if self._begin is not None:
            self._pieces += 1
        if piece == PIECES - 1 and self._run >= PIECES:
            self._complete(PIECES - 1)
        if self._begin is None:
            return None
        return Heard(self._begin + self._pieces / PER_FRAME, self._rate)

    def _complete(self, pieces: int) -> None:
        """With a label put together, of which so many pieces came after the first."""
        low = [self._nibbles[2 * n] | self._nibbles[2 * n + 1] << 4 for n in range(4)]
        frames, seconds, minutes, hours = low[0] & 0x1F, low[1] & 0x3F, low[2] & 0x3F, low[3]
        self._rate = RATES[RATE_NAMES[hours >> 5 & 3]]
        try:
            self._begin = frame_of(Label(hours & 0x1F, minutes, seconds, frames), self._rate)
            self._pieces = pieces
        except ZarabandaError:
            self.broken += 1
            self._begin = None

    def _backwards(self, piece: int) -> Heard | None:
        """A player that runs backwards sends the pieces of a label from the last to the first."""
        self._run, self._begin = min(self._run, 0) - 1, None
        if piece or -self._run < PIECES - 1:
            return None
        self._complete(0)
        begin, self._begin = self._begin, None
        return None if begin is None else Heard(begin, self._rate, backwards=True)


def told(frames: float, rate: Rate) -> str:
    """A label as it is read."""
    return text(label_of(int(frames), rate), rate)
