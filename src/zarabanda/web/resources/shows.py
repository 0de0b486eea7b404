"""The library of shows: opened, made, copied, renamed, deleted and taken back, saved as files; and the copies of the open one."""

from __future__ import annotations

import io
import subprocess
import sys
import tempfile
from pathlib import Path

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from zarabanda.demo import beginnings
from zarabanda.errors import NotThere, ZarabandaError, brief
from zarabanda.kept_file import write_whole
from zarabanda.media_folder import MEDIA
from zarabanda.shelf import parts, show_file
from zarabanda.shelf.copies import REASONS
from zarabanda.shelf.library import BIN_DAYS, PICTURE, Entry
from zarabanda.show import repositories
from zarabanda.show.rerig import pairs, rigs
from zarabanda.show.store import Store
from zarabanda.stock.rigs import READY

from .. import other_rigs
from ..bodies import body_into, read_out
from ..context import browser_id, context
from ..parts import Done
from ..stage_picture import first_picture
from ..stage_words import on_stage_in_words
from .shows_models import (
    ComingView,
    CopiesView,
    CopyLook,
    CopyView,
    CountView,
    Identity,
    Made,
    NewShow,
    PartsChosen,
    PartsReport,
    PartsView,
    ShowEntryView,
    ShowName,
    ShowPartView,
    ShowsView,
)

api = APIBlueprint("shows", __name__, url_prefix="/api/shows", abp_tags=[Tag(name="shows")])
LARGEST_FILE = 20 << 30
_DEMO_S = 300


class ShowPath(BaseModel):
    """Which show."""

    show_id: Identity


class CopyPath(BaseModel):
    """Which copy of the open show."""

    file: str = Field(pattern=r"^\d{10}-[a-z]{1,20}\.zarabanda$")


def _view(one: Entry) -> ShowEntryView:
    picture = context().library.folder(one.id) / PICTURE
    return ShowEntryView(
        id=one.id, name=one.name, opened=one.about.opened, deleted=one.about.deleted, size=one.size, fixtures=one.fixtures,
        picture=int(picture.stat().st_mtime) if one.has_picture else 0,
    )  # fmt: skip


def _name(identity: str) -> str:
    library = context().library
    return next((one.name for one in (*library.every(), *library.bin()) if one.id == identity), "the show")


@api.get("", responses={200: ShowsView})
def get_shows() -> ShowsView:
    """All shows of the library, and what would end if another one were opened."""
    library, link = context().library, context().link
    return ShowsView(
        open=library.open_id, shows=[_view(one) for one in library.every()], bin=[_view(one) for one in library.bin()],
        rigs=list(READY), on_stage=on_stage_in_words(link.state) if link.connected else "", bin_days=BIN_DAYS,
    )  # fmt: skip


@api.post("", responses={201: Made})
def make_show(body: NewShow) -> tuple[Made, int]:
    """Make a show: empty, on a ready rig, or the demo once more. It is not opened by that."""
    library = context().library
    if body.begin == beginnings.DEMO:
        made = library.make(lambda path: _demo_at(path, body.name))
    else:
        how = "" if body.begin == "empty" else body.begin
        made = library.make(lambda path: beginnings.begin(path, body.name, how, context().data))
    _pictured(made)
    return Made(id=made, done=f"Made {body.name}"), 201


def _pictured(identity: str) -> None:
    """Give a show that was never open the picture that it is known by."""
    library = context().library
    store = Store(library.path(identity))
    try:
        picture = first_picture(store)
    finally:
        store.close()
    if picture is not None:
        write_whole(library.folder(identity) / PICTURE, picture)


def _demo_at(path: Path, name: str) -> None:
    """In a process of its own: it takes its time, and pages are answered meanwhile."""
    line = [sys.executable, "-m", "zarabanda.demo", "--at", str(path), "--data", str(context().data), "--name", name]
    done = subprocess.run(line, capture_output=True, text=True, timeout=_DEMO_S, check=False)
    if done.returncode:
        raise ZarabandaError(f"The demo cannot be made: {brief(done.stderr.strip().rpartition(chr(10))[2])}.")


