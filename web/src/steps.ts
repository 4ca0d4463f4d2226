import type { FieldInfo, Part, Step } from './api/client'
import { optionsOf, type Option } from './kit/options'

/** What the page knows of steps: what a new one starts from, and which questions count. The core judges the answers. */

export type Document = Record<string, unknown>
type Shape = Document & { kind: string }
type Box = readonly [number, number, number, number]

/** What a step may be wanted for; a new one is called after it. */
export const PURPOSES = {
  hole: 'A hole',
  holes: 'A row of holes, evenly spread',
  opening: 'An opening',
  slot: 'A slot with round ends',
  pocket: 'A pocket',
  lettering: 'Lettering',
  letters: 'Letters to cut through, held by bridges',
  scale: 'A scale: lines to score, evenly apart',
  score: 'A line to score',
  fold: 'A line to fold',
  round: 'More material, round',
  ellipse: 'More material, an ellipse',
  ring: 'More material, a ring',
  polygon: 'More material, a regular polygon',
  more: 'More material, a rectangle',
  inside: 'Keep what lies inside',
  outline: 'A free outline to cut out',
  file: 'An outline from a file',
  part: 'The outline of another part',
  corner: 'Corners to round or bevel',
  corners: 'All corners to round or bevel',
  mirror: 'Mirror all of it',
  repeat: 'Repeat all of it',
  grow: 'Grow or shrink the outline',
  turn: 'Move, rotate or scale all of it',
  bend: 'A bend line',
} as const
export type Purpose = keyof typeof PURPOSES

const mm = (value: number) => ({ text: String(Math.round(value * 10) / 10), unit: 'mm' as const })

/** A name that is not taken yet: "hole-3". */
export function freeName(wanted: string, taken: readonly string[]): string {
  let number = 1
  while (taken.includes(`${wanted}-${number}`)) number++
  return `${wanted}-${number}`
}

