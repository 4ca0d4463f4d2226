import { scaleBar } from './view'

/** A strip of readings: mm between `low` and `high` go from `margin` to `width - margin` px. */
export interface Strip {
  low: number
  high: number
  at: (mm: number) => number
}

/** Sized for all `values`, with room for 1 % of them at least. */
export function stripFor(values: readonly number[], width: number, margin = 8): Strip {
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const reach = Math.max(most - least, Math.abs(least) * 0.01)
  const low = (least + most - reach) / 2
  return { low, high: low + reach, at: (mm) => margin + ((mm - low) / reach) * (width - 2 * margin) }
}

/** Round values of a unit along a strip, in that unit: 1, 2 or 5 times a power of ten apart, `apart` px or more. */
export function ticksOf(strip: Strip, mmPerUnit: number, apart: number): number[] {
  const pxPerUnit = (strip.at(strip.high) - strip.at(strip.low)) / ((strip.high - strip.low) / mmPerUnit)
  // The longest round step within twice the room is at least half of that: never nearer than `apart`.
  const { length: step } = scaleBar(pxPerUnit, 2.5 * apart)
  const first = Math.ceil(strip.low / mmPerUnit / step - 1e-9)
  const last = Math.floor(strip.high / mmPerUnit / step + 1e-9)
  return Array.from({ length: Math.max(last - first + 1, 0) }, (_, i) => (first + i) * step)
}

/** How high each of `values` stands where several fall within `px` of each other: 0 for the first, 1 for the next. */
export function stacked(values: readonly number[], strip: Strip, px: number): number[] {
  return values.map(
    (value, i) =>
      values.slice(0, i).filter((other) => Math.abs(strip.at(other) - strip.at(value)) < px).length,
  )
}
