<script setup lang="ts">
import { computed } from 'vue'

/** Caliper readings as dots on a strip, the mean as a tick; ones that stand off are ringed. `range` makes strips compare. */
const props = defineProps<{
  readings: readonly number[]
  mean: number
  width: number
  height?: number
  outliers?: readonly number[]
  range?: readonly [number, number]
}>()

const dots = computed(() => {
  const low = props.range?.[0] ?? Math.min(...props.readings)
  const high = props.range?.[1] ?? Math.max(...props.readings)
  const reach = Math.max(high - low, props.mean * 0.01)
  const at = (value: number) => 6 + ((value - low) / reach) * (props.width - 12)
  return { readings: props.readings.map(at), mean: at(props.mean) }
})
</script>

<template>
  <svg :width="width" :height="height ?? 16" aria-hidden="true">
    <line x1="0" :x2="width" y1="70%" y2="70%" class="base" />
    <circle
      v-for="(x, i) in dots.readings"
      :key="i"
      :cx="x"
      cy="50%"
      :r="outliers?.includes(i) ? 4 : 2.6"
      :class="{ off: outliers?.includes(i) }"
    />
    <line :x1="dots.mean" :x2="dots.mean" y1="15%" y2="95%" class="mean" />
  </svg>
</template>

<style scoped>
circle {
  fill: var(--deep);
  opacity: 0.75;
}
circle.off {
  fill: none;
  stroke: var(--ochre);
  stroke-width: 2;
  opacity: 1;
}
.base {
  stroke: var(--second);
}
.mean {
  stroke: var(--ink);
  stroke-width: 1.5;
}
</style>
