import { computed, type Ref } from 'vue'

import { even, solidOf, type Ring, type Solid } from '../geometry/solids'
import { triple, type Triple } from '../geometry/standing'
import { useJob } from '../stores/job'

/** A part where it stands, as a solid. */
export interface Stood {
  placement: string
  part: string
  board: string
  solid: Solid
  n: Triple
}

/** What stands where, and the box around it all; `apart` is how far it is drawn apart, 0 to 100. With `cut`, parts have the rings
 * that were cut, by part. */
export function useSolids(
  apart: Ref<number>,
  cut: () => Readonly<Record<string, readonly Ring[]>> | undefined,
) {
  const job = useJob()

  /** A part that is where it was keeps its solid. */
  const known = new Map<string, { of: unknown; at: string; solid: Solid }>()
  const bodies = computed<Stood[]>(() => {
    const parts = new Map(job.design!.parts.map((part) => [part.id, part]))
    return job.design!.standings.flatMap((standing) => {
      const part = parts.get(standing.part)
      if (!part || job.hidden.has(part.id)) return []
      const at = JSON.stringify([standing.origin, standing.u, standing.v, standing.n])
      const rings = cut()?.[part.id]
      const of = rings ?? part.outline
      const before = known.get(standing.placement)
      const solid =
        before?.of === of && before.at === at
          ? before.solid
          : solidOf({
              ...standing,
              ...(rings
                ? even(rings, part.thickness)
                : (part.solid ?? even([part.outline, ...part.holes], part.thickness))),
            })
      known.set(standing.placement, { of, at, solid })
      return [{ placement: standing.placement, part: part.id, board: part.board, solid, n: standing.n }]
    })
  })

  const box = computed(() => {
    let [low, high]: [number[], number[]] = [
      [Infinity, Infinity, Infinity],
      [-Infinity, -Infinity, -Infinity],
    ]
    for (const { solid } of bodies.value) {
      for (let i = 0; i < solid.edges.length; i++) {
        low[i % 3] = Math.min(low[i % 3]!, solid.edges[i]!)
        high[i % 3] = Math.max(high[i % 3]!, solid.edges[i]!)
      }
    }
    if (!bodies.value.length) [low, high] = [[0, 0, 0], [1, 1, 1]] // prettier-ignore
    return { low: triple((i) => low[i]!), high: triple((i) => high[i]!) }
  })
  /** Its sizes stand along these. */
  const corners = computed(() => {
    const { low, high } = box.value
    const ends = [low, high]
    return ends.flatMap(([x]) => ends.flatMap(([, y]) => ends.map(([, , z]) => [x, y, z] as Triple)))
  })
  const middle = computed(() => triple((i) => (box.value.low[i]! + box.value.high[i]!) / 2))

  /** Drawn apart, every part goes away from the middle. */
  const offs = computed(() =>
    bodies.value.map(({ solid }) => {
      const share = (apart.value / 100) * 0.9
      return triple((i) => (solid.middle[i]! - middle.value[i]!) * share)
    }),
  )

  return { bodies, box, corners, middle, offs }
}
