"""Scenes read and compared: values worked out by hand from the standard, and files that are no such files."""

import io
import time

import pytest

from tests.formats import mvr_files as files
from tests.thoroughness import scaled
from zarabanda.errors import ZarabandaError
from zarabanda.formats.mvr.comparing import changes, compare, free_numbers, in_words
from zarabanda.formats.mvr.reading import SceneFixture, read


def taken(text, types=None):
    return read(io.BytesIO(files.packed(text, types)))


def test_fixtures_come_with_all_that_the_scene_says():
    truss = files.element(
        "Truss", files.element("Matrix", "{0,1,0}{-1,0,0}{0,0,1}{1000,2000,6000}"),
        files.element("ChildList", files.light(3, at=(500, 0, -300), number=7, spec="Gone.gdtf")),
        name="Truss", uuid=files.uuid(90),
    )  # fmt: skip
    riser = files.element("SceneObject", name="Riser", uuid=files.uuid(91))
    found = taken(
        files.scene(
            files.layer(
                "Rear", files.light(1, at=(-1500, 4000, 6500), number=101, address=513, class_=files.CLASS),
                files.light(2, at=(0, 0, 0), matrix=files.STANDS, address="3.17", name="", number="A7"),
            ),
            files.layer("Upper", truss, riser, matrix="{1,0,0}{0,1,0}{0,0,1}{0,0,500}"),
        )
    )  # fmt: skip
    first, second, third = found.fixtures
    assert (first.number, first.name, first.place, first.rotation) == (101, "Lantern", (-1.5, 4.0, 6.5), (0, 180, 0))
    assert (first.universe, first.address, first.layer, first.class_name) == (2, 1, "Rear", "Floor package")
    assert (second.number, second.rotation, second.universe, second.address) == (None, (0, 0, 0), 3, 17)
    assert third.place == (1.0, 2.5, 6.2)  # half a metre along a truss that is turned by a quarter, in a layer that is raised
    assert third.rotation == (0.0, 180.0, 90.0)
    assert found.types["Gone.gdtf"] == "it is not in the file"
    assert found.types["Corda@Lantern 7.gdtf"].model == "Lantern 7"
    assert "1 scene objects are not read" in found.notes


def one(n, place=(0.0, 0.0, 0.0), number=None):
    return SceneFixture(files.uuid(n), f"L{n}", number, place, (0, 180, 0), 1, n, "", "", "a", "b")


def row(x=0.0, y=0.0, z=0.0):
    turns = {"turn_x": 0.0, "turn_y": 180.0, "turn_z": 0.0}
    return {"x": x, "y": y, "z": z, "name": "L", "mode": "m", "universe": 1, "address": 1, "layer": "", "class_name": ""} | turns


@pytest.mark.parametrize(
    ("first", "pairs", "new", "gone"),
    [
        ("number", [(1, 1), (2, 2)], [3], [9]),  # numbers win; what has none is too far from all
        ("place", [(2, 1), (1, 2)], [3], [9]),  # they have changed places
    ],
)
def test_fixtures_are_matched_by_number_or_by_place_first(first, pairs, new, gone):
    rig = {1: row(0), 2: row(1), 9: row(50)}
    scene = [one(1, (1.1, 0, 0), 1), one(2, (0.1, 0, 0), 2), one(3, (7, 0, 0))]
    found = compare(rig, scene, first)
    assert [(number, int(other.name[1:])) for number, other in found.pairs] == pairs
    assert [int(other.name[1:]) for other in found.new] == new
    assert found.gone == gone


def test_of_those_in_one_place_the_nearest_belong_together():
    found = compare({1: row(0), 2: row(0.2)}, [one(1, (0.19, 0, 0)), one(2, (0.05, 0, 0)), one(3, (0.21, 0, 0))], "place")
    assert [(number, other.name) for number, other in found.pairs] == [(2, "L1"), (1, "L2")]
    assert [other.name for other in found.new] == ["L3"]


def test_a_change_counts_from_half_a_centimetre_and_by_where_it_points():
    now = row(1)
    assert changes(now, {"x": 1.004, "y": 0.0, "z": 0.0, "turn_x": 180.0, "turn_y": 0.0, "turn_z": 180.0}) == {}
    change = changes(now, row(2) | {"address": 7, "mode": "n", "turn_y": 90.0})
    assert in_words(101, now, change) == "101: x 1 → 2 m; turned; address 1.1 → 1.7; mode m → n"


def test_numbers_that_are_taken_go_up():
    assert free_numbers([5, 5, None, 9], {5, 6, 9}) == [7, 8, 1, 10]


GOOD = files.scene(files.layer("A", *[files.light(n, at=(n * 900, 0, 5000), number=n, address=1 + 14 * n) for n in range(1, 9)]))


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (GOOD[:-9], "no XML"),
        ('<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]>' + GOOD.split("?>", 1)[1], "entities"),
        ("<GDTF/>", "where GeneralSceneDescription is expected"),
        ("<GeneralSceneDescription/>", "no Scene"),
        (files.scene(files.layer("A")), "no fixture"),
        (GOOD.replace("{1,0,0}", "{1,0}", 1), "no matrix"),
        (GOOD.replace("{900,", "{nan,", 1), "no matrix"),
        (GOOD.replace(">15<", ">fifteen<", 1), "no address"),
        (files.scene(files.layer("A", "<Fixture/>" * 20_001)), "20,000 are the most"),
        (files.scene("<Layer>" + "<ChildList><Truss>" * 40 + "</Truss></ChildList>" * 40 + "</Layer>"), "deep"),
        (GOOD.replace("Lantern", "x" * 10_000, 1), "10,000 characters"),
        (GOOD.encode("utf-16"), "encoding specified"),
    ],
    ids=lambda value: value if isinstance(value, str) and len(value) < 60 else "file",
)
def test_what_is_no_scene_is_told_with_what_to_do(text, words):
    with pytest.raises(ZarabandaError) as caught:
        taken(text)
    assert words in caught.value.message
    assert caught.value.message.endswith(".")


def test_the_zip_is_looked_at_first(zips_to_refuse):
    for content, words in zips_to_refuse("GeneralSceneDescription.xml"):
        with pytest.raises(ZarabandaError, match=words):
            read(io.BytesIO(content))


def test_mutated_files_are_read_or_refused(mutated):
    used = 0
    for content in mutated(files.packed(GOOD), GOOD.encode(), files.packed, 1000):
        begun = time.process_time()
        try:
            used += bool(read(io.BytesIO(content)).fixtures)
        except ZarabandaError:
            continue
        finally:
            assert time.process_time() - begun < 5
    assert used >= scaled(50)
