"""From Enter in the page to the new figures on the screen: server, network and drawing together.

Asked for: under 100 ms (p95). The p95 is printed, and is no pass or fail.
"""

from __future__ import annotations

import subprocess
import sys

import pytest
from running_app import ROOT

EDIT = """
async ([field, value]) => {
  const job = document.querySelector('#app').__vue_app__.config.globalProperties.$pinia._s.get('job')
  const before = job.design.moves
  const start = performance.now()
  await job.put(field, value)
  if (job.design.moves === before) throw new Error(job.problem?.why ?? 'nothing changed')
  await new Promise(requestAnimationFrame)
  const painted = new MessageChannel()
  await new Promise((done) => { painted.port1.onmessage = done; painted.port2.postMessage(0) })
  return performance.now() - start
}
"""


def p95(page, field: str, values: list[str] | list[list[str]]) -> float:
    """In ms, after a few edits that warm everything up."""
    taken = [page.evaluate(EDIT, [field, value]) for value in values]
    print([round(ms) for ms in taken])
    ordered = sorted(taken[5:])
    return ordered[int(0.95 * (len(ordered) - 1))]


@pytest.mark.parametrize("stop", ["shape", "lay-out", "prove"])
def test_an_edit_of_the_tray(benchmark, open_tray, stop):
    open_tray.goto(open_tray.url.replace("shape", stop))
    open_tray.get_by_text("fits, as planned").first.wait_for()
    values = [str(150 + i / 4) for i in range(45)]
    result = benchmark.pedantic(lambda: p95(open_tray, "answers/width", values), rounds=1)
    benchmark.extra_info["p95_ms"] = round(result, 1)
    print(f"\ntray, {stop}: p95 {result:.0f} ms")


MOVE = """
i => new Promise((done) => {
  const drawing = document.querySelector('.frame > svg')
  const wheel = { deltaY: i % 40 < 20 ? -30 : 30, clientX: 500, clientY: 350, bubbles: true, cancelable: true }
  if (i % 2) drawing.dispatchEvent(new WheelEvent('wheel', wheel))
  else drawing.dispatchEvent(new KeyboardEvent('keydown', { key: i % 4 ? 'ArrowLeft' : 'ArrowRight', bubbles: true }))
  requestAnimationFrame(() => requestAnimationFrame(done))
})
"""
WORK = ("ScriptDuration", "RecalcStyleDuration", "LayoutDuration")


@pytest.mark.parametrize("stop", ["shape", "lay-out", "prove"])
def test_moving_a_thousand_holes_and_forty_parts(benchmark, open_tray, stop):
    """Script, style and layout of a step, as the browser counts them. Asked for: at most 8 ms (p95 of 200)."""
    sizes = {"width": "500", "depth": "330", "height": "30"}
    edits = [{"verb": "put", "path": f"answers/{name}", "value": value} for name, value in sizes.items()]
    holes = {
        "id": "holes", "kind": "shape", "does": "cut", "x": "15", "y": "15", "shape": {"kind": "disc", "diameter": "3"},
        "pattern": {"kind": "grid", "columns": 40, "rows": 25, "dx": "11", "dy": "12"},
    }  # fmt: skip
    blank = {"kind": "shape", "id": "blank", "shape": {"kind": "rectangle", "width": "40", "height": "30"}}
    edits.append({"verb": "put", "path": "parts/base/steps/holes", "value": holes})
    for i in range(35):
        value = {"title": f"Extra {i}", "board": "main", "loose": 1, "steps": [blank]}
        edits.append({"verb": "put", "path": f"parts/extra-{i}", "value": value})
    open_tray.evaluate(
        "edits => document.querySelector('#app').__vue_app__.config.globalProperties.$pinia._s.get('job').edit(...edits)",
        edits,
    )
    open_tray.locator(f"nav a[href$='/{stop}']").click()
    open_tray.get_by_text("40 parts, 40 kinds").wait_for()
    open_tray.wait_for_timeout(6000)  # the proof has come
    session = open_tray.context.new_cdp_session(open_tray)
    session.send("Performance.enable")

    def spent() -> float:
        found = {one["name"]: one["value"] for one in session.send("Performance.getMetrics")["metrics"]}
        return 1000 * sum(found[name] for name in WORK)

    def steps() -> float:
        taken = []
        for i in range(200):
            before = spent()
            open_tray.evaluate(MOVE, i)
            taken.append(spent() - before)
        return sorted(taken)[190]

    result = benchmark.pedantic(steps, rounds=1)
    benchmark.extra_info["p95_ms"] = round(result, 1)
    print(f"\nmoving a drawing, {stop}: p95 {result:.1f} ms a step")


def test_an_edit_of_a_forty_part_job(benchmark, forty):
    page = forty("shape")
    values = [str(90 + i / 4) for i in range(45)]
    result = benchmark.pedantic(lambda: p95(page, "dimensions/width_0/length", values), rounds=1)
    benchmark.extra_info["p95_ms"] = round(result, 1)
    print(f"\nforty parts: p95 {result:.0f} ms")


@pytest.mark.parametrize(("stop", "thinnest"), [("measure", 3.0), ("shape", 3.3)])
def test_another_thickness_of_a_forty_part_job(benchmark, forty, stop, thinnest):
    """Every part, joint and figure follows the board; no thickness was computed before."""
    page = forty(stop)
    thin = [thinnest + i / 200 for i in range(45)]
    values = [[f"{mm + more:.3f}" for more in (0, 0.02, 0.05)] for mm in thin]
    result = benchmark.pedantic(lambda: p95(page, "basis/main/readings", values), rounds=1)
    benchmark.extra_info["p95_ms"] = round(result, 1)
    print(f"\nforty parts, another thickness, {stop}: p95 {result:.0f} ms")


