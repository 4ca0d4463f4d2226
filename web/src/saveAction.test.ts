import { describe, expect, it } from 'vitest'

import { saveAction, type Asked } from './saveAction'

const asked = (more: Partial<Asked> = {}) =>
  saveAction({
    format: 'DXF',
    files: 2,
    whom: 'Shed laser',
    planned: false,
    current: true,
    lacks: [],
    held: false,
    state: 'fits',
    fits: true,
    share: '',
    ...more,
  })

describe('the action that saves files', () => {
  it('is strong only where all of it was proved in just this state', () => {
    expect(asked()).toEqual({ words: 'Save 2 DXF files for Shed laser', strong: true })
    expect(asked({ lacks: ['scores'] })).toEqual({
      words: 'Save 2 DXF files for Shed laser, without scores',
      strong: false,
    })
    for (const weak of [{ current: false }, { held: true }, { planned: true }])
      expect(asked(weak).strong).toBe(false)
  })

  it('says what a file that was not proved, or does not fit, is marked with', () => {
    const words = (state: Asked['state']) => asked({ fits: false, files: 1, format: 'SVG', state }).words
    expect(words('does-not-fit')).toBe('Save the SVG, marked “does not fit”')
    expect(words('as-seen')).toBe('Save the SVG, marked “not all proved”')
    expect(words('failed')).toBe('Save the SVG, marked “not proved”')
  })

  it('waits for a proof that is under way', () => {
    expect(asked({ fits: false, state: 'running', share: ' 40 %' })).toEqual({
      words: 'Proving… 40 %',
      strong: true,
      waits: true,
    })
  })
})
