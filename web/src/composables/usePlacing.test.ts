import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick } from 'vue'

import { api, Problem, type Design, type Part } from '../api/client'
import { useJob } from '../stores/job'
import { usePlacing } from './usePlacing'

const step = (id: string, box: number[]) => ({ id, box, opening: true, path: 'M0 0' })
const PART = {
  id: 'plate',
  box: [0, 0, 100, 60],
  steps: [
    { id: 'blank', box: [0, 0, 100, 60], opening: false, path: '' },
    step('a', [10, 26, 18, 34]),
    step('b', [80, 26, 90, 34]),
    step('hole', [40, 26, 48, 34]),
  ],
  points: [{ name: 'centre:a', says: 'the centre of a', step: 'a', at: [14, 30] }],
  lines: [{ name: 'edge:blank.top', says: 'the top edge', step: 'blank', ends: [100, 60, 0, 60] }],
} as unknown as Part

const placing = vi.spyOn(api, 'placing')
const scope = effectScope()

function opened() {
  const job = useJob()
  job.design = { id: 1, parts: [PART] } as unknown as Design
  job.pick('step', 'plate', 'hole')
  const edits = vi.spyOn(job, 'edit').mockResolvedValue(true)
  return { job, edits, placed: scope.run(() => usePlacing(() => PART))! }
}

beforeEach(() => {
  setActivePinia(createPinia())
  vi.useFakeTimers()
  placing.mockReset().mockResolvedValue({ edits: [{ verb: 'put', path: 'p' }], tried: {} } as never)
})
afterEach(() => void vi.useRealTimers())

describe('what is dragged', () => {
  it('lies on what it finds, and says so', () => {
    const { placed } = opened()
    placed.begin()
    placed.dragTo(5.2, 25.6, 4, false)
    expect(placed.delta.value).toEqual([expect.closeTo(6), expect.closeTo(26)])
    expect(placed.said.value).toContain('on the top edge')
  })

  it('lies between its neighbours with equal gaps, in numbers', () => {
    const { placed } = opened()
    placed.begin()
    placed.dragTo(4.8, 0.2, 4, false)
    expect(placed.delta.value[0]).toBeCloseTo(5)
    expect(placed.said.value).toContain('equal gaps 27.00')
  })

  it('leaves the grid where that is wanted, and goes back when it is cancelled', () => {
    const { placed } = opened()
    placed.begin()
    placed.dragTo(5.23, 0.01, 4, true)
    expect(placed.delta.value).toEqual([5.23, 0.01])
    placed.cancel()
    expect(placed.delta.value).toEqual([0, 0])
    expect(placed.moving.value).toBe(false)
  })
})

describe('arrow keys', () => {
  it('that follow one another are one edit, and say the sum so far', async () => {
    const { placed, edits } = opened()
    for (let i = 0; i < 5; i++) placed.nudge(1, 0)
    await vi.advanceTimersByTimeAsync(1000)
    const moves = placing.mock.calls.map(([, asked]) => asked)
    expect(moves.at(-1)).toMatchObject({ act: 'move', part: 'plate', steps: ['hole'], dx: 5, dy: 0 })
    expect(edits).toHaveBeenCalledTimes(1)
    placed.nudge(1, 0)
    await vi.advanceTimersByTimeAsync(1000)
    expect(placed.said.value).toBe('Moved 6 to the right since it was selected')
  })

  it('move what was selected when they were pressed', async () => {
    const { placed, job } = opened()
    placed.nudge(0, -1)
    job.pick('step', 'plate', 'a')
    await nextTick()
    await vi.advanceTimersByTimeAsync(1000)
    expect(placing.mock.calls.at(-1)![1]).toMatchObject({ steps: ['hole'], dy: -1 })
  })

  it('that cannot be say why, and it goes back', async () => {
    const { placed, job, edits } = opened()
    placing.mockRejectedValue(new Problem('bad-geometry', 'It is spread.', 'Change the margin.', 'x', 422))
    placed.nudge(1, 0)
    await vi.advanceTimersByTimeAsync(1000)
    expect(edits).not.toHaveBeenCalled()
    expect(job.problem?.why).toBe('It is spread.')
    expect(placed.delta.value).toEqual([0, 0])
  })
})
