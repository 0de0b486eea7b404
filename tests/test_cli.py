"""The command line."""

import csv
import io
import json
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from zarabanda.shelf.library import Library

pytestmark = pytest.mark.slow

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


def test_a_show_goes_out_is_looked_at_and_comes_in_without_a_browser(tmp_path, demo_made):
    data, file = tmp_path / "data", tmp_path / "salt.zarabanda"
    shutil.copytree(demo_made, data)
    out = run("export", str(file), "--data", str(data))
    assert out.returncode == 0, out.stderr
    seen = run("check", str(file))
    assert "“Salt Light”: 81 fixtures" in seen.stdout.replace("\n", " ")
    assert "It can be taken in." in seen.stdout
    came = run("import", str(file), "--data", str(data), "--open")
    assert came.returncode == 0, came.stderr
    assert [one.name for one in Library(data).every()] == ["Salt Light", "Salt Light"]
    file.write_bytes(file.read_bytes()[:4000])
    broken = run("import", str(file), "--data", str(data))
    assert (broken.returncode, "Traceback" in broken.stderr, "no whole .zarabanda file" in broken.stderr) == (2, False, True)
    assert len(Library(data).every()) == 2


BAKED = b"""{"format": "zarabanda.baked/1", "name": "Tide", "seconds": 1, "rate": 40, "heads": ["101"], "times": [0, 1],
"frames": {}, "steps": {"intensity": {"unit": "%%", "max_error": 1, "error": %b, "heads": {"101": [[0, 1], [3, 4]]}}}}"""


def test_files_of_other_programs_are_looked_at(tmp_path):
    from tests.formats import gdtf_files, mvr_files
    from zarabanda.core.timecode.beat_grid import BeatGrid
    from zarabanda.formats.midi_file import Press, written

    scene = mvr_files.scene(mvr_files.layer("A", mvr_files.light(1), mvr_files.light(2, spec="Gone.gdtf")))
    for name, content, said in (
        ("lamp.gdtf", gdtf_files.packed(gdtf_files.spot()), "Corda & Söhne Lantern 7: 2 modes can be taken in."),
        ("rig.mvr", mvr_files.packed(scene), "Gone.gdtf cannot be used: it is not in the file"),
        ("song.mid", written([("Flash", [Press(1.5, 0.5)])], BeatGrid()), "Flash, C4: 1 press from 1.500 s"),
        ("lamp2.gdtf", b"nothing", "no whole GDTF file"),
        ("tide.json", BAKED % b"0.5", "intensity: 2 steps, at most 0.5 % off"),
        ("edited.json", BAKED % b'"a bit"', "steps.intensity.error"),
        (
            "night.frames",
            b"ZBFRAMES\x01\x00\x01\x00\x01\x00" + bytes(8) + b"\x01\x00" + bytes(514),
            "1 frames of 1 universes, 0.0 s",
        ),
    ):
        (tmp_path / name).write_bytes(content)
        done = run("check", str(tmp_path / name))
        assert said in (done.stdout + done.stderr)
        assert "Traceback" not in done.stderr
