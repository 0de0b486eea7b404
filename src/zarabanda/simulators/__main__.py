"""`python -m zarabanda.simulators`: the simulated node as a process of the supervisor; ends with its standard input."""

import argparse
import sys
from pathlib import Path

from zarabanda import wire

from .node import Node, serve_status

parser = argparse.ArgumentParser(prog="zarabanda.simulators")
parser.add_argument("--data", type=Path, required=True)
parser.add_argument("--port", type=int, required=True)
given = parser.parse_args()
server = serve_status(Node(given.port), wire.socket_path(given.data, "node"))
sys.stdin.read()
server.close()
