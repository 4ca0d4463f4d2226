import type { Step } from '../api/client'
import type { Point } from './view'

type Size = Step['sizes'][number]

/** A size's line on the screen: its two ends, the feet that it comes from, and where its number stands. */
export interface SizeLine {
  from: Point
  to: Point
  feet: string
  middle: Point
}

/** What a number takes on the screen: lines are never nearer to each other than that. */
const [NUMBER_PX, LINE_PX] = [92, 30]
const BELOW_PX = 24
const RIGHT_PX = 44
const MOST_ROWS = 6

type Way = Pick<SizeLine, 'from' | 'to' | 'middle'>

/** Where the line of a size may run and its number stand, the best first. */
function* ways(size: Size, a: Point, b: Point): Generator<Way> {
  const middle = (from: Point, to: Point, share = 0.5): Point => [
    from[0] + (to[0] - from[0]) * share,
    from[1] + (to[1] - from[1]) * share,
  ]
  const moved = ([x, y]: Point, dx: number, dy: number): Point => [x + dx, y + dy]
  if (size.side !== 'along') {
    for (let row = 0; row < MOST_ROWS; row++) {
      const off: Point =
        size.side === 'below' ? [0, BELOW_PX + row * LINE_PX] : [RIGHT_PX + row * NUMBER_PX, 0]
      const [from, to] = [moved(a, ...off), moved(b, ...off)]
      for (const share of row ? [0.5] : [0.5, 0.25, 0.75]) yield { from, to, middle: middle(from, to, share) }
    }
    return
  }
  // A number on its own line stands beside it, so that what it measures can be seen.
  const flat = Math.abs(b[0] - a[0]) >= Math.abs(b[1] - a[1])
  for (let row = 0; row < MOST_ROWS; row++)
    for (const sense of [1, -1])
      for (const share of [0.5, 0.2, 0.8]) {
        const off: Point = flat ? [0, -sense * (16 + row * LINE_PX)] : [sense * (30 + row * NUMBER_PX), 0]
        yield { from: a, to: b, middle: moved(middle(a, b, share), ...off) }
      }
}

const apart = (one: Point, other: Point) =>
  Math.abs(one[0] - other[0]) >= NUMBER_PX || Math.abs(one[1] - other[1]) >= LINE_PX

/** Lines and numbers of sizes, no number on another: of several that want one place the later ones make room. */
export function sizeLines(sizes: readonly Size[], place: Point, at: (point: Point) => Point): SizeLine[] {
  const taken: Point[] = []
  return sizes.map((size) => {
    const seen = ([x, y]: readonly number[]) => at([x! + place[0], y! + place[1]])
    const [a, b] = [seen(size.start), seen(size.end)]
    const all = [...ways(size, a, b)]
    const way = all.find(({ middle }) => taken.every((one) => apart(one, middle))) ?? all[0]!
    taken.push(way.middle)
    const feet =
      size.side === 'along' ? '' : `M${a.join(' ')}L${way.from.join(' ')}M${b.join(' ')}L${way.to.join(' ')}`
    return { ...way, feet }
  })
}
