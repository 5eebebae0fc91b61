"""What the cases ask of evidence and diagnosis: lines of later issues, each failing until then.

Each names the way in or the word by which the answer will be known; a strict expected failure turns red the day it
stands, and is then written out as a line of its case.
"""

import pytest

from tests.cases.grower import Grower
from tests.conftest import Client

LATER = [
    (3, "the July tip is older than the change and proves nothing", "evidence", "/api/pots/{pot_id}/answers"),
    (3, "19 November: a job, water before repotting; dolomite acts the other way", "diagnosis", "/api/checks"),
    (4, "18 February: no cure before the check", "diagnosis", "/api/pots/{pot_id}/wrong"),
    (8, "a second yellow leaf raises “too wet? look first”", "diagnosis", "/api/pots/{pot_id}/wrong"),
    (10, "on 28 August leaves gained are compared, one pair", "evidence", "/api/trials"),
    (11, "yellow-green reads right light here and look for a cause there", "diagnosis", "/api/pots/{pot_id}/wrong"),
    (15, "seasons lie over each other from restart", "evidence", "/api/pots/{pot_id}/seasons"),
    (18, "heating and air named with dates, water left alone so far", "diagnosis", "/api/pots/{pot_id}/wrong"),
    (19, "on 24 July nobody has failed: too early for bits", "evidence", "/api/pots/{pot_id}/answers"),
    (20, "2 March: too early, with the first day that can count", "evidence", "/api/pots/{pot_id}/answers"),
    (21, "the pair lists only what differs", "evidence", "/api/pots/{pot_id}/pair"),
]


@pytest.mark.parametrize(("case", "line", "issue", "way"), LATER)
@pytest.mark.xfail(strict=True, reason="a line of a later issue: evidence or diagnosis")
def test_line_of_a_later_issue(client: Client, case: int, line: str, issue: str, way: str) -> None:
    assert way in Grower(client).on("01-01").get("/api/openapi.json")["paths"], f"case {case}, {issue}: {line}"
