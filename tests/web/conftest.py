"""The application on the demo show, without a network."""

import shutil

import pytest

from zarabanda.web.app import create_app


@pytest.fixture(scope="module")
def application(tmp_path_factory, demo_made):
    data = tmp_path_factory.mktemp("show")
    shutil.copytree(demo_made, data, dirs_exist_ok=True)
    app = create_app(data, connect=False)
    yield app
    app.extensions["zarabanda"].store.close()


@pytest.fixture
def client(application):
    return application.test_client()


@pytest.fixture
def fresh(tmp_path, demo_made):
    """An application of its own for one test, on the demo show: in `tmp_path / "data"`."""
    shutil.copytree(demo_made, tmp_path / "data")
    made = create_app(tmp_path / "data", connect=False)
    yield made
    made.extensions["zarabanda"].store.close()
