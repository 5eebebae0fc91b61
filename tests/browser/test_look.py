"""Looks and photos in the real interface: four taps, out of reach, measured, compared, at the desk."""

import io
import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Browser, Locator, Page, expect

from fenwa.demo.photographs import DrawnLeaf, photograph
from tests.browser.hands import Keyboard, Pointer
from tests.browser.measured import findings
from tests.browser.server import context_of, running, settled


def taken(kind: str = "JPEG", seed: int = 1) -> bytes:
    """A drawn photo as a phone gives it."""
    from pillow_heif import register_heif_opener

    register_heif_opener()
    drawn = photograph(np.random.default_rng(seed), rim_mm=150, leaves=[DrawnLeaf(120.0), DrawnLeaf(90.0, 0.2)])
    out = io.BytesIO()
    Image.open(io.BytesIO(drawn.jpeg)).save(out, kind)
    return out.getvalue()


def choose_photo(page: Page, data: bytes, name: str, mime: str = "image/jpeg") -> None:
    page.get_by_label("Photo", exact=True).set_input_files({"name": name, "mimeType": mime, "buffer": data})


def said(page: Page, words: str) -> Locator:
    """The notice that says what was done."""
    return page.get_by_role("status").get_by_text(words, exact=False)


def asked(page: Page, address: str, path: str) -> Any:
    return page.request.get(address + path).json()


@pytest.mark.parametrize("kind", [Pointer, Keyboard], ids=["pointer", "keyboard"])
def test_same_as_last_time_and_one_new_leaf_in_four_taps(
    own_demo: str, open_page: Callable[..., Page], kind: type[Pointer]
) -> None:
    page = open_page(own_demo, "/leaf", 390, 844)
    before = asked(page, own_demo, "/api/looks-asked")["looks"][0]
    hand = kind(page)
    hand.press(f"Look at {before['code']}", role="link")
    hand.press("Same as last time")
    hand.press("New leaf")
    hand.press("Save, next", exact=False)
    expect(said(page, f"{before['code']}: look saved.")).to_be_visible()
    now = asked(page, own_demo, f"/api/pots/{before['pot_id']}/look-asked")
    assert now["last_on"] == "2026-11-23"
    assert now["leaves_count"] == before["leaves_count"] + 1
    assert now["leaves"][0]["number"] == before["leaves"][0]["number"] + 1
    assert now["leaves"][0]["mm"] is None, "nobody measured it"
    second = asked(page, own_demo, "/api/looks-asked")["looks"][0]
    expect(page.get_by_role("heading", level=1)).to_contain_text(second["code"])
    with page.expect_response(lambda answer: answer.request.method != "GET" and "/archive" in answer.url):
        page.get_by_role("button", name="Undo").click()
    expect(said(page, "look saved")).to_have_count(0)
    assert asked(page, own_demo, f"/api/pots/{before['pot_id']}/look-asked")["last_on"] == before["last_on"]


def test_a_leaf_is_dragged_marked_and_refused_beside_its_field(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/look/6?from=pot", 390, 844)
    hand = Pointer(page)
    hand.press("New leaf")
    knob = page.get_by_role("slider", name="Length of the newest leaf")
    box = knob.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2 + 40, steps=4)
    page.mouse.up()
    dragged = float(page.get_by_label("Newest leaf, mm").input_value())
    assert 20 < dragged < 159
    knob.focus()
    page.keyboard.press("ArrowUp")
    assert float(page.get_by_label("Newest leaf, mm").input_value()) == dragged + 1
    hand.press("Mark: Tip")
    tip = page.get_by_role("group", name="Tip", exact=True)
    tip.get_by_role("button", name="Soft").click()
    tip.get_by_label("Size of the mark in mm, Tip").fill("4")
    page.get_by_role("combobox", name="Root tips: looked at?").select_option(label="looked for, none seen")
    assert findings(page) == []
    hand.fill("Newest leaf, mm", "9")
    hand.press("Save")
    expect(page.get_by_text("ten times off", exact=False)).to_be_visible()
    hand.fill("Newest leaf, mm", "131")
    hand.press("Save")
    expect(page).to_have_url(re.compile("/pots/6$"))
    record = asked(page, own_demo, "/api/pots/6/leaves")["leaves"][-1]
    assert record["lengths"][0]["mm"] == 131
    assert record["finished_mm"] is None, "a new leaf grows still"
    assert [(m["kind"], m["place"], m["texture"], m["mm"]) for m in record["marks"]] == [("tip", "tip", "soft", 4)]
    organs = asked(page, own_demo, "/api/pots/6/organs")
    assert (organs[-1]["seen"]["organ"], organs[-1]["seen"]["told"], organs[-1]["share"]) == (
        "root tips",
        "none seen",
        0,
    )


