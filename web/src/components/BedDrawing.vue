<script setup lang="ts">
import { computed } from 'vue'

import type { Machine } from '../api/client'
import DrawingFrame from './DrawingFrame.vue'

/** A machine's bed from above, to scale: where its coordinates start, which way they run, and what to keep clear of. */
const props = defineProps<{ machine: Machine['document'] }>()

const slack = computed(() => Math.max(props.machine.bed_width, props.machine.bed_height) * 0.06)
const box = computed(
  () =>
    [
      -slack.value,
      -slack.value,
      props.machine.bed_width + slack.value,
      props.machine.bed_height + slack.value,
    ] as const,
)
const origin = computed<[number, number]>(() => [
  props.machine.origin.includes('right') ? props.machine.bed_width : 0,
  props.machine.origin.includes('upper') ? props.machine.bed_height : 0,
])
const reach = computed(() => Math.min(props.machine.bed_width, props.machine.bed_height) * 0.18)
const ends = computed<Record<'x' | 'y', [number, number]>>(() => {
  const [x, y] = origin.value
  return {
    x: [x + (props.machine.x_axis === 'right' ? 1 : -1) * reach.value, y],
    y: [x, y + (props.machine.y_axis === 'up' ? 1 : -1) * reach.value],
  }
})
/** Names stand on the side of the bed's middle, clear of its edge. */
const isLow = (one: { y: number; height: number }) => one.y + one.height / 2 < props.machine.bed_height / 2
</script>

<template>
  <DrawingFrame :box="box" :label="`Bed of ${machine.name}`">
    <template #default>
      <rect class="bed" x="0" y="0" :width="machine.bed_width" :height="machine.bed_height" />
      <rect
        v-for="(one, i) in machine.keep_outs"
        :key="i"
        class="keep-out"
        :x="one.x"
        :y="one.y"
        :width="one.width"
        :height="one.height"
      />
      <line
        v-for="(end, axis) in ends"
        :key="axis"
        class="axis"
        :x1="origin[0]"
        :y1="origin[1]"
        :x2="end[0]"
        :y2="end[1]"
      />
    </template>
    <template #over="{ at }">
      <circle class="origin" :cx="at(origin)[0]" :cy="at(origin)[1]" r="6" />
      <text v-for="(end, axis) in ends" :key="axis" class="figure" :x="at(end)[0] + 6" :y="at(end)[1] - 6">
        {{ axis }}
      </text>
      <text
        v-for="(one, i) in machine.keep_outs"
        :key="i"
        class="small"
        :x="at([one.x, 0])[0]"
        :y="isLow(one) ? at([0, one.y + one.height])[1] - 6 : at([0, one.y])[1] + 14"
        >{{ one.name }}</text
      >
    </template>
  </DrawingFrame>
</template>

<style scoped>
.bed {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.keep-out {
  fill: var(--ochre-wash);
  stroke: var(--ochre);
  stroke-dasharray: 4 3;
}
.axis {
  stroke: var(--deep);
  stroke-width: 2.5;
}
.origin {
  fill: var(--deep);
}
text {
  fill: var(--ink);
}
</style>
