import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { connection, Problem, renewWith, sendAgain, signedIn, sure } from './connection'

const problem = (code: string, status: number) => new Problem(code, 'why', 'fix', '', status)

describe('a change that must get through', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => {
    vi.useRealTimers()
    Object.assign(connection, { online: true, signedOut: false, waiting: 0 })
  })

  it('is kept while there is no connection, and sent again until it is answered', async () => {
    const ask = vi
      .fn()
      .mockRejectedValueOnce(problem('unreachable', 0))
      .mockRejectedValueOnce(problem('busy', 503))
      .mockResolvedValue('saved')
    const sent = sure(ask)
    await vi.advanceTimersByTimeAsync(0)
    expect(connection.waiting).toBe(1)
    await vi.advanceTimersByTimeAsync(8000)
    expect(await sent).toBe('saved')
    expect(ask).toHaveBeenCalledTimes(3)
    expect(connection.waiting).toBe(0)
  })

  it('is sent at once when that is asked for', async () => {
    const ask = vi.fn().mockRejectedValueOnce(problem('unreachable', 0)).mockResolvedValue('saved')
    const sent = sure(ask)
    await vi.advanceTimersByTimeAsync(0)
    sendAgain()
    expect(await sent).toBe('saved')
  })

  it('waits for whoever has to sign in again, and asks nobody until then', async () => {
    connection.signedOut = true
    const ask = vi.fn().mockRejectedValueOnce(problem('signed-out', 401)).mockResolvedValue('saved')
    const sent = sure(ask)
    await vi.advanceTimersByTimeAsync(60_000)
    expect(ask).toHaveBeenCalledTimes(1)
    signedIn()
    expect(await sent).toBe('saved')
  })

  it('leaves no word of a lost connection behind once the machine is online again', () => {
    window.dispatchEvent(new Event('offline'))
    expect(connection.online).toBe(false)
    window.dispatchEvent(new Event('online'))
    expect(connection.online).toBe(true)
  })

  it('takes the token of a session that began in another window, once', async () => {
    const renew = vi.fn().mockResolvedValue(undefined)
    renewWith(renew)
    const stale = problem('token-missing', 403)
    expect(await sure(vi.fn().mockRejectedValueOnce(stale).mockResolvedValue('saved'))).toBe('saved')
    await expect(sure(vi.fn().mockRejectedValue(stale))).rejects.toBe(stale)
    expect(renew).toHaveBeenCalledTimes(2)
  })

  it.each([
    ['out-of-range', 422],
    ['changed-elsewhere', 409],
    ['disk-full', 507],
    ['read-only', 503],
  ])('is given back where sending it again would not help: %s', async (code, status) => {
    const refusal = problem(code, status)
    await expect(sure(() => Promise.reject(refusal))).rejects.toBe(refusal)
    expect(connection.waiting).toBe(0)
  })
})
