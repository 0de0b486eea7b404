"""Universes, and what the simulated node sees of them."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda import wire
from zarabanda.formats.rig_document import ModeDocument
from zarabanda.show import repositories

from ..context import context
from .output_models import NodeUniverse, NodeView, UniversesView, UniverseView

api = APIBlueprint("output", __name__, url_prefix="/api/output", abp_tags=[Tag(name="output")])


@api.get("/universes", responses={200: UniversesView})
def get_universes() -> UniversesView:
    """Universes of the patch, with the fixtures in them by address."""
    with context().store.reading() as session:
        names = {number: _slot_names(mode) for number, mode in repositories.rig.modes(session).items()}
        views: dict[int, UniverseView] = {}
        patched = [(f.universe, f.address, f) for f in repositories.rig.every(session) if f.universe and f.address]
        for universe, address, f in sorted(patched, key=lambda one: one[:2]):
            view = views.setdefault(universe, UniverseView(universe=universe, used=0, fixtures=[]))
            view.used += len(names[f.mode_id])
            view.fixtures.append({"number": f.number, "name": f.name, "address": address, "channels": names[f.mode_id]})
    return UniversesView(universes=list(views.values()))


def _slot_names(mode: ModeDocument) -> list[str]:
    names = [""] * mode.footprint
    for channel in mode.channels:
        for n, slot in enumerate(channel.slots):
            fine = (" fine", " finer")[n - 1] if n else ""
            cell = f" of cell {channel.cell}" if channel.cell else ""
            names[slot] = f"{channel.source.replace('_', ' ')}{fine}{cell}"
    return names


@api.get("/node", responses={200: NodeView})
def get_node() -> NodeView:
    """What the simulated node counts and decodes."""
    try:
        connection = wire.connect(wire.socket_path(context().data, "node"))
    except OSError:
        return NodeView(running=False)
    with connection:
        wire.send(connection, {"type": "status"})
        status = wire.receive(connection, wire.PLAIN)
    if status is None:
        return NodeView(running=False)
    rows = [NodeUniverse(**{**row, "slots": list(row["slots"])}) for row in status["universes"]]
    return NodeView(running=True, port=status["port"], bad=status["bad"], last_bad=status["last_bad"], universes=rows)
