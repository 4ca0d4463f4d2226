import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { Problem, type Design } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import ReadingsEditor from './ReadingsEditor.vue'

function withReadings(...readings: number[]) {
  const job = useJob()
  job.design = {
    id: 1, moves: 1, boards: [{ id: 'main', basis: { stock: { readings } } }],
  } as unknown as Design // prettier-ignore
  return vi.spyOn(job, 'putBasis').mockResolvedValue(true)
}

const inputs = (view: ReturnType<typeof mount>) => view.findAll('input').map((input) => input.element.value)

describe('caliper readings', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  it('are listed, with an empty one to go on', () => {
    withReadings(3.02, 3.1)
    expect(inputs(mount(ReadingsEditor))).toEqual(['3.02', '3.1', ''])
  })

  it('go on with Enter, and send what was measured exactly as it was', async () => {
    const edit = withReadings(3.0199, 3.1)
    useSettings().unit = 'in'
    const view = mount(ReadingsEditor, { attachTo: document.body })
    const last = view.findAll('input')[2]!
    await last.setValue('0.121')
    await last.trigger('keydown.enter')
    await flushPromises()
    expect(edit).toHaveBeenCalledWith('readings', ['3.0199 mm', '3.1 mm', '0.121'])
    expect(document.activeElement).toBe(view.findAll('input')[3]!.element)
  })

  it('are not sent when nothing was changed', async () => {
    const edit = withReadings(3.02)
    const view = mount(ReadingsEditor)
    await view.find('input').trigger('blur')
    expect(edit).not.toHaveBeenCalled()
  })

  it('can be removed', async () => {
    const edit = withReadings(3.02, 3.3, 3.1)
    const view = mount(ReadingsEditor)
    await view.find('[aria-label="Remove reading 2"]').trigger('click')
    expect(edit).toHaveBeenCalledWith('readings', ['3.02 mm', '3.1 mm'])
  })

  it('point at the one that is wrong, and keep it', async () => {
    withReadings(3.02, 3.1)
    const view = mount(ReadingsEditor)
    await view.findAll('input')[1]!.setValue('31')
    useJob().problem = new Problem(
      'readings-disagree',
      'Far apart.',
      'Look again.',
      'basis/main/readings/1',
      422,
    )
    await view.vm.$nextTick()
    expect(view.findAll('input').map((input) => input.attributes('aria-invalid'))).toEqual([
      undefined,
      'true',
      undefined,
    ])
    expect(inputs(view)).toEqual(['3.02', '31', ''])
    expect(view.text()).toContain('Look again.')
  })

  it('follow the design when it changes elsewhere, by undo for instance', async () => {
    withReadings(3.02)
    const view = mount(ReadingsEditor)
    withReadings(3.05, 3.06)
    await flushPromises()
    expect(inputs(view)).toEqual(['3.05', '3.06', ''])
  })
})
