import type { Box, Point } from './view'

/** Boxes side by side in rows about as wide as `aspect` times their height; the place of each lower left corner. */
export function inRows(boxes: readonly Box[], gap: number, aspect: number): { places: Point[]; box: Box } {
  const sizes = boxes.map(([left, low, right, high]) => [right - left + gap, high - low + gap] as const)
  const area = sizes.reduce((sum, [w, h]) => sum + w * h, 0)
  const widest = Math.max(0, ...sizes.map(([w]) => w))
  const limit = Math.max(widest, Math.sqrt(area * aspect) * 1.1)
  const places: Point[] = []
  let [x, top, rowHeight, right] = [0, 0, 0, 0]
  boxes.forEach(([left, , , high], i) => {
    const [w, h] = sizes[i]!
    if (x > 0 && x + w > limit) {
      top -= rowHeight
      x = 0
      rowHeight = 0
    }
    places.push([x - left, top - high])
    x += w
    right = Math.max(right, x - gap)
    rowHeight = Math.max(rowHeight, h)
  })
  return { places, box: [0, top - rowHeight + gap, right, 0] }
}
