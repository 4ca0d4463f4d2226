/** Between the workpiece (mm, y up) and the screen (px, y down): screen = (x + scale * X, y - scale * Y). */

export interface View {
  scale: number
  x: number
  y: number
}

export type Point = readonly [number, number]
/** Left, low, right, high in mm. */
export type Box = readonly [number, number, number, number]

/** The box round some; null round none. */
export function round(boxes: readonly Box[]): Box | null {
  if (!boxes.length) return null
  const least = (i: number) => Math.min(...boxes.map((one) => one[i]!))
  const most = (i: number) => Math.max(...boxes.map((one) => one[i]!))
  return [least(0), least(1), most(2), most(3)]
}

export const overlap = (a: Box, b: Box): boolean => a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1]

export const SMALLEST_SCALE = 0.02
/** One micrometre is five pixels wide: enough to see into a corner. */
export const LARGEST_SCALE = 5000

/** Shows `box` as large as it goes, `padding` px from the edges and `below` px more at the bottom. */
export function fit(box: Box, width: number, height: number, padding: number, below = 0): View {
  const [left, low, right, high] = box
  const across = Math.max(right - left, 1e-6)
  const up = Math.max(high - low, 1e-6)
  const scale = clampScale(Math.min((width - 2 * padding) / across, (height - 2 * padding - below) / up))
  return {
    scale,
    x: width / 2 - (scale * (left + right)) / 2,
    y: (height - below) / 2 + (scale * (low + high)) / 2,
  }
}

/** Zooms so that what lies under (px, py) stays there. */
export function zoomAt(view: View, factor: number, px: number, py: number): View {
  const scale = clampScale(view.scale * factor)
  const real = scale / view.scale
  return { scale, x: px - (px - view.x) * real, y: py - (py - view.y) * real }
}

export function pan(view: View, dx: number, dy: number): View {
  return { ...view, x: view.x + dx, y: view.y + dy }
}

export function toScreen(view: View, [x, y]: Point): Point {
  return [view.x + view.scale * x, view.y - view.scale * y]
}

export function toWork(view: View, [px, py]: Point): Point {
  return [(px - view.x) / view.scale, (view.y - py) / view.scale]
}

/** The view's own transform, as an SVG attribute. */
export function matrix(view: View): string {
  return `matrix(${view.scale} 0 0 ${-view.scale} ${view.x} ${view.y})`
}

/** A round length in display units (1, 2 or 5 times a power of ten) that is at most `longest` px. */
export function scaleBar(pxPerUnit: number, longest: number): { length: number; px: number } {
  const most = longest / pxPerUnit
  const power = 10 ** Math.floor(Math.log10(most))
  const length = [5, 2, 1].find((step) => step * power <= most)! * power
  return { length, px: length * pxPerUnit }
}

function clampScale(scale: number): number {
  return Math.min(LARGEST_SCALE, Math.max(SMALLEST_SCALE, scale))
}
