"""An outside device as a document: what it speaks, and where it is. One definition for API and database."""

from __future__ import annotations

from ipaddress import IPv4Address
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator, model_validator

from zarabanda.errors import shown
from zarabanda.messages import OSC, SIMULATOR, DevicePart

USUAL_OSC_PORT = 8000


class DeviceDocument(BaseModel):
    """to: simulator, an address, or of one that speaks MIDI a MIDI port of this machine by its name; port: of the address."""

    model_config = ConfigDict(extra="forbid")

    speaks: Literal["OSC", "MIDI"]
    to: Annotated[str, Field(min_length=1, max_length=120)] = SIMULATOR
    port: Annotated[int, Field(ge=0, le=65_535)] = 0

    @field_validator("to")
    @classmethod
    def _trimmed(cls, text: str) -> str:
        word = text.strip()
        return SIMULATOR if word.lower().removeprefix("the ") == SIMULATOR else word

    @model_validator(mode="after")
    def _fits(self) -> DeviceDocument:
        try:
            address = IPv4Address(self.to)
        except ValueError:
            address = None
        if address is None:
            self.port = 0
            if self.to != SIMULATOR and (self.speaks == OSC or self.to[0].isdecimal()):
                raise ValueError(f"{shown(self.to)} is no address: give four numbers such as 192.0.2.20, or simulator")
        else:
            if address.is_multicast or address.is_unspecified or address.is_reserved:
                raise ValueError(f"{self.to} is not the address of a device")
            if not self.port:
                raise ValueError(f"say on which port of {self.to} it listens, 1 to 65535 (OSC often: {USUAL_OSC_PORT})")
        return self

    @property
    def destination(self) -> str:
        """What a user must agree to before anything goes there; empty: it stays on this machine."""
        return self.to if self.port else ""

    def part(self, number: int, name: str) -> DevicePart:
        """As the engine works with it."""
        return DevicePart(number, name, self.speaks, self.to, self.port)

    @property
    def words(self) -> str:
        """Where it is, in words."""
        if self.to == SIMULATOR:
            return f"{self.speaks}, simulated on this machine"
        way = "UDP" if self.speaks == OSC else "TCP"
        return f"{self.speaks} to {self.to}, {way} port {self.port}" if self.port else f"MIDI by the port “{self.to}”"
