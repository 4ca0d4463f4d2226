import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import { useSettings } from '../stores/settings'
import ThicknessTape from './ThicknessTape.vue'

beforeEach(() => setActivePinia(createPinia()))

const shown = (mm: number) => mount(ThicknessTape, { props: { label: 'Reading', modelValue: mm } })

describe('the tape', () => {
  it('moves by what a caliper shows', async () => {
    for (const [key, mm] of [
      ['ArrowRight', 3.06],
      ['ArrowDown', 3.04],
      ['PageDown', 2.95],
    ] as const) {
      const tape = shown(3.05)
      await tape.trigger('keydown', { key })
      expect(tape.emitted('update:modelValue')).toEqual([[mm]])
    }
  })

  it('keeps inches their own step', async () => {
    useSettings().unit = 'in'
    const tape = shown(25.4)
    await tape.trigger('keydown', { key: 'ArrowUp' })
    expect((tape.emitted('update:modelValue')![0] as [number])[0]).toBeCloseTo(25.4 * 1.0005, 4)
    useSettings().unit = 'mm'
  })

  it('never goes to nothing', async () => {
    const tape = shown(0.02)
    await tape.trigger('keydown', { key: 'PageDown' })
    expect(tape.emitted('update:modelValue')).toEqual([[0.01]])
  })
})
