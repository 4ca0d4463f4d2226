import { overlap, type Box, type Point } from './view'

/** Where names are written on a drawing: in the part where there is room, else beside it with a line to it, else a number in its
 * place and the names in a list below. Everything is in px on the screen, y down, boxes as left, top, right, bottom. */
export interface Named {
  key: string
  text: string
  /** What is said with it where there is room for both. */
  note?: string
  /** What it is the name of. */
  box: Box
  /** Where in it nothing else is drawn; null where that is nowhere. */
  room: Box | null
}

/** The same of what is drawn: its boxes are in mm, y up. */
export interface Label extends Named {
  wrong?: boolean
  selected?: boolean
}

export interface Name {
  key: string
  /** What is written there: the name, or the number under which the list has it; which is left away where not even that has room. */
  text: string
  note: string
  at: Point
  anchor: 'start' | 'middle' | 'end'
  /** From the part to a name beside it. */
  leader?: readonly [Point, Point]
}

export interface Names {
  names: Name[]
  /** What numbers stand for. */
  list: { number: number; text: string; note: string }[]
}

const LINE_PX = 17
const PAD_PX = 4
const AWAY_PX = 10

const width = ([left, , right]: Box) => right - left
const height = ([, top, , bottom]: Box) => bottom - top
const middle = ([left, top, right, bottom]: Box): Point => [(left + right) / 2, (top + bottom) / 2]
const within = (a: Box, b: Box) => a[0] >= b[0] && a[1] >= b[1] && a[2] <= b[2] && a[3] <= b[3]
const around = ([x, y]: Point, wide: number, anchor: Name['anchor']): Box => {
  const left = anchor === 'start' ? x : anchor === 'end' ? x - wide : x - wide / 2
  return [left, y - LINE_PX / 2, left + wide, y + LINE_PX / 2]
}

/** Beside a part: right, left, above, below. */
function* beside(box: Box): Generator<{ at: Point; anchor: Name['anchor']; from: Point }> {
  const [x, y] = middle(box)
  yield { at: [box[2] + AWAY_PX, y], anchor: 'start', from: [box[2], y] }
  yield { at: [box[0] - AWAY_PX, y], anchor: 'end', from: [box[0], y] }
  yield { at: [x, box[1] - AWAY_PX - LINE_PX / 2], anchor: 'middle', from: [x, box[1]] }
  yield { at: [x, box[3] + AWAY_PX + LINE_PX / 2], anchor: 'middle', from: [x, box[3]] }
}

/** `wide` says how wide a text is; nothing is written over `taken`, nor outside of `bounds`. */
export function placeNames(
  named: readonly Named[],
  bounds: Box,
  wide: (text: string) => number,
  taken: readonly Box[] = [],
): Names {
  const written = [...taken]
  const free = (box: Box) => within(box, bounds) && !written.some((other) => overlap(box, other))
  const parts = named.map(({ box }) => box)
  const names = new Map<string, Name>()
  const add = (one: Named, name: Omit<Name, 'key'>, box: Box) => {
    written.push(box)
    names.set(one.key, { key: one.key, ...name })
  }
  const left: Named[] = []
  for (const one of named) {
    const { room, text } = one
    const fits = (note: string): boolean => {
      if (!room || width(room) < wide(text + note) + 2 * PAD_PX || height(room) < LINE_PX) return false
      const at = middle(room)
      const box = around(at, wide(text + note), 'middle')
      if (free(box)) add(one, { text, note, at, anchor: 'middle' }, box)
      return names.has(one.key)
    }
    if (!(one.note && fits(one.note)) && !fits('')) left.push(one)
  }
  const unnamed: Named[] = []
  for (const one of left) {
    const spot = [...beside(one.box)].find(({ at, anchor }) => {
      const box = around(at, wide(one.text), anchor)
      return free(box) && !parts.some((other) => overlap(box, other))
    })
    if (!spot) unnamed.push(one)
    else {
      const { at, anchor, from } = spot
      const to: Point =
        anchor === 'middle' ? [at[0], at[1] + (from[1] < at[1] ? -1 : 1) * (LINE_PX / 2 - 2)] : at
      add(
        one,
        { text: one.text, note: '', at, anchor, leader: [from, to] },
        around(at, wide(one.text), anchor),
      )
    }
  }
  const numbers = new Map([...new Set(unnamed.map(({ text }) => text))].map((text, i) => [text, i + 1]))
  for (const one of unnamed) {
    const number = String(numbers.get(one.text))
    const at = middle(one.room ?? one.box)
    const box = around(at, wide(number), 'middle')
    if (free(box)) add(one, { text: number, note: '', at, anchor: 'middle' }, box)
  }
  const noteOf = (text: string) => unnamed.find((one) => one.text === text)?.note ?? ''
  return {
    names: [...names.values()],
    list: [...numbers].map(([text, number]) => ({ number, text, note: noteOf(text) })),
  }
}

/** A box on the drawing, y up, as it is seen. */
export function seen([left, low, right, high]: readonly number[], at: (point: Point) => Point): Box {
  const [a, b] = [at([left!, high!]), at([right!, low!])]
  return [a[0], a[1], b[0], b[1]]
}
