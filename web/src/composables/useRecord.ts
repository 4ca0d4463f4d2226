import { computed, shallowRef, type ShallowRef } from 'vue'

import type { Problem } from '../api/client'
import { oneByOne } from '../line'
import { useProblem } from './useProblem'

const MOST_STEPS = 50

/** Something of the workshop's that is edited field by field: each edit is kept at once, and can be taken back.
 *
 * `current` tells what the fields say now, `keep` changes some of them. A refused edit keeps what was there; its problem is
 * shown at the field it names.
 */
export function useRecord<Changes extends object>(
  current: (id: number) => Changes,
  keep: (id: number, changes: Changes) => Promise<void>,
) {
  const { problem, tell } = useProblem()
  interface Step {
    id: number
    changes: Changes
  }
  const past = shallowRef<Step[]>([])
  const future = shallowRef<Step[]>([])

  const inLine = oneByOne()

  async function make(id: number, changes: Changes): Promise<boolean> {
    const before = taken(id, changes)
    const done = await tell(() => keep(id, changes))
    if (done) {
      past.value = [...past.value, before].slice(-MOST_STEPS)
      future.value = []
    }
    return done
  }

  /** What the fields of `changes` say now. Others are left alone: somebody may have changed them since. */
  function taken(id: number, changes: Changes): Step {
    const now = current(id)
    const names = Object.keys(changes) as (keyof Changes)[]
    return { id, changes: Object.fromEntries(names.map((name) => [name, now[name]])) as Changes }
  }

  /** Takes the last step of `from`; the way back goes to `to`. */
  async function move(from: ShallowRef<Step[]>, to: ShallowRef<Step[]>): Promise<void> {
    const step = from.value.at(-1)
    if (!step) return
    const back = taken(step.id, step.changes)
    if (!(await tell(() => keep(step.id, step.changes)))) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, back]
  }

  /** The problem of a field; the core puts "stock." or "machine." before some, and an index after lists. */
  function problemAt(field: string): Problem | null {
    const named = problem.value?.field.replace(/^(stock|machine)\./, '')
    return named === field ? problem.value : null
  }

  return {
    problem, tell, problemAt,
    edit: (id: number, changes: Changes) => inLine(() => make(id, changes)),
    undo: () => inLine(() => move(past, future)),
    redo: () => inLine(() => move(future, past)),
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
  } // prettier-ignore
}
