import type { Trial } from './api/client'

/** A figure that differs on some basis: `key` finds it in a trial, `title` names it. */
export interface Row {
  key: string
  title: string
}

const keyOf = ({ subject, key }: { subject: string; key: string }) => `${subject}/${key}`

/** The lengths that differ on some basis, each once: those of the job, and those of its parts. Those of the basis itself
 * have rows of their own. */
export function rowsOf(trials: readonly Trial[]): { job: Row[]; parts: Row[] } {
  const job = new Map<string, Row>()
  const parts = new Map<string, Row>()
  for (const change of trials.flatMap(({ changes }) => changes)) {
    if (change.kind !== 'length' || change.subject.startsWith('basis:')) continue
    const row = { key: keyOf(change), title: `${change.about} ${change.title}`.trim() }
    ;(change.about ? parts : job).set(row.key, row)
  }
  return { job: [...job.values()], parts: [...parts.values()] }
}

/** What a row's figure is in one of the trials, in mm; null if it cannot be made there. */
export function figureOf(row: Row, trial: Trial, trials: readonly Trial[]): number | null {
  if (trial.problem) return null
  const changed = trial.changes.find((change) => keyOf(change) === row.key)
  if (changed) return changed.after
  return trials.flatMap(({ changes }) => changes).find((change) => keyOf(change) === row.key)?.before ?? null
}

export const isChanged = (row: Row, trial: Trial): boolean =>
  trial.changes.some((change) => keyOf(change) === row.key)
