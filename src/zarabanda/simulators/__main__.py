"""`python -m zarabanda.simulators`: the simulated nodes as a process of the supervisor; ends with its standard input."""

import argparse
import sys
from pathlib import Path

from zarabanda import wire

from .artnet_node import ArtnetNode
from .e131_node import E131Node
from .serving import serve

parser = argparse.ArgumentParser(prog="zarabanda.simulators")
parser.add_argument("--data", type=Path, required=True)
parser.add_argument("--port", type=int, required=True)
parser.add_argument("--artnet-port", type=int, required=True)
parser.add_argument("--universes", type=int, default=16, help="how many the Art-Net node puts out")
given = parser.parse_args()
nodes = [E131Node(given.port), ArtnetNode(given.artnet_port, outputs=range(1, given.universes + 1))]
server = serve(nodes, wire.socket_path(given.data, "node"))
sys.stdin.read()
server.close()
