"""A plain reading of claims and cue lists: one cell at a time, kept in lists, evaluated by walking through all of it."""

from dataclasses import dataclass, field
from typing import Any

INF = float("inf")
FAMILY = {"intensity": "intensity", "pan": "position", "tilt": "position", "zoom": "beam"}


def ease(name: str, x: float) -> float:
    x = min(max(x, 0.0), 1.0)
    return {"linear": x, "smooth": 3 * x**2 - 2 * x**3, "slow-start": x**2, "slow-end": 1 - (1 - x) ** 2}[name]


def way(name: str, passed: float, whole: float) -> float:
    return (1.0 if passed >= 0 else 0.0) if whole == 0 else ease(name, passed / whole)


@dataclass
class End:
    """A release: from `at` on, over `fade` s."""

    at: float
    fade: float
    ease: str
    stands: float = INF

    @property
    def over(self) -> float:
        return self.at + self.fade if self.at + self.fade <= self.stands else INF


@dataclass
class Claim:
    """One list's hold on one cell. Times go on by the list's clock."""

    stamp: float
    begins: float
    fade: float
    ease: str
    target: float
    order: int
    stands: float = INF
    gone: float = INF
    ends: list[End] = field(default_factory=list)

    def current(self) -> bool:
        return self.stands == INF and not self.ends

    def share(self, t: float) -> float:
        rises = min([t, self.stands, *(end.at for end in self.ends)])
        share = way(self.ease, rises - self.begins, self.fade)
        for end in self.ends:
            share *= 1 - way(end.ease, min(t, end.stands) - end.at, end.fade)
        return share

    def over(self, t: float) -> bool:
        return t >= self.gone or any(t >= end.over for end in self.ends)


class PlainList:
    """One list: where it is, its clock, what it holds."""

    def __init__(self, document: dict[str, Any], place: int) -> None:
        self.document, self.place, self.cues = document, place, document["cues"]
        self.at: int | None = None
        self.claims: dict[tuple[str, str], list[Claim]] = {}
        self.level, self.lost, self.paused, self.follow = 1.0, 0.0, None, None

    def clock(self, t: float) -> float:
        return (t if self.paused is None else self.paused) - self.lost

    def tracked(self, n: int) -> tuple[dict[tuple[str, str], float], set[tuple[str, str]]]:
        """Values after a cue, and which of them it writes."""
        kept: dict[tuple[str, str], float] = {}
        for number, cue in enumerate(self.cues[: n + 1]):
            for name, heads in cue.get("stops", {}).items():
                for head in heads:
                    kept.pop((name, head), None)
            written = {(name, head): value for name, heads in cue["values"].items() for head, value in heads.items()}
            here = {(name, head) for name, heads in cue.get("only_here", {}).items() for head in heads}
            if number == n:
                shown = {**kept, **written}
                return shown, set(shown) if cue.get("states_everything") else set(written)
            kept |= {cell: value for cell, value in written.items() if cell not in here}
        raise AssertionError

    def times(self, n: int, name: str, up: bool) -> tuple[float, float]:
        times = self.cues[n]["times"][FAMILY[name]]
        return times.get("delay", 0.0), times["up" if up else "down"] if name == "intensity" else times["fade"]

    def arrives(self, n: int) -> float:
        _, written = self.tracked(n)
        cells = {*written, *((name, head) for name, heads in self.cues[n].get("stops", {}).items() for head in heads)}
        return max((sum(self.times(n, name, up)) for name, _ in cells for up in (True, False)), default=0.0)


