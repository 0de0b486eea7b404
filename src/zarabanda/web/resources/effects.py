"""Effects: the library, edits, weaves."""

from __future__ import annotations

import json
import re
from functools import lru_cache
from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ValidationError
from sqlalchemy.orm import Session

from zarabanda.core.explain import sentence
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, brief
from zarabanda.formats import effect_document, effect_edit
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.show import repositories
from zarabanda.show.references import Names
from zarabanda.show.tables import EffectRow

from .. import weaving
from ..context import browser_id, context
from ..parts import Done, Id
from .effect_models import (
    DocumentWeave,
    EffectChange,
    EffectChanged,
    EffectFile,
    EffectsView,
    EffectView,
    Favourite,
    Imported,
    Keep,
    NewEffect,
    NewEffectView,
    OwnCopy,
    SentenceView,
)
from .selection import known_heads
from .weave_models import FixView, NoticeView, WeaveAsk, WeaveView

api = APIBlueprint("effects", __name__, url_prefix="/api/effects", abp_tags=[Tag(name="effects")])


MOST_CELLS = 300_000
"""Of a weave, heads × columns."""


class EffectPath(BaseModel):
    """Which effect."""

    effect_id: Id


@lru_cache(maxsize=512)
def _read(text: str) -> tuple[str, SentenceView, list[str]]:
    """Name, sentence and families of a document (as JSON text): read once, shown often."""
    shown = EffectDocument.model_validate_json(text).model_dump(mode="json")
    parts = sentence.effect_sentence(shown)
    words = " ".join(sentence.as_text(part) for part in [*parts["layers"], parts["shared"]])
    return shown["name"], SentenceView(**parts, text=words), families_of(shown)


def view(
    session: Session,
    row: EffectRow,
    document: dict[str, Any] | None = None,
    uses: dict[int, list[str]] | None = None,
    names: Names | None = None,
) -> EffectView:
    """An effect for the screen; `document`: as it is being edited; `uses`, `names`: of all effects, where known."""
    shown = document or (names or Names.of(session)).named(row.document)
    found = repositories.effects.all_uses(session, row.id) if uses is None else uses
    try:
        name, words, families = _read(json.dumps(shown))
    except ValidationError as error:
        place, what = effect_document.faults(error)[0]
        text = SentenceView(layers=[], shared=[], text="")
        return EffectView(
            id=row.id, name=row.name, kept=row.kept, favourite=row.favourite, families=[], document={}, sentence=text,
            uses=found.get(row.id, []), broken=f"It cannot be read ({brief(place)}: {what}). Delete it, or import it anew.",
        )  # fmt: skip
    return EffectView(
        id=row.id, name=name, kept=row.kept, favourite=row.favourite, families=families, document=shown, sentence=words,
        uses=found.get(row.id, []),
    )  # fmt: skip


def families_of(document: dict[str, Any]) -> list[str]:
    """Families of attributes that a document moves."""
    touched = {attributes.touched(layer["attribute"])[0] for layer in document["layers"]}
    return [family for family in attributes.FAMILIES if any(attributes.BY_NAME[name].family == family for name in touched)]


def _checked(ask: WeaveAsk) -> WeaveAsk:
    """The heads to weave, each once; refuses heads that the rig does not have, and attributes that there are not."""
    if ask.attribute not in ("look", "colour", *attributes.INDEX):
        known = ", ".join(attributes.INDEX)
        given = ask.attribute[:40]
        raise ZarabandaError(f"There is no attribute {given!r} to weave; use look, colour or one of {known}.", "attribute")
    heads = known_heads(ask.heads)
    if len(heads) * ask.columns > MOST_CELLS:
        most = MOST_CELLS // len(heads)
        raise ZarabandaError(
            f"{len(heads)} heads × {ask.columns} columns are too many; ask for {most} columns at most.", "columns"
        )
    return ask.model_copy(update={"heads": heads})


def _weave(session: Session, document: EffectDocument, ask: WeaveAsk) -> WeaveView:
    with context().weaves.turn():
        return _woven(session, document, ask)


def _woven(session: Session, document: EffectDocument, ask: WeaveAsk) -> WeaveView:
    asked = document.palettes()
    effect = document.to_core(repositories.palettes.by_name(session) if asked else {})
    ask = _checked(ask)
    draft = repositories.draft.look(session)
    bpm = bpm_of(session, document)
    woven = weaving.make(effect, ask, context().link.rig, draft, bpm)
    if ask.notices and asked:
        woven.notices += _missing_palettes(session, document)
    return woven


