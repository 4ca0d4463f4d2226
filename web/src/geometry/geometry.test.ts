import { describe, expect, it } from 'vitest'

import { inRows } from './rows'
import { stacked, stripFor, ticksOf } from './strip'
import { fit, LARGEST_SCALE, pan, scaleBar, toScreen, toWork, zoomAt, type Box } from './view'

describe('the view', () => {
  const view = fit([0, 0, 600, 400], 800, 600, 20, 40)

  it('shows the whole box, y up', () => {
    expect(toScreen(view, [0, 400])[1]).toBeGreaterThanOrEqual(20)
    expect(toScreen(view, [0, 0])[1]).toBeLessThanOrEqual(600 - 60)
    expect(toScreen(view, [600, 0])[0]).toBeCloseTo(780)
    expect(toScreen(view, [0, 400])[1]).toBeLessThan(toScreen(view, [0, 0])[1])
  })

  it('goes to the screen and back', () => {
    const [x, y] = toWork(view, toScreen(view, [123.4, 56.7]))
    expect(x).toBeCloseTo(123.4)
    expect(y).toBeCloseTo(56.7)
  })

  it('zooms about the pointer', () => {
    const before = toWork(view, [300, 200])
    const after = toWork(zoomAt(view, 7, 300, 200), [300, 200])
    expect(after[0]).toBeCloseTo(before[0])
    expect(after[1]).toBeCloseTo(before[1])
  })

  it('stops zooming before numbers run out', () => {
    let close = view
    for (let i = 0; i < 100; i++) close = zoomAt(close, 10, 0, 0)
    expect(close.scale).toBe(LARGEST_SCALE)
  })

  it('pans by pixels', () => {
    expect(toScreen(pan(view, 5, -3), [0, 0])[0]).toBeCloseTo(toScreen(view, [0, 0])[0] + 5)
  })

  it('fits a point without dividing by zero', () => {
    expect(Number.isFinite(fit([1, 1, 1, 1], 800, 600, 20).x)).toBe(true)
  })

  it.each([
    [1, 160, 100],
    [3.3, 160, 20],
    [1000, 160, 0.1],
  ])('has a scale bar of a round length at %d px a unit', (scale, longest, length) => {
    const bar = scaleBar(scale, longest)
    expect(bar.length).toBeCloseTo(length)
    expect(bar.px).toBeLessThanOrEqual(longest)
    expect(bar.px).toBeGreaterThan(longest / 2.5 - 1)
  })
})

describe('rows', () => {
  const boxes: Box[] = [
    [0, 0, 100, 40],
    [-5, 2, 95, 42],
    [0, 0, 60, 40],
    [0, 0, 100, 80],
  ]

  it('keep boxes apart by the gap', () => {
    const { places, box } = inRows(boxes, 10, 1.5)
    const placed = boxes.map(([l, b, r, t], i) => {
      const [x, y] = places[i]!
      return [l + x, b + y, r + x, t + y] as const
    })
    placed.forEach((a, i) =>
      placed.slice(0, i).forEach((b) => {
        const apart = Math.max(a[0] - b[2], b[0] - a[2], a[1] - b[3], b[1] - a[3])
        expect(apart).toBeGreaterThanOrEqual(10 - 1e-9)
      }),
    )
    expect(Math.min(...placed.map(([l]) => l))).toBeCloseTo(box[0])
    expect(Math.max(...placed.map(([, , , t]) => t))).toBeCloseTo(box[3])
    expect(Math.min(...placed.map(([, b]) => b))).toBeCloseTo(box[1])
  })

  it('follow the shape of the frame', () => {
    const wide = inRows(boxes, 10, 20).box
    const high = inRows(boxes, 10, 0.1).box
    expect(wide[2] - wide[0]).toBeGreaterThan(high[2] - high[0])
  })

  it('take nothing at all', () => {
    expect(inRows([], 10, 1.5).places).toEqual([])
  })
})

describe('a strip of readings', () => {
  it('spans the values, and 1 % of them at least', () => {
    const strip = stripFor([3.02, 3.1], 216)
    expect(strip.at(3.02)).toBeCloseTo(8)
    expect(strip.at(3.1)).toBeCloseTo(208)
    const even = stripFor([3, 3], 216)
    expect(even.high - even.low).toBeCloseTo(0.03)
    expect(even.at(3)).toBeCloseTo(108)
  })

  it.each([
    [3.02, 3.1, 1],
    [5.55, 6, 1],
    [3.02, 3.1, 25.4],
    [11.8, 11.95, 25.4],
  ])('has round ticks from %d to %d that do not crowd', (low, high, mmPerUnit) => {
    const strip = stripFor([low, high], 640)
    const ticks = ticksOf(strip, mmPerUnit, 44)
    expect(ticks.length).toBeGreaterThanOrEqual(2)
    const places = ticks.map((value) => strip.at(value * mmPerUnit))
    for (const [i, place] of places.slice(1).entries()) expect(place - places[i]!).toBeGreaterThanOrEqual(44)
    for (const place of places) expect(place).toBeGreaterThanOrEqual(7.99)
    for (const place of places) expect(place).toBeLessThanOrEqual(632.01)
  })

  it('stacks dots that would hide each other', () => {
    const strip = stripFor([3, 3.1], 216)
    expect(stacked([3.05, 3.05, 3.1, 3.051], strip, 7)).toEqual([0, 1, 0, 2])
  })
})
