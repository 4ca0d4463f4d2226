<script setup lang="ts">
import { useId } from 'vue'

import type { SizeLine } from '../geometry/sizes'
import ArrowHead from './ArrowHead.vue'

/** The lines on which sizes stand. */
defineProps<{ lines: readonly SizeLine[] }>()
const id = useId()
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
