"""Numbers on a drawing are never written over each other. Outside check: the boxes that the browser itself gives them."""

import pytest
from browser_steps import open_job

APART = """() => {
  const boxes = [...document.querySelectorAll('.canvas .size')].map((one) => one.getBoundingClientRect())
  const over = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1
    && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1
  return boxes.flatMap((a, i) => boxes.slice(0, i).filter((b) => over(a, b))).length
}"""


@pytest.mark.parametrize(
    "name", ["Trail sign", *(pytest.param(name, marks=pytest.mark.rare) for name in ("Viewer side", "Slide drawer"))]
)
def test_no_size_of_a_step_lies_on_another(page, name):
    open_job(page, name)
    page.get_by_role("region", name="Parts").get_by_role("button").first.click()
    steps = page.locator("aside ol > li .name")
    steps.first.wait_for()
    for number in range(steps.count()):
        steps.nth(number).click()
        page.locator("aside ol > li.selected form").wait_for()
        assert page.evaluate(APART) == 0, number
        # The step is brought into view in its column: the page itself stays where it is.
        assert page.evaluate("document.scrollingElement.scrollTop + document.querySelector('#app').scrollTop") == 0
        assert page.locator("header").first.bounding_box()["y"] == 0
