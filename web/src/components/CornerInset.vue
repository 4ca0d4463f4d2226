<script setup lang="ts">
import { computed, useId } from 'vue'

import type { CloseUp } from '../api/client'
import { scaleBar, type Point } from '../geometry/view'
import { MM_PER_INCH } from '../units'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

/** One corner, much enlarged: where the beam ran, what it left, and what was wanted, each with its number. */
const props = defineProps<{ of: CloseUp; tool: string }>()
const say = useSay()
const job = useJob()
const id = useId()
const SIZE = 184
const WIDTH = 372

const scale = computed(() => SIZE / (2 * props.of.reach))
const at = ([x, y]: readonly number[]): Point => [
  SIZE / 2 + (x! - props.of.place[0]!) * scale.value,
  SIZE / 2 - (y! - props.of.place[1]!) * scale.value,
]
const path = (lines: CloseUp['nominal'], closed = false) =>
  lines
    .map(
      (line) =>
        `M${line
          .map((p) =>
            at(p)
              .map((v) => v.toFixed(2))
              .join(' '),
          )
          .join('L')}${closed ? 'Z' : ''}`,
    )
    .join('')

const title = computed(() => {
  const part = job.design?.parts.find(({ id: one }) => one === props.of.part)
  const name = part ? (part.quantity > 1 ? `${part.title} ${props.of.copy}` : part.title) : props.of.part
  const what = { 'inner corner': 'Inner corner', 'outer corner': 'Outer corner', edge: 'Edge' }[props.of.what]
  return `${what} of ${name}`
})
const bar = computed(() => {
  const { length, px } = scaleBar(scale.value * (say.unit === 'in' ? MM_PER_INCH : 1), 70)
  return { px, text: `${say.number(length, 6, 0)} ${say.unit}` }
})

/** Each measured line with its number, from top to bottom as they lie. */
const rows = computed(() => {
  const words = {
    path: 'path',
    finished: 'finished edge',
    corner: props.of.what === 'inner corner' ? 'left in the corner' : 'missing at the corner',
  }
  const found = props.of.measured.map(({ of, off, at: place }) => ({
    key: of as string,
    words: words[of],
    value: of === 'corner' ? say.length(off, 3) : say.signed(off, 3),
    place: at(place),
  }))
  found.push({ key: 'nominal', words: 'nominal edge', value: say.length(0, 3), place: at(props.of.across) })
  found.sort((a, b) => a.place[1] - b.place[1] || a.place[0] - b.place[0])
  return found.map((row, i) => ({ ...row, y: 24 + i * ((SIZE - 66) / Math.max(found.length - 1, 1)) }))
})
</script>

<template>
  <figure class="inset" :aria-label="title">
    <figcaption>
      <b :title="title">{{ title }}</b>
      <span class="small second bar">
        <svg :width="bar.px + 2" height="8" aria-hidden="true"><path :d="`M1 7V1H${bar.px + 1}V7`" /></svg>
        <span class="figure">{{ bar.text }}</span>
      </span>
    </figcaption>
    <svg :viewBox="`0 0 ${WIDTH} ${SIZE}`" :width="WIDTH" :height="SIZE" :data-scale="scale">
      <defs>
        <clipPath :id="id"><rect :width="SIZE" :height="SIZE" /></clipPath>
      </defs>
      <g :clip-path="`url(#${id})`">
        <path class="finished" :d="path(of.finished, true)" fill-rule="evenodd" />
        <path class="beam" :d="path(of.paths)" :style="{ strokeWidth: `${of.beam * scale}px` }" />
        <path class="path" :d="path(of.paths)" />
        <path class="finished-edge" :d="path(of.finished, true)" />
        <path class="nominal" :d="path(of.nominal)" />
      </g>
      <path class="frame" :d="`M${SIZE} 0V${SIZE}`" />
      <g v-for="row in rows" :key="row.key" :class="row.key">
        <path class="lead" :d="`M${row.place[0]} ${row.place[1]}L${SIZE + 14} ${row.y - 4}H${SIZE + 20}`" />
        <circle :cx="row.place[0]" :cy="row.place[1]" r="2.6" />
        <text :x="SIZE + 24" :y="row.y">{{ row.words }}</text>
        <text class="figure value" :x="WIDTH - 8" :y="row.y">{{ row.value }}</text>
      </g>
      <text class="beam-words" :x="SIZE + 24" :y="SIZE - 2">
        {{ tool }} {{ say.short(of.beam) }} {{ say.unit }} wide
      </text>
    </svg>
  </figure>
</template>

<style scoped>
.inset {
  margin: 0;
  width: min(24.9rem, 100%);
  background: var(--sheet);
  border: 1.5px solid var(--ink);
}
figcaption {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  padding: 3px 10px;
  border-bottom: 1px solid var(--ink);
  white-space: nowrap;
}
figcaption b {
  overflow: hidden;
  text-overflow: ellipsis;
}
.bar {
  display: flex;
  flex: none;
  align-items: center;
  gap: 5px;
}
.bar path {
  fill: none;
  stroke: var(--ink);
}
figure > svg {
  display: block;
  width: 100%;
  height: auto;
}
.finished {
  fill: var(--deep-wash);
}
.finished-edge {
  fill: none;
  stroke: var(--deep);
  stroke-width: 2;
}
.beam {
  fill: none;
  stroke: var(--beam);
  stroke-linejoin: round;
}
path.path {
  fill: none;
  stroke: var(--path);
  stroke-width: 1.3;
}
path.nominal {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-dasharray: 1.5 3.5;
}
.frame,
.lead {
  fill: none;
  stroke: var(--edge);
  stroke-width: 0.8;
}
.frame {
  stroke: var(--line);
}
text {
  fill: var(--ink);
  font-size: 13.5px;
}
.value {
  text-anchor: end;
}
circle {
  fill: var(--ink);
}
.path circle,
.path text {
  fill: var(--path);
}
.finished circle,
.finished text {
  fill: var(--deep);
}
.beam-words {
  fill: var(--path);
  font-size: 12.5px;
}
</style>
