import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import { Problem, type Design, type Proof, type Task } from '../api/client'
import { useJob } from '../stores/job'
import ProofMark from './ProofMark.vue'

const DESIGN = {
  id: 1,
  moves: 4,
  revision: 9,
  sheets: [{}],
  parts: [],
  boards: [],
  route: [],
} as unknown as Design
const proof = (over: Partial<Proof> = {}) =>
  ({
    moves: 4, revision: 9, at: '2026-11-26T20:31:00Z', fits: true, verdict: 'fits', provided: '', sentence: 'Fits', ...over,
  }) as Proof // prettier-ignore

describe('what is known of the proof', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  function mark(state: { design?: Partial<Design>; proof?: Proof; task?: Partial<Task>; problem?: Problem }) {
    const job = useJob()
    job.design = { ...DESIGN, ...state.design }
    job.proof = state.proof ?? null
    job.proofTask = (state.task as Task | undefined) ?? null
    job.unproved = state.problem ?? null
    const view = mount(ProofMark)
    return { view, state: job.proofState, text: view.text().replace(/\s+/g, ' ') }
  }

  it('is nothing where there is nothing to cut', () => {
    expect(mark({ design: { sheets: [] } }).text).toContain('There is nothing to cut yet.')
  })

  it('is that it fits, and when and of which revision that was proved', () => {
    const { state, text } = mark({ proof: proof() })
    expect(state).toBe('fits')
    expect(text).toMatch(/^Fits\. ?The plan of revision 9, proved /)
  })

  it.each([
    [{ provided: 'the kerf is 0.14 mm (typed in)', sentence: 'Fits, if the kerf is 0.14 mm' }, 'provided'],
    [{ verdict: 'as-far-as-seen' as const, fits: false, sentence: 'Fits as far as seen' }, 'as-seen'],
    [{ verdict: 'does-not-fit' as const, fits: false, sentence: 'Does not fit as it is' }, 'does-not-fit'],
  ])('is never more than was measured: %o', (over, state) => {
    const found = mark({ proof: proof(over) })
    expect(found.state).toBe(state)
    expect(found.view.find('section').classes()).not.toContain('fits')
    expect(found.text).toContain(over.sentence)
  })

  it('of an older state is only said to be old', () => {
    const { state, text } = mark({ proof: proof({ moves: 3, revision: 8 }) })
    expect(state).toBe('waiting')
    expect(text).toContain('Proving the plan.')
    expect(text).toContain('Older figures are of revision 8.')
    expect(text).not.toContain('Proved')
  })

  it('is how far it is, and the way to end it', () => {
    const task = {
      id: 3,
      title: 'The proof',
      state: 'running',
      stage: 'cutting',
      progress: 0.4,
      ahead: 0,
      so_far: null,
      again: false,
    } as const
    const { state, view } = mark({ task })
    expect(state).toBe('running')
    expect(view.find('[role=progressbar]').attributes('aria-valuenow')).toBe('40')
    expect(view.find('button').text()).toBe('Cancel')
  })

  it('is why there is none, and the way to try again', () => {
    const { state, view } = mark({
      problem: new Problem('too-much', 'It takes too long.', 'Make less.', '', 422),
    })
    expect(state).toBe('failed')
    expect(view.text()).toContain('Not proved.')
    expect(view.find('[role=alert]').text()).toContain('Make less.')
    expect(view.find('button').text()).toBe('Prove it now')
  })
})