MANY = """
from django.contrib.auth.models import User
from designs.models import Design, Revision
from designs.pictures import keep_picture
owner = User.objects.get(username="Wren")
for i in range(36):
    before = Design.objects.order_by("id")[i % 4].head
    keep_picture(before)
    design = Design.objects.create(owner=owner, name=f"{before.design.name} {i}")
    design.head = Revision.objects.create(design=design, number=1, document=before.document, picture=before.picture)
    design.save()
"""

ARRIVAL = """
const ask = window.fetch
window.fetch = async (...given) => {
  const answer = await ask(...given)
  const address = String(given[0]?.url ?? given[0])
  if (/api.designs$/.test(address)) {
    const text = answer.text.bind(answer)
    const read = async () => { const found = await text(); window.arrived ??= performance.now(); return found }
    answer.text = read
    answer.json = async () => JSON.parse(await read())
  }
  return answer
}
new PerformanceObserver((list) => list.getEntries().forEach((e) => (window.long = [...(window.long ?? []), [e.startTime, e.duration]])))
  .observe({ type: 'longtask', buffered: true })
"""

PAINTED = """
async () => {
  while (!document.querySelector('.edge svg path')) await new Promise(requestAnimationFrame)
  await new Promise(requestAnimationFrame)
  const painted = new MessageChannel()
  await new Promise((done) => { painted.port1.onmessage = done; painted.port2.postMessage(0) })
  return performance.now() - window.arrived
}
"""


def test_a_table_of_forty_jobs(benchmark, page, app):
    """Asked for: its first screen within 300 ms of processor time after the data; waiting for frames is counted here too."""
    manage = [sys.executable, str(ROOT / "server" / "manage.py"), "shell", "-c", MANY]
    subprocess.run(manage, env=app.environment, check=True, stdout=subprocess.DEVNULL)
    page.add_init_script(ARRIVAL)

    def load() -> float:
        page.goto(app.address)
        return page.evaluate(PAINTED)

    taken = [load() for _ in range(6)]
    benchmark.extra_info["ms"] = round(sorted(taken)[len(taken) // 2], 1)
    benchmark.pedantic(load, rounds=1)
    print(f"\ntable of 40: {[round(one) for one in taken]} ms from the data to the first screen")


DRAG = """
async () => {
  const handle = document.querySelector('.picture [role=slider]')
  const box = handle.getBoundingClientRect()
  const at = (dx) => ({ bubbles: true, pointerId: 1, clientX: box.x + 10 + dx, clientY: box.y + 10 })
  handle.setPointerCapture = () => {}
  handle.dispatchEvent(new PointerEvent('pointerdown', at(0)))
  const taken = []
  for (let i = 0; i < 120; i++) {
    const start = performance.now()
    handle.dispatchEvent(new PointerEvent('pointermove', at(i % 90)))
    await Promise.resolve().then(() => new Promise((done) => queueMicrotask(done)))
    document.querySelector('.picture').getBoundingClientRect()
    taken.push(performance.now() - start)
    await new Promise(requestAnimationFrame)
  }
  handle.dispatchEvent(new PointerEvent('pointerup', at(89)))
  return taken
}
"""


def test_a_drag_on_the_start_picture(benchmark, page):
    """Asked for: at most 8 ms of script a frame, the exact result within 100 ms."""
    from browser_steps import recipe

    answers: list[float] = []
    page.on(
        "requestfinished",
        lambda r: "draft" in r.url and answers.append(r.timing["responseEnd"] - r.timing["requestStart"]),
    )
    recipe(page).click()
    page.locator(".picture [role=slider]").first.wait_for()
    taken = sorted(benchmark.pedantic(lambda: page.evaluate(DRAG), rounds=1))
    page.wait_for_timeout(400)
    exact = sorted(answers)
    benchmark.extra_info["p95_ms"] = round(taken[int(0.95 * len(taken))], 2)
    print(f"\ndrag: median {taken[len(taken) // 2]:.1f}, p95 {taken[int(0.95 * len(taken))]:.1f}, most {taken[-1]:.1f} ms a move; "
          f"exact result: median {exact[len(exact) // 2]:.0f}, p95 {exact[int(0.95 * len(exact))]:.0f} ms")  # fmt: skip


STEP = """
async () => {
  const taken = []
  for (let i = 0; i < 40; i++) {
    const start = performance.now()
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'n' }))
    await new Promise(requestAnimationFrame)
    const painted = new MessageChannel()
    await new Promise((done) => { painted.port1.onmessage = done; painted.port2.postMessage(0) })
    taken.push(performance.now() - start)
  }
  return taken
}
"""


def test_stepping_from_finding_to_finding(benchmark, page):
    """Asked for: under 100 ms. The seed tray without relief has a finding for each joint."""
    from browser_steps import go, open_job

    open_job(page, "Seed tray")
    page.evaluate(
        "document.querySelector('#app').__vue_app__.config.globalProperties.$pinia._s.get('job').put('relief', 'none')"
    )
    go(page, "Prove")
    page.get_by_role("region", name="Findings").wait_for()
    taken = sorted(benchmark.pedantic(lambda: page.evaluate(STEP), rounds=1))
    print(f"\nfindings: median {taken[len(taken) // 2]:.0f}, most {taken[-1]:.0f} ms a step")
