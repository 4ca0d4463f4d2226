import type { Changes, Design } from './client'

/** What a window holds of a job, and what the server says is other in it: together the job as it is now. */

type Entry = Record<string, unknown>

/** What tells the entries of a list apart, where it is not their id. */
const NAMES: Readonly<Record<string, string>> = { standings: 'placement' }

export const isChanges = (answer: Design | Changes): answer is Changes => 'since' in answer

/** Entries that did not change stay the same objects. Null if the changes are of another revision than the one held. */
export function merged(held: Design, { since, plain, lists }: Changes): Design | null {
  if (since !== held.revision) return null
  const after = { ...held, ...plain } as Design & Entry
  for (const [name, { order, changed }] of Object.entries(lists)) {
    const before = (held as Design & Entry)[name]
    if (Array.isArray(before)) {
      const key = NAMES[name] ?? 'id'
      const old = new Map((before as Entry[]).map((entry) => [entry[key] as string, entry]))
      after[name] = (order ?? [...old.keys()]).map((id) => changed[id] ?? old.get(id))
    } else {
      const old = before as Entry
      after[name] = Object.fromEntries((order ?? Object.keys(old)).map((id) => [id, changed[id] ?? old[id]]))
    }
  }
  return after
}
