"""Fans: values of the draft that a rule spreads over heads in their order."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ValidationError

from zarabanda.core.colour.spaces import rgb_to_hsv
from zarabanda.core.explain.base import base_values
from zarabanda.core.rig import attributes
from zarabanda.core.selection.fans import FIXED, Fan, spread
from zarabanda.errors import ZarabandaError
from zarabanda.formats.effect_document import faults
from zarabanda.formats.fan_document import FanDocument
from zarabanda.show import repositories
from zarabanda.show.tables import DraftFan

from ..by_hand import Changes, DraftNow, show
from ..context import browser_id, context
from ..parts import Id
from .draft_models import ChangeFan, FanView, MakeFan
from .selection import known_heads

api = APIBlueprint("fans", __name__, url_prefix="/api/draft/fans", abp_tags=[Tag(name="draft")])


class FanPath(BaseModel):
    """Which fan."""

    fan_id: Id


def view(fan_id: int, document: FanDocument) -> FanView:
    """A fan as the page draws it."""
    row, rig = attributes.BY_NAME[document.attribute], context().link.rig
    known = [rig.heads.index[key] for key in document.heads if key in rig.heads.index]
    able = [n for n in known if rig.heads.has[attributes.INDEX[row.name], n]]
    low = float(rig.low[attributes.INDEX[row.name], able].min()) if able else row.low
    high = float(rig.high[attributes.INDEX[row.name], able].max()) if able else row.high
    values = list(document.values().values())
    ends = " … ".join(f"{round(one, 1):g}".replace("-", "−") for one in (document.start, document.end))
    return FanView(
        id=fan_id, attribute=row.name, label=row.label, unit=row.unit, heads=document.heads, values=values, low=low, high=high,
        fixed=document.fixed, ease=document.ease, parts=document.parts, mirror=document.mirror, words=f"{ends} {row.unit}",
    )  # fmt: skip


def _on(attribute: str, heads: list[str]) -> dict[str, list[str]]:
    """Heads by plain attribute that a fan of this one gives values of: a fan of hue, the colours of those that mix them."""
    rig = context().link.rig

    def having(name: str) -> list[str]:
        return [key for key in heads if rig.heads.has[attributes.INDEX[name], rig.heads.index[key]]]

    on = {attribute: having(attribute)}
    if attribute == "hue":
        on |= {name: having(name) for name in attributes.COMPOUND["colour"]}
    return {name: keys for name, keys in on.items() if keys}


def _checked(document: dict[str, object]) -> FanDocument:
    try:
        return FanDocument.model_validate(document)
    except ValidationError as error:
        place, what = faults(error)[0]
        raise ZarabandaError(f"This fan cannot be made. {what[:1].upper()}{what[1:]}.", place) from error


def _of_hue(values: dict[str, dict[str, float]], heads: list[str]) -> tuple[list[float], dict[str, float]]:
    """Hues that heads have now, and saturation and brightness of the first; white begins fully saturated."""
    rig = context().link.rig
    lights = np.array([rig.heads.index[key] for key in heads], np.int64)
    rgb = np.stack([base_values(rig, values, lights, attributes.INDEX[name]) for name in attributes.COMPOUND["colour"]], axis=-1)
    hsv = rgb_to_hsv(rgb)
    first = {"saturation": float(hsv[0, 1] * 100) or 100.0, "brightness": float(hsv[0, 2] * 100) or 100.0}
    return hsv[:, 0].tolist(), first


def _made(body: MakeFan, heads: list[str], values: dict[str, dict[str, float]]) -> FanDocument:
    rig, row = context().link.rig, attributes.INDEX[body.attribute]
    more: dict[str, float] = {}
    if body.attribute == "hue":
        each, more = _of_hue(values, heads)
    else:
        each = base_values(rig, values, np.array([rig.heads.index[key] for key in heads], np.int64), row).tolist()
    span = each[-1] - each[0]
    rule = spread(np.array(each), body.fixed, body.amount if body.amount or body.fixed == "both ends" else span)
    return _checked({"attribute": body.attribute, "heads": heads, **vars(rule), **more})


@api.post("", responses={201: FanView})
def make_fan(body: MakeFan) -> tuple[FanView, int]:
    """Spread an attribute over heads by a rule; what they had is its beginning."""
    row = attributes.BY_NAME.get(body.attribute)
    if row is None or body.fixed not in FIXED:
        wrong, known = ("attribute", attributes.BY_NAME) if row is None else ("fixed point", FIXED)
        raise ZarabandaError(f"There is no such {wrong}; use one of {', '.join(known)}.", "fixed" if row else "attribute")
    on = _on(body.attribute, known_heads(body.heads))
    able = {key for keys in on.values() for key in keys}
    heads = [key for key in body.heads if key in able]
    if not heads:
        raise ZarabandaError(f"None of the selected heads has {row.label.lower()}. Select others.", "heads")
    with context().store.edit(browser_id(), f"Fan {row.label.lower()}") as session:
        document = _made(body, heads, DraftNow(session).numbers())
        made = repositories.draft.add_fan(session, document, on).id
    return view(made, document), 201


def _changed(document: FanDocument, body: ChangeFan) -> FanDocument:
    rule: Fan = document.rule
    heads = document.heads
    if body.heads is not None:
        if sorted(body.heads) != sorted(heads):
            raise ZarabandaError("These are not the heads of the fan. Give the same ones in another order.", "heads")
        heads = body.heads
    given = {name: value for name in ("fixed", "ease", "parts", "mirror") if (value := getattr(body, name)) is not None}
    if "fixed" in given and given["fixed"] != "both ends":
        given["bow"] = 0.0
    rule = replace(rule, **given)
    if body.amount is not None:
        ends = np.array([rule.start, rule.end]) if rule.fixed != "middle" else np.full(2, (rule.start + rule.end) / 2)
        anew = spread(ends, rule.fixed, body.amount)
        rule = replace(rule, start=anew.start, end=anew.end, bow=anew.bow)
    if body.drag is not None:
        head, value = body.drag
        if head not in heads:
            raise ZarabandaError(f"{head} is not a head of this fan.", "drag")
        rule = rule.dragged(len(heads), heads.index(head), value)
    return _checked(document.model_dump() | vars(rule) | {"heads": heads})


@api.put("/<int:fan_id>", responses={200: FanView})
def change_fan(path: FanPath, body: ChangeFan) -> FanView:
    """Another rule or order, or a head dragged to a value: the others follow by the rule."""
    found: list[FanDocument] = []

    def changes(drafted: DraftNow) -> Changes:
        session = drafted.session
        row = repositories.rows.get(session, DraftFan, path.fan_id, "fan")
        found.append(_changed(FanDocument.model_validate(row.document), body))
        on = repositories.draft.following(session, path.fan_id)
        each = {name: found[0].values_of(name) for name in on}
        return {name: {head: each[name][head] for head in heads if head in each[name]} for name, heads in on.items()}

    if body.preview:
        show(changes)
    else:
        with context().store.edit(browser_id(), "Change a fan") as session:
            changes(DraftNow(session))
            repositories.draft.change_fan(session, path.fan_id, found[0])
    return view(path.fan_id, found[0])
