import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import { api, Problem, type Task } from './client'
import { whole } from './tasks'

const task = (state: Task['state'], more: Partial<Task> = {}): Task => ({
  id: 7, kind: 'proof', title: 'The proof', state, progress: 0, stage: '', ahead: 0, so_far: null, again: false, problem: null, ...more,
}) // prettier-ignore

beforeEach(() => void vi.useFakeTimers())
afterEach(() => {
  vi.restoreAllMocks()
  vi.useRealTimers()
})

async function run<T>(asked: Promise<T>): Promise<T> {
  asked.catch(() => undefined)
  await vi.advanceTimersByTimeAsync(5000)
  return asked
}

it('gives what is answered at once', async () => {
  const watch = vi.fn()
  expect(await run(whole(async () => ({ fits: true }), { watch }))).toEqual({ fits: true })
  expect(watch).not.toHaveBeenCalled()
})

it('follows a task to its end, tells how far it is, and then that it has ended', async () => {
  const seen: (number | null)[] = []
  vi.spyOn(api, 'task')
    .mockResolvedValueOnce(task('running', { progress: 0.5 }))
    .mockResolvedValueOnce(task('done', { progress: 1 }))
  vi.spyOn(api, 'taskAnswer').mockResolvedValue({ fits: true })
  const watch = (now: Task | null) => seen.push(now && now.progress)
  expect(await run(whole(async () => task('waiting'), { watch }))).toEqual({ fits: true })
  expect(seen).toEqual([0, 0.5, null])
})

it('asks anew when it is done, where the answer says what it is of', async () => {
  vi.spyOn(api, 'task').mockResolvedValue(task('done'))
  const ask = vi.fn().mockResolvedValueOnce(task('running')).mockResolvedValueOnce({ moves: 3 })
  expect(await run(whole(ask, { watch: () => undefined, again: true }))).toEqual({ moves: 3 })
})

it('asks for it again where the server took it for unwanted', async () => {
  const dropped = { code: 'dropped', why: 'Nobody waited.', fix: 'Again.', field: '', mend: '' }
  vi.spyOn(api, 'task').mockResolvedValue(task('cancelled', { problem: dropped }))
  const ask = vi.fn().mockResolvedValueOnce(task('running')).mockResolvedValueOnce({ fits: true })
  expect(await run(whole(ask, { watch: () => undefined }))).toEqual({ fits: true })
})

it('stops asking when it is not wanted any more', async () => {
  const asked = vi.spyOn(api, 'task').mockResolvedValue(task('running'))
  let left = false
  const following = whole(async () => task('running'), { watch: () => undefined, unwanted: () => left })
  await vi.advanceTimersByTimeAsync(700)
  left = true
  expect(await run(following)).toBeNull()
  expect(asked.mock.calls.length).toBeLessThan(4)
})

it.each([
  [task('cancelled'), 'cancelled'],
  [
    task('failed', {
      problem: { code: 'too-much-time', why: 'It took longer.', fix: 'Less.', field: '', mend: '' },
    }),
    'too-much-time',
  ],
])('throws the problem of what did not come to an answer', async (end, code) => {
  vi.spyOn(api, 'task').mockResolvedValue(end)
  const watch = vi.fn()
  const failed = run(whole(async () => task('running'), { watch }))
  await expect(failed).rejects.toMatchObject({ code })
  await expect(failed).rejects.toBeInstanceOf(Problem)
  expect(watch).toHaveBeenLastCalledWith(null)
})
