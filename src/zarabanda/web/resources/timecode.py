"""Where timecode comes from, and the simulated player that sends it."""

from __future__ import annotations

from typing import Annotated, Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.formats.timeline_document import RateName
from zarabanda.messages import SIMULATOR
from zarabanda.outputs.lines import midi_inputs
from zarabanda.show import repositories

from ..context import browser_id, context
from ..parts import Part
from .output import asked

api = APIBlueprint("timecode", __name__, url_prefix="/api/output/timecode", abp_tags=[Tag(name="output")])


class PlayerView(BaseModel):
    """The simulated player: see `simulators.timecode_player.Playing`. label: where it is."""

    label: str
    runs: bool
    listeners: int
    rate: RateName
    says: str
    speed: float
    jitter_ms: float
    dropout: float
    second: float | None


class TimecodeView(BaseModel):
    """source: where timecode comes from, empty: nowhere; ports: MIDI ports of this machine; player: None: it does not run."""

    source: str
    ports: list[str]
    player: PlayerView | None


class TimecodeSource(Part):
    """The simulator, a MIDI port by its name; empty: none."""

    source: Annotated[str, Field(max_length=120)]


class PlayerHow(Part):
    """How the player plays; what is left out stays."""

    rate: RateName | None = None
    says: RateName | Annotated[str, Field(pattern="^$")] | None = None
    speed: Annotated[float, Field(ge=-4, le=4, allow_inf_nan=False)] | None = None
    jitter_ms: Annotated[float, Field(ge=0, le=200, allow_inf_nan=False)] | None = None
    dropout: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] | None = None
    two: bool | None = None


class PlayerBody(Part):
    """What the player shall do: play or stand, go to a label, play otherwise."""

    on: bool | None = None
    label: Annotated[str, Field(max_length=20)] | None = None
    how: PlayerHow = Field(default_factory=PlayerHow)


_SECOND_S = 30.0
"""So far ahead is the second player."""


def _now() -> TimecodeView:
    with context().store.reading() as session:
        source = str(repositories.rows.show(session).settings.get("timecode_in", SIMULATOR))
    answer = asked({"type": "player"})
    player = PlayerView(**{key: value for key, value in answer.items() if key in PlayerView.model_fields}) if answer else None
    return TimecodeView(source=source, ports=midi_inputs(), player=player)


@api.get("", responses={200: TimecodeView})
def get_timecode() -> TimecodeView:
    """Where timecode comes from, and how the simulated player is."""
    return _now()


@api.put("", responses={200: TimecodeView})
def set_source(body: TimecodeSource) -> TimecodeView:
    """Hear timecode from somewhere else."""
    if body.source not in ("", SIMULATOR, *midi_inputs()):
        names = ", ".join(midi_inputs()) or "none"
        raise ZarabandaError(f"There is no MIDI port “{body.source}” now. Choose the simulator, or one of: {names}.", "source")
    with context().store.edit(browser_id(), "Change where timecode comes from") as session:
        row = repositories.rows.show(session)
        row.settings = {**row.settings, "timecode_in": body.source}
    return _now()


@api.post("/player", responses={200: TimecodeView})
def ask_player(body: PlayerBody) -> TimecodeView:
    """Let the simulated player do something: nothing of the show changes."""
    how: dict[str, Any] = body.how.model_dump(exclude_none=True)
    if "two" in how:
        how["second"] = _SECOND_S if how.pop("two") else None
    answer = asked({"type": "player", "on": body.on, "label": body.label, "how": how})
    if answer is None:
        raise NotThere("The simulated player does not run. Start Zarabanda with demo or serve, without --no-node.", "on")
    if answer["type"] == "refused":
        raise InUse(answer["message"], "label")
    return _now()
