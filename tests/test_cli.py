"""The command line."""

import csv
import io
import json
import subprocess
import sys
from pathlib import Path

import pytest

CASES = Path(__file__).parent / "core" / "effect_cases.json"


def run(*arguments, text=""):
    return subprocess.run([sys.executable, "-m", "zarabanda", *arguments], input=text, capture_output=True, text=True, timeout=60)


def test_render_prints_a_line_for_each_request():
    case = {k: v for k, v in json.loads(CASES.read_text())[0].items() if k != "expect"}
    done = run("render", "-", text=json.dumps([case, case]))
    assert done.returncode == 0, done.stderr
    lines = done.stdout.splitlines()
    assert len(lines) == 2
    assert lines[0] == lines[1]
    table = list(csv.DictReader(io.StringIO(run("render", "-", "--format", "csv", text=json.dumps(case)).stdout)))
    values = json.loads(lines[0])[table[0]["attribute"]][0]
    assert [float(table[0][head["id"]]) for head in case["heads"]] == pytest.approx(values, rel=1e-6)


@pytest.mark.parametrize(
    ("text", "part"),
    [("{", "not JSON"), ("[]x", "not JSON"), ('{"heads": []}', "Request 1"), ("[1]", "Request 1"),
     ('{"heads": [{"id": "1"}], "base": {"wobble": 1}, "times": [0], "effect": {"name": "x", "layers": []}}', "layers")],
)  # fmt: skip
def test_bad_requests_are_told_without_a_traceback(text, part):
    done = run("render", "-", text=text)
    assert done.returncode == 2
    assert part in done.stderr
    assert "Traceback" not in done.stderr


def test_a_missing_file_is_told():
    assert "cannot be read" in run("render", "/nowhere/at/all.json").stderr


def test_bench_prints_what_is_promised():
    report = json.loads(run("bench", "--universes", "1", "--seconds", "0.3", "--json").stdout)
    assert {"universes", "slots", "layers", "frame_ms", "floor_ms", "ratio"} <= set(report)
    assert report["slots"] == 512
    assert set(report["frame_ms"]) == {"median", "p99", "p999"}


def test_help_lists_the_commands():
    text = run("--help").stdout
    for command in ("demo", "serve", "node", "render", "bake", "schema", "bench", "screenshots"):
        assert command in text


def test_bake_writes_frames_and_steps():
    case = {k: v for k, v in json.loads(CASES.read_text())[2].items() if k not in ("expect", "times")}
    text = json.dumps(case)
    frames = json.loads(run("bake", "-", "--rate", "20", text=text).stdout)
    assert set(frames["frames"]) == {"pan", "tilt"}
    assert len(frames["times"]) == len(frames["frames"]["pan"])
    reduced = json.loads(run("bake", "-", "--rate", "20", "--max-error", "pan=0.5", text=text).stdout)
    pan = reduced["steps"]["pan"]
    assert pan["error"] <= 0.5
    assert all(len(times) < len(frames["times"]) for times, _ in pan["heads"].values())
    rows = list(csv.DictReader(io.StringIO(run("bake", "-", "--rate", "20", "--format", "csv", text=text).stdout)))
    assert len(rows) == 2 * len(case["heads"]) * len(frames["times"])


@pytest.mark.parametrize(("option", "part"), [("wobble=1", "no attribute 'wobble'"), ("pan=x", "above 0"), ("pan=-1", "above 0")])
def test_bake_refuses_odd_errors(option, part):
    case = json.loads(CASES.read_text())[2]
    assert part in run("bake", "-", "--max-error", option, text=json.dumps(case)).stderr


def test_the_schema_is_printed():
    assert json.loads(run("schema").stdout)["title"] == "EffectDocument"
