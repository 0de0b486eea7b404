"""The rig and selections on it."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy import select

from zarabanda.core.rig import attributes
from zarabanda.core.selection import orders
from zarabanda.core.selection import words as selection
from zarabanda.errors import ZarabandaError, shown
from zarabanda.show import repositories
from zarabanda.show.tables import Fixture, Mode

from ..context import context
from .rig_models import FixtureView, HeadView, RigView, SelectionOrder, SelectionText, SelectionView

api = APIBlueprint("rig", __name__, url_prefix="/api", abp_tags=[Tag(name="rig")])


@api.get("/rig", responses={200: RigView})
def get_rig() -> RigView:
    """Fixtures, and heads in the order of live frames."""
    link = context().link
    with context().store.reading() as session:
        modes = {mode.name: mode.document for mode in session.scalars(select(Mode))}
        fixtures = session.scalars(select(Fixture).order_by(Fixture.number)).all()
    rig = link.rig
    names = [attribute.name for attribute in attributes.ATTRIBUTES]
    heads = [
        HeadView(
            key=key,
            fixture=int(key.partition(".")[0]),
            cell=int(rig.cell[n]),
            kind=rig.kind[n],
            place=tuple(rig.heads.places[n].tolist()),
            attributes=[name for row, name in enumerate(names) if rig.heads.has[row, n]],
        )
        for n, key in enumerate(rig.heads.keys)
    ]
    views = [
        FixtureView(
            number=f.number, name=f.name, maker=modes[f.mode]["maker"], model=modes[f.mode]["model"], mode=f.mode,
            kind=modes[f.mode]["kind"], heads=max(len(modes[f.mode]["cells"]), 1), universe=f.universe, address=f.address,
            footprint=modes[f.mode]["footprint"], place=(f.x, f.y, f.z),
        )
        for f in fixtures
    ]  # fmt: skip
    return RigView(number=link.rig_number, fixtures=views, heads=heads)


@api.post("/selection", responses={200: SelectionView})
def choose(body: SelectionText) -> SelectionView:
    """Heads that plain words name."""
    with context().store.reading() as session:
        groups = {group.name.lower(): group.heads for group in repositories.groups.every(session)}
    return SelectionView(heads=selection.parse(body.text, context().link.rig.heads, groups, known_heads(body.current)))


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
