"""A killed web process costs no packet, a killed engine goes on where it was: compared at the node with an undisturbed run."""

from zarabanda.tools import bench_kills


def test_cues_go_on_as_undisturbed_when_web_and_engine_are_killed():
    report = bench_kills.measure(1)
    assert report["undisturbed"] == "", "two runs are alike, or nothing could be compared"
    web, engine = report["web"], report["engine"]
    assert (web["what"], engine["what"]) == ([], [])
    assert web["missing"] == 0
