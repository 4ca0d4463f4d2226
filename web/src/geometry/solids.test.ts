import { describe, expect, it } from 'vitest'

import { Raster, onPicture, type Camera, type Drawn } from './raster'
import { axesOf, boxOnPicture, even, solidOf, type Board } from './solids'
import type { Triple } from './standing'

/** A board of 40 x 20, 4 thick, its face to the front. */
const OUTLINE = [[0, 0], [40, 0], [40, 20], [0, 20]] as const // prettier-ignore
const board = (more: Partial<Board> = {}): Board => ({
  ...even([OUTLINE], 4),
  origin: [0, 0, 0],
  u: [1, 0, 0],
  v: [0, 0, 1],
  n: [0, -1, 0],
  ...more,
}) // prettier-ignore

const HOLE = [[10, 5], [10, 15], [20, 15], [20, 5]] as const // prettier-ignore

/** Twice the area of all triangles, and what they enclose by the divergence theorem, whichever way they go round. */
function areaOf({ triangles }: { triangles: Float64Array }): number {
  let area = 0
  for (let i = 0; i < triangles.length; i += 9) {
    const [a, b, c] = [0, 3, 6].map((k) => Array.from(triangles.slice(i + k, i + k + 3))) as [number[], number[], number[]]
    const [p, q] = [b.map((x, k) => x - a[k]!), c.map((x, k) => x - a[k]!)]
    area += Math.hypot(p[1]! * q[2]! - p[2]! * q[1]!, p[2]! * q[0]! - p[0]! * q[2]!, p[0]! * q[1]! - p[1]! * q[0]!) / 2
  }
  return area
} // prettier-ignore

const camera = (turn: number, tilt: number): Camera => ({
  axes: axesOf({ turn, tilt }),
  scale: 2,
  x: 20,
  y: 80,
})
const drawn = (solid: Drawn['solid'], more: Partial<Drawn> = {}): Drawn => ({
  solid,
  off: [0, 0, 0],
  face: 0xaa0000,
  side: 0x00aa00,
  cut: 0x0000aa,
  line: 0x111111,
  clear: false,
  ...more,
})

describe('a board as a solid', () => {
  it('has two faces and its sides, by closed form', () => {
    expect(areaOf(solidOf(board()))).toBeCloseTo(2 * 40 * 20 + 2 * (40 + 20) * 4, 9)
    expect(areaOf(solidOf(board(even([OUTLINE, HOLE], 4))))).toBeCloseTo(
      2 * (800 - 100) + 2 * 60 * 4 + 40 * 4,
      9,
    )
  })

  it('has a floor and walls where something is sunk into it', () => {
    // A groove 10 wide and 1 deep from end to end across the middle.
    const strip = (x: number, w: number) => [[x, 0], [x + w, 0], [x + w, 20], [x, 20]] as const // prettier-ignore
    const [left, right, groove] = [strip(0, 15), strip(25, 15), strip(15, 10)]
    const at = (ring: typeof left, low: number, high = low) => ({ low, high, rings: [ring] })
    const grooved = solidOf(board({
      slices: [at(left, 0, 1), at(right, 0, 1), at(OUTLINE, 1, 4)],
      faces: [at(left, 0), at(right, 0), at(groove, 1), at(OUTLINE, 4)],
    })) // prettier-ignore
    expect(areaOf(grooved)).toBeCloseTo(2 * 800 + 2 * 40 * 4 - 2 * 10 + 2 * 20 * 4 + 2 * 20, 9)
    expect(grooved.middle).toEqual(solidOf(board()).middle)
  })

  it('draws no line where a round wall goes on, and one at each corner', () => {
    const circle = Array.from({ length: 60 }, (_, i) => [Math.cos((i * Math.PI) / 30) * 9, Math.sin((i * Math.PI) / 30) * 9] as const) // prettier-ignore
    const uprights = (solid: Drawn['solid']) => {
      let count = 0
      for (let i = 0; i < solid.edges.length; i += 6) if (solid.edges[i + 1] !== solid.edges[i + 4]) count++
      return count
    }
    expect(uprights(solidOf(board(even([circle], 4))))).toBe(0)
    expect(uprights(solidOf(board()))).toBe(4)
  })
})

describe('the eye', () => {
  it.each([
    [0, 0, [1, 0, 0], [0, 0, 1]],
    [90, 0, [0, 1, 0], [0, 0, 1]],
    [0, 90, [1, 0, 0], [0, 1, 0]],
  ])('at %s and %s has its right and up where they belong', (turn, tilt, right, up) => {
    const axes = axesOf({ turn, tilt })
    axes.right.forEach((x, i) => expect(x).toBeCloseTo(right[i]!, 12))
    axes.up.forEach((x, i) => expect(x).toBeCloseTo(up[i]!, 12))
  })

  it('keeps lengths along its own picture', () => {
    const [left, low, right, high] = boxOnPicture([{ solid: solidOf(board()), off: [0, 0, 0] }], axesOf({ turn: 0, tilt: 0 })) // prettier-ignore
    expect([left, low, right, high]).toEqual([0, 0, 40, 20])
  })
})

describe('pixels', () => {
  it('belong to what is nearest, from the front and from behind', () => {
    const raster = new Raster(120, 100)
    const [near, far] = [solidOf(board()), solidOf(board({ origin: [0, 10, 0] }))]
    const middle = (turn: number) => {
      const view = camera(turn, 0)
      raster.draw([drawn(near), drawn(far)], { ...view, x: turn ? 100 : 20 }, null)
      return raster.at(60, 60)
    }
    expect(middle(0)).toBe(0)
    expect(middle(180)).toBe(1)
    expect(raster.at(2, 2)).toBe(-1)
    expect(raster.at(-5, 3)).toBe(-1)
  })

  it('of two that cross belong to either on its own side', () => {
    const raster = new Raster(160, 160)
    const one = solidOf(board())
    // Its face looks to the right: it goes through the first one's middle, from front to back.
    const two = solidOf(board({ origin: [22, -18, 0], u: [0, 1, 0], n: [1, 0, 0] }))
    const view = { ...camera(30, 20), x: 60, y: 110 }
    raster.draw([drawn(one), drawn(two)], view, null)
    const at = (place: Triple) => raster.at(...onPicture(place, view))
    expect(at([22, -14, 12])).toBe(1)
    expect(at([6, 0, 10])).toBe(0)
    expect(at([36, 0, 10])).toBe(0)
  })

  it('of a clear board are tinted over what lies behind it', () => {
    const raster = new Raster(120, 100)
    const [near, far] = [solidOf(board()), solidOf(board({ origin: [0, 10, 0] }))]
    raster.draw([drawn(near, { clear: true, face: 0x0000ff }), drawn(far)], camera(0, 0), null)
    const pixel = raster.pixels[60 * 120 + 60]!
    expect(pixel & 0xff).toBeGreaterThan(20) // red of the far one
    expect((pixel >> 16) & 0xff).toBeGreaterThan(100) // blue of the clear one
  })

  it('of a section show the cut, and nothing before it', () => {
    const raster = new Raster(120, 100)
    const one = solidOf(board(even([OUTLINE, HOLE], 4)))
    const section = { way: [0, -1, 0] as Triple, at: -2 }
    raster.draw([drawn(one)], camera(0, 0), section)
    const red = (x: number, z: number) => raster.pixels[(80 - 2 * z) * 120 + 20 + 2 * x]!
    expect((red(30, 10) >> 16) & 0xff).toBe(0xaa) // the cut's blue
    expect(red(15, 10)).toBe(0) // the hole goes right through
  })
})
