import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import type { PieceRead, Truth } from '../api/client'
import { useSettings } from '../stores/settings'
import PieceResult from './PieceResult.vue'

const KERF = {
  kerf: 0.14,
  within: 0.0009,
  because: '(100 mm - row 98.6 mm) / 10 slats',
  notes: [],
} as unknown as PieceRead
const COMB = {
  kerf: null, within: 0.02, because: 'half a step of the comb', notes: ['No pair slides.'],
  fits: { press: -0.04, snug: 0.04, slide: 0.1, free: 0.2, limits: [] },
} as unknown as PieceRead // prettier-ignore
const FEELS = ['will not go', 'needs a mallet', 'holds', 'slides', 'falls apart']

describe('what a test piece told', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  function result(read: PieceRead, practice: number | null = null, truth: Truth | null = null, lastSet = '') {
    return mount(PieceResult, { props: { read, feels: FEELS, practice, truth, lastSet, note: '' } })
  }

  it('is a kerf with how sure it is, in the maker’s unit', () => {
    expect(result(KERF).text()).toContain('0.1400 mm')
    expect(result(KERF).text()).toContain('± 0.001 mm (95 %)')
    useSettings().unit = 'in'
    expect(result(KERF).text()).toContain('± 0.0001 in')
    expect(result(KERF).text()).toContain('row 3.8819 in')
  })

  it('is the clearance of each fit, with what the comb did not show', () => {
    const text = result(COMB).text()
    for (const part of ['press', '−0.040', 'snug', '+0.040', '± 0.020', 'No pair slides.'])
      expect(text).toContain(part)
  })

  it('can be kept with a note, which may be what the machine was last set to', async () => {
    const view = result(KERF, null, null, '62 % · 12 mm/s')
    await view.find('.is-link').trigger('click')
    expect(view.emitted('update:note')).toEqual([['62 % · 12 mm/s']])
    await view.find('.el-button--primary').trigger('click')
    expect(view.emitted('keep')).toHaveLength(1)
  })

  it('from a practice machine is never kept, but held against what that hides', async () => {
    const view = result(KERF, 7)
    expect(view.find('.el-button--primary').exists()).toBe(false)
    expect(view.text()).toContain('not for the notebook')
    await view.find('.el-button:not(.is-link)').trigger('click')
    expect(view.emitted('reveal')).toHaveLength(1)
    expect(result(KERF, 7, { kerf: 0.1405, limits: [] }).text()).toContain('within the uncertainty')
    expect(result(KERF, 7, { kerf: 0.15, limits: [] }).text()).toContain('outside the uncertainty')
    expect(result(COMB, 7, { kerf: 0.15, limits: [-0.08, 0, 0.1, 0.22] }).text()).toContain('+0.220')
  })
})
