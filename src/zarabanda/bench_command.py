"""The command that measures. Each part of it is a module of `tools`."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Annotated, Any

import typer

Report = dict[str, Any]


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
    files: Annotated[bool, typer.Option(help="Measure saving and restoring a large show, and scenes of 2,000 fixtures.")] = False,
    rerig: Annotated[bool, typer.Option(help="Measure a show of 2,000 heads taken over to another rig.")] = False,
    kills: Annotated[int, typer.Option(help="Kill web and engine so often while cues play, and compare.", min=0)] = 0,
    output: Annotated[bool, typer.Option(help="Measure sending alone: E1.31, Art-Net, and beside routes that fail.")] = False,
) -> None:
    """Measure frame times beside a plain NumPy floor, with the machine's steal."""
    from zarabanda.tools import bench as benches
    from zarabanda.tools import (
        bench_busk,
        bench_cues,
        bench_faders,
        bench_files,
        bench_kills,
        bench_live,
        bench_load,
        bench_look,
        bench_output,
        bench_pixels,
        bench_rerig,
        bench_songs,
    )

    if output:
        for protocol, beside in (("E1.31", False), ("Art-Net", False), ("E1.31", True)):
            measured = bench_output.measure((universes or [512])[0], protocol, seconds, beside=beside)
            print(json.dumps(measured) if as_json else bench_output.as_text(measured), flush=True)
        return
    alone: list[tuple[object, Any, Callable[[Any], Report]]] = [
        (cues, bench_cues, lambda one: one.measure(max(seconds, 10.0))),
        (busk, bench_busk, lambda one: one.measure(max(int(seconds * 10), 100))),
        (faders, bench_faders, lambda one: one.measure(max(seconds, 10.0))),
        (pixels, bench_pixels, lambda one: one.measure(max(seconds, 10.0))),
        (songs, bench_songs, lambda one: one.measure(max(seconds, 10.0))),
        (files, bench_files, lambda one: one.measure()),
        (rerig, bench_rerig, lambda one: one.measure()),
        (kills, bench_kills, lambda one: one.measure(kills)),
    ]
    for wanted, module, measure in alone:
        if wanted:
            found = measure(module)
            print(json.dumps(found) if as_json else module.as_text(found))
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


def add_to(app: typer.Typer) -> None:
    """Add the command to the program's own."""
    app.command()(bench)
