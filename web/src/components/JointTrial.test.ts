import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'

import { api, Problem, type Design, type Mate, type PairRead } from '../api/client'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'
import JointTrial from './JointTrial.vue'

vi.mock('vue-router', () => ({ useRouter: () => ({ push: vi.fn() }) }))

const MATE = {
  id: 'lap', fit_field: 'basis/main/clearance', trial: [-0.03, 0, 0.03, 0.06], contacts: [{ by_thickness: true, clearance: 0.03 }],
} as unknown as Mate // prettier-ignore
const READ: PairRead = {
  fits: { press: -0.02, snug: 0.015, slide: 0.045, free: 0.1, limits: [] }, within: 0.015, notes: ['No slot falls apart.'],
} // prettier-ignore

function shown() {
  useJob().design = { id: 3, boards: [], parts: [] } as unknown as Design
  useChoices().choices = { feels: ['needs a mallet', 'holds', 'slides'] } as never
  const stubs = {
    ElButton: { template: '<button><slot /></button>' },
    ChoiceWord: { name: 'ChoiceWord', template: '<i />' },
  }
  return mount(JointTrial, { props: { mate: MATE }, global: { stubs } })
}
async function answer(view: ReturnType<typeof shown>, feels: string[]): Promise<void> {
  for (const [slot, feel] of feels.entries()) {
    view.findAllComponents({ name: 'ChoiceWord' })[slot]!.vm.$emit('update:modelValue', feel)
    await nextTick()
  }
  await flushPromises()
}

describe('the slots of a trial pair', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
    vi.restoreAllMocks()
  })

  it('are a row each, the one as the joint is now marked', () => {
    const rows = shown().findAll('li')
    expect(rows.map((row) => row.find('.second').text())).toEqual(['−0.030', '0.000', '+0.030', '+0.060'])
    expect(rows.map((row) => row.classes('now'))).toEqual([false, false, true, false])
  })

  it('tell nothing until three were tried, then a clearance for each fit, which is kept as the boards’ own', async () => {
    const read = vi.spyOn(api, 'readTrialPair').mockResolvedValue(READ)
    const put = vi.spyOn(useJob(), 'put').mockResolvedValue(true)
    const view = shown()
    await answer(view, ['needs a mallet', 'holds'])
    expect(read).not.toHaveBeenCalled()
    await answer(view, ['needs a mallet', 'holds', 'slides'])
    expect(read).toHaveBeenLastCalledWith(3, 'lap', ['needs a mallet', 'holds', 'slides', ''])
    expect(view.text()).toContain('No slot falls apart.')
    const snug = view.findAll('button').find((button) => button.text().startsWith('snug'))!
    await snug.trigger('click')
    expect(put).toHaveBeenCalledWith('basis/main/clearance', '0.015 mm')
  })

  it('drop what comes after the job was closed', async () => {
    let come: (found: PairRead) => void = () => {}
    vi.spyOn(api, 'readTrialPair').mockReturnValue(new Promise((resolve) => (come = resolve)))
    const view = shown()
    await answer(view, ['needs a mallet', 'holds', 'slides'])
    view.unmount()
    useJob().design = null
    come(READ)
    await flushPromises() // an error would fail the run
  })

  it('keep what was answered, and name the one that contradicts another', async () => {
    const problem = new Problem('readings-disagree', 'Slot 3 holds.', 'Try both again.', 'answers[2]', 422)
    vi.spyOn(api, 'readTrialPair').mockRejectedValue(problem)
    await answer(shown(), ['holds', 'slides', 'holds'])
    const again = shown()
    await flushPromises()
    expect(again.findAll('li').map((row) => row.classes('wrong'))).toEqual([false, false, true, false])
    expect(again.text()).toContain('Try both again.')
  })
})
