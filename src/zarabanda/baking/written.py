"""What was baked as text, bytes of universes, notes and still pictures. Each kind of file is a row of a table."""

from __future__ import annotations

import io
import json
from collections.abc import Mapping, Sequence
from typing import IO

import mido
import numpy as np
from numpy.typing import NDArray

from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes
from zarabanda.core.rig.slots import slots_of
from zarabanda.errors import ZarabandaError
from zarabanda.formats import baked as documents
from zarabanda.formats.dmx_frames import FramesWriter

from .sources import Baked, Playing, Progress

Floats = NDArray[np.float64]
MOST_MIDI_HEADS = 16
"""One channel a head."""
CONTROLLERS: dict[str, int] = {row.name: 20 + n for n, row in enumerate(attributes.ATTRIBUTES)}
"""Number of the controller that an attribute is written to: 20 for the first of the table, and so on."""
_TICKS, _BEAT_US = 480, 500_000
_MOST_COLUMNS, _ROW_PX, _COLUMN_PX = 480, 12, 4


def values_of(baked: Baked) -> dict[str, tuple[list[str], Floats]]:
    """By attribute: the heads that have it, and values (T, heads)."""
    found = {}
    for row in baked.moved:
        own = baked.has(row)
        keys = [key for key, has in zip(baked.keys, own.tolist(), strict=True) if has]
        if keys:
            found[attributes.ATTRIBUTES[row].name] = (keys, baked.values[:, row][:, own].astype(float).round(6))
    return found


def document(baked: Baked, name: str, rate: float, errors: Mapping[str, float]) -> documents.Doc:
    """Frames, and steps for the attributes that have a largest error."""
    return documents.document(name, float(baked.times[-1]), rate, baked.times, values_of(baked), errors)


def steps_of(baked: Baked, errors: Mapping[str, float]) -> dict[str, documents.Doc]:
    """The steps of the attributes that have a largest error, as in a document of them."""
    wanted = {attribute: own for attribute, own in values_of(baked).items() if attribute in errors}
    found: dict[str, documents.Doc] = documents.document("", 1.0, 1.0, baked.times, wanted, errors)["steps"]
    return found


def as_json(document: documents.Doc) -> bytes:
    """The document as JSON."""
    return (json.dumps(document) + "\n").encode()


# universes


def rows_of_universes(playing: Playing, heads: Sequence[int]) -> list[int]:
    """Rows of the universes in which these heads listen; all, where none is chosen."""
    rig = playing.rig
    every = range(attributes.COUNT)
    used = {universe for head in heads for universe, _ in slots_of(rig, int(head), every)}
    return [row for row, universe in enumerate(rig.universes) if universe in used or not used]


def write_frames(playing: Playing, times: Floats, rows: Sequence[int], file: IO[bytes], progress: Progress) -> None:
    """Frames of universes, as binary."""
    writer = FramesWriter(file, [playing.rig.universes[row] for row in rows])
    for n, (t, data) in enumerate(playing.sent(times)):
        writer.write(t, data[rows])
        if n % 64 == 0:
            progress(n / len(times))


def write_frames_csv(playing: Playing, times: Floats, rows: Sequence[int], file: IO[bytes], progress: Progress) -> None:
    """Frames of universes, as CSV: time in s, universe, 512 values."""
    file.write(("time,universe," + ",".join(str(n) for n in range(1, 513)) + "\n").encode())
    for n, (t, data) in enumerate(playing.sent(times)):
        for row in rows:
            file.write(f"{t:.6g},{playing.rig.universes[row]},{','.join(map(str, data[row].tolist()))}\n".encode())
        if n % 64 == 0:
            progress(n / len(times))


# MIDI


