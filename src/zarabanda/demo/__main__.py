"""`python -m zarabanda.demo`: makes the demo show at a path, in a process of its own, since it takes its time."""

import argparse
from pathlib import Path

from .beginnings import DEMO, begin

parser = argparse.ArgumentParser(prog="zarabanda.demo")
parser.add_argument("--at", type=Path, required=True, help="the file of the show")
parser.add_argument("--data", type=Path, required=True, help="the data folder, for its media")
parser.add_argument("--name", required=True)
given = parser.parse_args()
begin(given.at, given.name, DEMO, given.data)