@api.post("/<string:show_id>/open", responses={200: Done})
def open_show(path: ShowPath) -> Done:
    """Open another show: everything of the one that is open goes out, and this one begins. Pages begin anew."""
    own = context()
    if path.show_id == own.library.open_id:
        return Done(done="It is open")
    own.keeping.picture()
    before = own.library.open_id
    file = own.library.open(path.show_id)
    try:
        own.store.change_to(file)
    except Exception:
        own.library.open(before)
        raise
    own.steps.clear()
    own.link.show_changed(path.show_id)
    return Done(done=f"Opened {_name(path.show_id)}")


@api.put("/<string:show_id>", responses={200: Done})
def rename_show(path: ShowPath, body: ShowName) -> Done:
    """Give a show another name. That of the open one can be undone."""
    own = context()
    if path.show_id == own.library.open_id:
        with own.store.edit(browser_id(), "Rename the show") as session:
            repositories.rows.show(session).name = body.name.strip()
    else:
        own.library.rename(path.show_id, body.name)
    return Done(done=f"Renamed to {body.name}")


@api.post("/<string:show_id>/copy", responses={201: Made})
def copy_show(path: ShowPath, body: ShowName) -> tuple[Made, int]:
    """A show once more, under another name."""
    return Made(id=context().library.copy(path.show_id, body.name), done=f"Copied to {body.name}"), 201


@api.delete("/<string:show_id>", responses={200: Done})
def delete_show(path: ShowPath) -> Done:
    """Put a show into the bin, where it stays for 30 days."""
    context().library.delete(path.show_id)
    return Done(done=f"{_name(path.show_id)} is in the bin")


@api.post("/<string:show_id>/take-back", responses={200: Done})
def take_back_show(path: ShowPath) -> Done:
    """Take a show out of the bin."""
    context().library.take_back(path.show_id)
    return Done(done=f"Took {_name(path.show_id)} back")


@api.post("/bin/empty", responses={200: Done})
def empty_bin() -> Done:
    """Delete what is in the bin for good."""
    context().library.empty_bin(all_of_it=True)
    return Done(done="The bin is empty")


@api.get("/<string:show_id>/picture.png")
def get_picture(path: ShowPath) -> Response:
    """The stage of a show, as it was when it was open last."""
    file = context().library.folder(path.show_id) / PICTURE
    if not file.is_file():
        raise NotThere("There is no picture of this show yet.", "show")
    response = Response(file.read_bytes(), mimetype="image/png")
    response.headers["Cache-Control"] = "max-age=60"
    return response


# files


@api.get("/<string:show_id>/file")
def save_show(path: ShowPath) -> Response:
    """A show with its media as one file."""
    own, name, source = context(), _name(path.show_id), context().library.path(path.show_id)
    spool = tempfile.TemporaryFile(dir=own.data)  # noqa: SIM115  # `read_out` closes it
    show_file.write(source, own.data / MEDIA, spool)
    plain = "".join(one for one in name if one.isalnum() or one in " -_") or "show"
    response = Response(read_out(spool), mimetype="application/zip")
    response.headers.set("Content-Disposition", "attachment", filename=f"{plain}{show_file.ENDING}")
    return response


@api.put("/file", responses={201: Made})
def take_in_show() -> tuple[Made, int]:
    """Take in a saved show: the file as the body. It becomes another show of the library; none is overwritten."""
    own = context()
    with tempfile.NamedTemporaryFile(dir=own.data, suffix=show_file.ENDING) as file:
        body_into(file, LARGEST_FILE)
        report = show_file.look(Path(file.name))
        with own.jobs.of_this_request() as progress:
            made = own.library.make(lambda path: _read(Path(file.name), path, own.data / MEDIA, progress))
    _pictured(made)
    return Made(id=made, done=f"Took in {report.in_words()}"), 201


def _read(file: Path, into: Path, media: Path, progress: show_file.Progress) -> None:
    show_file.read(file, into, media, progress)


