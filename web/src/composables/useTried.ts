import { tryOnScopeDispose } from '@vueuse/core'
import { computed, shallowRef } from 'vue'

import { api, Problem, type Tried } from '../api/client'
import { useJob } from '../stores/job'
import { useGhosts } from './useGhosts'
import { useOutcome } from './useOutcome'
import { useSay } from './useSay'

const PAUSE_MS = 80

/** What would come of a number while it is typed; nothing is kept. */
export function useTried() {
  const job = useJob()
  const say = useSay()
  const words = useOutcome()
  const ghosts = useGhosts()
  const tried = shallowRef<{ path: string; found: Tried } | null>(null)
  let asked = 0
  let pause: ReturnType<typeof setTimeout> | undefined

  function forget(): void {
    asked++
    clearTimeout(pause)
    tried.value = null
    ghosts.show([])
  }
  tryOnScopeDispose(forget)

  /** After a pause, so that not every letter is asked. */
  function ask(path: string, text: string): void {
    const mine = ++asked
    clearTimeout(pause)
    pause = setTimeout(async () => {
      if (!job.design) return
      try {
        const found = await api.tried(job.design.id, [{ verb: 'put', path, value: text }], say.unit)
        if (mine !== asked) return
        tried.value = { path, found }
        ghosts.show(path.startsWith('placements/') ? (found.stands ?? []) : [])
      } catch (error) {
        if (!(error instanceof Problem)) throw error // without a connection it is simply not tried
      }
    }, PAUSE_MS)
  }

  /** What else would change, in a few words; `step` is the one that the number is of. */
  const outcome = computed(() => (step = '') => {
    const { changes = [], moved = [], broken = [] } = tried.value?.found ?? {}
    return words.value(moved, changes, step, broken)
  })

  /** What a path's number would be, and why it cannot be. */
  const valueAt = (path: string) => (tried.value?.path === path ? tried.value.found.values[path] : undefined)
  function problemAt(path: string): Problem | null {
    const found = tried.value?.path === path ? tried.value.found.problem : null
    return found ? new Problem(found.code, found.why, found.fix, path, 422) : null
  }

  return { tried, ask, forget, outcome, valueAt, problemAt }
}
