import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { api, Problem, type Readings } from '../api/client'
import MeasureAnew from './MeasureAnew.vue'

const readings = (...values: number[]) =>
  ({ values, mean: values[0], thin: 0, thick: 0, outliers: [], warnings: [] }) as unknown as Readings

describe('a board measured anew', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
    vi.restoreAllMocks()
  })

  async function type(view: ReturnType<typeof mount>, index: number, text: string): Promise<void> {
    const field = view.findAll('input')[index]!
    await field.setValue(text)
    await field.trigger('keydown.enter')
  }

  it('is looked at as readings come, and kept as they were understood', async () => {
    vi.spyOn(api, 'lookAtReadings').mockResolvedValue(readings(3.05, 3.06))
    const keep = vi.fn().mockResolvedValue(undefined)
    const view = mount(MeasureAnew, { props: { keep } })
    expect(view.find('.el-button--primary').attributes('disabled')).toBeDefined()
    await type(view, 0, '3.05; 3.06')
    await flushPromises()
    expect(api.lookAtReadings).toHaveBeenCalledWith(['3.05', '3.06'], 'mm')
    expect(view.emitted('look')!.at(-1)).toEqual([readings(3.05, 3.06)])
    await view.find('.el-button--primary').trigger('click')
    await flushPromises()
    expect(keep).toHaveBeenCalledWith(['3.05 mm', '3.06 mm'])
    expect(view.emitted('close')).toHaveLength(1)
  })

  it('is not kept before its last reading was looked at', async () => {
    let answer!: (found: Readings) => void
    const look = vi.spyOn(api, 'lookAtReadings').mockResolvedValue(readings(3.05))
    const keep = vi.fn().mockResolvedValue(undefined)
    const view = mount(MeasureAnew, { props: { keep } })
    await type(view, 0, '3.05')
    await flushPromises()
    look.mockReturnValueOnce(new Promise((done) => (answer = done)))
    await type(view, 1, '3.31')
    await view.find('.el-button--primary').trigger('click')
    await flushPromises()
    expect(keep).not.toHaveBeenCalled()
    answer(readings(3.05, 3.31))
    await flushPromises()
    expect(keep).toHaveBeenCalledWith(['3.05 mm', '3.31 mm'])
  })

  it('says what is wrong at its reading, offers what was meant, and cannot be kept until then', async () => {
    const slip = new Problem('readings-disagree', 'Far off.', 'Is it?', 'readings[1]', 422, '3.06 mm')
    const look = vi.spyOn(api, 'lookAtReadings').mockRejectedValueOnce(slip)
    const view = mount(MeasureAnew, { props: { keep: vi.fn() } })
    await type(view, 0, '3.05 30.6')
    await flushPromises()
    expect(view.find('.el-button--primary').attributes('disabled')).toBeDefined()
    expect(view.findAll('input').map(({ element }) => element.value)).toEqual(['3.05', '30.6', ''])
    expect(view.findAll('input')[1]!.attributes('aria-invalid')).toBe('true')
    look.mockResolvedValue(readings(3.05, 3.06))
    await view.find('[role=alert] button').trigger('click')
    await flushPromises()
    expect(look).toHaveBeenLastCalledWith(['3.05', '3.06 mm'], 'mm')
    expect(view.find('.el-button--primary').attributes('disabled')).toBeUndefined()
  })
})
