import { expect, it } from 'vitest'

import { between, type Thing } from './measured'

const point = (x: number, y: number): Thing => ({
  kind: 'point',
  of: { name: 'p', says: 'p', step: 's', at: [x, y] },
})
const line = (x0: number, y0: number, x1: number, y1: number): Thing => ({
  kind: 'line',
  of: { name: 'l', says: 'l', step: 's', ends: [x0, y0, x1, y1] },
})

it('from corner to corner is Pythagoras', () => {
  expect(between(point(1, 1), point(4, 5))).toMatchObject({ distance: 5, dx: 3, dy: 4 })
})

it('from a point to an edge is square to it, also beyond its end', () => {
  expect(between(point(3, 7), line(0, 0, 10, 0))!.distance).toBeCloseTo(7)
  expect(between(line(0, 0, 1, 1), point(2, 0))!.distance).toBeCloseTo(Math.SQRT2)
})

it('between parallel edges is one number, between others none', () => {
  expect(between(line(0, 0, 10, 0), line(5, 4, 2, 4))!.distance).toBeCloseTo(4)
  expect(between(line(0, 0, 10, 0), line(0, 0, 10, 1))).toBeNull()
})
