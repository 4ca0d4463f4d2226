import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import { api, Problem, type Part, type Placing, type PlacingIn } from '../api/client'
import { level, snapped, type Snapped, type Target } from '../geometry/snap'
import { round, type Box, type Point } from '../geometry/view'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { MM_PER_INCH } from '../units'
import { makePlacing } from './placingEdits'
import { useSay } from './useSay'

const REACH_PX = 7
const PAUSE_MS = 450
const NOTHING: Point = [0, 0]
const UPRIGHT = 1e-6
const STILL_MM = 5e-4

/** Moving the selected steps of a part by dragging or by keys: where they are on the way, what they found there, and the edits that
 * the core makes of it. */
export function usePlacing(part: () => Part | null) {
  const job = useJob()
  const say = useSay()
  const settings = useSettings()
  /** How far the selected steps are from where they lay. */
  const delta = shallowRef<Point>(NOTHING)
  const found = shallowRef<readonly [Snapped, Snapped] | null>(null)
  /** What the core makes of it, asked for on the way. */
  const exact = shallowRef<Placing | null>(null)
  const moving = ref(false)
  /** How far they were moved by keys since they were selected. */
  const sum = shallowRef<Point>(NOTHING)

  const grid = computed(() => (settings.unit === 'in' ? MM_PER_INCH / 16 : 1))
  const steps = () => part()?.steps.filter(({ id }) => job.steps.includes(id)) ?? []

  /** The box round all that moves, as it lies. */
  function boxOf(): Box | null {
    return round(steps().flatMap(({ box }) => (box ? [box] : [])))
  }

  /** Which steps move, and all that they may lie on. */
  let start: {
    part: string
    steps: string[]
    box: Box
    targets: [Target[], Target[]]
    others: Box[]
  } | null = null

  function begin(): boolean {
    const box = boxOf()
    const now = part()
    if (!box || !now) return false
    const mine = new Set(job.steps)
    const targets: [Target[], Target[]] = [[], []]
    for (const { step, at, says } of now.points) {
      if (mine.has(step)) continue
      targets[0].push({ at: at[0]!, says })
      targets[1].push({ at: at[1]!, says })
    }
    for (const { step, ends, says } of now.lines) {
      if (mine.has(step)) continue
      const [x0, y0, x1, y1] = ends as [number, number, number, number]
      if (Math.abs(x1 - x0) < UPRIGHT) targets[0].push({ at: x0, says })
      if (Math.abs(y1 - y0) < UPRIGHT) targets[1].push({ at: y0, says })
    }
    const [left, low, right, high] = now.box as [number, number, number, number]
    const walls: Box[] = [
      [left, low, left, high],
      [right, low, right, high],
      [left, low, right, low],
      [left, high, right, high],
    ]
    const others = now.steps.flatMap(({ id, box: one, opening, path }) =>
      one && !mine.has(id) && (opening || path) ? [one] : [],
    )
    start = { part: now.id, steps: [...job.steps], box, targets, others: [...others, ...walls] }
    delta.value = NOTHING
    moving.value = true
    return true
  }

  /** `free` leaves the grid and everything else that it would lie on. */
  function dragTo(dx: number, dy: number, pxPerMm: number, free: boolean): void {
    if (!start) return
    const [left, low, right, high] = start.box
    const there: Box = [left + dx, low + dy, right + dx, high + dy]
    if (free) {
      found.value = null
      delta.value = [dx, dy]
    } else {
      const reach = REACH_PX / pxPerMm
      const along = ([0, 1] as const).map((axis) =>
        snapped(
          there[axis],
          there[axis + 2]!,
          start!.targets[axis],
          level(start!.others, there, axis),
          grid.value,
          reach,
        ),
      ) as [Snapped, Snapped]
      found.value = along
      delta.value = [dx + along[0].by, dy + along[1].by]
    }
    void tryExact()
  }

  let asking = false
  async function tryExact(): Promise<void> {
    if (asking || !moving.value || !start) return
    asking = true
    const asked = delta.value
    try {
      const answer = await api.placing(job.design!.id, move(start, asked))
      if (moving.value) exact.value = answer
    } catch (error) {
      if (!(error instanceof Problem)) throw error
    } finally {
      asking = false
    }
    if (moving.value && (asked[0] !== delta.value[0] || asked[1] !== delta.value[1])) void tryExact()
  }

  const move = (of: { part: string; steps: string[] }, [dx, dy]: Point): PlacingIn => ({
    act: 'move',
    part: of.part,
    steps: of.steps,
    dx,
    dy,
    unit: settings.unit,
  })

  /** Writes where they are now. What cannot be is said at its field, and they go back. */
  async function drop(): Promise<void> {
    const by = delta.value
    const of = start
    start = null
    nudging = false
    moving.value = false
    found.value = null
    if (of && (by[0] || by[1])) await makePlacing(move(of, by))
    if (!moving.value) cancel()
  }

  function cancel(): void {
    start = null
    nudging = false
    moving.value = false
    delta.value = NOTHING
    found.value = null
    exact.value = null
  }

  let nudging = false
  const settle = useDebounceFn(() => {
    if (nudging) void drop()
  }, PAUSE_MS)

  /** A press of an arrow key; presses that follow one another are one edit. */
  function nudge(x: number, y: number): void {
    if (!nudging && !begin()) return
    nudging = true
    const step = settings.nudgeMm
    delta.value = [delta.value[0] + x * step, delta.value[1] + y * step]
    sum.value = [sum.value[0] + x * step, sum.value[1] + y * step]
    void tryExact()
    void settle()
  }
  watch(
    () => `${job.picked.part}/${job.steps.join()}`,
    () => {
      sum.value = NOTHING
      if (nudging) void drop() // of what was selected when it began
    },
  )

  const wayWords = ([x, y]: Point): string =>
    [
      Math.abs(x) > STILL_MM && `${say.short(Math.abs(x))} to the ${x > 0 ? 'right' : 'left'}`,
      Math.abs(y) > STILL_MM && `${say.short(Math.abs(y))} ${y > 0 ? 'up' : 'down'}`,
    ]
      .filter(Boolean)
      .join(', ')

  /** What a move is, and what it found, in numbers. */
  const said = computed(() => {
    if (!moving.value)
      return sum.value[0] || sum.value[1] ? `Moved ${wayWords(sum.value)} since it was selected` : ''
    const words = wayWords(delta.value) || 'Where it was'
    const lies = (found.value ?? []).flatMap((one) =>
      one.gap ? [`equal gaps ${say.length(one.gap.width)}`] : one.says ? [`on ${one.says}`] : [],
    )
    return [words, ...new Set(lies)].join(' · ')
  })

  return { delta, found, exact, moving, said, begin, dragTo, drop, cancel, nudge, ask: makePlacing }
}
