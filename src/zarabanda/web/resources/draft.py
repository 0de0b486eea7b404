"""The draft: values set by hand, and effects that run on them."""

from __future__ import annotations

from dataclasses import asdict

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel
from sqlalchemy import select

from zarabanda.core.explain.base import BaseValue, base_of, base_values, movers, pointed_at
from zarabanda.core.explain.drafted import listed
from zarabanda.core.playback import by_hand
from zarabanda.core.playback.by_hand import Change, changed, read_change
from zarabanda.core.rig import attributes
from zarabanda.core.rig.aims import WAYS, aimed
from zarabanda.errors import ZarabandaError
from zarabanda.messages import PaletteUse, PlayerId, Values
from zarabanda.show import repositories
from zarabanda.show.tables import DraftEffect, EffectRow, PaletteRow

from ..beneath import beneath
from ..by_hand import Changes, DraftNow, set_by_hand
from ..context import browser_id, context
from ..parts import Done, Id
from .draft_models import (
    AimDone,
    AimLights,
    BaseAsk,
    BaseValueView,
    BaseView,
    ChangeDone,
    ChangeValues,
    DraftedView,
    DraftEffectView,
    DraftValues,
    DraftView,
    FrozenLook,
    OnDraft,
    PaletteSet,
    SlotView,
    TakeBack,
    TakeFromStage,
    UsePalette,
)
from .fans import view as fan_view
from .selection import known_heads

api = APIBlueprint("draft", __name__, url_prefix="/api/draft", abp_tags=[Tag(name="draft")])


class DraftPath(BaseModel):
    """Which effect of the draft."""

    draft_id: Id


@api.get("", responses={200: DraftView})
def get_draft() -> DraftView:
    """All of the draft."""
    with context().store.reading() as session:
        rows = session.execute(
            select(DraftEffect, EffectRow).join(EffectRow, EffectRow.id == DraftEffect.effect_id).order_by(DraftEffect.id)
        )
        values = DraftNow(session).numbers()
        return DraftView(
            values=values,
            listed=[DraftedView(**asdict(one)) for one in listed(values, repositories.draft.sources(session))],
            fans=[fan_view(number, fan) for number, fan in repositories.draft.fans(session).items()],
            effects=[DraftEffectView(id=d.id, effect_id=e.id, name=e.name, kept=e.kept, heads=d.heads) for d, e in rows],
        )


@api.post("/base", responses={200: BaseView})
def get_base(body: BaseAsk) -> BaseView:
    """What chosen heads have below all effects: values set by hand, else of cue lists, else home, with the range they share."""
    with context().store.reading() as session:
        values, sources = DraftNow(session).numbers(), repositories.draft.sources(session)
    under = beneath()
    return BaseView(
        pointed_at=pointed_at(under.rig, values, body.heads),
        values=[
            BaseValueView(
                attribute=one.attribute.name, label=one.attribute.label, unit=one.attribute.unit, family=one.attribute.family,
                heads=list(one.heads), low=one.low, high=one.high, value=one.value, least=one.least, most=one.most,
                mixed=one.mixed, by_hand=one.by_hand, source=one.source, slots=_slots(one),
            )
            for one in base_of(under.rig, values, body.heads, under.with_draft(sources))
        ]
    )  # fmt: skip


def _slots(value: BaseValue) -> list[SlotView]:
    """What is in the slots of a wheel of the first head."""
    if not value.attribute.stepped:
        return []
    link = context().link
    mode = link.fixtures[int(link.rig.fixture[link.rig.heads.index[value.heads[0]]])].mode
    known = dict(enumerate(mode.gobo_slots))
    every = [known.get(n, (f"slot {n + 1}", "")) for n in range(int(value.low), int(value.high) + 1)]
    return [SlotView(name=name, picture=picture) for name, picture in every]


@api.post("/values", responses={200: Done})
def set_values(body: DraftValues) -> Done:
    """Set or take back values. A preview is on stage at once, and gone with the next edit."""
    known_heads([key for heads in body.values.values() for key in heads])

    set_by_hand(lambda drafted: body.values, body.label, preview=body.preview, fade_s=body.fade_s)
    return Done(done="shown" if body.preview else body.label)


