import { api, Problem, type Task } from './client'

/** Heavy work runs beside the server: a request for it answers with a task, which whoever asked follows to its end. */

const PAUSE_MS = 300

/** How a task is followed: told each time how far it is, null once it has ended; and whether nobody wants it any more. */
export interface Follow {
  watch: (task: Task | null) => void
  unwanted?: () => boolean
}

export const isTask = (answer: object): answer is Task => 'stage' in answer && 'ahead' in answer

/** What `ask` answers, at once or when its task is done; null if it is not wanted any more. Throws its Problem.
 *
 * With `again` the request itself is repeated then: its answer says which state of the job it is of.
 */
export async function whole<T extends object>(
  ask: () => Promise<T | Task>,
  follow: Follow & { again?: boolean },
): Promise<T | null> {
  const answer = await ask()
  if (!isTask(answer)) return answer
  try {
    const done = await ended(answer, follow)
    if (!done) return null
    // A window that was out of sight may have been taken for one that is closed.
    if (done.state !== 'done') return await whole(ask, follow)
    if (!follow.again) return await api.taskAnswer<T>(done.id)
    const found = await ask()
    return isTask(found) ? null : found
  } finally {
    follow.watch(null)
  }
}

async function ended(task: Task, { watch, unwanted }: Follow): Promise<Task | null> {
  while (task.state === 'waiting' || task.state === 'running') {
    if (unwanted?.()) return null
    watch(task)
    await new Promise((done) => setTimeout(done, PAUSE_MS))
    task = await api.task(task.id)
  }
  if (unwanted?.()) return null
  if (task.state === 'done' || task.problem?.code === 'dropped') return task
  const { code, why, fix, field } = task.problem ?? CANCELLED
  throw new Problem(code, why, fix, field, 422)
}

const CANCELLED = {
  code: 'cancelled',
  why: 'It was cancelled.',
  fix: 'Start it again when you want it.',
  field: '',
}
