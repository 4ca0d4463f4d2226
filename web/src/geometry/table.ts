import type { Box } from './view'

/** Jobs on table edges: which scale each is drawn at, and where it stands. Lengths in mm, places in px. */

export interface Standing<T> {
  item: T
  /** px from the edge's left end, and the px that picture and words take together. */
  x: number
  width: number
}

export interface Edge<T> {
  scale: number
  height: number
  items: Standing<T>[]
}

/** Things of at most that size stand on an edge of their own, at a scale at which they can be told apart. */
export const SMALL_MM = { width: 300, height: 230 }

const GAP_PX = 26
const MOST_PX = { width: 330, height: 130 }

const wide = ([left, , right]: Box) => right - left
const high = ([, low, , top]: Box) => top - low
const isSmall = (box: Box) => wide(box) <= SMALL_MM.width && high(box) <= SMALL_MM.height

/** `things` in their order, small ones on the first edges, each edge as full as `width` px allow. `least` is what a thing's words
 * need, `px` how many pixels a mm of small things takes. */
export function onEdges<T extends { box: Box; least: number }>(
  things: readonly T[],
  width: number,
  px: number,
): Edge<T>[] {
  const small = things.filter(({ box }) => isSmall(box))
  const large = things.filter(({ box }) => !isSmall(box))
  const own = [edges(small, width, px), edges(large, width, largeScale(large, px))]
  // The first of all stands at the very front, whichever edge it is on.
  return (things[0] && !isSmall(things[0].box) ? own.reverse() : own).flat()
}

/** One scale for all large things, at which the largest of them still stands on the table. */
function largeScale(things: readonly { box: Box }[], px: number): number {
  const needed = things.map(({ box }) => Math.min(MOST_PX.width / wide(box), MOST_PX.height / high(box)))
  return Math.min(px, ...needed)
}

function edges<T extends { box: Box; least: number }>(
  things: readonly T[],
  width: number,
  scale: number,
): Edge<T>[] {
  const found: Edge<T>[] = []
  let x = Infinity
  for (const item of things) {
    const takes = Math.min(Math.max(wide(item.box) * scale + 16, item.least), width)
    if (x + takes > width) {
      found.push({ scale, height: 0, items: [] })
      x = 0
    }
    const edge = found.at(-1)!
    edge.items.push({ item, x, width: takes })
    edge.height = Math.max(edge.height, high(item.box) * scale)
    x += takes + GAP_PX
  }
  return found
}

/** A rule's marks: the distance of the short ones, and the places and numbers of the long ones, in px and the unit shown. */
export function marks(
  pxPerUnit: number,
  width: number,
): { short: number; long: { x: number; label: string }[] } {
  const power = 10 ** Math.floor(Math.log10(70 / pxPerUnit))
  const step = [1, 2, 5, 10].map((one) => one * power).find((one) => one * pxPerUnit >= 62)!
  const count = Math.floor(width / (step * pxPerUnit))
  const long = Array.from({ length: count + 1 }, (_, i) => ({
    x: i * step * pxPerUnit,
    label: String(Number((i * step).toPrecision(6))),
  }))
  return { short: (step * pxPerUnit) / 10, long }
}
