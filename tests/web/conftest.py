"""The application on the demo show, without a network."""

import pytest

from zarabanda.demo import salt_light
from zarabanda.show.store import Store
from zarabanda.web.app import create_app


@pytest.fixture(scope="module")
def application(tmp_path_factory):
    data = tmp_path_factory.mktemp("show")
    store = Store(data / "show.db")
    salt_light.build(store)
    store.close()
    app = create_app(data, connect=False)
    yield app
    app.extensions["zarabanda"].store.close()


@pytest.fixture
def client(application):
    return application.test_client()
