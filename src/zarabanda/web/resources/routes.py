"""Routes: which universes go where, and who else is on the network."""

from __future__ import annotations

from collections.abc import Callable

import msgspec
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda import network_settings
from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.formats import route_document
from zarabanda.formats.route_document import RouteDocument, in_ranges
from zarabanda.formats.route_words import sentence, what_goes_out
from zarabanda.listening.heard import NodeHeard
from zarabanda.listening.listener import looks_on
from zarabanda.messages import ARTNET, SIMULATOR, RoutePart
from zarabanda.network_settings import NetworkSettings
from zarabanda.outputs.interfaces import Interface, interfaces
from zarabanda.show import repositories
from zarabanda.show.tables import RouteRow

from ..context import browser_id, context
from ..hearing import rivals
from .output import simulators
from .route_models import (
    AddRoute,
    ChangeRoute,
    DeleteRoute,
    FoundNode,
    FoundSource,
    FoundView,
    InterfaceView,
    Listening,
    RouteDone,
    RoutesView,
    RouteView,
    SwitchRoute,
)

api = APIBlueprint("routes", __name__, url_prefix="/api/output", abp_tags=[Tag(name="output")])


@api.get("/routes", responses={200: RoutesView})
def get_routes() -> RoutesView:
    """All routes, and the interfaces that they can leave by."""
    link, settings = context().link, network_settings.read(context().data)
    with context().store.reading() as session:
        rows = [(row.id, repositories.routes.document_of(row), row.on) for row in repositories.routes.every(session)]
    views = []
    for number, document, on in rows:
        part = document.part(number, on=on)
        ask = "" if _may_go(part, settings) else what_goes_out(part)
        views.append(
            RouteView(
                id=number, line=document.line, document=document, on=on, words=sentence(document), ask=ask,
                carried=[(one, part.number_there(one)) for one in link.rig.universes if part.carries(one)],
            )
        )  # fmt: skip
    lost = sorted(set(link.rig.universes) - link.carried)
    return RoutesView(
        routes=views, interfaces=[_interface(one) for one in interfaces()],
        lost=route_document.as_text(in_ranges(lost)) if lost else "",
    )  # fmt: skip


def _may_go(part: RoutePart, settings: NetworkSettings) -> bool:
    """Whether a route may send without the user being asked."""
    return part.to == SIMULATOR or settings.allows(part.destination)


def _interface(one: Interface) -> InterfaceView:
    return InterfaceView(name=one.name, address=one.address, broadcast=one.broadcast, up=one.up, words=one.in_words)


def _document(body: AddRoute) -> RouteDocument:
    if (body.document is None) == (not body.line.strip()):
        raise ZarabandaError(f"Give either a line, such as {route_document.EXAMPLE}, or the fields of a route.", "line")
    return body.document if body.document is not None else route_document.read_line(body.line)


def _done(text: str, number: int) -> RouteDone:
    return RouteDone(done=text, id=number, revision=context().link.revision)


@api.post("/routes/add", responses={201: RouteDone})
def add(body: AddRoute) -> tuple[RouteDone, int]:
    """Add a route. It is off until it is switched on."""
    document = _document(body)
    with context().store.edit(browser_id(), f"Add a route to {document.to}") as session:
        number = repositories.routes.add(session, document).id
    return _done("Added", number), 201


@api.post("/routes/change", responses={200: RouteDone})
def change(body: ChangeRoute) -> RouteDone:
    """Change a route. One that would go where nothing was allowed to go yet is switched off."""
    document = _document(body)
    allowed = _may_go(document.part(body.id, on=True), network_settings.read(context().data))
    with context().store.edit(browser_id(), f"Change the route to {document.to}") as session:
        repositories.routes.change(session, body.id, document, on=None if allowed else False)
    return _done("Changed" if allowed else "Changed, and switched off: nothing was sent there before", body.id)


