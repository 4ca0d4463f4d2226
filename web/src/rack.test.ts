import { describe, expect, it } from 'vitest'

import type { CutSetting } from './api/client'
import { cornersText, readCorners, settingText } from './rack'

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
    expect(cornersText(outline, 'mm')).toBe('0 0; 380 0; 380 90.5')
    expect(readCorners(cornersText(outline, 'in'))[1]).toEqual(['14.9606', '0'])
  })
})

describe('what a machine was set to', () => {
  const NONE = {
    power: null,
    speed: null,
    spindle: null,
    feed: null,
    depth: null,
    ramp: null,
    passes: 1,
    tool: '',
  }

  it('is said in one line, with what was written down', () => {
    expect(settingText({ ...NONE, power: 62, speed: 12 } as CutSetting, 'mm')).toBe('62 % · 12 mm/s')
    const routed = { ...NONE, spindle: 18000, feed: 1800, depth: 6.35, passes: 2, ramp: 10, tool: 'quarter' }
    expect(settingText(routed as CutSetting, 'in')).toBe(
      '18000 turns/min · 1800 mm/min · 0.2500 in deep · 2 passes · ramp 10° · quarter',
    )
  })
})
