import { computed, watch } from 'vue'

import type { News } from '../api/client'
import { useJob } from '../stores/job'

/** What the workshop says newer of the open job's board or machine, once a pause follows an edit. */
export function useNews(of: News['of']) {
  const job = useJob()
  watch(
    () => job.pauses,
    () => void job.lookForNews(),
    { immediate: true },
  )
  return computed(() => job.news.find((one) => one.of === of && one.board === job.board?.id) ?? null)
}
