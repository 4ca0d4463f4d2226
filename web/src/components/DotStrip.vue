<script setup lang="ts">
import { computed } from 'vue'

/** Caliper readings as dots on a strip, the mean as a tick. */
const props = defineProps<{ readings: readonly number[]; mean: number; width: number; height?: number }>()

const dots = computed(() => {
  const low = Math.min(...props.readings)
  const reach = Math.max(Math.max(...props.readings) - low, props.mean * 0.01)
  const at = (value: number) => 6 + ((value - low) / reach) * (props.width - 12)
  return { readings: props.readings.map(at), mean: at(props.mean) }
})
</script>

<template>
  <svg :width="width" :height="height ?? 16" aria-hidden="true">
    <line x1="0" :x2="width" y1="70%" y2="70%" class="base" />
    <circle v-for="(x, i) in dots.readings" :key="i" :cx="x" cy="50%" r="2.6" />
    <line :x1="dots.mean" :x2="dots.mean" y1="15%" y2="95%" class="mean" />
  </svg>
</template>

<style scoped>
circle {
  fill: var(--deep);
  opacity: 0.75;
}
.base {
  stroke: var(--second);
}
.mean {
  stroke: var(--ink);
  stroke-width: 1.5;
}
</style>
