import { inRows } from './rows'
import { sketch, type Sketch, type Slab } from './standing'
import type { Box, Point } from './view'

/** A board as it comes: its outlines are "x y x y …", which is small to send and quick to read. */
export interface Panelled extends Omit<Slab, 'outline' | 'holes'> {
  outline: string
  holes: readonly string[]
}

/** What a small picture is made of: boards as they stand, or parts flat where none stands. */
export interface Pictured {
  panels: readonly Panelled[]
  flat: readonly { path: string; box: Box }[]
}

const known = new WeakMap<readonly Panelled[], Sketch>()

/** Drawn once, however often it is asked for. */
export function sketchOf(panels: readonly Panelled[]): Sketch {
  const found = known.get(panels)
  if (found) return found
  const made = sketch(
    panels.map((one) => ({ ...one, outline: points(one.outline), holes: one.holes.map(points) })),
  )
  known.set(panels, made)
  return made
}

function points(line: string): Point[] {
  const numbers = line.split(' ').map(Number)
  return Array.from(
    { length: numbers.length >> 1 },
    (_, i) => [numbers[2 * i]!, numbers[2 * i + 1]!] as const,
  )
}

/** The box around a picture in mm. */
export function boxOf({ panels, flat }: Pictured): Box {
  if (panels.length) return sketchOf(panels).box
  const { box } = inRows(
    flat.map((one) => one.box),
    12,
    1.9,
  )
  return flat.length ? box : [0, 0, 0, 0]
}
