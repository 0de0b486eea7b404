"""Commands that save a show as a file, take one in, and look at one, without a browser; the program may run meanwhile."""

from __future__ import annotations

import json
import os
import tempfile
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from zarabanda.errors import NotThere, ZarabandaError
from zarabanda.media_folder import MEDIA

if TYPE_CHECKING:  # the others import what they need when they are called: commands start quickly
    from zarabanda.shelf.library import Entry, Library

DataOption = Annotated[Path, typer.Option(help="Folder that keeps the shows.")]
FileArgument = Annotated[Path, typer.Argument(help="A .zarabanda file.")]


def _chosen(library: Library, name: str | None) -> Entry:
    every = library.every()
    found = [one for one in every if (one.name == name if name is not None else one.id == library.open_id)]
    if not found:
        names = ", ".join(f"“{one.name}”" for one in every) or "none"
        raise NotThere(f"There is no show {f'“{name}” ' if name else ''}in this folder. There are: {names}.", "--show")
    return found[0]


def export_show(
    file: Annotated[Path, typer.Argument(help="Where to save it, such as tour.zarabanda.")],
    data: DataOption = Path("data/show"),
    show: Annotated[str | None, typer.Option(help="Name of the show; else the open one.")] = None,
) -> None:
    """Save a show with its media as one file."""
    from rich.progress import Progress

    from zarabanda.shelf import show_file
    from zarabanda.shelf.library import Library

    library = Library(data).adopted()
    entry = _chosen(library, show)
    fresh = file.with_name(f".{file.name}.new")
    try:
        with Progress(transient=True) as progress, fresh.open("wb") as target:
            task = progress.add_task(f"Saving “{entry.name}”", total=1.0)
            report = show_file.write(
                library.path(entry.id), data / MEDIA, target, lambda share: progress.update(task, completed=share)
            )
        os.replace(fresh, file)
    except OSError as error:
        raise ZarabandaError(f"{file} cannot be written: {error.strerror or error}. Choose another place.", "FILE") from error
    finally:
        fresh.unlink(missing_ok=True)
    print(f"Saved {report.in_words()} to {file}.")


def import_show(
    file: FileArgument,
    data: DataOption = Path("data/show"),
    open_it: Annotated[bool, typer.Option("--open", help="Make it the open show, for the next start.")] = False,
) -> None:
    """Take in a saved show: it becomes another one of the folder, none is overwritten."""
    from rich.progress import Progress

    from zarabanda.shelf import show_file
    from zarabanda.shelf.library import Library

    library = Library(data).adopted()
    report = show_file.look(_there(file))
    with Progress(transient=True) as progress:
        task = progress.add_task(f"Taking in “{report.name}”", total=1.0)

        def fill(path: Path) -> None:
            show_file.read(file, path, data / MEDIA, lambda share: progress.update(task, completed=share))

        made = library.make(fill)
    if open_it:
        library.open(made)
    print(f"Took in {report.in_words()}.")


def check_file(
    file: Annotated[Path, typer.Argument(help="A .zarabanda, .gdtf, .mvr, .mid or .frames file, or a baked .json.")],
) -> None:
    """Look through a file as if it were taken in, and say what is in it, or what is wrong with it."""
    looks = {".gdtf": _check_type, ".mvr": _check_scene, ".mid": _check_midi, ".json": _check_baked, ".frames": _check_frames}
    looks.get(file.suffix.lower(), _check_show)(_there(file))


def _check_type(file: Path) -> None:
    from zarabanda.formats.gdtf.reading import read

    found = read(file.read_bytes())
    print(f"{found.maker} {found.model}: {len(found.modes)} modes can be taken in.")
    for mode in found.modes:
        print(f"{mode.document.name}: {mode.document.footprint} channels, {len(mode.document.cells) or 1} lights")
        for line in mode.left_out:
            print(f"  {line}")
    for line in [*found.faults, *found.left_out]:
        print(line)


def _check_scene(file: Path) -> None:
    from zarabanda.formats.mvr.reading import read

    found = read(file)
    print(f"{len(found.fixtures):,} fixtures of {len(found.types)} types can be compared with a rig.")
    for name, of in found.types.items():
        if isinstance(of, str):
            print(f"{name} cannot be used: {of}")
    for line in found.notes:
        print(line)


def _check_midi(file: Path) -> None:
    from zarabanda.formats.midi_file import read

    for line in read(file.read_bytes()):
        count, first, last = len(line.presses), line.presses[0].at, line.presses[-1].at
        print(f"{line.called}: {count:,} press{'' if count == 1 else 'es'} from {first:.3f} s to {last:.3f} s")


def _check_baked(file: Path) -> None:
    from zarabanda.formats.baked import read

    try:
        found = read(json.loads(file.read_bytes()))
    except ValueError as error:
        raise ZarabandaError(f"This is no JSON file: {error}.", "file") from error
    print(f"{found.name}: {found.seconds:g} s on {len(found.heads)} heads.")
    for name, rows in found.frames.items():
        print(f"{name}: {len(rows):,} frames")
    for name, steps in found.steps.items():
        count = sum(len(times) for times, _ in steps.heads.values())
        print(f"{name}: {count:,} steps, at most {steps.error:g} {steps.unit} off".rstrip())


def _check_frames(file: Path) -> None:
    from zarabanda.formats.dmx_frames import FramesReader

    found = FramesReader(file)
    found.close()
    print(f"{found.frames:,} frames of {len(found.universes)} universes, {found.seconds:.1f} s.")


def _check_show(file: Path) -> None:
    from zarabanda.shelf import show_file

    with tempfile.TemporaryDirectory() as folder:
        report = show_file.read(file, Path(folder) / show_file.SHOW_DB, Path(folder) / MEDIA)
    print(f"{report.in_words()}. Version {report.schema}, written by Zarabanda {report.program}. It can be taken in.")


def _there(file: Path) -> Path:
    if not file.is_file():
        raise NotThere(f"{file} is not there, or is no file.", "FILE")
    return file


def add_to(app: typer.Typer) -> None:
    """Let a program have them."""
    app.command("export")(export_show)
    app.command("import")(import_show)
    app.command("check")(check_file)
