"""Selections on the rig: by words, and in another order."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda.core.selection import orders
from zarabanda.core.selection import words as selection
from zarabanda.errors import ZarabandaError, shown
from zarabanda.show import repositories

from ..context import context
from .rig_models import SelectionOrder, SelectionText, SelectionView

api = APIBlueprint("selection", __name__, url_prefix="/api", abp_tags=[Tag(name="rig")])


@api.post("/selection", responses={200: SelectionView})
def choose(body: SelectionText) -> SelectionView:
    """Heads that plain words name."""
    with context().store.reading() as session:
        groups = {group.name.lower(): group.heads for group in repositories.groups.every(session)}
    heads, current = context().link.rig.heads, known_heads(body.current)
    return SelectionView(heads=selection.parse(body.text, heads, groups, current, cells=body.cells))


@api.post("/selection/order", responses={200: SelectionView})
def put_in_order(body: SelectionOrder) -> SelectionView:
    """Heads in another order."""
    unknown = [step for step in body.order if step not in orders.ORDERS]
    if unknown:
        raise ZarabandaError(f"There is no order {shown(unknown[0])}; use one of {', '.join(orders.ORDERS)}.", "order")
    return SelectionView(heads=selection.in_order(body.order, known_heads(body.heads), context().link.rig.heads))


def known_heads(keys: list[str]) -> list[str]:
    """The keys, each once, or a clear error about one that the rig does not have."""
    known = context().link.rig.heads.index
    for key in keys:
        if key not in known:
            raise ZarabandaError(f"The rig has no head {key}. Reload the page to see the rig as it is.", "heads")
    return list(dict.fromkeys(keys))
