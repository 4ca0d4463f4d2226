import { reactive } from 'vue'

import type { components } from './schema'

/** What a request needs may take a while to work out: it is answered with a task then, and made again once that is done. */

type Task = components['schemas']['TaskOut']

const PAUSE_MS = 300
/** One request may need several things, one after the other. */
const MOST_TASKS = 6

/** The tasks that requests of this window wait for. */
export const waited = reactive<{ tasks: Task[] }>({ tasks: [] })

type Fetch = (request: Request) => Promise<Response>

/** `fetch`, for whoever does not want to know of tasks. */
export async function patient(request: Request, send: Fetch = fetch): Promise<Response> {
  for (let asked = 1; ; asked++) {
    const answer = await send(request.clone())
    if (answer.status !== 202) return answer
    const task = (await answer.clone().json()) as Task
    if (!task.again) return answer
    const ended = await end(task, send)
    if (ended) return ended
    if (asked === MOST_TASKS) return refusal(BUSY)
  }
}

/** Why the request cannot be answered; null once it can be made again. */
async function end(task: Task, send: Fetch): Promise<Response | null> {
  const place = waited.tasks.push(task) - 1
  const here = waited.tasks[place]
  try {
    while (task.state === 'waiting' || task.state === 'running') {
      await new Promise((go) => setTimeout(go, PAUSE_MS))
      const answer = await send(new Request(new URL(`/api/tasks/${task.id}`, location.origin)))
      if (answer.status === 404) return null
      if (!answer.ok) return answer
      task = (await answer.json()) as Task
      if (here) Object.assign(here, task)
    }
  } finally {
    waited.tasks = waited.tasks.filter((one) => one !== here)
  }
  if (task.state === 'done' || task.problem?.code === 'dropped') return null
  return refusal(task.problem ?? CANCELLED)
}

const refusal = (problem: object): Response =>
  new Response(JSON.stringify(problem), { status: 422, headers: { 'content-type': 'application/json' } })

const CANCELLED = {
  code: 'cancelled',
  why: 'It was cancelled: nothing was changed.',
  fix: 'Do it again when you want it.',
  field: '',
}
const BUSY = {
  code: 'busy',
  why: 'The server has too much to do.',
  fix: 'Try again in a moment; nothing was lost.',
  field: '',
}
