/** Drawings of the core that follow a drag before their exact figures are there: every number moves by its slope. */

/** `now` with every number moved by `by` times the number that stands at the same place in `slope`. */
export function moved<T>(now: T, slope: T, by: number): T {
  if (typeof now === 'number') return (now + by * (slope as number)) as T
  if (Array.isArray(now)) return now.map((one, i) => moved(one, (slope as unknown[])[i], by)) as T
  if (now === null || typeof now !== 'object') return now
  const entries = Object.entries(now).map(([key, one]) => [
    key,
    moved(one, (slope as Record<string, unknown>)[key], by),
  ])
  return Object.fromEntries(entries) as T
}

/** `mm` on the nearest line of a grid. */
export const snapped = (mm: number, step: number) => Math.round(mm / step) * step
