import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'

import type { Task } from '../api/client'
import TaskNote from './TaskNote.vue'

const said = (so_far: Task['so_far']) =>
  mount(TaskNote, {
    props: {
      task: {
        id: 7,
        kind: 'proof',
        title: 'The proof',
        state: 'running',
        progress: 0.4,
        stage: 'comparing the parts',
        ahead: 0,
        so_far,
        again: false,
        problem: null,
      },
    },
  }).text()

describe('what a task tells before it has ended', () => {
  it('is what was found on the sheets that were measured, and how much more there is', () => {
    expect(said({ done: 2, of: 5, found: 4, first: ['Side is open.', 'Base is small.'] })).toContain(
      '2 of 5 sheets measured; found so far: Side is open. Base is small. And 2 more.',
    )
  })

  it('says that nothing was found only of what was measured', () => {
    expect(said({ done: 2, of: 5, found: 0, first: [] })).toContain(
      '2 of 5 sheets measured, no problems so far.',
    )
    expect(said({ done: 0, of: 1, found: 0, first: [] })).not.toContain('measured')
    expect(said(null)).not.toContain('measured')
  })
})
