"""A rig from an MVR file, compared with the one that is there before anything is done; and the rig as an MVR file."""

from __future__ import annotations

import tempfile
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy.orm import Session

from zarabanda.errors import ZarabandaError
from zarabanda.formats.gdtf.modes import ReadMode
from zarabanda.formats.gdtf.reading import ReadType
from zarabanda.formats.mvr.comparing import Comparison, Fields, changes, compare, fields_of, free_numbers, in_words
from zarabanda.formats.mvr.reading import MOST_BYTES, ReadScene, SceneFixture, read
from zarabanda.formats.mvr.writing import write
from zarabanda.formats.rig_document import FixtureDocument
from zarabanda.show import repositories
from zarabanda.show.tables import Show
from zarabanda.stock.kinds import plain_kinds

from ..bodies import body_into
from ..context import context
from ..jobs import Progress
from ..trying import edited
from .gdtf_files import keep_modes, wheel_pictures
from .mvr_models import MvrQuery, MvrView, UnknownType
from .rig_csv import rig_by_number

api = APIBlueprint("mvr files", __name__, url_prefix="/api/rig", abp_tags=[Tag(name="rig")])
Key = tuple[str, str]
"""Name of a type's file and of a mode in it."""


@dataclass
class Kinds:
    """The mode that fixtures of a type and mode get. coming: from the file; why: those for which there is none."""

    of: dict[Key, str] = field(default_factory=dict)
    coming: dict[str, tuple[ReadMode, ReadType]] = field(default_factory=dict)
    why: dict[Key, str] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)


@api.put("/mvr", responses={200: MvrView})
def take_in_mvr(query: MvrQuery) -> MvrView:
    """Take in a scene: the .mvr file as the body. With preview: what would change. All of it is one undo step."""
    own = context()
    with own.jobs.of_this_request() as progress, tempfile.TemporaryFile(dir=own.data) as file:
        body_into(file, MOST_BYTES)
        file.seek(0)
        scene = read(file, lambda share: progress(0.7 * share))
        return _taken_in(scene, query, progress)


def _taken_in(scene: ReadScene, query: MvrQuery, progress: Progress) -> MvrView:
    chosen = dict(_pair(one) for one in query.kinds)
    with context().store.reading() as session:
        rig = rig_by_number(session)
        kinds = _kinds(session, scene, chosen)
    usable = [one for one in scene.fixtures if _key(one) in kinds.of]
    found = compare(rig, usable, query.by)
    progress(0.8)
    plan = _planned(rig, found, kinds, gone=query.gone == "go")
    label = f"Take in a scene of {len(usable):,} fixtures"

    def act(session: Session) -> list[str]:
        progress(0.85)
        keep_modes(session, kinds.coming.values(), preview=query.preview)
        lost = repositories.rig.uses(session, plan.removed)
        repositories.rig.remove(session, plan.removed)  # first: others may get their numbers
        lost += repositories.rig.change(session, _with_modes(session, plan.changes))
        progress(0.9)
        repositories.rig.add(session, plan.added)
        progress(0.95)
        return lost

    lost = edited(label, query.preview, act) if plan.changes or plan.added or plan.removed else []
    unknown = Counter(_key(one) for one in scene.fixtures if _key(one) in kinds.why)
    return MvrView(
        done="nothing yet" if query.preview else label, lost=lost, revision=context().link.revision, same=plan.same,
        numbers=[one.number for one in plan.added], new=[_new(one) for one in plan.added],
        changed=[in_words(number, rig[number], change) for number, change in plan.changes.items()],
        gone=[f"{number} {rig[number]['name']}" for number in found.gone], kinds=sorted(kinds.coming),
        unknown=[UnknownType(type=type_, mode=mode, why=kinds.why[type_, mode], count=count, kind=chosen.get((type_, mode), ""))
                 for (type_, mode), count in unknown.items()],
        left_out=[f"{one.document.name}: {line}" for one, _ in kinds.coming.values() for line in one.left_out],
        notes=[*scene.notes, *kinds.notes, *plan.notes],
    )  # fmt: skip


def _pair(text: str) -> tuple[Key, str]:
    parts = text.split("|")
    if len(parts) != 3:
        raise ZarabandaError("A kind is chosen as TYPE|MODE|mode of the show.", "kinds")
    return (parts[0], parts[1]), parts[2]


def _key(one: SceneFixture) -> Key:
    return one.type, one.mode


