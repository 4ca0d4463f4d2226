import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'

import { api, Problem, type Design, type Tried } from '../api/client'
import { useJob } from '../stores/job'
import { useTried } from './useTried'

const WIDTH = 'dimensions/wide/length'
const tried = (value: number, more: Partial<Tried> = {}): Tried =>
  ({
    values: { [WIDTH]: value },
    changes: [],
    paths: {},
    moved: [],
    broken: [],
    problem: null,
    ...more,
  }) as Tried

function opened() {
  useJob().design = { id: 7, boards: [], parts: [], ledger: {} } as unknown as Design
  return effectScope().run(() => useTried())!
}
async function paused(): Promise<void> {
  await vi.advanceTimersByTimeAsync(100)
  await flushPromises()
}

describe('a number that is tried while it is typed', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    localStorage.clear()
    vi.useFakeTimers()
    vi.restoreAllMocks()
  })

  it('is asked for once typing pauses, with its unit', async () => {
    const ask = vi.spyOn(api, 'tried').mockResolvedValue(tried(86))
    const typed = opened()
    for (const text of ['8', '86']) typed.ask(WIDTH, text)
    await paused()
    expect(ask.mock.calls).toEqual([[7, [{ verb: 'put', path: WIDTH, value: '86' }], 'mm']])
    expect(typed.valueAt(WIDTH)).toBe(86)
    expect(typed.valueAt('another')).toBeUndefined()
  })

  it('says what breaks before anything else, and no more than a few things', async () => {
    const moved = ['left', 'right', 'top'].map((step) => ({ part: 'side', step, title: step, dx: 2, dy: 0 }))
    vi.spyOn(api, 'tried').mockResolvedValue(tried(86, { broken: ['Shelf falls out.'], moved }))
    const typed = opened()
    typed.ask(WIDTH, '86')
    await paused()
    expect(typed.outcome.value('left')).toEqual(['Shelf falls out.', 'moves 2.00 to the right', 'right moves 2.00 to the right', '1 more']) // prettier-ignore
  })

  it('drops an answer that nobody waits for any more', async () => {
    let answer: (found: Tried) => void = () => {}
    vi.spyOn(api, 'tried').mockReturnValue(new Promise((resolve) => (answer = resolve)))
    const typed = opened()
    typed.ask(WIDTH, '86')
    await paused()
    typed.forget()
    answer(tried(86))
    await flushPromises()
    expect(typed.tried.value).toBeNull()
  })

  it('says at its field why it cannot be, and keeps still without a connection', async () => {
    const problem = { code: 'bad', why: 'No.', fix: 'Yes.', field: 'elsewhere', mend: '' }
    vi.spyOn(api, 'tried').mockResolvedValueOnce(tried(0, { values: {}, problem }))
    const typed = opened()
    typed.ask(WIDTH, '0')
    await paused()
    expect(typed.problemAt(WIDTH)?.why).toBe('No.')
    expect(typed.problemAt('another')).toBeNull()
    vi.spyOn(api, 'tried').mockRejectedValue(new Problem('unreachable', 'Not there.', '', '', 0))
    typed.ask(WIDTH, '5')
    await paused()
    expect(typed.problemAt(WIDTH)?.why).toBe('No.')
  })
})
