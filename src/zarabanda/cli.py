"""The command line: one program that starts, renders, measures."""

from __future__ import annotations

import json
import os
import signal
import sys
import time
import webbrowser
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from zarabanda import show_commands
from zarabanda.errors import ZarabandaError

if TYPE_CHECKING:
    from zarabanda.simulators.node import SimulatedNode
    from zarabanda.supervisor import Settings

app = typer.Typer(
    name="zarabanda", no_args_is_help=True, add_completion=False, pretty_exceptions_enable=False,
    help="Design, play and trust the light of a concert.",
)  # fmt: skip

DataOption = Annotated[Path, typer.Option(help="Folder that keeps the show and the journal.")]
HostOption = Annotated[str, typer.Option(help="Address to listen on; other than this machine's needs --access-code.")]
PortOption = Annotated[int, typer.Option(help="TCP port of the page (0: any free one).", min=0, max=65_535)]
CodeOption = Annotated[
    str,
    typer.Option(
        help="Code that browsers must enter; better set in the environment: others on this machine can read a command line.",
        envvar="ZARABANDA_ACCESS_CODE",
    ),
]
AllowOption = Annotated[list[str] | None, typer.Option(help="A name that the page may be opened by (may be repeated).")]
NodePortOption = Annotated[int, typer.Option(help="UDP port of the simulated E1.31 node (0: any free one).", min=0, max=65_535)]
ArtnetPortOption = Annotated[
    int | None,
    typer.Option(help="UDP port of the simulated Art-Net node (0: any free one, as with --node-port 0).", min=0, max=65_535),
]
NodeOption = Annotated[bool, typer.Option(help="Start the simulated nodes.")]
PriorityOption = Annotated[
    int | None,
    typer.Option(help="E1.31 priority of all that is sent, instead of each route's: a lower one stands by for another machine.",
                 min=0, max=200),
]  # fmt: skip
HereOption = Annotated[bool, typer.Option(help="Send to this machine alone, whatever was agreed to: to work beside a show.")]
SourceOption = Annotated[str, typer.Option(help="Name that receivers of E1.31 see.")]
RateOption = Annotated[float, typer.Option(help="Frames per second.", min=20, max=44)]


