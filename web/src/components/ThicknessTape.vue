<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import { useSay } from '../composables/useSay'
import { MM_PER_INCH } from '../units'

/** A tape that slides under a mark: one step is what a caliper shows. Dragged by thumb, or moved by arrow keys. */
const props = defineProps<{ label: string }>()
const mm = defineModel<number>({ required: true })
const say = useSay()
const tape = useTemplateRef('tape')
const { width } = useElementSize(tape)
const STEP_PX = 19
const HIGH = 58

const perUnit = computed(() => (say.unit === 'in' ? MM_PER_INCH : 1))
const step = computed(() => (say.unit === 'in' ? 0.0005 : 0.01))
const steps = computed(() => Math.round(mm.value / perUnit.value / step.value))
const marks = computed(() => {
  const half = Math.ceil(width.value / 2 / STEP_PX) + 1
  return Array.from({ length: 2 * half + 1 }, (_, i) => {
    const n = steps.value - half + i
    const long = n % 10 === 0
    const middle = n % 5 === 0
    return { n, x: width.value / 2 + (n - steps.value) * STEP_PX, long, middle }
  }).filter(({ n }) => n > 0)
})
const put = (n: number) => (mm.value = Number((Math.max(n, 1) * step.value * perUnit.value).toFixed(6)))

let from = 0
let start = 0
function down(event: PointerEvent): void {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  from = event.clientX
  start = steps.value
}
function move(event: PointerEvent): void {
  if (!(event.currentTarget as Element).hasPointerCapture(event.pointerId)) return
  put(start - Math.round((event.clientX - from) / STEP_PX))
}
const KEYS: Record<string, number> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 10,
  PageDown: -10,
}
function key(event: KeyboardEvent): void {
  const by = KEYS[event.key]
  if (!by) return
  event.preventDefault()
  put(steps.value + by)
}
defineExpose({ by: (n: number) => put(steps.value + n) })
</script>

<template>
  <div
    ref="tape"
    class="tape"
    role="slider"
    tabindex="0"
    :aria-label="props.label"
    :aria-valuenow="mm"
    :aria-valuetext="`${say.length(mm)} ${say.unit}`"
    @pointerdown="down"
    @pointermove="move"
    @keydown="key"
  >
    <svg :width="width" :height="HIGH" aria-hidden="true">
      <g v-for="mark in marks" :key="mark.n">
        <path :d="`M${mark.x} 0V${mark.long ? 32 : mark.middle ? 24 : 14}`" :class="{ long: mark.long }" />
        <text v-if="mark.middle" class="figure" :x="mark.x" y="51">
          {{ say.number(mark.n * step, say.unit === 'in' ? 4 : 2) }}
        </text>
      </g>
      <path class="mark" :d="`M${width / 2} 0v42`" />
      <path class="head" :d="`M${width / 2 - 8} 0h16l-8 10z`" />
    </svg>
  </div>
</template>

<style scoped>
.tape {
  overflow: hidden;
  touch-action: pan-y;
  cursor: ew-resize;
}
svg {
  display: block;
}
path {
  stroke: var(--edge);
  stroke-width: 1.5;
}
.long {
  stroke: var(--ink);
  stroke-width: 2;
}
.mark {
  stroke: var(--deep);
  stroke-width: 3;
}
.head {
  fill: var(--deep);
  stroke: none;
}
text {
  text-anchor: middle;
  fill: var(--second);
  font-size: 14px;
}
</style>
