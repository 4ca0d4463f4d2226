import { useStorage, watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'

import { api, Problem, type Draft, type Recipe } from '../api/client'
import { moved } from '../geometry/following'
import { useSettings } from '../stores/settings'

interface Kept {
  answers: Record<string, string>
  unit: string
  name: string
  stock: number
  machine: number
  fit: string
}

const PAUSE_MS = 40

/** A size of a track list that names no unit. */
const BARE = /(?<![^\s(])(\d+(?:[.,/]\d+)?)(?![^\s)])/g

/** A recipe being filled in: what was typed outlives the page, and what it would make is computed after each pause. Of what cannot
 * be made the last good picture stays, with its problem. */
export function useDraft(recipe: Recipe) {
  const settings = useSettings()
  const usual: Kept = {
    answers: Object.fromEntries(recipe.settings.map(({ name, default: text }) => [name, text])),
    unit: 'mm',
    name: recipe.title,
    stock: 0,
    machine: 0,
    fit: '',
  }
  const kept = useStorage<Kept>(`start-${recipe.name}`, usual, undefined, { mergeDefaults: true })
  const found = shallowRef<Draft | null>(null)
  const problem = shallowRef<Problem | null>(null)
  /** What is being dragged, and how far from where the newest exact figures stand. */
  const dragged = ref<{ setting: string; mm: number } | null>(null)
  /** Before the edit that is under way, or was last: what is other since then is marked. */
  const before = shallowRef<Draft | null>(null)
  const busy = ref(false)
  let again = false

  const given = computed(() => ({
    recipe: recipe.name,
    settings: Object.fromEntries(
      recipe.settings.map(({ name, default: text }) => [name, kept.value.answers[name] ?? text]),
    ),
    stock: kept.value.stock,
    machine: kept.value.machine,
    fit: kept.value.fit,
    unit: kept.value.unit as 'mm' | 'in',
  }))

  /** One question at a time; of those that come up meanwhile, the last is asked. */
  async function compute(): Promise<void> {
    if (!given.value.stock || !given.value.machine) return
    if (busy.value) {
      again = true
      return
    }
    busy.value = true
    try {
      do {
        again = false
        try {
          found.value = await api.draft(given.value)
          problem.value = null
        } catch (error) {
          if (!(error instanceof Problem)) throw error
          problem.value = error
        }
      } while (again)
    } finally {
      busy.value = false
    }
  }

  watchDebounced(given, compute, { debounce: PAUSE_MS, deep: true, immediate: true })

  /** The drawing as it is, or as it will be a moment later. */
  const views = computed(() => {
    const draft = found.value
    const drag = dragged.value
    const slope = drag && draft?.slopes[drag.setting]
    if (!draft || !drag || !slope) return draft?.views ?? []
    return moved(draft.views, slope, drag.mm - draft.values[drag.setting]!)
  })

  function begin(): void {
    before.value = found.value
  }

  /** Lengths are typed in one unit: what was typed in another says so. */
  function answer(setting: string, text: string): void {
    if (kept.value.unit !== settings.unit) inUnit()
    kept.value = { ...kept.value, answers: { ...kept.value.answers, [setting]: text } }
  }

  /** A column or a row of a case more or less. */
  async function track(act: 'add' | 'remove', side: 'columns' | 'rows', entry: number): Promise<void> {
    const { columns = '', rows = '', without = '' } = given.value.settings
    try {
      const other = await api.tracks({ columns, rows, without, act, side, entry })
      kept.value = { ...kept.value, answers: { ...kept.value.answers, ...other } }
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      problem.value = error
    }
  }

  function inUnit(): void {
    const lengths = new Set(recipe.settings.filter(({ kind }) => kind === 'length').map(({ name }) => name))
    const tracks = new Set(recipe.settings.filter(({ kind }) => kind === 'tracks').map(({ name }) => name))
    const answers = Object.entries(kept.value.answers).map(([name, text]) => {
      const bare = lengths.has(name) && /^\s*[\d.,/ ]+\s*$/.test(text) && text.trim()
      if (tracks.has(name)) return [name, text.replace(BARE, `$1${kept.value.unit}`)]
      return [name, bare ? `${text.trim()} ${kept.value.unit}` : text]
    })
    kept.value = { ...kept.value, unit: settings.unit, answers: Object.fromEntries(answers) }
  }

  const forget = () => (kept.value = { ...usual, answers: { ...usual.answers } })
  const problemAt = (setting: string) =>
    problem.value?.field.replace('answers/', '') === setting ? problem.value : null

  return {
    kept,
    found,
    views,
    problem,
    problemAt,
    dragged,
    before,
    busy,
    begin,
    answer,
    track,
    compute,
    forget,
  }
}
