"""What was sent, recorded: begun and ended, listed, saved, taken in and deleted. They play by a live action."""

from __future__ import annotations

import os
import re
import shutil
import tempfile
import time
from functools import lru_cache
from pathlib import Path
from typing import Annotated

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from zarabanda.engine.recorder import ENDING, FOLDER
from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.formats.dmx_frames import FramesReader
from zarabanda.messages import RecordSent

from ..bodies import body_into, read_out
from ..context import context
from ..parts import Done, Part

api = APIBlueprint("recordings", __name__, url_prefix="/api/recordings", abp_tags=[Tag(name="recordings")])
LARGEST_FILE = 20 << 30
_NAME = re.compile(r"[^\w \-,’'()]+")
Name = Annotated[str, Field(min_length=1, max_length=80, pattern=r"^[\w \-,’'()]+$")]


class RecordingView(BaseModel):
    """A recording. at: when it ended, s since 1970; size in bytes; wrong: why it cannot be played, empty: it can."""

    name: str
    at: float
    size: int
    seconds: float
    frames: int
    universes: list[int]
    wrong: str


class RecordingsView(BaseModel):
    """All recordings, the newest first. room: free bytes on the disk."""

    recordings: list[RecordingView]
    room: int


class RecordingPath(BaseModel):
    """Which one."""

    name: Name


class NewRecording(Part):
    """Begin one; without a name it gets the date."""

    name: Annotated[str, Field(max_length=80)] = ""


def _folder() -> Path:
    return context().data / FOLDER


def _path(name: str) -> Path:
    path = _folder() / f"{name}{ENDING}"
    if not path.is_file():
        raise NotThere(f"There is no recording “{name}” any more. Look at the list anew.", "name")
    return path


@api.get("", responses={200: RecordingsView})
def get_recordings() -> RecordingsView:
    """All recordings."""
    found = []
    for path in _folder().glob(f"*{ENDING}"):
        about = path.stat()
        found.append(_view(path, about.st_mtime_ns, about.st_size))
    return RecordingsView(
        recordings=sorted(found, key=lambda one: (-one.at, one.name)), room=shutil.disk_usage(context().data).free
    )


@lru_cache(maxsize=512)
def _view(path: Path, changed: int, size: int) -> RecordingView:
    name, at = path.name.removesuffix(ENDING), changed / 1e9
    try:
        reader = FramesReader(path)
    except (OSError, ZarabandaError) as error:
        return RecordingView(name=name, at=at, size=size, seconds=0, frames=0, universes=[], wrong=str(error))
    reader.close()
    return RecordingView(
        name=name, at=at, size=size, seconds=reader.seconds, frames=reader.frames, universes=reader.universes, wrong=""
    )


@api.post("", responses={201: Done})
def begin_recording(body: NewRecording) -> tuple[Done, int]:
    """Record what is sent, from the next frame on, until it is ended."""
    name = _NAME.sub(" ", body.name).strip() or time.strftime("%Y-%m-%d %Hh%Mm%S")
    if (_folder() / f"{name}{ENDING}").exists():
        raise InUse(f"There is a recording “{name}” already. Choose another name.", "name")
    context().link.send(RecordSent(name))
    return Done(done=f"Recording {name}"), 201


@api.post("/end", responses={200: Done})
def end_recording() -> Done:
    """End the recording that is under way."""
    context().link.send(RecordSent(""))
    return Done(done="The recording has ended")


@api.delete("/<string:name>", responses={200: Done})
def delete_recording(path: RecordingPath) -> Done:
    """Delete a recording for good."""
    state = context().link.state
    if state is not None and state.recorded is not None and state.recorded.name == path.name:
        raise InUse(f"“{path.name}” plays now. Take it out first.", "name")
    _path(path.name).unlink()
    return Done(done=f"Deleted {path.name}")


@api.get("/<string:name>/file")
def save_recording(path: RecordingPath) -> Response:
    """A recording as a file: frames of universes (docs/formats.md)."""
    file = _path(path.name).open("rb")
    response = Response(read_out(file), mimetype="application/octet-stream")
    response.headers.set("Content-Disposition", "attachment", filename=f"{path.name}{ENDING}")
    return response


@api.put("/<string:name>", responses={201: Done})
def take_in_recording(path: RecordingPath) -> tuple[Done, int]:
    """Take in a file of frames: of a recording, or of a bake. The file as the body."""
    _folder().mkdir(exist_ok=True)
    target = _folder() / f"{path.name}{ENDING}"
    if target.exists():
        raise InUse(f"There is a recording “{path.name}” already. Delete it first, or choose another name.", "name")
    with tempfile.NamedTemporaryFile(dir=_folder(), delete=False) as file:
        try:
            body_into(file, LARGEST_FILE)
            reader = FramesReader(Path(file.name))
            reader.close()
            os.replace(file.name, target)
        except BaseException:
            os.unlink(file.name)
            raise
    return Done(done=f"Took in {path.name}, {reader.seconds:.0f} s"), 201
