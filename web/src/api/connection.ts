import { reactive } from 'vue'

import type { components } from './schema'

export type Saved = components['schemas']['Saved']

/** What went wrong, with what to do; `status` is 0 when the server cannot be reached. */
export class Problem extends Error {
  constructor(
    readonly code: string,
    readonly why: string,
    readonly fix: string,
    readonly field: string,
    readonly status: number,
    readonly mend = '',
    /** Where somebody else was quicker: what they saved, and what would have been saved, in words. */
    readonly theirs: readonly Saved[] = [],
    readonly mine = '',
  ) {
    super(why)
  }
}

/** Whether the server answers and knows who asks; how many changes are kept here until it does; and the view that was asked
 * for and could not be loaded. */
export const connection = reactive({ online: true, signedOut: false, waiting: 0, wanted: '' })

const AGAIN_MS = 4000

/** Without a connection, while the server is busy, or once a session has ended: the same request may well succeed later. */
const isPassing = (error: unknown): boolean =>
  error instanceof Problem && (error.status === 0 || error.status === 401 || error.code === 'busy')

/** A session that began in another window has another token: it is asked for once. */
let renew: () => Promise<unknown> = () => Promise.resolve()
export const renewWith = (ask: typeof renew) => void (renew = ask)

let waiters: (() => void)[] = []
let timer: ReturnType<typeof setInterval> | undefined

/** Sends what waits, now. */
export function sendAgain(): void {
  const ready = waiters
  waiters = []
  for (const go of ready) go()
}

export function signedIn(): void {
  connection.signedOut = false
  sendAgain()
}

function chance(): Promise<void> {
  timer ??= setInterval(() => connection.signedOut || sendAgain(), AGAIN_MS)
  return new Promise((go) => waiters.push(go))
}

/** Sends `ask`, which may be sent twice without harm, until the server answers it. Throws its other Problems. */
export async function sure<T>(ask: () => Promise<T>): Promise<T> {
  let [waits, renewed] = [false, false]
  try {
    for (;;) {
      try {
        return await ask()
      } catch (error) {
        if (!renewed && error instanceof Problem && error.code === 'token-missing') {
          renewed = true
          await renew()
          continue
        }
        if (!isPassing(error)) throw error
        if (!waits) connection.waiting++
        waits = true
        await chance()
      }
    }
  } finally {
    if (waits) connection.waiting--
    if (!connection.waiting) timer = void clearInterval(timer)
  }
}

if (typeof window !== 'undefined') {
  window.addEventListener('online', () => ((connection.online = true), sendAgain()))
  window.addEventListener('offline', () => (connection.online = false))
  window.addEventListener('beforeunload', (event) => connection.waiting && event.preventDefault())
}
