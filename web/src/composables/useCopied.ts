import { useStorage } from '@vueuse/core'

import type { Part, Step } from '../api/client'
import { freeName } from '../steps'
import { useJob } from '../stores/job'

type Document = Record<string, unknown>
/** Steps that were copied, kept in the browser: they can be pasted into another part, and into another job. */
const copied = useStorage<Document[]>('copied-steps', [])

export function useCopied() {
  const job = useJob()

  function copy(steps: readonly Step[]): void {
    copied.value = steps.map(({ document }) => document)
  }

  /** Behind the selected step, or at the end; names that are taken are changed, also where one names the other. */
  async function paste(part: Part): Promise<void> {
    const taken = part.steps.map(({ id }) => id)
    const names = new Map<string, string>()
    for (const { id } of copied.value) {
      const name = taken.includes(String(id)) ? freeName(String(id).replace(/-\d+$/, ''), taken) : String(id)
      taken.push(name)
      names.set(String(id), name)
    }
    let after = job.picked.part === part.id ? job.picked.step : ''
    const edits = copied.value.map((document) => {
      const id = names.get(String(document['id']))!
      const edit = {
        verb: 'put' as const,
        path: `parts/${part.id}/steps/${id}`,
        value: { ...renamed(document, names), id },
        ...(after ? { after } : {}),
      }
      after = id
      return edit
    })
    if (edits.length && (await job.edit(...edits))) job.pick('step', part.id, after)
  }

  return { copied, copy, paste }
}

/** What a step is measured from goes by the new names of the steps that came along. */
function renamed(document: Document, names: ReadonlyMap<string, string>): Document {
  const one = (value: unknown): unknown => {
    if (typeof value !== 'string') return value
    const [, sort, step, rest] = /^(edge|corner|middle|side|centre):([^.]+)(.*)$/.exec(value) ?? []
    return sort && names.has(step!) ? `${sort}:${names.get(step!)}${rest}` : value
  }
  return Object.fromEntries(Object.entries(document).map(([key, value]) => [key, one(value)]))
}
