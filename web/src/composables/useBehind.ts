import { useEventListener } from '@vueuse/core'
import { shallowRef, watch } from 'vue'

import { api, Problem, type Following } from '../api/client'
import { useJob } from '../stores/job'

/** What the workshop says newer than the open job was computed from: asked once a pause follows an edit, and when the window is
 * looked at again. */
export function useBehind() {
  const job = useJob()
  const behind = shallowRef<Following | null>(null)

  async function look(): Promise<void> {
    const { id, problem } = job.design ?? {}
    if (id === undefined || problem) return
    try {
      const found = await api.following(id)
      if (job.design?.id === id) behind.value = found.said.length ? found : null
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
