"""`python -m zarabanda.listening`: listens to the network, as a process of the supervisor; ends with its standard input."""

import argparse
import sys
from pathlib import Path

from .listener import serve

parser = argparse.ArgumentParser(prog="zarabanda.listening")
parser.add_argument("--data", type=Path, required=True)
parser.add_argument("--port", type=int, required=True, help="UDP port for E1.31 (0: any free one)")
parser.add_argument("--artnet-port", type=int, required=True, help="UDP port for Art-Net (0: any free one)")
parser.add_argument("--artnet-node", required=True, help="address:port of the simulated Art-Net node")
given = parser.parse_args()
host, _, port = given.artnet_node.rpartition(":")
worker, server = serve(given.data, {"E1.31": given.port, "Art-Net": given.artnet_port}, (host, int(port)))
sys.stdin.read()
server.close()
worker.end()
