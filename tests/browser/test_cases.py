"""Growers' cases on the screens they see: the first hour, two signs, plans by phase, cups, signs of salt; no pen."""

from collections.abc import Callable
from hashlib import sha256

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import Pointer

pytestmark = pytest.mark.browser
NITRATE, FOLIAGE = "Nitrate feed 13-3-15 with Ca and Mg", "Foliage feed 20-8.7-16.6, urea-rich"


class Counted(Pointer):
    """A hand that counts its taps and fields."""

    def __init__(self, page: Page) -> None:
        super().__init__(page)
        self.acts = 0

    def press(self, name: str, role: str = "button", exact: bool = True) -> None:
        self.acts += 1
        super().press(name, role, exact)

    def fill(self, label: str, text: str) -> None:
        self.acts += 1
        super().fill(label, text)

    def choose(self, label: str, option: str) -> None:
        self.acts += 1
        super().choose(label, option)

    def unfold(self, words: str) -> None:
        self.acts += 1
        super().unfold(words)

    def tick(self, label: str) -> None:
        self.acts += 1
        super().tick(label)

    def station(self, name: str) -> None:
        self.acts += 1
        super().station(name)


def send(page: Page, address: str, path: str, **body: object) -> dict[str, int]:
    """What was entered before the test begins, by the API."""
    key = sha256(f"{path}{body}".encode()).hexdigest()
    answer = page.request.post(f"{address}{path}", data=body, headers={"Idempotency-Key": key})
    assert answer.ok, answer.text()
    return dict(answer.json())


def pot(page: Page, address: str, code: str, kind: str, **more: object) -> int:
    body = {"code": code, "profile_id": kind, "medium_id": "bark_mix", "volume": 0.9, "interval_days": 6, **more}
    return send(page, address, "/api/pots", **body)["id"]


def test_a_set_up_from_nothing_takes_at_most_sixty_taps_and_fields(
    fresh_address: str, open_page: Callable[..., Page]
) -> None:
    """The first hour: three waters without a pen, eight pots of four kinds, no winter feed, a second feed at spike."""
    page = open_page(fresh_address, "/")
    hand = Counted(page)
    expect(page.get_by_role("heading", name="Three questions, then you can pour")).to_be_visible()
    hand.station("Water")
    for n, (name, kind) in enumerate((("Tap", "Mains"), ("Jugs", "Distilled"), ("Barrel", "Rain"))):
        hand.press("Add the first source" if n == 0 else "Add a source")
        hand.fill("Name", name)
        option = page.get_by_label("Kind", exact=True).locator("option", has_text=kind).first.text_content() or ""
        hand.choose("Kind", option)
        hand.press("Save the source")
        expect(page.get_by_text(name).locator("visible=true").first).to_be_visible()
        if page.get_by_role("button", name="Cancel", exact=True).count():
            hand.press("Cancel")  # no pen: go on without a reading
    hand.station("Shelf")
    for feed in (NITRATE, FOLIAGE):
        hand.press(f"Add {feed}")
        expect(page.get_by_role("button", name=f"Remove {feed}")).to_be_visible()
    hand.station("Pots")
    kinds = (("P-01", "Phalaenopsis"), ("C-01", "Cymbidium"), ("N-01", "Nephrolepis"), ("M-01", "Maranta"))
    for n, (code, kind) in enumerate(kinds):
        hand.press("Add the first pot" if n == 0 else "Add a pot")
        hand.fill("Code", code)
        option = page.get_by_label("Kind of plant").locator("option", has_text=kind).first.text_content() or ""
        hand.choose("Kind of plant", option)
        hand.fill("Top diameter, cm", "12")
        if n == 0:
            hand.unfold("Medium, place, days")  # it stays open for the next
        hand.fill("Pots alike", "2")
        hand.press("Save the pot")
        expect(page.get_by_role("heading", name=f"{2 * n + 2} pots", exact=True)).to_be_visible()
    hand.station("Mix")
    hand.press("Feeding plans", role="link")
    hand.press("Add", role="link")
    hand.tick("none in winter")
    hand.press("By growth, spike and bloom")
    hand.choose("In growth", NITRATE)
    hand.choose("From the spike", FOLIAGE)
    expect(page.get_by_text("from 1 March to 31 October", exact=False).first).to_be_visible()
    hand.press("Save")
    expect(page.get_by_text(f"{FOLIAGE} in spike", exact=False)).to_be_visible()
    print(f"{hand.acts} taps and fields")
    assert hand.acts <= 60, hand.acts
    hand.station("Round")
    expect(page.get_by_text("Look first", exact=False).first).to_be_visible()


