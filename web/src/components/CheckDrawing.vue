<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Check } from '../api/client'
import { useSay } from '../composables/useSay'
import type { Box } from '../geometry/view'
import DrawingFrame from './DrawingFrame.vue'

/** A drawing as it was read, with the places where something is wrong. */
const props = defineProps<{ check: Check }>()
const say = useSay()
const drawing = ref<InstanceType<typeof DrawingFrame> | null>(null)

const box = computed<Box>(() => {
  const [left, low, right, high] = props.check.box ?? [0, 0, 100, 100]
  const slack = Math.max(right - left, high - low) * 0.04 + 0.5
  return [left - slack, low - slack, right + slack, high + slack]
})
const places = computed(() => props.check.findings.filter(({ place }) => place))

function lookAt([x, y]: readonly [number, number]): void {
  const reach = Math.max((box.value[2] - box.value[0]) / 30, 1)
  drawing.value?.lookAt([x - reach, y - reach, x + reach, y + reach])
}
defineExpose({ lookAt })
</script>

<template>
  <DrawingFrame ref="drawing" :box="box" :label="check.name">
    <template #default>
      <rect v-if="check.page" class="sheet" :width="check.page[0]" :height="check.page[1]" />
      <path
        v-for="(line, i) in check.lines"
        :key="i"
        class="line"
        :class="{ open: !line.closed }"
        :d="line.path"
      />
    </template>
    <template #over="{ at }">
      <circle
        v-for="(finding, i) in places"
        :key="i"
        class="place"
        :class="finding.severity"
        :cx="at(finding.place!)[0]"
        :cy="at(finding.place!)[1]"
        r="8"
      >
        <title>{{ say.sentence(finding.why) }}</title>
      </circle>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.sheet {
  fill: none;
  stroke: var(--edge);
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
.line.open {
  stroke: var(--fold);
  stroke-dasharray: 7 3;
}
.place {
  fill: none;
  stroke: var(--ochre);
  stroke-width: 2;
}
.place.stop {
  stroke: var(--bad);
  stroke-width: 3;
}
</style>
