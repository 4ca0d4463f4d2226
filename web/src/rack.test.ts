import { describe, expect, it } from 'vitest'

import { cornersText, readCorners } from './rack'
import type { Style } from './units'

const MM: Style = { unit: 'mm', locale: 'en-GB', finest: 0 }

describe('corners of an off-cut', () => {
  it.each([
    ['0 0; 380 0; 380 90', [['0', '0'], ['380', '0'], ['380', '90']]],
    ['0 0 ;  15 in 0; 15,5 3 1/2 in', [['0', '0'], ['15 in', '0'], ['15,5 in', '3 1/2 in']]],
    ['380 × 90', [['0', '0'], ['380', '0'], ['380', '90'], ['0', '90']]],
    ['15 in x 3 1/2 in', [['0', '0'], ['15 in', '0'], ['15 in', '3 1/2 in'], ['0', '3 1/2 in']]],
    ['7', [['7', '']]],
    ['', []],
  ])('are read from “%s”', (text, corners) => {
    expect(readCorners(text)).toEqual(corners)
  }) // prettier-ignore

  it('go out as they come in', () => {
    const outline = [[0, 0], [380, 0], [380, 90.5]] as const // prettier-ignore
    expect(cornersText(outline, MM)).toBe('0 0; 380 0; 380 90.5')
    expect(readCorners(cornersText(outline, { ...MM, unit: 'in' }))[1]).toEqual(['14.9606', '0'])
  })
})