def test_case_4_four_waters_without_a_pen_and_never_the_tap(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/")
    for name, kind, agent in (
        ("Tap", "mains", "chloramine"),
        ("Filter jug", "jug-filtered", "none"),
        ("Rain barrel", "rain", "none"),
    ):
        send(page, fresh_address, "/api/waters", name=name, kind=kind, disinfectant=agent)
    pot(page, fresh_address, "S-01", "stromanthe", watered_on="2026-11-10")
    page.goto(fresh_address)
    expect(page.get_by_text("Rain barrel", exact=False).first).to_be_visible()
    expect(page.get_by_text("was not measured", exact=False).first).to_be_visible()
    page.goto(f"{fresh_address}/mix")
    share = page.get_by_label("Of the label", exact=True)
    expect(share).not_to_have_value("")  # the first answer fills it in: typed before, both would stand in it
    share.fill("cut it by 80")
    expect(page.get_by_text("keeps one fifth", exact=False).first).to_be_visible()


def test_case_6_two_signs_must_agree(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/")
    send(page, fresh_address, "/api/waters", name="Rain butt", kind="rain")
    made = pot(
        page, fresh_address, "P-02", "phalaenopsis", watered_on="2026-11-16", soak_min=8, stand_min=40, route="soak"
    )
    page.goto(f"{fresh_address}/pots/{made}")
    hand = Pointer(page)
    hand.press("When it wants water")
    hand.choose("Ready", "when several signs agree")
    for sign in ("roots silver", "no mist on the wall", "dry to the finger", "leaves slack"):
        hand.tick(sign)
    hand.press("Save the rule")
    hand.press("How dry is it?")
    hand.choose("Roots seen", "silver: dry")
    hand.choose("Wall of a clear pot", "misted: wet")
    hand.press("Save")
    expect(page.get_by_text("Wall misted, though roots silver", exact=False).first).to_be_visible()
    expect(page.get_by_text("25 Nov", exact=False).first).to_be_visible()
    hand.press("How dry is it?")
    hand.choose("Wall of a clear pot", "clear")
    hand.press("Save")
    expect(page.get_by_text("2 signs agree", exact=False).first).to_be_visible()
    page.goto(fresh_address)
    expect(page.get_by_text("P-02", exact=False).first).to_be_visible()


def test_case_7_the_helper_needs_no_knowledge(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/")
    send(page, fresh_address, "/api/waters", name="Tap", kind="soft", disinfectant="none")
    pot(page, fresh_address, "N-01", "nephrolepis", watered_on="2026-11-22", stand_min=50, check_most_days=2)
    pot(page, fresh_address, "A-01", "bromeliad_tank", watered_on="2026-11-22")
    page.goto(f"{fresh_address}/away")
    Pointer(page).date("Back on", "2026-12-05")
    expect(page.get_by_text("Let it stand 50 min, tip out.", exact=False).first).to_be_visible()
    expect(page.get_by_text("Never let the cup run dry.", exact=False).first).to_be_visible()


def test_case_11_two_products_on_one_round(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/")
    send(page, fresh_address, "/api/waters", name="Rain", kind="rain")
    told = {"watered_on": "2026-11-10", "fed_on": "2026-10-20", "phase": "active", "medium_charged": False}
    for code in ("Y-01", "Y-02"):
        pot(page, fresh_address, code, "phalaenopsis", **told)
    products = page.request.get(f"{fresh_address}/api/mix").json()["products"]
    ids = {p["name"]: p["id"] for p in products}
    for name in (NITRATE, FOLIAGE):
        send(page, fresh_address, f"/api/products/{ids[name]}/owned", owned=True)
    by_phase = [{"when": "growth", "product_id": ids[FOLIAGE]}, {"when": "spike", "product_id": ids[NITRATE]}]
    send(page, fresh_address, "/api/plans", scope="all", cycle=1, feeds=1, products=by_phase)
    send(page, fresh_address, "/api/pots/1/looks", on="2026-11-22", spike=True)
    page.goto(f"{fresh_address}/round/sheet?on=2026-11-24")
    expect(page.get_by_text(NITRATE, exact=False).first).to_be_visible()
    expect(page.get_by_text(FOLIAGE, exact=False).first).to_be_visible()


def test_case_9_and_17_acts_that_ask_for_a_word(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/")
    send(page, fresh_address, "/api/waters", name="Tap", kind="soft", disinfectant="none")
    made = pot(page, fresh_address, "P-01", "phalaenopsis", watered_on="2026-11-10")
    body = {"pot_ids": [made], "on": "2026-11-23", "water_id": 1, "volume": 40, "route": "cup"}
    refused = page.request.post(f"{fresh_address}/api/pours", data=body, headers={"Idempotency-Key": "into-the-cup"})
    assert "rots it" in refused.json()["detail"]
    hand = Pointer(page)
    page.goto(f"{fresh_address}/pots/{made}")
    hand.press("Log a look", role="link")
    hand.press("white salt crust")
    hand.press("Save")
    expect(page.get_by_text("Salt crust seen", exact=False).first).to_be_visible()
    hand.press("Repot")
    hand.choose("It came with feed in it", "no")
    hand.press("Save")
    expect(page.get_by_text("Salt crust seen", exact=False)).to_have_count(0)


def test_case_2_a_bag_is_opened_by_steps(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/", 390, 844)
    send(page, fresh_address, "/api/waters", name="Rain", kind="rain")
    made = pot(page, fresh_address, "C-01", "cephalotus", arrived_on="2026-11-23", watered_on="2026-11-23")
    page.goto(f"{fresh_address}/pots/{made}")
    hand = Pointer(page)
    hand.press("Settle in by steps")
    hand.press("Save")
    expect(page.get_by_text("bag: 1 quarter; from 25 Nov 2 quarters, at 4 on 29 Nov.")).to_be_visible()
    expect(page.get_by_text("days alone release nothing", exact=False).first).to_be_visible()