@api.post("/change", responses={200: ChangeDone})
def change_values(body: ChangeValues) -> ChangeDone:
    """Set one attribute of heads to a value or by a difference, each within what it can do."""
    attribute = attributes.BY_NAME.get(body.attribute)
    if attribute is None:
        raise ZarabandaError(f"There is no attribute {body.attribute}; use one of {', '.join(attributes.BY_NAME)}.", "attribute")
    change, heads = _change(body, attribute), known_heads(body.heads)

    found: list[by_hand.Changed] = []

    def changes(drafted: DraftNow) -> Changes:
        before = drafted.numbers(attribute.name).get(attribute.name, {})
        found.append(changed(beneath().rig, before, heads, attribute, change))
        return {attribute.name: found[0].values}

    label = f"{'Change' if change.relative else 'Set'} {attribute.label.lower()}"
    set_by_hand(changes, label, preview=body.preview, fade_s=body.fade_s)
    return ChangeDone(done=label, limited=_beyond(found[0], attribute))


def _beyond(found: by_hand.Changed, attribute: attributes.Attribute) -> str:
    if not found.limited:
        return ""
    ends = f"{found.low:g} to {found.high:g} {attribute.unit}".strip().replace("-", "−")
    if found.limited == len(found.values):
        return f"{attribute.label} goes from {ends} only: it stops there."
    return f"{attribute.label} goes from {ends} only: {found.limited} of {len(found.values)} lights stop there."


def _change(body: ChangeValues, attribute: attributes.Attribute) -> Change:
    """What is asked for."""
    given = [one for one in (body.text, body.to, body.by) if one is not None]
    if len(given) != 1:
        raise ZarabandaError("Give one of text, to and by: what was typed, a value, or a difference.", "text")
    if body.text is None:
        return Change(body.to, False) if body.to is not None else Change(body.by or 0.0, True)
    try:
        return read_change(body.text, attribute)
    except ValueError as error:
        raise ZarabandaError(f"{error}.", "text") from error


@api.post("/palette", responses={200: PaletteSet})
def use_palette(body: UsePalette) -> PaletteSet:
    """Set what a palette has on heads; they follow when it is changed."""
    rig, fallback = context().link.rig, list[str]()
    with context().store.reading() as session:
        row = repositories.rows.get(session, PaletteRow, body.palette, "palette")
        name, palette = row.name, repositories.palettes.to_core(row)
    if not body.heads:
        fallback = [key for key in palette.own if key in rig.heads.index]
        if palette.own and not fallback:
            gone = f"No head that “{name}” was made with is in the rig any more."
            raise ZarabandaError(f"{gone} Select others, and update it from the draft.", "heads")
        if not fallback:
            raise ZarabandaError(f"“{name}” was made for any head: select those that shall have it.", "heads")
    heads = known_heads(body.heads or fallback)
    acts = palette.acts(rig.heads, [rig.heads.index[key] for key in heads], palette.names)
    count = int(acts.any(axis=1).sum())
    if not count:
        raise ZarabandaError(f"“{name}” acts on none of the {len(heads)} selected heads.", "heads")

    use, wanted = PaletteUse(body.palette), dict[str, dict[str, PaletteUse]]()
    for column, attribute in enumerate(palette.names):
        on = [key for key, does in zip(heads, acts[:, column].tolist(), strict=True) if does]
        wanted[attribute] = dict.fromkeys(on, use)
    set_by_hand(lambda drafted: wanted, f"Set {name}", preview=body.preview, fade_s=body.fade_s)
    of = "selected" if body.heads else "of its own heads"
    return PaletteSet(done=f"Set {name}", acts=count, of=len(heads), text=f"{name} acts on {count} of {len(heads)} {of}.")


@api.post("/take-back", responses={200: Done})
def take_back(body: TakeBack) -> Done:
    """Take values out of the draft: what is beneath them comes back."""
    with context().store.edit(browser_id(), "Take back values") as session:
        there = repositories.draft.held(session)
        gone = {}
        for name in body.attributes:
            heads = there.get(name, {}) if body.heads is None else [key for key in body.heads if key in there.get(name, {})]
            gone[name] = dict.fromkeys(heads)
        repositories.draft.set_values(session, gone)
    return Done(done="Took back values")


def _rounded(values: Values) -> Values:
    return {name: {head: round(value, 4) for head, value in heads.items()} for name, heads in values.items()}


