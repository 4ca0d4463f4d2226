import type { Proof } from '../api/client'

/** How many times as large deviations are drawn, so that the worst of them, in mm, can be seen and hides nothing. */
export function magnification(most: number): number {
  return [200, 100, 50, 20, 10, 5, 2].find((times) => most * times <= 12) ?? 1
}

/** How far off the worst edge of some parts is, in mm. */
export function furthestOff(parts: Proof['parts']): number {
  const all = parts.flatMap(({ runs }) => runs.flat())
  return Math.max(0, ...all.map(([, , dx, dy]) => Math.hypot(dx!, dy!)))
}