# parts of another show


@api.get("/<string:show_id>/parts", responses={200: PartsView})
def get_parts(path: ShowPath) -> PartsView:
    """What of a show can be brought into the open one."""
    with parts.source_of(context().library.path(path.show_id)) as rows:
        found = parts.choosable(rows)
    every = [ShowPartView(kind=table, what=parts.KINDS[table], id=n, name=name) for table, of in found.items() for n, name in of]
    return PartsView(parts=every)


@api.post("/<string:show_id>/parts", responses={200: PartsReport})
def bring_in_parts(path: ShowPath, body: PartsChosen) -> PartsReport:
    """Bring parts of another show into the open one, with what they refer to; or tell what that would do. One undo step."""
    own = context()
    chosen = [(one.kind, one.id) for one in body.chosen]
    rig = None
    if body.matched:
        with own.store.reading() as session:
            rig = rigs.of_session(session)
    with parts.source_of(own.library.path(path.show_id), rig) as rows:
        if body.preview:
            with own.store.reading() as session:
                plan = parts.planned(session, rows, chosen)
        else:
            own.library.copies(own.library.open_id).take("import")
            with own.store.edit(browser_id(), f"Bring in parts of {_name(path.show_id)}") as session:
                plan = parts.planned(session, rows, chosen)
                parts.bring_in(session, plan)
    return PartsReport(
        coming=[_coming(one) for one in plan.coming], matched=[_coming(one) for one in plan.matched], fixtures=plan.fixtures,
        groups=_groups(path.show_id, rig) if rig is not None else [],
        done="shown" if body.preview else f"Brought in {len(plan.coming)} parts of {_name(path.show_id)}",
    )  # fmt: skip


def _groups(show_id: str, rig: rigs.RigRows) -> list[str]:
    """Which lights take over from which of another show."""
    before = other_rigs.rig_of(f"show:{show_id}", context().library)
    sides = [(one.source, one.target) for one in pairs.proposed(before, rig)]
    words = [[f"{one.name} {len(one.numbers)}" if one else "nothing" for one in pair] for pair in sides]
    return [" → ".join(pair) for pair in words]


def _coming(one: parts.Coming) -> ComingView:
    return ComingView(what=one.kind, name=one.name, was=one.was, needed_by=one.needed_by)


# copies of the open show


@api.get("/copies", responses={200: CopiesView})
def get_copies() -> CopiesView:
    """The copies of the open show."""
    library = context().library
    every = library.copies(library.open_id).every()
    return CopiesView(copies=[CopyView(file=one.file, at=one.at, why=REASONS[one.reason]) for one in every])


@api.get("/copies/<string:file>", responses={200: CopyLook})
def look_at_copy(path: CopyPath) -> CopyLook:
    """What is in a copy, beside what the show has now."""
    own = context()
    then = show_file.look(own.library.copies(own.library.open_id).path(path.file))
    now = show_file.write(own.library.open_path, own.data / MEDIA, io.BytesIO(), with_media=False)
    counts = [CountView(what=what, now=now.counts[what], then=number) for what, number in then.counts.items()]
    missing = sum(not (own.data / MEDIA / one).is_file() for one in then.missing)
    return CopyLook(name=then.name, counts=counts, missing=missing)


@api.post("/copies/<string:file>/take-back", responses={200: Done})
def take_back_copy(path: CopyPath) -> Done:
    """Let the open show be as it was in a copy; what it is now becomes a copy first. Lights go on with what is there then."""
    own = context()
    copies = own.library.copies(own.library.open_id)
    file = copies.path(path.file)
    with tempfile.TemporaryDirectory(dir=own.data, prefix=".taking-back-") as folder:
        made = Path(folder) / show_file.SHOW_DB
        with own.jobs.of_this_request() as progress:
            show_file.read(file, made, own.data / MEDIA, progress)
        copies.take("restore")
        own.store.replace_all(made)
    own.steps.clear()
    return Done(done="The copy was taken back. What was there before is a copy now")
