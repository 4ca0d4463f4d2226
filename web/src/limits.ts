import type { Limits } from './api/client'
import type { useSay } from './composables/useSay'

/** The least that is cut of a board, as it is shown and typed. */
export const LIMITS = [
  ['web', 'Least web between cuts'],
  ['hole', 'Least hole'],
  ['text', 'Least height of capitals'],
  ['density', 'Density, kg/m³'],
] as const
/** On which machines a board is never cut, or is all the same. */
export type Rules = Pick<Limits, 'laser' | 'router'>
export type Limit = (typeof LIMITS)[number][0]

export function shownLimit(
  say: Pick<ReturnType<typeof useSay>, 'number' | 'short'>,
  name: Limit,
  value: number | null | undefined,
): string {
  if (value === null || value === undefined) return ''
  return name === 'density' ? say.number(value, 0) : say.short(value)
}

/** As they would be typed, each length with its unit; rules as they are. */
export function typedLimits(limits: Limits): Record<Limit, string | number | null> & Rules {
  const typed = (name: Limit) => {
    const value = limits[name] ?? null
    return value === null || name === 'density' ? value : `${value} mm`
  }
  return {
    web: typed('web'),
    hole: typed('hole'),
    text: typed('text'),
    density: typed('density'),
    laser: limits.laser ?? null,
    router: limits.router ?? null,
  }
}
