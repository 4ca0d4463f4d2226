import type { Box } from './view'

/** Where something that is dragged would rather lie, along one axis: on what others offer, at equal gaps, on the grid. */

/** A place that an edge or the middle of what is dragged may lie on. */
export interface Target {
  at: number
  says: string
}

/** `by` is what has to be added; `line` is where it then lies; `gap` the width of both equal gaps, with their ends. */
export interface Snapped {
  by: number
  says: string
  line: number | null
  gap: { width: number; before: readonly [number, number]; after: readonly [number, number] } | null
}

const STILL = 1e-9

/** Along one axis, for what lies from `low` to `high`: the nearest target within `reach`, else equal gaps between `others`, else
 * the grid of `step` for its lower end. */
export function snapped(
  low: number,
  high: number,
  targets: readonly Target[],
  others: readonly (readonly [number, number])[],
  step: number,
  reach: number,
): Snapped {
  let best: Snapped | null = null
  const places = [low, (low + high) / 2, high]
  for (const { at, says } of targets) {
    for (const place of places) {
      const by = at - place
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by) - STILL))
        best = { by, says, line: at, gap: null }
    }
  }
  const even = evenly(low, high, others)
  if (even && Math.abs(even.by) <= reach && (!best || Math.abs(even.by) < Math.abs(best.by) - STILL))
    best = even
  return best ?? { by: Math.round(low / step) * step - low, says: '', line: null, gap: null }
}

/** In the middle between the nearest other before and the nearest one after it. */
function evenly(low: number, high: number, others: readonly (readonly [number, number])[]): Snapped | null {
  const size = high - low
  const middle = (low + high) / 2
  const before = Math.max(...others.filter((one) => one[1] <= middle).map((one) => one[1]))
  const after = Math.min(...others.filter((one) => one[0] >= middle).map((one) => one[0]))
  if (!Number.isFinite(before) || !Number.isFinite(after) || after - before < size) return null
  const width = (after - before - size) / 2
  return {
    by: before + width - low,
    says: 'equal gaps',
    line: null,
    gap: { width, before: [before, before + width], after: [after - width, after] },
  }
}

/** The spans of `boxes` along an axis that lie level with `mine` across it. */
export function level(boxes: readonly Box[], mine: Box, axis: 0 | 1): [number, number][] {
  const across = axis === 0 ? 1 : 0
  return boxes
    .filter((one) => one[across]! < mine[across + 2]! && one[across + 2]! > mine[across]!)
    .map((one) => [one[axis]!, one[axis + 2]!])
}