/** A step to begin with, near the middle of a part. */
export function newStep(purpose: Purpose, part: Pick<Part, 'box' | 'corners'>, other = ''): Document {
  const [width, height] = sizeOf(part.box)
  const size = Math.min(width, height) / 4
  const middle = { x: mm(part.box[0] + width / 2), y: mm(part.box[1] + height / 2) }
  const low = { x: mm(part.box[0] + width / 2 - size), y: mm(part.box[1] + height / 2 - size / 2) }
  const rectangle = { kind: 'rectangle', width: mm(size * 2), height: mm(size) }
  const across = { x: mm(part.box[0] + width / 4), y: middle.y }
  const end = { to_x: mm(part.box[0] + (width * 3) / 4), to_y: middle.y }
  const line = { kind: 'line', ...end }
  switch (purpose) {
    case 'hole':
      return shape({ kind: 'disc', diameter: mm(Math.min(size, 8)) }, { does: 'cut', ...middle })
    case 'holes':
      return shape(
        { kind: 'disc', diameter: mm(Math.min(size, 6)) },
        { does: 'cut', y: middle.y, pattern: { kind: 'spread', count: 5 } },
      )
    case 'slot':
      return shape({ kind: 'slot', length: mm(size * 2), width: mm(size / 2) }, { does: 'cut', ...middle })
    case 'round':
      return shape({ kind: 'disc', diameter: mm(size * 2) }, { does: 'add', x: mm(part.box[2]), y: middle.y })
    case 'ellipse':
      return shape(
        { kind: 'ellipse', width: mm(size * 3), height: mm(size * 2) },
        { does: 'add', x: mm(part.box[2]), y: middle.y },
      )
    case 'ring':
      return shape(
        { kind: 'ring', diameter: mm(size * 2), inside: mm(size) },
        { does: 'add', x: mm(part.box[2]), y: middle.y },
      )
    case 'polygon':
      return shape(
        { kind: 'polygon', sides: 6, across: mm(size * 2) },
        { does: 'add', x: mm(part.box[2]), y: middle.y },
      )
    case 'opening':
      return shape(rectangle, { does: 'cut', ...low })
    case 'pocket':
      return shape(rectangle, { does: 'mark', operation: 'pocket', depth: mm(1), ...low })
    case 'lettering':
      return shape(
        { kind: 'lettering', text: 'Text', height: mm(Math.min(size, 15)), align: 'middle' },
        { does: 'mark', operation: 'engrave', ...middle },
      )
    case 'letters':
      return shape(
        { kind: 'lettering', text: 'Text', height: mm(Math.min(size, 15)), font: 'stencil', align: 'middle' },
        { does: 'cut', ...middle },
      )
    case 'scale':
      return shape(
        { kind: 'line', to_x: across.x, to_y: mm(part.box[1] + size) },
        {
          does: 'mark',
          operation: 'score',
          x: across.x,
          y: mm(part.box[1]),
          pattern: { kind: 'grid', columns: 5, rows: 1, dx: mm(width / 8), dy: mm(0) },
        },
      )
    case 'score':
      return shape(line, { does: 'mark', operation: 'score', ...across })
    case 'fold':
      return shape(line, { does: 'mark', operation: 'fold', ...across })
    case 'more':
      return shape(rectangle, { does: 'add', x: mm(part.box[2] - size), y: low.y })
    case 'inside':
      return shape({ kind: 'disc', diameter: mm(Math.max(width, height)) }, { does: 'keep', ...middle })
    case 'outline':
      return shape({ kind: 'outline', nodes: triangle(part.box, size) }, { does: 'cut' })
    case 'file':
      return shape({ kind: 'imported', file: other }, { does: 'cut' })
    case 'part':
      return shape({ kind: 'part', part: other }, { does: 'cut' })
    case 'corner':
      return { kind: 'corner', corners: part.corners.slice(0, 1), size: mm(3) }
    case 'corners':
      return { kind: 'corner', which: 'all', size: mm(3) }
    case 'repeat':
      return {
        kind: 'repeat',
        pattern: { kind: 'grid', columns: 2, rows: 1, dx: mm(part.box[2] - part.box[0]), dy: mm(0) },
      }
    case 'mirror':
      return { kind: 'mirror', x: mm(part.box[2]), y: mm(part.box[1]) }
    case 'grow':
      return { kind: 'grow', by: mm(1) }
    case 'turn':
      return { kind: 'turn', turn: 90 }
    case 'bend':
      return { kind: 'bend', ...across, ...end }
  }
}

const BESIDE_MM = 10

/** The same step beside those that start at its place: one on top of another would look like one. */
export function besideOthers(step: Document, others: readonly Document[]): Document {
  const place = ({ x, y, from_x, from_y }: Document) => JSON.stringify([x, y, from_x || '', from_y || ''])
  const taken = new Set(others.map(place))
  const x = step['x'] as { text: string } | undefined
  if (!x || !step['y']) return step
  for (let count = 0; count <= others.length; count++) {
    const moved = { ...step, x: mm(Number(x.text) + BESIDE_MM * count) }
    if (!taken.has(place(moved))) return moved
  }
  return step
}

/** A part to begin with: a loose rectangle. */
export function newPart(title: string, board: string): Document {
  const blank = { kind: 'rectangle', width: mm(100), height: mm(60) }
  return { title, board, loose: 1, steps: [{ kind: 'shape', id: 'blank', shape: blank }] }
}

function shape(one: Shape, values: Document): Document {
  return { kind: 'shape', shape: one, ...values }
}

function sizeOf(box: Box): [number, number] {
  return [box[2] - box[0], box[3] - box[1]]
}

function triangle(box: Box, size: number): Document[] {
  const [x, y] = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2]
  const places = [
    [x - size, y - size / 2],
    [x + size, y - size / 2],
    [x, y + size / 2],
  ] as const
  return places.map(([px, py], i) => ({ id: `n${i + 1}`, x: mm(px), y: mm(py) }))
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
