"""The collection in the browser: table, shelves, many at once, descent, labels, files, several plants."""

from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.server import running, settled

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def own_demo(tmp_path_factory: pytest.TempPathFactory):  # type: ignore[no-untyped-def]
    """A demonstration of its own: these tests write."""
    with running("demo", tmp_path_factory.mktemp("collection") / "demo.sqlite") as address:
        yield address


def test_pots_in_a_table_are_found_changed_together_and_labelled(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots?view=table")
    table = page.get_by_role("region", name="Pots")
    expect(table.get_by_role("row")).to_have_count(25)
    page.get_by_label("Find a pot").fill("masdevallia signal")
    expect(table.get_by_role("row")).to_have_count(3)
    page.get_by_label("All 2 shown").check()
    page.get_by_role("button", name="Change 2").click()
    page.get_by_label("Place").fill("Cool cellar")
    page.get_by_label("Add tags").fill("Cool, show bench")
    page.get_by_role("button", name="Save the changes").click()
    expect(page.get_by_text("2 pots changed.")).to_be_visible()
    page.get_by_label("Find a pot").fill("show bench")
    expect(table.get_by_role("row")).to_have_count(3)
    expect(table.get_by_role("row", name="M-04")).to_contain_text("Cool cellar")
    expect(table.get_by_role("row", name="M-04")).to_contain_text("cool, show bench")

    page.get_by_role("link", name="Labels").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("2 labels")
    code = page.get_by_role("img", name="QR code of M-04")
    expect(code).to_be_visible()
    page.wait_for_function("() => document.querySelector('img[alt=\"QR code of M-04\"]').naturalWidth > 50")


def test_a_pot_is_changed_without_leaving_the_list(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots")
    page.get_by_role("button", name="Change G-01").click()
    expect(page.get_by_label("Code", exact=True)).to_be_focused()
    page.get_by_label("Name", exact=True).fill("the old rosette")
    page.get_by_role("button", name="Save the change").click()
    expect(page.get_by_role("link", name="G-01 the old rosette")).to_be_visible()
    expect(page.get_by_role("heading", level=1)).to_have_text("24 pots")


def test_the_shelves_show_each_pot_with_its_water_and_salt(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots")
    page.get_by_role("button", name="Shelves").click()
    sill = page.get_by_role("region", name="Signal room, sill")
    row = next(p for p in page.evaluate("async () => (await fetch('/api/pots')).json()")["pots"] if p["code"] == "G-02")
    pot = sill.get_by_role("link", name=f"G-02 Pinguicula, {round(row['left_share'] * 100)} % of its water left")
    expect(pot).to_be_visible()
    pot.click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("G-02")


def test_divisions_know_their_mother_and_a_pot_may_hold_several_plants(
    own_demo: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(own_demo, "/pots", 390, 844)
    page.get_by_role("button", name="Divide or cut").click()
    page.get_by_label("What was potted up").fill("three bits of P-06")
    page.get_by_role("button", name="Add the plants").click()
    expect(page.get_by_text("Say divisions, cuttings, offsets.")).to_be_visible()
    page.get_by_label("What was potted up").fill("three divisions of P-06")
    page.get_by_role("button", name="Add the plants").click()
    expect(page.get_by_text("Saved: P-06/1, P-06/2, P-06/3.")).to_be_visible()
    page.get_by_role("link", name="P-06/2").click()
    expect(page.get_by_text("A division of P-06")).to_be_visible()
    expect(page.get_by_text("Hold: ").first).to_be_visible()
    page.get_by_role("link", name="P-06", exact=True).click()
    expect(page.get_by_text("Gave P-07, P-06/1, P-06/2, P-06/3")).to_be_visible()

    # a stray seedling moves in: the strictest rules; then it gets limits and a growth of its own
    page.get_by_role("button", name="Another plant in this pot").click()
    page.get_by_label("Kind of plant").select_option("disa")
    page.get_by_label("Name on its label").fill("stray seedling")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("heading", name="2 plants")).to_be_visible()
    expect(page.get_by_text("The strictest of them rules water and feed.")).to_be_visible()
    page.get_by_role("button", name="Another growth").first.click()
    page.get_by_label("Which").fill("new fan, left")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("new fan, left: active, leads")).to_be_visible()
    page.get_by_role("button", name="Let first growth lead").click()
    expect(page.get_by_role("button", name="Let new fan, left lead")).to_be_visible()
    settled(page)


def test_a_medium_of_parts_says_what_it_holds_before_it_is_kept(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots/6")
    page.get_by_role("button", name="Edit", exact=True).click()
    page.get_by_role("button", name="Mix the medium of parts").click()
    page.get_by_label("Parts of medium 1").fill("2")
    page.get_by_role("button", name="Another part").click()
    page.get_by_label("Medium 2", exact=True).select_option("perlite")
    expect(page.get_by_text("2:1")).to_be_visible()
    expect(page.get_by_role("button", name="Water the mixture holds")).to_be_visible()
    page.get_by_label("Top diameter").fill("12")
    page.get_by_label("Height, cm").fill("11")
    page.get_by_role("button", name="Save the change").click()
    expect(page.get_by_text("The pot is changed.")).to_be_visible()
    expect(page.get_by_text("L 2:1 ")).to_be_visible()


def test_the_collection_goes_to_a_file_and_a_bad_file_changes_nothing(
    own_demo: str, open_page: Callable[..., Page], tmp_path: Path
) -> None:
    page = open_page(own_demo, "/pots")
    page.get_by_role("button", name="File").click()
    with page.expect_download() as started:
        page.get_by_role("link", name="Take the file out").click()
    started.value.save_as(tmp_path / "pots.csv")
    text = (tmp_path / "pots.csv").read_text("utf-8")
    assert text.startswith("code,name,plants,place")
    (tmp_path / "in.csv").write_text("code,volume (L),plants\nZ-01,0.5,disa\nZ-02,a lot,disa\n", "utf-8")
    page.get_by_label("File to import").set_input_files(tmp_path / "in.csv")
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_role("alert")).to_contain_text("Row 3, column “volume (L)”")
    (tmp_path / "in.csv").write_text("code,volume (L),plants,tags\nZ-01,0.5,disa: twin x2,from a file\n", "utf-8")
    with page.expect_file_chooser() as chooser:  # the same file, mended: pressed as a hand would
        page.get_by_label("File to import").click()
    chooser.value.set_files(tmp_path / "in.csv")
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_text("1 added, 0 changed.")).to_be_visible()
    page.get_by_label("Find a pot").fill("from a file")
    expect(page.get_by_role("link", name="Z-01")).to_be_visible()
