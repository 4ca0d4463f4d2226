import type { Design, Figure } from '../api/client'

/** What an edit changed: ledger rows as they were, by "subject/key", and the parts whose outline moved. */
export interface Changed {
  figures: ReadonlyMap<string, Figure>
  parts: ReadonlySet<string>
}

export const NOTHING_CHANGED: Changed = { figures: new Map(), parts: new Set() }

/** Two values that a caliper cannot tell apart count as one. */
const SAME_MM = 1e-4

export function changedBetween(before: Design, after: Design): Changed {
  const figures = new Map<string, Figure>()
  for (const [subject, rows] of Object.entries(after.ledger)) {
    if (rows === before.ledger[subject]) continue
    const old = new Map(before.ledger[subject]?.map((row) => [row.key, row]))
    for (const row of rows) {
      const was = old.get(row.key)
      if (!was) continue
      const moved = Math.abs((was.value ?? 0) - (row.value ?? 0)) > SAME_MM
      if (moved || was.word !== row.word) figures.set(`${subject}/${row.key}`, was)
    }
  }
  const paths = new Map(before.parts.map((part) => [part.id, part.path]))
  const parts = new Set(
    after.parts.filter(({ id, path }) => movedBetween(paths.get(id), path)).map(({ id }) => id),
  )
  return { figures, parts }
}

/** An outline that moved by less shows the same: it is not marked. */
const SEEN_MM = 0.01
const NUMBERS = /-?\d+(?:\.\d+)?(?:e-?\d+)?/g

function movedBetween(before: string | undefined, after: string): boolean {
  if (before === after) return false
  const old = before?.match(NUMBERS) ?? []
  const now = after.match(NUMBERS) ?? []
  return old.length !== now.length || now.some((text, i) => Math.abs(Number(text) - Number(old[i])) > SEEN_MM)
}
