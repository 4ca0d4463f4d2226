import { useStorage } from '@vueuse/core'
import { computed, reactive, ref, shallowRef, watch } from 'vue'

import {
  api,
  Problem,
  type Entry,
  type FileFormat,
  type Piece,
  type PieceIn,
  type PieceRead,
  type ToldIn,
  type Truth,
  type Way,
} from '../api/client'
import { save } from '../rack'
import { useSettings } from '../stores/settings'
import { editText, type Unit } from '../units'

export type ReadingsName = 'row' | 'hole' | 'plug'

/** Which readings a way asks for; a comb asks how its pairs feel instead. */
export const READINGS_OF: Record<Way, readonly ReadingsName[]> = {
  slats: ['row'],
  plug: ['hole', 'plug'],
  comb: [],
}
const NAMES = ['row', 'hole', 'plug'] as const
const FEWEST_ANSWERS = 3

/** What was typed for one piece: its sizes, and what it told. `practice` is the machine that told it, with the kerf that a
 * comb was cut for; null for a real one. */
interface Draft {
  sizes: Record<string, { text: string; unit: Unit }>
  row: string[]
  hole: string[]
  plug: string[]
  answers: string[]
  note: string
  practice: { seed: number; kerf: number | null } | null
}
const EMPTY = (): Draft => ({ sizes: {}, row: [], hole: [], plug: [], answers: [], note: '', practice: null })
const KEPT_AT = 'notebook drafts'

/** One test piece of one board on one machine: drawn anew when a size changes, read anew when a reading does.
 *
 * Each machine, board and way has a draft of its own, which stays in this browser until it is in the notebook.
 */
