import type { Step } from '../api/client'
import type { Point } from './view'

type Size = Step['sizes'][number]

const BELOW_PX = 24
const RIGHT_PX = 44

/** A size's line on the screen: its two ends, and where its number stands. */
export function lineOf(
  size: Size,
  place: Point,
  at: (point: Point) => Point,
): { from: Point; to: Point; feet: string; middle: Point } {
  const moved = ([x, y]: readonly number[]) => at([x! + place[0], y! + place[1]])
  const [a, b] = [moved(size.start), moved(size.end)]
  const off: Point = { below: [0, BELOW_PX] as const, right: [RIGHT_PX, 0] as const, along: [0, 0] as const }[
    size.side
  ]
  // A number on its own line stands beside it, so that what it measures can be seen.
  const flat = Math.abs(b[0] - a[0]) >= Math.abs(b[1] - a[1])
  const aside: Point = size.side !== 'along' ? [0, 0] : flat ? [0, -16] : [30, 0]
  const from: Point = [a[0] + off[0], a[1] + off[1]]
  const to: Point = [b[0] + off[0], b[1] + off[1]]
  const feet = size.side === 'along' ? '' : `M${a.join(' ')}L${from.join(' ')}M${b.join(' ')}L${to.join(' ')}`
  return { from, to, feet, middle: [(from[0] + to[0]) / 2 + aside[0], (from[1] + to[1]) / 2 + aside[1]] }
}
