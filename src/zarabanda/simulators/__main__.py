"""`python -m zarabanda.simulators`: the simulated nodes and devices, a process of the supervisor; ends with its input."""

import argparse
import sys
from pathlib import Path

from zarabanda import wire

from .artnet_node import ArtnetNode
from .e131_node import E131Node
from .message_sink import caption_screen, pixel_server
from .serving import serve
from .sound_player import SoundPlayer
from .timecode_player import TimecodePlayer

parser = argparse.ArgumentParser(prog="zarabanda.simulators")
parser.add_argument("--data", type=Path, required=True)
parser.add_argument("--port", type=int, required=True)
parser.add_argument("--artnet-port", type=int, required=True)
parser.add_argument("--universes", type=int, default=16, help="how many the Art-Net node puts out")
parser.add_argument("--osc-port", type=int, default=0)
parser.add_argument("--midi-port", type=int, default=0)
parser.add_argument("--player-port", type=int, default=0)
parser.add_argument("--sound-port", type=int, default=0)
given = parser.parse_args()
nodes = [E131Node(given.port), ArtnetNode(given.artnet_port, outputs=range(1, given.universes + 1))]
sinks = [pixel_server(given.osc_port), caption_screen(given.midi_port)]
players = TimecodePlayer(given.player_port), SoundPlayer(given.sound_port)
server = serve(nodes, sinks, wire.socket_path(given.data, "node"), *players)
sys.stdin.read()
server.close()
