import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { api, Problem, type Choices } from '../api/client'
import TextField from '../kit/TextField.vue'
import { useChoices } from '../stores/choices'
import KindLimits from './KindLimits.vue'

const NONE = { web: null, hole: null, text: null, density: null }
const COMMON = { web: 3, hole: 1, text: 2, density: 300 }
const choices = (own: Partial<typeof COMMON>) =>
  ({ stock_kinds: ['plywood', 'cloth'], limits: { cloth: { common: COMMON, own: { ...NONE, ...own }, used: { ...COMMON, ...own } } } }) as unknown as Choices // prettier-ignore

function shown(own: Partial<typeof COMMON> = { web: 4.5 }) {
  useChoices().choices = choices(own)
  return mount(KindLimits, { props: { kind: 'cloth' } })
}
const field = (view: ReturnType<typeof shown>, name: string) =>
  view.findAllComponents(TextField).find((one) => one.props('field') === `kind.${name}`)!

describe('what is usual for a kind of stock', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
    vi.restoreAllMocks()
  })

  it('is the workshop’s own, and common practice in grey where it has none', () => {
    const view = shown()
    expect(field(view, 'web').props()).toMatchObject({ text: '4.5', placeholder: '3', unit: 'mm' })
    expect(field(view, 'density').props()).toMatchObject({ text: '', placeholder: '300', unit: '' })
  })

  it('is changed one at a time, and taken back', async () => {
    const change = vi.spyOn(api, 'changeKindLimits').mockResolvedValue(undefined)
    const view = shown()
    vi.spyOn(api, 'choices').mockResolvedValue(choices({ web: 5 }))
    field(view, 'web').vm.$emit('commit', '5')
    await flushPromises()
    expect(change).toHaveBeenLastCalledWith('cloth', { web: '5', unit: 'mm' })
    expect(field(view, 'web').props('text')).toBe('5')
    await view.findAll('button').find((button) => button.text() === 'Undo')!.trigger('click') // prettier-ignore
    await flushPromises()
    expect(change).toHaveBeenLastCalledWith('cloth', { web: '4.5 mm', unit: 'mm' })
    field(view, 'hole').vm.$emit('commit', ' ')
    await flushPromises()
    expect(change).toHaveBeenLastCalledWith('cloth', { hole: null, unit: 'mm' })
  })

  it('is refused at its field', async () => {
    const view = shown()
    const refused = new Problem('out-of-range', 'Too wide.', 'Give 0 to 100.', 'stock.limits.web', 422)
    vi.spyOn(api, 'changeKindLimits').mockRejectedValue(refused)
    field(view, 'web').vm.$emit('commit', '5000')
    await flushPromises()
    expect(field(view, 'web').props('problem')?.why).toBe('Too wide.')
    expect(field(view, 'hole').props('problem')).toBeNull()
  })
})
