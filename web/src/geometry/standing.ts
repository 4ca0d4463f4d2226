import { overlap, type Box, type Point } from './view'

/** Panels in space, drawn from the front, above and to the right, without perspective, so that lengths compare. */

export type Triple = readonly [number, number, number]

/** A place or a way, axis by axis. */
export const triple = (of: (axis: number) => number): Triple => [of(0), of(1), of(2)]

export interface Slab {
  origin: Triple
  u: Triple
  v: Triple
  n: Triple
  thickness: number
  outline: readonly Point[]
  holes?: readonly (readonly Point[])[]
}

interface Face {
  kind: 'face' | 'edge'
  points: Point[]
}

const TURN = (-35 * Math.PI) / 180
const TILT = (28 * Math.PI) / 180

/** Towards the eye. */
const EYE: Triple = [-Math.sin(TURN) * Math.cos(TILT), -Math.cos(TURN) * Math.cos(TILT), Math.sin(TILT)]

/** On the picture, in mm, y up. */
function project([x, y, z]: Triple): Point {
  const across = x * Math.cos(TURN) - y * Math.sin(TURN)
  const away = x * Math.sin(TURN) + y * Math.cos(TURN)
  return [across, z * Math.cos(TILT) + away * Math.sin(TILT)]
}

/** What one panel looks like as it stands: path data in mm, y up, of what is painted first, next and last. */
export interface Drawn {
  back: string
  edges: string
  face: string
}

export interface Sketch {
  drawn: Drawn[]
  box: Box
}

/** Panels as few paths, to be painted one after the other, and the box around them all. */
export function sketch(panels: readonly Slab[]): Sketch {
  const [xs, ys]: [number[], number[]] = [[], []]
  const path = (points: readonly Point[]) => {
    for (const [x, y] of points) {
      xs.push(x)
      ys.push(y)
    }
    return `M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`
  }
  const drawn = farFirst(panels).map((panel) => {
    const faces = facesOf(panel)
    const loops = (depth: number) =>
      [panel.outline, ...(panel.holes ?? [])]
        .map((loop) => path(loop.map((p) => project(place(panel, p, depth)))))
        .join('')
    const seen = dot(panel.n, EYE) > 0
    return {
      back: loops(seen ? panel.thickness : 0),
      edges: faces.filter(({ kind }) => kind === 'edge').map(({ points }) => path(points)).join(''), // prettier-ignore
      face: loops(seen ? 0 : panel.thickness),
    }
  })
  const box: Box = xs.length
    ? [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]
    : [0, 0, 0, 0]
  return { drawn, box }
}

/** Pairs are compared only up to here; beyond, the middles tell. */
const MOST_COMPARED = 150

/** Panels in the order in which each is painted after whatever it hides. Of two, one lies wholly on one side of the other's
 * board; where neither does, the further middle goes first. */
function farFirst<T extends Slab>(panels: readonly T[]): T[] {
  const depths = new Map(panels.map((panel) => [panel, depthOf(panel)]))
  const byDepth = [...panels].sort((a, b) => depths.get(a)! - depths.get(b)!)
  if (panels.length > MOST_COMPARED) return byDepth
  const corners = new Map<Slab, Triple[]>(panels.map((panel) => [panel, innerCorners(panel)]))
  const boxes = new Map<Slab, Box>(panels.map((panel) => [panel, boxOnPicture(panel)]))
  const ordered: T[] = []
  const left = new Set(byDepth)
  while (left.size) {
    const waiting = [...left]
    const free = (a: T) =>
      !waiting.some((b) => b !== a && overlap(boxes.get(a)!, boxes.get(b)!) && hides(a, b, corners))
    const next = waiting.find(free) ?? waiting[0]!
    ordered.push(next)
    left.delete(next)
  }
  return ordered
}

function boxOnPicture(panel: Slab): Box {
  const points = panel.outline.flatMap((p) =>
    [0, panel.thickness].map((depth) => project(place(panel, p, depth))),
  )
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)]
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]
}

/** Whether `a` stands before `b`, so that `b` has to be painted first. */
function hides(a: Slab, b: Slab, corners: Map<Slab, Triple[]>): boolean {
  return side(b, corners.get(a)!) > 0 || side(a, corners.get(b)!) < 0
}

/** 1 if all points lie on the eye's side of a panel's board, -1 if all lie behind it, 0 if neither. */
function side(panel: Slab, points: readonly Triple[]): number {
  const facing = dot(panel.n, EYE)
  if (Math.abs(facing) < 1e-9) return 0
  const face = dot(place(panel, [0, 0], 0), panel.n)
  const before = points.every((p) => dot(p, panel.n) >= face - SLACK)
  const behind = points.every((p) => dot(p, panel.n) <= face - panel.thickness + SLACK)
  if (before === behind) return 0
  return before === facing > 0 ? 1 : -1
}

const SLACK = 0.05

/** The corners of a panel without what its joints put into others. */
function innerCorners(panel: Slab): Triple[] {
  const xs = panel.outline.map(([x]) => x)
  const ys = panel.outline.map(([, y]) => y)
  const inset = (low: number, high: number) => {
    const by = Math.min(1.2 * panel.thickness, (high - low) / 2.2)
    return [low + by, high - by] as const
  }
  const across = inset(Math.min(...xs), Math.max(...xs))
  const up = inset(Math.min(...ys), Math.max(...ys))
  return across.flatMap((x) => up.flatMap((y) => [0, panel.thickness].map((z) => place(panel, [x, y], z))))
}

function facesOf(panel: Slab): Face[] {
  const front = panel.outline.map((p) => place(panel, p, 0))
  const back = panel.outline.map((p) => place(panel, p, panel.thickness))
  const seen = dot(panel.n, EYE) > 0
  const faces: Face[] = [{ kind: 'face', points: (seen ? back : front).map(project) }]
  panel.outline.forEach(([x, y], i) => {
    const next = (i + 1) % panel.outline.length
    const [x1, y1] = panel.outline[next]!
    const outward = add(scale(panel.u, y1 - y), scale(panel.v, x - x1))
    if (dot(outward, EYE) <= 0) return
    faces.push({
      kind: 'edge',
      points: [front[i]!, front[next]!, back[next]!, back[i]!].map(project),
    })
  })
  faces.push({ kind: 'face', points: (seen ? front : back).map(project) })
  return faces
}

function place(panel: Slab, [x, y]: Point, depth: number): Triple {
  const on = add(add(panel.origin, scale(panel.u, x)), scale(panel.v, y))
  return add(on, scale(panel.n, -depth))
}

function depthOf(panel: Slab): number {
  const count = panel.outline.length
  const sum = panel.outline.reduce((total, p) => total + dot(place(panel, p, panel.thickness / 2), EYE), 0)
  return sum / count
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
