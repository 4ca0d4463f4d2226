import { useStorage, watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'

import { api, Problem, type JobsOnBoard, type Readings } from '../api/client'
import { useSay } from './useSay'

/** Where a caliper reaches a board: places on its rim, as shares of its width and height from the upper left. */
export const SPOTS = [
  { name: 'upper edge, left', x: 0.18, y: 0 },
  { name: 'upper edge, right', x: 0.84, y: 0 },
  { name: 'right edge', x: 1, y: 0.66 },
  { name: 'lower edge', x: 0.58, y: 1 },
  { name: 'left edge', x: 0, y: 0.55 },
] as const

const PAUSE_MS = 150

/** Readings of a board, spot by spot. What was read stays on this device until it is saved, whatever happens to the page. */
export function useSpots(stock: number) {
  const say = useSay()
  const kept = useStorage<(string | null)[]>(
    `spots-${stock}`,
    SPOTS.map(() => null),
  )
  /** Left out on purpose: a spot that is not measured again. */
  const at = ref(Math.max(kept.value.findIndex((one) => one === null), 0)) // prettier-ignore
  /** The reading that is being entered, in mm; it counts as soon as it was touched. */
  const now = ref<number | null>(null)
  const read = shallowRef<Readings | null>(null)
  const jobs = shallowRef<JobsOnBoard | null>(null)
  const problem = shallowRef<Problem | null>(null)

  const texts = computed(() =>
    kept.value.map((text, i) => (i === at.value && now.value !== null ? `${now.value} mm` : text)),
  )
  const counted = computed(() => texts.value.flatMap((text, spot) => (text === null ? [] : [{ text, spot }])))
  /** The spots whose readings stand off. */
  const doubtful = computed(() => (read.value?.outliers ?? []).map((i) => counted.value[i]?.spot ?? -1))

  let asked = 0
  async function look(): Promise<void> {
    const mine = ++asked
    const given = counted.value.map(({ text }) => text)
    if (!given.length) return void (read.value = null)
    try {
      const found = await api.lookAtReadings(given, say.unit)
      if (mine !== asked) return
      read.value = found
      problem.value = null
      const told = await api.jobsOnBoard(stock, given, say.unit)
      if (mine === asked) jobs.value = told
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      // Without a connection the readings stay here, and are looked at later.
      if (mine === asked) problem.value = error
    }
  }
  watchDebounced(texts, look, { debounce: PAUSE_MS, deep: true, immediate: true })

  function put(spot: number, text: string | null): void {
    kept.value = kept.value.map((one, i) => (i === spot ? text : one))
  }

  /** Keeps what is being entered, and goes to the next spot that wants a reading. */
  function next(): number | null {
    if (now.value !== null) put(at.value, `${now.value} mm`)
    const empty = kept.value.findIndex((one, i) => one === null && i !== at.value)
    const wanted = empty >= 0 ? empty : (doubtful.value.find((spot) => spot !== at.value) ?? null)
    now.value = null
    if (wanted !== null) at.value = wanted
    return wanted
  }

  function leaveOut(spot: number): void {
    put(spot, null)
    if (spot === at.value) now.value = null
  }

  function forget(): void {
    kept.value = SPOTS.map(() => null)
    now.value = null
  }

  return { kept, at, now, texts, counted, read, jobs, doubtful, problem, next, leaveOut, forget, look }
}
