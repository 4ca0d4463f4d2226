import { along, type Axes, type Solid } from './solids'
import type { Triple } from './standing'

/** Solids as pixels, each with how near it is, so that what crosses is drawn right from every side, without a graphics card. */

export interface Drawn {
  solid: Solid
  /** How far it is moved, as when everything is drawn apart. */
  off: Triple
  /** 0xRRGGBB of its faces, of its sides, of what a section cuts, and of its lines. */
  face: number
  side: number
  cut: number
  line: number
  /** Clear boards are tinted over what lies behind them. */
  clear: boolean
}

export interface Camera {
  axes: Axes
  /** px a mm, and where the origin lies on the picture. */
  scale: number
  x: number
  y: number
  /** How many px wide lines are; 1 where it is not said. */
  pen?: number
}

/** What lies nearer to the eye than `at`, in mm along `way`, is cut away. */
export interface Section {
  way: Triple
  at: number
}

const CLEAR_SHARE = 0.42
/** Lines lie this far before the faces that they bound, in mm, and a pixel's slope more. */
const BEFORE_MM = 0.12

export class Raster {
  readonly pixels: Uint32Array
  /** Whose pixel it is: its number among the drawn, from 1; 0 is the paper. */
  readonly owner: Uint16Array
  private readonly depth: Float32Array
  /** Of the solid that is being drawn: whether an odd number of its faces was cut away there, so that the section shows. */
  private readonly odd: Uint8Array

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.pixels = new Uint32Array(width * height)
    this.owner = new Uint16Array(width * height)
    this.depth = new Float32Array(width * height)
    this.odd = new Uint8Array(width * height)
  }

  draw(all: readonly Drawn[], camera: Camera, section: Section | null): void {
    this.pixels.fill(0)
    this.owner.fill(0)
    this.depth.fill(-Infinity)
    for (const clear of [false, true]) {
      all.forEach((one, i) => one.clear === clear && this.faces(one, i + 1, camera, section))
      all.forEach((one) => one.clear === clear && this.lines(one, camera, section))
    }
  }

  /** Whose pixel lies there, from 0; -1 for the paper. */
  at(x: number, y: number): number {
    const [i, j] = [Math.round(x), Math.round(y)]
    if (i < 0 || j < 0 || i >= this.width || j >= this.height) return -1
    return this.owner[j * this.width + i]! - 1
  }

  private faces(one: Drawn, owner: number, camera: Camera, section: Section | null): void {
    const { triangles, caps } = one.solid
    const p = new Float64Array(12)
    for (let i = 0; i < triangles.length; i += 9) {
      for (let k = 0; k < 3; k++) this.place(triangles, i + 3 * k, one.off, camera, section, p, 4 * k)
      this.triangle(p, i / 9 < caps ? one.face : one.side, one, owner)
    }
    if (section) this.cutFace(one, owner, camera, section)
  }

  /** Where the section goes through the solid, its cut is seen. */
  private cutFace(one: Drawn, owner: number, { axes, scale, x, y }: Camera, { way, at }: Section): void {
    const { width, odd, depth, pixels, owner: owners } = this
    const facing = along(way, axes.near)
    const [right, up] = [along(way, axes.right), along(way, axes.up)]
    const value = rgba(one.cut)
    for (let i = 0; i < odd.length; i++) {
      if (!odd[i]) continue
      odd[i] = 0
      if (facing < 1e-6) continue
      const mm = [((i % width) + 0.5 - x) / scale, (y - Math.floor(i / width) - 0.5) / scale] as const
      const z = (at - mm[0] * right - mm[1] * up) / facing
      if (z <= depth[i]!) continue
      pixels[i] = value
      depth[i] = z
      owners[i] = owner
    }
  }

  /** x, y and nearness on the picture, and how far before the section. */
  private place(
    from: Float64Array,
    i: number,
    off: Triple,
    { axes, scale, x, y }: Camera,
    section: Section | null,
    into: Float64Array,
    at: number,
  ): void {
    // Written out: this and the next run some hundred thousand times a picture.
    const a = from[i]! + off[0]
    const b = from[i + 1]! + off[1]
    const c = from[i + 2]! + off[2]
    const { right, up, near } = axes
    into[at] = x + scale * (a * right[0] + b * right[1] + c * right[2])
    into[at + 1] = y - scale * (a * up[0] + b * up[1] + c * up[2])
    into[at + 2] = a * near[0] + b * near[1] + c * near[2]
    into[at + 3] = section ? a * section.way[0] + b * section.way[1] + c * section.way[2] - section.at : -1
  }

  private triangle(p: Float64Array, colour: number, one: Drawn, owner: number): void {
    const x0 = p[0]!, y0 = p[1]!, z0 = p[2]!, s0 = p[3]! // prettier-ignore
    const x1 = p[4]!, y1 = p[5]!, z1 = p[6]!, s1 = p[7]! // prettier-ignore
    const x2 = p[8]!, y2 = p[9]!, z2 = p[10]!, s2 = p[11]! // prettier-ignore
    const area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
    if (Math.abs(area) < 1e-9) return
    const top = Math.max(0, Math.ceil(Math.min(y0, y1, y2) - 0.5))
    const bottom = Math.min(this.height - 1, Math.floor(Math.max(y0, y1, y2) - 0.5))
    if (top > bottom) return
    const cutting = s0 > 0 || s1 > 0 || s2 > 0
    const { width, depth, pixels, owner: owners, odd } = this
    const value = rgba(colour)
    // How x changes with y along the sides, and z and s with x and y.
    const k0 = (x1 - x0) / (y1 - y0)
    const k1 = (x2 - x1) / (y2 - y1)
    const k2 = (x0 - x2) / (y0 - y2)
    const zx = ((z1 - z0) * (y2 - y0) - (z2 - z0) * (y1 - y0)) / area
    const zy = ((z2 - z0) * (x1 - x0) - (z1 - z0) * (x2 - x0)) / area
    const sx = ((s1 - s0) * (y2 - y0) - (s2 - s0) * (y1 - y0)) / area
    const sy = ((s2 - s0) * (x1 - x0) - (s1 - s0) * (x2 - x0)) / area
    for (let j = top; j <= bottom; j++) {
      const y = j + 0.5
      let from = Infinity
      let to = -Infinity
      if (y0 > y !== y1 > y) from = to = x0 + (y - y0) * k0
      if (y1 > y !== y2 > y) {
        const x = x1 + (y - y1) * k1
        if (x < from) from = x
        if (x > to) to = x
      }
      if (y2 > y !== y0 > y) {
        const x = x2 + (y - y2) * k2
        if (x < from) from = x
        if (x > to) to = x
      }
      const first = Math.max(0, Math.ceil(from - 0.5))
      const last = Math.min(width - 1, Math.floor(to - 0.5))
      let z = z0 + (first + 0.5 - x0) * zx + (y - y0) * zy
      let s = s0 + (first + 0.5 - x0) * sx + (y - y0) * sy
      for (let i = j * width + first; i <= j * width + last; i++, z += zx, s += sx) {
        if (cutting && s > 0) {
          odd[i] = odd[i]! ^ 1
          continue
        }
        if (z <= depth[i]!) continue
        if (one.clear) pixels[i] = mixed(pixels[i]!, value, CLEAR_SHARE)
        else {
          pixels[i] = value
          depth[i] = z
        }
        owners[i] = owner
      }
    }
  }

  private lines(one: Drawn, camera: Camera, section: Section | null): void {
    const { edges } = one.solid
    const p = new Float64Array(8)
    const value = rgba(one.line)
    const { width, height, depth, pixels } = this
    const pen = camera.pen ?? 1
    const before = BEFORE_MM + (0.8 * pen) / camera.scale
    for (let i = 0; i < edges.length; i += 6) {
      this.place(edges, i, one.off, camera, section, p, 0)
      this.place(edges, i + 3, one.off, camera, section, p, 4)
      const dx = p[4]! - p[0]!
      const dy = p[5]! - p[1]!
      const dz = p[6]! - p[2]!
      const ds = p[7]! - p[3]!
      const steep = Math.abs(dy) > Math.abs(dx)
      const steps = Math.max(1, Math.ceil(Math.max(Math.abs(dx), Math.abs(dy))))
      for (let k = 0; k <= steps; k++) {
        const share = k / steps
        if (p[3]! + share * ds > 0) continue
        const x = Math.floor(p[0]! + share * dx)
        const y = Math.floor(p[1]! + share * dy)
        const z = p[2]! + share * dz + before
        for (let w = 0; w < pen; w++) {
          const i = steep ? x + w : x
          const j = steep ? y : y + w
          if (i < 0 || j < 0 || i >= width || j >= height) continue
          const at = j * width + i
          if (z >= depth[at]!) pixels[at] = one.clear ? mixed(pixels[at]!, value, 0.7) : value
        }
      }
    }
  }
}

/** As a canvas keeps it: alpha, blue, green, red. */
function rgba(rgb: number): number {
  return (0xff000000 | ((rgb & 0xff) << 16) | (rgb & 0xff00) | (rgb >> 16)) >>> 0
}

/** `over` laid over `under` with a share; over nothing it stays as it is, as far as it covers. */
function mixed(under: number, over: number, share: number): number {
  if (!(under >>> 24)) return ((over & 0xffffff) | (Math.round(255 * share) << 24)) >>> 0
  const part = (shift: number) =>
    Math.round(((under >>> shift) & 0xff) * (1 - share) + ((over >>> shift) & 0xff) * share) << shift
  return ((under & 0xff000000) | part(16) | part(8) | part(0)) >>> 0
}

/** Where a place in space lies on the picture. */
export function onPicture(place: Triple, { axes, scale, x, y }: Camera): readonly [number, number] {
  return [x + scale * along(place, axes.right), y - scale * along(place, axes.up)]
}
