"""The application on the demo show, without a network."""

import shutil
from contextlib import contextmanager

import pytest

from zarabanda.demo import salt_light
from zarabanda.show.store import Store
from zarabanda.web.app import create_app
from zarabanda.web.context import opened


@pytest.fixture(scope="session")
def routes():
    """Gives applications, one for each show that is open at a time: their routes are made once."""
    free = []

    @contextmanager
    def on(data):
        app = free.pop() if free else None
        if app is None:
            app = create_app(data, connect=False)
        else:
            app.extensions["zarabanda"] = opened(data)
        yield app
        app.extensions["zarabanda"].store.close()
        free.append(app)

    return on


@pytest.fixture(scope="module")
def application(routes, tmp_path_factory, demo_made):
    data = tmp_path_factory.mktemp("show")
    shutil.copytree(demo_made, data, dirs_exist_ok=True)
    with routes(data) as app:
        yield app


@pytest.fixture
def client(application):
    return application.test_client()


@pytest.fixture
def fresh(routes, tmp_path, demo_made):
    """An application of its own for one test, on the demo show: in `tmp_path / "data"`."""
    shutil.copytree(demo_made, tmp_path / "data")
    with routes(tmp_path / "data") as app:
        yield app


@pytest.fixture(scope="session")
def new_show(tmp_path_factory):
    """The file of a show with nothing in it."""
    path = tmp_path_factory.mktemp("new") / "show.db"
    store = Store(path)
    with store.edit("test", "Make the show") as session:
        salt_light.new_show(session, "New show")
    store.close()
    return path