def _serve(settings: Settings, demo: bool, browse: bool, here_only: bool) -> None:
    from zarabanda import network_settings
    from zarabanda.supervisor import Supervisor

    if here_only:
        os.environ[network_settings.HERE_ONLY] = "1"
    supervisor = Supervisor(settings)
    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, lambda *_: supervisor.stop())
    prepare(settings.data, demo)

    def ready() -> None:
        print(f"Zarabanda is at {supervisor.address}  (Ctrl-C ends it)", flush=True)
        if browse and (os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY") or sys.platform == "darwin"):
            webbrowser.open(supervisor.address)

    supervisor.run(ready)


def prepare(data: Path, demo: bool) -> None:
    """Make the show of an empty data folder, the demo's or a new one; an older one is brought up to date."""
    from zarabanda.demo import beginnings
    from zarabanda.shelf.library import Library
    from zarabanda.show.store import Store

    def make(store: Store) -> None:
        name, how = (beginnings.DEMO_NAME, beginnings.DEMO) if demo else ("New show", "")
        beginnings.fill(store, name, how, data)

    Library(data).prepare(make, lambda text: print(text, file=sys.stderr, flush=True))


def _artnet_port(asked: int | None, node_port: int) -> int:
    """The standard's, unless another is asked for; any free one where the E1.31 node has any free one."""
    return asked if asked is not None else (6454 if node_port else 0)


show_commands.add_to(app)


@app.command()
def demo(
    data: DataOption = Path("data/demo"),
    host: HostOption = "127.0.0.1",
    port: PortOption = 8765,
    access_code: CodeOption = "",
    node_port: NodePortOption = 5568,
    node: NodeOption = True,
    rate: RateOption = 44.0,
    allow_host: AllowOption = None,
    artnet_port: ArtnetPortOption = None,
    priority: PriorityOption = None,
    source_name: SourceOption = "Zarabanda",
    here_only: HereOption = False,
    browser: Annotated[bool, typer.Option(help="Open a browser.")] = True,
) -> None:
    """Run the demo show "Salt Light", with simulated nodes on this machine."""
    from zarabanda.supervisor import Settings

    ports = node_port, _artnet_port(artnet_port, node_port)
    settings = Settings(data, host, port, access_code, node, *ports, rate, tuple(allow_host or ()), priority, source_name)
    _serve(settings, True, browser, here_only)


@app.command()
def serve(
    data: DataOption = Path("data/show"),
    host: HostOption = "127.0.0.1",
    port: PortOption = 8765,
    access_code: CodeOption = "",
    node_port: NodePortOption = 5568,
    node: NodeOption = True,
    rate: RateOption = 44.0,
    allow_host: AllowOption = None,
    artnet_port: ArtnetPortOption = None,
    priority: PriorityOption = None,
    source_name: SourceOption = "Zarabanda",
    here_only: HereOption = False,
) -> None:
    """Run a show of your own; an empty folder begins a new one."""
    from zarabanda.supervisor import Settings

    ports = node_port, _artnet_port(artnet_port, node_port)
    settings = Settings(data, host, port, access_code, node, *ports, rate, tuple(allow_host or ()), priority, source_name)
    _serve(settings, False, False, here_only)


@app.command("node")
def run_node(
    port: NodePortOption = 5568,
    data: Annotated[Path | None, typer.Option(help="Answer the Output view of this data folder.")] = None,
) -> None:
    """Run the simulated E1.31 node alone: it receives on 127.0.0.2 and prints what it counts."""
    from zarabanda.simulators.e131_node import E131Node

    _run_alone(E131Node(port), data)


@app.command("artnet-node")
def run_artnet_node(
    port: Annotated[int, typer.Option(help="UDP port (0: any free one).", min=0, max=65_535)] = 6454,
    data: Annotated[Path | None, typer.Option(help="Answer the Output view of this data folder.")] = None,
) -> None:
    """Run the simulated Art-Net node alone: it receives on 127.0.0.3, answers polls and prints what it counts."""
    from zarabanda.simulators.artnet_node import ArtnetNode

    _run_alone(ArtnetNode(port), data)


def _run_alone(node: SimulatedNode, data: Path | None) -> None:
    from zarabanda import wire
    from zarabanda.simulators.serving import serve as answer

    if data is not None:
        answer([node], [], wire.socket_path(data, "node"))
    print(f"Listening on {node.address[0]}:{node.port}", flush=True)
    try:
        while True:
            time.sleep(1)
            for row in node.status()["universes"]:
                source = f", from {row['source']}" if row["source"] else ""
                print(
                    f"universe {row['universe']}: {row['per_second']:.1f} packets/s, {row['sequence_errors']} sequence errors, "
                    f"jitter {row['jitter_ms']:.2f} ms{source}",
                    flush=True,
                )
    except KeyboardInterrupt:
        node.close()


def _read_requests(file: Path) -> list[Any]:
    try:
        text = sys.stdin.read() if str(file) == "-" else file.read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise ZarabandaError(f"{file} cannot be read: {error}. Give a JSON file, or - for standard input.") from error
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise ZarabandaError(f"{file} is not JSON: {error}.") from error
    return data if isinstance(data, list) else [data]


def _check_format(output_format: str) -> None:
    if output_format not in ("json", "csv"):
        raise ZarabandaError(f"There is no format {output_format!r}; use json or csv.", "--format")


@app.command()
def render(
    file: Annotated[Path, typer.Argument(help="A render request, or a list of them, as JSON (-: standard input).")],
    output_format: Annotated[str, typer.Option("--format", help="json or csv.")] = "json",
) -> None:
    """Compute the values of an effect at given times; one JSON line for each request."""
    from zarabanda.formats import render_request

    _check_format(output_format)
    for number, data in enumerate(_read_requests(file)):
        try:
            request = render_request.read({k: v for k, v in data.items() if k != "expect"} if isinstance(data, dict) else data)
        except ZarabandaError as error:
            raise ZarabandaError(f"Request {number + 1}: {error.message}", error.place) from error
        values = render_request.render(request)
        if output_format == "json":
            print(json.dumps(values))
        else:
            sys.stdout.writelines(render_request.csv_lines(request, values))


@app.command()
def bake(
    file: Annotated[Path, typer.Argument(help="A render request as JSON (-: standard input); its times are not used.")],
    rate: Annotated[float, typer.Option(help="Frames per second.", min=1, max=1000)] = 40.0,
    max_error: Annotated[
        list[str] | None, typer.Option(help="Reduce to steps within this error: attribute=value in its unit (may be repeated).")
    ] = None,
    output_format: Annotated[str, typer.Option("--format", help="json or csv.")] = "json",
) -> None:
    """Write an effect out over one closing cycle: as frames at a rate, or as the fewest steps within an error."""
    from zarabanda.formats import baked, render_request

    requests = _read_requests(file)
    if len(requests) != 1 or not isinstance(requests[0], dict):
        raise ZarabandaError("bake takes one request, not a list. Give the one to bake.")
    data = {key: value for key, value in requests[0].items() if key != "expect"}
    request = render_request.read({"times": [0], **data})
    _check_format(output_format)
    result = baked.bake(request, rate, baked.read_errors(max_error or []))
    sys.stdout.write(json.dumps(result) + "\n" if output_format == "json" else baked.as_csv(result))


@app.command()
def replay(
    file: Annotated[Path, typer.Argument(help="A replay request, or a list of them, as JSON (-: standard input).")],
) -> None:
    """Play a show from actions with their stamps, without clock or engine; one JSON line of values for each request."""
    from zarabanda import replay as replays
    from zarabanda.formats import replay_request

    for number, data in enumerate(_read_requests(file)):
        try:
            plain = {k: v for k, v in data.items() if k not in ("expect", "name")} if isinstance(data, dict) else data
            print(json.dumps(replays.replay(replay_request.read(plain))))
        except ZarabandaError as error:
            raise ZarabandaError(f"Request {number + 1}: {error.message}", error.place) from error


@app.command()
def schema() -> None:
    """Print the JSON Schema of effect documents."""
    from zarabanda.formats.effect_document import EffectDocument

    print(json.dumps(EffectDocument.model_json_schema(), indent=1))


@app.command()
def bench(
    universes: Annotated[list[int] | None, typer.Option(help="How many universes of the bench rig (may be repeated).")] = None,
    layers: Annotated[int, typer.Option(min=1, max=4)] = 4,
    seconds: Annotated[float, typer.Option(help="How long to measure each.", min=0.2, max=600)] = 3.0,
    as_json: Annotated[bool, typer.Option("--json", help="Print JSON.")] = False,
    sweep: Annotated[bool, typer.Option(help="From 1 to 512 universes, with the growth fitted to them.")] = False,
    busy: Annotated[bool, typer.Option(help="Also 60 running effects, and 30 sheets of moving claims.")] = False,
    live: Annotated[bool, typer.Option(help="Also run the demo and measure jitter and reaction at the node.")] = False,
    load: Annotated[bool, typer.Option(help="Also run the demo while it is edited, and with 60 pages open.")] = False,
    look: Annotated[bool, typer.Option(help="Measure the Look view alone: an aim dragged, a palette changed, claims.")] = False,
    cues: Annotated[bool, typer.Option(help="Measure cue lists alone: 500 cues on 2,000 heads.")] = False,
    busk: Annotated[bool, typer.Option(help="Measure a busking page alone: 12 rows, 2,000 heads, 20 effects running.")] = False,
    faders: Annotated[bool, typer.Option(help="Measure 16 faders moved from three browsers, and a special.")] = False,
    songs: Annotated[bool, typer.Option(help="Measure a song of 5,000 events on 2,000 heads, and following MTC.")] = False,
    pixels: Annotated[bool, typer.Option(help="Measure pixel maps: 20,000 cells, films, the wall of the demo.")] = False,
    kills: Annotated[int, typer.Option(help="Kill web and engine so often while cues play, and compare.", min=0)] = 0,
    output: Annotated[bool, typer.Option(help="Measure sending alone: E1.31, Art-Net, and beside routes that fail.")] = False,
) -> None:
    """Measure frame times beside a plain NumPy floor, with the machine's steal."""
    from zarabanda.tools import bench as benches
    from zarabanda.tools import (
        bench_busk,
        bench_cues,
        bench_faders,
        bench_kills,
        bench_live,
        bench_load,
        bench_look,
        bench_output,
        bench_pixels,
        bench_songs,
    )

    if output:
        for protocol, beside in (("E1.31", False), ("Art-Net", False), ("E1.31", True)):
            measured = bench_output.measure((universes or [512])[0], protocol, seconds, beside=beside)
            print(json.dumps(measured) if as_json else bench_output.as_text(measured), flush=True)
        return
    if cues:
        long = bench_cues.measure(max(seconds, 10.0))
        print(json.dumps(long) if as_json else bench_cues.as_text(long))
        return
    if busk:
        live_page = bench_busk.measure(max(int(seconds * 10), 100))
        print(json.dumps(live_page) if as_json else bench_busk.as_text(live_page))
        return
    if faders:
        hands = bench_faders.measure(max(seconds, 10.0))
        print(json.dumps(hands) if as_json else bench_faders.as_text(hands))
        return
    if pixels:
        of_maps = bench_pixels.measure(max(seconds, 10.0))
        print(json.dumps(of_maps) if as_json else bench_pixels.as_text(of_maps))
        return
    if songs:
        song = bench_songs.measure(max(seconds, 10.0))
        print(json.dumps(song) if as_json else bench_songs.as_text(song))
        return
    if kills:
        killed = bench_kills.measure(kills)
        print(json.dumps(killed) if as_json else bench_kills.as_text(killed))
        return
    if look:
        seen = bench_look.measure(max(seconds, 10.0)) | {"claims": benches.claims(seconds, 1)}
        print(json.dumps(seen) if as_json else bench_look.as_text(seen) + "\n" + benches.claims_as_text(seen["claims"]))
        return
    swept = benches.sweep(layers, seconds) if sweep else None
    results = swept["frames"] if swept else [benches.frames(count, layers, seconds) for count in (universes or [64])]
    report: dict[str, Any] = {"frames": results}
    if swept is not None:
        report["growth"] = swept["growth"]
    if busy:
        report["busy"], report["claims"] = benches.busy(seconds), benches.claims(seconds)
    if live:
        report["live"] = bench_live.measure(max(seconds, 10.0))
    if load:
        report["edits"], report["sockets"] = bench_load.edits(max(seconds, 10.0)), bench_load.sockets(60, max(seconds, 10.0))
    if as_json:
        print(json.dumps(results[0] if len(results) == 1 and len(report) == 1 else report))
        return
    for result in results:
        print(benches.as_text(result))
    if swept is not None:
        print(f"growth: time ~ universes^{swept['growth']:.2f} from 16 universes on")
    if busy:
        print(benches.busy_as_text(report["busy"]))
        print(benches.claims_as_text(report["claims"]))
    if live:
        print(bench_live.as_text(report["live"]))
    if load:
        print(bench_load.as_text(report["edits"], report["sockets"]))


@app.command()
def screenshots(
    folder: Annotated[Path, typer.Option(help="Where the pictures go.")] = Path("docs/screenshots"),
) -> None:
    """Renew one picture of each main view, from the demo show with something running."""
    from zarabanda.tools import pictures

    for path in pictures.take(folder):
        print(path)


def main() -> None:
    """The program: errors of ours are told in one line, without a traceback."""
    try:
        app(standalone_mode=False)
    except ZarabandaError as error:
        print(f"zarabanda: {error.message}", file=sys.stderr)
        sys.exit(2)
    except (KeyboardInterrupt, typer.Abort):
        sys.exit(130)
    except typer.Exit as error:
        sys.exit(error.exit_code)
    except Exception as error:
        show = getattr(error, "show", None)  # usage errors of the command line
        if show is None:
            raise
        show()
        sys.exit(getattr(error, "exit_code", 2))