export function useTestPiece(asked: () => { machine: number; stock: number; way: Way } | null) {
  const settings = useSettings()
  const drafts = useStorage<Record<string, Draft>>(KEPT_AT, {}, localStorage, { deep: true, flush: 'sync' })
  const key = computed(() => {
    const now = asked()
    return now ? `${now.machine}/${now.stock}/${now.way}` : ''
  })
  const draft = computed(() => (drafts.value[key.value] ??= EMPTY()))

  const piece = shallowRef<Piece | null>(null)
  const read = shallowRef<PieceRead | null>(null)
  const truth = shallowRef<Truth | null>(null)
  const entries = shallowRef<Entry[]>([])
  const problem = shallowRef<Problem | null>(null)
  const said = ref('')
  let looks = 0
  /** Readings as the core took them, in mm: those typed, once they are good. */
  const measured = reactive<Record<ReadingsName, number[]>>({ row: [], hole: [], plug: [] })

  const body = computed<PieceIn | null>(() => {
    const now = asked()
    if (!now) return null
    const typed = Object.entries(draft.value.sizes)
    return {
      ...now,
      unit: settings.unit,
      settings: Object.fromEntries(
        typed.map(([name, { text, unit }]) => [name, editText(text, unit, settings.unit)]),
      ),
    }
  })
  const told = computed<ToldIn | null>(() => {
    if (!body.value) return null
    const { row, hole, plug, answers, note } = draft.value
    const { way } = body.value
    if (way === 'comb') return { ...body.value, answers, note }
    return { ...body.value, note, ...(way === 'slats' ? { row } : { hole, plug }) }
  })
  const begun = computed(() =>
    asked()?.way === 'comb'
      ? draft.value.answers.filter(Boolean).length >= FEWEST_ANSWERS
      : READINGS_OF[asked()?.way ?? 'comb'].every((name) => draft.value[name].length),
  )

  const sameAs = (before: string) => () => key.value === before

  /** Runs `act`; an answer that nobody waits for any more is dropped, a problem is kept for its field. */
  async function tell<T>(
    act: () => Promise<T>,
    then: (answer: T) => void,
    awaited: () => boolean = sameAs(key.value),
  ): Promise<void> {
    problem.value = null
    try {
      const answer = await act()
      if (awaited()) then(answer)
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      if (awaited()) problem.value = error
    }
  }
  watch(
    key,
    async () => {
      looks++
      said.value = ''
      piece.value = read.value = truth.value = null
      for (const name of NAMES) measured[name] = []
      if (!key.value) return
      const stillAsked = sameAs(key.value)
      await list()
      if (stillAsked()) await draw()
    },
    { immediate: true },
  )

  async function draw(): Promise<void> {
    await tell(
      () => api.piece(body.value!),
      (drawn) => (piece.value = drawn),
    )
    if (!problem.value) await look()
  }

  async function list(): Promise<void> {
    const { machine, stock } = asked()!
    await tell(
      () => api.notebook(machine, stock),
      (found) => (entries.value = found),
    )
  }

  function resize(name: string, text: string): Promise<void> {
    draft.value.sizes[name] = { text, unit: settings.unit }
    return draw()
  }

  /** Only the last of several looks counts. */
  async function look(): Promise<void> {
    read.value = problem.value = null
    const look = ++looks
    if (begun.value)
      await tell(
        () => api.readPiece(told.value!),
        understood,
        () => look === looks,
      )
  }

  /** Readings are shown as they were understood, in whatever unit is shown. */
  function understood(answer: PieceRead): void {
    read.value = answer
    for (const name of READINGS_OF[asked()!.way]) take(name, answer[name])
  }

  function take(name: ReadingsName, mm: readonly number[]): void {
    measured[name] = [...mm]
    draft.value[name] = mm.map((value) => `${value} mm`)
  }

  function measure(name: ReadingsName, texts: string[]): Promise<void> {
    said.value = ''
    draft.value[name] = texts
    if (!texts.length) measured[name] = []
    return look()
  }

  function answer(index: number, text: string): Promise<void> {
    said.value = ''
    const count = piece.value?.clearances.length ?? 0
    const before = draft.value.answers
    draft.value.answers = Array.from({ length: count }, (_, i) => (i === index ? text : (before[i] ?? '')))
    return look()
  }

  /** Empties what was told; the sizes stay. */
  function clear(): void {
    Object.assign(draft.value, { ...EMPTY(), sizes: draft.value.sizes })
    for (const name of NAMES) measured[name] = []
    read.value = truth.value = problem.value = null
  }

  async function practise(seed: number): Promise<void> {
    clear()
    await tell(
      () => api.practise({ ...body.value!, seed }),
      (cut) => {
        for (const name of NAMES) take(name, cut[name])
        Object.assign(draft.value, { answers: cut.answers, practice: { seed, kerf: cut.kerf } })
      },
    )
    if (!problem.value) await look()
  }

  const reveal = () =>
    tell(
      () => api.practiceTruth({ ...body.value!, seed: draft.value.practice!.seed }),
      (found) => (truth.value = found),
    )

  const keep = () =>
    tell(
      () => api.addEntry(told.value!),
      (found) => {
        entries.value = found
        clear()
        said.value = 'Saved in the notebook.'
      },
    )

  async function strike(entry: Entry): Promise<void> {
    await tell(
      () => api.strikeEntry(entry.id, !entry.valid),
      () => undefined,
    )
    await list()
  }

  const download = (format: FileFormat) =>
    tell(
      () => api.pieceFile({ ...body.value!, format }),
      (file) => save(file, piece.value!.file_names[format]!),
    )

  /** The problem of a size, or of readings or answers together with that of one of them. */
  function problemAt(field: string): Problem | null {
    const at = problem.value?.field
    return at === field || at?.startsWith(`${field}[`) ? problem.value : null
  }

  /** What stands at no field that is shown. */
  const elsewhere = computed(() => {
    const shown = [...(piece.value?.settings.map(({ name }) => name) ?? []), ...NAMES, 'answers']
    return shown.some((field) => problemAt(field)) ? null : problem.value
  })

  return {
    draft, piece, read, truth, entries, measured, said, elsewhere,
    resize, measure, answer, clear, practise, reveal, keep, strike, download, problemAt,
  } // prettier-ignore
}
