"""Busking pages: made from groups in one step, and edited."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.colour.clashes import HARD, discord
from zarabanda.core.colour.spaces import hex_to_rgb
from zarabanda.core.rig.abilities import abilities
from zarabanda.errors import ZarabandaError
from zarabanda.formats import cue_message
from zarabanda.formats.busk_document import BuskRowDocument, EffectPad, Kind, Section
from zarabanda.show import busk_maker, repositories
from zarabanda.show.tables import BuskRow, CueListRow, DeviceRow, EffectRow, Group, PaletteRow, PixelMapRow, TempoRow

from ..context import browser_id, context
from ..parts import Done, Id
from .busk_models import (
    AddBuskRow,
    BuskOrder,
    BuskPads,
    BuskPadView,
    BuskPageName,
    BuskPageView,
    BuskRowView,
    BuskView,
    ChangeBuskRow,
    KeepTempo,
    NewBuskPage,
    PadContent,
    ProposalView,
    ProposedView,
)
from .effects import families_of

api = APIBlueprint("busk", __name__, url_prefix="/api/busk", abp_tags=[Tag(name="busking pages")])


class BuskPagePath(BaseModel):
    """Which busking page."""

    page_id: Id


class BuskRowPath(BaseModel):
    """Which row."""

    row_id: Id


class _Teller:
    """Tells rows as the page shows them."""

    def __init__(self, session: Session) -> None:
        self._palettes = {row.id: row for row in repositories.palettes.every(session)}
        self._effects = {row.id: row for row in session.scalars(select(EffectRow))}
        self._groups = {row.id: row for row in repositories.groups.every(session)}
        self._devices = {row.id: row.name for row in session.scalars(select(DeviceRow))}
        self._maps = {row.id: row.name for row in repositories.pixels.every(session)}
        self._pictures = {row.id: row.name for row in repositories.pixels.library(session)}
        self._rig = context().link.rig

    def row(self, row: BuskRow, of_page: Mapping[int, BuskRow]) -> BuskRowView:
        """One row. of_page: all rows of its page."""
        document = repositories.busk.document_of(row)
        group = self._groups.get(row.group_id) if row.group_id is not None else None
        heads = list(group.heads) if group is not None else []
        if row.kind == "all":
            others = [self._groups[one.group_id] for one in of_page.values() if one.kind == "lights" and one.group_id is not None]
            heads = list(dict.fromkeys(key for other in others for key in other.heads))
        can: list[Section] = list(busk_maker.carried(abilities(self._rig, heads))) if row.kind in ("all", "lights") else []
        waits = f"the group “{group.name}” is empty" if group is not None and not heads else ""
        return BuskRowView(
            id=row.id, kind=_KINDS[row.kind], name=row.name, group_id=row.group_id, lights=lights(heads), heads=heads, can=can,
            carries=document.carries, colour=self._of_palettes(document, "colour"),
            position=self._of_palettes(document, "position"), beam=self._of_palettes(document, "beam"),
            effects=[
                self._effect(pad.id, pad.name, pad.effect, pad.while_held) if pad.pixels is None else self._on_map(pad)
                for pad in document.effects
            ],
            messages=[
                _pad(pad.id, pad.name, name=pad.name, sends=pad.message,
                     message=cue_message.in_words(pad.message.model_dump(), self._names))
                for pad in document.messages
            ],
            tempo=document.tempo, colour_tempo=document.colour_tempo, go_list=document.go_list, waits=waits,
        )  # fmt: skip

    @property
    def _names(self) -> dict[tuple[str, int], str]:
        return {("device", number): name for number, name in self._devices.items()}

    def _of_palettes(self, document: BuskRowDocument, section: str) -> list[BuskPadView]:
        found = []
        for pad in getattr(document, section):
            row = self._palettes.get(pad.palette)
            name = pad.name or (row.name if row is not None else "gone")
            colours = _colours(row) if row is not None and section == "colour" else []
            gone = "" if row is not None else "its palette is gone"
            found.append(_pad(pad.id, pad.name, name=name, palette=pad.palette, colours=colours, gone=gone))
        return found

    def _effect(self, number: int, own: str, effect: int, while_held: bool) -> BuskPadView:
        row = self._effects.get(effect)
        moves = families_of(row.document) if row is not None and row.document.get("layers") else []
        name = own or (row.name if row is not None else "gone")
        gone = "" if row is not None else "its effect is gone"
        return _pad(number, own, name=name, effect=effect, moves=moves, while_held=while_held, gone=gone)

    def _on_map(self, pad: EffectPad) -> BuskPadView:
        assert pad.pixels is not None
        whole, picture = self._maps.get(pad.pixels.map), self._pictures.get(pad.pixels.picture)
        gone = (
            ""
            if whole and (picture or not pad.pixels.picture)
            else "its pixel map is gone"
            if not whole
            else "its picture is gone"
        )
        name = pad.name or picture or whole or "gone"
        return _pad(pad.id, pad.name, name=name, pixels=pad.pixels, while_held=pad.while_held, gone=gone)


def _pad(number: int, own: str, **more: Any) -> BuskPadView:
    plain: dict[str, Any] = {
        "palette": None,
        "effect": None,
        "pixels": None,
        "colours": [],
        "moves": [],
        "while_held": False,
        "message": "",
        "sends": None,
    }
    return BuskPadView(**{"id": number, "own_name": own, "gone": "", **plain, **more})


def lights(heads: list[str]) -> str:
    """How many lights there are, in words.

    >>> lights(["101", "102"]), lights(["321.1", "321.2"]), lights([])
    ('2 lights', '1 light, 2 cells', 'no lights')
    """
    if not heads:
        return "no lights"
    whole = len({key.partition(".")[0] for key in heads})
    words = f"{whole:,} light" + ("s" if whole != 1 else "")
    return words if len(heads) == whole else f"{words}, {len(heads):,} cells"


_RGB = ("red", "green", "blue")
_KINDS: dict[str, Kind] = {"all": "all", "lights": "lights", "messages": "messages", "haze": "haze"}


def _colours(row: PaletteRow) -> list[str]:
    """The colours of a palette, at most three of those that differ from head to head."""
    core = repositories.palettes.to_core(row)
    every = [core.values, *core.models.values(), *core.own.values()]
    found = dict.fromkeys(
        "#" + "".join(f"{round(255 * one[name]):02x}" for name in _RGB) for one in every if all(name in one for name in _RGB)
    )
    return list(found)[:3]


def _clashes(rows: list[BuskRowView]) -> dict[int, list[int]]:
    colours = {pad.palette: pad.colours[0] for row in rows for pad in row.colour if pad.palette is not None and pad.colours}
    numbers = list(colours)
    if not numbers:
        return {}
    rgb = np.array([hex_to_rgb(colours[number]) for number in numbers])
    hard = discord(rgb[:, None], rgb[None]) > HARD
    return {number: [numbers[n] for n in np.flatnonzero(hard[at]).tolist()] for at, number in enumerate(numbers)}


@api.get("", responses={200: BuskView})
def get_busk() -> BuskView:
    """All busking pages with their rows and pads."""
    with context().store.reading() as session:
        teller, pages = _Teller(session), []
        for page in repositories.busk.pages(session):
            rows = {row.id: row for row in repositories.busk.rows(session, page.id)}
            pages.append(BuskPageView(id=page.id, name=page.name, rows=[teller.row(row, rows) for row in rows.values()]))
    return BuskView(pages=pages, clashes=_clashes([row for page in pages for row in page.rows]))


@api.get("/proposal", responses={200: ProposalView})
def get_proposal() -> ProposalView:
    """What a new page could be made of."""
    with context().store.reading() as session:
        found = busk_maker.proposed(session, context().link.rig)
    return ProposalView(
        groups=[
            ProposedView(
                id=one.group.id, name=one.group.name, lights=lights(one.group.heads), kind=_KINDS[one.kind],
                carries=list(one.carries), on=one.on,
            )
            for one in found
        ]
    )  # fmt: skip


@api.post("/pages", responses={201: Done})
def make_page(body: NewBuskPage) -> tuple[Done, int]:
    """Make a busking page from groups, with pads that their lights can do."""
    wishes = [busk_maker.Wish(one.group_id, one.carries) for one in body.rows]
    with context().store.edit(browser_id(), f"Make the busking page {body.name}") as session:
        busk_maker.make(session, context().link.rig, body.name, wishes, body.colours)
    return Done(done=f"Made {body.name}"), 201


@api.post("/pages/<int:page_id>/rename", responses={200: Done})
def rename_page(path: BuskPagePath, body: BuskPageName) -> Done:
    """Give a page another name."""
    with context().store.edit(browser_id(), f"Rename a busking page to {body.name}") as session:
        repositories.busk.rename_page(session, path.page_id, body.name)
    return Done(done=f"Renamed to {body.name}")


@api.delete("/pages/<int:page_id>", responses={200: Done})
def delete_page(path: BuskPagePath) -> Done:
    """Delete a page and its rows; undo brings it back."""
    with context().store.edit(browser_id(), "Delete a busking page") as session:
        page = repositories.busk.remove_page(session, path.page_id)
        return Done(done=f"Deleted {page.name}")


@api.post("/pages/<int:page_id>/order", responses={200: Done})
def put_rows_in_order(path: BuskPagePath, body: BuskOrder) -> Done:
    """Put the rows of a page in another order."""
    with context().store.edit(browser_id(), "Move a row") as session:
        repositories.busk.arrange(session, path.page_id, body.ids)
    return Done(done="Moved")


@api.post("/pages/<int:page_id>/rows", responses={201: Done})
def add_row(path: BuskPagePath, body: AddBuskRow) -> tuple[Done, int]:
    """Add a row for a group, or one for messages."""
    if (body.group_id is None) == (body.name is None):
        raise ZarabandaError("Say which group the row is for, or what a row for messages is called.", "group_id")
    with context().store.edit(browser_id(), "Add a row") as session:
        if body.group_id is not None:
            group = repositories.rows.get(session, Group, body.group_id, "group")
            row = busk_maker.add_row(session, context().link.rig, path.page_id, group)
        else:
            empty = BuskRowDocument(carries=["messages"])
            row = repositories.busk.add_row(session, path.page_id, "messages", body.name or "", None, empty)
        return Done(done=f"Added {row.name}"), 201


@api.post("/rows/<int:row_id>", responses={200: Done})
def change_row(path: BuskRowPath, body: ChangeBuskRow) -> Done:
    """Change a row."""
    with context().store.edit(browser_id(), "Change a row") as session:
        row = repositories.rows.get(session, BuskRow, path.row_id, "row")
        changes = body.model_dump(exclude_none=True, include={"carries", "tempo", "colour_tempo"})
        for name in ("tempo", "colour_tempo"):
            if name in changes:
                repositories.rows.get(session, TempoRow, changes[name], "tempo")
        if body.go_list is not None:
            if body.go_list:
                repositories.rows.get(session, CueListRow, body.go_list, "cue list")
            changes["go_list"] = body.go_list or None
        if body.name is not None:
            row.name = body.name.strip()
        if body.group_id is not None:
            row.group_id = repositories.rows.get(session, Group, body.group_id, "group").id
        document = repositories.busk.document_of(row).model_dump(mode="json")
        repositories.busk.put(row, BuskRowDocument.model_validate({**document, **changes}))
        return Done(done=f"Changed {row.name}")


@api.delete("/rows/<int:row_id>", responses={200: Done})
def delete_row(path: BuskRowPath) -> Done:
    """Delete a row; undo brings it back."""
    with context().store.edit(browser_id(), "Delete a row") as session:
        row = repositories.rows.get(session, BuskRow, path.row_id, "row")
        if row.kind == "all":
            raise ZarabandaError("The row for all lights stays as long as its page. Delete the page.", "row")
        session.delete(row)
        return Done(done=f"Deleted {row.name}")


_ON_PADS: dict[str, str] = {
    "colour": "palette", "position": "palette", "beam": "palette", "effects": "effect", "messages": "message",
}  # fmt: skip
"""What pads of a section have."""


@api.put("/rows/<int:row_id>/pads", responses={200: Done})
def put_pads(path: BuskRowPath, body: BuskPads) -> Done:
    """All pads of a section of a row, in their order: added, taken out, moved, named."""
    with context().store.edit(browser_id(), "Edit pads") as session:
        row = repositories.rows.get(session, BuskRow, path.row_id, "row")
        before = repositories.busk.document_of(row)
        known = {pad.id: pad.model_dump(mode="json") for pad in getattr(before, body.section)}
        pads = [_content(session, body.section, pad, known, n) for n, pad in enumerate(body.pads)]
        repositories.busk.put(row, repositories.busk.with_pads(before, body.section, pads))
    return Done(done="Kept")


def _content(session: Session, section: str, pad: PadContent, known: Mapping[int, Any], place: int) -> dict[str, Any]:
    """A pad as it is kept; what is on it must be there, unless it was on it before."""
    what = "pixels" if section == "effects" and pad.pixels is not None else _ON_PADS[section]
    given = [name for name in ("palette", "effect", "pixels", "message") if getattr(pad, name) is not None]
    if given != [what]:
        raise ZarabandaError(f"A pad of {section} has a {what}, and nothing else.", f"pads.{place}")
    if pad.id is not None and pad.id not in known:
        raise ZarabandaError("This pad is not there any more. Reload the page to see what is there.", f"pads.{place}.id")
    same = pad.id is not None and known[pad.id].get(what) == getattr(pad, what)
    found: dict[str, Any] = {"id": pad.id, "name": pad.name.strip(), what: getattr(pad, what)}
    if section == "effects":
        found["while_held"] = pad.while_held
        if pad.pixels is not None:
            repositories.rows.get(session, PixelMapRow, pad.pixels.map, "pixel map")
            found["pixels"] = pad.pixels.model_dump()
        elif not same:
            repositories.rows.get(session, EffectRow, pad.effect or 0, "effect").kept = True
    elif section == "messages" and pad.message is not None:
        device = repositories.devices.document_of(repositories.rows.get(session, DeviceRow, pad.message.device, "device"))
        if cue_message.speaks(pad.message.kind) != device.speaks:
            raise ZarabandaError(f"This device speaks {device.speaks}. Choose a message that it can be sent.", f"pads.{place}")
        found["message"] = pad.message.model_dump(mode="json")
    elif not same:
        family = repositories.rows.get(session, PaletteRow, pad.palette or 0, "palette").document["family"]
        if family != section:
            raise ZarabandaError(f"This palette is one of {family}: it cannot be a pad of {section}.", f"pads.{place}")
    return found


@api.put("/tempo", responses={200: Done})
def keep_tempo(body: KeepTempo) -> Done:
    """Keep the BPM of a tempo in the show: what it begins with, and is set back to."""
    with context().store.edit(browser_id(), f"Keep {body.bpm:g} BPM for {body.tempo}") as session:
        row = repositories.tempos.named(session, body.tempo)
        if row is None:
            raise ZarabandaError("This tempo is not there any more. Reload the page to see what is there.", "tempo")
        row.bpm = body.bpm
    return Done(done=f"{body.tempo} is {body.bpm:g} BPM in this show")
