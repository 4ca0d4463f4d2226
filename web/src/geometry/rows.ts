import type { Box, Point } from './view'

/** Boxes side by side in rows, broken where they come out largest in a frame `aspect` times as wide as high.
 *
 * Gives the place of each box's own origin, and the box around all.
 */
export function inRows(boxes: readonly Box[], gap: number, aspect: number): { places: Point[]; box: Box } {
  let limit = 0
  const tries = boxes.map(([left, , right]) => broken(boxes, gap, (limit += right - left + gap)))
  const needs = ({ box: [left, low, right, high] }: { box: Box }) =>
    Math.max((right - left) / aspect, high - low)
  return tries.reduce((best, next) => (needs(next) < needs(best) ? next : best), broken(boxes, gap, Infinity))
}

function broken(boxes: readonly Box[], gap: number, limit: number): { places: Point[]; box: Box } {
  const places: Point[] = []
  let [x, top, rowHeight, widest] = [0, 0, 0, 0]
  for (const [left, low, right, high] of boxes) {
    if (x > 0 && x + right - left > limit) {
      top -= rowHeight + gap
      x = rowHeight = 0
    }
    places.push([x - left, top - high])
    x += right - left + gap
    widest = Math.max(widest, x - gap)
    rowHeight = Math.max(rowHeight, high - low)
  }
  return { places, box: [0, top - rowHeight, widest, 0] }
}
