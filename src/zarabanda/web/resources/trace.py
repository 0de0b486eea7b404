"""Why a value is what it is: from home to the slots, step by step, each with what it names."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.core.colour.readings import told
from zarabanda.core.colour.spaces import rgb_to_hex
from zarabanda.core.explain import sentence
from zarabanda.core.playback.strips import DRAFT
from zarabanda.core.rig import attributes
from zarabanda.core.rig.modes import head_key
from zarabanda.core.rig.patch import SLOTS
from zarabanda.errors import NotThere, ZarabandaError, shown
from zarabanda.messages import Traced, TraceStep
from zarabanda.show import repositories
from zarabanda.show.references import Names
from zarabanda.show.tables import BuskRow, EffectRow, PaletteRow

from ..context import context
from ..parts import HeadKey, Part

api = APIBlueprint("trace", __name__, url_prefix="/api/trace", abp_tags=[Tag(name="trace")])


class TraceAsk(Part):
    """A head, and the attribute in question; none: the first that it has."""

    head: HeadKey
    attribute: Annotated[str, Field(max_length=40)] | None = None


class TraceSlotAsk(Part):
    """A slot of a universe, 1…512."""

    universe: Annotated[int, Field(ge=1, le=63_999)]
    slot: Annotated[int, Field(ge=1, le=512)]


class Opens(BaseModel):
    """What a line names: a view, and the effect, or the cue of a list, to show there."""

    view: str
    effect: int | None = None
    list: int | None = None
    cue: int | None = None


class TraceLine(BaseModel):
    """One line: who sets it, in words; value after it and target, in words; colour: of a colour, `#rrggbb`; share: 0…1."""

    what: str
    title: str
    detail: str
    value: str
    colour: str | None
    target: str
    share: float | None
    opens: Opens | None


class TraceSlotView(BaseModel):
    """A slot that it comes out at, and what was sent there last; name: what the slot does."""

    universe: int
    slot: int
    value: int
    held: bool
    name: str


class TraceChoice(BaseModel):
    """An attribute, or a colour as a whole."""

    name: str
    label: str


class TraceView(BaseModel):
    """Where a value comes from. attributes: what else this head has, as name and label."""

    head: str
    fixture: str
    attribute: str
    label: str
    attributes: list[TraceChoice]
    lines: list[TraceLine]
    slots: list[TraceSlotView]


_RGB = attributes.COMPOUND["colour"]


def _choices(head: str) -> list[tuple[str, str]]:
    rig = context().link.rig
    number = rig.heads.index.get(head)
    if number is None:
        raise NotThere(f"There is no head {shown(head)}: the rig has changed. Point at another.", "head")
    has = [one for one in attributes.ATTRIBUTES if rig.heads.has[attributes.INDEX[one.name], number]]
    found = [(one.name, one.label) for one in has if one.name not in _RGB[1:]]
    return [("colour", "Colour") if name == _RGB[0] else (name, label) for name, label in found]


@dataclass(frozen=True)
class _Teller:
    """Says the steps of one attribute of one head in words."""

    session: Session
    head: str
    attribute: str

    def value(self, numbers: list[float] | None) -> tuple[str, str | None]:
        """In words, and as a colour."""
        if numbers is None:
            return "", None
        if self.attribute == "colour":
            rgb = np.clip(np.array(numbers), 0, 1)
            return told(rgb), rgb_to_hex(rgb)
        row = attributes.BY_NAME[self.attribute]
        return f"{sentence.number(round(numbers[0], 1))} {row.unit}".strip().replace("-", "−"), None

    def line(self, step: TraceStep) -> TraceLine:
        """One step."""
        value, colour = self.value(step.value)
        title, detail, opens = self._said(step)
        return TraceLine(
            what=step.what, title=title, detail=detail, value=value, colour=colour, target=self.value(step.target)[0],
            share=step.share, opens=opens,
        )  # fmt: skip

    def _said(self, step: TraceStep) -> tuple[str, str, Opens | None]:
        match step.what:
            case "home":
                return "Home", "what it is with nothing set", Opens(view="rig")
            case "claim":
                if step.who.startswith("row:"):
                    return self._of_row(step)
                return self._of_list(step) if step.who != DRAFT else self._claim()
            case "effect":
                return self._effect(step)
            case "range":
                return "Cut off", "at the end of its range", None
            case "two colours":
                return "Two colours", "laid over the colours that are there", Opens(view="busk")
            case "flash":
                return "Flash", f"{step.who}, while it is held", Opens(view="busk")
            case "shown":
                return "Lit to be found", "shown on stage for now", Opens(view="rig")
            case "recorded":
                return f"Recording {step.who}", "plays over everything; read back from its bytes", Opens(view="output")
            case "stand in":
                return step.who[:1].upper() + step.who[1:], "live, until it is given back", None
        return step.who[:1].upper() + step.who[1:], "scales every light", None

    def _of_list(self, step: TraceStep) -> tuple[str, str, Opens | None]:
        """Of a cue list: the cue that its value comes from, where that holds it still."""
        whose = context().link.lists.get(int(step.who.partition(":")[2]))
        if whose is None:
            return "A cue list", "that is gone", None
        opens = Opens(view="cues", list=whose.id, cue=step.cue or None)
        place = whose.index.get(step.cue)
        if place is None:
            return whose.name, "on its way out", opens
        number = context().link.rig.heads.index[self.head]
        row = attributes.INDEX[attributes.touched(self.attribute)[0]]
        source = int(whose.after(place).source[row, number])
        cue = whose.cues[source if source >= 0 else place]
        palette = int(whose.after(place).palettes[row, number])
        kept = self.session.get(PaletteRow, palette) if palette >= 0 else None
        detail = f"cue {cue.number:g} {cue.name}".strip() + (f", palette {kept.name}" if kept is not None else "")
        return whose.name, detail, Opens(view="cues", list=whose.id, cue=cue.id)

    def _of_row(self, step: TraceStep) -> tuple[str, str, Opens | None]:
        """Of a row of a busking page: what of it holds the value."""
        _, number, what = step.who.split(":")
        row = self.session.get(BuskRow, int(number))
        label = attributes.BY_NAME[what].label.lower() if what in attributes.BY_NAME else what
        return (row.name if row is not None else "A row"), f"{label} of its row", Opens(view="busk")

    def _claim(self) -> tuple[str, str, Opens | None]:
        name = attributes.touched(self.attribute)[0]
        source = repositories.draft.sources(self.session).get(name, {}).get(self.head, "")
        plain = {"": "set by hand", "draft": "set by hand", "fan": "set by a fan"}
        return "Draft", plain.get(source, f"palette {source}"), Opens(view="look")

    def _effect(self, step: TraceStep) -> tuple[str, str, Opens | None]:
        row = self.session.get(EffectRow, step.effect)
        if row is None or step.layer is None:
            return step.who, "an effect that is looked at", None
        document = Names.of(self.session).named(row.document)
        inside = step.layer < len(document["layers"])
        words = sentence.as_text(sentence.layer_sentence(document, step.layer)) if inside else ""
        return row.name, words, Opens(view="effects", effect=row.id)


@api.post("", responses={200: TraceView})
def get_trace(body: TraceAsk) -> TraceView:
    """Where a value of a head comes from now."""
    return _of(body.head, body.attribute)


def _of(head: str, wanted: str | None) -> TraceView:
    choices = _choices(head)
    attribute = wanted or choices[0][0]
    attribute = "colour" if attribute in _RGB else attribute
    labels = dict(choices)
    if attribute not in labels:
        known = ", ".join(name for name, _ in choices)
        raise ZarabandaError(f"Head {head} has no {shown(attribute)}; it has {known}.", "attribute")
    link = context().link
    answer: Traced = link.questions.trace_of(head, attribute)
    fixture = link.fixtures[int(link.rig.fixture[link.rig.heads.index[head]])]
    names, first = fixture.mode.slot_names, ((fixture.universe or 1) - 1) * SLOTS + (fixture.address or 1)
    with context().store.reading() as session:
        teller = _Teller(session, answer.of or head, attribute)
        return TraceView(
            head=head, fixture=fixture.name, attribute=attribute, label=labels[attribute],
            attributes=[TraceChoice(name=name, label=label) for name, label in choices],
            lines=[teller.line(step) for step in answer.steps],
            slots=[
                TraceSlotView(
                    universe=one.universe, slot=one.slot, value=one.value, held=one.held,
                    name=names[(one.universe - 1) * SLOTS + one.slot - first],
                )
                for one in answer.slots
            ],
        )  # fmt: skip


@api.post("/slot", responses={200: TraceView})
def get_trace_of_slot(body: TraceSlotAsk) -> TraceView:
    """Where what is sent in a slot comes from now."""
    for fixture in context().link.fixtures:
        if fixture.universe is None or fixture.address is None:
            continue
        offset = (body.universe - fixture.universe) * SLOTS + body.slot - fixture.address
        for channel in fixture.mode.channels:
            if offset in channel.slots:
                known = channel.source in attributes.BY_NAME
                return _of(head_key(fixture.number, channel.cell), channel.source if known else "colour")
    raise NotThere(f"Nothing is at slot {body.slot} of universe {body.universe}: no fixture listens there.", "slot")
