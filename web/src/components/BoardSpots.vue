<script setup lang="ts">
import { computed } from 'vue'

import { SPOTS } from '../composables/useSpots'

/** A board with the spots at its rim that a caliper reaches: filled once read, ochre where it stands off, a ring where one is. */
const props = defineProps<{
  width: number
  height: number
  at: number
  done: readonly boolean[]
  doubtful: readonly number[]
}>()
defineEmits<{ pick: [spot: number] }>()
const [W, PAD] = [112, 14]
const high = computed(() => Math.min(Math.max((W * props.height) / props.width, 44), 96))
</script>

<template>
  <svg class="board" :width="W + 2 * PAD" :height="high + 2 * PAD" role="group" aria-label="Where to measure">
    <rect :x="PAD" :y="PAD" :width="W" :height="high" />
    <g
      v-for="(spot, i) in SPOTS"
      :key="i"
      class="spot"
      :class="{ here: i === at, done: done[i], off: doubtful.includes(i) }"
      tabindex="0"
      role="button"
      :aria-label="`Spot ${i + 1}, ${spot.name}`"
      :aria-pressed="i === at"
      @click="$emit('pick', i)"
      @keydown.enter="$emit('pick', i)"
    >
      <circle :cx="PAD + spot.x * W" :cy="PAD + spot.y * high" r="12" />
      <text class="figure" :x="PAD + spot.x * W" :y="PAD + spot.y * high + 5">{{ i + 1 }}</text>
    </g>
  </svg>
</template>

<style scoped>
rect {
  fill: var(--board);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.spot {
  cursor: pointer;
}
circle {
  fill: var(--sheet);
  stroke: var(--edge);
  stroke-width: 1.5;
}
text {
  text-anchor: middle;
  fill: var(--ink);
  font-size: 14px;
  font-weight: 700;
}
.done circle {
  fill: var(--deep);
  stroke: var(--deep);
}
.done text {
  fill: var(--on-deep);
}
.off circle {
  fill: var(--ochre);
  stroke: var(--ochre);
}
.here circle {
  fill: var(--sheet);
  stroke: var(--deep);
  stroke-width: 3.5;
}
.here text {
  fill: var(--deep);
}
.here.off circle {
  stroke: var(--ochre);
}
</style>
