import earcut from 'earcut'

import type { Triple } from './standing'

/** Boards as solids, and the eye that looks at them without perspective, so that lengths compare. */

export type Ring = readonly (readonly [number, number])[]

/** Areas in the board's plane between two depths behind its face: an outline and its holes. */
export interface Slice {
  low: number
  high: number
  rings: readonly Ring[]
}

/** A flat part where it stands: slices that lie on each other, and every face that is parallel to the board's, of one depth. */
export interface Board {
  slices: readonly Slice[]
  faces: readonly Slice[]
  origin: Triple
  u: Triple
  v: Triple
  n: Triple
}

/** Nine numbers a triangle, six an edge that is seen as a line; `caps` are how many of the triangles lie in a face. */
export interface Solid {
  triangles: Float64Array
  caps: number
  edges: Float64Array
  middle: Triple
}

/** Where a wall of a round hole bends by less than this no line is drawn. */
const SMOOTH = Math.cos((25 * Math.PI) / 180)

/** A board that is as thick everywhere. */
export function even(rings: readonly Ring[], thickness: number): Pick<Board, 'slices' | 'faces'> {
  const at = (low: number, high: number) => ({ low, high, rings })
  return { slices: [at(0, thickness)], faces: [at(0, 0), at(thickness, thickness)] }
}

export function solidOf(board: Board): Solid {
  const place = (x: number, y: number, depth: number): Triple => [
    board.origin[0] + x * board.u[0] + y * board.v[0] - depth * board.n[0],
    board.origin[1] + x * board.u[1] + y * board.v[1] - depth * board.n[1],
    board.origin[2] + x * board.u[2] + y * board.v[2] - depth * board.n[2],
  ]
  const triangles: number[] = []
  const edges: number[] = []
  for (const { rings, low } of board.faces) {
    const flat = rings.flat().flatMap(([x, y]) => [x, y])
    const starts: number[] = []
    rings.slice(0, -1).reduce((at, ring) => (starts.push(at + ring.length), at + ring.length), 0)
    for (const i of earcut(flat, starts)) triangles.push(...place(flat[2 * i]!, flat[2 * i + 1]!, low))
    for (const ring of rings) {
      ring.forEach(([x, y], i) => edges.push(...place(x, y, low), ...place(...ring[(i + 1) % ring.length]!, low)))
    }
  } // prettier-ignore
  const caps = triangles.length / 9
  for (const { rings, low, high } of board.slices) {
    for (const ring of rings) {
      ring.forEach(([x, y], i) => {
        const [x1, y1] = ring[(i + 1) % ring.length]!
        const [x0, y0] = ring[(i + ring.length - 1) % ring.length]!
        const [a, b] = [place(x, y, low), place(x1, y1, low)]
        const [c, d] = [place(x1, y1, high), place(x, y, high)]
        triangles.push(...a, ...b, ...c, ...a, ...c, ...d)
        const before = Math.hypot(x - x0, y - y0) || 1
        const after = Math.hypot(x1 - x, y1 - y) || 1
        const turn = ((x - x0) * (x1 - x) + (y - y0) * (y1 - y)) / before / after
        if (turn < SMOOTH) edges.push(...a, ...d)
      })
    }
  }
  const points = board.faces.flatMap(({ rings }) => rings[0] ?? [])
  const depths = board.faces.map(({ low }) => low)
  const half = (of: readonly number[]) => (Math.min(...of) + Math.max(...of)) / 2
  const middle = place(half(points.map(([x]) => x)), half(points.map(([, y]) => y)), half(depths))
  return { triangles: new Float64Array(triangles), caps, edges: new Float64Array(edges), middle }
}

/** Degrees: `turn` round the upright axis, 0 from the front, 90 from the right; `tilt` up, 90 from above. */
export interface Eye {
  turn: number
  tilt: number
}

/** Unit vectors on the picture to the right and up, and towards the eye. */
export interface Axes {
  right: Triple
  up: Triple
  near: Triple
}

export function axesOf({ turn, tilt }: Eye): Axes {
  const [t, l] = [(turn * Math.PI) / 180, (tilt * Math.PI) / 180]
  const [ct, st, cl, sl] = [Math.cos(t), Math.sin(t), Math.cos(l), Math.sin(l)]
  return { right: [ct, st, 0], up: [-sl * st, sl * ct, cl], near: [cl * st, -cl * ct, sl] }
}

export const along = (a: Triple, b: Triple): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** The box round some solids on the picture: left, low, right, high in mm. */
export function boxOnPicture(solids: readonly { solid: Solid; off: Triple }[], axes: Axes) {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const { solid, off } of solids) {
    const [dx, dy] = [along(off, axes.right), along(off, axes.up)]
    const { edges } = solid
    for (let i = 0; i < edges.length; i += 3) {
      const p: Triple = [edges[i]!, edges[i + 1]!, edges[i + 2]!]
      const [x, y] = [along(p, axes.right) + dx, along(p, axes.up) + dy]
      left = Math.min(left, x)
      right = Math.max(right, x)
      low = Math.min(low, y)
      high = Math.max(high, y)
    }
  }
  return left <= right ? ([left, low, right, high] as const) : ([0, 0, 1, 1] as const)
}