def bpm_of(session: Session, document: EffectDocument) -> float:
    """Of the tempo of an effect, as it is now."""
    state = context().link.state
    live = {tempo.name: tempo.bpm for tempo in state.tempos} if state else {}
    tempo = document.speed.tempo if document.speed.kind == "tempo" else ""
    kept = repositories.tempos.named(session, tempo)
    return live.get(tempo) or (kept.bpm if kept else 120.0)


def _missing_palettes(session: Session, document: EffectDocument) -> list[NoticeView]:
    there = {row.name for row in repositories.palettes.every(session)}
    return [
        NoticeView(
            kind="palette",
            path=place.rsplit(".", 2)[0],
            text=f"There is no palette “{name}” in this show: there, the lights stay at their base.",
            note=False,
            fix=FixView(operation="set", path=place, value="base", words="Go to the base instead"),
        )
        for name, place in document.palettes().items()
        if name not in there
    ]


@api.get("", responses={200: EffectsView})
def get_library() -> EffectsView:
    """Effects of the library, by name."""
    with context().store.reading() as session:
        uses, names = repositories.effects.all_uses(session), Names.of(session)
        return EffectsView(effects=[view(session, row, uses=uses, names=names) for row in repositories.effects.kept(session)])


@api.post("", responses={201: NewEffectView})
def make_effect(body: NewEffect) -> tuple[NewEffectView, int]:
    """A new effect in the draft (with heads and an attribute), or a document into the library."""
    if (body.attribute is None) == (body.document is None):
        raise ZarabandaError("Give either an attribute, for a new effect, or a document, to add one to the library.", "attribute")
    with context().store.edit(browser_id(), "Start an effect" if body.attribute else "Import an effect") as session:
        if body.document is not None:
            document = effect_document.read(body.document)
            document = document.model_copy(update={"name": repositories.effects.free_name(session, document.name)})
            repositories.palettes.must_exist(session, document)
            row = repositories.effects.store(session, document, kept=True)
            return NewEffectView(effect=view(session, row), draft_id=None), 201
        attribute = str(body.attribute)
        label = attributes.BY_NAME[attribute].label if attribute in attributes.BY_NAME else attribute.capitalize()
        document = effect_edit.new_effect(
            attribute, repositories.effects.free_name(session, f"New {label.lower()} effect"), body.spread
        )
        repositories.tempos.must_exist(session, document)
        row = repositories.effects.store(session, document, kept=False)
        heads = known_heads(body.heads)
        draft = repositories.draft.put_on(session, row.id, heads) if heads else None
        return NewEffectView(effect=view(session, row), draft_id=draft.id if draft else None), 201


@api.post("/import", responses={201: Imported})
def import_effects(body: EffectFile) -> tuple[Imported, int]:
    """Take effects from a file into the library, each under a free name; those that cannot be read are told."""
    good, bad = effect_document.read_set(body.content)
    with context().store.edit(browser_id(), f"Import {len(good)} effect{'s' if len(good) != 1 else ''}") as session:
        names, remarks = [], []
        there = {row.name for row in repositories.palettes.every(session)}
        for document in good:
            try:
                repositories.tempos.must_exist(session, document)
            except ZarabandaError as error:
                bad.append(f"“{document.name}”: {error.message}")
                continue
            free = document.model_copy(update={"name": repositories.effects.free_name(session, document.name)})
            names.append(repositories.effects.store(session, free, kept=True).name)
            remarks += [
                f"“{free.name}” goes to the palette “{name}”, which this show does not have; there it stays at the base."
                for name in document.palettes()
                if name not in there
            ]
    return Imported(effects=names, refused=bad, remarks=remarks), 201


@api.get("/<int:effect_id>", responses={200: EffectView})
def get_effect(path: EffectPath) -> EffectView:
    """One effect."""
    with context().store.reading() as session:
        return view(session, repositories.rows.get(session, EffectRow, path.effect_id, "effect"))


def _changed(session: Session, effect_id: int, body: EffectChange) -> tuple[EffectRow, EffectDocument]:
    row = repositories.rows.get(session, EffectRow, effect_id, "effect")
    before = repositories.effects.document_of(session, row)
    document = effect_edit.change(before, body.operation, body.path, _wanted(session, before, body))
    repositories.tempos.must_exist(session, document)
    repositories.palettes.must_exist(session, document, before=EffectDocument.model_validate(before))
    return row, document


def _wanted(session: Session, document: dict[str, Any], body: EffectChange) -> Any:
    """The value of a change; a position that shall go through stops begins with two kept ones that differ."""
    number = body.path.removeprefix("layers.").removesuffix(".form")
    if body.value != "stops" or body.path != f"layers.{number}.form" or not re.fullmatch("[0-9]{1,2}", number):
        return body.value
    layers = document["layers"]
    if int(number) >= len(layers) or layers[int(number)]["attribute"] != "position":
        return body.value
    different: dict[str, str] = {}
    for row in repositories.palettes.every(session):
        if row.document["family"] == "position":
            different.setdefault(json.dumps([row.document.get("values"), row.document.get("own")], sort_keys=True), row.name)
    return effect_edit.position_stops(list(different.values()))


