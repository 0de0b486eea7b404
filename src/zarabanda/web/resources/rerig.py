"""The show goes to other lights: pairs of groups, how their lights are matched, and what would change, before it does."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy.orm import Session

from zarabanda.formats.effect_document import EffectDocument
from zarabanda.show import repositories
from zarabanda.show.rerig import pairs as pairing
from zarabanda.show.rerig import rigs, taking_over
from zarabanda.show.rerig.pairs import Pair, Side
from zarabanda.show.rerig.report import Report
from zarabanda.show.rerig.rigs import RigRows
from zarabanda.show.tables import EffectRow

from .. import other_rigs, weaving
from ..context import context
from ..trying import edited
from .effects import bpm_of
from .rerig_models import (
    ChangeView,
    CountedView,
    MatchAsk,
    MatchView,
    OtherRig,
    OtherRigs,
    PairPart,
    PairView,
    Proposal,
    RigAsk,
    SidePart,
    SideView,
    TakenOver,
    TakeOverAsk,
)
from .weave_models import WeaveAsk, WeaveView

api = APIBlueprint("re-rig", __name__, url_prefix="/api/take-over", abp_tags=[Tag(name="re-rig")])
OWN = "this"
_COLUMNS, _BASE = 180, 40.0
"""Of weaves: their columns, and the level in % that they lie on."""
_ALIKE = 3
"""So much may the bytes of pixels differ that count as the same."""


@api.get("/rigs", responses={200: OtherRigs})
def get_rigs() -> OtherRigs:
    """Rigs that the open show can go to."""
    with context().store.reading() as session:
        own = OtherRig(id=OWN, name="other groups of this rig", lights=len(repositories.rig.every(session)))
    every = other_rigs.every(context().library)
    return OtherRigs(rigs=[own, *(OtherRig(id=one, name=name, lights=lights) for one, name, lights in every)])


@api.post("/pairs", responses={200: Proposal})
def propose(body: RigAsk) -> Proposal:
    """Both rigs, and which group of the one could take over from which of the other."""
    before, after = _rigs(body.rig)
    if body.rig == OWN:
        groups = [Side(one.name, pairing.numbers_of(one.heads, before), one.id) for one in before.groups]
        here = there = [one for one in groups if one.numbers]
        found = []
    else:
        here, there, found = pairing.sides(before), pairing.sides(after), pairing.proposed(before, after)
    name = next((one for identity, one, _ in other_rigs.every(context().library) if identity == body.rig), "this rig")
    return Proposal(
        name=name, before=[_side(one, before) for one in here], after=[_side(one, after) for one in there],
        pairs=[PairPart(source=_part(one.source), target=_part(one.target) if one.target else None) for one in found],
    )  # fmt: skip


@api.post("/matches", responses={200: MatchView})
def look_at_matches(body: MatchAsk) -> MatchView:
    """How the lights of pairs are matched, and the weave of an effect on both sides of one."""
    before, after = _rigs(body.rig)
    every = _pairs(body.pairs, before, after)
    views = [_pair(one, before, after) for one in every]
    chosen = every[body.chosen] if body.chosen < len(every) else None
    if chosen is None or chosen.target is None or not body.effect:
        return MatchView(pairs=views, here=None, there=None, sentence="", still_mirrored=False)
    here, there = (_weave(body.effect, rig, side) for rig, side in ((before, chosen.source), (after, chosen.target)))
    was, now = _symmetrical(here, before, chosen.source), _symmetrical(there, after, chosen.target)
    return MatchView(pairs=views, here=here, there=there, sentence=_sentence(was, now), still_mirrored=was and now)


@api.post("", responses={200: TakenOver})
def take_over(body: TakeOverAsk) -> TakenOver:
    """Let other lights take over, with everything that is programmed; or tell what that would change. One undo step; the show as
    it was is kept as a copy."""
    own = context()
    before, after = _rigs(body.rig)
    every = _pairs(body.pairs, before, after)
    name = "other groups" if body.rig == OWN else f"a rig of {len(after.fixtures):,} lights"

    def act(session: Session) -> Report:
        if body.rig == OWN:
            return taking_over.within(session, every, aims=body.aims)
        return taking_over.to_other_rig(session, after, every, aims=body.aims)

    if not body.preview:
        own.library.copies(own.library.open_id).take("rig")
    report = edited(f"Take over to {name}", body.preview, act)
    return TakenOver(
        done="nothing yet" if body.preview else f"Taken over to {name}",
        counts=[CountedView(what=what, count=count) for what, count in report.counts.items()],
        changes=[ChangeView(what=one.what, name=one.name, lines=list(one.lines)) for one in report.told],
    )  # fmt: skip


def _rigs(identity: str) -> tuple[RigRows, RigRows]:
    with context().store.reading() as session:
        before = rigs.of_session(session)
    return before, before if identity == OWN else other_rigs.rig_of(identity, context().library)


def _pairs(parts: Sequence[PairPart], before: RigRows, after: RigRows) -> list[Pair]:
    return [
        Pair(
            pairing.side_of(before, one.source.numbers, one.source.name, one.source.group),
            pairing.side_of(after, one.target.numbers, one.target.name, one.target.group) if one.target else None,
            one.way, one.repeats, tuple(one.match),
        )
        for one in parts
    ]  # fmt: skip


def _part(side: Side) -> SidePart:
    return SidePart(name=side.name, numbers=list(side.numbers), group=side.group)


def _side(side: Side, rig: RigRows) -> SideView:
    names = {one.number: rig.modes[one.mode].model or one.mode for one in rig.fixtures}
    counts = Counter(names[number] for number in side.numbers)
    kinds = ", ".join(f"{count} {name}" for name, count in counts.items())
    return SideView(name=side.name, numbers=list(side.numbers), group=side.group, of_group=side.of_group, kinds=kinds)


def _pair(pair: Pair, before: RigRows, after: RigRows) -> PairView:
    match = pairing.matched(pair, before, after)
    mirrored = pair.target is not None and pairing.is_mirrored(pair, before, after)
    return PairView(
        match=match.tolist(), mirrored=mirrored, sentence=pairing.in_words(pair, before, after),
        differences=list(taking_over.between(pair, before, after)),
    )  # fmt: skip


# the same weave on both


def _weave(effect_id: int, rows: RigRows, side: Side) -> WeaveView:
    with context().store.reading() as session:
        row = repositories.rows.get(session, EffectRow, effect_id, "effect")
        document = EffectDocument.model_validate(repositories.effects.document_of(session, row))
        effect = document.to_core(repositories.palettes.by_name(session) if document.palettes() else {})
        bpm = bpm_of(session, document)
    heads = rows.keys_of(side.numbers)
    ask = WeaveAsk(heads=heads, columns=_COLUMNS, attribute=weaving.seen_attribute(effect))
    with context().weaves.turn():
        return weaving.make(effect, ask, rows.rig, {"intensity": dict.fromkeys(heads, _BASE)}, bpm)


def _symmetrical(view: WeaveView, rows: RigRows, side: Side) -> bool:
    """Whether every head does at every time what the one does that faces it."""
    facing = pairing.facing(side, rows)
    pixels = weaving.pixels_of(view)
    row = {key: n for n, key in enumerate(view.heads)}
    other = [row[facing[key]] for key in view.heads]
    return bool(np.abs(pixels.astype(np.int16) - pixels[other].astype(np.int16)).max(initial=0) <= _ALIKE)


def _sentence(was: bool, now: bool) -> str:
    if was and now:
        return "Still mirrored: left and right do the same on both."
    if was:
        return "Not mirrored any more: left and right did the same, and do not there. Match from the middle to keep it."
    if now:
        return "Mirrored there, which it was not before."
    return "Not mirrored on either: this effect runs across them."
