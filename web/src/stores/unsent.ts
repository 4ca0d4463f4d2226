import type { Edit, Unit } from '../api/client'

/** Edits of a job that the server has not answered yet. A window that is loaded again meanwhile sends them again. */

const keyOf = (id: number) => `unsent edits of ${id}`

/** Edits with the unit that they were typed in: another may be chosen by the time they are sent. */
export interface Unsent {
  edits: Edit[]
  unit: Unit
}
type Kept = Record<string, Unsent>

const read = (id: number): Kept => JSON.parse(sessionStorage.getItem(keyOf(id)) ?? '{}') as Kept

function write(id: number, kept: Kept): void {
  if (Object.keys(kept).length) sessionStorage.setItem(keyOf(id), JSON.stringify(kept))
  else sessionStorage.removeItem(keyOf(id))
}

/** Tells those of this load, which are being sent, from those that an earlier one left. */
const LOAD = `${performance.timeOrigin}`

/** What an earlier load of this window left unsent, in order. They are forgotten here: sending keeps them anew. */
export function unsentOf(id: number): Unsent[] {
  const [left, own]: [Kept, Kept] = [{}, {}]
  for (const [name, one] of Object.entries(read(id))) (name.startsWith(LOAD) ? own : left)[name] = one
  write(id, own)
  return Object.values(left)
}

/** By what it is forgotten again. */
export function keepUnsent(id: number, unsent: Unsent): string {
  const name = `${LOAD} ${performance.now()} ${Math.random()}`
  write(id, { ...read(id), [name]: unsent })
  return name
}

export function forgetUnsent(id: number, name: string): void {
  const { [name]: _, ...rest } = read(id)
  write(id, rest)
}