def _label(name: str, body: EffectChange) -> str:
    if body.operation == "set":
        return f"Change {body.path.split('.')[-1].replace('_', ' ')} of {name}"
    return f"{body.operation.replace('-', ' ').capitalize()} of {name}"


@api.post("/<int:effect_id>/change", responses={200: EffectChanged})
def change_effect(path: EffectPath, body: EffectChange) -> EffectChanged:
    """Change a value, or the layers. A preview is on stage at once, and gone with the next edit."""
    store, link = context().store, context().link
    if body.preview:
        revision = link.revision  # as it is before anything is read: the engine leaves out what an edit has overtaken
        overtaken = 0 < body.step < context().steps.get(browser_id(), 0)
        with store.reading() as session:
            row, document = _changed(session, path.effect_id, body)
            if not overtaken:
                link.preview_effect(row.id, document, revision)
            woven = _weave(session, document, body.weave) if body.weave else None
            return EffectChanged(effect=view(session, row, document.plain()), weave=woven)
    with store.reading() as session:
        name = repositories.rows.get(session, EffectRow, path.effect_id, "effect").name
    context().steps[browser_id()] = max(body.step, context().steps.get(browser_id(), 0))
    with store.edit(browser_id(), _label(name, body)) as session:
        row, document = _changed(session, path.effect_id, body)
        repositories.effects.change(session, row.id, document)
        changed = EffectChanged(effect=view(session, row), weave=None)
        if body.weave:
            _checked(body.weave)
    changed.revision = link.revision
    if body.weave:  # it is on stage already
        with store.reading() as session:
            changed.weave = _weave(session, document, body.weave)
    return changed


@api.post("/<int:effect_id>/weave", responses={200: WeaveView})
def get_weave(path: EffectPath, body: WeaveAsk) -> WeaveView:
    """The weave of an effect on heads."""
    with context().store.reading() as session:
        row = repositories.rows.get(session, EffectRow, path.effect_id, "effect")
        return _weave(session, EffectDocument.model_validate(repositories.effects.document_of(session, row)), body)


@api.post("/weave", responses={200: WeaveView})
def weave_document(body: DocumentWeave) -> WeaveView:
    """The weave of a document that need not be kept, to compare with."""
    with context().store.reading() as session:
        return _weave(session, effect_document.read(body.document), body.weave)


@api.post("/<int:effect_id>/own-copy", responses={201: EffectView})
def make_own_copy(path: EffectPath, body: OwnCopy) -> tuple[EffectView, int]:
    """Give one of its uses a copy of its own; the others keep this effect."""
    with context().store.edit(browser_id(), "Make its own copy") as session:
        repositories.rows.get(session, EffectRow, path.effect_id, "effect")
        return view(session, repositories.effects.own_copy(session, body.key)), 201


@api.post("/<int:effect_id>/keep", responses={200: EffectView})
def keep(path: EffectPath, body: Keep) -> EffectView:
    """Put it into the library under a name, or give it another name."""
    with context().store.edit(browser_id(), f"Keep {body.name.strip()}") as session:
        return view(session, repositories.effects.keep(session, path.effect_id, body.name.strip()))


@api.post("/<int:effect_id>/favourite", responses={200: EffectView})
def set_favourite(path: EffectPath, body: Favourite) -> EffectView:
    """Mark as a favourite, or not."""
    with context().store.edit(browser_id(), "Change a favourite") as session:
        row = repositories.rows.get(session, EffectRow, path.effect_id, "effect")
        row.favourite = body.favourite
        return view(session, row)


@api.post("/<int:effect_id>/duplicate", responses={201: EffectView})
def duplicate(path: EffectPath) -> tuple[EffectView, int]:
    """A copy in the library, under a free name."""
    with context().store.edit(browser_id(), "Duplicate an effect") as session:
        row = repositories.rows.get(session, EffectRow, path.effect_id, "effect")
        return view(session, repositories.effects.copy(session, row, kept=True)), 201


@api.delete("/<int:effect_id>", responses={200: Done})
def delete(path: EffectPath) -> Done:
    """Delete it, and what runs it; undo brings all of it back."""
    with context().store.reading() as session:
        name = repositories.rows.get(session, EffectRow, path.effect_id, "effect").name
    with context().store.edit(browser_id(), f"Delete {name}") as session:
        repositories.effects.remove(session, path.effect_id)
    return Done(done=f"Deleted {name}")