def test_three_looks_with_photos_while_fenwa_is_gone_arrive_once_each(browser: Browser, tmp_path: Path) -> None:
    with running("demo", tmp_path / "demo.sqlite") as address:
        context = context_of(browser, 390, 844)
        page = context.new_page()
        page.goto(address + "/look")
        settled(page)
        next_three = asked(page, address, "/api/looks-asked")["looks"][:3]
        first = [x["pot_id"] for x in next_three]
        before = asked(page, address, "/api/photos")["photos"]
        context.route("**/api/**", lambda route: route.abort())
        for n, look in enumerate(next_three):
            choose_photo(page, taken(seed=n), f"leaf {n}.jpg")
            page.get_by_role("button", name="New leaf").click()
            page.get_by_role("button", name="Save", exact=False).last.click()
            # By its code: the notice of the look before may still stand, and only what was acknowledged must arrive.
            expect(said(page, f"{look['code']}: look saved")).to_be_visible(timeout=30_000)
            if n < 2:
                expect(page.get_by_role("button", name="New leaf")).to_have_attribute("aria-pressed", "false")
        page.reload()
        context.unroute("**/api/**")
        page.reload()
        for _ in range(240):
            if asked(page, address, "/api/photos")["photos"] == before + 3:
                break
            page.wait_for_timeout(250)
        page.wait_for_timeout(1500)
        assert asked(page, address, "/api/photos")["photos"] == before + 3, "once each"
        for pot_id in first:
            photos = [
                p for p in asked(page, address, f"/api/pots/{pot_id}/photos")["photos"] if p["on"] == "2026-11-23"
            ]
            assert len(photos) == 1
            assert photos[0]["look_id"] is not None
            looks = asked(page, address, f"/api/pots/{pot_id}")["looks"]
            assert len([x for x in looks if x["on"] == "2026-11-23"]) == 1
        context.close()


