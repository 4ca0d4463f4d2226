import { computed, watch } from 'vue'

import type { News } from '../api/client'
import { useJob } from '../stores/job'

/** What the workshop says newer of the open job's board or machine, after each move of the job. */
export function useNews(of: News['of']) {
  const job = useJob()
  watch(
    () => [job.design?.id, job.design?.moves],
    () => job.design && void job.lookForNews(),
    { immediate: true },
  )
  return computed(() => job.news.find((one) => one.of === of) ?? null)
}