@api.post("/routes/switch", responses={200: RouteDone})
def switch(body: SwitchRoute) -> RouteDone:
    """Switch a route on or off. To go where nothing was sent before, the user must have agreed."""
    data = context().data
    with context().store.reading() as session:
        part = repositories.routes.part_of(repositories.rows.get(session, RouteRow, body.id, "route"))
    if body.on and not _may_go(part, network_settings.read(data)):
        if not body.agreed:
            raise InUse(f"{what_goes_out(part)} Nothing was sent there before: agree to it first.", "agreed")
        _kept(lambda: network_settings.allow(data, part.destination))
    with context().store.edit(browser_id(), f"Switch the route to {part.to} {'on' if body.on else 'off'}") as session:
        repositories.routes.change(session, body.id, on=body.on)
    return _done("On" if body.on else "Off", body.id)


@api.post("/routes/delete", responses={200: RouteDone})
def delete(body: DeleteRoute) -> RouteDone:
    """Delete a route. Its streams end, as the standard wants it."""
    with context().store.edit(browser_id(), "Delete a route") as session:
        repositories.routes.remove(session, body.id)
    return _done("Deleted", body.id)


# the network


@api.get("/found", responses={200: FoundView})
def get_found() -> FoundView:
    """Nodes and other sources that are heard."""
    return found_now()


def found_now() -> FoundView:
    """What is heard now, as it is shown."""
    link, found = context().link, context().hearing.found
    settings = network_settings.read(context().data)
    here = simulators().get(ARTNET, ("", 0))[0]
    return FoundView(
        listening=found.listening, look_on=settings.look_on,
        ask={one.name: _look_ask(one) for one in interfaces() if looks_on(one.name) not in settings.allowed},
        ports=found.ports, nodes=[_found_node(one, link.routes, here) for one in found.nodes],
        sources=[
            FoundSource(
                name=one.name, address=one.address, universes=route_document.as_text(in_ranges(one.universes)) if one.universes
                else "none", ago_s=round(one.ago_s, 1), silent=one.silent,
            )
            for one in found.sources
        ],
        rivals=[one.text for one in rivals(link, found.streams)], faults=found.faults, skipped=found.skipped,
        troubles=found.troubles,
    )  # fmt: skip


def _look_ask(one: Interface) -> str:
    where = f"broadcast to everything on the network of {one.in_words}" if one.broadcast else f"sent over {one.in_words}"
    return f"A question, ArtPoll, will be {where} every 3 seconds, and multicast of E1.31 will be joined there. No light is sent."


def _found_node(one: NodeHeard, routes: list[RoutePart], here: str) -> FoundNode:
    """here: the address of the simulated node."""
    numbers = in_ranges([number for number in one.outputs if number > 0]) or ((1, 1),)
    to = SIMULATOR if one.address == here else one.address
    return FoundNode(
        address=one.address, name=one.name, long_name=one.long_name, report=one.report,
        outputs=route_document.as_text(in_ranges(one.outputs)) if one.outputs else "none", ago_s=round(one.ago_s, 1),
        silent=one.silent, line=f"{route_document.as_text(numbers)} to {to} as {ARTNET}",
        routed=any(route.protocol == ARTNET and route.to == to for route in routes),
    )  # fmt: skip


@api.post("/listening", responses={200: FoundView})
def listen(body: Listening) -> FoundView:
    """Whether to listen, and where beside this machine. To look on a network for the first time, the user must have agreed."""
    data = context().data
    now = network_settings.read(data)
    allowed = now.allowed
    if body.look_on:
        one = next((one for one in interfaces() if one.name == body.look_on), None)
        if one is None:
            names = ", ".join(one.name for one in interfaces())
            raise NotThere(f"There is no interface “{body.look_on}”. Choose one of {names}.", "look_on")
        if looks_on(one.name) not in allowed:
            if not body.agreed:
                raise InUse(f"{_look_ask(one)} Agree to it first.", "agreed")
            allowed = [*allowed, looks_on(one.name)]
    fresh = msgspec.structs.replace(now, listen=body.listen, look_on=body.look_on, allowed=allowed)
    _kept(lambda: network_settings.write(data, fresh))
    return found_now()


def _kept(write: Callable[[], None]) -> None:
    try:
        write()
    except OSError as error:
        raise ZarabandaError(f"{network_settings.FILE} cannot be written: {error.strerror}. Make room, and try again.") from error
