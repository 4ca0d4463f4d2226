<script setup lang="ts">
import { useIntersectionObserver } from '@vueuse/core'
import { computed, ref, useId, useTemplateRef } from 'vue'

import type { Card } from '../api/client'
import { marks, type Edge } from '../geometry/table'
import { MM_PER_INCH } from '../units'
import { useSay } from '../composables/useSay'
import JobOnTable from './JobOnTable.vue'

/** A table edge, which is a rule at the scale of what stands on it. What is out of sight is not drawn yet. */
const props = defineProps<{
  edge: Edge<{ job: Card }>
  width: number
  first: number | null
  dimmed: (job: Card) => boolean
}>()
defineEmits<{ menu: [job: Card, at: HTMLElement] }>()
/** What the label of the last long mark needs. */
const LAST_LABEL_PX = 44
const say = useSay()
const id = useId()
const seen = ref(false)
const row = useTemplateRef('row')
const { stop } = useIntersectionObserver(
  row,
  ([entry]) => {
    if (!entry?.isIntersecting) return
    seen.value = true
    stop()
  },
  { rootMargin: '300px' },
)
const rule = computed(() =>
  marks(props.edge.scale * (say.unit === 'in' ? MM_PER_INCH : 1), Math.max(props.width - LAST_LABEL_PX, 0)),
)
</script>

<template>
  <div ref="row" class="edge">
    <svg class="rule" :width="width" height="32" :style="{ top: `${edge.height}px` }" aria-hidden="true">
      <defs>
        <pattern :id="id" :width="rule.short" height="6" patternUnits="userSpaceOnUse">
          <path d="M0.5 0V5" />
        </pattern>
      </defs>
      <rect :width="width" height="6" :fill="`url(#${id})`" />
      <path class="line" :d="`M0 .75H${width}`" />
      <g v-for="(one, i) in rule.long" :key="one.label">
        <path :d="`M${one.x + 0.5} 0V10`" />
        <text class="figure" :x="one.x + 4" y="20">{{ one.label }}{{ i ? '' : ` ${say.unit}` }}</text>
      </g>
    </svg>
    <JobOnTable
      v-for="{ item, x, width: wide } in edge.items"
      :key="item.job.id"
      :job="item.job"
      :scale="edge.scale"
      :height="edge.height"
      :first="item.job.id === first"
      :seen="seen"
      :class="{ dimmed: dimmed(item.job) }"
      :style="{ width: `${wide}px`, marginLeft: x ? undefined : '0' }"
      @menu="$emit('menu', item.job, $event)"
    />
  </div>
</template>

<style scoped>
.edge {
  position: relative;
  display: flex;
  gap: 26px;
  margin-bottom: 14px;
}
.rule {
  position: absolute;
  left: 0;
  z-index: 1;
  pointer-events: none;
}
.rule path {
  fill: none;
  stroke: var(--ink);
}
.rule .line {
  stroke-width: 1.5;
}
.rule text {
  fill: var(--second);
  font-size: 0.8rem;
}
.dimmed {
  opacity: 0.28;
}
</style>
