import { ref } from 'vue'
import { useRouter } from 'vue-router'

const SHOWN_AFTER_MS = 100

/** Whether a view that was asked for is still on its way, once that is long enough to be noticed. */
export function usePending() {
  const pending = ref(false)
  const router = useRouter()
  let timer: ReturnType<typeof setTimeout> | undefined

  function done(): void {
    clearTimeout(timer)
    pending.value = false
  }

  router.beforeEach(() => {
    clearTimeout(timer)
    timer = setTimeout(() => (pending.value = true), SHOWN_AFTER_MS)
  })
  router.afterEach(done)
  router.onError(done)
  return pending
}
