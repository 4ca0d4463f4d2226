import { computed } from 'vue'

import type { Design } from '../api/client'
import { useJob } from '../stores/job'

/** What lies on one sheet: every part by its id, and where its copies are placed. */
export function useSheet(sheet: () => Design['sheets'][number]) {
  const job = useJob()
  const parts = computed(() => new Map(job.design!.parts.map((part) => [part.id, part])))
  const placed = computed(() => job.design!.placed.filter((one) => one.sheet === sheet().number))
  return { parts, placed }
}

/** A placed copy's own transform, as an SVG attribute. */
export function placing({ x, y, angle }: Design['placed'][number]): string {
  return `translate(${x} ${y}) rotate(${angle})`
}
