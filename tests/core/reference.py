"""Effects once more, as plainly as docs/computation.md says them: one head, one time, numbers without arrays.

`core` is compared with it. It shares no code with `core`, and is slow.
"""

from __future__ import annotations

import json
import math
from bisect import bisect_right
from functools import lru_cache
from itertools import pairwise
from typing import Any

WORD = (1 << 64) - 1
CIRCLES = ("hue",)


# random numbers


def mixed(word: int) -> int:
    word = (word + 0x9E3779B97F4A7C15) & WORD
    word = ((word ^ (word >> 30)) * 0xBF58476D1CE4E5B9) & WORD
    word = ((word ^ (word >> 27)) * 0x94D049BB133111EB) & WORD
    return word ^ (word >> 31)


def unit(seed: int, key: int, cycle: int) -> float:
    return (mixed(mixed(mixed(seed & WORD) ^ (key & WORD)) ^ (cycle & WORD)) >> 11) / 2**53


# lanes


def from_middle(count: int, rank: int) -> float:
    return abs(rank - (count - 1) / 2)


def reorder(step: str, heads: list[int], places: list[Any], seed: int) -> list[int]:
    ranks = range(len(heads))
    if step == "shuffled":
        return [heads[n] for n in sorted(ranks, key=lambda n: unit(seed, n, 0))]
    if step == "odd-then-even":
        return heads[::2] + heads[1::2]
    if step == "reversed":
        return heads[::-1]
    if step in ("centre-out", "ends-in"):
        sign = 1 if step == "centre-out" else -1
        return [heads[n] for n in sorted(ranks, key=lambda n: sign * from_middle(len(heads), n))]
    if step == "round-the-middle":
        x, y = (sum(places[h][axis] for h in heads) / len(heads) for axis in (0, 1))
        return sorted(heads, key=lambda h: math.atan2(places[h][1] - y, places[h][0] - x) % (2 * math.pi))
    axis = {"left-to-right": 0, "front-to-back": 1, "low-to-high": 2}.get(step)
    return list(heads) if axis is None else sorted(heads, key=lambda h: places[h][axis])


