import { expect, it } from 'vitest'

import { isChanges, merged } from './changes'
import type { Changes, Design } from './client'

const held = {
  revision: 4,
  name: 'Tray',
  parts: [
    { id: 'front', title: 'Front' },
    { id: 'base', title: 'Base' },
  ],
  standings: [{ placement: 'front-1', u: [1, 0, 0] }],
  ledger: { job: [{ key: 'width' }], 'part:front': [] },
} as unknown as Design

const changes = (more: Partial<Changes>): Changes => ({ since: 4, plain: {}, lists: {}, ...more })

it('tells changes from a whole job', () => {
  expect(isChanges(held)).toBe(false)
  expect(isChanges(changes({}))).toBe(true)
})

it('takes fields and entries that are other, and leaves the rest the same objects', () => {
  const after = merged(
    held,
    changes({
      plain: { name: 'Vials', revision: 5 },
      lists: {
        parts: { order: null, changed: { base: { id: 'base', title: 'Floor' } } },
        standings: { order: null, changed: { 'front-1': { placement: 'front-1', u: [0, 1, 0] } } },
        ledger: { order: null, changed: { job: [{ key: 'depth' }] } },
      },
    }),
  )!
  expect([after.name, after.revision, after.parts[1]!.title]).toEqual(['Vials', 5, 'Floor'])
  expect(after.parts[0]).toBe(held.parts[0])
  expect(after.standings[0]!.u).toEqual([0, 1, 0])
  expect(after.ledger).toEqual({ job: [{ key: 'depth' }], 'part:front': [] })
  expect(held.parts[1]!.title).toBe('Base')
})

it('follows a new order: what is not in it any more is gone', () => {
  const after = merged(
    held,
    changes({
      lists: {
        parts: { order: ['lid', 'front'], changed: { lid: { id: 'lid', title: 'Lid' } } },
        ledger: { order: ['job'], changed: {} },
      },
    }),
  )!
  expect(after.parts.map(({ id }) => id)).toEqual(['lid', 'front'])
  expect(Object.keys(after.ledger)).toEqual(['job'])
})

it('refuses changes of a revision that is not the one held', () => {
  expect(merged(held, changes({ since: 3 }))).toBeNull()
})
