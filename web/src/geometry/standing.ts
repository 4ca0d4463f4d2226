import type { Point } from './view'

/** Panels in space, drawn from the front, above and to the right, without perspective, so that lengths compare. */

export type Triple = readonly [number, number, number]

export interface Panel {
  id: string
  origin: Triple
  u: Triple
  v: Triple
  n: Triple
  thickness: number
  outline: readonly Point[]
}

export interface Face {
  part: string
  kind: 'face' | 'edge'
  points: Point[]
}

const TURN = (-35 * Math.PI) / 180
const TILT = (28 * Math.PI) / 180

/** Towards the eye. */
const EYE: Triple = [-Math.sin(TURN) * Math.cos(TILT), -Math.cos(TURN) * Math.cos(TILT), Math.sin(TILT)]

/** On the picture, in mm, y up. */
export function project([x, y, z]: Triple): Point {
  const across = x * Math.cos(TURN) - y * Math.sin(TURN)
  const away = x * Math.sin(TURN) + y * Math.cos(TURN)
  return [across, z * Math.cos(TILT) + away * Math.sin(TILT)]
}

/** Faces to paint in order, far panels first; `apart` moves every panel outwards along its face's direction. */
export function assembled(panels: readonly Panel[], apart: number): Face[] {
  const far = panels.map((panel) => ({ panel, depth: depthOf(panel, apart) }))
  far.sort((a, b) => a.depth - b.depth)
  return far.flatMap(({ panel }) => facesOf(panel, apart))
}

function facesOf(panel: Panel, apart: number): Face[] {
  const front = panel.outline.map((p) => place(panel, p, 0, apart))
  const back = panel.outline.map((p) => place(panel, p, panel.thickness, apart))
  const seen = dot(panel.n, EYE) > 0
  const faces: Face[] = [{ part: panel.id, kind: 'face', points: (seen ? back : front).map(project) }]
  panel.outline.forEach(([x, y], i) => {
    const next = (i + 1) % panel.outline.length
    const [x1, y1] = panel.outline[next]!
    const outward = add(scale(panel.u, y1 - y), scale(panel.v, x - x1))
    if (dot(outward, EYE) <= 0) return
    faces.push({
      part: panel.id,
      kind: 'edge',
      points: [front[i]!, front[next]!, back[next]!, back[i]!].map(project),
    })
  })
  faces.push({ part: panel.id, kind: 'face', points: (seen ? front : back).map(project) })
  return faces
}

function place(panel: Panel, [x, y]: Point, depth: number, apart: number): Triple {
  const on = add(add(panel.origin, scale(panel.u, x)), scale(panel.v, y))
  return add(on, scale(panel.n, apart * lift(panel) - depth))
}

/** A base seen from above still moves down, away from what stands on it. */
function lift(panel: Panel): number {
  return panel.n[2] > 0 ? -1 : 1
}

function depthOf(panel: Panel, apart: number): number {
  const count = panel.outline.length
  const sum = panel.outline.reduce(
    (total, p) => total + dot(place(panel, p, panel.thickness / 2, apart), EYE),
    0,
  )
  // A panel that lies flat under the others goes first, however near its middle is.
  return sum / count - (panel.n[2] !== 0 ? 1e6 : 0)
}

function add(a: Triple, b: Triple): Triple {
  return [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
}

function scale(a: Triple, k: number): Triple {
  return [a[0] * k, a[1] * k, a[2] * k]
}

export function dot(a: Triple, b: Triple): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}
