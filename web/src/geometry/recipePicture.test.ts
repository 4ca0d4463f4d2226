import { describe, expect, it } from 'vitest'

import type { RecipeView } from '../api/client'
import { recipePicture } from './recipePicture'

const size = (
  side: string,
  start: [number, number],
  end: [number, number],
  more: Partial<RecipeView['sizes'][number]> = {},
) =>
  ({ side, start, end, row: 0, setting: 'width', says: '', value: 1, ...more }) as RecipeView['sizes'][number]

/** A case of so many columns and rows, 200 wide and 120 deep. */
function compartments(columns: number, across: number): RecipeView {
  const [w, d] = [200 / columns, 120 / across]
  return {
    title: 'From above',
    shapes: [{ kind: 'board', box: [0, 0, 200, 120], outline: [] }],
    handles: [],
    sizes: [
      ...Array.from({ length: columns }, (_, i) =>
        size('above', [i * w, 120], [i * w + w, 120], { setting: 'columns', typed: `${w}` }),
      ),
      ...Array.from({ length: across }, (_, i) =>
        size('left', [0, i * d], [0, i * d + d], { setting: 'rows', typed: `${d}` }),
      ),
      size('below', [0, 0], [200, 0], { says: 'inside' }),
      size('right', [200, 0], [200, 120]),
    ],
  } as unknown as RecipeView
}

describe('the picture of a recipe', () => {
  it('is as large as everything fits, and in the middle', () => {
    const { scale, places } = recipePicture([compartments(2, 1)], { width: 900, height: 700 })
    const [{ x, top, base }] = places as [(typeof places)[0]]
    expect(base - top).toBeCloseTo(120 * scale)
    expect(x + 200 * scale).toBeLessThan(900)
    expect(scale).toBeGreaterThan(2)
  })

  it.each([
    [1, 1, 900],
    [4, 2, 900],
    [8, 6, 900],
    [4, 2, 390],
    [5, 4, 390],
  ])('%i × %i in %i px: no number on another, all inside', (columns, across, width) => {
    const { sizes, additions } = recipePicture([compartments(columns, across)], { width, height: 640 })
    const boxes = sizes.map(({ at: [x, y], size: { side } }) =>
      side === 'left' || side === 'right'
        ? [x - 30, y - 13, x + 30, y + 13]
        : [x - 40, y - 13, x + 40, y + 13],
    )
    boxes.push(...additions.map(({ at: [x, y] }) => [x - 13, y - 13, x + 13, y + 13]))
    for (const [i, a] of boxes.entries()) {
      expect(Math.min(a[0]!, a[1]!)).toBeGreaterThanOrEqual(0)
      expect(a[2]!).toBeLessThanOrEqual(width)
      for (const b of boxes.slice(0, i))
        expect(
          Math.min(a[2]!, b[2]!) - Math.max(a[0]!, b[0]!) <= 0.5 ||
            Math.min(a[3]!, b[3]!) - Math.max(a[1]!, b[1]!) <= 0.5,
        ).toBe(true)
    }
  })

  it('keeps its scale while something is dragged', () => {
    expect(recipePicture([compartments(2, 1)], { width: 900, height: 700 }, 1.5).scale).toBe(1.5)
  })

  it('leaves out, in a narrow window, what only follows', () => {
    const view = compartments(2, 1)
    view.sizes.push(size('right', [200, 0], [200, 120], { setting: '', row: 1 }))
    expect(recipePicture([view], { width: 900, height: 700 }).sizes).toHaveLength(6)
    expect(recipePicture([view], { width: 390, height: 700 }).sizes).toHaveLength(5)
  })
})
