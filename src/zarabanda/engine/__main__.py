"""`python -m zarabanda.engine`: the engine process, started by the supervisor."""

import argparse
import sys
from pathlib import Path

from zarabanda.messages import ARTNET, E131, LINE, MIDI, MTC, OSC

from .main import main

parser = argparse.ArgumentParser(prog="zarabanda.engine")
parser.add_argument("--data", type=Path, required=True)
parser.add_argument("--node", required=True, help="address:port of the simulated E1.31 node")
parser.add_argument("--artnet-node", required=True, help="address:port of the simulated Art-Net node")
parser.add_argument("--pixel-server", help="address:port of the simulated device that hears OSC")
parser.add_argument("--caption-screen", help="address:port of the simulated device that hears MIDI")
parser.add_argument("--timecode-player", help="address:port of the simulated player of timecode")
parser.add_argument("--sound-player", help="address:port of the simulated line")
parser.add_argument("--source-name", default="Zarabanda")
parser.add_argument("--priority", type=int, help="of all E1.31 that is sent, instead of that of each route")
parser.add_argument("--rate", type=float, default=44.0)
parser.add_argument("--heartbeat", type=int, default=-1, help="file descriptor of a pipe to the supervisor")
parser.add_argument("--since", type=float, default=0.0, help="when the supervisor started, by the monotonic clock")
parser.add_argument("--wait", action="store_true", help="begin when a line comes on standard input")
given = parser.parse_args()


def _address(text: str) -> tuple[str, int]:
    host, _, port = text.rpartition(":")
    return host, int(port)


if given.wait and not sys.stdin.readline():
    sys.exit()  # whoever started it is gone
simulators = {E131: _address(given.node), ARTNET: _address(given.artnet_node)}
devices = {OSC: given.pixel_server, MIDI: given.caption_screen, MTC: given.timecode_player, LINE: given.sound_player}
simulators |= {speaks: _address(where) for speaks, where in devices.items() if where}
main(given.data, simulators, given.source_name, given.priority, given.rate, given.heartbeat, given.since)
