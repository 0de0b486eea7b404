"""Binary frames for screens: states of heads, not DMX. See docs/formats.md, "Live frames"."""

from __future__ import annotations

import struct
from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.rig import Rig
from zarabanda.core.rig.slots import appearance, levels
from zarabanda.messages import PlayerId

from .loop import Snapshot

Floats = NDArray[np.float64]

VERSION = 2
HEADS, UNIVERSE = 1, 2
HEADER = (("magic", "2s"), ("version", "B"), ("kind", "B"), ("number", "I"), ("time", "d"), ("subject", "I"), ("count", "H"),
          ("running", "H"))  # fmt: skip
RUNNING = (("number", "I"), ("theta", "d"), ("weight", "f"), ("value", "f"))
"""Fields of a frame's header, and of what runs behind its heads, as `struct` names them; all little-endian."""
_HEADER = struct.Struct("<" + "".join(kind for _, kind in HEADER))
HEADER_BYTES = _HEADER.size
_RUNNING = struct.Struct("<" + "".join(kind for _, kind in RUNNING))
HEAD = np.dtype([("colour", "u1", 3), ("level", "u1"), ("zoom", "<u2"), ("direction", "<i2", 3)])


class FrameWriter:
    """Writes snapshots of one rig as binary frames."""

    def __init__(self, rig: Rig) -> None:
        self.rig, self._number = rig, rig.heads.number
        self._heads = np.zeros(len(rig), HEAD)
        moves = rig.heads.has[attributes.PAN] | rig.heads.has[attributes.TILT]
        self._moving = np.flatnonzero(moves[rig.body])
        self._zooms = rig.heads.has[attributes.INDEX["zoom"]]
        still = stage.direction(np.zeros(len(rig)), np.zeros(len(rig)), rig.mounting)
        self._heads["direction"] = np.round(still * 32767)

    def states(self, values: Floats) -> NDArray[np.void]:
        """What is seen of each head at these values (A, N), in a buffer that the next call overwrites."""
        heads = self._heads
        heads["colour"] = appearance(self.rig, values) * 255 + 0.5
        heads["level"] = levels(self.rig, values) * 255 + 0.5
        heads["zoom"] = np.where(self._zooms, values[attributes.INDEX["zoom"]], self.rig.beam_deg) * 100
        moving, body = self._moving, self.rig.body[self._moving]
        direction = stage.direction(values[attributes.PAN, body], values[attributes.TILT, body], self.rig.mounting[moving])
        heads["direction"][moving] = np.round(direction * 32767)
        return heads

    def heads(self, snapshot: Snapshot, numbers: Mapping[PlayerId, int]) -> bytes:
        """A frame of kind 1: header, heads, then what runs. numbers: number of each running key."""
        values, heads = snapshot.values, self.states(snapshot.values)
        running = b"".join(
            _RUNNING.pack(numbers.get(one.key, 0), one.theta, one.weight, self._trace(values, one.cell))
            for one in snapshot.running
        )
        return b"".join(
            (
                _HEADER.pack(
                    b"ZB",
                    VERSION,
                    HEADS,
                    snapshot.number & 0xFFFFFFFF,
                    snapshot.t,
                    self._number,
                    len(heads),
                    len(snapshot.running),
                ),
                heads.tobytes(),
                running,
            )
        )

    def _trace(self, values: Floats, cell: tuple[int, int] | None) -> float:
        """Where a value is in the range of its head, 0…1."""
        if cell is None:
            return 0.0
        low, high = self.rig.low[cell], self.rig.high[cell]
        return float(np.clip((values[cell] - low) / max(high - low, 1e-9), 0, 1))


def universe_frame(snapshot: Snapshot, universe: int) -> bytes | None:
    """A frame of kind 2: header with the universe's number, then its 512 slots. None when it is not there."""
    universes = snapshot.program.rig.universes
    if universe not in universes:
        return None
    header = _HEADER.pack(b"ZB", VERSION, UNIVERSE, snapshot.number & 0xFFFFFFFF, snapshot.t, universe, 512, 0)
    slots: bytes = snapshot.data[universes.index(universe)].tobytes()
    return header + slots


def layout() -> dict[str, dict[str, int]]:
    """Where each field is, in bytes, and how many bytes there are: of the header, of a head, of what runs."""

    def places(fields: tuple[tuple[str, str], ...]) -> dict[str, int]:
        before = ["<" + "".join(kind for _, kind in fields[:n]) for n in range(len(fields) + 1)]
        sizes = list(map(struct.calcsize, before))
        return {"bytes": sizes[-1]} | {name: size for (name, _), size in zip(fields, sizes, strict=False)}

    names = HEAD.names or ()
    head = {"bytes": HEAD.itemsize} | {name: int(HEAD.fields[name][1]) for name in names if HEAD.fields is not None}
    return {"HEADER": places(HEADER), "HEAD": head, "RUNNING": places(RUNNING)}
