import type { FieldInfo, Step } from './api/client'
import { optionsOf, type Option } from './kit/options'

/** What the page knows of steps: what they are called, and which questions count. The core judges the answers. */

export type Document = Record<string, unknown>
type Shape = Document & { kind: string }

const mm = (value: number) => ({ text: String(Math.round(value * 10) / 10), unit: 'mm' as const })

/** A name that is not taken yet: "hole-3". */
export function freeName(wanted: string, taken: readonly string[]): string {
  let number = 1
  while (taken.includes(`${wanted}-${number}`)) number++
  return `${wanted}-${number}`
}

/** A part to begin with: a loose rectangle. */
export function newPart(title: string, board: string): Document {
  const blank = { kind: 'rectangle', width: mm(100), height: mm(60) }
  return { title, board, loose: 1, steps: [{ kind: 'shape', id: 'blank', shape: blank }] }
}

/** The questions of a step that count for what it does; a line goes round nothing, a depth is a pocket's. */
export function asked(fields: readonly FieldInfo[], step: Document): FieldInfo[] {
  const { does = 'add', operation = 'engrave' } = step
  const round = (step['shape'] as Shape | undefined)?.kind !== 'line'
  const counts: Record<string, boolean> = {
    operation: does === 'mark',
    depth: does === 'mark' && operation === 'pocket',
    side: round && (does === 'cut' || does === 'mark'),
    face: does === 'mark',
    scale: round,
    bridge: does === 'cut',
  }
  return fields.filter(({ name }) => counts[name] ?? true)
}

/** The operations that a mark can be; through-cuts are what a step does, not a mark. */
export function operationsFor(step: Document, operations: Record<string, string>): Option[] {
  const line = (step['shape'] as Shape | undefined)?.kind === 'line'
  return optionsOf(operations).filter(({ value }) => value !== 'cut' && !(line && value === 'pocket'))
}

/** A length as typed, and the unit it was typed in. */
export function typed(value: unknown): { text: string; unit: 'mm' | 'in' } {
  if (typeof value === 'string' || typeof value === 'number') return { text: String(value), unit: 'mm' }
  const { text = '', unit = 'mm' } = (value ?? {}) as { text?: string; unit?: 'mm' | 'in' }
  return { text, unit }
}

/** What a step does, in a word or two: "cut", "engrave", "add". */
export function workOf(step: Step): string {
  const { kind, does = 'add' } = step.document as { kind: string; does?: string }
  if (kind !== 'shape') return kind
  return does === 'mark' ? step.operation : does
}

/** An edge's name in words: "left", "tab 1, top"; "face" is a part's whole face. */
export const edgeWords = (edge: string): string =>
  edge === 'face'
    ? 'its face'
    : edge
        .replace(/^blank\./, '')
        .replace('.', ', ')
        .replaceAll('-', ' ')
