<script setup lang="ts">
import { computed } from 'vue'

import type { Snapped } from '../geometry/snap'
import type { Box, Point } from '../geometry/view'
import { useSay } from '../composables/useSay'

/** What a drag found: lines that it lies on, and both of two equal gaps with their width. */
const props = defineProps<{
  found: readonly [Snapped, Snapped]
  /** Of what moves, where it is now, in mm. */
  box: Box
  around: Box
  at: (point: Point) => Point
}>()
const say = useSay()

const lines = computed(() =>
  props.found.flatMap(({ line }, axis) => {
    if (line === null) return []
    const [left, low, right, high] = props.around
    const ends: [Point, Point] =
      axis === 0
        ? [
            [line, low],
            [line, high],
          ]
        : [
            [left, line],
            [right, line],
          ]
    return [`M${props.at(ends[0]).join(' ')}L${props.at(ends[1]).join(' ')}`]
  }),
)
const gaps = computed(() =>
  props.found.flatMap(({ gap }, axis) => {
    if (!gap) return []
    const across = (props.box[axis === 0 ? 1 : 0] + props.box[axis === 0 ? 3 : 2]) / 2
    return [gap.before, gap.after].map((span) => {
      const [a, b] = span.map((one) => props.at(axis === 0 ? [one, across] : [across, one])) as [Point, Point]
      return {
        path: `M${a.join(' ')}L${b.join(' ')}`,
        middle: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2],
        width: gap.width,
      }
    })
  }),
)
</script>

<template>
  <g class="found">
    <path v-for="line in lines" :key="line" :d="line" />
    <g v-for="(gap, i) in gaps" :key="i">
      <path class="gap" :d="gap.path" />
      <text class="figure" :x="gap.middle[0]" :y="gap.middle[1]! - 5">{{ say.length(gap.width) }}</text>
    </g>
  </g>
</template>

<style scoped>
.found {
  pointer-events: none;
}
path {
  fill: none;
  stroke: var(--deep);
  stroke-dasharray: 5 3;
}
.gap {
  stroke-width: 2;
  stroke-dasharray: none;
}
text {
  fill: var(--deep);
  font-weight: 700;
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4;
}
</style>