def as_midi(baked: Baked, name: str) -> bytes:
    """A Standard MIDI File, 120 BPM: a track and a channel a head, a controller an attribute (see `CONTROLLERS`), 0…127 over its
    range; one message where that number changes."""
    if len(baked.heads) > MOST_MIDI_HEADS:
        raise ZarabandaError(
            f"A MIDI file has {MOST_MIDI_HEADS} channels, one a head, and these are {len(baked.heads):,}. Choose fewer.",
            "heads",
        )
    file = mido.MidiFile(type=1, ticks_per_beat=_TICKS)
    first = mido.MidiTrack([mido.MetaMessage("track_name", name=name[:100]), mido.MetaMessage("set_tempo", tempo=_BEAT_US)])
    file.tracks.append(first)
    ticks = np.round(baked.times * 1e6 / _BEAT_US * _TICKS).astype(int)
    for n, key in enumerate(baked.keys):
        events: list[tuple[int, int, int]] = []
        for row in baked.moved:
            if baked.has(row)[n]:
                low, span = float(baked.rig.low[row, baked.heads[n]]), float(baked.spans(row)[n])
                levels = np.clip(np.round((baked.values[:, row, n] - low) / span * 127), 0, 127).astype(int)
                changes = np.flatnonzero(np.diff(levels, prepend=-1))
                events += [
                    (int(ticks[at]), CONTROLLERS[attributes.ATTRIBUTES[row].name], int(levels[at])) for at in changes.tolist()
                ]
        track = mido.MidiTrack([mido.MetaMessage("track_name", name=f"Head {key}")])
        before = 0
        for tick, number, level in sorted(events):
            track.append(mido.Message("control_change", channel=n, control=number, value=level, time=tick - before))
            before = tick
        file.tracks.append(track)
    out = io.BytesIO()
    file.save(file=out)
    return out.getvalue()


# the weave


def weave_colours(baked: Baked) -> NDArray[np.uint8]:
    """Heads × times × 3, as they look: at most 480 columns."""
    at = np.unique(np.linspace(0, len(baked.times) - 1, min(len(baked.times), _MOST_COLUMNS)).astype(int))
    rig, heads = baked.rig, baked.heads
    look = weave.appearance(baked.values[at].astype(float), rig.mixes[heads], rig.light[heads])
    return np.asarray((look * 255 + 0.5).astype(np.uint8).transpose(2, 0, 1))


def weave_png(baked: Baked) -> bytes:
    """The weave as a picture: a row a head, in their order, time to the right."""
    from PIL import Image

    pixels = np.repeat(np.repeat(weave_colours(baked), _ROW_PX, axis=0), _COLUMN_PX, axis=1)
    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG")
    return out.getvalue()


def weave_svg(baked: Baked, name: str) -> bytes:
    """The same as a drawing: a rectangle for each stretch of one colour, heads named at their rows."""
    pixels, margin = weave_colours(baked), 70
    rows, columns = pixels.shape[:2]
    width, height = margin + columns * _COLUMN_PX, rows * _ROW_PX + 22
    title = name.replace("&", "&amp;").replace("<", "&lt;")
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} {height}" font-family="sans-serif" font-size="10">'
        f'<title>{title}</title><rect width="{width}" height="{height}" fill="#14110e"/>'
    ]
    for n, key in enumerate(baked.keys):
        y = n * _ROW_PX
        parts.append(f'<text x="{margin - 6}" y="{y + 9}" fill="#efe7d8" text-anchor="end">{key}</text>')
        line = pixels[n]
        starts = np.flatnonzero(np.r_[True, (line[1:] != line[:-1]).any(axis=1)])
        for begin, end in zip(starts.tolist(), [*starts[1:].tolist(), columns], strict=True):
            red, green, blue = line[begin].tolist()
            parts.append(
                f'<rect x="{margin + begin * _COLUMN_PX}" y="{y}" width="{(end - begin) * _COLUMN_PX}" height="{_ROW_PX - 1}" '
                f'fill="#{red:02x}{green:02x}{blue:02x}"/>'
            )
    parts.append(f'<text x="{margin}" y="{height - 6}" fill="#efe7d8">0 s</text>')
    parts.append(f'<text x="{width}" y="{height - 6}" fill="#efe7d8" text-anchor="end">{baked.times[-1]:.3g} s</text></svg>\n')
    return "".join(parts).encode()
