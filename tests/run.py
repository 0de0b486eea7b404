"""Runs the checks of this project side by side, and says at the end what took longest and where the evidence of what is red lies.

`make check`: for every commit. `make test`: all of it. `make thorough`: ten times as many examples, for the night.
"""

from __future__ import annotations

import argparse
import os
import shutil
import subprocess
import sys
import tempfile
import threading
import time
import xml.etree.ElementTree as ET
from collections.abc import Sequence
from dataclasses import dataclass, field
from pathlib import Path

ROOT = Path(__file__).parent.parent
RESULTS = ROOT / "build" / "test-results"
BIN = Path(sys.executable).parent
SLOWEST = 12
MEMORY, ROOM_B = Path("/dev/shm"), 4 << 30
DOCTESTS = ["src/zarabanda/core", "src/zarabanda/protocols",
            *(f"src/zarabanda/{one}" for one in ("errors.py", "child.py", "network_settings.py", "formats/route_document.py",
                                                 "engine/stage_clock.py"))]  # fmt: skip
EXAMPLES = {"check": "0.1", "test": "0.5", "thorough": "5"}


@dataclass
class Step:
    """One command. Steps of one stage run side by side, those of a lane one after another; a stage begins when the one before has
    ended."""

    name: str
    command: Sequence[str]
    stage: int
    lane: str
    folder: Path = ROOT
    seconds: float = 0.0
    code: int | None = field(default=None)

    @property
    def log(self) -> Path:
        """What it said."""
        return RESULTS / f"{self.name}.log"

    @property
    def report(self) -> Path:
        """What its tests took, where it has some."""
        return RESULTS / f"{self.name}.xml"

    def run(self, environment: dict[str, str]) -> None:
        """Run it to its end."""
        begun = time.monotonic()
        with self.log.open("wb") as log:
            done = subprocess.run(
                self.command, cwd=self.folder, env=environment, stdout=log, stderr=subprocess.STDOUT, check=False
            )
        self.seconds, self.code = time.monotonic() - begun, done.returncode
        print(f"  {'well' if self.code == 0 else 'RED '} {self.name:<18} {self.seconds:6.1f} s", flush=True)


def _pytest(name: str, stage: int, lane: str, *arguments: str, workers: int) -> Step:
    beside = ["-n", str(workers), "--dist", "loadfile"] if workers else []
    report = RESULTS / f"{name}.xml"
    return Step(name, [str(BIN / "pytest"), *beside, f"--junitxml={report}", "-o", "junit_duration_report=total", *arguments],
                stage, lane)  # fmt: skip


def _npm(name: str, *scripts: str, more: str = "") -> Step:
    line = " && ".join(f"npm run --silent {one}" for one in scripts) + more
    return Step(name, ["sh", "-c", line], 1, "beside", ROOT / "frontend")


def steps_of(what: str) -> list[Step]:
    """What is run for `check`, `test` or `thorough`."""
    ruff = f"{BIN / 'ruff'} check src tests && {BIN / 'ruff'} format --check src tests"
    beside = [
        Step("ruff", ["sh", "-c", ruff], 1, "beside"),
        Step("imports", [str(BIN / "lint-imports")], 1, "beside"),
        _npm("front-end-types", "types", "api:check"),
        _npm("front-end-lint", "lint"),
        _npm(
            "front-end-tests",
            "test",
            more=f" -- --reporter=default --reporter=junit --outputFile={RESULTS / 'front-end-tests.xml'}",
        ),
        Step("types", [str(BIN / "mypy")], 1, "beside"),
    ]
    quick = what == "check"
    python = ["--ignore=tests/browser", "--ignore=tests/alone", "--doctest-modules", *DOCTESTS, "tests"]
    browser = ["-m", "first", "tests/browser"] if quick else ["tests/browser"]
    return [
        *beside,
        _pytest("python", 1, "python", *(["-m", "not slow"] if quick else []), *python, workers=2),
        _pytest("browser", 2, "browser", *browser, workers=1 if quick else 2),
        *([] if quick else [_pytest("alone", 3, "alone", "tests/alone", workers=0)]),
    ]


def _run_all(steps: list[Step], environment: dict[str, str]) -> None:
    for stage in sorted({one.stage for one in steps}):
        lanes: dict[str, list[Step]] = {}
        for one in steps:
            if one.stage == stage:
                lanes.setdefault(one.lane, []).append(one)

        def run(lane: list[Step]) -> None:
            for step in lane:
                step.run(environment)

        threads = [threading.Thread(target=run, args=(lane,)) for lane in lanes.values()]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()


def _tests(step: Step) -> list[tuple[float, str, bool]]:
    """Seconds, name and whether it is well, of each test of a step."""
    if not step.report.exists():
        return []
    cases = ET.parse(step.report).iter("testcase")
    return [
        (
            float(one.get("time", "0")),
            f"{one.get('classname')}::{one.get('name')}",
            not one.findall("failure") + one.findall("error"),
        )
        for one in cases
    ]


def _tell(steps: list[Step], seconds: float) -> int:
    every = [case for step in steps for case in _tests(step)]
    print(f"\n  {len(steps)} steps took {seconds:.0f} s; what took longest:")
    for took, name, _ in sorted(every, reverse=True)[:SLOWEST]:
        print(f"  {took:6.1f} s  {name}")
    red = [one for one in steps if one.code != 0]
    for one in red:
        print(f"\n--- {one.name} is red; all that it said is in {one.log.relative_to(ROOT)}")
        print("\n".join(one.log.read_text(errors="replace").splitlines()[-60:]))
    if red:
        print(f"\nTraces, logs of the processes and pictures of the page: {(RESULTS / 'failed').relative_to(ROOT)}/")
    well = sum(good for _, _, good in every)
    print(f"\n{well} passed, {len(every) - well} failed")
    return 1 if red else 0


def _in_memory() -> str | None:
    """Where files of tests lie if there is room, so that no test waits for a disk; None: where files for a while lie anyhow."""
    if MEMORY.is_dir() and os.access(MEMORY, os.W_OK) and shutil.disk_usage(MEMORY).free > ROOM_B:
        return str(MEMORY)
    return None


def main() -> int:
    """Run what is asked for; 0 where all of it is well."""
    parser = argparse.ArgumentParser(prog="tests.run")
    parser.add_argument("what", choices=EXAMPLES)
    what = parser.parse_args().what
    shutil.rmtree(RESULTS, ignore_errors=True)
    RESULTS.mkdir(parents=True)
    environment = {**os.environ, "ZARABANDA_THOROUGH": EXAMPLES[what]}
    environment.pop("PYTHONDONTWRITEBYTECODE", None)
    if what == "thorough":
        environment |= {"ZARABANDA_NEW_EXAMPLES": "1", "FUZZ_EXAMPLES": "100"}
    begun, steps = time.monotonic(), steps_of(what)
    with tempfile.TemporaryDirectory(prefix="zarabanda-", dir=_in_memory(), ignore_cleanup_errors=True) as folder:
        _run_all(steps, environment | {"TMPDIR": folder, "ZARABANDA_TESTS_TOGETHER": folder})
    return _tell(steps, time.monotonic() - begun)


if __name__ == "__main__":
    sys.exit(main())
