"""What is measured on a page: axe, what is cut off, what a thumb can reach, what spaced text pushes out."""

import re

from playwright.sync_api import Page, expect

from tests.browser.server import ROOT, settled

AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text("utf-8")
# a colour half-way to another fails where both would hold: two frames, and whatever moves and will end
STANDS_STILL = """async () => {
  for (let i = 0; i < 2; i++) await new Promise(done => requestAnimationFrame(done))
  const ending = document.getAnimations().filter(a => a.effect?.getComputedTiming().endTime < 5000)
  await Promise.allSettled(ending.map(a => a.finished))
}"""


def findings(page: Page, within: str = "html", only: tuple[str, ...] = ()) -> list[str]:
    """Whatever axe finds, minor or grave; targets of at least 24 px among it. ``only``: rules by name."""
    page.evaluate(STANDS_STILL)
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)  # evaluated, not added as a script: the page's own policy forbids that
    part, _, place = within.partition(" >> ")
    found = page.evaluate(
        """([s, i, only]) => axe.run(document.querySelectorAll(s)[i], {
            resultTypes: ['violations'],
            ...(only.length ? {runOnly: only} : {rules: {'target-size': {enabled: true}}}),
        })""",
        [part, int(place or 0), list(only)],
    )
    return [f"{v['id']}: {v['nodes'][0]['html'][:140]}" for v in found["violations"]]


def findings_in_forms(page: Page) -> list[str]:
    """The forms alone: what stands around them was walked when the view opened."""
    return [
        finding for i in range(page.locator("main form").count()) for finding in findings(page, f"main form >> {i}")
    ]


def in_the_dark(page: Page) -> None:
    page.emulate_media(color_scheme="dark", reduced_motion="reduce")
    expect(page.locator("html")).to_have_class(re.compile("dark"))  # the page's policy forbids a polled script
    page.evaluate(STANDS_STILL)  # colours on their way: measured half-way they would fail
    settled(page)
    assert page.evaluate("document.documentElement.classList.contains('dark')")


# what reaches over the right edge, unless it stands in a box that scrolls by itself
_CUT_OFF = """() => [...document.querySelectorAll("main *")].filter(e => {
  const box = e.getBoundingClientRect()
  if (box.width === 0 || box.height === 0 || box.right <= window.innerWidth + 1) return false
  for (let p = e.parentElement; p; p = p.parentElement)
    if (["auto", "scroll"].includes(getComputedStyle(p).overflowX)) return false
  return getComputedStyle(e).position !== "absolute"
}).slice(0, 3).map(e => e.outerHTML.slice(0, 120))"""


def cut_off(page: Page) -> list[str]:
    """What stands over the right edge and cannot be scrolled to."""
    found: list[str] = page.evaluate(_CUT_OFF)
    return found


def fits(page: Page) -> bool:
    """Whether nothing reaches over the edge once drawings have measured their width anew: a frame or two later."""
    for _ in range(20):
        if page.evaluate("document.documentElement.scrollWidth <= document.documentElement.clientWidth"):
            return True
        page.wait_for_timeout(100)
    return False


# what is pressed, ticked or typed into; a box that only scrolls is none. A tick is reached by its label. A link or a
# number within a sentence is as high as its line has to be, and reached by more than its words.
_SMALL = """least => [...document.querySelectorAll(
  "a[href], button, input:not([type=hidden]), select, textarea, summary, [role=tab], [role=radio], [role=slider]"
)].filter(e => {
  const style = getComputedStyle(e)
  if (e.disabled || !e.checkVisibility() || style.visibility === "hidden" || style.opacity === "0") return false
  const box = (e.tagName === "INPUT" && e.closest("label") || e).getBoundingClientRect()
  if (box.width <= 1 || box.height <= 1 || box.right <= 0 || box.bottom <= 0) return false
  return box.width < least - 0.5 || box.height < least - 0.5
}).map(e => {
  const box = (e.tagName === "INPUT" && e.closest("label") || e).getBoundingClientRect()
  return `${Math.round(box.width)}x${Math.round(box.height)} ${e.outerHTML.slice(0, 110)}`
})"""


def small_targets(page: Page, least_px: int) -> list[str]:
    """What a thumb would have to aim at."""
    found: list[str] = page.evaluate(_SMALL, least_px)
    return found


_SPACED = """() => {
  const style = document.createElement("style")
  style.textContent = `* { line-height: 1.5 !important; letter-spacing: 0.12em !important;
    word-spacing: 0.16em !important } p { margin-bottom: 2em !important }`
  style.dataset.spaced = ""
  document.head.append(style)
}"""


def with_spaced_text(page: Page) -> None:
    """The spacing that some readers set for themselves (WCAG 1.4.12)."""
    page.evaluate(_SPACED)
    settled(page)


def with_text_as_it_was(page: Page) -> None:
    """Without that spacing."""
    page.evaluate("document.querySelector('style[data-spaced]')?.remove()")
