"""The frame of the page: room for eight views, the stage in four sizes, groups in one row, the theme."""

from itertools import pairwise

import pytest

from tests.browser.engine import act, api
from tests.waiting import until


@pytest.mark.parametrize(("width", "height"), [(1024, 768), (1280, 800)])
def test_the_bar_has_room_for_eight_views_and_a_timecode(page, demo, width, height):
    page.set_viewport_size({"width": width, "height": height})
    song = api(demo, f"/api/timelines/{next(one['id'] for one in api(demo, '/api/timelines')['songs'] if not one['events'])}")
    begins = {"name": song["name"], "document": song["document"] | {"begins_alone": False}}
    api(demo, f"/api/timelines/{song['id']}", begins, "PUT")
    act(demo, do="locate", timeline=song["id"], position=1.0)
    page.get_by_role("button", name="Timecode of the song").get_by_text("own clock, stands").wait_for()
    assert page.get_by_role("tablist", name="Views").get_by_role("tab").count() == 8
    bar = page.locator("header")
    assert bar.evaluate("bar => bar.scrollWidth") == width

    def ends():
        return bar.evaluate("""bar => [...bar.querySelectorAll("[role=tab], button, [role=group] [role=group], output")]
            .filter(one => one.offsetParent).map(one => one.getBoundingClientRect())
            .map(box => [box.left, box.right]).sort((a, b) => a[0] - b[0])""")

    # the rules for this width may come a picture after the width itself
    until(lambda: not [one for one, next_ in pairwise(ends()) if one[1] > next_[0] + 1])  # nothing lies over another
    assert all(right <= width for _, right in ends())
    act(demo, do="leave-song", seconds=0)
    api(demo, f"/api/timelines/{song['id']}", begins | {"document": song["document"]}, "PUT")


def test_groups_stay_in_one_row_and_scroll(page):
    page.set_viewport_size({"width": 1024, "height": 768})
    groups = page.get_by_role("group", name="Groups")
    groups.get_by_role("button", name="Haze").wait_for(state="attached")
    tops = {round(one.bounding_box()["y"]) for one in groups.get_by_role("button").all()}
    assert len(tops) == 1
    page.get_by_role("button", name="More groups to the right").click()
    haze = groups.get_by_role("button", name="Haze")
    haze.click()
    page.get_by_text("1 head", exact=True).wait_for()
    page.get_by_role("button", name="More groups to the left").wait_for()


def test_each_view_remembers_how_large_its_stage_is(page):
    stage = page.get_by_role("region", name="Stage")

    def is_high(low, high):
        page.wait_for_function("([low, high]) => { const h = document.querySelector('section[aria-label=Stage]').clientHeight;"
                               " return low <= h && h <= high }", arg=[low, high])  # fmt: skip

    stage.get_by_role("radio", name="Tall").click()
    is_high(340, 400)
    page.get_by_role("tab", name="Busk", exact=True).click()
    is_high(55, 70)
    stage.get_by_role("radio", name="Strip").click()
    is_high(150, 320)
    stage.get_by_role("radio", name="Hidden").click()
    is_high(40, 46)
    page.keyboard.press("f")
    is_high(790, 800)
    page.keyboard.press("Escape")
    is_high(40, 46)
    page.get_by_role("tab", name="Effects", exact=True).click()
    is_high(340, 400)


def test_the_theme_is_chosen_and_remembered(page):
    page.get_by_role("button", name="Use the light theme").click()
    ink = "getComputedStyle(document.body).backgroundColor"
    page.wait_for_function(f"{ink} === 'rgb(243, 237, 223)'")
    page.reload()
    page.wait_for_function(f"{ink} === 'rgb(243, 237, 223)'")
    trace = page.locator("footer canvas").first
    seen = """canvas => { const data = canvas.getContext("2d").getImageData(0, 0, canvas.width, canvas.height).data;
        return [...Array(data.length / 4).keys()].some(n => data[4 * n + 3] > 200 && data[4 * n] < 60) }"""
    page.wait_for_function(f"canvas => ({seen})(canvas)", arg=trace.element_handle())
    page.get_by_role("button", name="Use the dark theme").click()
    page.wait_for_function(f"{ink} === 'rgb(20, 17, 14)'")
