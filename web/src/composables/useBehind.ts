import { useEventListener } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'

import { api, Problem, type Following } from '../api/client'
import { useJob } from '../stores/job'

/** What the workshop says newer than the open job was computed from: asked once a pause follows an edit, and when the window is
 * looked at again. */
export function useBehind() {
  const job = useJob()
  /** What is known, and of which job: another one may be open by now. */
  const known = shallowRef<{ id: number; found: Following } | null>(null)
  const behind = computed(() => {
    const { id, found } = known.value ?? {}
    return found?.said.length && id === job.design?.id ? found : null
  })
  let asked = 0

  async function look(): Promise<void> {
    const { id, problem } = job.design ?? {}
    if (id === undefined || problem) return
    const mine = ++asked
    try {
      const found = await api.following(id)
      if (mine === asked) known.value = { id, found }
    } catch (error) {
      if (!(error instanceof Problem)) throw error // without a connection nothing newer is known
    }
  }

  /** Whether something is newer than what is shown. */
  async function changed(): Promise<boolean> {
    const before = behind.value?.said.join()
    await look()
    return behind.value?.said.join() !== before
  }

  watch(() => job.pauses, look, { immediate: true })
  useEventListener(window, 'focus', look)
  return { behind, changed }
}
