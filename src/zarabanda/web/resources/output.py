"""Universes, and what the simulated nodes see of them."""

from __future__ import annotations

from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda import wire
from zarabanda.errors import InUse, NotThere
from zarabanda.show import repositories

from ..context import context
from .output_models import (
    Misbehave,
    NodesView,
    NodeUniverse,
    NodeView,
    UniverseFixture,
    UniversesView,
    UniverseView,
)

api = APIBlueprint("output", __name__, url_prefix="/api/output", abp_tags=[Tag(name="output")])


@api.get("/universes", responses={200: UniversesView})
def get_universes() -> UniversesView:
    """Universes of the patch, with the fixtures in them by address."""
    with context().store.reading() as session:
        modes = repositories.rig.modes(session)
        names = {number: mode.spec().slot_names for number, mode in modes.items()}
        views: dict[int, UniverseView] = {}
        patched = [(f.universe, f.address, f) for f in repositories.rig.every(session) if f.universe and f.address]
        for universe, address, f in sorted(patched, key=lambda one: one[:2]):
            view = views.setdefault(universe, UniverseView(universe=universe, used=0, fixtures=[]))
            view.used += len(names[f.mode_id])
            view.fixtures.append(
                UniverseFixture(
                    number=f.number, name=f.name, mode=modes[f.mode_id].name, address=address, channels=names[f.mode_id]
                )
            )  # fmt: skip
    return UniversesView(universes=list(views.values()))


@api.get("/nodes", responses={200: NodesView})
def get_nodes() -> NodesView:
    """What the simulated nodes count and decode."""
    return _nodes_now()


def _nodes_now() -> NodesView:
    answer = asked({"type": "status"})
    nodes = []
    for one in answer["nodes"] if answer is not None else ():
        rows = [NodeUniverse(**{**row, "slots": list(row["slots"])}) for row in one["universes"]]
        nodes.append(NodeView(**{**one, "universes": rows}))
    return NodesView(nodes=nodes)


@api.post("/misbehave", responses={200: NodesView})
def misbehave(body: Misbehave) -> NodesView:
    """Let a simulated node misbehave from now on: nothing of the show changes."""
    faults = body.model_dump(exclude={"protocol"})
    answer = asked({"type": "misbehave", "protocol": body.protocol, "faults": faults})
    if answer is None:
        raise NotThere("The simulated nodes do not run. Start Zarabanda with demo or serve, without --no-node.", "protocol")
    if answer["type"] == "refused":
        raise InUse(answer["message"], "protocol")
    return _nodes_now()


def simulators() -> dict[str, tuple[str, int]]:
    """Address and port of each simulated node that runs, by its protocol."""
    answer = asked({"type": "where"})
    return {one["protocol"]: (one["host"], one["port"]) for one in answer["nodes"]} if answer is not None else {}


def asked(message: dict[str, Any]) -> dict[str, Any] | None:
    """What the simulated nodes answer; None where they do not run."""
    try:
        with wire.connect(wire.socket_path(context().data, "node")) as connection:
            wire.send(connection, message)
            answer: dict[str, Any] | None = wire.receive(connection, wire.PLAIN)
            return answer
    except OSError:
        return None
