"""Killed in the middle: a show is as it was, or as it was to be, never between."""

import contextlib
import io
import os
import random
import shutil
import signal
import time

import pytest

from tests.formats import mvr_files
from zarabanda.shelf import show_file
from zarabanda.shelf.library import Library
from zarabanda.web.app import create_app

KILLS = 4


def scene(client):
    lights = [mvr_files.light(n, number=5000 + n, at=(n * 100, 0, 5000)) for n in range(400)]
    content = mvr_files.packed(mvr_files.scene(mvr_files.layer("Guests", *lights)))
    return client.put("/api/rig/mvr?preview=false", data=content, content_type="application/octet-stream")


def copy_taken_back(client):
    (copy,) = client.get("/api/shows/copies").json["copies"]
    return client.post(f"/api/shows/copies/{copy['file']}/take-back")


def parts(client):
    other = next(one["id"] for one in client.get("/api/shows").json["shows"] if one["name"] == "Other")
    every = client.get(f"/api/shows/{other}/parts").json["parts"]
    chosen = [{"kind": one["kind"], "id": one["id"]} for one in every if one["kind"] in ("effect", "palette", "cue_list")]
    return client.post(f"/api/shows/{other}/parts", json={"chosen": chosen, "preview": False})


def taken_in(client):
    return client.put("/api/shows/file", data=client.saved, content_type="application/octet-stream")


@contextlib.contextmanager
def running(data):
    app = create_app(data, connect=False)
    client = app.test_client()
    client.saved = (data / "saved").read_bytes()
    try:
        yield client
    finally:
        app.extensions["zarabanda"].store.close()


def content(data):
    """Every show of the library as it is kept, the open one first."""
    library = Library(data)
    shows = sorted(one.id for one in library.every())
    written = []
    for identity in [library.open_id, *(one for one in shows if one != library.open_id)]:
        target = io.BytesIO()
        show_file.write(library.path(identity), data / "media", target, with_media=False)
        written.append(target.getvalue())
    return sorted(written)


@pytest.fixture(scope="module")
def folder(tmp_path_factory, demo_made):
    """The demo, once more as another show, with a copy of how it was before an edit."""
    data = tmp_path_factory.mktemp("kills") / "data"
    shutil.copytree(demo_made, data)
    library = Library(data)
    library.prepare(lambda path: None, print)
    library.copy(library.open_id, "Other")
    library.copies(library.open_id).take("clock")
    with (data / "saved").open("wb") as target:
        show_file.write(library.open_path, data / "media", target, with_media=False)
    (data / "saved").touch()
    app = create_app(data, connect=False)
    client = app.test_client()
    client.post("/api/rig/delete", json={"numbers": [101, 102]})
    app.extensions["zarabanda"].store.close()
    return data


def killed(data, act, after_s):
    """Do something in a process of its own, which is killed so long after it has begun."""
    begun, begins = os.pipe()
    child = os.fork()
    if not child:
        with contextlib.suppress(BaseException), running(data) as client:
            os.write(begins, b"!")
            act(client)
        os._exit(0)
    os.read(begun, 1)
    time.sleep(after_s)
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    os.close(begun)
    os.close(begins)


@pytest.mark.parametrize("act", [scene, copy_taken_back, parts, taken_in], ids=lambda act: act.__name__)
def test_killed_in_the_middle_it_is_old_or_new(folder, tmp_path, act):
    before = content(folder)
    shutil.copytree(folder, tmp_path / "whole")
    with running(tmp_path / "whole") as client:
        begun = time.perf_counter()
        assert act(client).status_code in (200, 201)
        lasts = time.perf_counter() - begun
    after = content(tmp_path / "whole")
    assert after != before
    chance = random.Random(4)
    for n in range(KILLS):
        data = tmp_path / str(n)
        shutil.copytree(folder, data)
        killed(data, act, lasts * chance.uniform(0.05, 1.1))
        found = content(data)
        assert found in (before, after)
        with running(data) as client:
            assert client.get("/api/show").status_code == 200, "and it opens"
        shutil.rmtree(data)
