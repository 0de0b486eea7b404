"""`python -m zarabanda.engine`: the engine process, started by the supervisor."""

import argparse
from pathlib import Path

from .main import main

parser = argparse.ArgumentParser(prog="zarabanda.engine")
parser.add_argument("--data", type=Path, required=True)
parser.add_argument("--node-port", type=int, required=True, help="UDP port on this machine; 0: no output")
parser.add_argument("--rate", type=float, default=44.0)
parser.add_argument("--heartbeat", type=int, default=-1, help="file descriptor of a pipe to the supervisor")
given = parser.parse_args()
main(given.data, given.node_port, given.rate, given.heartbeat)
