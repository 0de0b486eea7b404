"""Routes in words: as a sentence, and as what a user agrees to before anything leaves this machine."""

from __future__ import annotations

from zarabanda.messages import ARTNET, BROADCAST, MULTICAST, SIMULATOR, RoutePart
from zarabanda.protocols import e131

from .route_document import PORTS, RouteDocument, as_text


def _which(part: RoutePart) -> str:
    if not part.ranges:
        return "All universes"
    text = as_text(part.ranges)
    return f"Universe{'' if text.isdigit() else 's'} {text}"


def sentence(document: RouteDocument) -> str:
    """A route as a sentence."""
    part = document.part(0, on=True)
    which = _which(part)
    goes = "goes" if which.startswith("Universe ") else "go"
    to = {
        SIMULATOR: "to the simulated node on this machine",
        MULTICAST: "by multicast to all that listen for them",
        BROADCAST: "by broadcast to everything on the network",
    }.get(document.to, f"to {document.to}{f', port {document.port},' if document.port else ''}")
    more = [f"over {document.over}"] if document.over else []
    if document.first is not None:
        more.append(f"numbered from {document.first} there")
    if document.protocol == ARTNET:
        more += ["shown together by ArtSync"] if document.sync else []
    else:
        more.append(f"priority {document.priority}")
        more += [f"shown together by universe {document.sync}"] if document.sync else []
    more.append(f"{document.rate:g} frames a second" if document.always else f"up to {document.rate:g} frames a second")
    return f"{which} {goes} {to} as {document.protocol}, {', '.join(more)}."


def what_goes_out(part: RoutePart) -> str:
    """What a user agrees to: what will be sent where."""
    over = f" over {part.over}" if part.over else ""
    where = {
        MULTICAST: f"to every device on the network that listens for it (multicast, from {e131.multicast_group(1)} on){over}",
        BROADCAST: f"to every device on the network, whether it wants it or not (broadcast){over}",
    }.get(part.to, f"to {part.to}, UDP port {part.port or PORTS[part.protocol]}{over}")
    return (
        f"{_which(part)} will be sent as {part.protocol} {where}, up to {part.rate:g} times a second. Lights there may move "
        "at once."
    )
