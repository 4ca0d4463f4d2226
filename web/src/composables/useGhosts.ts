import { computed, shallowRef } from 'vue'

import type { Tried } from '../api/client'

type Ghost = NonNullable<Tried['stands']>[number]

/** Boards where they would stand, while a number of their place is typed: drawn before it is kept. */
const shown = shallowRef<readonly Ghost[]>([])

export function useGhosts() {
  const show = (some: readonly Ghost[]) => (shown.value = some)
  return { ghosts: computed(() => shown.value), show }
}
