<script setup lang="ts">
import { computed } from 'vue'

import type { Part } from '../api/client'
import { inRows } from '../geometry/rows'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { shortText } from '../units'
import DrawingFrame from './DrawingFrame.vue'
import PartMarks from './PartMarks.vue'

/** All kinds of parts, flat, at one scale. */
const job = useJob()
const settings = useSettings()
const GAP = 22

const parts = computed(() => job.design!.parts)
const laid = computed(() =>
  inRows(
    parts.value.map(({ box }) => box),
    GAP,
    1.5,
  ),
)

const hasMarks = (part: Part) => part.steps.length > 1

function select(id: string): void {
  job.selected = job.selected === `part:${id}` ? '' : `part:${id}`
}
</script>

<template>
  <DrawingFrame :box="laid.box" label="Parts, flat" :readout="false">
    <template #default>
      <path
        v-for="(part, i) in parts"
        :key="part.id"
        :d="part.path"
        :transform="`translate(${laid.places[i]![0]} ${laid.places[i]![1]})`"
        fill-rule="evenodd"
        class="part"
        :class="{ selected: job.selected === `part:${part.id}`, changed: job.changed.parts.has(part.id) }"
        tabindex="0"
        role="button"
        :aria-label="part.title"
        :aria-pressed="job.selected === `part:${part.id}`"
        @click="select(part.id)"
        @keydown.enter="select(part.id)"
        @keydown.space.prevent="select(part.id)"
      />
      <PartMarks
        v-for="(part, i) in parts"
        :key="`marks-${part.id}`"
        :part="part"
        :transform="`translate(${laid.places[i]![0]} ${laid.places[i]![1]})`"
      />
    </template>
    <template #over="{ at, pxPerMm }">
      <g v-for="(part, i) in parts" :key="part.id" class="words">
        <text
          v-if="!hasMarks(part)"
          :x="at([laid.places[i]![0] + (part.box[0] + part.box[2]) / 2, 0])[0]"
          :y="at([0, laid.places[i]![1] + (part.box[1] + part.box[3]) / 2])[1]"
        >
          {{ part.title }}
        </text>
        <text
          v-if="!hasMarks(part) && (part.box[2] - part.box[0]) * pxPerMm > 130"
          class="figure second"
          :x="at([laid.places[i]![0] + (part.box[0] + part.box[2]) / 2, 0])[0]"
          :y="at([0, laid.places[i]![1] + (part.box[1] + part.box[3]) / 2])[1] + 18"
        >
          {{ shortText(part.box[2] - part.box[0], settings.unit) }} ×
          {{ shortText(part.box[3] - part.box[1], settings.unit) }}
        </text>
      </g>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.part {
  fill: var(--board);
  stroke: var(--ink);
  stroke-width: 1.2;
  cursor: pointer;
}
.part:hover {
  fill: color-mix(in srgb, var(--board) 60%, var(--deep-wash));
}
.part:focus {
  outline: none;
}
.part:focus-visible {
  stroke: var(--deep);
  stroke-width: 3;
}
.part.changed {
  stroke: var(--ochre);
  stroke-width: 2;
}
.part.selected {
  fill: var(--deep-wash);
  stroke: var(--deep);
  stroke-width: 2;
}
.words {
  pointer-events: none;
  text-anchor: middle;
  fill: var(--ink);
  font-weight: 500;
}
.words .second {
  fill: var(--second);
  font-weight: 400;
  font-size: 12px;
}
</style>
