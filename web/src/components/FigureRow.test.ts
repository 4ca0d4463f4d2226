import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { Problem, type Figure } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import FigureRow from './FigureRow.vue'

const row = (over: Partial<Figure> = {}): Figure => ({
  key: 'width',
  title: 'width',
  value: 150,
  source: 'chosen',
  because: '',
  kind: 'length',
  word: '',
  field: 'width',
  typed: '150',
  unit: 'mm',
  ...over,
})

describe('a row of the ledger', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  const view = (over: Partial<Figure> = {}) =>
    mount(FigureRow, { props: { row: row(over), subject: 'job' }, attachTo: document.body })

  it('shows the figure in the maker’s unit, with its source said', async () => {
    const shown = view({
      source: 'computed',
      field: '',
      because: 'width 150 mm + 2 × thickness 3.06 mm',
      value: 156.12,
    })
    expect(shown.text()).toContain('156.12 mm')
    expect(shown.text()).toContain('computed')
    expect(shown.text()).toContain('width 150 + 2 × thickness 3.06')
    useSettings().unit = 'in'
    await shown.vm.$nextTick()
    expect(shown.text()).toContain('6.1465 in')
  })

  it.each([
    [{ kind: 'count', value: 7 }, '7'],
    [{ kind: 'share', value: 0.204 }, '20 %'],
    [{ kind: 'area', value: 12345 }, '123.5 cm²'],
    [{ kind: 'word', value: null, word: 'Front' }, 'Front'],
  ] as [Partial<Figure>, string][])('shows %o as %s', (over, text) => {
    expect(
      view({ ...over, field: '', source: 'computed' })
        .find('.value')
        .text(),
    ).toBe(text)
  })

  it('opens a chosen figure for editing as it was typed', async () => {
    const shown = view({ typed: 'depth + 50' })
    await shown.find('button').trigger('click')
    expect(shown.find('input').element.value).toBe('depth + 50')
    expect(document.activeElement).toBe(shown.find('input').element)
  })

  it('sends the edit and closes when it went well', async () => {
    const edit = vi.spyOn(useJob(), 'put').mockResolvedValue(true)
    const shown = view()
    await shown.find('button').trigger('click')
    await shown.find('input').setValue('160')
    await shown.find('input').trigger('keydown.enter')
    await flushPromises()
    expect(edit).toHaveBeenCalledWith('width', '160')
    expect(shown.find('input').exists()).toBe(false)
    expect(document.activeElement).toBe(shown.find('button').element)
  })

  it('stays open with its problem when the edit was refused', async () => {
    const job = useJob()
    vi.spyOn(job, 'put').mockImplementation(async () => {
      job.problem = new Problem('out-of-range', 'Too wide.', 'Make it less.', 'width', 422)
      return false
    })
    const shown = view()
    await shown.find('button').trigger('click')
    await shown.find('input').setValue('1e9')
    await shown.find('input').trigger('keydown.enter')
    await flushPromises()
    expect(shown.find('input').element.value).toBe('1e9')
    expect(shown.text()).toContain('Make it less.')
    await shown.find('input').trigger('keydown.esc')
    await flushPromises()
    expect(shown.find('input').exists()).toBe(false)
    expect(job.problem).toBeNull()
  })

  it('says what the figure was before the last edit', () => {
    was({ value: 140 })
    expect(view().text()).toContain('Was 140.00')
    was({ value: null, kind: 'word', word: 'press' })
    expect(view({ value: null, kind: 'word', word: 'snug' }).text()).toContain('Was press')
  })

  it('says nothing of a change that does not show', () => {
    was({ value: 150.0002 })
    expect(view().text()).not.toContain('Was')
    expect(view().classes()).not.toContain('changed')
  })

  function was(before: Partial<Figure>): void {
    useJob().changed = { figures: new Map([['job/width', row(before)]]), parts: new Set() }
  }

  it('offers no edit for what is computed or measured', () => {
    expect(view({ field: '', source: 'measured' }).find('button').exists()).toBe(false)
  })
})
