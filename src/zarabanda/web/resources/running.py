"""What runs: where each effect that plays acts, and what hands changed of it live, written back into the show."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Literal

import msgspec
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ValidationError
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.errors import NotThere, ZarabandaError
from zarabanda.formats import effect_edit
from zarabanda.formats.effect_document import EffectDocument, faults
from zarabanda.formats.route_document import as_text, in_ranges
from zarabanda.messages import PlayerId, RunningState
from zarabanda.show import repositories
from zarabanda.show.tables import ControlRow, CueRow, EffectRow

from ..context import browser_id, context
from ..parts import Done, Id, Part
from .cues import checked

api = APIBlueprint("running", __name__, url_prefix="/api/running", abp_tags=[Tag(name="running")])


class WriteBack(Part):
    """Which thing that plays, and what of the show its depth and speed go into."""

    key: str
    into: Literal["effect", "cue", "control"]


class EffectOf(BaseModel):
    """Which effect."""

    effect_id: Id


class RunsOn(BaseModel):
    """An effect that runs now. source: what started it; heads: on which it acts; words: these in short."""

    source: str
    heads: list[str]
    words: str


class RunsView(BaseModel):
    """Where an effect runs now."""

    runs: list[RunsOn]


@api.get("/effects/<int:effect_id>", responses={200: RunsView})
def get_runs(path: EffectOf) -> RunsView:
    """On which heads an effect runs now, by what started it."""
    runs = [
        RunsOn(source=source, heads=heads, words=f"{len(heads)} head{'' if len(heads) == 1 else 's'}, {_in_short(heads)}")
        for source, heads in context().link.questions.acting(path.effect_id)
        if heads
    ]
    return RunsView(runs=runs)


def _in_short(heads: list[str]) -> str:
    """Fixtures of heads in ranges; cells are not told apart.

    >>> _in_short(["101", "102", "321.1", "321.2"])
    '101–102, 321'
    """
    numbers = sorted({int(head.partition(".")[0]) for head in heads})
    return as_text(in_ranges(numbers)).replace(",", ", ").replace(",  ", ", ")


@api.post("/write-back", responses={200: Done})
def write_back(body: WriteBack) -> Done:
    """Put depth and speed, as hands have changed them live, into the effect, the cue or the control it came from."""
    link = context().link
    running = next((one for one in link.state.running if one.key == body.key), None) if link.state is not None else None
    if running is None:
        raise NotThere("This does not run any more, so there is nothing to write back.", "key")
    if (running.depth, running.speed) == (1, 1):
        raise ZarabandaError("Neither depth nor speed of this was changed live.", "key")
    with context().store.edit(browser_id(), f"Write {running.name} back into the {body.into}") as session:
        _INTO[body.into](session, running)
        link.written_back.append(PlayerId(body.key))
    return Done(done=f"Written into the {body.into}")


def _into_effect(session: Session, running: RunningState) -> None:
    row = repositories.rows.get(session, EffectRow, running.effect_id, "effect")
    document = effect_edit.scaled(repositories.effects.document_of(session, row), running.depth, running.speed)
    try:
        read = EffectDocument.model_validate(document)
    except ValidationError as error:
        place, what = faults(error)[0]
        raise ZarabandaError(
            f"The effect cannot take this: {place}: {what}. Write it into the cue or control.", "into"
        ) from error
    repositories.effects.change(session, row.id, read)


def _into_cue(session: Session, running: RunningState) -> None:
    """Into the cue that gave it depth and speed last, of those up to the one that the list is on."""
    if not running.key.startswith("list:"):
        raise ZarabandaError(f"{running.name} does not come from a cue.", "into")
    list_id, thread = (int(part) for part in running.key.partition("~")[0].split(":")[1:])
    whose, told = context().link.lists.get(list_id), context().link.state
    on = next((one.cue for one in told.lists if one.id == list_id), None) if told is not None else None
    until = whose.index.get(on, len(whose.cues)) if whose is not None and on is not None else -1
    cues = [cue for cue in whose.cues[: until + 1] if whose is not None] if whose is not None else []
    giving = [cue.id for cue in cues if any(one.thread == thread and one.do != "stop" for one in cue.effects)]
    if not giving:
        raise NotThere("The cue that started this is not there any more.", "key")
    row = repositories.rows.get(session, CueRow, giving[-1], "cue")

    def changed(one: dict[str, Any]) -> dict[str, Any]:
        if one["thread"] != thread or one["do"] == "stop":
            return one
        return {**one, "depth": one["depth"] * running.depth, "speed": one["speed"] * running.speed}

    effects = [changed(one) for one in row.document["effects"]]
    repositories.cues.change(session, row.id, checked({**row.document, "effects": effects}))


def _into_control(session: Session, running: RunningState) -> None:
    if not running.key.startswith("control:"):
        raise ZarabandaError(f"{running.name} does not come from a fader or button.", "into")
    row = repositories.rows.get(session, ControlRow, int(running.key.split(":")[1]), "control")
    target = targets.read(row.target)
    assert isinstance(target, targets.EffectOnHeads)  # it runs an effect
    depth, speed = target.depth * running.depth, target.speed * running.speed
    if not 0.01 <= speed <= 16:
        raise ZarabandaError(f"A control drives an effect at 0.01 to 16 times its speed, not at {speed:g}.", "into")
    row.target = targets.plain(msgspec.structs.replace(target, depth=depth, speed=speed))


_INTO: dict[str, Callable[[Session, RunningState], None]] = {
    "effect": _into_effect,
    "cue": _into_cue,
    "control": _into_control,
}
