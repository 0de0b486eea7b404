"""Files that are replaced whole or not at all, and workers that go on."""

import pytest
from hypothesis import HealthCheck, given
from hypothesis import strategies as st

from tests.thoroughness import thorough
from tests.waiting import until
from zarabanda.kept_file import KeptFile
from zarabanda.workers import Troubles, Worker


def text(content):
    return content.decode()


@thorough(60, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(cut=st.floats(0, 1), flip=st.none() | st.floats(0, 1, exclude_max=True))
def test_a_torn_or_changed_file_is_never_taken_for_a_whole_one(tmp_path, cut, flip):
    file, told = KeptFile(tmp_path / "one"), []
    file.write(b"the first, which is whole")
    file.write(b"the second, which is torn")
    data = bytearray(file.path.read_bytes())
    if flip is not None:
        data[int(flip * len(data))] ^= 0x20
    kept = bytes(data[: round(cut * len(data))])
    file.path.write_bytes(kept)
    whole = flip is None and len(kept) == len(data)
    assert file.read(text, told.append) == ("the second, which is torn" if whole else "the first, which is whole")
    assert bool(told) != whole


def test_a_folder_in_the_place_of_a_file_is_put_aside(tmp_path):
    (tmp_path / "one").mkdir()
    file, told = KeptFile(tmp_path / "one"), []
    assert file.read(text, told.append) is None
    assert "put aside" in told[0]
    file.write(b"fine")
    assert file.read(text, told.append) == "fine"


def test_a_write_that_fails_leaves_what_was(tmp_path):
    file = KeptFile(tmp_path / "one")
    file.write(b"before")
    (tmp_path / "one.new").mkdir()
    with pytest.raises(OSError, match="directory"):
        file.write(b"after")
    assert file.read(text, lambda told: None) == "before"


def test_trouble_that_cannot_be_printed_is_kept_all_the_same(monkeypatch):
    class Full:
        def write(self, text):
            raise OSError("No space left on device")

        flush = write

    monkeypatch.setattr("sys.stderr", Full())
    troubles, steps = Troubles(), []

    def step():
        steps.append(1)
        if len(steps) == 1:
            raise OSError("full")
        return False

    worker = Worker("Journal", step, troubles).start()
    assert until(lambda: not worker.alive)
    assert len(steps) == 2


def test_a_worker_tells_what_fails_goes_on_and_clears_it():
    troubles, steps = Troubles(), []

    def step():
        steps.append(1)
        if len(steps) < 3:
            raise OSError("database is locked")
        if len(steps) == 3:
            assert troubles.report() == [{"who": "Link", "text": "OSError: database is locked"}]
        return False if len(steps) == 4 else None

    worker = Worker("Link", step, troubles).start()
    assert until(lambda: not worker.alive)
    assert len(steps) == 4
    assert troubles.report() == []
