"""Simulated nodes and devices answer on a local socket: for the Output view, and for measurements."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import Any

from zarabanda import wire
from zarabanda.errors import ZarabandaError
from zarabanda.workers import Troubles

from .message_sink import MessageSink
from .node import Faults, SimulatedNode
from .sound_player import SoundPlayer
from .timecode_player import TimecodePlayer, changed


def serve(
    nodes: Sequence[SimulatedNode],
    sinks: Sequence[MessageSink],
    path: Path,
    player: TimecodePlayer | None = None,
    sound: SoundPlayer | None = None,
) -> wire.Server:
    """Answer `{"type": "status"}`, `where`, `gaps`, `reset` and `misbehave`, each to the nodes of a `protocol`, or to all; and
    `received`, `forget` and `vanish`, to the devices that speak `speaks`, or to all; and `player` and `sound`, to the players of
    timecode and sound."""

    def answer(peer: wire.Peer, message: wire.Message) -> None:
        if message.get("type") in _OF_SINKS:
            heard = [sink for sink in sinks if sink.speaks == message.get("speaks", sink.speaks)]
            peer.post(_OF_SINKS[message["type"]](heard, message))
            return
        if message.get("type") == "player" and player is not None:
            peer.post(_played(player, message))
            return
        if message.get("type") == "sound" and sound is not None:
            peer.post(_sounded(sound, message))
            return
        asked = [node for node in nodes if node.protocol == message.get("protocol", node.protocol)]
        try:
            peer.post(_ANSWERS[message["type"]](asked, message))
        except ZarabandaError as error:
            peer.post({"type": "refused", "message": error.message})
        except (KeyError, TypeError, ValueError) as error:
            peer.post({"type": "refused", "message": f"This cannot be asked of a node: {error}."})

    return wire.Server(path, wire.PLAIN, answer, lambda peer: None, Troubles())


def _played(player: TimecodePlayer, message: dict[str, Any]) -> dict[str, Any]:
    """Play, stand, go elsewhere, or play otherwise; then how it is."""
    try:
        if "how" in message:
            changed(player, message["how"])
        if message.get("label"):
            player.locate(str(message["label"]))
        if message.get("on") is not None:
            player.play(bool(message["on"]))
    except ZarabandaError as error:
        return {"type": "refused", "message": error.message}
    except (TypeError, ValueError) as error:
        return {"type": "refused", "message": f"This cannot be asked of the player: {error}."}
    return {"type": "player", **player.status()}


def _sounded(player: SoundPlayer, message: dict[str, Any]) -> dict[str, Any]:
    """Play, stop, or play otherwise; then how it is."""
    try:
        player.change(message.get("how", {}))
        if message.get("on") is not None:
            player.play(bool(message["on"]))
    except ZarabandaError as error:
        return {"type": "refused", "message": error.message}
    except (TypeError, ValueError) as error:
        return {"type": "refused", "message": f"This cannot be asked of the simulated line: {error}."}
    return {"type": "sound", **player.status()}


def _status(nodes: list[SimulatedNode], message: dict[str, Any]) -> dict[str, Any]:
    return {"type": "status", "nodes": [node.status() for node in nodes]}


def _gaps(nodes: list[SimulatedNode], message: dict[str, Any]) -> dict[str, Any]:
    return {"type": "gaps", "gaps": nodes[0].gaps(int(message.get("universe", 1)))}


def _reset(nodes: list[SimulatedNode], message: dict[str, Any]) -> dict[str, Any]:
    for node in nodes:
        node.reset()
    return {"type": "reset"}


def _misbehave(nodes: list[SimulatedNode], message: dict[str, Any]) -> dict[str, Any]:
    for node in nodes:
        node.misbehave(Faults(**message["faults"]))
    return {"type": "misbehaves"}


def _where(nodes: list[SimulatedNode], message: dict[str, Any]) -> dict[str, Any]:
    return {"type": "where", "nodes": [{"protocol": one.protocol, "host": one.address[0], "port": one.port} for one in nodes]}


def _received(sinks: list[MessageSink], message: dict[str, Any]) -> dict[str, Any]:
    return {"type": "received", "devices": [sink.status() for sink in sinks]}


def _forget(sinks: list[MessageSink], message: dict[str, Any]) -> dict[str, Any]:
    for sink in sinks:
        sink.reset()
    return _received(sinks, message)


def _vanish(sinks: list[MessageSink], message: dict[str, Any]) -> dict[str, Any]:
    for sink in sinks:
        sink.vanish(bool(message.get("gone", True)))
    return _received(sinks, message)


_OF_SINKS = {"received": _received, "forget": _forget, "vanish": _vanish}
_ANSWERS = {"status": _status, "where": _where, "gaps": _gaps, "reset": _reset, "misbehave": _misbehave}
