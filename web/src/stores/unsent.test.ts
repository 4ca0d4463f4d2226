import { beforeEach, describe, expect, it } from 'vitest'

import { forgetUnsent, keepUnsent, unsentOf, type Unsent } from './unsent'

const WIDTH: Unsent = { edits: [{ verb: 'put', path: 'answers/width', value: '6.5' }], unit: 'in' }

describe('edits that were not answered', () => {
  beforeEach(() => sessionStorage.clear())

  /** As if the page had been loaded again: other names than this load gives. */
  function loadAgain(): void {
    const key = 'unsent edits of 7'
    const kept = JSON.parse(sessionStorage.getItem(key)!) as Record<string, unknown>
    const renamed = Object.entries(kept).map(([name, edits]) => [`0 ${name}`, edits])
    sessionStorage.setItem(key, JSON.stringify(Object.fromEntries(renamed)))
  }

  it('are found by the next load of the window, once', () => {
    keepUnsent(7, WIDTH)
    loadAgain()
    expect(unsentOf(8)).toEqual([])
    expect(unsentOf(7)).toEqual([WIDTH])
    expect(unsentOf(7)).toEqual([])
  })

  it('are not sent twice by the load that is sending them', () => {
    keepUnsent(7, WIDTH)
    expect(unsentOf(7)).toEqual([])
  })

  it('are forgotten once they are answered', () => {
    forgetUnsent(7, keepUnsent(7, WIDTH))
    expect(sessionStorage.length).toBe(0)
  })
})
