"""All outside devices of a show, and what cues send to them: each has a thread of its own, so that none holds up another, nor
ever the light."""

from __future__ import annotations

import queue
import time
from collections.abc import Callable, Mapping, Sequence
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import MIDI, OSC, SIMULATOR, DevicePart, DeviceState
from zarabanda.network_settings import NetworkSettings
from zarabanda.protocols import midi, osc
from zarabanda.workers import Troubles, Worker

from .lines import Line, MidiOverNetwork, MidiPort, OscLine
from .sender import why
from .sockets import Address

MESSAGES = "Messages"
"""What can be in trouble here, beside each device by its name."""
MOST_WAITING = 500
_CHECK_AFTER_S = 0.05
_IDLE_S = 0.5
_PROTOCOLS: dict[str, tuple[Callable[[Mapping[str, Any]], bytes], Callable[[bytes], list[str]]]] = {
    OSC: (osc.encode, osc.in_words),
    MIDI: (midi.encode, midi.in_words),
}
Simulators = Mapping[str, Address]
"""Address of the simulated device by what it speaks."""


def line_to(part: DevicePart, simulators: Simulators, settings: NetworkSettings) -> Line:
    """The way to a device; ZarabandaError or OSError say why there is none."""
    if part.to == SIMULATOR:
        if part.speaks not in simulators:
            raise ZarabandaError("The simulated devices do not run. Start Zarabanda without --no-node.")
        address = simulators[part.speaks]
    elif part.port:  # an address has one, nothing else does
        if not settings.allows(part.to):
            raise ZarabandaError(f"Nothing is sent to {part.to} before you have agreed to it on this machine: change the device.")
        address = (part.to, part.port)
    elif part.speaks == MIDI:
        return MidiPort(part.to)
    else:
        raise ZarabandaError(f"“{part.to}” is no address.")
    return OscLine(address) if part.speaks == OSC else MidiOverNetwork(address)


class Device:
    """One device at work. `post` is for every thread; the rest is done in its own."""

    def __init__(self, part: DevicePart, opened: Callable[[DevicePart], Line], troubles: Troubles) -> None:
        self.part = part
        self._opened, self._troubles = opened, troubles
        self._closing = False
        self._encode, self._words = _PROTOCOLS[part.speaks]
        self._waiting: queue.Queue[Mapping[str, Any]] = queue.Queue(MOST_WAITING)
        self._line: Line | None = None
        self._unsure = ""
        self._sent, self._failed, self._text, self._last, self._at = 0, 0, "", "", float("-inf")
        Worker(f"Device {part.name}", self._step, troubles).start()

    def post(self, content: Mapping[str, Any]) -> None:
        """Send a message soon; where too many wait it is lost, and counted."""
        try:
            self._waiting.put_nowait(content)
        except queue.Full:
            self._fails(f"{MOST_WAITING} messages wait for it already")

    def close(self) -> None:
        """Send nothing more."""
        self._closing = True
        self._troubles.clear(self.part.name)

    def state(self, now: float) -> DeviceState:
        """How it does."""
        since = now - self._at if self._at > float("-inf") else None
        state = "failed" if self._text else "ready"
        return DeviceState(self.part.id, state, self._text, self._sent, self._failed, self._last, since)

    def _step(self) -> bool | None:
        try:
            content = self._waiting.get(timeout=_CHECK_AFTER_S if self._unsure else _IDLE_S)
        except queue.Empty:
            content = None
        if self._closing:
            self._hang_up()
            return False
        if content is not None:
            self._send(content)
        elif self._unsure and self._line is not None:
            self._tried(self._line.check, "")
            self._unsure = ""
        return None

    def _send(self, content: Mapping[str, Any]) -> None:
        try:
            data = self._encode(content)
            words = self._words(data)[0]
        except (ValueError, KeyError, IndexError) as error:
            self._fails(f"A message cannot be made: {error}")
            return
        self._tried(lambda: self._through(data), words)

    def _through(self, data: bytes) -> None:
        if self._line is None:
            self._line = self._opened(self.part)
        self._line.send(data)

    def _tried(self, does: Callable[[], None], words: str) -> None:
        """Do it, and note how that went. Words of a message that was sent; empty: those of the one before are found out about."""
        try:
            does()
        except (OSError, ZarabandaError) as error:
            self._fails(f"“{words or self._unsure}” did not reach it. {self._reason(error)}")
            if not words:
                self._sent -= 1
            self._hang_up()
            self._unsure = ""
            return
        if self._unsure and self._text:  # what was sent before this has arrived
            self._text = ""
            self._troubles.clear(self.part.name)
        if words:
            self._sent, self._last, self._at, self._unsure = self._sent + 1, words, time.monotonic(), words

    def _reason(self, error: OSError | ZarabandaError) -> str:
        if isinstance(error, ZarabandaError):
            return error.message
        if self.part.to == SIMULATOR:
            return "The simulated device is unplugged, or does not run: see Output, Devices."
        return why(error, (self.part.to, self.part.port))

    def _hang_up(self) -> None:
        if self._line is not None:
            self._line.close()
            self._line = None

    def _fails(self, text: str) -> None:
        self._failed, self._text = self._failed + 1, text
        self._troubles.tell(self.part.name, text)


class Devices:
    """All devices of the show. `send` is for the loop's thread, and does not wait."""

    def __init__(self, simulators: Simulators, settings: Callable[[], NetworkSettings], troubles: Troubles) -> None:
        self._simulators, self._settings, self._troubles = simulators, settings, troubles
        self._devices: dict[int, Device] = {}

    def set(self, parts: Sequence[DevicePart]) -> None:
        """Exactly these from now on. What stays the same goes on as it is."""
        before, now = self._devices, dict[int, Device]()
        for part in parts:
            known = before.get(part.id)
            now[part.id] = known if known is not None and known.part == part else Device(part, self._line, self._troubles)
        self._devices = now
        for device in before.values():
            if now.get(device.part.id) is not device:
                device.close()

    def _line(self, part: DevicePart) -> Line:
        return line_to(part, self._simulators, self._settings())

    def send(self, number: int, content: Mapping[str, Any]) -> None:
        """A message to a device; one to a device that is gone is told."""
        device = self._devices.get(number)
        if device is None:
            self._troubles.tell(
                MESSAGES, "A cue sends to a device that is gone. Choose another in the cue, or take the message out."
            )
        else:
            device.post(content)

    def report(self) -> list[DeviceState]:
        """How all of them do."""
        now = time.monotonic()
        return [device.state(now) for device in self._devices.values()]

    def close(self) -> None:
        """Send nothing more."""
        for device in self._devices.values():
            device.close()
