import { computed, ref, shallowRef } from 'vue'

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

  /** Selects, or unselects what is selected already. */
  function toggle(kind: Kind, ...names: string[]): void {
    const wanted = pickOf(kind, ...names)
    selected.value = selected.value === wanted ? '' : wanted
  }
  function pick(kind: Kind, ...names: string[]): void {
    selected.value = pickOf(kind, ...names)
  }

  /** Where on the screen the menu of what can be done with it is open. */
  const menuAt = shallowRef<readonly [number, number] | null>(null)

  return { selected, picked, part, toggle, pick, menuAt }
}