def lanes_of(document: dict[str, Any], count: int, places: list[Any]) -> tuple[dict[int, dict[str, Any]], int]:
    """Lane, random key and whether it is counted backward, by head; and the number of lanes."""
    setting = {"order": ["as-picked"], "parts": 1, "mirror": False, "pack": 1, "repeat": 0, "travel": "forward"}
    setting |= document.get("lanes") or {}
    heads = list(range(count))
    for step in setting["order"]:
        heads = reorder(step, heads, places, document.get("seed", 0))
    parts: dict[int, list[int]] = {}
    for rank, head in enumerate(heads):
        parts.setdefault(rank * setting["parts"] // count, []).append(head)
    lanes = math.ceil(max(map(len, parts.values())) / setting["pack"])
    if setting["repeat"]:
        lanes = min(lanes, setting["repeat"])
    found = {}
    for part, members in parts.items():
        backward = setting["mirror"] and part % 2 == 1
        for index, head in enumerate(members[::-1] if backward else members):
            packed = index // setting["pack"]
            lane = packed % setting["repeat"] if setting["repeat"] else packed
            if setting["travel"] == "reverse":
                lane = lanes - 1 - lane
            key = packed if setting["mirror"] else packed + 65_537 * part
            found[head] = {"lane": lane, "key": key, "backward": backward}
    return found, lanes


# phase


@lru_cache(maxsize=4096)
def cycle_starts(low: float, high: float, seed: int, key: int, ahead: bool) -> list[float]:
    starts = [0.0]
    for cycle in range(1500):
        number = cycle if ahead else -1 - cycle
        starts.append(starts[-1] + 1 / (low + (high - low) * unit(seed, key, number)))
    return starts


def drifted(theta: float, document: dict[str, Any], key: int) -> float:
    low, high = document.get("drift", (100.0, 100.0))
    if low == high == 100:
        return theta
    starts = cycle_starts(low / 100, high / 100, document.get("seed", 0), key, theta >= 0)
    cycle = bisect_right(starts, abs(theta)) - 1
    passed = cycle + (abs(theta) - starts[cycle]) / (starts[cycle + 1] - starts[cycle])
    return passed if theta >= 0 else -passed


def run(theta: float, document: dict[str, Any]) -> float:
    way = document.get("run", "forward")
    if way == "backward":
        return -theta
    return 1 - abs(1 - theta % 2) if way == "back-and-forth" else theta


def in_cycle(at: float) -> float:
    return min(at - math.floor(at), math.nextafter(1, 0))


def turns(layer: dict[str, Any], document: dict[str, Any], lane: dict[str, Any], count: int, theta: float, own: float):
    """(p, cycle, q) of each turn that is under way: phase, number of the cycle for random forms, phase in that cycle."""
    spread = layer.get("spread") or document.get("spread") or {"kind": "ripple"}
    ratio, start = layer.get("ratio", 1.0), layer.get("start", 0.0) / 360
    if spread["kind"] == "ripple":
        divisor = count if spread.get("fit", "closed") == "closed" else max(count - 1, 1)
        offset = spread.get("degrees", 360.0) / 360 * lane["lane"] / divisor + own / 360
        passed = drifted(theta, document, lane["key"])
        at, raw = ratio * run(passed, document) + start - offset, ratio * passed + start - offset
        return [(in_cycle(at), math.floor(raw), in_cycle(raw))]
    back = (document.get("lanes") or {}).get("travel") == "back-and-forth"
    h = spread.get("handover", 1.0)
    circuit = max((2 * count - 2 if back else count) * h, 1.0)
    speed = circuit if spread.get("speed_counts", "turns") == "circuits" else 1.0
    passed = drifted(theta * speed, document, 0) / speed
    at, raw = ratio * speed * run(passed, document), ratio * speed * passed
    shuffled = spread.get("order", "in-turn") == "shuffled"
    if not back and not shuffled:
        tau = min((at - lane["lane"] * h) % circuit, math.nextafter(circuit, 0))
        return [(tau, math.floor((raw - lane["lane"] * h) / circuit), tau)] if tau < 1 else []
    found = []
    for number in (math.floor(at / circuit), math.floor(at / circuit) - 1):
        position = lane["lane"]
        if shuffled:
            drawn = sorted(range(count), key=lambda k: unit(document.get("seed", 0), k + 7919, number))
            position = drawn.index(lane["lane"])
        ways = [position]
        if back and 0 < position < count - 1:
            ways.append(2 * count - 2 - position)
        for way, place in enumerate(ways):
            tau = at - number * circuit - place * h
            if 0 <= tau < 1:
                found.append((tau, number * 2 + way, tau))
    return found


# forms


def pchip(points: list[Any], x: float) -> float:
    """Monotone cubic (Fritsch and Butland, 1984) with one-sided slopes at the ends."""
    xs, ys = [p[0] for p in points], [round(p[1], 12) for p in points]
    x = min(max(x, xs[0]), xs[-1])
    n = len(xs)
    h = [xs[i + 1] - xs[i] for i in range(n - 1)]
    d = [(ys[i + 1] - ys[i]) / h[i] for i in range(n - 1)]

    def at_end(h0: float, h1: float, d0: float, d1: float) -> float:
        slope = ((2 * h0 + h1) * d0 - h0 * d1) / (h0 + h1)
        if slope * d0 <= 0:
            return 0.0
        return 3 * d0 if d0 * d1 <= 0 and abs(slope) > 3 * abs(d0) else slope

    slopes = [at_end(h[0], h[1], d[0], d[1])]
    for i in range(1, n - 1):
        a, b = 2 * h[i] + h[i - 1], h[i] + 2 * h[i - 1]
        slopes.append(0.0 if d[i - 1] * d[i] <= 0 else (a + b) / (a / d[i - 1] + b / d[i]))
    slopes.append(at_end(h[-1], h[-2], d[-1], d[-2]))
    i = min(bisect_right(xs, x) - 1, n - 2)
    t = (x - xs[i]) / h[i]
    return (
        (1 + 2 * t) * (1 - t) ** 2 * ys[i] + t * (1 - t) ** 2 * h[i] * slopes[i]
        + t * t * (3 - 2 * t) * ys[i + 1] + t * t * (t - 1) * h[i] * slopes[i + 1]
    )  # fmt: skip


def curve(form: dict[str, Any], x: float) -> float:
    points = form["points"]
    if form.get("interpolation") == "smooth" and len(points) > 2:
        return pchip(points, x)
    if x <= points[0][0]:
        return points[0][1]
    for (x0, y0), (x1, y1) in pairwise(points):
        if x <= x1:
            return y0 + (y1 - y0) * (x - x0) / (x1 - x0)
    return points[-1][1]


SHAPES = {
    "sine": lambda p: 0.5 + 0.5 * math.sin(2 * math.pi * p),
    "swell": lambda p: 0.5 - 0.5 * math.cos(2 * math.pi * p),
    "triangle": lambda p: 1 - abs(2 * p - 1),
    "rise": lambda p: p,
    "fall": lambda p: 1 - p,
    "strike": lambda p: (math.exp(-5 * p) - math.exp(-5)) / (1 - math.exp(-5)),
}


def level(form: dict[str, Any], turn: tuple[float, int, float], seed: int, key: int) -> float:
    shape, softness = form["shape"], form.get("softness") or 0.0
    duty = form.get("duty") or (0.5 if shape == "square" else 1.0)
    p, cycle, q = turn
    if shape in ("steps", "noise"):
        p = q
    if shape == "square":
        ramp = softness * duty / 2
        if p >= duty:
            return 0.0
        return 1.0 if ramp < 1e-9 else min(1.0, p / ramp, (duty - p) / ramp)
    if p >= duty:
        return {"sine": 0.5, "steps": 0.5, "noise": 0.5, "curve": (form.get("points") or [(0, 0)])[0][1]}.get(shape, 0.0)
    x = p / duty
    if shape == "curve":
        return curve(form, x)
    if shape == "noise":
        a, b = unit(seed, key, cycle), unit(seed, key, cycle + 1)
        return a + (b - a) * x * x * (3 - 2 * x)
    if shape == "steps":
        a, b = unit(seed, key, cycle - 1), unit(seed, key, cycle)
        return a + (b - a) * (min(x / softness, 1.0) if softness > 1e-9 else 1.0)
    return SHAPES[shape](x)


def box(points: list[tuple[float, float]], width: float, height: float) -> list[tuple[float, float]]:
    xs, ys = [x for x, _ in points], [y for _, y in points]
    wide, high = max(xs) - min(xs), max(ys) - min(ys)
    sx, sy = (width / wide if wide > 1e-12 else 0.0), (height / high if high > 1e-12 else 0.0)
    mx, my = (max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2
    return [((x - mx) * sx, (y - my) * sy) for x, y in points]


FINE = 400


@lru_cache(maxsize=64)
def outline(text: str) -> tuple[list[tuple[float, float]], int]:
    """Many points along a closed outline, fitted to its box, and how many there are from one given point to the next."""
    form = json.loads(text)
    if form["path"] == "polygon":
        n = form["corners"]
        points = [(math.cos(2 * math.pi * k / n), math.sin(2 * math.pi * k / n)) for k in range(n)]
        return [*box(points, form["width"], form["height"])], 1
    given, fine = form["points"], []
    for i in range(len(given)):
        a, b, c, d = (given[(i + k) % len(given)] for k in (-1, 0, 1, 2))
        for step in range(FINE):
            u = step / FINE
            fine.append(tuple(
                b[x] + u * ((c[x] - a[x]) / 2 + u * (a[x] - 2.5 * b[x] + 2 * c[x] - d[x] / 2
                + u * (1.5 * (b[x] - c[x]) + (d[x] - a[x]) / 2))) for x in (0, 1)
            ))  # fmt: skip
    return box(fine, form["width"], form["height"]), FINE


def at_constant_speed(form: dict[str, Any], p: float) -> tuple[float, float]:
    points, each = outline(json.dumps(form))
    closed = [*points, points[0]]
    length = [0.0]
    for a, b in pairwise(closed):
        length.append(length[-1] + math.dist(a, b))
    corners, dwell = len(points) // each, form.get("dwell", 0.0)
    wanted = p * length[-1]
    if dwell > 0 and length[-1] > 0:
        passed = 0.0
        for corner in range(corners):
            begin, end = length[corner * each], length[(corner + 1) * each]
            rest, way = dwell / corners, (1 - dwell) * (end - begin) / length[-1]
            if p < passed + rest or (corner == corners - 1 and way == 0):
                wanted = begin
                break
            if p < passed + rest + way:
                wanted = begin + (end - begin) * (p - passed - rest) / way
                break
            passed += rest + way
    i = min(max(bisect_right(length, wanted) - 1, 0), len(points) - 1)
    share = (wanted - length[i]) / (length[i + 1] - length[i]) if length[i + 1] > length[i] else 0.0
    (ax, ay), (bx, by) = closed[i], closed[i + 1]
    return ax + (bx - ax) * share, ay + (by - ay) * share


def path(form: dict[str, Any], p: float) -> tuple[float, float]:
    w, h, a = form["width"] / 2, form["height"] / 2, 2 * math.pi * p
    if form["path"] == "circle":
        x, y = w * math.cos(a), h * math.sin(a)
    elif form["path"] == "line":
        x, y = w * math.sin(a), 0.0
    elif form["path"] == "eight":
        x, y = w * math.sin(a), h * math.sin(2 * a)
    else:
        x, y = at_constant_speed(form, p)
    turn = math.radians(form.get("rotation", 0.0))
    return x * math.cos(turn) - y * math.sin(turn), x * math.sin(turn) + y * math.cos(turn)


# colour


def to_hsv(rgb: tuple[float, ...]) -> tuple[float, float, float]:
    r, g, b = rgb
    high, low = max(rgb), min(rgb)
    chroma = high - low
    if chroma <= 0:
        return 0.0, 0.0, high
    sextant = ((g - b) / chroma) % 6 if high == r else (b - r) / chroma + 2 if high == g else (r - g) / chroma + 4
    return 60 * sextant, chroma / high, high


def from_hsv(hue: float, saturation: float, value: float) -> tuple[float, float, float]:
    def drive(n: int) -> float:
        k = (n + hue / 60) % 6
        return value - value * saturation * max(0.0, min(k, 4 - k, 1.0))

    return drive(5), drive(3), drive(1)


def to_oklch(rgb: tuple[float, ...]) -> tuple[float, float, float]:
    r, g, b = (c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in rgb)
    l, m, s = (  # noqa: E741  # the names of the space
        math.cbrt(x * r + y * g + z * b) if hasattr(math, "cbrt") else (x * r + y * g + z * b) ** (1 / 3)
        for x, y, z in ((0.4122214708, 0.5363325363, 0.0514459929), (0.2119034982, 0.6806995451, 0.1073969566),
                        (0.0883024619, 0.2817188376, 0.6299787005))
    )  # fmt: skip
    light = 0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s
    a = 1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s
    b = 0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s
    return light, math.hypot(a, b), math.degrees(math.atan2(b, a)) % 360


def from_oklch(light: float, chroma: float, hue: float) -> tuple[float, ...]:
    a, b = chroma * math.cos(math.radians(hue)), chroma * math.sin(math.radians(hue))
    l = (light + 0.3963377774 * a + 0.2158037573 * b) ** 3  # noqa: E741
    m = (light - 0.1055613458 * a - 0.0638541728 * b) ** 3
    s = (light - 0.0894841775 * a - 1.2914855480 * b) ** 3
    linear = (
        4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
        -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
        -0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s,
    )
    coded = (12.92 * c if c <= 0.0031308 else 1.055 * c ** (1 / 2.4) - 0.055 for c in linear)
    return tuple(min(max(c, 0.0), 1.0) for c in coded)


def hue_step(start: float, end: float, long: bool = False) -> float:
    up = (end - start) % 360
    short = up if up <= 180 else up - 360
    if not long or abs(short) < 1e-6:  # equal hues stay, whatever rounding makes of them
        return short
    return short - 360 if short > 0 else short + 360


def between_colours(space: str, a: tuple[float, ...], b: tuple[float, ...], share: float) -> tuple[float, ...]:
    if space in ("rgb", "cmy"):
        return tuple(x + (y - x) * share for x, y in zip(a, b, strict=True))
    if space == "oklch":
        (la, ca, ha), (lb, cb, hb) = to_oklch(a), to_oklch(b)
        ha, hb = (hb if ca <= 1e-5 else ha), (ha if cb <= 1e-5 else hb)
        return from_oklch(la + (lb - la) * share, ca + (cb - ca) * share, ha + hue_step(ha, hb) * share)
    (ha, sa, va), (hb, sb, vb) = to_hsv(a), to_hsv(b)
    ha, hb = (hb if sa * va <= 1e-9 else ha), (ha if sb * vb <= 1e-9 else hb)
    return from_hsv(ha + hue_step(ha, hb, space == "hsv-long") * share, sa + (sb - sa) * share, va + (vb - va) * share)


# stops


EASES = {"linear": lambda x: x, "smooth": lambda x: 3 * x * x - 2 * x**3, "snap": lambda x: 1.0}


def stop_at(stops: list[dict[str, Any]], p: float) -> tuple[int, float]:
    """Which stop is gone to or held, and how far it is on the way there."""
    total = sum(stop["travel"] + stop["hold"] for stop in stops)
    begin = 0.0
    for number, stop in enumerate(stops):
        end = begin + (stop["travel"] + stop["hold"]) / total
        if p < end or number == len(stops) - 1:
            travel = stop["travel"] / total
            way = 1.0 if travel < 1e-9 else min(max((p - begin) / travel, 0.0), 1.0)
            return number, EASES[stop.get("ease", "linear")](way)
        begin = end
    raise AssertionError


def goal(stop: dict[str, Any], name: str, base: float, head: str, palettes: dict[str, Any]) -> float:
    """Where a stop leads one attribute of a head."""
    value = stop["value"]
    if isinstance(value, dict):
        palette = palettes.get(value["palette"], {})
        return palette.get("own", {}).get(head, {}).get(name, palette.get("values", {}).get(name, base))
    if value == "base":
        return base
    if isinstance(value, str):
        column = ("red", "green", "blue").index(name)
        return int(value[1 + 2 * column : 3 + 2 * column], 16) / 255
    return value + (base if stop.get("relative") else 0.0)


# a head at a time


def wave(layer: dict[str, Any], under: float, found: list[Any], weight: float, own: float, seed: int, key: int, circle: bool):
    levels = [level(layer["form"], turn, seed, key) for turn in found]
    anchor = layer["anchor"]
    if anchor["kind"] == "between":
        span = anchor["high"] - anchor["low"]
        if circle and not 0 <= span <= 360:
            span %= 360
        at = 0.5 + own * (max(levels, default=0.0) - 0.5)
        value = anchor["low"] + span * at
        return under + weight * (hue_step(under, value) if circle else value - under)
    if not levels:
        return under
    factor = {"centred": max(levels) - 0.5, "above": max(levels), "below": -max(levels)}[anchor["kind"]]
    return under + weight * own * anchor["depth"] * factor


def number_stops(layer: dict[str, Any], name: str, under: float, turn: Any, weight: float, head: str, palettes: Any):
    stops, circle, long = layer["form"]["stops"], name in CIRCLES, layer["form"].get("long_way", False)
    to, way = stop_at(stops, turn[0])
    a, b = goal(stops[to - 1], name, under, head, palettes), goal(stops[to], name, under, head, palettes)
    value = a + way * (hue_step(a, b, long) if circle else b - a)
    return under + weight * (hue_step(under, value, long) if circle else value - under)


def head_values(document: dict[str, Any], head: int, rig: dict[str, Any], theta: float, weight: float, palettes: dict[str, Any]):
    """Values by attribute of a head at θ, before they are limited. rig: count, places, keys, base, has, mixes."""
    key = rig["keys"][head]
    values = {name: rig["base"][name][head] for name in rig["base"]}
    own = {"offset": 0.0, "depth": 1.0, "left_out": False} | (document.get("own") or {}).get(key, {})
    lanes, count = lanes_of(document, rig["count"], rig["places"])
    lane, seed, space = lanes[head], document.get("seed", 0), document.get("colour_space", "hsv-short")
    if own["left_out"] or weight == 0:
        return values
    for layer in document["layers"]:
        name, form = layer["attribute"], layer["form"]
        names = {"position": ("pan", "tilt"), "colour": ("red", "green", "blue")}.get(name, (name,))
        needs = {"colour": ("red",), "hue": ("hue", "red"), "saturation": ("saturation", "red")}.get(name, names)
        if layer.get("muted") or not any(rig["has"][one][head] for one in needs):
            continue
        found = turns(layer, document, lane, count, theta, own["offset"])
        latest = min(found, key=lambda turn: turn[0], default=None)
        if form["kind"] == "path":
            if latest is None:
                continue
            x, y = path(form, latest[0])
            if (layer.get("spread") or document.get("spread") or {"kind": "ripple"})["kind"] == "relay":
                x, y = x - path(form, 0.0)[0], y - path(form, 0.0)[1]
            if lane["backward"] and layer.get("mirror_pan", True):
                x = -x
            values["pan"] += weight * own["depth"] * x
            values["tilt"] += weight * own["depth"] * y
        elif name == "colour":
            if latest is None:
                continue
            base = tuple(values[one] for one in names)
            to, way = stop_at(form["stops"], latest[0])
            a, b = (
                tuple(goal(form["stops"][n], one, base[c], key, palettes) for c, one in enumerate(names)) for n in (to - 1, to)
            )
            goes = between_colours(space, a, b, way)
            values |= {one: base[c] + weight * (goes[c] - base[c]) for c, one in enumerate(names)}
        elif name in ("hue", "saturation") and rig["mixes"][head]:
            rgb = tuple(min(max(values[one], 0.0), 1.0) for one in ("red", "green", "blue"))
            hsv = list(to_hsv(rgb))
            column, scale = (0, 1) if name == "hue" else (1, 100)
            under = hsv[column] * scale
            if form["kind"] == "stops":
                new = under if latest is None else number_stops(layer, name, under, latest, weight, key, palettes)
            else:
                new = wave(layer, under, found, weight, own["depth"], seed, lane["key"], name in CIRCLES)
            hsv[column] = new if name == "hue" else min(max(new / 100, 0.0), 1.0)
            values |= dict(zip(("red", "green", "blue"), from_hsv(*hsv), strict=True))
        elif form["kind"] == "stops":
            if latest is not None:
                values |= {one: number_stops(layer, one, values[one], latest, weight, key, palettes) for one in names}
        else:
            values[name] = wave(layer, values[name], found, weight, own["depth"], seed, lane["key"], name in CIRCLES)
    return values
