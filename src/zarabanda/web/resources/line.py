"""Where sound comes in, and the simulated line that sends some."""

from __future__ import annotations

from typing import Annotated

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.messages import SIMULATOR
from zarabanda.show import repositories
from zarabanda.sound.inputs import sound_inputs

from ..context import browser_id, context
from ..parts import Part
from .output import asked

api = APIBlueprint("line", __name__, url_prefix="/api/output/line", abp_tags=[Tag(name="output")])


class SoundPlayerView(BaseModel):
    """The simulated line: see `simulators.sound_player.SoundHow`."""

    runs: bool
    listeners: int
    bpm: float
    loudness: float


class LineView(BaseModel):
    """source: where sound comes in, empty: nowhere; inputs: sound inputs of this machine; player: None: it does not run."""

    source: str
    inputs: list[str]
    player: SoundPlayerView | None


class LineSource(Part):
    """The simulator, an input by its name; empty: none."""

    source: Annotated[str, Field(max_length=200)]


class SoundBody(Part):
    """What the simulated line shall do: play or stop, play otherwise."""

    on: bool | None = None
    bpm: Annotated[float, Field(ge=40, le=240, allow_inf_nan=False)] | None = None
    loudness: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] | None = None


def _now() -> LineView:
    with context().store.reading() as session:
        source = str(repositories.rows.show(session).settings.get("line_in", SIMULATOR))
    answer = asked({"type": "sound"})
    player = SoundPlayerView(**{name: answer[name] for name in SoundPlayerView.model_fields}) if answer else None
    return LineView(source=source, inputs=sound_inputs(), player=player)


@api.get("", responses={200: LineView})
def get_line() -> LineView:
    """Where sound comes in, and how the simulated line is."""
    return _now()


@api.put("", responses={200: LineView})
def set_line(body: LineSource) -> LineView:
    """Hear another input."""
    inputs = sound_inputs()
    if body.source not in ("", SIMULATOR, *inputs):
        names = ", ".join(inputs) or "none"
        raise ZarabandaError(
            f"There is no sound input “{body.source}” now. Choose the simulated line, or one of: {names}.", "source"
        )
    with context().store.edit(browser_id(), "Change where sound comes in") as session:
        row = repositories.rows.show(session)
        row.settings = {**row.settings, "line_in": body.source}
    return _now()


@api.post("/player", responses={200: LineView})
def ask_sound_player(body: SoundBody) -> LineView:
    """Let the simulated line do something: nothing of the show changes."""
    answer = asked({"type": "sound", "on": body.on, "how": body.model_dump(exclude_none=True, exclude={"on"})})
    if answer is None:
        raise NotThere("The simulated line does not run. Start Zarabanda with demo or serve, without --no-node.", "on")
    if answer["type"] == "refused":
        raise InUse(answer["message"], "bpm")
    return _now()
