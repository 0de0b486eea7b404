"""A watched process: it is started again when it dies or stands still, with a pause that grows."""

import os
import signal
import sys
from pathlib import Path

import pytest

from tests.waiting import until
from zarabanda.child import Child, pause_after
from zarabanda.errors import ZarabandaError
from zarabanda.supervisor import Settings, Supervisor, lock

BEATING = "import os, sys, time\nwhile True:\n    os.write(int(sys.argv[1]), b'.')\n    time.sleep(0.01)"


def child(tmp_path, code, **more):
    return Child("engine", [sys.executable, "-c", code, "{heartbeat}"], tmp_path / "logs" / "engine.log", **more)


def test_the_first_deaths_cost_nothing_and_then_it_doubles():
    assert [pause_after(n) for n in range(1, 12)] == [0, 0, 0.5, 1, 2, 4, 8, 16, 30, 30, 30]


def test_what_dies_again_and_again_waits_longer_and_says_where_its_words_are(tmp_path):
    one, said, now = child(tmp_path, "import sys; sys.exit('no rig')"), [], 100.0
    one.start(now)
    for _ in range(5):
        one.process.wait()
        assert one.look(now, said.append)
        while not one.running:
            now += 0.25
            one.look(now, said.append)
    assert one.restarts == 5
    assert now == 100 + 0.5 + 1 + 2
    assert "code 1" in said[0]
    assert str(one.log) in said[0]
    assert "in 2 s" in said[-1]
    one.end(5)
    assert one.log.read_text().count("no rig") >= 5


def test_one_that_stands_still_is_found_and_replaced(tmp_path):
    one, said, now = child(tmp_path, BEATING, beats=True), [], 0.0
    one.start(now)
    first = one.process.pid
    assert until(lambda: one.look(now, said.append) or one._has_beaten)
    os.kill(first, signal.SIGSTOP)
    until(lambda: Path(f"/proc/{first}/stat").read_text().split()[2] == "T")
    one.look(now, said.append)  # what it said before
    assert not one.look(now + 1.4, said.append)
    assert one.look(now + 1.6, said.append)
    assert one.process.pid != first
    assert "stood still" in said[0]
    one.end(5)


WAITING = "import os, sys, time\nsys.stdin.readline()\n" + BEATING


def test_a_spare_one_that_has_started_already_takes_the_place_of_one_that_dies(tmp_path):
    one, said = child(tmp_path, WAITING, beats=True, spare=True, still_s=100.0), []
    one.start(0.0)
    first = one.process.pid
    assert until(lambda: one.look(0.1, said.append) or one._has_beaten)
    one.look(3.0, said.append)
    spare = one._waiting.process.pid
    one.kill()
    assert one.look(3.1, said.append)
    assert (one.process.pid, one._waiting) == (spare, None)
    assert until(lambda: one.look(3.2, said.append) or one._has_beaten), "it works"
    one.look(9.0, said.append)
    os.kill(one._waiting.process.pid, signal.SIGKILL)
    one._waiting.process.wait()
    one.kill()
    assert one.look(9.1, said.append), "without a spare one it is started as before"
    assert one.process.pid not in (first, spare)
    one.end(5)


def test_a_beginning_may_take_longer(tmp_path):
    one = child(tmp_path, "import time; time.sleep(60)", beats=True)
    one.start(0.0)
    assert not one.look(19.0, print)
    assert one.look(21.0, print)
    one.end(5)


def test_without_room_for_a_log_it_runs_all_the_same(tmp_path):
    (tmp_path / "logs").write_text("a file in the place of the folder")
    one = child(tmp_path, BEATING, beats=True)
    one.start(0.0)
    assert until(lambda: one.look(0.0, print) or one._has_beaten)
    one.end(5)


@pytest.mark.parametrize(
    ("settings", "part"),
    [
        ({"host": "nonsense.invalid"}, "no address of this machine"),
        ({"host": "x" * 300}, "no address of this machine"),
        ({"host": "0.0.0.0"}, "ZARABANDA_ACCESS_CODE"),
    ],
)
def test_what_cannot_be_started_is_told(tmp_path, settings, part):
    code = {} if "ACCESS" in part else {"access_code": "sal marina"}
    with pytest.raises(ZarabandaError, match=part):
        Supervisor(Settings(tmp_path, port=0, node=False, **settings, **code))


def test_the_loopback_of_the_sixth_version_has_its_own_address(tmp_path):
    supervisor = Supervisor(Settings(tmp_path, host="::1", port=0, node=False))
    assert supervisor.address == f"http://[::1]:{supervisor.port}"
    supervisor._end()


def test_a_folder_in_the_place_of_the_lock_is_put_aside(tmp_path):
    (tmp_path / "running.json").mkdir()
    lock(tmp_path, "http://here").close()
    assert (tmp_path / "running.json").is_file()
