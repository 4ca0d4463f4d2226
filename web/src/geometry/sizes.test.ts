import { describe, expect, it } from 'vitest'

import { sizeLines } from './sizes'
import type { Point } from './view'

const at = ([x, y]: Point): Point => [x * 2, -y * 2]
const size = (side: 'below' | 'right' | 'along', start: [number, number], end: [number, number]) => ({
  path: 'x', says: '', text: '1', unit: 'mm' as const, value: 1, side, start, end,
}) // prettier-ignore

describe('lines of sizes', () => {
  it('stay where they are while nothing else stands there', () => {
    const [one] = sizeLines([size('below', [0, 0], [100, 0])], [0, 0], at)
    expect(one).toMatchObject({ from: [0, 24], to: [200, 24], middle: [100, 24] })
    const [along] = sizeLines([size('along', [0, 10], [50, 10])], [5, 0], at)
    expect(along).toMatchObject({ from: [10, -20], to: [110, -20], middle: [60, -36], feet: '' })
  })

  it('are never nearer than their numbers', () => {
    const crowd = [0, 1, 2, 3].flatMap((i) => [
      size('along', [0, i], [20, i]),
      size('along', [i, 0], [i, 20]),
      size('below', [i, 0], [20, 0]),
      size('right', [20, i], [20, 20]),
    ])
    const found = sizeLines(crowd, [0, 0], at).map(({ middle }) => middle)
    for (const [i, [x, y]] of found.entries())
      for (const [a, b] of found.slice(0, i))
        expect(Math.abs(x - a) >= 92 || Math.abs(y - b) >= 30).toBe(true)
  })
})
