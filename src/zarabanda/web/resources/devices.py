"""Outside devices that cues send messages to, and what the simulated ones got."""

from __future__ import annotations

from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy import func, select

from zarabanda import network_settings
from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.formats.device_document import DeviceDocument
from zarabanda.outputs.lines import midi_ports
from zarabanda.show import repositories
from zarabanda.show.tables import DeviceRow, Reference

from ..context import browser_id, context
from ..parts import Done
from .device_models import DeviceContent, DevicePath, DevicesView, DeviceView, SimulatedDevice, Unplug
from .output import asked

api = APIBlueprint("devices", __name__, url_prefix="/api/output/devices", abp_tags=[Tag(name="output")])


@api.get("", responses={200: DevicesView})
def get_devices() -> DevicesView:
    """All devices, and what the simulated ones got."""
    return _now()


def _now() -> DevicesView:
    with context().store.reading() as session:
        counted = select(Reference.used_id, func.count()).where(Reference.used_table == DeviceRow.__tablename__)
        used = {row[0]: row[1] for row in session.execute(counted.group_by(Reference.used_id))}
        rows = [(row.id, row.name, repositories.devices.document_of(row)) for row in repositories.devices.every(session)]
    answer = asked({"type": "received"})
    return DevicesView(
        devices=[
            DeviceView(id=number, name=name, document=document, words=document.words, used=used.get(number, 0))
            for number, name, document in rows
        ],
        midi_ports=midi_ports(),
        simulated=[SimulatedDevice(**one) for one in answer["devices"]] if answer is not None else [],
    )


def _agreed(body: DeviceContent) -> None:
    """Refuse to send where nothing was sent before, until the user has agreed."""
    to: DeviceDocument = body.document
    data = context().data
    if not to.destination or network_settings.read(data).allows(to.destination):
        return
    if not body.agreed:
        raise InUse(f"Messages will be sent as {to.words}. Nothing was sent there before: agree to it first.", "agreed")
    try:
        network_settings.allow(data, to.destination)
    except OSError as error:
        raise ZarabandaError(f"{network_settings.FILE} cannot be written: {error.strerror}. Make room, and try again.") from error


@api.post("", responses={201: DevicesView})
def make_device(body: DeviceContent) -> tuple[DevicesView, int]:
    """A new device."""
    _agreed(body)
    with context().store.edit(browser_id(), f"New device {body.name}") as session:
        repositories.devices.add(session, body.name.strip(), body.document)
    return _now(), 201


@api.put("/<int:device_id>", responses={200: DevicesView})
def change_device(path: DevicePath, body: DeviceContent) -> DevicesView:
    """Another name or place for a device."""
    _agreed(body)
    with context().store.edit(browser_id(), f"Change the device {body.name}") as session:
        repositories.devices.change(session, path.device_id, body.name.strip(), body.document)
    return _now()


@api.delete("/<int:device_id>", responses={200: Done})
def delete_device(path: DevicePath) -> Done:
    """Delete a device that no cue sends to."""
    with context().store.edit(browser_id(), "Delete a device") as session:
        repositories.devices.remove(session, path.device_id)
    return Done(done="Deleted the device")


@api.post("/unplug", responses={200: DevicesView})
def unplug(body: Unplug) -> DevicesView:
    """Unplug a simulated device, or plug it in again: nothing of the show changes."""
    _of_simulators({"type": "vanish", "speaks": body.speaks, "gone": body.gone})
    return _now()


@api.post("/forget", responses={200: DevicesView})
def forget() -> DevicesView:
    """Let the simulated devices forget what they got."""
    _of_simulators({"type": "forget"})
    return _now()


def _of_simulators(message: dict[str, Any]) -> None:
    if asked(message) is None:
        raise NotThere("The simulated devices do not run. Start Zarabanda with demo or serve, without --no-node.", "speaks")
