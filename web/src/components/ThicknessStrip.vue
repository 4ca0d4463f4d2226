<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import type { Readings } from '../api/client'
import { stacked, stripFor, ticksOf } from '../geometry/strip'
import { useSay } from '../composables/useSay'
import { MM_PER_INCH } from '../units'

/** A board's readings on a scale: a dot each, their mean, the span from thin to thick, and what the label says. */
const props = defineProps<{
  readings: Pick<Readings, 'values' | 'mean' | 'thin' | 'thick' | 'outliers'>
  nominal: number
  width: number
  range?: readonly number[]
}>()
const say = useSay()
const holder = useTemplateRef('holder')
const { width: room } = useElementSize(holder)
/** As wide as there is room for: its figures are never drawn smaller. */
const wide = computed(() => Math.min(props.width, room.value || props.width))
const DOT = 7
/** A label further off than this share would squeeze the dots; its side is shown instead. */
const NEAR = 0.1

const near = computed(() => Math.abs(props.nominal - props.readings.mean) < NEAR * props.readings.mean)
const strip = computed(() => {
  const { values } = props.readings
  return stripFor([...values, ...(props.range ?? []), ...(near.value ? [props.nominal] : [])], wide.value, 12)
})
const dots = computed(() => {
  const { values, outliers } = props.readings
  const heights = stacked(values, strip.value, DOT)
  return values.map((mm, i) => ({
    x: strip.value.at(mm),
    y: 34 - heights[i]! * DOT,
    off: outliers.includes(i),
  }))
})
const ticks = computed(() => {
  const mmPerUnit = say.unit === 'mm' ? 1 : MM_PER_INCH
  return ticksOf(strip.value, mmPerUnit, 44).map((value) => ({
    text: say.number(value, 5, 0),
    x: strip.value.at(value * mmPerUnit),
  }))
})
const nominalX = computed(() =>
  near.value ? strip.value.at(props.nominal) : props.nominal < props.readings.mean ? 4 : wide.value - 4,
)
</script>

<template>
  <div ref="holder" class="holder" :style="{ width: `${width}px` }">
    <svg
      class="strip"
      :width="wide"
      height="66"
      role="img"
      :aria-label="`${readings.values.length} readings on a scale, nominal ${say.short(nominal)}`"
    >
      <rect
        class="span"
        :x="strip.at(readings.thin)"
        y="36"
        :width="Math.max(strip.at(readings.thick) - strip.at(readings.thin), 1)"
        height="6"
      />
      <line class="base" x1="0" :x2="wide" y1="42" y2="42" />
      <g v-for="tick in ticks" :key="tick.text" class="tick">
        <line :x1="tick.x" :x2="tick.x" y1="42" y2="47" />
        <text :x="tick.x" y="59">{{ tick.text }}</text>
      </g>
      <g class="nominal">
        <line :x1="nominalX" :x2="nominalX" y1="16" y2="42" />
        <text
          :x="nominalX"
          y="13"
          :text-anchor="nominalX < 60 ? 'start' : nominalX > wide - 60 ? 'end' : 'middle'"
        >
          {{ near ? '' : nominal < readings.mean ? '← ' : '' }}nominal {{ say.short(nominal)
          }}{{ near || nominal < readings.mean ? '' : ' →' }}
        </text>
      </g>
      <line
        class="mean"
        :x1="strip.at(readings.mean)"
        :x2="strip.at(readings.mean)"
        y1="14"
        y2="50"
        aria-hidden="true"
      />
      <circle
        v-for="(dot, i) in dots"
        :key="i"
        :cx="dot.x"
        :cy="dot.y"
        :r="dot.off ? 4.5 : 3"
        :class="{ off: dot.off }"
      />
    </svg>
  </div>
</template>

<style scoped>
.holder {
  max-width: 100%;
}
.strip {
  display: block;
}
.span {
  fill: var(--deep-wash);
}
.base,
.tick line {
  stroke: var(--second);
}
text {
  fill: var(--second);
  font: 0.8rem var(--figures);
}
.tick text {
  text-anchor: middle;
}
.nominal text {
  font-family: var(--words);
  font-size: 0.85rem;
}
.nominal line {
  stroke: var(--second);
  stroke-dasharray: 2 3;
}
.mean {
  stroke: var(--ink);
  stroke-width: 1.5;
}
circle {
  fill: var(--deep);
}
circle.off {
  fill: none;
  stroke: var(--ochre);
  stroke-width: 2;
}
</style>
