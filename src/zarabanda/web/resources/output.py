"""Universes, and what the simulated node sees of them."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy import select

from zarabanda import wire
from zarabanda.show.tables import Fixture, Mode

from ..context import context
from .output_models import NodeUniverse, NodeView, UniversesView, UniverseView

api = APIBlueprint("output", __name__, url_prefix="/api/output", abp_tags=[Tag(name="output")])


@api.get("/universes", responses={200: UniversesView})
def get_universes() -> UniversesView:
    """Universes of the patch, with the fixtures in them by address."""
    with context().store.reading() as session:
        modes = {mode.name: mode.document for mode in session.scalars(select(Mode))}
        views: dict[int, UniverseView] = {}
        for f in session.scalars(select(Fixture).order_by(Fixture.universe, Fixture.address)):
            view = views.setdefault(f.universe, UniverseView(universe=f.universe, used=0, fixtures=[]))
            size = modes[f.mode]["footprint"]
            view.used += size
            names = [""] * size
            for channel in modes[f.mode]["channels"]:
                for n, slot in enumerate(channel["slots"]):
                    fine = (" fine", " finer")[n - 1] if n else ""
                    cell = f" of cell {channel['cell']}" if channel["cell"] else ""
                    names[slot] = f"{channel['source'].replace('_', ' ')}{fine}{cell}"
            view.fixtures.append({"number": f.number, "name": f.name, "address": f.address, "channels": names})
    return UniversesView(universes=list(views.values()))


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
