"""Songs on their timeline: recorded, corrected, looped, chased and given back by mouse and keyboard."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, live_state
from tests.waiting import until


def song_of(state):
    return next((one for one in state.get("songs", ()) if not one["leaving"]), None)


def near(state, p):
    return song_of(state) is not None and abs(song_of(state)["position"] - p) < 1


@pytest.fixture(autouse=True)
def quiet(demo):
    act(demo, do="leave-song", seconds=0)
    act(demo, do="release-all", seconds=0)
    live_state(demo, lambda state: not state["songs"])


def open_song(page, name):
    page.get_by_role("tab", name="Timeline", exact=True).click()
    line = page.get_by_role("region", name="Timeline")
    line.wait_for()
    if not line.get_by_role("button", name=re.compile(f"^{name}")).count():
        line.locator("header button").first.click()
        page.get_by_role("option", name=name).click()
    expect(line.locator("header button").first).to_contain_text(name)
    return line


def whole(demo, name):
    songs = api(demo, "/api/timelines")["songs"]
    return api(demo, f"/api/timelines/{next(one['id'] for one in songs if one['name'] == name)}")


def place(page, song, p, track=None):
    """A point of the line: over the sound, or over a track by its place."""
    box = page.get_by_label("Parts and sound").bounding_box()
    x = box["x"] + p / song["document"]["length_s"] * box["width"]
    if track is None:
        return x, box["y"] + 80
    head = page.get_by_role("region", name=f"Track {track}", exact=True).bounding_box()
    return x, head["y"] + head["height"] / 2


def test_four_presses_are_recorded_one_is_typed_and_one_is_dragged(page, demo):
    line = open_song(page, "Tide Clock")
    song = whole(demo, "Tide Clock")
    page.mouse.click(*place(page, song, 40))
    live_state(demo, lambda state: near(state, 40))
    page.keyboard.press("Space")
    live_state(demo, lambda state: song_of(state)["speed"] == 1)
    line.get_by_role("button", name="Record").click()
    live_state(demo, lambda state: song_of(state)["records"])
    number = int(song["tracks"][0]["document"]["drives"].partition(":")[2])
    for count in range(1, 5):
        act(demo, do="go", list=number)
        live_state(demo, lambda state, count=count: song_of(state)["taken"] == count)
    line.get_by_role("button", name="Keep recording").click()
    events = page.get_by_role("listbox", name="Events")
    expect(events.get_by_role("option")).to_have_count(4)
    page.keyboard.press("Space")
    live_state(demo, lambda state: song_of(state)["speed"] == 0 and not song_of(state)["hands"])
    assert [one["words"] for one in whole(demo, "Tide Clock")["events"]][:2] == ["All else out", "Arrival, tide from the back"]

    events.get_by_role("option").nth(0).click()
    at = page.get_by_role("textbox", name="At", exact=True)
    at.fill("0:20.10")
    at.press("Enter")
    expect(events.get_by_role("option").nth(0)).to_contain_text("0:20.10")
    assert whole(demo, "Tide Clock")["events"][0]["at"] == pytest.approx(20.4)
    x, y = place(page, song, 20.4, "Tide Clock")
    page.mouse.move(x + 2, y)
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=4)
    to, _ = place(page, song, 60, "Tide Clock")
    page.mouse.move(to + 2, y, steps=4)
    page.mouse.up()
    expect(events.get_by_role("option").nth(3)).to_contain_text("1:00.00")
    page.keyboard.press("ArrowRight")
    expect(events.get_by_role("option").nth(3)).to_contain_text("1:00.01")
    page.keyboard.press("Control+z")
    expect(events.get_by_role("option").nth(3)).to_contain_text("1:00.00")
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    expect(events.get_by_role("option")).to_have_count(0)


@pytest.mark.first
def test_a_part_is_looped_and_a_mute_track_does_not_play(page, demo):
    line = open_song(page, "Saltworks")
    song = whole(demo, "Saltworks")
    page.mouse.click(*place(page, song, 30))
    live_state(demo, lambda state: near(state, 30))
    line.get_by_role("button", name="Loop").click()
    expect(line.get_by_role("button", name="Loops figure")).to_be_visible()
    begin = song["markers"][1]["at"]
    live_state(demo, lambda state: song_of(state)["loop"][0] == pytest.approx(begin))
    page.keyboard.press("l")
    live_state(demo, lambda state: song_of(state)["loop"] is None)
    page.mouse.click(*place(page, song, 100))
    live_state(demo, lambda state: any(one["name"] == "Tide fold" for one in state["running"]))
    line.get_by_role("button", name="Mute Spots: tide fold").click()
    expect(page.get_by_role("region", name="Track Spots: tide fold")).to_contain_text("mute")
    page.mouse.click(*place(page, song, 101))
    live_state(demo, lambda state: near(state, 101)
               and not any(one["name"] == "Tide fold" and not one["stopping"] for one in state["running"]))  # fmt: skip
    page.keyboard.press("Control+z")
    expect(page.get_by_role("region", name="Track Spots: tide fold")).not_to_contain_text("mute")


def drag(page, x, y, by):
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + by / 2, y, steps=3)
    page.mouse.move(x + by, y, steps=3)
    page.mouse.up()


def test_parts_and_bars_are_dragged_and_events_are_put_where_there_is_none(page, demo):
    line = open_song(page, "Lantern Fish")
    song = whole(demo, "Lantern Fish")
    line.get_by_role("button", name="Move parts and bars").click()
    expect(line).to_contain_text("Parts and bars are moved")
    marker, bar = song["markers"][1], song["bars"][16]
    x, y = place(page, song, marker["at"] + 3)
    four_bars = place(page, song, song["bars"][4])[0] - place(page, song, song["bars"][0])[0]
    drag(page, x, y - 45, four_bars)
    moved = until(lambda: [one for one in whole(demo, "Lantern Fish")["markers"] if one["id"] == marker["id"]
                                and one["at"] != marker["at"]], 20)  # fmt: skip
    beat = song["bars"][1] / 4
    assert moved[0]["length"] == marker["length"]
    assert moved[0]["at"] == pytest.approx(marker["at"] + song["bars"][4], abs=beat), "it goes to a beat"
    x, _ = place(page, song, bar)
    drag(page, x, y, 12)
    slower = until(lambda: [now for now in [whole(demo, "Lantern Fish")] if now["bars"][16] > bar + 0.1])[0]
    assert slower["bars"][0] == song["bars"][0]
    ratio = slower["document"]["grid"]["changes"][0]["bpm"] / song["document"]["grid"]["changes"][0]["bpm"]
    assert ratio == pytest.approx(bar / slower["bars"][16], rel=1e-4)
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    until(lambda: whole(demo, "Lantern Fish")["bars"] == song["bars"])
    assert whole(demo, "Lantern Fish")["markers"] == song["markers"]

    line.get_by_role("button", name="New track: what is it for?").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name=re.compile("It plays")).click()
    page.get_by_role("option", name="Messages to a device").click()
    sheet.get_by_role("button", name=re.compile("It drives")).click()
    page.get_by_role("option").first.click()
    sheet.get_by_role("textbox", name="Name").fill("Screens")
    sheet.get_by_role("button", name="Make the track").click()
    track = page.get_by_role("region", name="Track Screens")
    track.wait_for()
    page.mouse.dblclick(*place(page, song, song["bars"][8], "Screens"))
    sheet.get_by_role("button", name="Add").click()
    events = page.get_by_role("listbox", name="Events")
    expect(events.get_by_role("option")).to_have_count(1)
    [event] = whole(demo, "Lantern Fish")["events"]
    assert event["at"] == pytest.approx(song["bars"][8], abs=0.05)
    page.get_by_role("button", name="Change what it says").click()
    sheet.get_by_role("button", name="Keep").click()
    expect(sheet).to_have_count(0)
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(track).to_have_count(0)


def test_a_new_track_asks_what_it_is_for_and_a_dragged_playhead_is_seen_but_not_sent(page, demo):
    line = open_song(page, "Lantern Fish")
    line.get_by_role("button", name="New track: what is it for?").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name=re.compile("It plays")).click()
    page.get_by_role("option", name="The level of a fader").click()
    sheet.get_by_role("button", name=re.compile("It drives")).click()
    page.get_by_role("option", name=re.compile("^Washes: slow lantern")).click()
    sheet.get_by_role("button", name="Make the track").click()
    expect(page.get_by_role("region", name="Track Washes: slow lantern")).to_contain_text("level · armed")
    song = whole(demo, "Lantern Fish")
    x, y = place(page, song, 20)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 60, y, steps=3)
    expect(page.get_by_label("Seen ahead")).to_contain_text("not sent")
    assert not api_state(demo)["songs"]
    page.mouse.up()
    live_state(demo, lambda state: song_of(state) is not None and state["scrubbed"] is None)
    page.keyboard.press("Control+z")
    expect(page.get_by_role("region", name="Track Washes: slow lantern")).to_have_count(0)


def api_state(demo):
    return live_state(demo)[0]


def test_a_song_follows_the_simulated_player_while_a_fader_is_used_by_hand_and_given_back(page, demo):
    song = whole(demo, "Saltworks")
    body = {"name": "Saltworks", "document": {**song["document"], "clock": "MTC"}}
    api(demo, f"/api/timelines/{song['id']}", body, method="PUT")
    page.get_by_role("tab", name="Output", exact=True).click()
    page.get_by_role("tab", name="Timecode, sound").click()
    player = page.get_by_role("region", name="Simulated player")
    label = player.get_by_role("textbox", name="Go to a label")
    label.fill("02:01:15:00")
    label.press("Enter")
    jitter = player.get_by_role("textbox", name="Jitter")
    jitter.fill("20")
    jitter.press("Enter")
    player.get_by_role("button", name="Play", exact=True).click()
    expect(page.get_by_label("Incoming timecode").first).to_contain_text("chasing")
    live_state(demo, lambda state: song_of(state) and song_of(state)["follows"] and song_of(state)["position"] > 75)
    fader = next(one for one in song["tracks"] if one["document"]["name"] == "Spots: tide fold")["document"]["drives"]
    act(demo, do="level", control=fader, value=0.2)
    open_song(page, "Saltworks")
    track = page.get_by_role("region", name="Track Spots: tide fold")
    expect(track).to_contain_text("yours: it waits")
    live_state(demo, lambda state: state["levels"][fader] == 0.2)
    track.get_by_role("button", name="Give back").click()
    live_state(demo, lambda state: not song_of(state)["hands"] and state["levels"][fader] > 0.35)
    api(demo, "/api/output/timecode/player", {"on": False, "how": {"jitter_ms": 0}})
    live_state(demo, lambda state: song_of(state)["speed"] == 0)
    api(demo, f"/api/timelines/{song['id']}", body | {"document": song["document"]}, method="PUT")


def test_a_pad_that_a_hand_has_says_so_and_how_late_hands_are_is_measured(page, demo):
    song = whole(demo, "Lantern Fish")
    row = next(one for one in api(demo, "/api/busk")["pages"][0]["rows"] if one["colour"])
    pad = row["colour"][0]
    track = {"name": "Pad", "kind": "presses", "drives": f"pad:{row['id']}:{pad['id']}"}
    made = api(demo, f"/api/timelines/{song['id']}/tracks", track)
    act(demo, do="play-song", timeline=song["id"])
    live_state(demo, lambda state: song_of(state) is not None)
    act(demo, do="pad", row=row["id"], pad=pad["id"], down=True)
    page.get_by_role("tab", name="Busk", exact=True).click()
    shown = page.get_by_role("button", name=re.compile(f"^{row['name']}: {pad['name']}.*yours: the song waits"))
    expect(shown).to_contain_text("yours")
    cues = next(one["document"]["drives"] for one in song["tracks"] if one["document"]["kind"] == "cues")
    act(demo, do="go", list=int(cues.removeprefix("list:")))
    live_state(demo, lambda state: len(song_of(state)["hands"]) == 2)
    page.get_by_role("contentinfo", name="Now running").get_by_role("button", name="Give back").click()
    page.get_by_role("menuitem", name=f"{row['name']}: {pad['name']}").click()
    live_state(demo, lambda state: [one["subject"] for one in song_of(state)["hands"]] == [cues])
    expect(shown).to_have_count(0)
    page.get_by_role("tab", name="Cues", exact=True).click()
    page.get_by_role("main").get_by_role("button", name=re.compile("^Lantern Fish")).first.click()
    back = page.get_by_role("button", name=re.compile("^Give .* back to the song$"))
    back.click()
    live_state(demo, lambda state: not song_of(state)["hands"])
    expect(back).to_have_count(0)
    line = open_song(page, "Lantern Fish")
    line.locator("header button").last.click()
    page.get_by_role("menuitem", name="Song: length").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name="Measure how late").click()
    for left in range(8, 0, -1):
        expect(sheet.get_by_role("status")).to_contain_text(f"{left} more")
        sheet.get_by_role("button", name="Tap on each beat").click()
    expect(sheet.get_by_role("status")).to_contain_text("8 taps")
    sheet.get_by_role("button", name="Cancel").click()
    api(demo, f"/api/timelines/tracks/{made['id']}", method="DELETE")
