import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import type { CloseUp } from '../api/client'
import CornerInset from './CornerInset.vue'

beforeEach(() => setActivePinia(createPinia()))

const corner: CloseUp = {
  what: 'inner corner', part: 'front', copy: 1, sheet: 1, place: [10, 20], reach: 0.3, across: [10.15, 20], outward: [0, -1],
  beam: 0.14, nominal: [[[9.7, 20], [10, 20], [10, 20.3]]], finished: [[[9.7, 20], [10, 20], [9.7, 20.3]]],
  paths: [[[9.7, 19.93], [10.07, 19.93]]], finding: -1,
  measured: [
    { of: 'finished', off: 0, at: [10.15, 20] },
    { of: 'path', off: 0.07, at: [10.15, 19.93] },
    { of: 'corner', off: 0.029, at: [10, 20] },
  ],
} // prettier-ignore

describe('the corner', () => {
  it('says the number of every line that was measured, and of nominal', () => {
    const inset = mount(CornerInset, { props: { tool: 'beam', of: corner } })
    const text = inset.text()
    for (const words of [
      'finished edge',
      '+0.070',
      'left in the corner',
      '0.029',
      'nominal edge',
      '0.000',
      'beam 0.14 mm wide',
    ])
      expect(text).toContain(words)
    expect(inset.attributes('aria-label')).toContain('Inner corner of front')
  })

  it('is drawn to scale: the beam as wide as it is', () => {
    const inset = mount(CornerInset, { props: { tool: 'beam', of: corner } })
    const scale = Number(inset.get('[data-scale]').attributes('data-scale'))
    expect(scale).toBeCloseTo(184 / 0.6)
    expect(inset.get('path.beam').attributes('style')).toContain(`${0.14 * scale}px`)
  })

  it('shows an edge where there is no corner, with what was measured of it', () => {
    const edge = { ...corner, what: 'edge' as const, measured: corner.measured.slice(0, 2) }
    const inset = mount(CornerInset, { props: { tool: 'beam', of: edge } })
    expect(inset.text()).toContain('Edge of front')
    expect(inset.text()).not.toContain('left in the corner')
  })
})
