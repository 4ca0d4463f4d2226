<script setup lang="ts">
import { computed } from 'vue'

import type { Stop } from '../api/client'

/** A job's route as one board's edge: a tooth a stop, filled when in order, standing proud when it wants a look. */
const props = defineProps<{ stops: readonly Pick<Stop, 'key' | 'title' | 'state' | 'wants'>[] }>()

const WORDS = { ready: 'in order', look: 'wants a look', open: 'not begun' }
const said = computed(() => props.stops.map(({ title, state }) => `${title} ${WORDS[state]}`).join(', '))
const [TOOTH, LOW, TOP] = [13, 12, 3]

/** A tooth with its notch, from the left; a proud one starts higher. */
function tooth(i: number, state: Stop['state']): string {
  const [x, top] = [i * TOOTH, state === 'look' ? 0 : TOP]
  return `M${x + 0.5} ${LOW}V${top + 0.5}h4v4h4v-4h4V${LOW}z`
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${stops.length * TOOTH} 13`"
    :width="stops.length * TOOTH"
    height="13"
    role="img"
    :aria-label="said"
  >
    <path v-for="(stop, i) in stops" :key="stop.key" :class="stop.state" :d="tooth(i, stop.state)">
      <title>{{ stop.title }}: {{ stop.wants || WORDS[stop.state] }}</title>
    </path>
  </svg>
</template>

<style scoped>
svg {
  flex: none;
}
path {
  fill: currentColor;
  stroke: currentColor;
}
.ready {
  color: var(--deep);
}
.look {
  color: var(--ochre);
}
.open {
  color: var(--third);
  fill: none;
}
</style>
