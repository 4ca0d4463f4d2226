import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'

import TextField from '../kit/TextField.vue'
import MachineRules from './MachineRules.vue'

const NEVER = { never: true, reason: 'it smells of chlorine' }
const shown = (own: object = {}) =>
  mount(MachineRules, {
    props: { own: { laser: null, router: null, ...own }, usual: { laser: null, router: null }, problemAt: () => null }, // prettier-ignore
    global: { stubs: { ChoiceField: true, TextField: true } },
  })
const choose = (view: ReturnType<typeof shown>, word: string) =>
  view.findAllComponents({ name: 'ChoiceField' })[0]!.vm.$emit('update:modelValue', word)

describe('where a board may be cut', () => {
  it('is not kept before its reason is said', async () => {
    const view = shown()
    choose(view, 'never')
    await view.vm.$nextTick()
    expect(view.emitted('change')).toBeUndefined()
    view.findComponent(TextField).vm.$emit('commit', NEVER.reason)
    expect(view.emitted('change')).toEqual([[{ laser: NEVER, router: null }]])
  })

  it('is not overruled by the reason of the rule itself', async () => {
    const view = shown({ laser: NEVER })
    expect(view.findComponent(TextField).props('text')).toBe(NEVER.reason)
    choose(view, 'may')
    await view.vm.$nextTick()
    expect(view.emitted('change')).toBeUndefined()
    expect(view.findComponent(TextField).props('text')).toBe('')
    view.findComponent(TextField).vm.$emit('commit', 'the data sheet says PETG')
    expect(view.emitted('change')).toEqual([
      [{ laser: { never: false, reason: 'the data sheet says PETG' }, router: null }],
    ])
  })

  it('is as usual again without a reason', () => {
    const view = shown({ laser: NEVER })
    choose(view, 'usual')
    expect(view.emitted('change')).toEqual([[{ laser: null, router: null }]])
  })
})
