import type { LineOnPart, PointOnPart } from '../api/client'
import type { Point } from './view'

/** Two things of a part that are measured between, as they lie. */
export type Thing = { kind: 'point'; of: PointOnPart } | { kind: 'line'; of: LineOnPart }

/** From one place to another, with what lies between them in mm; two edges that are not parallel have none. */
export interface Between {
  from: Point
  to: Point
  distance: number
  dx: number
  dy: number
}

const PARALLEL = 1e-6

/** The shortest way between two things: from a point square to an edge's line, between parallel edges square to both. */
export function between(a: Thing, b: Thing): Between | null {
  if (a.kind === 'point' && b.kind === 'point') return way(a.of.at, b.of.at)
  if (a.kind === 'line' && b.kind === 'line') {
    const [ax, ay] = along(a.of)
    const [bx, by] = along(b.of)
    if (Math.abs(ax * by - ay * bx) > PARALLEL) return null
    return way(middle(a.of), foot(middle(a.of), b.of))
  }
  const [point, line] = a.kind === 'point' ? [a.of, b.of as LineOnPart] : [b.of as PointOnPart, a.of]
  const place = point.at
  const there = foot(place, line)
  return a.kind === 'point' ? way(place, there) : way(there, place)
}

const way = (from: Point, to: Point): Between => {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  return { from, to, distance: Math.hypot(dx, dy), dx, dy }
}
const middle = ({ ends: [x0, y0, x1, y1] }: LineOnPart): Point => [(x0! + x1!) / 2, (y0! + y1!) / 2]

function along({ ends: [x0, y0, x1, y1] }: LineOnPart): Point {
  const length = Math.hypot(x1! - x0!, y1! - y0!)
  return [(x1! - x0!) / length, (y1! - y0!) / length]
}

function foot(point: Point, line: LineOnPart): Point {
  const [ux, uy] = along(line)
  const [x0, y0] = line.ends
  const share = (point[0] - x0!) * ux + (point[1] - y0!) * uy
  return [x0! + share * ux, y0! + share * uy]
}