def _kinds(session: Session, scene: ReadScene, chosen: dict[Key, str]) -> Kinds:
    """The mode for each type and mode of the scene: of the show by the same name, from the file, or as it was chosen."""
    there = {mode.name for mode in repositories.rig.modes(session).values()} | plain_kinds().keys()
    found = Kinds()
    for key in dict.fromkeys(_key(one) for one in scene.fixtures):
        type_, mode = key
        if chosen.get(key) in there:
            found.of[key] = chosen[key]
            found.why[key] = "it has a kind of the show instead"
            continue
        read_type = scene.types.get(type_, "it names no type")
        if isinstance(read_type, str):
            found.why[key] = read_type
            continue
        own = next((one for one in read_type.modes if one.name == mode), None)
        if own is None and len(read_type.modes) == 1:
            own = read_type.modes[0]
            found.notes.append(f"{type_} has no mode “{mode}”; its only one, “{own.name}”, is taken")
        if own is None:
            found.why[key] = f"it has no mode “{mode}”"
            continue
        found.of[key] = own.document.name
        if own.document.name not in there:
            found.coming[own.document.name] = (own, read_type)
    return found


@dataclass
class _Plan:
    changes: dict[int, Fields]
    added: list[FixtureDocument]
    removed: list[int]
    same: int
    notes: list[str]


def _planned(rig: dict[int, Fields], found: Comparison, kinds: Kinds, *, gone: bool) -> _Plan:
    wanted = {number: fields_of(one, kinds.of[_key(one)]) for number, one in found.pairs}
    numbers = _numbers(found, gone=gone)
    notes = []
    for (number, one), now in zip(found.pairs, numbers[: len(found.pairs)], strict=True):
        wanted[number]["number"] = now
        if one.number is not None and one.number != now:
            notes.append(f"{one.name or 'A fixture'} is {one.number} in the file; {one.number} is taken, so it is {now}")
    differs = {number: change for number, fields in wanted.items() if (change := changes(rig[number], fields))}
    added = []
    for one, number in zip(found.new, numbers[len(found.pairs) :], strict=True):
        if one.number is not None and number != one.number:
            notes.append(f"{one.name or 'A fixture'} is {one.number} in the file; {one.number} is taken, so it is {number}")
        added.append(
            FixtureDocument(
                number=number, name=one.name or kinds.of[_key(one)], mode=kinds.of[_key(one)], place=one.place,
                rotation=one.rotation, universe=one.universe, address=one.address, layer=one.layer, class_name=one.class_name,
                uuid=one.uuid,
            )
        )  # fmt: skip
    return _Plan(differs, added, found.gone if gone else [], len(wanted) - len(differs), notes)


def _numbers(found: Comparison, *, gone: bool) -> list[int]:
    """Numbers of those that are matched, then of the new ones: as the file has them, where nothing else has them."""
    wanted = [*(one.number or number for number, one in found.pairs), *(one.number for one in found.new)]
    return free_numbers(wanted, set() if gone else set(found.gone))


def _with_modes(session: Session, wanted: dict[int, Fields]) -> dict[int, dict[str, Any]]:
    modes: dict[str, int] = {}
    found = {}
    for number, fields in wanted.items():
        own = dict(fields)
        if "mode" in own:
            name = own.pop("mode")
            if name not in modes:
                modes[name] = repositories.rig.mode_named(session, name)
            own["mode_id"] = modes[name]
        found[number] = own
    return found


def _new(one: FixtureDocument) -> str:
    x, y, z = one.place
    address = "no address" if one.universe is None else f"{one.universe}.{one.address}"
    return f"{one.number} {one.name}: {one.mode}, {address}, at {x:g} / {y:g} / {z:g} m"


@api.get("/scene.mvr")
def save_scene() -> Response:
    """All fixtures as an MVR file, with their types."""
    with context().store.reading() as session:
        name = session.get_one(Show, 1).name
        fixtures = list(rig_by_number(session).values())
        modes = {one.name: one for one in repositories.rig.modes(session).values()}
    if not fixtures:
        raise ZarabandaError("There is no fixture yet. Add lights first.", "rig")
    response = Response(write(name, fixtures, modes, _medium), mimetype="application/zip")
    response.headers.set("Content-Disposition", "attachment", filename="rig.mvr")
    return response


def _medium(digest: str) -> bytes | None:
    folder = wheel_pictures()
    return folder.path(digest).read_bytes() if folder.has(digest) else None
