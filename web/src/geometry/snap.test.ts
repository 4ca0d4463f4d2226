import { describe, expect, it } from 'vitest'

import { level, snapped } from './snap'

const none = [] as const

describe('what is dragged', () => {
  it('lies on the grid where nothing else is near', () => {
    expect(snapped(12.3, 20.3, none, none, 1, 0.8).by).toBeCloseTo(-0.3)
  })
  it('lies on the nearest target with either edge or its middle, and says so', () => {
    const targets = [
      { at: 30, says: 'the right edge' },
      { at: 16.5, says: 'the centre of hole 1' },
    ]
    const found = snapped(12.3, 20.3, targets, none, 1, 0.8)
    expect([found.by, found.says, found.line]).toEqual([expect.closeTo(0.2), 'the centre of hole 1', 16.5])
    expect(snapped(21.7, 29.7, targets, none, 1, 0.8).by).toBeCloseTo(0.3)
  })
  it('lies between its neighbours with equal gaps', () => {
    const found = snapped(
      44.6,
      54.6,
      none,
      [
        [0, 10],
        [90, 100],
      ],
      1,
      0.8,
    )
    expect(found.by).toBeCloseTo(0.4)
    expect(found.gap?.width).toBeCloseTo(35)
  })
  it('has no equal gaps where it does not fit between', () => {
    const others = [
      [0, 10],
      [15, 20],
    ] as const
    expect(snapped(8.2, 18.2, none, others, 1, 0.5).gap).toBeNull()
  })
})

it('only what lies level counts as a neighbour', () => {
  const mine = [0, 0, 10, 10] as const
  const [beside, above] = [[20, 5, 30, 15] as const, [20, 11, 30, 15] as const]
  expect(level([beside, above], mine, 0)).toEqual([[20, 30]])
})
