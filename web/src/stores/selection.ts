import { computed, ref, shallowRef, watch } from 'vue'

import type { Design } from '../api/client'

/** What is selected, the same in every view: a part, a step or an edge of a part, a joint. */
export interface Picked {
  part: string
  step: string
  edge: string
  joint: string
}

export type Kind = 'part' | 'step' | 'edge' | 'joint'

/** "part:front", "step:front/hole-1", "edge:front/blank.left", "joint:front-left". */
export const pickOf = (kind: Kind, ...names: string[]): string => `${kind}:${names.join('/')}`

export function readPick(selected: string): Picked {
  const [kind = '', rest = ''] = selected.split(/:(.*)/s)
  if (kind === 'joint') return { part: '', step: '', edge: '', joint: rest }
  const [part = '', inner = ''] = rest.split(/\/(.*)/s)
  return { part, step: kind === 'step' ? inner : '', edge: kind === 'edge' ? inner : '', joint: '' }
}

export function useSelection(design: () => Design | null) {
  const selected = ref('')
  const picked = computed(() => readPick(selected.value))
  const part = computed(() => design()?.parts.find(({ id }) => id === picked.value.part) ?? null)

  /** Steps of the same part that are selected besides the picked one. */
  const also = ref<readonly string[]>([])
  watch(selected, (now, before) => {
    const [a, b] = [readPick(now), readPick(before)]
    if (!a.step || a.part !== b.part || !also.value.includes(a.step)) also.value = []
  })
  const steps = computed(() =>
    picked.value.step ? [picked.value.step, ...also.value.filter((one) => one !== picked.value.step)] : [],
  )

  /** Selects, or unselects what is selected already. */
  function toggle(kind: Kind, ...names: string[]): void {
    const wanted = pickOf(kind, ...names)
    selected.value = selected.value === wanted ? '' : wanted
  }
  function pick(kind: Kind, ...names: string[]): void {
    also.value = []
    selected.value = pickOf(kind, ...names)
  }
  /** One step more, or one less; a step of another part begins anew. */
  function pickMore(partId: string, step: string): void {
    if (picked.value.part !== partId || !picked.value.step) return pick('step', partId, step)
    if (steps.value.includes(step)) {
      const rest = steps.value.filter((one) => one !== step)
      if (!rest.length) return pick('part', partId)
      if (step === picked.value.step) {
        also.value = rest
        selected.value = pickOf('step', partId, rest[0]!)
      } else also.value = rest.filter((one) => one !== picked.value.step)
    } else also.value = [...also.value, step]
  }

  /** Parts and steps that are not drawn for now: "front", "front/hole-1". */
  const hidden = ref<ReadonlySet<string>>(new Set())
  function hide(name: string, away = !hidden.value.has(name)): void {
    const next = new Set(hidden.value)
    if (away) next.add(name)
    else next.delete(name)
    hidden.value = next
  }

  /** Where on the screen the menu of what can be done with it is open. */
  const menuAt = shallowRef<readonly [number, number] | null>(null)

  return { selected, picked, part, steps, also, toggle, pick, pickMore, hidden, hide, menuAt }
}
