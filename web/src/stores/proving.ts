import { computed, shallowRef, type ShallowRef } from 'vue'

import { api, Problem, type Design, type Proof, type Task } from '../api/client'
import { whole } from '../api/tasks'

/** What is known of the proof of exactly the state that is shown. */
export type ProofState =
  | 'nothing' // there is nothing to cut
  | 'waiting' // asked for, or about to be
  | 'running' // computed beside the server
  | 'failed' // no proof could be made: why is its problem
  | 'fits'
  | 'provided' // fits, if a number that nobody measured is right
  | 'as-seen' // fits as far as it was looked at
  | 'does-not-fit'

export function stateOf({ verdict, provided }: Pick<Proof, 'verdict' | 'provided'>): ProofState {
  if (verdict === 'does-not-fit') return 'does-not-fit'
  if (verdict === 'as-far-as-seen') return 'as-seen'
  return provided ? 'provided' : 'fits'
}

/** The proof of the design that is open: asked for at each pause between edits, shown only of the state that it is of. */
export function useProving(design: ShallowRef<Design | null>) {
  /** The newest proof there is; of an older state until `fresh` says otherwise. */
  const proof = shallowRef<Proof | null>(null)
  const task = shallowRef<Task | null>(null)
  const problem = shallowRef<Problem | null>(null)

  const fresh = computed(() => (proof.value?.moves === design.value?.moves ? proof.value : null))
  const state = computed<ProofState>(() => {
    if (!design.value?.sheets.length) return 'nothing'
    if (fresh.value) return stateOf(fresh.value)
    if (problem.value) return 'failed'
    return task.value ? 'running' : 'waiting'
  })

  async function prove(): Promise<void> {
    const asked = design.value
    if (!asked || asked.problem || fresh.value) return
    const unwanted = () => design.value?.id !== asked.id || design.value.moves !== asked.moves
    /** A task of an older state or another job is none of this one's. */
    const watch = (now: Task | null) => void (unwanted() || (task.value = now))
    problem.value = task.value = null
    try {
      const ask = () => api.proof(asked.id)
      const answer = await whole(ask, { watch, unwanted, again: true })
      if (answer && design.value?.id === asked.id && answer.moves === design.value.moves) proof.value = answer
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      if (!unwanted()) problem.value = error
    }
  }

  function forget(): void {
    proof.value = problem.value = task.value = null
  }

  return { proof, fresh, state, task, problem, prove, forget }
}
