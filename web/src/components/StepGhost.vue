<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import type { Point } from '../geometry/view'

/** The outlines of steps on their way somewhere: nothing else is drawn anew while they move. */
const props = defineProps<{ part: Part; steps: readonly string[]; delta: { value: Point }; exact?: string }>()
const paths = computed(() =>
  props.part.steps
    .filter(({ id }) => props.steps.includes(id))
    .map(({ path, box }) => path || (box ? `M${box[0]} ${box[1]}H${box[2]}V${box[3]}H${box[0]}Z` : '')),
)
</script>

<template>
  <g class="ghost">
    <path v-if="exact" class="exact" :d="exact" fill-rule="evenodd" />
    <path
      v-for="(path, i) in paths"
      :key="i"
      :d="path"
      :transform="`translate(${delta.value[0]} ${delta.value[1]})`"
    />
  </g>
</template>

<style scoped>
.ghost {
  pointer-events: none;
}
path {
  fill: color-mix(in srgb, var(--deep) 16%, transparent);
  stroke: var(--deep);
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
}
.exact {
  fill: none;
  stroke: var(--ochre);
  stroke-width: 1.2;
  stroke-dasharray: 2 3;
}
</style>
