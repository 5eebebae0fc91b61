"""CSV as people's programs write it: read strictly with row and column, written so that nothing runs as a formula."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.errors import InputError
from fenwa.formats.table import FORMULA_STARTS, MAX_ROWS, because, read_day, read_table, refuse, unsafe, write_table

TODAY = date(2026, 11, 23)


@pytest.mark.parametrize("between", [",", ";", "\t"])
@pytest.mark.parametrize("end", ["\n", "\r\n"])
@pytest.mark.parametrize("mark", ["", "\ufeff"])
def test_commas_semicolons_and_tabs_with_any_end_of_line(between: str, end: str, mark: str) -> None:
    lines = [["code", "note"], ["P-01", "two, three" if between != "," else "two"], ["", ""], ["P-02", ""]]
    header, rows = read_table(mark + end.join(between.join(line) for line in lines) + end, ["code"])
    assert header == ["code", "note"]
    assert [(r.line, r.cells["code"]) for r in rows] == [(2, "P-01"), (4, "P-02")]


def test_a_cell_over_several_lines_counts_as_the_line_it_begins_on() -> None:
    _, rows = read_table('code,note\nP-01,"one\ntwo"\nP-02,x\n', ["code"])
    assert [(r.line, r.cells["note"]) for r in rows] == [(2, "one\ntwo"), (4, "x")]


def test_what_a_short_row_leaves_out_is_empty() -> None:
    _, rows = read_table("code,volume,note\nP-01,1\n", ["code"])
    assert rows[0].cells == {"code": "P-01", "volume": "1", "note": ""}


@pytest.mark.parametrize(
    ("text", "line", "column", "words"),
    [
        ("", 1, "", "The first row names the columns: code."),
        ("   \nP-01\n", 1, "", "is empty"),
        ("code\n", 2, "", "has a header and no rows"),
        ("code\n\n\n", 2, "", "has a header and no rows"),
        ("name\nx\n", 1, "code", "is missing in the header"),
        ("code,code\nx,y\n", 1, "code", "stands twice in the header"),
        ("code,,\nx,y,z\n", 1, "", "a column has no name"),
        ("code\nP-01,2\n", 2, "", "has 2 cells, the header 1"),
        ('code\n"P-01\n', 2, "", "is not CSV"),
        ("code\nP-\x0001\n", 2, "", "holds a zero byte"),
        ("code\n" + "x\n" * (MAX_ROWS + 1), MAX_ROWS + 2, "", f"at most {MAX_ROWS} rows"),
    ],
)
def test_a_refusal_names_row_and_column(text: str, line: int, column: str, words: str) -> None:
    with pytest.raises(InputError) as refused:
        read_table(text, ["code"])
    assert words in refused.value.detail
    assert refused.value.facts["line"] == line
    assert refused.value.facts["column"] == column
    assert refused.value.detail.startswith(f"Row {line}, column “{column}”: " if column else f"Row {line}: ")


@pytest.mark.parametrize(
    ("text", "words"),
    [("2026-11-24", "lies in the future"), ("24.11.2026", "Write it as 2026-11-23"), ("", "is not a day")],
)
def test_a_day_is_one_and_not_to_come(text: str, words: str) -> None:
    assert read_day("2026-11-23", 2, "on", TODAY) == TODAY
    with pytest.raises(InputError, match=words) as refused:
        read_day(text, 7, "on", TODAY)
    assert refused.value.detail.startswith("Row 7, column “on”: ")


def test_a_refusal_of_the_core_keeps_its_sentence() -> None:
    told = because(3, "volume", refuse(9, "", "Volume 0 L cannot be."))
    assert told.detail == "Row 3, column “volume”: Row 9: Volume 0 L cannot be."


TEXTS = st.text(st.characters(blacklist_categories=("Cs", "Cc"), whitelist_characters="\t"), max_size=12)
LIKE_FORMULAS = st.builds(
    lambda quotes, start, rest: "'" * quotes + start + rest, st.integers(0, 3), st.sampled_from(FORMULA_STARTS), TEXTS
)


@given(TEXTS | LIKE_FORMULAS)
def test_nothing_runs_as_a_formula_and_everything_comes_back(text: str) -> None:
    """A name such as ='x is a name, one such as '=x as well: what was made safe is taken back, nothing else."""
    written = write_table(["note"], [[text]]).split("\r\n", 1)[1]
    assert not written.lstrip('"').startswith(("=", "+", "-", "@", "\t"))
    cell = read_back(text)
    assert unsafe(cell) == text


def read_back(text: str) -> str:
    import csv
    import io

    rows = list(csv.reader(io.StringIO(write_table(["note", "end"], [[text, "end"]]), newline="")))
    return rows[1][0]


@pytest.mark.parametrize(("value", "cell"), [(None, ""), (0, "0"), (-3.5, "-3.5"), (True, "True"), ("-3.5", "'-3.5")])
def test_numbers_stay_numbers_and_nothing_is_empty(value: object, cell: str) -> None:
    assert write_table(["a", "b"], [[value, "x"]]) == f"a,b\r\n{cell},x\r\n"
