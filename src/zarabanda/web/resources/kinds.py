"""Kinds of fixtures: plain ones, and those of the show."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda.core.explain.modes import fineness, fit_in_a_universe, limits_of
from zarabanda.core.rig.attributes import BY_NAME, COMPOUND
from zarabanda.core.rig.modes import EMITTERS, ModeSpec, emitters_for
from zarabanda.errors import InUse, ZarabandaError
from zarabanda.formats.rig_document import ChannelPart, ModeDocument
from zarabanda.show import repositories
from zarabanda.stock.kinds import plain_kinds
from zarabanda.stock.making import label_of

from ..context import browser_id, context
from .kind_models import KindsView, KindView, MakeKind

api = APIBlueprint("kinds", __name__, url_prefix="/api/kinds", abp_tags=[Tag(name="rig")])


@api.get("", responses={200: KindsView})
def get_kinds() -> KindsView:
    """All modes that fixtures can have: of the show, and plain kinds, with what they cost and give."""
    with context().store.reading() as session:
        own = repositories.rig.modes(session)
    names = {mode.name for mode in own.values()}
    plain = [mode for name, mode in plain_kinds().items() if name not in names]
    return KindsView(
        kinds=[*(view(mode, number) for number, mode in own.items()), *(view(mode, None) for mode in plain)],
        sources=sources(),
    )


def sources() -> list[str]:
    """What a channel can carry."""
    return [*BY_NAME, *dict.fromkeys(name for names in EMITTERS.values() for name in names if name not in BY_NAME)]


def view(mode: ModeDocument, number: int | None) -> KindView:
    """A mode as it is listed."""
    spec = mode.spec()
    return KindView(
        id=number, name=mode.name, label=mode.label, maker=mode.maker, model=mode.model, kind=mode.kind,
        footprint=mode.footprint, fit=fit_in_a_universe(spec), cells=len(mode.cells), leads=spec.leads, bits=fineness(spec),
        limits=limits_of(spec),
        attributes=_able(spec),
    )  # fmt: skip


def _able(mode: ModeSpec) -> list[str]:
    """What its heads can do, in words; red, green and blue are colour."""
    names = [name for part in mode.parts for name in mode.attributes_of(part)]
    drives = COMPOUND["colour"]
    return list(dict.fromkeys("Colour" if name in drives else BY_NAME[name].label for name in names))


@api.post("", responses={201: KindView})
def make(body: MakeKind) -> tuple[KindView, int]:
    """A kind from its channel list: channels in order, each with what it carries, how fine, its range and its home value."""
    slot, rows = 0, []
    limits = {}
    for channel in body.channels:
        if channel.source:
            rows.append(
                ChannelPart(
                    source=channel.source, slots=list(range(slot, slot + channel.bits // 8)), low=channel.low, high=channel.high
                )
            )
            if channel.source in BY_NAME:
                limits[channel.source] = (min(channel.low, channel.high), max(channel.low, channel.high), channel.home)
        slot += channel.bits // 8
    if not rows:
        raise ZarabandaError("None of these channels carries anything: choose an attribute for at least one.", "channels")
    emitters = emitters_for({row.source for row in rows})
    label = label_of([{"slots": row.slots} for row in rows], slot)
    document = ModeDocument(
        name=f"{body.model.strip()}, {label}", maker=body.maker.strip(), model=body.model.strip(), kind=body.kind,
        emitters=emitters, channels=rows, footprint=slot, limits=limits, beam_deg=body.beam_deg,
    )  # fmt: skip
    with context().store.edit(browser_id(), f"Make the kind {document.model}") as session:
        if document.name in plain_kinds() or any(mode.name == document.name for mode in repositories.rig.modes(session).values()):
            raise InUse(f"There is a kind “{document.name}” already. Choose another name.", "model")
        number = repositories.rig.keep_mode(session, document)
    return view(document, number), 201
