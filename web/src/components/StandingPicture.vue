<script setup lang="ts">
import { computed } from 'vue'

import { boxOf, sketchOf, type Pictured } from '../geometry/pictured'
import { inRows } from '../geometry/rows'

/** A job or recipe as it stands, or its parts flat, at `scale` px a mm. */
const props = defineProps<{ of: Pictured; scale: number }>()

const standing = computed(() => sketchOf(props.of.panels))
const laid = computed(() =>
  inRows(
    props.of.flat.map(({ box }) => box),
    12,
    1.9,
  ),
)
const box = computed(() => boxOf(props.of))
const size = computed(() => [box.value[2] - box.value[0], box.value[3] - box.value[1]] as const)
/** A stroke of one px stays so at any scale. */
const px = computed(() => `${1 / props.scale}px`)
</script>

<template>
  <svg
    :width="size[0] * scale + 2"
    :height="size[1] * scale + 1"
    :viewBox="`${box[0] - 1 / scale} ${-box[3] - 1 / scale} ${size[0] + 2 / scale} ${size[1] + 1 / scale}`"
    :style="{ '--px': px }"
    aria-hidden="true"
  >
    <g transform="scale(1 -1)">
      <template v-for="(one, i) in standing.drawn" :key="i">
        <path class="back" :d="one.back" fill-rule="evenodd" />
        <path class="edges" :d="one.edges" />
        <path class="face" :d="one.face" fill-rule="evenodd" />
      </template>
      <path
        v-for="(one, i) in of.panels.length ? [] : of.flat"
        :key="`flat-${i}`"
        class="face"
        :d="one.path"
        :transform="`translate(${laid.places[i]![0]} ${laid.places[i]![1]})`"
        fill-rule="evenodd"
      />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
  overflow: visible;
}
path {
  fill: var(--board);
  stroke: var(--ink);
  stroke-width: var(--px);
  stroke-linejoin: round;
}
.edges {
  fill: var(--end-grain);
  stroke-width: calc(0.7 * var(--px));
}
</style>
