<script setup lang="ts">
import { computed } from 'vue'

import type { Mate } from '../api/client'
import { useSay } from '../composables/useSay'

/** The gap of a joint at its side, enlarged so much that it is seen: where the board is thinnest, at its mean, at its thickest. */
const props = defineProps<{
  gap: NonNullable<Mate['gap']>
  thin: number
  mean: number
  thick: number
  board: number
}>()
const emit = defineEmits<{ look: [thickness: number] }>()
const say = useSay()
const WIDE = 76
const HIGH = 34
/** Half of the gap is at either side. */
const times = computed(() => {
  const most =
    Math.max(Math.abs(props.gap.thin), Math.abs(props.gap.mean), Math.abs(props.gap.thick), 0.01) / 2
  const steps = [1000, 500, 200, 100, 50, 20, 10]
  return steps.find((one) => one * most < 46 / 3.78) ?? 5
})
const panels = computed(() =>
  (['thin', 'mean', 'thick'] as const).map((key) => {
    const gap = props.gap[key]
    return { key, gap, px: (gap / 2) * times.value * 3.78, thickness: props[key] }
  }),
)
</script>

<template>
  <div v-if="gap.measured" class="panels small">
    <p class="second">Gap at either side, {{ times }} : 1</p>
    <button
      v-for="one in panels"
      :key="one.key"
      type="button"
      :aria-pressed="Math.abs(board - one.thickness) < 1e-6"
      :aria-label="`${one.key} ${say.length(one.thickness)}: ${say.length(one.gap, 3)} in all`"
      @click="emit('look', one.thickness)"
    >
      <svg :width="WIDE" :height="HIGH">
        <rect class="inner" x="0" y="0" :width="WIDE / 2 - one.px / 2" :height="HIGH" />
        <rect class="outer" :x="WIDE / 2 + one.px / 2" y="0" :width="WIDE / 2 - one.px / 2" :height="HIGH" />
        <rect
          v-if="one.px < 0"
          class="press"
          :x="WIDE / 2 + one.px / 2"
          y="0"
          :width="-one.px"
          :height="HIGH"
        />
      </svg>
      <span class="figure">{{ one.key }} {{ say.length(one.thickness) }}</span>
      <b class="figure" :class="{ ochre: one.gap < 0 }">{{ say.signed(one.gap, 3) }}</b>
    </button>
  </div>
</template>

<style scoped>
.panels {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 2px 6px;
  padding: 4px 12px;
}
.panels p {
  grid-column: 1 / -1;
  padding: 0;
}
button {
  display: grid;
  justify-items: start;
  padding: 3px;
  border: 1.5px solid transparent;
  background: none;
  color: inherit;
  font: inherit;
  line-height: 1.3;
  cursor: pointer;
}
button[aria-pressed='true'] {
  border-color: var(--ink);
}
button span {
  white-space: normal;
}
button svg {
  max-width: 100%;
}
.inner {
  fill: var(--deep-wash);
  stroke: var(--deep);
}
.outer {
  fill: var(--board);
  stroke: var(--ink);
}
.press {
  fill: var(--ochre);
  opacity: 0.7;
}
b {
  font-weight: 600;
  color: var(--deep);
}
b.ochre {
  color: var(--ochre-text);
}
</style>
