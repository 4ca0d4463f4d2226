import { computed } from 'vue'

import type { Change, Tried } from '../api/client'
import { useSay } from './useSay'

const MOST_SAID = 3

/** What an edit would do, in a few words each: what would no longer go, steps that move, then figures that change. */
export function useOutcome() {
  const say = useSay()
  const way = (dx: number, dy: number): string =>
    [
      Math.abs(dx) > 1e-6 && `${say.length(Math.abs(dx))} to the ${dx > 0 ? 'right' : 'left'}`,
      Math.abs(dy) > 1e-6 && `${say.length(Math.abs(dy))} ${dy > 0 ? 'up' : 'down'}`,
    ]
      .filter(Boolean)
      .join(' and ')

  return computed(
    () =>
      (
        moved: Tried['moved'],
        changes: readonly Change[],
        own = '',
        broken: readonly string[] = [],
      ): string[] => {
        const steps = moved.map(({ step, title, dx, dy }) =>
          step === own ? `moves ${way(dx, dy)}` : `${title} moves ${way(dx, dy)}`,
        )
        const figures = changes.map((one) => {
          const what = [one.about, one.title].filter(Boolean).join(' ')
          return one.before === null || one.after === null
            ? `${what}: ${one.word_after}`
            : `${what} ${say.short(one.before)} → ${say.short(one.after)}`
        })
        const all = [...broken.map((one) => say.sentence(one)), ...steps, ...figures]
        return all.length > MOST_SAID ? [...all.slice(0, MOST_SAID), `${all.length - MOST_SAID} more`] : all
      },
  )
}
