<script setup lang="ts">
import { computed } from 'vue'

import type { Piece } from '../api/client'
import DrawingFrame from './DrawingFrame.vue'

/** A test piece as it will be cut, to scale. */
const props = defineProps<{ piece: Piece }>()
const box = computed(() => {
  const [left, low, right, high] = props.piece.box
  const slack = (right - left) * 0.03 + 1
  return [left - slack, low - slack, right + slack, high + slack] as const
})
</script>

<template>
  <DrawingFrame :box="box" :label="piece.title">
    <template #default>
      <path
        v-for="(line, i) in piece.lines"
        :key="i"
        :d="line.path"
        class="work"
        :class="line.operation"
        fill-rule="evenodd"
      />
    </template>
  </DrawingFrame>
</template>

<style scoped>
.work.score,
.work.reference {
  stroke-dasharray: none;
}
</style>
