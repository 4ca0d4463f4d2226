import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { isChanges, merged } from '../api/changes'
import {
  api,
  Problem,
  type Changes,
  type Design,
  type Edit,
  type News,
  type Stop,
  type Unit,
} from '../api/client'
import { sure } from '../api/connection'
import { oneByOne } from '../line'
import { dateText } from '../units'
import { changedBetween, NOTHING_CHANGED } from './changed'
import { useProving } from './proving'
import { useSelection } from './selection'
import { useSettings } from './settings'
import { forgetUnsent, keepUnsent, unsentOf } from './unsent'

/** What takes a while, the proof and trials for instance, waits for a pause between edits, so that it never holds one up. */
const PAUSE_MS = 300

/** The design that is open, as the server computed it, and everything that outlives a screen of it.
 *
 * Edits go one after the other. A refused edit leaves the last good result in view; its problem is shown at the field.
 */
export const useJob = defineStore('job', () => {
  const design = shallowRef<Design | null>(null)
  const {
    proof,
    fresh,
    state: proofState,
    task: proofTask,
    problem: unproved,
    prove,
    forget,
  } = useProving(design)
  /** What the workshop says newer of board and machine; looked for where it is shown. */
  const news = shallowRef<readonly News[]>([])
  const problem = shallowRef<Problem | null>(null)
  const conflict = shallowRef<{ edits: readonly Edit[]; problem: Problem } | null>(null)
  const changed = shallowRef(NOTHING_CHANGED)
  const { selected, picked, part, steps, also, toggle, pick, pickMore, hidden, hide, menuAt } = useSelection(
    () => design.value,
  )
  /** The named length that is looked at: it is lit where it is used. */
  const litName = ref('')
  /** The board that is looked at, where a job has several. */
  const chosenBoard = ref('')
  /** How many pauses there were: what takes a while is asked for anew at each. */
  const pauses = ref(0)
  const busy = ref(0)
  let lookedAt = 0
  let opened = 0
  const oneAfterTheOther = oneByOne()
  let proving: ReturnType<typeof setTimeout> | undefined

  const board = computed(
    () => design.value?.boards.find(({ id }) => id === chosenBoard.value) ?? design.value?.boards[0] ?? null,
  )
  /** What was measured and chosen for the board that is looked at. */
  const basis = computed(() => board.value?.basis ?? null)
  const basisPath = (what: string) => `basis/${board.value?.id ?? 'main'}/${what}`
  const layoutPath = (what: string) => `layout/${board.value?.id ?? 'main'}/${what}`

  const route = computed(() => {
    if (fresh.value) return fresh.value.route.map(handed)
    const line = { failed: 'not proved', running: 'being proved' }[proofState.value as string]
    return (design.value?.route ?? []).map((stop) =>
      line && stop.key === 'prove' ? { ...stop, line } : stop,
    )
  })

  /** In order once files of just this revision were handed over. */
  function handed(stop: Stop): Stop {
    const at = design.value?.handed
    if (stop.key !== 'hand-over' || !at) return stop
    return {
      ...stop,
      state: stop.wants ? 'look' : 'ready',
      line: `handed over ${dateText(at, useSettings().style)}`,
    }
  }

  async function open(id: number): Promise<void> {
    if (design.value?.id !== id) close()
    const asked = ++opened
    const found = await api.design(id)
    if (asked !== opened) return // another job was opened meanwhile
    show(found)
    for (const { edits, unit } of unsentOf(id)) void send(edits, unit)
  }

  function close(): void {
    clearTimeout(proving)
    design.value = null
    forget()
    news.value = []
    problem.value = null
    conflict.value = null
    changed.value = NOTHING_CHANGED
    selected.value = ''
    hidden.value = new Set()
    litName.value = ''
    chosenBoard.value = ''
  }

  function show(next: Design): void {
    const before = design.value
    changed.value =
      before && before.id === next.id && before.moves !== next.moves
        ? changedBetween(before, next)
        : changed.value
    design.value = next
    problem.value = null
    unproved.value = null
    clearTimeout(proving)
    proving = setTimeout(settle, before ? PAUSE_MS : 0)
  }

  function settle(): void {
    pauses.value++
    void prove()
  }

  /** Asks once at each pause, however many places show it. */
  async function lookForNews(): Promise<void> {
    if (!design.value || design.value.problem || lookedAt === pauses.value) return
    lookedAt = pauses.value
    const { id, moves } = design.value
    const found = await api.news(id)
    if (design.value?.id === id && design.value.moves === moves) news.value = found
  }

  /** Runs `ask` after whatever is under way; a problem is kept for the field it names. Tells whether it went well. */
  function inLine(
    ask: (current: Design) => Promise<Design | Changes>,
    onConflict: (problem: Problem) => void = () => void takeTheirs(),
  ): Promise<boolean> {
    const asked = design.value
    const run = async (): Promise<boolean> => {
      if (!asked) return false
      busy.value++
      const { id } = asked
      try {
        // What waited in line goes to the job that it was typed in, whichever is open by now.
        const answer = await ask(design.value?.id === id ? design.value : asked)
        if (design.value?.id !== id) return false // another job was opened meanwhile
        show(isChanges(answer) ? (merged(design.value, answer) ?? (await api.design(id))) : answer)
        return true
      } catch (error) {
        if (!(error instanceof Problem)) throw error
        if (design.value?.id !== id) return false
        if (error.code === 'changed-elsewhere') onConflict(error)
        else problem.value = error
        return false
      } finally {
        busy.value--
      }
    }
    return oneAfterTheOther(run)
  }

  /** Several edits are one revision. What somebody else saved meanwhile stays, unless it gets in the way. */
  function edit(...edits: Edit[]): Promise<boolean> {
    return send(edits, useSettings().unit)
  }

  /** `unit` is the one that the edits were typed in. */
  function send(edits: Edit[], unit: Unit): Promise<boolean> {
    const id = design.value?.id ?? 0
    const kept = keepUnsent(id, { edits, unit })
    return inLine(
      (current) => sure(() => api.edit(current, edits, unit)),
      (found) => (conflict.value = { edits, problem: found }),
    ).finally(() => forgetUnsent(id, kept))
  }

  const put = (path: string, value: unknown) => edit({ verb: 'put', path, value })
  const putBasis = (what: string, value: unknown) => put(basisPath(what), value)

  /** Does what is no edit but belongs to one, a file to keep first; a problem is kept like an edit's. */
  async function attempt(act: () => Promise<void>): Promise<void> {
    try {
      await act()
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      problem.value = error
    }
  }

  /** To any revision of the history. */
  const goTo = (revision: number) => inLine((current) => api.go(current, revision), sayTheirs)

  const undo = () => inLine((current) => sure(() => api.undo(current)), sayTheirs)
  const redo = () => inLine((current) => sure(() => api.redo(current)), sayTheirs)

  /** Shows what the other window saved; what was typed here is dropped. */
  async function takeTheirs(): Promise<void> {
    conflict.value = null
    await inLine((current) => api.design(current.id))
  }

  /** A step through the history that another window overtook is not taken: it would have been another one. */
  async function sayTheirs(found: Problem): Promise<void> {
    await takeTheirs()
    problem.value = found
  }

  /** Applies what was typed here to what the other window saved: a new revision, theirs stays in the history. */
  async function saveMine(): Promise<void> {
    const mine = conflict.value
    conflict.value = null
    if (!mine || !design.value) return
    const newest = await api.design(design.value.id)
    show(newest)
    await edit(...mine.edits)
  }

  function problemAt(field: string): Problem | null {
    const found = problem.value
    return found && field && found.field === field ? found : null
  }

  return {
    design, proof, fresh, proofState, proofTask, unproved, prove, news, problem, conflict, changed, pauses, busy, route,
    selected, picked, part, steps, also, toggle, pick, pickMore, hidden, hide, menuAt, litName,
    board, chosenBoard, basis, basisPath, layoutPath, open, close, lookForNews, edit, put, putBasis, attempt, goTo, undo, redo,
    takeTheirs, saveMine, problemAt,
  } // prettier-ignore
})
