import type { ProofState } from './stores/proving'

export interface Asked {
  /** As it is called. */
  readonly format: string
  readonly files: number
  readonly whom: string
  /** Whether it is planned for another machine than the job's own: that plan has no proof before it is saved. */
  readonly planned: boolean
  /** Whether what is shown of the files is of just this state. */
  readonly current: boolean
  /** What of the job is in none of the files. */
  readonly lacks: readonly string[]
  /** Whether something newer was measured, or the file would be refused. */
  readonly held: boolean
  readonly state: ProofState
  readonly fits: boolean
  readonly share: string
}

export interface Action {
  readonly words: string
  readonly strong: boolean
  readonly waits?: boolean
}

const MARKS: Partial<Record<ProofState, string>> = {
  'does-not-fit': 'does not fit',
  'as-seen': 'not all proved',
}

/** What the one strong action says: it follows the proof of just this state. */
export function saveAction(asked: Asked): Action {
  const many = asked.files > 1 ? `${asked.files} ${asked.format} files` : `the ${asked.format}`
  const words = `Save ${many} for ${asked.whom}`
  if (asked.planned) return { words, strong: false, waits: !asked.current }
  if (asked.fits) {
    const without = asked.lacks.length ? `, without ${asked.lacks.join(' and ')}` : ''
    return { words: words + without, strong: asked.current && !without && !asked.held }
  }
  if (asked.state === 'waiting' || asked.state === 'running')
    return { words: `Proving…${asked.share}`, strong: true, waits: true }
  return { words: `Save ${many}, marked “${MARKS[asked.state] ?? 'not proved'}”`, strong: false }
}
