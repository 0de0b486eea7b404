"""What the API takes and gives of routes, and of what is found on the network."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from zarabanda.formats.route_document import RouteDocument

from ..parts import Done, Part


class InterfaceView(BaseModel):
    """A network interface with its address."""

    name: str
    address: str
    broadcast: str
    up: bool
    words: str


class RouteView(BaseModel):
    """A route. line: as it is typed; words: as a sentence; ask: what a user must agree to before it sends, empty: nothing;
    carried: universes of the rig that it carries, each by its number here and there."""

    id: int
    line: str
    document: RouteDocument
    on: bool
    words: str
    ask: str
    carried: list[tuple[int, int]]


class RoutesView(BaseModel):
    """All routes; interfaces that exist; lost: universes of the rig that no route carries which is on, in words."""

    routes: list[RouteView]
    interfaces: list[InterfaceView]
    lost: str


class AddRoute(Part):
    """A new route, by its line or by its fields; it is off."""

    line: Annotated[str, Field(max_length=2000)] = ""
    document: RouteDocument | None = None


class ChangeRoute(AddRoute):
    """Another line or other fields."""

    id: Annotated[int, Field(ge=1, le=2**31 - 1)]


class SwitchRoute(Part):
    """On or off. agreed: the user has read what will be sent where."""

    id: Annotated[int, Field(ge=1, le=2**31 - 1)]
    on: bool
    agreed: bool = False


class DeleteRoute(Part):
    """Delete one."""

    id: Annotated[int, Field(ge=1, le=2**31 - 1)]


class RouteDone(Done):
    """What was done, to which route."""

    id: int
    revision: int


class FoundNode(BaseModel):
    """An Art-Net node that has answered. line: the route that one tap makes; routed: whether one goes there already."""

    address: str
    name: str
    long_name: str
    report: str
    outputs: str
    ago_s: float
    silent: bool
    line: str
    routed: bool


class FoundSource(BaseModel):
    """Another source of E1.31."""

    name: str
    address: str
    universes: str
    ago_s: float
    silent: bool


class FoundView(BaseModel):
    """What is heard. rivals: others on universes of ours, in words; faults: packets that could not be read, by what was wrong;
    look_on: the interface that is looked on beside this machine; ask: by interface, what must be agreed to before."""

    listening: bool
    look_on: str
    ask: dict[str, str]
    ports: list[str]
    nodes: list[FoundNode]
    sources: list[FoundSource]
    rivals: list[str]
    faults: dict[str, int]
    skipped: int
    troubles: list[str]


class Listening(Part):
    """Whether to listen, and on which interface beside this machine. agreed: the user has read what will be sent there."""

    listen: bool = True
    look_on: Annotated[str, Field(max_length=40)] = ""
    agreed: bool = False
