"""How far what takes a while is."""

from __future__ import annotations

from typing import Annotated

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from ..context import context
from ..parts import Done

api = APIBlueprint("jobs", __name__, url_prefix="/api/jobs", abp_tags=[Tag(name="jobs")])


class JobPath(BaseModel):
    """Which, by the name that its request gave in `X-Job`."""

    name: Annotated[str, Field(max_length=64)]


class JobView(BaseModel):
    """share: how much is done, 0…1; null: it does not run (any more)."""

    share: float | None


@api.get("/<string:name>", responses={200: JobView})
def get_job(path: JobPath) -> JobView:
    """How far a job is."""
    return JobView(share=context().jobs.share(path.name))


@api.delete("/<string:name>", responses={200: Done})
def stop_job(path: JobPath) -> Done:
    """Let a job stop; nothing of it is kept."""
    return Done(done="It stops" if context().jobs.stop(path.name) else "It was done already")
