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

from zarabanda import bench_command, show_commands
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
bench_command.add_to(app)


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
