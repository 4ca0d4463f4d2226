import type { Choices, Corner, Mark, Operation } from './api/client'

/** What the page knows of marks: which questions to ask, and what a new one starts from. The core judges the answers. */

export type MarkKind = Mark['kind']

export const LENGTH_TITLES: Record<string, string> = {
  x: 'From the left',
  y: 'From below',
  to_x: 'End, from the left',
  to_y: 'End, from below',
  width: 'Width',
  height: 'Height',
  radius: 'Corner radius',
  diameter: 'Diameter',
  bridge: 'Bridges',
  depth: 'Depth',
  dx: 'Apart, across',
  dy: 'Apart, upwards',
}

export const KIND_TITLES: Record<MarkKind, string> = {
  circle: 'Circle',
  rectangle: 'Rectangle',
  text: 'Text',
  line: 'Line',
}

/** The operations that make sense for a kind: a line goes round nothing. */
export function operationsFor(kind: MarkKind, operations: Choices['operations']): Operation[] {
  const all = Object.keys(operations) as Operation[]
  return kind === 'line' ? all.filter((one) => one !== 'cut' && one !== 'pocket') : all
}

/** The lengths to ask for, those of copies and pockets only where they count. */
export function lengthsFor(mark: Mark, byKind: Record<string, string[]>): string[] {
  const names = (byKind[mark.kind] ?? []).filter((name) => name !== 'bridge' || mark.operation === 'cut')
  return [
    ...names,
    ...(mark.operation === 'pocket' ? ['depth'] : []),
    ...(mark.columns > 1 ? ['dx'] : []),
    ...(mark.rows > 1 ? ['dy'] : []),
  ]
}

/** A mark to begin with, near the middle of a part of that size. */
export function newMark(
  kind: MarkKind,
  box: readonly [number, number, number, number],
  taken: readonly string[],
): Mark {
  const [width, height] = [box[2] - box[0], box[3] - box[1]]
  const mm = (value: number) => ({ text: String(Math.round(value * 10) / 10), unit: 'mm' as const })
  const size = Math.min(width, height) / 4
  const start: Record<MarkKind, Mark['lengths']> = {
    circle: { x: mm(width / 2), y: mm(height / 2), diameter: mm(Math.min(size, 8)) },
    rectangle: {
      x: mm(width / 2 - size),
      y: mm(height / 2 - size / 2),
      width: mm(size * 2),
      height: mm(size),
    },
    text: { x: mm(width / 2), y: mm(height / 2 - size / 4), height: mm(Math.min(size, 15)) },
    line: { x: mm(width / 4), y: mm(height / 2), to_x: mm((width * 3) / 4), to_y: mm(height / 2) },
  }
  let number = 1
  while (taken.includes(`${kind}-${number}`)) number++
  return {
    id: `${kind}-${number}`,
    kind,
    operation: kind === 'line' ? 'score' : kind === 'text' ? 'engrave' : 'cut',
    lengths: start[kind],
    text: kind === 'text' ? 'Text' : '',
    font: 'sans',
    align: kind === 'text' ? 'middle' : 'left',
    angle: 0,
    side: 'auto',
    columns: 1,
    rows: 1,
  }
}

/** A length as typed, and the unit it was typed in; what an edit has not sent yet is in the page's own. */
export function typed(value: Mark['lengths'][string] | Corner['size'] | undefined): {
  text: string
  unit: 'mm' | 'in'
} {
  if (value === undefined) return { text: '', unit: 'mm' }
  return typeof value === 'string'
    ? { text: value, unit: 'mm' }
    : { text: value.text, unit: value.unit ?? 'mm' }
}
