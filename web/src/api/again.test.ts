import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import { patient, waited } from './again'

const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status })
const task = (state: string, more: object = {}) => ({
  id: 7,
  state,
  again: true,
  progress: 0,
  problem: null,
  ...more,
})
const asked = () => new Request('http://here/api/designs/1/edits', { method: 'POST', body: '{"edits":[]}' })

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

/** What is sent, and what is answered to it in turn. */
async function run(...answers: Response[]) {
  const sent: string[] = []
  const got = patient(asked(), async (request) => {
    sent.push(`${request.method} ${new URL(request.url).pathname} ${await request.text()}`)
    return answers.shift()!
  })
  await vi.advanceTimersByTimeAsync(10_000)
  return { answer: await got, sent }
}

it('gives what is answered at once, and tasks that are not to be asked again', async () => {
  const { answer, sent } = await run(json({ moves: 3 }))
  expect(await answer.json()).toEqual({ moves: 3 })
  expect(sent).toHaveLength(1)
  expect((await run(json({ ...task('waiting'), again: false }, 202))).answer.status).toBe(202)
})

it('makes the same request again once what it waits for is done', async () => {
  const { answer, sent } = await run(
    json(task('waiting'), 202), json(task('running', { progress: 0.5 })), json(task('done')), json({ moves: 4 }),
  ) // prettier-ignore
  expect(await answer.json()).toEqual({ moves: 4 })
  expect(sent.filter((one) => one.startsWith('POST'))).toEqual(
    Array(2).fill('POST /api/designs/1/edits {"edits":[]}'),
  )
  expect(waited.tasks).toEqual([])
})

it('tells why it cannot be answered, and that it was cancelled', async () => {
  const problem = { code: 'too-much-time', why: 'It took longer.', fix: 'Do less.', field: '' }
  const { answer } = await run(json(task('waiting'), 202), json(task('failed', { problem })))
  expect([answer.status, await answer.json()]).toEqual([422, problem])
  const ended = await run(json(task('waiting'), 202), json(task('cancelled')))
  expect(await ended.answer.json()).toMatchObject({ code: 'cancelled' })
})

it('asks again for what was dropped while the window was out of sight', async () => {
  const dropped = task('cancelled', { problem: { code: 'dropped' } })
  const { answer } = await run(json(task('waiting'), 202), json(dropped), json({ moves: 5 }))
  expect(await answer.json()).toEqual({ moves: 5 })
})

it('ends where there is no end of tasks', async () => {
  const rounds = Array.from({ length: 7 }, () => [json(task('waiting'), 202), json(task('done'))]).flat()
  expect((await (await run(...rounds)).answer.json()).code).toBe('busy')
})
