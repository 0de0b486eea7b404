"""The patch as CSV: whoever wrote it, it is read; what is written comes back; what is wrong is told with its row."""

import random

import pytest

from zarabanda.errors import ZarabandaError
from zarabanda.formats import csv_patch

FILE = """Fixture ID;Fixture Type;Universe;DMX Address;Pos X;Pos Y;Pos Z;Rot X;Rot Y;Rot Z;Comment
101;Spot;1;1;-3,5;4;7;180;0;0;rear truss
102;Spot;1;25;3,5;4;7;180;0;0;
900;Haze;;;;;;;;;on the floor
"""


@pytest.mark.parametrize(
    ("text", "encoding"),
    [(FILE, "utf-8"), (FILE, "utf-8-sig"), (FILE, "utf-16"), (FILE, "cp1252"), (FILE.replace("\n", "\r\n"), "utf-8"),
     (FILE.replace(",", ".").replace(";", ","), "utf-8"), (FILE.replace(";", "\t"), "utf-8")],
)  # fmt: skip
def test_files_of_all_sorts_are_read_alike(text, encoding):
    sheet = csv_patch.read(text.encode(encoding))
    columns = csv_patch.matched(sheet.titles)
    assert columns == ["number", "mode", "universe", "slot", "x", "y", "z", "turn_x", "turn_y", "turn_z", "notes"]
    found = csv_patch.sorted_in(sheet, columns, {101: "Spot"})
    assert found.faults == []
    assert found.changes == {
        101: {"mode": "Spot", "universe": 1, "address": 1, "x": -3.5, "y": 4.0, "z": 7.0, "turn_x": 180.0, "turn_y": 0.0,
              "turn_z": 0.0, "notes": "rear truss"},
    }  # fmt: skip
    assert [(one["number"], one["universe"], one["address"]) for one in found.added] == [(102, 1, 25), (900, None, None)]
    assert "x" not in found.added[1], "an empty cell says nothing"


def test_what_is_written_comes_back():
    row = {"number": 7, "name": "A, “b”; c", "mode": "Spot", "universe": 2, "slot": 41, "x": -1.25, "y": 0.0, "z": 6.0,
           "turn_x": 180.0, "turn_y": 0.0, "turn_z": 12.5, "cell_order": "", "notes": "two\nlines",
           "layer": "Rear", "class_name": "Floor"}  # fmt: skip
    text = csv_patch.write([row, {**row, "number": 8, "universe": None, "slot": None}])
    sheet = csv_patch.read(text.encode())
    found = csv_patch.sorted_in(sheet, csv_patch.matched(sheet.titles), {7: "Spot", 8: "Spot"})
    wanted = {key: one for key, one in row.items() if key not in ("number", "slot", "cell_order")} | {"address": 41}
    assert found.changes == {7: wanted, 8: wanted | {"universe": None, "address": None}}


@pytest.mark.parametrize(
    ("row", "wanted"),
    [("x;Spot;1;1", "Row 2, Number"), ("103;;1;1", "to add it, a column Mode is needed"),
     ("103;Spot;1;1\n103;Spot;1;30", "2 rows of a new fixture 103"), (";Spot;1;1", "the number is missing")],
)  # fmt: skip
def test_what_is_wrong_is_told_with_its_row(row, wanted):
    sheet = csv_patch.read(f"Number;Mode;Universe;Slot\n101;Spot;1;1\n{row}\n".encode())
    found = csv_patch.sorted_in(sheet, csv_patch.matched(sheet.titles), {101: "Spot"})
    assert wanted in found.faults[0]


@pytest.mark.parametrize(
    ("columns", "wanted"),
    [(["mode", "name", "", ""], "numbers of the fixtures"), (["number", "x", "x", ""], "Two columns are x"),
     (["number", "wings", "", ""], "no column “wings”")],
)  # fmt: skip
def test_columns_that_do_not_do_are_told(columns, wanted):
    with pytest.raises(ZarabandaError, match=wanted):
        csv_patch.sorted_in(csv_patch.Sheet(["a", "b", "c", "d"], [["1", "2", "3", "4"]]), columns, {})


@pytest.mark.parametrize(
    ("data", "wanted"),
    [(b"", "no rows"), (b"Number\n", "no rows"), (b"a\0b\n1\n", "no CSV"), (b"x" * (csv_patch.MOST_BYTES + 1), "MB"),
     (b"n\n" + b"1\n" * 20_001, "At most 20,000 rows"), (b"n;m\n1;" + b"x" * 10_000, "a cell of 10,000 letters"),
     (b"a;" * 70 + b"\n1\n", "At most"), (b"\xff\xfe\x00", "cannot be read")],
)  # fmt: skip
def test_files_that_are_none_are_told(data, wanted):
    with pytest.raises(ZarabandaError, match=wanted):
        csv_patch.read(data)


def test_a_thousand_changed_files_are_read_or_refused():
    draw = random.Random(5)
    for _ in range(1000):
        data = bytearray(FILE.encode())
        for _ in range(draw.randint(1, 12)):
            data[draw.randrange(len(data))] = draw.randrange(256)
        try:
            sheet = csv_patch.read(bytes(data))
            csv_patch.sorted_in(sheet, csv_patch.matched(sheet.titles), {101: "Spot"})
        except ZarabandaError as told:
            message = told.message
        else:
            message = "read"
        assert message
