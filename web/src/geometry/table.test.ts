import { describe, expect, it } from 'vitest'

import { moved, snapped } from './following'
import { magnification } from './magnified'
import { sketch, type Slab } from './standing'
import { marks, onEdges } from './table'
import type { Box } from './view'

const thing = (name: string, wide: number, high: number, least = 200) => ({
  name,
  box: [0, 0, wide, high] as Box,
  least,
})

describe('the table', () => {
  const names = (edges: ReturnType<typeof onEdges<ReturnType<typeof thing>>>) =>
    edges.map(({ items }) => items.map(({ item }) => item.name))

  it('stands small things on the first edges and long ones below, each edge at its scale', () => {
    const edges = onEdges([thing('a', 150, 90), thing('staff', 1500, 60), thing('b', 80, 40)], 1200, 0.68)
    expect(names(edges)).toEqual([['a', 'b'], ['staff']])
    expect(edges[0]!.scale).toBe(0.68)
    expect(edges[1]!.scale).toBeLessThan(0.68)
    expect(1500 * edges[1]!.scale).toBeLessThanOrEqual(330)
    expect(edges[0]!.height).toBeCloseTo(90 * 0.68)
  })

  it('puts the edge of the first thing in front, whatever its size', () => {
    expect(names(onEdges([thing('staff', 1500, 60), thing('a', 150, 90)], 1200, 0.68))).toEqual([
      ['staff'],
      ['a'],
    ])
  })

  it('breaks an edge before it is too long, and never overlaps', () => {
    const many = Array.from({ length: 200 }, (_, i) => thing(`job ${i}`, 100 + (i % 150), 60))
    const edges = onEdges(many, 1000, 0.68)
    expect(edges.flatMap(({ items }) => items)).toHaveLength(200)
    for (const { items } of edges) {
      items.slice(1).forEach((one, i) => expect(one.x).toBeGreaterThanOrEqual(items[i]!.x + items[i]!.width))
      expect(items.at(-1)!.x + items.at(-1)!.width).toBeLessThanOrEqual(1000)
    }
  })

  it('has room for one thing on a phone, however wide it is', () => {
    const [edge] = onEdges([thing('a', 290, 90, 500)], 340, 0.68)
    expect(edge!.items[0]!.width).toBe(340)
    expect(onEdges([], 340, 0.68)).toEqual([])
  })

  it.each([
    [0.68, 100],
    [0.2, 500],
    [17, 5],
    [0.01, 10000],
  ])('is a rule whose long marks are round at %s px a unit', (px, step) => {
    const { long, short } = marks(px, 1200)
    expect(Number(long[1]!.label)).toBe(step)
    expect(long[1]!.x).toBeCloseTo(step * px)
    expect(short * 10).toBeCloseTo(long[1]!.x)
    expect(long.at(-1)!.x).toBeLessThanOrEqual(1200)
  })
})

describe('a drawing that follows', () => {
  it('moves every number by its slope and leaves the rest', () => {
    const now = { kind: 'board', box: [0, 0, 156.12, 100], sizes: [{ value: 150, says: 'inside' }] }
    const slope = { kind: 'board', box: [0, 0, 1, 0], sizes: [{ value: 1, says: 'inside' }] }
    expect(moved(now, slope, 2.5)).toEqual({
      kind: 'board',
      box: [0, 0, 158.62, 100],
      sizes: [{ value: 152.5, says: 'inside' }],
    })
  })

  it('snaps to the grid', () => {
    expect(snapped(152.4, 1)).toBe(152)
    expect(snapped(152.44, 0.1)).toBeCloseTo(152.4)
  })
})

describe('deviations', () => {
  it.each([
    [0.02, 200],
    [0.1, 100],
    [1, 10],
    [40, 1],
  ])('of %s mm are drawn %s times as large', (most, times) => expect(magnification(most)).toBe(times))
})

describe('boards as they stand', () => {
  const board = (origin: Slab['origin'], u: Slab['u'], v: Slab['v'], n: Slab['n'], w: number, h: number): Slab => ({
    origin, u, v, n, thickness: 3, outline: [[0, 0], [w, 0], [w, h], [0, h]],
  }) // prettier-ignore
  /** A box with a wall in its middle: the wall is behind the front and before the back, wherever its middle is. */
  const front = board([0, 0, 0], [1, 0, 0], [0, 0, 1], [0, -1, 0], 100, 50)
  const back = board([100, 80, 0], [-1, 0, 0], [0, 0, 1], [0, 1, 0], 100, 50)
  const wall = board([3, 60, 0], [1, 0, 0], [0, 0, 1], [0, -1, 0], 94, 20)
  const base = board([0, 0, 3], [1, 0, 0], [0, 1, 0], [0, 0, 1], 100, 80)

  it('are painted so that what is behind never covers what is before it', () => {
    for (const order of [
      [front, back, wall, base],
      [base, wall, front, back],
      [wall, base, back, front],
    ]) {
      const drawn = sketch(order).drawn.map(({ face }) => face)
      const at = (slab: Slab) => drawn.indexOf(sketch([slab]).drawn[0]!.face)
      expect(at(back)).toBeLessThan(at(wall))
      expect(at(wall)).toBeLessThan(at(front))
      expect(at(base)).toBeLessThan(at(front))
    }
  })

  it('are as wide and high on the picture as their projection says', () => {
    const { box } = sketch([front])
    // Turned by 35 degrees and seen from 28 degrees above.
    expect(box[2] - box[0]).toBeCloseTo(
      100 * Math.cos((35 * Math.PI) / 180) + 3 * Math.sin((35 * Math.PI) / 180),
      1,
    )
    expect(sketch([]).box).toEqual([0, 0, 0, 0])
  })

  it('stay quick with many', () => {
    const many = Array.from({ length: 400 }, (_, i) =>
      board([0, i * 5, 0], [1, 0, 0], [0, 0, 1], [0, -1, 0], 50, 50),
    )
    expect(sketch(many).drawn).toHaveLength(400)
  })
})
