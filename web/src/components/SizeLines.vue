<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Step } from '../api/client'
import { lineOf } from '../geometry/sizes'
import type { Point } from '../geometry/view'
import ArrowHead from './ArrowHead.vue'

/** The lines on which the sizes of a step stand. */
const props = defineProps<{ sizes: Step['sizes']; place: Point; at: (point: Point) => Point }>()
const id = useId()
const lines = computed(() => props.sizes.map((size) => lineOf(size, props.place, props.at)))
</script>

<template>
  <g class="sizes">
    <defs><ArrowHead :id="id" /></defs>
    <template v-for="(line, i) in lines" :key="i">
      <path class="feet" :d="line.feet" />
      <path
        class="line"
        :d="`M${line.from.join(' ')}L${line.to.join(' ')}`"
        :marker-start="`url(#${id})`"
        :marker-end="`url(#${id})`"
      />
    </template>
  </g>
</template>

<style scoped>
.sizes {
  pointer-events: none;
}
.line {
  fill: none;
  stroke: var(--deep);
}
.feet {
  fill: none;
  stroke: var(--edge);
  stroke-width: 0.8;
}
</style>
