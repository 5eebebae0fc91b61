"""With every unit away from its default, no text of any view shows the old one, and what is typed is in the new one."""

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Page, expect

from fenwa.core.pot.geometry import pot_volume
from tests.browser.server import running, settled
from tests.browser.test_views import FORMS, MIX_TOOLS, OPENERS, VIEWS, WATER_TOOLS

pytestmark = pytest.mark.browser

FAR = {
    "ec_unit": "ppm",
    "ppm_scale": "0.7",
    "temperature_unit": "°F",
    "volume_unit": "US gal",
    "mass_unit": "oz",
    "length_unit": "in",
    "date_order": "month first",
}
# Texts and names with a unit or an order of dates that was not chosen. Left out: lists to choose a unit from, and what
# stands in a unit of its own (an instrument's dial, a bottle, a file's head, what was typed).
OLD = r"""() => {
  const old = new RegExp([
    "[µm]S\\b", "°C", "(?<![\\w/])(cm|mm)(?![\\w²³])", "(?<!/\\d*)(\\d|, |: )\\s?(L|g)(?![\\w/])",
    "\\b\\d{4}-\\d{2}-\\d{2}\\b", "\\b\\d{1,2} (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)",
  ].join("|"))
  const found = new Set()
  for (const e of document.querySelectorAll("body *")) {
    if (e.closest("option, script, style, [data-own-unit]")) continue
    const said = ["aria-label", "title", "placeholder", "aria-valuetext"].map(a => e.getAttribute(a))
    const own = [...e.childNodes].some(k => k.nodeType === 3 && k.data.trim())
    const text = own ? [...e.childNodes].filter(k => !k.closest || !k.closest("[data-own-unit]"))
      .map(k => k.textContent).join("") : ""
    for (const s of [...said, text]) if (s && old.test(s)) found.add(s.slice(0, 120))
  }
  return [...found]
}"""


def choose(page: Page, settings: dict[str, str]) -> None:
    """Save the settings as the form would."""
    stored = page.evaluate(
        """async far => {
          const now = await (await fetch("/api/settings")).json()
          const kept = Object.fromEntries(Object.entries(now).filter(([k]) => !["display", "fallen_back"].includes(k)))
          const answer = await fetch("/api/settings", {method: "PUT", body: JSON.stringify({...kept, ...far}),
            headers: {"content-type": "application/json", "idempotency-key": crypto.randomUUID()}})
          return answer.status
        }""",
        settings,
    )
    assert stored == 200


@pytest.fixture(scope="module")
def far_away(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    with running("demo", tmp_path_factory.mktemp("far") / "demo.sqlite") as address:
        yield address


PAGES = [*VIEWS, "/start", *(f"/water?tool={t}" for t in WATER_TOOLS), *(f"/mix?tool={t}" for t in MIX_TOOLS)]


@pytest.mark.parametrize("part", [0, *(pytest.param(n, marks=pytest.mark.walk) for n in (1, 2, 3))])
def test_no_text_of_any_view_shows_an_old_unit(far_away: str, open_page: Callable[..., Page], part: int) -> None:
    page = open_page(far_away, "/house")
    choose(page, FAR)
    wrong = {}
    for view in PAGES[part::4]:
        page.goto(far_away + view)
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        settled(page)
        found = page.evaluate(OLD)
        for name in (*FORMS, *OPENERS):
            button = page.get_by_role("button", name=name, exact=True)
            if button.count():
                button.first.click()
                found += page.evaluate(OLD)
        if found:
            wrong[view] = sorted(set(found))
    assert wrong == {}


def test_what_is_typed_in_the_readers_units_is_stored_in_its_own(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/house")
    choose(page, FAR)
    page.goto(f"{own_demo}/pots/6")
    page.get_by_role("button", name="Edit", exact=True).first.click()
    page.get_by_label("Top diameter, in", exact=True).fill("5")
    page.get_by_label("Height, in", exact=True).fill("many")
    page.get_by_role("button", name="Save the change").click()
    expect(page.get_by_text("“many” is not a number")).to_be_visible()
    expect(page.get_by_label("Height, in", exact=True)).to_have_value("many")
    page.get_by_label("Height, in", exact=True).fill("80")
    page.get_by_role("button", name="Save the change").click()
    expect(
        page.get_by_text(re.compile(r"Height 80 in cannot be\. Enter a value from [\d.]+ to 7\d(\.\d)? in\."))
    ).to_be_visible()
    page.get_by_label("Height, in", exact=True).fill("4")
    page.get_by_role("button", name="Save the change").click()
    expect(page.get_by_role("status").filter(has_text="The pot is changed.")).to_be_visible()
    settled(page)
    stored = page.evaluate("async () => (await (await fetch('/api/pots/6')).json()).pot_volume_L")
    assert stored == pytest.approx(pot_volume(top_cm=12.7, height_cm=10.16).result.volume_L)