def test_heic_is_taken_and_a_renamed_text_file_is_not(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/look/4", 390, 844)
    before = asked(page, own_demo, "/api/photos")["photos"]
    choose_photo(page, taken("HEIF"), "IMG_0001.HEIC", "image/heic")
    page.get_by_role("button", name="Save", exact=False).last.click()
    expect(said(page, "look saved")).to_be_visible()
    for _ in range(40):
        if asked(page, own_demo, "/api/photos")["photos"] == before + 1:
            break
        page.wait_for_timeout(250)
    assert asked(page, own_demo, "/api/photos")["photos"] == before + 1
    page.goto(own_demo + "/look/5")
    choose_photo(page, b"Leaf 7, brown tip\n" * 50, "leaf.jpg")
    page.get_by_role("button", name="Save", exact=False).last.click()
    expect(page.get_by_text("This file is not a picture", exact=False).first).to_be_visible()
    assert asked(page, own_demo, "/api/photos")["photos"] == before + 1


def at(page: Page, photo: dict[str, Any], point: dict[str, float]) -> tuple[float, float]:
    """A point of a photo on the screen; the drawing keeps its proportions inside its box."""
    box = page.get_by_role("application").bounding_box()
    assert box is not None
    k = min(box["width"] / photo["width_px"], box["height"] / photo["height_px"])
    left = box["x"] + (box["width"] - k * photo["width_px"]) / 2
    top = box["y"] + (box["height"] - k * photo["height_px"]) / 2
    return left + k * point["x"], top + k * point["y"]


def test_a_photo_is_measured_and_its_length_stands_with_the_leaf(own_demo: str, open_page: Callable[..., Page]) -> None:
    """The length that was read in the demonstration's own photo is found again by tapping it in the page."""
    page = open_page(own_demo, "/")
    photo = asked(page, own_demo, "/api/pots/6/photos")["photos"][-1]
    other = asked(page, own_demo, "/api/pots/6/photos")["photos"][0]
    compared = asked(page, own_demo, f"/api/photos/{photo['id']}/against/{other['id']}")
    trace = max(compared["after_traces"], key=lambda t: t["leaf"])
    k = photo["scale"]["mm_per_px"]
    page.goto(f"{own_demo}/photos/{photo['id']}?pot=6")
    expect(page.get_by_role("application")).to_be_visible()
    settled(page)
    first, second = photo["rim"]["first"], photo["rim"]["second"]
    middle = {"x": (first["x"] + second["x"]) / 2, "y": (first["y"] + second["y"]) / 2}
    turn = np.arctan2(second["y"] - first["y"], second["x"] - first["x"])
    for p in trace["points"]:
        x = middle["x"] + (p["x"] * np.cos(turn) - p["y"] * np.sin(turn)) / k
        y = middle["y"] + (p["x"] * np.sin(turn) + p["y"] * np.cos(turn)) / k
        page.mouse.click(*at(page, photo, {"x": float(x), "y": float(y)}))
    expect(page.get_by_role("application")).to_have_attribute(
        "aria-label", re.compile(f"{len(trace['points'])} points")
    )
    shown = page.get_by_role("button", name=re.compile("Length of the leaf"))
    expect(shown).to_be_visible()
    known = [x["lengths"][-1]["mm"] for x in asked(page, own_demo, "/api/pots/6/leaves")["leaves"] if x["lengths"]]
    read = float(re.findall(r"[\d.]+", shown.inner_text())[0])
    assert read == pytest.approx(known[-1], rel=0.03)
    page.get_by_role("button", name="Save, finished").click()
    expect(said(page, "Length saved.")).to_be_visible()
    assert findings(page) == []


def test_a_midrib_is_tapped_with_the_keyboard(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/photos/8?pot=6")
    photo = page.get_by_role("application")
    photo.focus()
    page.keyboard.press("Enter")
    for _ in range(6):
        page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(photo).to_have_attribute("aria-label", re.compile("2 points set"))
    expect(page.get_by_text("Two taps give a straight line", exact=False)).to_be_visible()
    page.keyboard.press("Backspace")
    expect(photo).to_have_attribute("aria-label", re.compile("1 points set"))


def test_two_photos_are_compared_with_the_keyboard(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/compare/6")
    later = page.get_by_role("slider", name="Later photo")
    expect(page.get_by_role("img", name=re.compile("Earlier photo"))).to_be_visible()
    first = later.get_attribute("aria-valuetext")
    later.focus()
    page.keyboard.press("ArrowLeft")
    expect(later).not_to_have_attribute("aria-valuetext", first or "")
    expect(page.get_by_role("heading", name="What changed in between")).to_be_visible()
    earlier = page.get_by_role("slider", name="Earlier photo")
    earlier.focus()
    page.keyboard.press("End")
    assert earlier.get_attribute("aria-valuenow") == "2", "never past the later one"
    page.get_by_role("combobox", name="Shown").select_option(label="over each other")
    fade = page.get_by_role("slider", name="Earlier to later")
    fade.focus()
    page.keyboard.press("ArrowRight")
    expect(fade).to_have_attribute("aria-valuetext", "later photo 55 % visible")
    expect(page.get_by_role("img", name=re.compile("over each other"))).to_be_visible()


def test_the_desk_takes_twenty_plants_by_keyboard(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/look/desk")
    looks = asked(page, own_demo, "/api/looks-asked")["looks"]
    assert len(looks) == 20
    page.get_by_label(f"Leaves counted, {looks[0]['code']}").focus()
    page.keyboard.type("13")
    page.keyboard.press("Enter")
    expect(page.get_by_label(f"Leaves counted, {looks[1]['code']}")).to_be_focused()
    page.keyboard.type("half")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Leaves counted")
    page.keyboard.press("Control+A")
    page.keyboard.type("14")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_have_count(0)
    for look, count in ((looks[0], 13), (looks[1], 14)):
        assert asked(page, own_demo, f"/api/pots/{look['pot_id']}/look-asked")["leaves_count"] == count
    assert findings(page) == []


def test_photos_are_rated_by_number(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/rate", 390, 844)
    expect(page.get_by_role("img", name=re.compile("Photo number 1"))).to_be_visible()
    assert not re.search(r"[A-Z]+-\d\d", page.get_by_role("main").inner_text()), "no plant is named"
    page.get_by_role("button", name="7", exact=True).click()
    expect(said(page, "Score saved.")).to_be_visible()
