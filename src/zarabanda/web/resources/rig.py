"""The rig and selections on it."""

from __future__ import annotations

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda.core.selection import orders
from zarabanda.core.selection import words as selection
from zarabanda.errors import ZarabandaError, shown
from zarabanda.formats.rig_document import ModeDocument
from zarabanda.show import repositories

from ..context import context
from .rig_models import FixtureView, ModeView, PartView, RigView, SelectionOrder, SelectionText, SelectionView

api = APIBlueprint("rig", __name__, url_prefix="/api", abp_tags=[Tag(name="rig")])


@api.get("/rig", responses={200: RigView})
def get_rig() -> RigView:
    """Fixtures and modes. Heads are in the order of live frames: by fixture number, within each by the parts of its mode."""
    link = context().link
    with context().store.reading() as session:
        modes, fixtures = repositories.rig.modes(session), repositories.rig.every(session)
        within: dict[int, list[int]] = {}
        for group in repositories.groups.every(session):
            for number in dict.fromkeys(int(key.partition(".")[0]) for key in group.heads):
                within.setdefault(number, []).append(group.id)
    return RigView(
        number=link.rig.heads.number,
        fixtures=[
            FixtureView(
                number=f.number, name=f.name, mode_id=f.mode_id, universe=f.universe, address=f.address, place=(f.x, f.y, f.z),
                rotation=(f.turn_x, f.turn_y, f.turn_z), cell_order=f.cell_order, notes=f.notes, groups=within.get(f.number, []),
            )
            for f in fixtures
        ],
        modes=[mode_view(number, mode) for number, mode in modes.items()],
        places=np.round(link.rig.heads.places, 4).ravel().tolist(),
    )  # fmt: skip


def mode_view(number: int, mode: ModeDocument) -> ModeView:
    """A mode as it is shown."""
    spec = mode.spec()
    return ModeView(
        id=number, name=mode.name, label=mode.label, maker=mode.maker, model=mode.model, kind=mode.kind,
        footprint=mode.footprint, cells=len(mode.cells),
        parts=[PartView(part=part, attributes=spec.attributes_of(part)) for part in spec.parts],
    )  # fmt: skip


@api.post("/selection", responses={200: SelectionView})
def choose(body: SelectionText) -> SelectionView:
    """Heads that plain words name."""
    with context().store.reading() as session:
        groups = {group.name.lower(): group.heads for group in repositories.groups.every(session)}
    return SelectionView(
        heads=selection.parse(body.text, context().link.rig.heads, groups, known_heads(body.current), cells=body.cells)
    )


@api.post("/selection/order", responses={200: SelectionView})
def put_in_order(body: SelectionOrder) -> SelectionView:
    """Heads in another order."""
    unknown = [step for step in body.order if step not in orders.ORDERS]
    if unknown:
        raise ZarabandaError(f"There is no order {shown(unknown[0])}; use one of {', '.join(orders.ORDERS)}.", "order")
    return SelectionView(heads=selection.in_order(body.order, known_heads(body.heads), context().link.rig.heads))


def known_heads(keys: list[str]) -> list[str]:
    """The keys, each once, or a clear error about one that the rig does not have."""
    known = set(context().link.rig.heads.keys)
    for key in keys:
        if key not in known:
            raise ZarabandaError(f"The rig has no head {key}. Reload the page to see the rig as it is.", "heads")
    return list(dict.fromkeys(keys))