@api.post("/take", responses={200: Done})
def take_from_stage(body: TakeFromStage) -> Done:
    """Keep what heads have on stage at this moment, effects and all, as values of the draft."""
    look = context().link.questions.stage_of(known_heads(body.heads))
    with context().store.edit(browser_id(), "Take from stage") as session:
        wanted = {name: values for name, values in look.items() if attributes.BY_NAME[name].family in body.families}
        repositories.draft.set_values(session, _rounded(wanted))
    return Done(done="Took from stage")


@api.post("/aim", responses={200: AimDone})
def aim(body: AimLights) -> AimDone:
    """Point heads at a point on stage, by inverse kinematics; those that have no pan and tilt are left out."""
    way, rig = WAYS.get(body.way), beneath().rig
    if way is None:
        raise ZarabandaError(f"There is no way to aim called {body.way}; use one of {', '.join(WAYS)}.", "way")
    lights = movers(rig, known_heads(body.heads))
    if not len(lights):
        raise ZarabandaError("None of the selected heads can pan and tilt. Select lights that move.", "heads")
    keys = [rig.heads.keys[n] for n in lights.tolist()]
    unreached: list[str] = []

    def changes(drafted: DraftNow) -> Changes:
        values = drafted.numbers("pan", "tilt")
        near = [base_values(rig, values, lights, row) for row in (attributes.PAN, attributes.TILT)]
        points = way.points(rig.heads.places[lights], np.array(body.point), body.amount)
        found = aimed(rig, lights, points, near[0], near[1], other_way=body.other_way)
        unreached.extend(key for key, reached in zip(keys, found.reached.tolist(), strict=True) if not reached)
        turned = {"pan": found.pan.tolist(), "tilt": found.tilt.tolist()}
        return _rounded({name: dict(zip(keys, each, strict=True)) for name, each in turned.items()})

    label = f"Aim {len(keys)} light{'' if len(keys) == 1 else 's'}"
    set_by_hand(changes, label, preview=body.preview, fade_s=body.fade_s)
    return AimDone(done=label, moved=len(keys), unreached=unreached, text=_who_reaches(len(keys), unreached))


def _who_reaches(count: int, unreached: list[str]) -> str:
    if not unreached:
        return f"{count} of {count} reach it."
    first = ", ".join(unreached[:4]) + (f" and {len(unreached) - 4} more" if len(unreached) > 4 else "")
    return f"{count - len(unreached)} of {count} reach it; {first} cannot, and point as near as they can."


@api.delete("", responses={200: Done})
def clear() -> Done:
    """Clear the draft; undo brings it back."""
    with context().store.edit(browser_id(), "Clear the draft") as session:
        repositories.draft.clear(session)
    return Done(done="Cleared the draft")


@api.post("/effects", responses={201: DraftEffectView})
def put_on(body: OnDraft) -> tuple[DraftEffectView, int]:
    """Run an effect on heads."""
    with context().store.edit(browser_id(), "Apply an effect") as session:
        effect = repositories.rows.get(session, EffectRow, body.effect_id, "effect")
        row = repositories.draft.put_on(session, effect.id, known_heads(body.heads))
        return DraftEffectView(id=row.id, effect_id=effect.id, name=effect.name, kept=effect.kept, heads=row.heads), 201


@api.post("/keep-frozen", responses={200: Done})
def keep_frozen(body: FrozenLook) -> Done:
    """Keep what an effect shows on stage while it is frozen as values of the draft, and let the effect go."""
    link = context().link
    look = link.questions.look_of(PlayerId(body.key))
    if look is None:
        raise ZarabandaError("Only what is frozen can be kept as a look. Freeze the effect first.", "key")
    with context().store.reading() as session:
        name = repositories.rows.get(session, EffectRow, repositories.pages.effect_of(session, body.key), "effect").name
    with context().store.edit(browser_id(), f"Keep {name} as a look") as session:
        repositories.draft.set_values(session, _rounded(look))
        if body.key.startswith("draft:"):
            repositories.draft.remove(session, repositories.pages.user_of(session, body.key).id)
        link.let_go.append(PlayerId(body.key))
    return Done(done=f"Kept {name} as a look")


@api.delete("/effects/<int:draft_id>", responses={200: Done})
def take_off(path: DraftPath) -> Done:
    """Take an effect out of the draft."""
    with context().store.edit(browser_id(), "Take an effect out of the draft") as session:
        repositories.draft.remove(session, path.draft_id)
    return Done(done="Taken out of the draft")
