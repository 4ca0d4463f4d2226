import { computed, ref, shallowRef } from 'vue'

import { Problem } from '../api/client'

/** Something of the workshop's that is edited field by field: each edit is kept at once, and can be taken back.
 *
 * A refused edit keeps what was there; its problem is shown at the field it names.
 */
export function useRecord<Document extends object>(keep: (id: number, document: Document) => Promise<void>) {
  const problem = shallowRef<Problem | null>(null)
  const past = shallowRef<{ id: number; document: Document }[]>([])
  const busy = ref(false)

  async function tell(act: () => Promise<void>): Promise<boolean> {
    problem.value = null
    busy.value = true
    try {
      await act()
      return true
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      problem.value = error
      return false
    } finally {
      busy.value = false
    }
  }

  async function edit(id: number, before: Document, changes: Partial<Document>): Promise<boolean> {
    const done = await tell(() => keep(id, { ...before, ...changes }))
    if (done) past.value = [...past.value, { id, document: before }].slice(-50)
    return done
  }

  async function undo(): Promise<void> {
    const last = past.value.at(-1)
    if (last && (await tell(() => keep(last.id, last.document)))) past.value = past.value.slice(0, -1)
  }

  /** The problem of a field; the core puts "stock." or "machine." before some, and an index after lists. */
  function problemAt(field: string): Problem | null {
    const named = problem.value?.field.replace(/^(stock|machine)\./, '')
    return named === field ? problem.value : null
  }

  return { problem, busy, canUndo: computed(() => past.value.length > 0), tell, edit, undo, problemAt }
}
