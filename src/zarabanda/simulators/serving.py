"""Simulated nodes answer on a local socket: for the Output view, and for measurements."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import Any

from zarabanda import wire
from zarabanda.errors import ZarabandaError
from zarabanda.workers import Troubles

from .node import Faults, SimulatedNode


def serve(nodes: Sequence[SimulatedNode], path: Path) -> wire.Server:
    """Answer `{"type": "status"}`, `where`, `gaps`, `reset` and `misbehave`, each to the nodes of a `protocol`, or to all."""

    def answer(peer: wire.Peer, message: wire.Message) -> None:
        asked = [node for node in nodes if node.protocol == message.get("protocol", node.protocol)]
        try:
            peer.post(_ANSWERS[message["type"]](asked, message))
        except ZarabandaError as error:
            peer.post({"type": "refused", "message": error.message})
        except (KeyError, TypeError, ValueError) as error:
            peer.post({"type": "refused", "message": f"This cannot be asked of a node: {error}."})

    return wire.Server(path, wire.PLAIN, answer, lambda peer: None, Troubles())


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


_ANSWERS = {"status": _status, "where": _where, "gaps": _gaps, "reset": _reset, "misbehave": _misbehave}