class PlainShow:
    """All lists of a show, played by actions with their stamps."""

    def __init__(self, lists: list[dict[str, Any]], home: dict[str, float]) -> None:
        self.lists = {one["name"]: PlainList(one, n) for n, one in enumerate(lists)}
        self.home, self.count = home, 0

    # what is there

    def share(self, whose: PlainList, claim: Claim, t: float, newer: list[Claim]) -> float:
        share, level = claim.share(whose.clock(t)), whose.level
        if whose.document["fader"] == "dims" or level == 1:
            return share
        cover = 1.0
        for one in newer:
            cover *= 1 - one.share(whose.clock(t))
        return level * share * cover / (1 - level * (1 - cover))

    def layers(self, cell: tuple[str, str], t: float) -> list[tuple[PlainList, Claim, list[Claim]]]:
        found = []
        for whose in self.lists.values():
            there = [one for one in whose.claims.get(cell, []) if not one.over(whose.clock(t))]
            found += [(whose, one, there[n + 1 :]) for n, one in enumerate(there)]
        return sorted(found, key=lambda one: (one[1].stamp, one[0].place, one[1].order))

    def value(self, cell: tuple[str, str], t: float) -> float:
        value, highest = self.home[cell[0]], {}
        for whose, claim, newer in self.layers(cell, t):
            dims = cell[0] == "intensity" and whose.document["fader"] == "dims"
            target = claim.target * (whose.level if dims else 1.0)
            share = self.share(whose, claim, t, newer)
            if whose.document["highest_wins"] and cell[0] == "intensity":
                below = highest.get(whose.place, 0.0)
                highest[whose.place] = below + share * (target - below)
            else:
                value += share * (target - value)
        return max([value, *highest.values()])

    def arrived(self, head: str, but: set[int]) -> float:
        """What current claims on a head's intensity come to, without those whose id is in `but`."""
        value, highest = self.home["intensity"], {}
        every = [(whose, one) for whose in self.lists.values() for one in whose.claims.get(("intensity", head), [])]
        for whose, claim in sorted(every, key=lambda one: (one[1].stamp, one[0].place, one[1].order)):
            if claim.current() and id(claim) not in but:
                dims = whose.document["fader"] == "dims"
                share, target = 1.0 if dims else whose.level, claim.target * (whose.level if dims else 1.0)
                if whose.document["highest_wins"]:
                    highest[whose.place] = share * target
                else:
                    value += share * (target - value)
        return max([value, *highest.values()])

    # what is done

    def do(self, action: dict[str, Any]) -> None:
        t = action["at"]
        self.advance(t)
        whose = self.lists[action["list"]]
        match action["do"]:
            case "go" if whose.paused is not None:
                self.resume(whose, t)
            case "go":
                n = 0 if whose.at is None else whose.at + 1
                if n < len(whose.cues):
                    self.go(whose, n, t)
            case "go-to":
                self.go(whose, next(n for n, cue in enumerate(whose.cues) if cue["number"] == action["cue"]), t)
            case "back":
                self.resume(whose, t)
                if whose.at:
                    self.move(whose, whose.at - 1, t, back=whose.document["back"])
            case "pause":
                whose.paused = t if whose.paused is None else whose.paused
            case "release":
                self.resume(whose, t)
                every = [(whose, cell) for cell in whose.claims]
                self.release(every, t, lambda name: (0.0, action["seconds"]), "linear")
                whose.at = whose.follow = None
            case "level":
                whose.level = action["value"]

    def resume(self, whose: PlainList, t: float) -> None:
        if whose.paused is not None:
            whose.lost += t - whose.paused
            whose.paused = None

    def advance(self, t: float) -> None:
        while True:
            waiting = [(one.follow + one.lost, one.place, one) for one in self.lists.values()
                       if one.follow is not None and one.paused is None]  # fmt: skip
            due, _, whose = min(waiting, key=lambda one: one[:2], default=(INF, 0, None))
            if due > t:
                return
            self.go(whose, whose.at + 1, due)

    def go(self, whose: PlainList, n: int, t: float) -> None:
        self.resume(whose, t)
        self.move(whose, n, t)
        if n + 1 < len(whose.cues):
            trigger = whose.cues[n + 1].get("trigger", {"kind": "go"})
            if trigger["kind"] in ("with", "after"):
                after = whose.arrives(n) if trigger["kind"] == "after" else 0.0
                whose.follow = whose.clock(t) + after + trigger["wait"]

    def held(self, whose: PlainList, cell: tuple[str, str]) -> float | None:
        return next((one.target for one in whose.claims.get(cell, []) if one.current()), None)

    def move(self, whose: PlainList, n: int, t: float, back: float | None = None) -> None:
        cue, now = whose.cues[n], whose.clock(t)
        curve = "linear" if back is not None else cue["ease"]
        shown, written = whose.tracked(n)
        for cell, target in shown.items():
            held = self.held(whose, cell)
            if cell in written or held != target:
                up = target > (self.home[cell[0]] if held is None else held)
                delay, fade = (0.0, back) if back is not None else whose.times(n, cell[0], up)
                self.count += 1
                claim = Claim(t, now + delay, fade, curve, target, self.count)
                there = [one for one in whose.claims.get(cell, []) if not one.over(now)]
                for old in there:
                    late = any(end.at > now for end in old.ends)
                    old.stands = min(old.stands, now if late else claim.begins)
                    old.gone = claim.begins + fade
                    for end in old.ends:
                        end.stands = min(end.stands, now)
                whose.claims[cell] = [*(one for one in there if not one.over(now)), claim]
        going = [(whose, cell) for cell in whose.claims if self.held(whose, cell) is not None and cell not in shown]
        sweeps = cue.get("everything_else_out") and back is None
        for other in self.lists.values() if sweeps else ():
            if other is not whose and other.at is not None and not other.document["protected"]:
                self.resume(other, t)
                going += [(other, cell) for cell in other.claims if self.held(other, cell) is not None]
                other.at = other.follow = None
        self.release(going, t, lambda name: (0.0, back) if back is not None else whose.times(n, name, False), curve)
        whose.at, whose.follow = n, None

    def release(self, cells: list[tuple[PlainList, tuple[str, str]]], t: float, times: Any, curve: str) -> None:
        released = [(whose, cell, one) for whose, cell in cells for one in whose.claims[cell] if not one.over(whose.clock(t))]
        ids = {id(one) for _, _, one in released}
        heads = {head for _, (name, head), _ in released if name == "intensity"}
        dark = {head for head in heads if self.arrived(head, ids) <= 0}
        for whose, (name, head), claim in released:
            delay, fade = times(name)
            if name != "intensity" and head in dark:
                delay = sum(times("intensity"))
            end = End(whose.clock(t) + delay, fade, curve)
            running = [one.over for one in claim.ends if one.stands == INF]
            if not running or end.over < min(running):
                claim.ends.append(end)
                claim.gone = INF
